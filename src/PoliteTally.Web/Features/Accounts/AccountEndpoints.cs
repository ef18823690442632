using System.ComponentModel.DataAnnotations;
using System.Net;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Demo;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Accounts;

/// <summary>Who is signed in, and what somebody who is not may do.</summary>
public sealed record Session(Account? Account, bool OffersDemo, bool AwaitsFirstAccount);

/// <summary>The teacher who is signed in.</summary>
public sealed record Account(string Name, string School, string TimeZone, bool IsDemo);

/// <summary>What signing in takes.</summary>
public sealed record SignIn([property: Required, StringLength(200)] string Email, [property: Required, StringLength(200)] string Password);

/// <summary>What the first account takes.</summary>
public sealed record NewAccount(
    [property: Required, StringLength(200)] string Email, [property: Required, StringLength(200)] string Password,
    [property: Required, StringLength(100)] string Name, [property: Required, StringLength(100)] string School,
    [property: Required, StringLength(60)] string TimeZone);

internal static class AccountEndpoints
{
    public static void MapAccounts(this RouteGroupBuilder api)
    {
        api.MapGet("/session", async (HttpContext http, UserManager<Teacher> teachers, IAntiforgery antiforgery) =>
        {
            var tokens = antiforgery.GetAndStoreTokens(http);
            http.Response.Cookies.Append("XSRF-TOKEN", tokens.RequestToken!, new CookieOptions { SameSite = SameSiteMode.Strict });
            http.Response.Headers.CacheControl = "no-store";
            var teacher = await teachers.GetUserAsync(http.User);
            var account = teacher is null
                ? null
                : new Account(teacher.DisplayName, teacher.School, teacher.TimeZone, teacher.Email == DemoSchool.Email);
            return TypedResults.Ok(new Session(
                account, await MayLookAround(http, teachers), !await teachers.Users.AnyAsync()));
        }).WithName("GetSession");

        api.MapPost("/session", async Task<Results<NoContent, ProblemHttpResult>> (
            SignIn sign, SignInManager<Teacher> signIn, UserManager<Teacher> teachers) =>
        {
            var teacher = await teachers.FindByEmailAsync(sign.Email);
            var result = teacher is null
                ? SignInResult.Failed
                : await signIn.PasswordSignInAsync(teacher, sign.Password, isPersistent: true, lockoutOnFailure: true);
            return result.Succeeded
                ? TypedResults.NoContent()
                : TypedResults.Problem(
                    result.IsLockedOut
                        ? "Too many attempts. Wait five minutes, then try again."
                        : "This e-mail address and password do not belong together. Check both.",
                    statusCode: StatusCodes.Status401Unauthorized);
        }).WithName("SignIn").RequireRateLimiting(Limits.SignIn);

        api.MapPost("/session/demo", async Task<Results<NoContent, ProblemHttpResult>> (
            HttpContext http, SignInManager<Teacher> signIn, UserManager<Teacher> teachers) =>
        {
            if (!await MayLookAround(http, teachers))
            {
                return TypedResults.Problem("There is no demo school here to look around in.", statusCode: StatusCodes.Status404NotFound);
            }

            await signIn.SignInAsync((await teachers.FindByEmailAsync(DemoSchool.Email))!, isPersistent: true);
            return TypedResults.NoContent();
        }).WithName("LookAround").RequireRateLimiting(Limits.SignIn);

        api.MapPost("/accounts", async Task<Results<NoContent, ProblemHttpResult>> (
            NewAccount made, SignInManager<Teacher> signIn, UserManager<Teacher> teachers) =>
        {
            if (await teachers.Users.AnyAsync())
            {
                return TypedResults.Problem("There is an account here already. Sign in with it.", statusCode: StatusCodes.Status409Conflict);
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

            await signIn.SignInAsync(teacher, isPersistent: true);
            return TypedResults.NoContent();
        }).WithName("MakeFirstAccount").RequireRateLimiting(Limits.SignIn);

        api.MapDelete("/session", async (SignInManager<Teacher> signIn) =>
        {
            await signIn.SignOutAsync();
            return TypedResults.NoContent();
        }).WithName("SignOut");
    }

    // The demo school has no secrets, but only whoever sits at this machine may walk in without a password.
    private static async Task<bool> MayLookAround(HttpContext http, UserManager<Teacher> teachers) =>
        http.Connection.RemoteIpAddress is { } address && IPAddress.IsLoopback(address)
        && await teachers.FindByEmailAsync(DemoSchool.Email) is not null;
}
