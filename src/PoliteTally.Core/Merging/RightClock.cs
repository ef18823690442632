using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Merging;

/// <summary>A way in which the clocks of files may go.</summary>
/// <param name="Right">The file that goes right.</param>
/// <param name="Clocks">The clocks of all of them.</param>
internal sealed record LikelyClocks(Guid Right, IReadOnlyDictionary<ClockedFile, FileClock> Clocks);

/// <summary>
/// Which of several clocks goes right when nothing noted in the lesson tells. Under the true one nobody writes before they join or after they leave, so the
/// one with the fewest acts outside of connections is taken.
/// </summary>
public static class RightClock
{
    /// <summary>The ways that nothing tells apart, at least one; the first is the one to take: most files go by it.</summary>
    /// <param name="group">Files with their clocks beside one of them.</param>
    /// <param name="all">What all files of the lesson tell, given what those of the group tell by their clocks.</param>
    /// <param name="live">What was noted in the lesson itself.</param>
    internal static IReadOnlyList<LikelyClocks> Of(
        IReadOnlyDictionary<ClockedFile, FileClock> group, Func<Func<ClockedFile, IEnumerable<TraceAt>>, IReadOnlyList<IEnumerable<TraceAt>>> all, IReadOnlyList<TraceAt> live)
    {
        var goingBy = FileClock.Unknown with { Pairs = group.Values.Max(c => c.Pairs) };
        var ways = new List<(int Outside, int Files, LikelyClocks Clocks)>();
        foreach (var (file, right) in group.OrderByDescending(f => f.Value.Pairs).ThenBy(f => f.Key.Id))
        {
            var clocks = group.ToDictionary(f => f.Key, f => f.Key == file ? goingBy : Ahead(f.Value, right));
            // Who goes by the same clock makes no other way.
            if (ways.TrueForAll(w => w.Clocks.Clocks[file].Ahead != Duration.Zero))
            {
                ways.Add((ActsOutside(all(f => f.By(clocks[f])), live), clocks.Values.Count(c => c.Ahead == Duration.Zero), new LikelyClocks(file.Id, clocks)));
            }
        }

        var fewest = ways.Min(w => w.Outside);
        return [.. ways.Where(w => w.Outside == fewest).OrderByDescending(w => w.Files).Select(w => w.Clocks)];
    }

    /// <summary>How many acts lie outside of the connections that a list has of whoever did them; those of whom a list knows nothing do not count.</summary>
    /// <param name="files">What each file tells.</param>
    /// <param name="live">What was noted in the lesson itself.</param>
    public static int ActsOutside(IReadOnlyList<IEnumerable<TraceAt>> files, IReadOnlyList<TraceAt> live)
    {
        var acts = files.SelectMany(f => f).Concat(live).Where(t => t.Trace is { Timed: true, Kind: TraceKind.Message or TraceKind.Speech or TraceKind.Answer }).ToLookup(t => t.Trace.Who, StringComparer.Ordinal);
        return files.Sum(f => f.Where(t => t.Trace.Kind is TraceKind.Join or TraceKind.Leave).GroupBy(t => t.Trace.Who, StringComparer.Ordinal).Sum(own => Outside(own.Concat(acts[own.Key]))));
    }

    private static int Outside(IEnumerable<TraceAt> ofOne)
    {
        var (open, outside, since) = (0, 0, 0);
        // At one moment somebody comes, does something and leaves, in this order.
        foreach (var trace in ofOne.OrderBy(t => t.At).ThenBy(t => t.Trace.Kind switch { TraceKind.Join => 0, TraceKind.Leave => 2, _ => 1 }))
        {
            switch (trace.Trace.Kind)
            {
                case TraceKind.Join:
                    (open, outside, since) = (open + 1, outside + since, 0);
                    break;
                case TraceKind.Leave:
                    // Who leaves and was not seen to come was there.
                    (open, since) = open == 0 ? (0, 0) : (open - 1, since);
                    break;
                default:
                    since += open == 0 ? 1 : 0;
                    break;
            }
        }

        return outside + since;
    }

    private static FileClock Ahead(FileClock clock, FileClock right)
    {
        var ahead = clock.Ahead - right.Ahead;
        var known = clock.By is null ? right : clock;
        return known with { Ahead = ahead <= Clocks.Agreement && ahead >= -Clocks.Agreement ? Duration.Zero : ahead };
    }
}
