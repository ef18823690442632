using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Mail;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.WordAhead;

/// <summary>How it stands with the word ahead of a lesson.</summary>
public enum WordStands
{
    /// <summary>It is not to go by itself.</summary>
    Off,

    /// <summary>It goes when it is due.</summary>
    Waits,

    /// <summary>It is going out now.</summary>
    Going,

    /// <summary>It went.</summary>
    Sent,

    /// <summary>It did not go, or not to all.</summary>
    NotSent,
}

/// <summary>The word ahead of a lesson: how it stands, and how it reads for one student.</summary>
/// <param name="Said">What happened, in words; empty while nothing has.</param>
/// <param name="StandIn">Whether messages go into the folder that stands in for the post.</param>
public sealed record WordView(
    WordStands Stands, Instant DueAt, Instant? At, string Said, string To, string Subject, string Text, bool StandIn, IReadOnlyList<WordLine> Students);

/// <summary>The word ahead to one student.</summary>
public sealed record WordLine(Guid Student, string Address, WordState State, Instant At, string Why);

internal static class WordAheadEndpoints
{
    public static void MapWordAhead(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/word", async Task<Results<Ok<WordView>, NotFound>> (
            Guid id, Guid? student, SchoolDb db, Owner owner, IMail mail, IClock clock) =>
            await ViewOf(id, student, db, owner, mail, clock.GetCurrentInstant()) is { } view ? TypedResults.Ok(view) : TypedResults.NotFound())
            .WithName("GetWord");

        api.MapPost("/lessons/{id:guid}/word", async Task<Results<Ok<WordView>, NotFound, ProblemHttpResult>> (
            Guid id, SchoolDb db, Owner owner, WordAheadSender sender, IMail mail, IClock clock) =>
        {
            if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            if (lesson.Stage is not (LessonStage.Planned or LessonStage.Live) || lesson.CancelledAt is not null)
            {
                return Refused.Now("This lesson is over or cancelled; there is nothing to send word of.");
            }

            await sender.Send(owner.Id, id, again: true, CancellationToken.None);
            return TypedResults.Ok((await ViewOf(id, null, db, owner, mail, clock.GetCurrentInstant()))!);
        }).WithName("SendWord").RequireRateLimiting(Limits.Files);

        api.MapGet("/outbox", async (Owner owner, IMail mail) => TypedResults.Ok(
            mail is OutboxFolder folder ? await folder.Read(owner.Id) : [])).WithName("GetOutbox");
    }

    private static async Task<WordView?> ViewOf(Guid id, Guid? student, SchoolDb db, Owner owner, IMail mail, Instant now)
    {
        if (await db.Lessons.AsNoTracking().Include(l => l.Class).FirstOrDefaultAsync(l => l.Id == id) is not { } lesson)
        {
            return null;
        }

        var word = RulesJson.Of(lesson, lesson.Class!).WordAhead;
        var whole = await db.WordOfLessons.AsNoTracking().FirstOrDefaultAsync(w => w.LessonId == id);
        var teacher = await db.Users.AsNoTracking().SingleAsync(u => u.Id == owner.Id);
        var roster = Rosters.Of(db, lesson);
        var shown = roster.FirstOrDefault(s => s.Name.Id == student) ?? roster.FirstOrDefault(s => s.Name.Email is not null) ?? (roster.Count > 0 ? roster[0] : null);
        var facts = WordAheadSender.FactsOf(shown?.Name ?? new(Guid.Empty, "student", ""), lesson, teacher);
        var missed = word.On && whole is null && now >= lesson.PlannedStart;
        return new WordView(
            whole?.State switch
            {
                WordState.Going => WordStands.Going,
                WordState.Sent => WordStands.Sent,
                WordState.NotSent or WordState.Delayed => WordStands.NotSent,
                _ when missed => WordStands.NotSent,
                _ => word.On && lesson.CancelledAt is null ? WordStands.Waits : WordStands.Off,
            },
            word.DueAt(lesson.PlannedStart), whole?.At,
            whole?.Said ?? (missed ? "Polite Tally was not running when it was due, or the lesson was made too late for it." : ""),
            shown?.Name.Email ?? "", word.SubjectFor(facts), word.TextFor(facts), mail is OutboxFolder,
            [.. (await db.WordsSent.AsNoTracking().Where(w => w.LessonId == id).ToListAsync()).Select(w => new WordLine(w.StudentId, w.Address, w.State, w.At, w.Why))]);
    }
}
