using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Fairness;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>A draw as it is asked for.</summary>
/// <param name="Id">The id of the entry it becomes; the draw follows from it, so that asking again gives the same name and stores it once.</param>
/// <param name="Manner">How.</param>
public sealed record DrawWanted(Guid Id, DrawManner Manner);

/// <summary>A name that was drawn and called.</summary>
public sealed record DrawMade(Guid Student, string Why, decimal Odds, long Position);

internal static class DrawEndpoints
{
    public static void MapDraw(this RouteGroupBuilder api) =>
        api.MapPost("/lessons/{id:guid}/draw", async Task<Results<Ok<DrawMade>, ProblemHttpResult>> (
            Guid id, OwnLesson own, DrawWanted wanted, LedgerWriter ledger, Owner owner, HttpContext http, IClock clock) =>
        {
            var open = own.Open;
            var state = open.State;
            if (state.Entries.FirstOrDefault(e => e.Id == wanted.Id) is { Act: Called known })
            {
                return TypedResults.Ok(new DrawMade(state.Whose(known.Student), known.Why ?? "", 1, open.Position));
            }

            if (FairDraw.Draw(CandidatesOf(open, state, clock.GetCurrentInstant()), wanted.Manner, BitConverter.ToInt32(wanted.Id.ToByteArray(), 8)) is not { } drawn)
            {
                return Refused.Because("There is nobody to draw from: nobody is here, or all of them are paused.");
            }

            var result = (await ledger.Append(owner.Id, id, Source.Tapped, http.User.Identity?.Name ?? "",
                [new NewEntry(wanted.Id, clock.GetCurrentInstant(), new Called(drawn.Student, TurnOrigin.Drawn, drawn.Why))]))!;
            return result.Refused is [var refused, ..]
                ? TypedResults.Problem(refused.Why, statusCode: StatusCodes.Status409Conflict)
                : TypedResults.Ok(new DrawMade(drawn.Student, drawn.Why, drawn.Odds, result.Position));
        }).WithName("Draw").RequireRateLimiting(Limits.Entries);

    private static List<DrawCandidate> CandidatesOf(OpenLesson open, LessonState state, Instant now)
    {
        var turns = state.HandLine.Turns.ToLookup(t => t.Student);
        var last = state.HandLine.Turns.LastOrDefault(t => t.Origin == TurnOrigin.Drawn)?.Student;
        return
        [
            .. open.Roster.Select(s => s.Name.Id).Where(student => state.HandLine.PausedBy(student) is null && IsHere(student))
                .Select(student => new DrawCandidate(
                    student, turns[student].Count(t => t.Outcome is not TurnOutcome.CouldNot),
                    turns[student].Count(t => t.Origin == TurnOrigin.Drawn), student == last)),
        ];

        bool IsHere(Guid student) => state.AttendanceOf(student, open.Times, open.Rules.Scheme.Attendance) is { SentOutSince: null } attendance
            && (LiveRow.WhereaboutsOf(attendance, open.Lesson.Stage) is Whereabouts.Here or Whereabouts.Late || attendance.MayBeHere(now, state.Page.OpenBy(student) is not null));
    }
}
