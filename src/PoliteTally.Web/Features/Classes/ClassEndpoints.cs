using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;

namespace PoliteTally.Web.Features.Classes;

/// <summary>A class in a list.</summary>
public sealed record ClassLine(Guid Id, string Name, int Students, int Lessons);

/// <summary>What a new class takes.</summary>
public sealed record NewClass([property: Required, StringLength(100, MinimumLength = 1)] string Name);

/// <summary>A class with its roster and lessons.</summary>
public sealed record ClassPage(Guid Id, string Name, IReadOnlyList<StudentLine> Students, IReadOnlyList<LessonLine> Lessons);

/// <summary>A student of a class.</summary>
public sealed record StudentLine(
    Guid Id, string Called, string Given, string Family, string? Number, string? Email, string Tags, string Key);

/// <summary>What bringing in a roster did.</summary>
public sealed record RosterBroughtIn(int Added, int Changed, int Unchanged);

internal static class ClassEndpoints
{
    public static void MapClasses(this RouteGroupBuilder api)
    {
        api.MapGet("/classes", async (SchoolDb db) => TypedResults.Ok((await db.Classes.AsNoTracking()
            .OrderBy(c => c.MadeAt)
            .Select(c => new ClassLine(
                c.Id, c.Name, db.Enrolments.Count(e => e.ClassId == c.Id), db.Lessons.Count(l => l.ClassId == c.Id)))
            .ToListAsync()).AsReadOnly())).WithName("GetClasses");

        api.MapPost("/classes", async Task<Results<Ok<ClassLine>, ProblemHttpResult>> (NewClass made, SchoolDb db, IClock clock) =>
        {
            var name = made.Name?.Trim() ?? "";
            if (name.Length is 0 or > 100)
            {
                return TypedResults.Problem("A class needs a name of at most 100 letters.", statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            var added = new SchoolClass { Id = Guid.CreateVersion7(), Name = name, MadeAt = clock.GetCurrentInstant() };
            db.Classes.Add(added);
            await db.SaveChangesAsync();
            return TypedResults.Ok(new ClassLine(added.Id, added.Name, 0, 0));
        }).WithName("MakeClass");

        api.MapGet("/classes/{id:guid}", async Task<Results<Ok<ClassPage>, NotFound>> (Guid id, SchoolDb db) =>
        {
            if (await db.Classes.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == id).OrderByDescending(l => l.PlannedStart)
                .ToListAsync();
            return TypedResults.Ok(new ClassPage(
                id, found.Name, [.. Room.LoadRoster(db, id).Select(LineOf)],
                [.. lessons.Select(l => LessonLine.Of(l, found.Name))]));
        }).WithName("GetClass");

        api.MapPost("/classes/{id:guid}/roster/preview", async Task<Results<Ok<RosterPreview>, NotFound, ProblemHttpResult>> (
            Guid id, HttpRequest request, SchoolDb db) =>
        {
            if (!await db.Classes.AnyAsync(c => c.Id == id))
            {
                return TypedResults.NotFound();
            }

            var sent = await SentFile.From(request);
            return TypedResults.Ok(RosterFile.Read(sent.Bytes, sent.Mapping));
        }).WithName("PreviewRoster").RequireRateLimiting(Limits.Files);

        api.MapPost("/classes/{id:guid}/roster", async Task<Results<Ok<RosterBroughtIn>, NotFound, ProblemHttpResult>> (
            Guid id, HttpRequest request, SchoolDb db, LedgerWriter ledger) =>
        {
            if (!await db.Classes.AnyAsync(c => c.Id == id))
            {
                return TypedResults.NotFound();
            }

            var sent = await SentFile.From(request);
            var preview = RosterFile.Read(sent.Bytes, sent.Mapping);
            if (SentFile.StillWrong(preview.Lines.Select(l => (l.Row, l.Problems)), sent.LeaveOut) is { } wrong)
            {
                return wrong;
            }

            var done = await Apply(id, [.. preview.Lines.Where(l => l.Problems.Count == 0)], db);
            ledger.Forget(lesson => lesson.ClassId == id);
            return TypedResults.Ok(done);
        }).WithName("BringInRoster").RequireRateLimiting(Limits.Files);
    }

    private static StudentLine LineOf(OnSheet student) => new(
        student.Name.Id, ShortNames.CalledName(student.Name), student.Name.Given, student.Name.Family, student.Name.Number,
        student.Name.Email, student.Tags, student.Key.ToString());

    /// <summary>Adds and changes students; nobody leaves by a file that lacks them.</summary>
    private static async Task<RosterBroughtIn> Apply(Guid classId, IReadOnlyList<RosterLine> lines, SchoolDb db)
    {
        await using var transaction = await db.Database.BeginTransactionAsync();
        // A student may be in another class of this teacher already: known by number or e-mail.
        var known = await db.Students.ToListAsync();
        var enrolled = await db.Enrolments.Where(e => e.ClassId == classId).ToDictionaryAsync(e => e.StudentId);
        var (added, changed, unchanged) = (0, 0, 0);
        foreach (var line in lines)
        {
            var student = known.Find(s => IsSame(s, line, enrolled));
            var isNew = student is null || !enrolled.ContainsKey(student.Id);
            if (student is null)
            {
                student = new Student { Id = Guid.CreateVersion7(), Family = line.Family, Given = line.Given };
                db.Students.Add(student);
                known.Add(student);
            }

            (student.Number, student.Family, student.Given, student.Preferred, student.Email, student.Tags) =
                (line.Number ?? student.Number, line.Family, line.Given, line.Preferred, line.Email ?? student.Email, line.Tags);
            if (isNew)
            {
                var place = new Enrolment { ClassId = classId, StudentId = student.Id, Key = ' ' };
                db.Enrolments.Add(place);
                enrolled[student.Id] = place;
                added++;
            }
            else if (db.Entry(student).State == EntityState.Modified)
            {
                changed++;
            }
            else
            {
                unchanged++;
            }
        }

        var roster = known.Where(s => enrolled.ContainsKey(s.Id)).Select(Room.NameOf)
            .OrderBy(n => NameFolding.Fold(n.Family), StringComparer.Ordinal).ToList();
        var kept = enrolled.Values.Where(e => e.Key != ' ').ToDictionary(e => e.StudentId, e => e.Key);
        foreach (var (student, key) in ShortNames.Keys(roster, kept))
        {
            enrolled[student].Key = key;
        }

        await db.SaveChangesAsync();
        await transaction.CommitAsync();
        return new RosterBroughtIn(added, changed, unchanged);
    }

    private static bool IsSame(Student student, RosterLine line, Dictionary<Guid, Enrolment> enrolled) =>
        line.Number is not null && student.Number is not null ? line.Number == student.Number
        : line.Email is not null && student.Email is not null ? string.Equals(line.Email, student.Email, StringComparison.OrdinalIgnoreCase)
        : enrolled.ContainsKey(student.Id) && NameFolding.Fold($"{line.Given} {line.Family}") == NameFolding.Fold($"{student.Given} {student.Family}");
}
