using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Classes;

/// <summary>A name seen in a meeting of the class, whose it is, and where it came from.</summary>
/// <param name="Student">Null for "not a student".</param>
/// <param name="Beside">The address or the number that stood beside the name; empty if none did.</param>
public sealed record KnownNameLine(string Name, string Beside, Guid? Student, string Origin, Instant NotedAt);

/// <summary>Whose a name is; <paramref name="Known"/> false to forget it.</summary>
public sealed record KnownNameSent(string Name, Guid? Student, bool Known, string Beside = "");

internal static class KnownNameEndpoints
{
    public static void MapKnownNames(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/names", async (Guid id, OwnClass own, SchoolDb db) => TypedResults.Ok(await LinesOf(id, db)))
            .WithName("GetKnownNames");

        api.MapPut("/classes/{id:guid}/names", async Task<Results<Ok<IReadOnlyList<KnownNameLine>>, ProblemHttpResult>> (
            Guid id, OwnClass own, KnownNameSent word, SchoolDb db, OpenLessons openLessons, IClock clock) =>
        {
            if (SentText.Line(word.Name, 200) is not { } name || word.Beside is null or { Length: > 200 } || NameFolding.AsShown(name).Length == 0)
            {
                return Refused.Because("The name is empty or too long.");
            }

            if (word.Student is { } student && !await db.Enrolments.AnyAsync(e => e.ClassId == id && e.StudentId == student))
            {
                return Refused.Because("This student is not in this class.");
            }

            await Remember(id, word with { Name = name }, db, clock.GetCurrentInstant());
            openLessons.Forget(lesson => lesson.ClassId == id);
            return TypedResults.Ok(await LinesOf(id, db));
        }).WithName("DecideKnownName");
    }

    /// <summary>Remembers or forgets whose a name is; names that differ only in case, width and spaces are one.</summary>
    private static async Task Remember(Guid classId, KnownNameSent word, SchoolDb db, Instant now)
    {
        var (folded, beside) = (NameFolding.AsShown(word.Name), word.Beside);
        var known = await db.KnownNames.FirstOrDefaultAsync(n => n.ClassId == classId && n.Folded == folded && n.Beside == beside);
        if (known is null && word.Known)
        {
            db.KnownNames.Add(known = new KnownName { ClassId = classId, Folded = folded, Beside = beside, Shown = word.Name });
        }

        if (known is not null && word.Known)
        {
            (known.Shown, known.StudentId, known.Origin, known.NotedAt) = (word.Name, word.Student, "said here", now);
        }
        else if (known is not null)
        {
            db.KnownNames.Remove(known);
        }

        await db.SaveChangesAsync();
    }

    private static async Task<IReadOnlyList<KnownNameLine>> LinesOf(Guid classId, SchoolDb db)
    {
        var merged = Rosters.Merged(db);
        return [.. (await db.KnownNames.AsNoTracking().Where(n => n.ClassId == classId).ToListAsync())
            .OrderBy(n => n.Shown, StringComparer.OrdinalIgnoreCase)
            .Select(n => new KnownNameLine(n.Shown, n.Beside, n.StudentId is { } id ? merged.GetValueOrDefault(id, id) : null, n.Origin, n.NotedAt))];
    }
}
