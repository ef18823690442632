using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Objections;

/// <summary>What a student says is wrong in their score of a lesson.</summary>
/// <param name="About">The entry that it is about, in the words that the student read; empty if it is about the whole lesson.</param>
/// <param name="AnsweredAt">When it was answered; null while it waits.</param>
public sealed record ObjectionLine(
    Guid Id, LessonLine Lesson, Guid Student, string Called, Guid? Entry, string About, string Text, Instant MadeAt, string Answer, string AnsweredBy, Instant? AnsweredAt);

/// <summary>What the teacher answers.</summary>
public sealed record ObjectionAnswer(string Text);

internal static class ObjectionEndpoints
{
    private const int LongestAnswer = 1000;

    public static void MapObjections(this RouteGroupBuilder api)
    {
        api.MapPost("/objections/{id:guid}/answer", async Task<Results<Ok<ObjectionLine>, NotFound, ProblemHttpResult>> (
            Guid id, ObjectionAnswer sent, SchoolDb db, HttpContext http, IClock clock) =>
            CleanText.Of(sent.Text ?? "").Trim() is not { Length: > 0 } text ? Refused.Because("Write an answer. Nothing was stored.")
            : text.Length > LongestAnswer ? Refused.Because($"An answer has at most {LongestAnswer:N0} characters. Nothing was stored.")
            : await Change(id, db, o => (o.Answer, o.AnsweredBy, o.AnsweredAt) = (text, http.User.Identity?.Name ?? "", clock.GetCurrentInstant())) is { } answered
                ? TypedResults.Ok(answered)
                : TypedResults.NotFound()).WithName("AnswerObjection");

        api.MapPost("/objections/{id:guid}/take-back", async Task<Results<Ok<ObjectionLine>, NotFound>> (Guid id, SchoolDb db) =>
            await Change(id, db, o => (o.Answer, o.AnsweredBy, o.AnsweredAt) = ("", "", null)) is { } waiting ? TypedResults.Ok(waiting) : TypedResults.NotFound())
            .WithName("TakeBackAnswer");
    }

    /// <summary>Objections with what they are about, the oldest first.</summary>
    /// <param name="some">Which.</param>
    /// <param name="db">A context of their owner.</param>
    public static async Task<IReadOnlyList<ObjectionLine>> Lines(IQueryable<Objection> some, SchoolDb db)
    {
        var rows = await some.AsNoTracking().Include(o => o.Lesson).ThenInclude(l => l!.Class).Include(o => o.Student).OrderBy(o => o.MadeAt).ToListAsync();
        var merged = rows.Count == 0 ? new Dictionary<Guid, Guid>() : Rosters.Merged(db);
        return [.. rows.Select(o => LineOf(o, merged.GetValueOrDefault(o.StudentId, o.StudentId)))];
    }

    private static async Task<ObjectionLine?> Change(Guid id, SchoolDb db, Action<Objection> change)
    {
        if (await db.Objections.FirstOrDefaultAsync(o => o.Id == id) is not { } found)
        {
            return null;
        }

        change(found);
        await db.SaveChangesAsync();
        return (await Lines(db.Objections.Where(o => o.Id == id), db))[0];
    }

    private static ObjectionLine LineOf(Objection row, Guid student) => new(
        row.Id, LessonLine.Of(row.Lesson!, row.Lesson!.Class!.Name), student, ShortNames.CalledName(Rosters.NameOf(row.Student!)), row.EntryId, row.About, row.Text, row.MadeAt,
        row.Answer, row.AnsweredBy, row.AnsweredAt);
}
