using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Classes;

/// <summary>A class in a list.</summary>
public sealed record ClassLine(Guid Id, string Name, int Students, int Lessons, bool Archived, Guid? TermId);

/// <summary>What a class is called, which term it runs in, and whether it is put away.</summary>
public sealed record ClassChange(string Name, Guid? TermId, bool Archived);

/// <summary>What a new class takes.</summary>
public sealed record NewClass(string Name);

/// <summary>A class with its roster and lessons.</summary>
/// <param name="Students">Who is in it now, by family name.</param>
/// <param name="Left">Who was in it; what they did stays theirs.</param>
public sealed record ClassView(
    Guid Id, string Name, bool Archived, TermLine? Term, string? MeetingLink, IReadOnlyList<StudentLine> Students, IReadOnlyList<StudentLine> Left,
    IReadOnlyList<LessonLine> Lessons, IReadOnlyList<SeriesLine> Series);

/// <summary>A student of a class.</summary>
/// <param name="Called">What they are called.</param>
/// <param name="ShortName">The same, with the shortest addition that tells them apart.</param>
/// <param name="Merged">Records that were merged into this one.</param>
public sealed record StudentLine(
    Guid Id, string Called, string ShortName, string Given, string Family, string? Preferred, string? Number, string? Email, string? SecondEmail, string? Phone, string Tags, string Key,
    Instant? LeftAt, Instant? PassMadeAt, IReadOnlyList<MergedRecord> Merged);

/// <summary>A record that was merged into another.</summary>
public sealed record MergedRecord(Guid Id, string Name, string? Number);

internal static class ClassEndpoints
{
    private const int LongestName = 100;

    public static void MapClasses(this RouteGroupBuilder api)
    {
        api.MapGet("/classes", async (SchoolDb db) => TypedResults.Ok((await db.Classes.AsNoTracking()
            .OrderBy(c => c.ArchivedAt != null).ThenBy(c => c.MadeAt)
            .Select(c => new ClassLine(
                c.Id, c.Name, db.Enrolments.Count(e => e.ClassId == c.Id && e.Stays.Any(s => s.To == null) && e.Student!.MergedIntoId == null),
                db.Lessons.Count(l => l.ClassId == c.Id && l.CancelledAt == null), c.ArchivedAt != null, c.TermId))
            .ToListAsync()).AsReadOnly())).WithName("GetClasses");

        api.MapPost("/classes", async Task<Results<Ok<ClassLine>, ProblemHttpResult>> (NewClass made, SchoolDb db, IClock clock) =>
        {
            if (SentText.Line(made.Name, LongestName) is not { } name)
            {
                return NoName();
            }

            var added = new SchoolClass { Id = Guid.CreateVersion7(), Name = name, MadeAt = clock.GetCurrentInstant() };
            db.Classes.Add(added);
            await db.SaveChangesAsync();
            return TypedResults.Ok(new ClassLine(added.Id, added.Name, 0, 0, Archived: false, null));
        }).WithName("MakeClass");

        api.MapGet("/classes/{id:guid}", async (Guid id, OwnClass own, SchoolDb db) =>
        {
            var found = own.Row;
            var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == id).OrderByDescending(l => l.PlannedStart).ToListAsync();
            var series = await db.Series.AsNoTracking().Where(s => s.ClassId == id).OrderBy(s => s.FirstDay).ToListAsync();
            var (students, left) = StudentsOf(db, id);
            return TypedResults.Ok(new ClassView(
                id, found.Name, found.ArchivedAt is not null, found.Term is null ? null : TermLine.Of(found.Term),
                lessons.FirstOrDefault(l => l.MeetingLink is not null)?.MeetingLink, students, left,
                [.. lessons.Select(l => LessonLine.Of(l, found.Name))],
                [.. series.Select(s => SeriesLine.Of(s, lessons.Count(l => l.SeriesId == s.Id && l.Stage == LessonStage.Planned && l.CancelledAt is null)))]));
        }).WithName("GetClass");

        api.MapPut("/classes/{id:guid}", async Task<Results<NoContent, NotFound, ProblemHttpResult>> (
            Guid id, ClassChange change, SchoolDb db, OpenLessons openLessons, IClock clock) =>
        {
            if (await db.Classes.FirstOrDefaultAsync(c => c.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            if (SentText.Line(change.Name, LongestName) is not { } name)
            {
                return NoName();
            }

            if (change.TermId is { } term && !await db.Terms.AnyAsync(t => t.Id == term))
            {
                return Refused.Because("This term is not here. Choose one from the list.");
            }

            found.Name = name;
            found.TermId = change.TermId;
            found.ArchivedAt = change.Archived ? found.ArchivedAt ?? clock.GetCurrentInstant() : null;
            await db.SaveChangesAsync();
            openLessons.Forget(lesson => lesson.ClassId == id);
            return TypedResults.NoContent();
        }).WithName("ChangeClass");
    }

    /// <summary>Who is in a class, and who was.</summary>
    internal static (IReadOnlyList<StudentLine> Students, IReadOnlyList<StudentLine> Left) StudentsOf(SchoolDb db, Guid classId)
    {
        var (now, ever) = (Rosters.Of(db, classId), Rosters.Ever(db, classId));
        var ids = ever.Select(s => s.Name.Id).ToHashSet();
        var merged = Rosters.Merged(db);
        var rows = db.Students.AsNoTracking().Where(s => ids.Contains(s.Id) || s.MergedIntoId != null).ToDictionary(s => s.Id);
        var left = db.Enrolments.AsNoTracking().Where(e => e.ClassId == classId && e.Stays.All(s => s.To != null))
            .Select(e => new { e.StudentId, LeftAt = e.Stays.Max(s => s.To) }).ToDictionary(e => e.StudentId, e => e.LeftAt);
        var names = ShortNames.For([.. now.Select(s => s.Name)]);
        var here = now.Select(s => s.Name.Id).ToHashSet();
        return ([.. now.Select(s => LineOf(s, names[s.Name.Id]))], [.. ever.Where(s => !here.Contains(s.Name.Id)).Select(s => LineOf(s, ShortNames.CalledName(s.Name)))]);

        StudentLine LineOf(OnSheet student, string shortName)
        {
            var row = rows[student.Name.Id];
            return new StudentLine(
                row.Id, ShortNames.CalledName(student.Name), shortName, row.Given, row.Family, row.Preferred, row.Number, row.Email, row.SecondEmail, row.Phone, row.Tags,
                student.Key.ToString(), here.Contains(row.Id) ? null : left.GetValueOrDefault(row.Id), row.PassMadeAt,
                [.. merged.Where(m => m.Value == row.Id).Select(m => rows[m.Key]).Select(m => new MergedRecord(m.Id, $"{m.Given} {m.Family}".Trim(), m.Number))]);
        }
    }

    private static ProblemHttpResult NoName() => Refused.Because($"A class needs a name of at most {LongestName} letters.");
}
