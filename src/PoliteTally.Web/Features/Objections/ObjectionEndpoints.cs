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
        {
            if (await db.Objections.FirstOrDefaultAsync(o => o.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var text = CleanText.Of(sent.Text ?? "").Trim();
            if (text.Length is 0 or > LongestAnswer)
            {
                return Refused.Because(text.Length == 0 ? "Write an answer. Nothing was stored." : $"An answer has at most {LongestAnswer:N0} characters. Nothing was stored.");
            }

            if (found.AnsweredAt is not null)
            {
                return Refused.Now($"{found.AnsweredBy} has answered it already: “{found.Answer}”. Nothing was stored.");
            }

            return TypedResults.Ok(await Change(found, db, (text, http.User.Identity?.Name ?? "", clock.GetCurrentInstant())));
        }).WithName("AnswerObjection");

        api.MapPost("/objections/{id:guid}/take-back", async Task<Results<Ok<ObjectionLine>, NotFound>> (Guid id, SchoolDb db) =>
            await db.Objections.FirstOrDefaultAsync(o => o.Id == id) is { } found ? TypedResults.Ok(await Change(found, db, ("", "", null))) : TypedResults.NotFound())
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

    private static async Task<ObjectionLine> Change(Objection row, SchoolDb db, (string Text, string By, Instant? At) answer)
    {
        (row.Answer, row.AnsweredBy, row.AnsweredAt) = answer;
        await db.SaveChangesAsync();
        return (await Lines(db.Objections.Where(o => o.Id == row.Id), db))[0];
    }

    private static ObjectionLine LineOf(Objection row, Guid student) => new(
        row.Id, LessonLine.Of(row.Lesson!, row.Lesson!.Class!.Name), student, ShortNames.CalledName(Rosters.NameOf(row.Student!)), row.EntryId, row.About, row.Text, row.MadeAt,
        row.Answer, row.AnsweredBy, row.AnsweredAt);
}
