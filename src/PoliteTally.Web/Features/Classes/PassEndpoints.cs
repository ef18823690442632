using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Web.Features.StudentPage;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Classes;

/// <summary>For whom passes are made; what they had before ends with it.</summary>
public sealed record PassesWanted(IReadOnlyList<Guid> Students);

/// <summary>A pass, to be printed or handed over now: only its fingerprint is kept.</summary>
public sealed record PassSlip(Guid Student, string Called, string Family, string Pass);

internal static class PassEndpoints
{
    private const int MostAtOnce = 2000;

    public static void MapPasses(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/passes", async Task<Results<Ok<IReadOnlyList<PassSlip>>, ProblemHttpResult>> (
            Guid id, OwnClass own, PassesWanted wanted, SchoolDb db, Passes passes, PageSessions sessions, PagePublisher pages, IClock clock) =>
        {
            var roster = Rosters.Of(db, id).ToDictionary(s => s.Name.Id);
            if (wanted.Students is null or { Count: 0 or > MostAtOnce } || wanted.Students.Any(s => !roster.ContainsKey(s)))
            {
                return Refused.Because("Say for which students of this class.");
            }

            var rows = await db.Students.Where(s => wanted.Students.Contains(s.Id)).ToListAsync();
            var taken = (await db.Students.IgnoreQueryFilters().Where(s => s.PassHash != null).Select(s => s.PassHash!).ToListAsync()).ToHashSet();
            var slips = new List<PassSlip>();
            foreach (var row in rows)
            {
                string pass;
                do
                {
                    pass = Passes.Make();
                }
                while (!taken.Add(passes.FingerprintOf(pass)));

                (row.PassHash, row.PassMadeAt) = (passes.FingerprintOf(pass), clock.GetCurrentInstant());
                slips.Add(new PassSlip(row.Id, ShortNames.CalledName(roster[row.Id].Name), row.Family, pass));
            }

            // Whoever came in with the pass before is out.
            var ended = await sessions.EndAllOf(wanted.Students, db);
            await db.SaveChangesAsync();
            pages.End(ended);
            var order = roster.Keys.Select((key, index) => (key, index)).ToDictionary(k => k.key, k => k.index);
            return TypedResults.Ok<IReadOnlyList<PassSlip>>([.. slips.OrderBy(s => order[s.Student])]);
        }).WithName("MakePasses").RequireRateLimiting(Limits.Files);

        api.MapDelete("/classes/{id:guid}/students/{student:guid}/pass", async Task<Results<NoContent, NotFound>> (
            Guid id, Guid student, SchoolDb db, PageSessions sessions, PagePublisher pages) =>
        {
            if (await db.Enrolments.Include(e => e.Student).FirstOrDefaultAsync(e => e.ClassId == id && e.StudentId == student) is not { } place)
            {
                return TypedResults.NotFound();
            }

            (place.Student!.PassHash, place.Student.PassMadeAt) = (null, null);
            var ended = await sessions.EndAllOf([student], db);
            await db.SaveChangesAsync();
            pages.End(ended);
            return TypedResults.NoContent();
        }).WithName("RevokePass");
    }
}
