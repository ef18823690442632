using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>The teacher's word on a name: a student, not a student, or (neither) asked again.</summary>
public sealed record NameDecisionSent(string Name, Guid? Student, bool NotAStudent, string Beside = "");

internal static class SettlingEndpoints
{
    public static void MapSettling(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/settling", async (OwnLesson own, SchoolDb db, Owner owner, IClock clock) =>
            TypedResults.Ok(await SettlingViews.Of(own.Open, db, owner, clock.GetCurrentInstant())))
            .WithName("GetSettling");
        api.MapToldTwice();

        api.MapPut("/lessons/{id:guid}/names", async Task<Results<Ok<SettlingView>, NotFound, ProblemHttpResult>> (
            Guid id, OwnLesson own, NameDecisionSent word, LedgerWriter ledger, OpenLessons openLessons, SchoolDb db, Owner owner, HttpContext http, IClock clock) =>
        {
            var open = own.Open;
            var decision = new NameMatched(word.Name ?? "", word.Student) { Beside = word.Beside ?? "" };
            var names = open.State.Names;
            if (!names.All.ContainsKey(names.WhoIs(decision)))
            {
                return TypedResults.NotFound();
            }

            var now = clock.GetCurrentInstant();
            var decides = word.Student is not null || word.NotAStudent;
            IReadOnlyList<NewEntry> entries = decides
                ? [new NewEntry(Guid.CreateVersion7(), now, decision)]
                : [.. WordsOn(names.WhoIs(decision), open.State).Select(e => new NewEntry(Guid.CreateVersion7(), now, new Struck(e)))];
            if (entries.Count > 0)
            {
                var result = (await ledger.Append(owner.Id, id, Source.Tapped, http.User.Identity?.Name ?? "", entries))!;
                if (result.Refused.Count > 0)
                {
                    return TypedResults.Problem(result.Refused[0].Why, statusCode: StatusCodes.Status409Conflict);
                }
            }

            return TypedResults.Ok(await SettlingViews.Of((await openLessons.Find(owner.Id, id))!, db, owner, clock.GetCurrentInstant()));
        }).WithName("DecideName");
    }

    private static IEnumerable<Guid> WordsOn(string who, LessonState state) =>
        state.Entries.Where(e => e.Act is NameMatched matched && state.Names.WhoIs(matched) == who && !state.IsStruck(e.Id)).Select(e => e.Id);
}
