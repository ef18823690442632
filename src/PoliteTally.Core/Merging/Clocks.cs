using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Merging;

/// <summary>How the clock of a file goes beside the lesson's.</summary>
/// <param name="Ahead">How far it is ahead, negative if it is behind; zero if it is taken as right.</param>
/// <param name="By">The kind of acts by which it is known; null if nothing told it, the teacher set it, or it is the one by which other files go.</param>
/// <param name="Pairs">How many acts that two sources told agree on it; of the one by which others go, those of the first of them.</param>
/// <param name="ByHand">Whether the teacher set it.</param>
public sealed record FileClock(Duration Ahead, TraceKind? By, int Pairs, bool ByHand = false)
{
    /// <summary>Nothing tells how it goes, and nothing goes by it; it is taken as right.</summary>
    public static readonly FileClock Unknown = new(Duration.Zero, null, 0);
}

/// <summary>Something that two sources may both have told, as one of them told it.</summary>
/// <param name="Trace">What.</param>
/// <param name="At">When, by the clock of its source.</param>
/// <param name="Entry">The id of the entry.</param>
public sealed record TraceAt(Trace Trace, Instant At, Guid Entry);

/// <summary>A file whose clock is to be reckoned.</summary>
/// <param name="Id">The id of the file.</param>
/// <param name="Traces">What it tells.</param>
/// <param name="ByHand">How far the teacher says that it is ahead; null if they said nothing.</param>
public sealed record ClockedFile(Guid Id, IReadOnlyList<TraceAt> Traces, Duration? ByHand = null)
{
    /// <summary>What it tells, put right.</summary>
    internal IEnumerable<TraceAt> By(FileClock clock) => Traces.Select(t => t with { At = t.At - clock.Ahead });
}

/// <summary>How the clocks of the files of a lesson go.</summary>
/// <param name="Of">The clock of each file.</param>
/// <param name="Unsure">Files of which one goes right and nothing tells which; of each such group the one that is taken as right is the first.</param>
public sealed record ReckonedClocks(IReadOnlyDictionary<Guid, FileClock> Of, IReadOnlyList<IReadOnlyList<Guid>> Unsure);

/// <summary>
/// How far the clocks of files are off. Whatever two sources told of the same person makes a difference of their clocks; the true one is where many
/// differences lie close together. Joins are asked first, for nobody notes them late.
/// </summary>
public static class Clocks
{
    /// <summary>How close to their median pairs lie that agree; a clock that is no further off is taken as right. 10 s.</summary>
    public static readonly Duration Agreement = Duration.FromSeconds(10);

    /// <summary>How many pairs have to agree. 3.</summary>
    public const int Fewest = 3;

    /// <summary>How many times as many have to agree as on any other difference, else it may be chance. 2.</summary>
    public const int Lead = 2;

    /// <summary>How many of those who are in both have to agree, else it may be chance. A third.</summary>
    public const double Share = 1 / 3.0;

    /// <summary>How many acts of one person are compared, the first ones. 60.</summary>
    public const int MostOfOne = 60;

    private static readonly TraceKind[] Kinds = [TraceKind.Join, TraceKind.Message, TraceKind.Answer, TraceKind.Speech];

    /// <summary>
    /// Reckons the clocks of files: against what was noted in the lesson itself; what that does not tell, against the files whose clocks are known by then, the one
    /// with most pairs first. Of files that speak only of one another, <see cref="RightClock"/> says which goes right.
    /// </summary>
    /// <param name="files">The files, in any order.</param>
    /// <param name="live">What was noted in the lesson itself.</param>
    public static ReckonedClocks Of(IReadOnlyList<ClockedFile> files, IReadOnlyList<TraceAt> live)
    {
        var clocks = files.Where(f => f.ByHand is not null).ToDictionary(f => f.Id, f => new FileClock(f.ByHand!.Value, null, 0, ByHand: true));
        foreach (var file in files.Where(f => !clocks.ContainsKey(f.Id)))
        {
            if (Reckon(file.Traces, live) is { } clock)
            {
                clocks[file.Id] = clock;
            }
        }

        var left = files.Where(f => !clocks.ContainsKey(f.Id)).OrderBy(f => f.Id).ToList();
        foreach (var (file, clock) in Beside(left, live.Concat(files.Where(f => clocks.ContainsKey(f.Id)).SelectMany(f => f.By(clocks[f.Id])))))
        {
            clocks[file.Id] = clock;
        }

        var unsure = new List<IReadOnlyList<Guid>>();
        while (MostSpokenOf(left) is { } first)
        {
            left.Remove(first);
            var group = Beside(left, first.Traces);
            group[first] = FileClock.Unknown;
            var likely = RightClock.Of(group, at => [.. files.Select(f => group.ContainsKey(f) ? at(f) : f.By(clocks.GetValueOrDefault(f.Id, FileClock.Unknown)))], live);
            foreach (var (file, clock) in likely[0].Clocks)
            {
                clocks[file.Id] = clock;
            }

            if (likely.Count > 1)
            {
                unsure.Add([.. likely.Select(l => l.Right)]);
            }
        }

        foreach (var file in left)
        {
            clocks[file.Id] = FileClock.Unknown;
        }

        return new ReckonedClocks(clocks, unsure);
    }

    // The file of which others tell most; none if they tell nothing of one another.
    private static ClockedFile? MostSpokenOf(List<ClockedFile> files) =>
        files.Select(f => (File: f, Pairs: files.Where(o => o != f).Sum(o => Reckon(f.Traces, o.Traces)?.Pairs ?? 0))).Where(f => f.Pairs > 0).OrderByDescending(f => f.Pairs).FirstOrDefault().File;

    // The clocks of all files that what is known speaks of, by and by; those files are left no more.
    private static Dictionary<ClockedFile, FileClock> Beside(List<ClockedFile> left, IEnumerable<TraceAt> first)
    {
        var (found, known) = (new Dictionary<ClockedFile, FileClock>(), first.ToList());
        while (left.Select(f => (File: f, Clock: Reckon(f.Traces, known))).OrderByDescending(f => f.Clock?.Pairs ?? 0).FirstOrDefault() is { Clock: { } next } one)
        {
            found[one.File] = next;
            known.AddRange(one.File.By(next));
            left.Remove(one.File);
        }

        return found;
    }

    /// <summary>How far a file is ahead of something else that was told of the same people; null if not enough agree.</summary>
    /// <param name="file">What the file tells.</param>
    /// <param name="others">What it is compared with.</param>
    public static FileClock? Reckon(IReadOnlyList<TraceAt> file, IReadOnlyList<TraceAt> others)
    {
        foreach (var kind in Kinds)
        {
            if (MostAgreed(Pairs(file, others, kind)) is { Count: > 0 } agreed)
            {
                var ahead = agreed[agreed.Count / 2].Ahead;
                return new FileClock(ahead <= Agreement && ahead >= -Agreement ? Duration.Zero : ahead, kind, Distinct(agreed));
            }
        }

        return null;
    }

    private static List<Pair> Pairs(IReadOnlyList<TraceAt> file, IReadOnlyList<TraceAt> others, TraceKind kind)
    {
        var beside = others.Where(t => t.Trace.Kind == kind && t.Trace.Timed).GroupBy(t => t.Trace.Who, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.OrderBy(t => t.At).Take(MostOfOne).ToList(), StringComparer.Ordinal);
        return
        [
            .. from one in file.Where(t => t.Trace.Kind == kind && t.Trace.Timed && beside.ContainsKey(t.Trace.Who)).GroupBy(t => t.Trace.Who, StringComparer.Ordinal)
               from mine in one.OrderBy(t => t.At).Take(MostOfOne)
               from other in beside[one.Key]
               where mine.Trace.Text is null || other.Trace.Text is null || mine.Trace.Text == other.Trace.Text
               let ahead = mine.At - other.At
               orderby ahead
               select new Pair(ahead, mine.Entry, other.Entry, one.Key),
        ];
    }

    // The stretch of differences, no longer than what agrees, in which most acts are paired, if it leads clearly.
    private static List<Pair> MostAgreed(List<Pair> pairs)
    {
        var best = Densest(pairs, 0, pairs.Count);
        if (best.Count < Fewest)
        {
            return [];
        }

        var stretch = pairs.GetRange(best.From, best.To - best.From);
        var median = stretch[stretch.Count / 2].Ahead;
        var agreed = stretch.Where(p => p.Ahead - median <= Agreement && median - p.Ahead <= Agreement).ToList();
        var count = Distinct(agreed);
        var other = Math.Max(
            Densest(pairs, 0, pairs.FindIndex(p => p.Ahead >= median - (2 * Agreement))).Count,
            Densest(pairs, pairs.FindLastIndex(p => p.Ahead <= median + (2 * Agreement)) + 1, pairs.Count).Count);
        return count >= Fewest && count >= Lead * other && People(agreed) >= Share * People(pairs) ? agreed : [];

        static int People(List<Pair> pairs) => pairs.Select(p => p.Who).Distinct(StringComparer.Ordinal).Count();
    }

    private static (int From, int To, int Count) Densest(List<Pair> pairs, int first, int end)
    {
        var (mine, others) = (new Dictionary<Guid, int>(), new Dictionary<Guid, int>());
        var best = (From: first, To: first, Count: 0);
        for (int from = first, to = first; to < end; to++)
        {
            Add(mine, pairs[to].Mine, 1);
            Add(others, pairs[to].Other, 1);
            while (pairs[to].Ahead - pairs[from].Ahead > 2 * Agreement)
            {
                Add(mine, pairs[from].Mine, -1);
                Add(others, pairs[from].Other, -1);
                from++;
            }

            // One act is one pair, however many it would fit.
            if (Math.Min(mine.Count, others.Count) is var count && count > best.Count)
            {
                best = (from, to + 1, count);
            }
        }

        return best;

        static void Add(Dictionary<Guid, int> counts, Guid entry, int by)
        {
            var now = counts.GetValueOrDefault(entry) + by;
            if (now == 0)
            {
                counts.Remove(entry);
            }
            else
            {
                counts[entry] = now;
            }
        }
    }

    private static int Distinct(List<Pair> pairs) =>
        Math.Min(pairs.Select(p => p.Mine).Distinct().Count(), pairs.Select(p => p.Other).Distinct().Count());

    private readonly record struct Pair(Duration Ahead, Guid Mine, Guid Other, string Who);
}
