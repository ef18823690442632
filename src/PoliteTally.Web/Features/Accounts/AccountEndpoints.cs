using System.ComponentModel.DataAnnotations;
using System.Net;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Demo;
using PoliteTally.Store.Model;
using PoliteTally.Web.Hosting;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Accounts;

/// <summary>Who is signed in, and what somebody who is not may do.</summary>
/// <param name="AsksForWord">Whether making the first account takes the word that the program said when it started.</param>
public sealed record Session(Account? Account, bool OffersDemo, bool AwaitsFirstAccount, bool AsksForWord);

/// <summary>The teacher who is signed in.</summary>
public sealed record Account(string Name, string School, string TimeZone, bool IsDemo);

/// <summary>What signing in takes.</summary>
public sealed record SignIn([property: Required, StringLength(200)] string Email, [property: Required, StringLength(200)] string Password);

/// <summary>What the first account takes.</summary>
public sealed record NewAccount(
    [property: Required, StringLength(200)] string Email, [property: Required, StringLength(200)] string Password,
    [property: Required, StringLength(100)] string Name, [property: Required, StringLength(100)] string School,
    [property: Required, StringLength(60)] string TimeZone, [property: StringLength(100)] string? Word = null);

internal static class AccountEndpoints
{
    // Whom a password is compared with where there is no account.
    private static readonly Teacher Nobody = MadeNobody();

    private static Teacher MadeNobody()
    {
        var nobody = new Teacher { DisplayName = "", School = "", TimeZone = "" };
        nobody.PasswordHash = new PasswordHasher<Teacher>().HashPassword(nobody, Guid.NewGuid().ToString());
        return nobody;
    }

    public static void MapAccounts(this RouteGroupBuilder api)
    {
        api.MapGet("/session", async (HttpContext http, UserManager<Teacher> teachers, FirstAccount first, Settings settings) =>
        {
            http.Response.Headers.CacheControl = "no-store";
            var teacher = await teachers.GetUserAsync(http.User);
            var account = teacher is null
                ? null
                : new Account(teacher.DisplayName, teacher.School, teacher.TimeZone, teacher.Email == DemoSchool.Email);
            return TypedResults.Ok(new Session(
                account, await MayLookAround(http, teachers, settings), !await teachers.Users.AnyAsync(), first.Word is not null));
        }).WithName("GetSession");

        api.MapPost("/session", async Task<Results<NoContent, ProblemHttpResult>> (
            SignIn sign, SignInManager<Teacher> signIn, UserManager<Teacher> teachers, SignInWatch watch, HttpContext http) =>
        {
            var network = CallerNetwork.Of(http);
            if (!watch.Takes(sign.Email, network))
            {
                return TypedResults.Problem("Too many attempts. Wait five minutes, then try again.", statusCode: StatusCodes.Status401Unauthorized);
            }

            // As much work for an address that nobody has as for a wrong password, and the same answer.
            var teacher = await teachers.FindByEmailAsync(sign.Email) is { PasswordHash: not null } found ? found : null;
            var isRight = teachers.PasswordHasher.VerifyHashedPassword(teacher ?? Nobody, (teacher ?? Nobody).PasswordHash!, sign.Password) != PasswordVerificationResult.Failed;
            if (teacher is null || !isRight)
            {
                watch.Wrong(sign.Email, network);
                return TypedResults.Problem("This e-mail address and password do not belong together. Check both.", statusCode: StatusCodes.Status401Unauthorized);
            }

            await SignedInSessions.Begin(signIn, teacher);
            return TypedResults.NoContent();
        }).WithName("SignIn").RequireRateLimiting(Limits.SignIn);

        api.MapPost("/session/demo", async Task<Results<NoContent, ProblemHttpResult>> (
            HttpContext http, SignInManager<Teacher> signIn, UserManager<Teacher> teachers, Settings settings) =>
        {
            if (!await MayLookAround(http, teachers, settings))
            {
                return TypedResults.Problem("There is no demo school here to look around in.", statusCode: StatusCodes.Status404NotFound);
            }

            await SignedInSessions.Begin(signIn, (await teachers.FindByEmailAsync(DemoSchool.Email))!);
            return TypedResults.NoContent();
        }).WithName("LookAround").RequireRateLimiting(Limits.SignIn);

        api.MapPost("/accounts", async Task<Results<NoContent, ProblemHttpResult>> (
            NewAccount made, SignInManager<Teacher> signIn, UserManager<Teacher> teachers, FirstAccount first) =>
            await first.Alone<Results<NoContent, ProblemHttpResult>>(async () =>
        {
            if (await teachers.Users.AnyAsync())
            {
                return TypedResults.Problem("There is an account here already. Sign in with it.", statusCode: StatusCodes.Status409Conflict);
            }

            if (!first.IsRight(made.Word))
            {
                return TypedResults.Problem(
                    "This is not the word. The program says it in its window when it starts.", statusCode: StatusCodes.Status403Forbidden);
            }

            if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(made.TimeZone) is null)
            {
                return TypedResults.Problem($"“{made.TimeZone}” is not a time zone. Choose one from the list.", statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            var teacher = new Teacher
            {
                Id = Guid.CreateVersion7(),
                UserName = made.Email.Trim(),
                Email = made.Email.Trim(),
                DisplayName = made.Name.Trim(),
                School = made.School.Trim(),
                TimeZone = made.TimeZone,
            };
            var result = await teachers.CreateAsync(teacher, made.Password);
            if (!result.Succeeded)
            {
                return TypedResults.Problem(
                    string.Join(" ", result.Errors.Select(e => e.Description)), statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            await SignedInSessions.Begin(signIn, teacher);
            return TypedResults.NoContent();
        })).WithName("MakeFirstAccount").RequireRateLimiting(Limits.SignIn);

        api.MapDelete("/session", async (HttpContext http, SignInManager<Teacher> signIn, SignedInSessions sessions) =>
        {
            await sessions.End(http.User);
            await signIn.SignOutAsync();
            return TypedResults.NoContent();
        }).WithName("SignOut");
    }

    // The demo school has no secrets, but only whoever sits at this machine may walk in without a password.
    // Where others are answered, too, nothing that a request says of where it comes from is proof of that.
    private static async Task<bool> MayLookAround(HttpContext http, UserManager<Teacher> teachers, Settings settings) =>
        settings.Address is null && http.Connection.RemoteIpAddress is { } address && IPAddress.IsLoopback(address)
        && (http.Request.Host.Host == "localhost" || (IPAddress.TryParse(http.Request.Host.Host, out var host) && IPAddress.IsLoopback(host)))
        && await teachers.FindByEmailAsync(DemoSchool.Email) is not null;
}
