using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Signals;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>Entries as a window sends them.</summary>
public sealed record EntriesSent(IReadOnlyList<SentEntry> Entries);

/// <summary>One entry as a window sends it.</summary>
/// <param name="Together">Shared by the entries that one press noted; null if it noted one alone.</param>
public sealed record SentEntry(Guid Id, Instant HappenedAt, Act Act, Guid? Together = null);

internal static class LiveEndpoints
{
    private const int MostEntriesAtOnce = 500;

    public static void MapLive(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/live", (OwnLesson own, LivePublisher live) =>
            TypedResults.Ok(live.ViewOf(own.Open))).WithName("GetLive");

        api.MapGet("/lessons/{id:guid}/live/since/{position:long}", (OwnLesson own, long position, LivePublisher live) =>
            TypedResults.Ok(live.Since(position, own.Open))).WithName("GetLiveSince");

        api.MapGet("/lessons/{id:guid}/chat", (OwnLesson own) =>
        {
            var open = own.Open;
            var (position, state) = (open.Position, open.State);
            return TypedResults.Ok(ChatView.Of(open, state, position, withPrivate: true));
        }).WithName("GetChat");

        api.MapPost("/lessons/{id:guid}/entries", async Task<Results<Ok<WriteResult>, NotFound, ProblemHttpResult>> (
            Guid id, EntriesSent sent, LedgerWriter ledger, OpenLessons openLessons, Reckoner reckoner, SchoolDb db, Owner owner, HttpContext http) =>
        {
            if (WrongBatch(sent) is { } wrong)
            {
                return wrong;
            }

            var by = http.User.Identity?.Name ?? "";
            var result = await ledger.Append(
                owner.Id, id, Source.Tapped, by, [.. sent.Entries.Select(e => new NewEntry(e.Id, e.HappenedAt, e.Act, e.Together))]);
            // What was said of scores of a settled lesson shows at once; what it tells of its students is kept when nobody waits.
            if (sent.Entries.Any(e => e.Act is Struck or LessonSettled or { IsTakenWhenSettled: true }) && await openLessons.Find(owner.Id, id) is { Lesson: var lesson })
            {
                if (lesson.ReckonAgain)
                {
                    await Summaries.RenewDue(db, id);
                }

                if (lesson.Stage == LessonStage.Settled)
                {
                    reckoner.Wake(owner.Id);
                }
            }

            return result is null ? TypedResults.NotFound() : TypedResults.Ok(result);
        }).WithName("AddEntries").DisableValidation().RequireRateLimiting(Limits.Entries);
    }

    /// <summary>Why a batch cannot be taken at all; null if it can.</summary>
    internal static ProblemHttpResult? WrongBatch(EntriesSent sent)
    {
        if (sent.Entries is null or { Count: 0 or > MostEntriesAtOnce } || sent.Entries.Any(e => e is null or { Act: null }))
        {
            return TypedResults.Problem(
                $"Send from 1 to {MostEntriesAtOnce} entries, each with an id, a time and an act.", statusCode: StatusCodes.Status422UnprocessableEntity);
        }

        // What a meeting showed comes from a feed or a file, and what a student does from their page; whose a name is can be tapped.
        return sent.Entries.FirstOrDefault(e => e.Act is (NameAct and not (NameMatched or AskedLater))
            or BallotsCounted or PageOpened or PageClosed or PageKnocked or StudentWrote or SignalGiven) is { } shown
            ? TypedResults.Problem($"{shown.Act.GetType().Name} cannot be tapped.", statusCode: StatusCodes.Status422UnprocessableEntity)
            : null;
    }
}
