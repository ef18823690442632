using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>Keys of the live sheet that the teacher changed: the name of an act or a command, and its key. The others are as they come.</summary>
public sealed record LiveKeys(IReadOnlyDictionary<string, string> Changed);

internal static class LiveKeyEndpoints
{
    private const int Most = 80;

    public static void MapLiveKeys(this RouteGroupBuilder api)
    {
        api.MapGet("/live-keys", async (SchoolDb db, Owner owner) =>
            TypedResults.Ok(new LiveKeys(OtherJson.LiveKeysOf(await db.Users.Where(u => u.Id == owner.Id).Select(u => u.LiveKeys).SingleAsync())))).WithName("GetLiveKeys");

        api.MapPut("/live-keys", async Task<Results<Ok<LiveKeys>, ProblemHttpResult>> (LiveKeys keys, SchoolDb db, Owner owner) =>
        {
            if (keys.Changed is null or { Count: > Most } || keys.Changed.Any(k => k.Key.Length is 0 or > 40 || k.Value.Length is 0 or > 20))
            {
                return Refused.Because("A key is one press: a sign, or the name of a key such as PageDown.");
            }

            if (keys.Changed.Values.Where(k => k is "Escape" or "Tab" || (k.Length == 1 && (char.IsAsciiLetter(k[0]) || k[0] is '[' or ']' or ';' or '\''))).FirstOrDefault() is { } taken)
            {
                return Refused.Because($"“{taken}” is taken: letters and the signs beside them pick students, and Esc and Tab stay what they are.");
            }

            if (keys.Changed.Values.GroupBy(k => k).FirstOrDefault(same => same.Count() > 1) is { } twice)
            {
                return Refused.Because($"“{twice.Key}” would do two things. Give one of them another key.");
            }

            var teacher = await db.Users.SingleAsync(u => u.Id == owner.Id);
            teacher.LiveKeys = OtherJson.Write(keys.Changed);
            await db.SaveChangesAsync();
            return TypedResults.Ok(keys);
        }).WithName("SetLiveKeys");
    }
}
