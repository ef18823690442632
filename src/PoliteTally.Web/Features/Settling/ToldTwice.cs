using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>Acts that several sources tell, and those that may be one.</summary>
/// <param name="Once">What counts once.</param>
/// <param name="Near">What is two now, and may be one.</param>
/// <param name="More">How many are not listed, for they are too many to be read.</param>
public sealed record ToldTwice(IReadOnlyList<ToldAct> Once, IReadOnlyList<ToldAct> Near, int More);

/// <summary>An act, as several sources tell it.</summary>
/// <param name="Who">The short name of the student, or the name shown.</param>
/// <param name="Counts">What counts.</param>
/// <param name="Others">What else is told of it.</param>
public sealed record ToldAct(string Who, Telling Counts, IReadOnlyList<Telling> Others);

/// <summary>What one source tells.</summary>
/// <param name="By">The name of the file; empty if it was noted in the lesson.</param>
public sealed record Telling(Guid Entry, Instant At, Source Source, string By, string Text);

internal static class ToldTwiceEndpoint
{
    private const int MostShown = 400;

    public static void MapToldTwice(this RouteGroupBuilder api) => api.MapGet("/lessons/{id:guid}/told", (OwnLesson own) =>
    {
        var (open, state) = (own.Open, own.Open.State);
        var files = state.Files.Files.ToDictionary(f => f.Entry.Id, f => f.File.Name);
        var entries = state.Entries.ToDictionary(e => e.Id);
        // A row that another version of its file has as well is nothing to decide.
        var once = state.Files.All.Where(a => entries.ContainsKey(a.Counts)).Select(a => (Counts: entries[a.Counts], Others: a.Others.Where(o => o.Act != entries[a.Counts].Act).ToList()))
            .Where(a => a.Others.Count > 0).OrderBy(a => a.Counts.HappenedAt).ToList();
        return TypedResults.Ok(new ToldTwice(
            [.. once.Take(MostShown).Select(a => Of(a.Counts, a.Others))], [.. state.Files.Near.Take(MostShown).Select(n => Of(n.Counts, [n.Other]))],
            Math.Max(0, once.Count - MostShown) + Math.Max(0, state.Files.Near.Count - MostShown)));

        ToldAct Of(Entry counts, IReadOnlyList<Entry> others) => new(
            state.StudentsOf(counts.Act).Select(s => open.ShortNames.GetValueOrDefault(s)).FirstOrDefault() ?? (counts.Act as Core.Meeting.NameAct)?.Name ?? "", Telling(counts), [.. others.Select(Telling)]);

        Telling Telling(Entry e) => new(
            e.Id, e.HappenedAt, e.Source, e.Together is { } file && e.Source == Source.File ? files.GetValueOrDefault(file, "") : "",
            state.StudentsOf(e.Act).Select(s => Wording.For(s, e, state)).FirstOrDefault() ?? e.Act.InWords);
    }).WithName("GetToldTwice");
}
