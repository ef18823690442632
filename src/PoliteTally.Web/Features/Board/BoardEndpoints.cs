using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Board;

internal static class BoardEndpoints
{
    public static void MapBoard(this RouteGroupBuilder api) =>
        api.MapGet("/lessons/{id:guid}/board", async Task<Results<Ok<BoardView>, NotFound>> (Guid id, OpenLessons openLessons, Owner owner, IClock clock) =>
            await openLessons.Find(owner.Id, id) is { } open
                ? TypedResults.Ok(BoardView.Of(open, open.State, clock.GetCurrentInstant()))
                : TypedResults.NotFound()).WithName("GetBoard");
}
