using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Publishing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Keys;

/// <summary>Keys that were made for a lesson.</summary>
public sealed record KeyLine(Guid Id, string Name, bool Feed, bool Sweep, bool HandLine, Instant MadeAt, bool TakenBack);

/// <summary>A key as it is asked for: for a program, or for a helper with rights.</summary>
public sealed record KeyWanted(string Name, bool Feed, bool Sweep, bool HandLine);

/// <summary>A key that was made; it is not shown again.</summary>
/// <param name="Line">What it is.</param>
/// <param name="Key">The key itself.</param>
/// <param name="Path">The address of the helper's page with the key behind the sign #, which browsers keep to themselves; null for a program.</param>
public sealed record KeyMade(KeyLine Line, string Key, string? Path);

internal static class KeyEndpoints
{
    private const int MostKeys = 20;

    public static void MapKeys(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/keys", async (Guid id, OwnLesson own, SchoolDb db) => TypedResults.Ok(await LinesOf(id, db))).WithName("GetKeys");

        api.MapPost("/lessons/{id:guid}/keys", async Task<Results<Ok<KeyMade>, NotFound, ProblemHttpResult>> (
            Guid id, KeyWanted wanted, SchoolDb db, IClock clock) =>
        {
            if (await db.Lessons.FirstOrDefaultAsync(l => l.Id == id) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            var name = (wanted.Name ?? "").Trim();
            if (name.Length is 0 or > 60 || name.Any(char.IsControl))
            {
                return Refused.Because("Say in up to 60 characters whom the key is for.");
            }

            if (wanted.Feed ? wanted.Sweep || wanted.HandLine : !(wanted.Sweep || wanted.HandLine))
            {
                return Refused.Because("A key is either for a program, or for a helper who may do at least one thing.");
            }

            if (lesson.Stage is LessonStage.Settled || (lesson.Stage is LessonStage.Ended && !wanted.Feed))
            {
                return Refused.Because("This lesson is over: there is nothing left to help with.");
            }

            if (await db.LessonKeys.CountAsync(k => k.LessonId == id && k.TakenBackAt == null) >= MostKeys)
            {
                return Refused.Because($"A lesson has at most {MostKeys} keys. Take one back first.");
            }

            var rights = (wanted.Feed ? KeyRights.Feed : 0) | (wanted.Sweep ? KeyRights.Sweep : 0) | (wanted.HandLine ? KeyRights.HandLine : 0);
            var (key, made) = LessonKeys.Make(id, name, rights, clock.GetCurrentInstant());
            db.LessonKeys.Add(made);
            await db.SaveChangesAsync();
            return TypedResults.Ok(new KeyMade(LineOf(made), key, wanted.Feed ? null : $"/help#{key}"));
        }).WithName("MakeKey").RequireRateLimiting(Limits.Files);

        api.MapDelete("/keys/{key:guid}", async Task<Results<Ok<IReadOnlyList<KeyLine>>, NotFound>> (
            Guid key, SchoolDb db, OpenWindows windows, IClock clock) =>
        {
            if (await db.LessonKeys.FirstOrDefaultAsync(k => k.Id == key) is not { } row)
            {
                return TypedResults.NotFound();
            }

            row.TakenBackAt ??= clock.GetCurrentInstant();
            await db.SaveChangesAsync();
            // Whoever holds it asks what there is to see, is told that it opens nothing any more, and hears of nothing from then on.
            windows.SendLast(LessonKeys.WindowsOf(key), "changed");
            return TypedResults.Ok(await LinesOf(row.LessonId, db));
        }).WithName("TakeBackKey");
    }

    private static async Task<IReadOnlyList<KeyLine>> LinesOf(Guid lesson, SchoolDb db) =>
        [.. (await db.LessonKeys.AsNoTracking().Where(k => k.LessonId == lesson).OrderBy(k => k.MadeAt).ToListAsync()).Select(LineOf)];

    private static KeyLine LineOf(LessonKey key) => new(
        key.Id, key.Name, key.Rights.HasFlag(KeyRights.Feed), key.Rights.HasFlag(KeyRights.Sweep), key.Rights.HasFlag(KeyRights.HandLine), key.MadeAt,
        key.TakenBackAt is not null);
}
