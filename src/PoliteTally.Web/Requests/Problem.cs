using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Formats;
using PoliteTally.Store;

namespace PoliteTally.Web.Requests;

/// <summary>What went wrong, in words for whoever asked (problem details, RFC 9457); never a stack trace.</summary>
internal static class Problem
{
    // https://www.sqlite.org/rescode.html#constraint
    private const int ConstraintBroken = 19;
    private const string NotUnderstood = "The request is not understood: its body or an address in it is not of the form described at /openapi/v1.json.";
    private static readonly string TooLarge = $"This is larger than can be taken here. A file may have up to {FileSize.Said}, and what is written on a page a few hundred characters.";

    /// <summary>What an exception is answered with.</summary>
    public static (int Status, string Detail) Of(Exception? failure) => failure switch
    {
        NotReadBack problem => (StatusCodes.Status422UnprocessableEntity, problem.Message),
        FormatProblem problem => (StatusCodes.Status422UnprocessableEntity, problem.Message),
        BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => (StatusCodes.Status413PayloadTooLarge, TooLarge),
        // Of something that comes in several kinds it was not said which.
        NotSupportedException { Source: "System.Text.Json" } => (StatusCodes.Status400BadRequest, NotUnderstood),
        BadHttpRequestException problem => (problem.StatusCode, NotUnderstood),
        UnreadableDocument damaged => (StatusCodes.Status500InternalServerError, damaged.Message),
        // The disk, or who has it just now: what did not go through can be tried again.
        IOException or SqliteException { SqliteErrorCode: not ConstraintBroken } or DbUpdateException { InnerException: SqliteException { SqliteErrorCode: not ConstraintBroken } } =>
            (StatusCodes.Status503ServiceUnavailable, "It could not be stored just now; nothing was kept of it. Try again."),
        _ => (StatusCodes.Status500InternalServerError, "Something went wrong on our side; nothing was kept of this request. Try again."),
    };

    /// <summary>Answers a request that failed.</summary>
    public static Task Write(HttpContext context)
    {
        var (status, detail) = Of(context.Features.Get<IExceptionHandlerFeature>()?.Error);
        return TypedResults.Problem(detail, statusCode: status).ExecuteAsync(context);
    }

    /// <summary>Gives a problem words that has none.</summary>
    public static void InWords(ProblemDetailsContext context)
    {
        if (context.ProblemDetails is HttpValidationProblemDetails { Errors: var errors } wrong)
        {
            wrong.Detail ??= string.Join(" ", errors.SelectMany(e => e.Value).Append("Nothing was stored."));
        }

        context.ProblemDetails.Detail ??= context.ProblemDetails.Status switch
        {
            StatusCodes.Status401Unauthorized => "You are not signed in. Sign in, then try again.",
            StatusCodes.Status404NotFound => "There is nothing at this address.",
            StatusCodes.Status413PayloadTooLarge => TooLarge,
            StatusCodes.Status429TooManyRequests => "So much was asked from here that nothing more is answered for a minute. Wait, then try again.",
            _ => null,
        };
    }
}
