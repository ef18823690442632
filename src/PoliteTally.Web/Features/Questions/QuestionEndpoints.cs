using Microsoft.AspNetCore.Http.HttpResults;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Questions;

internal static class QuestionEndpoints
{
    public static void MapQuestions(this RouteGroupBuilder api) =>
        api.MapGet("/lessons/{id:guid}/questions", async Task<Results<Ok<QuestionsView>, NotFound>> (Guid id, OpenLessons openLessons, Owner owner) =>
            await openLessons.Find(owner.Id, id) is { } open ? TypedResults.Ok(QuestionsView.Of(open)) : TypedResults.NotFound()).WithName("GetQuestions");
}
