using NodaTime;

namespace PoliteTally.Core.Merging;

/// <summary>Which of two rows of acts of one person, told by two sources, are the same acts.</summary>
public static class SameActs
{
    /// <summary>How far apart two entries of one act may lie once clocks are aligned. 45 s.</summary>
    public static readonly Duration Within = Duration.FromSeconds(45);

    /// <summary>How far apart two entries may lie that the teacher may call one: 5 min. Further off nobody has to ask.</summary>
    public static readonly Duration Perhaps = Duration.FromMinutes(5);

    // So many comparisons take some milliseconds. Nobody acts so often; it only keeps a file that was made to be slow from being so.
    private const int MostCompared = 1_000_000;

    /// <summary>
    /// Pairs acts so that as many as possible are paired, and of all such ways the one in which they lie closest together. Nobody's acts change places: what happened first
    /// is what was noted first.
    /// </summary>
    /// <param name="one">When the acts of one source happened, in order.</param>
    /// <param name="other">When those of the other did, in order.</param>
    /// <returns>The places of the paired acts in both.</returns>
    public static IReadOnlyList<(int One, int Other)> Pair(IReadOnlyList<Instant> one, IReadOnlyList<Instant> other)
    {
        var pairs = new List<(int, int)>();
        var (i, j) = (0, 0);
        // A gap that is longer than what may lie between two entries of one act cuts the lesson in parts that have nothing to do with each other.
        while (i < one.Count && j < other.Count)
        {
            if (Gap(one[i], other[j]) > Within)
            {
                _ = one[i] < other[j] ? i++ : j++;
                continue;
            }

            var (iEnd, jEnd) = PartFrom(i, j);
            pairs.AddRange((long)(iEnd - i) * (jEnd - j) > MostCompared ? Next(i, iEnd, j, jEnd) : Closest(i, iEnd, j, jEnd));
            (i, j) = (iEnd, jEnd);
        }

        return pairs;

        (int, int) PartFrom(int first, int second)
        {
            var (iEnd, jEnd) = (first + 1, second + 1);
            for (var last = Instant.Max(one[first], other[second]); ;)
            {
                if (iEnd < one.Count && one[iEnd] - last <= Within)
                {
                    last = Instant.Max(last, one[iEnd++]);
                }
                else if (jEnd < other.Count && other[jEnd] - last <= Within)
                {
                    last = Instant.Max(last, other[jEnd++]);
                }
                else
                {
                    return (iEnd, jEnd);
                }
            }
        }

        // Always the next of each: as many pairs, though perhaps not the closest.
        IEnumerable<(int, int)> Next(int a, int aEnd, int b, int bEnd)
        {
            while (a < aEnd && b < bEnd)
            {
                if (Gap(one[a], other[b]) <= Within)
                {
                    yield return (a++, b++);
                }
                else
                {
                    _ = one[a] < other[b] ? a++ : b++;
                }
            }
        }

        // The longest common subsequence, with the least sum of gaps among the longest.
        IEnumerable<(int, int)> Closest(int a0, int aEnd, int b0, int bEnd)
        {
            var (n, m) = (aEnd - a0, bEnd - b0);
            var best = new (int Pairs, long Gaps)[n + 1, m + 1];
            for (var a = n - 1; a >= 0; a--)
            {
                for (var b = m - 1; b >= 0; b--)
                {
                    best[a, b] = Better(best[a + 1, b], best[a, b + 1]);
                    if (Paired(a, b) is { } paired)
                    {
                        best[a, b] = Better(paired, best[a, b]);
                    }
                }
            }

            for (var (a, b) = (0, 0); a < n && b < m;)
            {
                if (Paired(a, b) == best[a, b])
                {
                    yield return (a0 + a++, b0 + b++);
                }
                else
                {
                    _ = best[a + 1, b] == best[a, b] ? a++ : b++;
                }
            }

            (int, long)? Paired(int a, int b) => Gap(one[a0 + a], other[b0 + b]) is var gap && gap <= Within
                ? (best[a + 1, b + 1].Pairs + 1, best[a + 1, b + 1].Gaps + (long)gap.TotalMilliseconds)
                : null;
        }

        static (int Pairs, long Gaps) Better((int Pairs, long Gaps) x, (int Pairs, long Gaps) y) =>
            x.Pairs != y.Pairs ? (x.Pairs > y.Pairs ? x : y) : x.Gaps <= y.Gaps ? x : y;
    }

    private static Duration Gap(Instant a, Instant b) => a > b ? a - b : b - a;
}
