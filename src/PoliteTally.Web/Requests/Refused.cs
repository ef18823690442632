using Microsoft.AspNetCore.Http.HttpResults;

namespace PoliteTally.Web.Requests;

/// <summary>Answers to what cannot be done. Each says what was wrong, where, and what to do.</summary>
internal static class Refused
{
    /// <summary>What was sent is not right.</summary>
    public static ProblemHttpResult Because(string detail) =>
        TypedResults.Problem(detail, statusCode: StatusCodes.Status422UnprocessableEntity);

    /// <summary>A day that is none.</summary>
    public static ProblemHttpResult NoDay() => TypedResults.Problem("A day is written as 2026-11-23.", statusCode: StatusCodes.Status400BadRequest);

    /// <summary>What was sent is right, but not as things stand.</summary>
    public static ProblemHttpResult Now(string detail) => TypedResults.Problem(detail, statusCode: StatusCodes.Status409Conflict);
}
