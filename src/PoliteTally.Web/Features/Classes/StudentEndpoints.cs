using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Classes;

/// <summary>The record of a student.</summary>
/// <param name="InClass">Whether they are in the class; one who left keeps their past.</param>
public sealed record StudentRecord(string? Number, string Family, string Given, string? Preferred, string? Email, string? SecondEmail, string? Phone, string? Tags, bool InClass);

/// <summary>The record that another is merged into.</summary>
public sealed record MergeInto(Guid Into);

/// <summary>What a merge, or taking it back, changed of scores.</summary>
public sealed record Renewed(int Lessons, int Scores);

internal static class StudentEndpoints
{
    private const int LongestField = 200;

    public static void MapStudents(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/students", async Task<Results<Ok<StudentLine>, ProblemHttpResult>> (
            Guid id, OwnClass own, StudentRecord record, SchoolDb db, OpenLessons openLessons, IClock clock) =>
        {
            var student = new Student { Id = Guid.CreateVersion7(), Family = "", Given = "" };
            if (await WhyNot(student, record, db) is { } why)
            {
                return Refused.Because(why);
            }

            Write(record, student);
            db.Students.Add(student);
            db.Enrolments.Add(new Enrolment { ClassId = id, StudentId = student.Id, Key = ' ', Stays = [new Stay { From = clock.GetCurrentInstant() }] });
            await RosterEndpoints.GiveKeys(id, db);
            await db.SaveChangesAsync();
            openLessons.Forget(lesson => lesson.ClassId == id);
            return TypedResults.Ok(ClassEndpoints.StudentsOf(db, id).Students.Single(s => s.Id == student.Id));
        }).WithName("AddStudent");

        api.MapPut("/classes/{id:guid}/students/{student:guid}", async Task<Results<NoContent, NotFound, ProblemHttpResult>> (
            Guid id, Guid student, StudentRecord record, SchoolDb db, OpenLessons openLessons, Owner owner, IClock clock) =>
        {
            if (await PlaceOf(id, student, db) is not { } place)
            {
                return TypedResults.NotFound();
            }

            if (await WhyNot(place.Student!, record, db) is { } why)
            {
                return Refused.Because(why);
            }

            Write(record, place.Student!);
            RosterEndpoints.Stand(place, record.InClass, clock.GetCurrentInstant());
            await RosterEndpoints.GiveKeys(id, db);
            await db.SaveChangesAsync();
            // The record is the same in every class of this teacher.
            openLessons.Forget(lesson => lesson.OwnerId == owner.Id);
            return TypedResults.NoContent();
        }).WithName("ChangeStudent");

        api.MapPost("/classes/{id:guid}/students/{student:guid}/merge", async Task<Results<Ok<Renewed>, NotFound, ProblemHttpResult>> (
            Guid id, Guid student, MergeInto merge, SchoolDb db, OpenLessons openLessons, Owner owner) =>
        {
            var into = await db.Students.FirstOrDefaultAsync(s => s.Id == merge.Into);
            if (await PlaceOf(id, student, db) is not { } place || into is null)
            {
                return TypedResults.NotFound();
            }

            if (into.Id == student || Rosters.Merged(db).GetValueOrDefault(into.Id) == student || into.MergedIntoId is not null)
            {
                return Refused.Because("A record cannot be merged into itself, or into one that was merged. Choose another.");
            }

            place.Student!.MergedIntoId = into.Id;
            return TypedResults.Ok(await Renew([student, into.Id], db, openLessons, owner));
        }).WithName("MergeStudent");

        api.MapDelete("/classes/{id:guid}/students/{student:guid}/merge", async Task<Results<Ok<Renewed>, NotFound>> (
            Guid id, Guid student, SchoolDb db, OpenLessons openLessons, Owner owner) =>
        {
            var record = await db.Students.FirstOrDefaultAsync(s => s.Id == student);
            if (record?.MergedIntoId is not { } into || !await db.Classes.AnyAsync(c => c.Id == id))
            {
                return TypedResults.NotFound();
            }

            record.MergedIntoId = null;
            return TypedResults.Ok(await Renew([student, into], db, openLessons, owner));
        }).WithName("UnmergeStudent");
    }

    private static Task<Enrolment?> PlaceOf(Guid classId, Guid student, SchoolDb db) =>
        db.Enrolments.Include(e => e.Student).Include(e => e.Stays).FirstOrDefaultAsync(e => e.ClassId == classId && e.StudentId == student);

    private static async Task<Renewed> Renew(Guid[] students, SchoolDb db, OpenLessons openLessons, Owner owner)
    {
        var classes = (await db.Enrolments.Where(e => students.Contains(e.StudentId)).Select(e => e.ClassId).ToListAsync()).ToHashSet();
        foreach (var inClass in classes)
        {
            await RosterEndpoints.GiveKeys(inClass, db);
        }

        var (lessons, scores) = await Summaries.Renew(db, lesson => classes.Contains(lesson.ClassId));
        openLessons.Forget(lesson => lesson.OwnerId == owner.Id);
        return new Renewed(lessons, scores);
    }

    private static void Write(StudentRecord record, Student student)
    {
        (student.Given, student.Family) = RosterName.Placed(record.Given.Trim(), record.Family.Trim());
        (student.Number, student.Preferred, student.Email) = (OrNull(record.Number), OrNull(record.Preferred), OrNull(record.Email));
        (student.SecondEmail, student.Phone) = (OrNull(record.SecondEmail), OrNull(record.Phone));
        student.Tags = string.Join(';', (record.Tags ?? "").Split([';', ','], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries));
    }

    private static async Task<string?> WhyNot(Student student, StudentRecord record, SchoolDb db)
    {
        if (OrNull(record.Family) is null && OrNull(record.Given) is null)
        {
            return "A student needs a name; one is enough.";
        }

        string?[] optional = [record.Family, record.Given, record.Number, record.Preferred, record.Email, record.Tags, record.SecondEmail, record.Phone];
        if (optional.Any(o => OrNull(o) is not null && SentText.Line(o, LongestField) is null))
        {
            return $"No field may be longer than {LongestField} letters or hold a line break.";
        }

        if (new[] { OrNull(record.Email), OrNull(record.SecondEmail) }.FirstOrDefault(a => a is not null && !RosterFile.IsAddress(a)) is { } email)
        {
            return $"“{email}” is no e-mail address.";
        }

        if (OrNull(record.Phone) is { } phone && !RosterFile.IsPhone(phone))
        {
            return $"“{phone}” is no telephone number: digits, with a plus in front and blanks between them if you like.";
        }

        if (OrNull(record.Number) is { } number
            && await db.Students.FirstOrDefaultAsync(s => s.Number == number && s.Id != student.Id && s.MergedIntoId == null) is { } other)
        {
            return $"{other.Given} {other.Family} has the number {number} already. If both are one student, merge the two records.";
        }

        return null;
    }

    private static string? OrNull(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
}
