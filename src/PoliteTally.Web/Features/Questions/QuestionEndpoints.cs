using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Questions;

internal static class QuestionEndpoints
{
    public static void MapQuestions(this RouteGroupBuilder api) =>
        api.MapGet("/lessons/{id:guid}/questions", (OwnLesson own) =>
            TypedResults.Ok(QuestionsView.Of(own.Open))).WithName("GetQuestions");
}
