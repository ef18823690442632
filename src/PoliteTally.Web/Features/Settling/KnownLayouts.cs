using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Formats.Lines;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>A layout of files of which the class knows how they are read.</summary>
/// <param name="Layout">By what it is known.</param>
/// <param name="FileName">The file of which it was said last.</param>
/// <param name="Said">What was said, as it is kept.</param>
/// <param name="NotedAt">When.</param>
public sealed record KnownLayoutLine(string Layout, string FileName, string Said, Instant NotedAt);

/// <summary>A layout that is to be known again; <paramref name="Known"/> false to forget it.</summary>
public sealed record KnownLayoutSent(string Layout, string FileName, string Said, bool Known);

/// <summary>What the teacher said once of how a file is read is known again for files of the same layout.</summary>
internal static class KnownLayouts
{
    private const string Kind = "kind";
    private const string Marks = "marks";
    private const int Most = 100;
    private const int LongestSaid = 4_000;
    private const int LongestLayout = 64;

    // What belongs to a layout, and not to one file of it.
    private static readonly string[] Kept = [Kind, "mapping", "zone", Marks];

    public static void MapKnownLayouts(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/layouts", async (Guid id, OwnClass own, SchoolDb db) => TypedResults.Ok(await LinesOf(id, db))).WithName("GetKnownLayouts");

        api.MapPut("/classes/{id:guid}/layouts", async Task<Results<Ok<IReadOnlyList<KnownLayoutLine>>, ProblemHttpResult>> (
            Guid id, OwnClass own, KnownLayoutSent word, SchoolDb db, IClock clock) =>
        {
            if (SentText.Line(word.FileName, 120) is not { } name || word.Layout is not { Length: > 0 and <= LongestLayout } || (word.Known && SaidIn(word.Said) is null))
            {
                return Refused.Because("This layout is not understood.");
            }

            if (word.Known)
            {
                await Keep(id, word.Layout, name, word.Said, db, clock.GetCurrentInstant());
            }
            else
            {
                await db.KnownLayouts.Where(l => l.ClassId == id && l.Layout == word.Layout).ExecuteDeleteAsync();
            }

            return TypedResults.Ok(await LinesOf(id, db));
        }).WithName("DecideKnownLayout");
    }

    /// <summary>The layouts that a class knows.</summary>
    public static async Task<IReadOnlyDictionary<string, KnownLayoutLine>> Of(Guid classId, SchoolDb db) => (await LinesOf(classId, db)).ToDictionary(l => l.Layout);

    /// <summary>The file as it is read by what was said of the last one of its layout, where nothing else was said of this one.</summary>
    /// <param name="sent">The file.</param>
    /// <param name="layout">Its layout; null if nothing can be told of it.</param>
    /// <param name="known">What the class knows.</param>
    /// <returns>The file, and the layout by which it is known; null if it is not.</returns>
    public static (SentFile File, KnownLayoutLine? Like) Follow(SentFile sent, string? layout, IReadOnlyDictionary<string, KnownLayoutLine> known)
    {
        // Whoever says what kind it is, or marks it, says all of it; what is said of a zone or of columns adds to what is known.
        if (layout is null || sent.Decided["anew"] == "true" || IsSaid(sent, Kind) || IsSaid(sent, Marks) || known.GetValueOrDefault(layout) is not { } like || SaidIn(like.Said) is not { } said)
        {
            return (sent, null);
        }

        return (sent.With(said.Where(s => !IsSaid(sent, s.Key)).ToDictionary()), like);
    }

    /// <summary>Remembers what was said of a file that was brought in, or known of it before: of the last one is said that others are like it.</summary>
    public static async Task Remember(SentFile sent, string? layout, Guid classId, SchoolDb db, Instant now)
    {
        // What is read in a picture is of its kind because it is one.
        if (layout is null || sent.Decided["picture"] == "true" || !Kept.Any(k => IsSaid(sent, k)))
        {
            return;
        }

        var words = Kept.Where(k => IsSaid(sent, k)).ToDictionary(k => k, k => (string)sent.Decided[k]!);
        if (sent.Chosen<MarkedExample>(Marks) is { } example)
        {
            words[Marks] = JsonSerializer.Serialize(example.Blanked(), JsonFormat.Options);
        }

        var said = JsonSerializer.Serialize(words);
        if (said.Length <= LongestSaid)
        {
            await Keep(classId, layout, sent.Name, said, db, now);
        }
    }

    private static async Task Keep(Guid classId, string layout, string name, string said, SchoolDb db, Instant now)
    {
        if (await db.KnownLayouts.FirstOrDefaultAsync(l => l.ClassId == classId && l.Layout == layout) is { } known)
        {
            (known.FileName, known.Said, known.NotedAt) = (name, said, now);
        }
        else
        {
            db.KnownLayouts.RemoveRange(await db.KnownLayouts.Where(l => l.ClassId == classId).OrderByDescending(l => l.NotedAt).Skip(Most - 1).ToListAsync());
            db.KnownLayouts.Add(new KnownLayout { ClassId = classId, Layout = layout, FileName = name, Said = said, NotedAt = now });
        }

        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            // Another window said it at the same moment: its word counts.
            db.ChangeTracker.Clear();
        }
    }

    private static bool IsSaid(SentFile sent, string field) => sent.Decided[field] is [{ Length: > 0 }];

    private static Dictionary<string, string>? SaidIn(string? said)
    {
        try
        {
            return said is { Length: <= LongestSaid } && JsonSerializer.Deserialize<Dictionary<string, string>>(said) is { Count: > 0 } words && words.All(w => Kept.Contains(w.Key) && w.Value is not null) ? words : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static KnownLayoutLine LineOf(KnownLayout known) => new(known.Layout, known.FileName, known.Said, known.NotedAt);

    private static async Task<IReadOnlyList<KnownLayoutLine>> LinesOf(Guid classId, SchoolDb db) =>
        [.. (await db.KnownLayouts.AsNoTracking().Where(l => l.ClassId == classId).OrderByDescending(l => l.NotedAt).ToListAsync()).Select(LineOf)];
}
