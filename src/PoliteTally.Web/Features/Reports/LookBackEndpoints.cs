using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>Something that is known of a student.</summary>
/// <param name="At">When it happened.</param>
/// <param name="Kind">What kind of thing it is, in a word.</param>
/// <param name="Text">What happened, in words.</param>
/// <param name="By">Who noted it.</param>
/// <param name="Class">The class.</param>
/// <param name="Lesson">The lesson; null of what was sent outside of one.</param>
/// <param name="Minute">The minute of the lesson, counted from its planned start.</param>
/// <param name="Struck">Whether it was taken back since.</param>
public sealed record PastLine(Instant At, string Kind, string Text, string By, Guid ClassId, string Class, Guid? Lesson, string Title, int? Minute, bool Struck);

/// <summary>What is known of a student, the newest first.</summary>
/// <param name="All">How many lines there are of what is asked for; the first of them are in <paramref name="Lines"/>.</param>
/// <param name="Kinds">Kinds of which there is any at all.</param>
public sealed record PastView(string Student, int All, IReadOnlyList<string> Kinds, IReadOnlyList<PastLine> Lines);

/// <summary>Everything that is known of a student, over all classes and terms.</summary>
internal static class LookBackEndpoints
{
    private const int MostShown = 300;
    private const int LongestWords = 100;
    private const string Sent = "report sent";

    public static void MapLookBack(this RouteGroupBuilder api) =>
        api.MapGet("/students/{id:guid}/past", async Task<Results<Ok<PastView>, NotFound, ProblemHttpResult>> (
            Guid id, string? words, string? kind, string? from, string? to, SchoolDb db, Owner owner) =>
        {
            if (await Span.Asked(from, to, db, owner) is not { } span)
            {
                return Refused.NoDay();
            }

            if (words?.Length > LongestWords)
            {
                return Refused.Because($"Look for at most {LongestWords} letters.");
            }

            if (await db.Students.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id) is not { } student)
            {
                return TypedResults.NotFound();
            }

            var all = await Lines(student, span, db);
            var wanted = NameFolding.FoldText(words ?? "");
            var found = all.Where(l => (string.IsNullOrEmpty(kind) || l.Kind == kind) && (wanted.Length == 0 || NameFolding.FoldText($"{l.Text} {l.Title}").Contains(wanted, StringComparison.Ordinal)))
                .OrderByDescending(l => l.At).ToList();
            return TypedResults.Ok(new PastView(Rosters.NameOf(student).Whole, found.Count, [.. all.Select(l => l.Kind).Distinct().Order(StringComparer.Ordinal)], [.. found.Take(MostShown)]));
        }).WithName("LookBack");

    /// <summary>Everything that is known of a student on these days.</summary>
    internal static async Task<IReadOnlyList<PastLine>> Lines(Student student, Span span, SchoolDb db)
    {
        var records = Rosters.RecordsOf(db, student.Id);
        var classes = await db.Enrolments.AsNoTracking().Where(e => records.Contains(e.StudentId)).Select(e => new { e.ClassId, e.Class!.Name }).Distinct().ToDictionaryAsync(c => c.ClassId, c => c.Name);
        var (start, end, ids) = (span.From ?? Instant.MinValue, span.To ?? Instant.MaxValue, classes.Keys.ToList());
        var lessons = await db.Lessons.AsNoTracking().Where(l => ids.Contains(l.ClassId) && l.PlannedStart >= start && l.PlannedStart < end)
            // Nothing is known of a lesson in which nothing was noted; of a term most are still to come.
            .Where(l => l.LookBackKept || db.Entries.Any(e => e.LessonId == l.Id)).ToListAsync();
        // Of settled lessons it is kept; of others that have begun, and of those that are being reckoned anew, the ledger is read.
        var kept = await db.LookBack.AsNoTracking().Where(k => k.StudentId == student.Id && k.Lesson!.PlannedStart >= start && k.Lesson.PlannedStart < end).ToDictionaryAsync(k => k.LessonId);
        var lines = new List<PastLine>();
        foreach (var lesson in lessons)
        {
            var known = lesson is { Stage: LessonStage.Settled, LookBackKept: true, ReckonAgain: false }
                ? kept.TryGetValue(lesson.Id, out var row) ? Summaries.KnownBy(row) : []
                : LookBack.Of(OpenLesson.Load(db, lesson.Id)!.State).GetValueOrDefault(student.Id, []);
            lines.AddRange(known.Select(k => new PastLine(
                k.At, k.Kind, k.Text, k.By, lesson.ClassId, classes[lesson.ClassId], lesson.Id,
                string.Create(CultureInfo.InvariantCulture, $"{lesson.Number}, {lesson.Title}"), (int)Math.Floor((k.At - lesson.PlannedStart).TotalMinutes), k.Struck)));
        }

        lines.AddRange((await db.SentReports.AsNoTracking().Where(s => records.Contains(s.StudentId) && s.At >= start && s.At < end).ToListAsync())
            .Select(s => new PastLine(s.At, Sent, s.Problem.Length == 0 ? $"a report went to {s.To}" : $"a report did not go to {s.To}: {s.Problem}", "", s.ClassId, classes.GetValueOrDefault(s.ClassId, ""), null, s.About, null, false)));
        lines.AddRange((await db.Objections.AsNoTracking().Include(o => o.Lesson).Where(o => records.Contains(o.StudentId) && o.MadeAt >= start && o.MadeAt < end).ToListAsync())
            .Select(o => new PastLine(
                o.MadeAt, "said to be wrong", o.Answer.Length == 0 ? o.Text : $"{o.Text} Answered: {o.Answer}", o.AnsweredBy, o.Lesson!.ClassId, classes.GetValueOrDefault(o.Lesson.ClassId, ""), o.LessonId,
                string.Create(CultureInfo.InvariantCulture, $"{o.Lesson.Number}, {o.Lesson.Title}"), null, false)));
        return lines;
    }
}
