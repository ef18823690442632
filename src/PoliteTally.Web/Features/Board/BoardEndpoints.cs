using NodaTime;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Board;

internal static class BoardEndpoints
{
    public static void MapBoard(this RouteGroupBuilder api) =>
        api.MapGet("/lessons/{id:guid}/board", (OwnLesson own, IClock clock) =>
            TypedResults.Ok(BoardView.Of(own.Open, own.Open.State, clock.GetCurrentInstant()))).WithName("GetBoard");
}
