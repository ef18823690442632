using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Live;
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

/// <summary>What was found of a student lately: whoever looks back asks again with every letter, and all ledgers of the student need not be read for each.</summary>
public sealed class PastKept
{
    private const int Most = 6;
    private readonly Lock _lock = new();
    private readonly List<(string Key, IReadOnlyList<PastLine> Lines)> _kept = [];

    internal async Task<IReadOnlyList<PastLine>> Of(string key, Func<Task<List<PastLine>>> read)
    {
        lock (_lock)
        {
            if (_kept.FindIndex(k => k.Key == key) is >= 0 and var at)
            {
                return _kept[at].Lines;
            }
        }

        var lines = await read();
        lock (_lock)
        {
            _kept.Add((key, lines));
            _kept.RemoveRange(0, Math.Max(0, _kept.Count - Most));
        }

        return lines;
    }
}

/// <summary>Everything that is known of a student, over all classes and terms.</summary>
internal static class LookBackEndpoints
{
    private const int MostShown = 300;
    private const int LongestWords = 100;
    private const string Sent = "report sent";

    public static void MapLookBack(this RouteGroupBuilder api) =>
        api.MapGet("/students/{id:guid}/past", async Task<Results<Ok<PastView>, NotFound, ProblemHttpResult>> (
            Guid id, string? words, string? kind, string? from, string? to, SchoolDb db, Owner owner, PastKept kept) =>
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

            var all = await Lines(student, span, db, owner, kept);
            var wanted = NameFolding.FoldText(words ?? "");
            var found = all.Where(l => (string.IsNullOrEmpty(kind) || l.Kind == kind) && (wanted.Length == 0 || NameFolding.FoldText($"{l.Text} {l.Title}").Contains(wanted, StringComparison.Ordinal)))
                .OrderByDescending(l => l.At).ToList();
            return TypedResults.Ok(new PastView(Rosters.NameOf(student).Whole, found.Count, [.. all.Select(l => l.Kind).Distinct().Order(StringComparer.Ordinal)], [.. found.Take(MostShown)]));
        }).WithName("LookBack");

    /// <summary>Everything that is known of a student on these days.</summary>
    internal static async Task<IReadOnlyList<PastLine>> Lines(Student student, Span span, SchoolDb db, Owner owner, PastKept kept)
    {
        var records = Rosters.RecordsOf(db, student.Id);
        var classes = await db.Enrolments.AsNoTracking().Where(e => records.Contains(e.StudentId)).Select(e => new { e.ClassId, e.Class!.Name }).Distinct().ToDictionaryAsync(c => c.ClassId, c => c.Name);
        var (start, end, ids) = (span.From ?? Instant.MinValue, span.To ?? Instant.MaxValue, classes.Keys.ToList());
        var lessons = await db.Lessons.AsNoTracking().Where(l => ids.Contains(l.ClassId) && l.PlannedStart >= start && l.PlannedStart < end).Select(l => l.Id).ToListAsync();
        // Entries are only ever added: as long as the newest is the same, so are all.
        var newest = await db.Entries.Where(e => lessons.Contains(e.LessonId)).MaxAsync(e => (long?)e.Seq);
        var (sent, said) = (await db.SentReports.CountAsync(s => records.Contains(s.StudentId)), await db.Objections.Where(o => records.Contains(o.StudentId)).MaxAsync(o => (Instant?)(o.AnsweredAt ?? o.MadeAt)));
        var key = string.Create(CultureInfo.InvariantCulture, $"{owner.Id} {student.Id} {string.Join(',', records)} {string.Join(',', lessons)} {newest} {sent} {said} {span}");
        return await kept.Of(key, () => LinesOf(student, records, classes, lessons, start, end, db));
    }

    private static async Task<List<PastLine>> LinesOf(
        Student student, IReadOnlyList<Guid> records, Dictionary<Guid, string> classes, List<Guid> lessons, Instant start, Instant end, SchoolDb db)
    {
        var lines = new List<PastLine>();
        foreach (var open in lessons.Select(l => OpenLesson.Load(db, l)).OfType<OpenLesson>().Where(o => o.Count > 0))
        {
            var (state, lesson) = (open.State, open.Lesson);
            lines.AddRange(
                from entry in state.Entries
                where entry.Act is not Struck && state.StudentsOf(entry.Act).Contains(student.Id)
                select new PastLine(
                    entry.HappenedAt, KindOf(entry.Act), Wording.For(student.Id, entry, state), entry.By, lesson.ClassId, classes[lesson.ClassId], lesson.Id,
                    string.Create(CultureInfo.InvariantCulture, $"{lesson.Number}, {lesson.Title}"), (int)Math.Floor((entry.HappenedAt - lesson.PlannedStart).TotalMinutes), state.IsStruck(entry.Id)));
        }

        lines.AddRange((await db.SentReports.AsNoTracking().Where(s => records.Contains(s.StudentId) && s.At >= start && s.At < end).ToListAsync())
            .Select(s => new PastLine(s.At, Sent, s.Problem.Length == 0 ? $"a report went to {s.To}" : $"a report did not go to {s.To}: {s.Problem}", "", s.ClassId, classes.GetValueOrDefault(s.ClassId, ""), null, s.About, null, false)));
        lines.AddRange((await db.Objections.AsNoTracking().Include(o => o.Lesson).Where(o => records.Contains(o.StudentId) && o.MadeAt >= start && o.MadeAt < end).ToListAsync())
            .Select(o => new PastLine(
                o.MadeAt, "said to be wrong", o.Answer.Length == 0 ? o.Text : $"{o.Text} Answered: {o.Answer}", o.AnsweredBy, o.Lesson!.ClassId, classes.GetValueOrDefault(o.Lesson.ClassId, ""), o.LessonId,
                string.Create(CultureInfo.InvariantCulture, $"{o.Lesson.Number}, {o.Lesson.Title}"), null, false)));
        return lines;
    }

    // By the trade that an act belongs to, which is how people ask.
    private static string KindOf(Act act) => act.GetType().Namespace!.Split('.')[^1] switch
    {
        "Attendance" => "attendance",
        "Hands" => "speaking",
        "Questions" => "questions",
        "Chat" => "chat",
        "Groups" => "groups",
        "Signals" => "signals",
        "Scoring" => "scores",
        "Notes" => "notes",
        "Page" => "student page",
        _ => "names and files",
    };
}
