using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Merging;

/// <summary>
/// Finds which entries of files tell of an act that is known better already: what was noted in the lesson counts, what a file says of it stands behind. Between files the one with
/// the lower id counts, which is nobody's choice but always the same.
/// </summary>
/// <param name="traces">What the entries tell of, by their ids.</param>
/// <param name="fileOf">The file of each entry that came with one.</param>
internal sealed class OneAct(IReadOnlyDictionary<Guid, Trace> traces, IReadOnlyDictionary<Guid, Guid> fileOf)
{
    private const int MostLookedAt = 50;
    private static readonly Comparer<Entry> ByTime = Comparer<Entry>.Create((a, b) => a.HappenedAt.CompareTo(b.HappenedAt));

    private readonly Dictionary<Guid, Guid> _behind = [];
    private readonly Dictionary<Guid, int> _sizes = fileOf.Values.CountBy(f => f).ToDictionary();

    /// <summary>What stands behind what.</summary>
    /// <param name="aligned">The entries, in order, by the clock of the lesson.</param>
    /// <param name="repeats">Rows that another version of their file has as well.</param>
    /// <returns>For each entry that does not count by itself the one that counts.</returns>
    public IReadOnlyDictionary<Guid, Guid> In(IReadOnlyList<Entry> aligned, IReadOnlyDictionary<Guid, Guid> repeats)
    {
        foreach (var (row, first) in repeats)
        {
            _behind[row] = first;
        }

        foreach (var person in aligned.Where(e => traces.ContainsKey(e.Id) && !_behind.ContainsKey(e.Id)).GroupBy(e => traces[e.Id].Who, StringComparer.Ordinal))
        {
            var acts = person.ToLookup(e => traces[e.Id].Kind);
            Messages([.. acts[TraceKind.Message]]);
            Lengths([.. acts[TraceKind.Length]]);
            Answers(acts[TraceKind.Answer]);
            Turns([.. acts[TraceKind.Speech].Concat(acts[TraceKind.TurnEnd]).OrderBy(e => e.HappenedAt)]);
        }

        Words(aligned);
        return _behind.Keys.Select(e => (Other: e, Counts: Last(e))).Where(p => p.Other != p.Counts).ToDictionary(p => p.Other, p => p.Counts);
    }

    /// <summary>
    /// Messages and speech that two sources tell of one person, too far apart to be taken for one and near enough that they may be. Each row of a file stands in at
    /// most one pair, with what is nearest to it.
    /// </summary>
    /// <param name="aligned">The entries, in order, by the clock of the lesson.</param>
    /// <returns>What would count, and what would stand behind it.</returns>
    public IEnumerable<(Entry Counts, Entry Other)> Near(IReadOnlyList<Entry> aligned)
    {
        var met = _behind.Where(b => fileOf.ContainsKey(b.Key)).Select(b => (Last(b.Value), fileOf[b.Key])).ToHashSet();
        var alone = aligned.Where(e => traces.TryGetValue(e.Id, out var trace) && trace.Kind is TraceKind.Message or TraceKind.Speech && !_behind.ContainsKey(e.Id));
        foreach (var acts in alone.GroupBy(e => (traces[e.Id].Who, traces[e.Id].Kind)))
        {
            var all = acts.ToList();
            foreach (var rows in all.Where(e => fileOf.ContainsKey(e.Id)).GroupBy(e => fileOf[e.Id]))
            {
                var others = all.Where(e => !fileOf.TryGetValue(e.Id, out var its) || its.CompareTo(rows.Key) < 0).ToList();
                foreach (var other in rows)
                {
                    if (NearestIn(others, other, rows.Key) is { } near)
                    {
                        met.Add((near.Id, rows.Key));
                        yield return (near, other);
                    }
                }
            }
        }

        // From the moment of the row outwards, and not for ever: of very many nobody looks at one.
        Entry? NearestIn(List<Entry> others, Entry row, Guid file)
        {
            var after = others.BinarySearch(row, ByTime) is var at && at < 0 ? ~at : at;
            for (var (before, step) = (after - 1, 0); step < MostLookedAt; step++)
            {
                var (earlier, later) = (before >= 0 ? others[before] : null, after < others.Count ? others[after] : null);
                var next = later is null || (earlier is not null && Gap(earlier, row) <= Gap(later, row)) ? earlier : later;
                if (next is null || Gap(next, row) > SameActs.Perhaps)
                {
                    return null;
                }

                _ = next == earlier ? before-- : after++;
                if (MayBeOne(next, row) && !met.Contains((next.Id, file)))
                {
                    return next;
                }
            }

            return null;
        }

        // Two messages with different words are two.
        bool MayBeOne(Entry counts, Entry other) => traces[counts.Id].Text is not { } words || traces[other.Id].Text is not { } told || words == told;

        static Duration Gap(Entry a, Entry b) => a.HappenedAt > b.HappenedAt ? a.HappenedAt - b.HappenedAt : b.HappenedAt - a.HappenedAt;
    }

    // With the same words first; what is left, and of which no words are known, by when it was.
    private void Messages(List<Entry> all)
    {
        var known = all.Where(e => !fileOf.ContainsKey(e.Id)).ToList();
        foreach (var file in all.Where(e => fileOf.ContainsKey(e.Id)).GroupBy(e => fileOf[e.Id]).OrderBy(f => f.Key))
        {
            var knownBy = known.ToLookup(e => traces[e.Id].Text);
            foreach (var words in file.GroupBy(e => traces[e.Id].Text))
            {
                Pair(knownBy[words.Key], words);
            }

            var taken = _behind.Values.ToHashSet();
            Pair(knownBy[null].Where(e => !taken.Contains(e.Id)), file.Where(e => !_behind.ContainsKey(e.Id)));
            known = [.. known.Concat(file.Where(e => !_behind.ContainsKey(e.Id))).OrderBy(e => e.HappenedAt)];
        }
    }

    private void Pair(IEnumerable<Entry> known, IEnumerable<Entry> told)
    {
        var (one, other) = (known.ToList(), told.ToList());
        foreach (var (counts, stands) in SameActs.Pair(one.ConvertAll(e => e.HappenedAt), other.ConvertAll(e => e.HappenedAt)))
        {
            _behind[other[stands].Id] = one[counts].Id;
        }
    }

    // Two files that say how long somebody was there do not add up: the longer one counts.
    private void Lengths(List<Entry> all)
    {
        var files = all.Where(e => fileOf.ContainsKey(e.Id)).GroupBy(e => fileOf[e.Id]).OrderByDescending(f => f.Sum(e => traces[e.Id].Lasts.TotalSeconds)).ThenBy(f => f.Key).ToList();
        foreach (var other in files.Skip(1).SelectMany(f => f))
        {
            _behind[other.Id] = files[0].First().Id;
        }
    }

    // To one question somebody has one answer: what the lesson took counts, else the last one; of two of one time that of the larger file, which may be a longer version of the other.
    private void Answers(IEnumerable<Entry> all)
    {
        foreach (var question in all.GroupBy(e => traces[e.Id].Text))
        {
            var known = question.LastOrDefault(e => !fileOf.ContainsKey(e.Id));
            var files = question.Where(e => fileOf.ContainsKey(e.Id)).ToList();
            known ??= files.OrderBy(e => e.HappenedAt).ThenBy(e => _sizes[fileOf[e.Id]]).ThenByDescending(e => fileOf[e.Id]).Last();
            foreach (var other in files.Where(e => e != known))
            {
                _behind[other.Id] = known.Id;
            }
        }
    }

    // What somebody said from shortly before their turn until its end was their turn.
    private void Turns(List<Entry> all)
    {
        var turns = new List<(Entry Start, Instant End, bool Open)>();
        foreach (var entry in all.Where(e => !fileOf.ContainsKey(e.Id)))
        {
            if (traces[entry.Id].Kind == TraceKind.Speech)
            {
                turns.Add((entry, entry.HappenedAt + SameActs.Within, Open: true));
            }
            else if (turns is [.., { Open: true } last])
            {
                turns[^1] = (last.Start, Instant.Max(last.End, entry.HappenedAt), Open: false);
            }
            else
            {
                turns.Add((entry, entry.HappenedAt, Open: false));
            }
        }

        foreach (var speech in all.Where(e => fileOf.ContainsKey(e.Id)))
        {
            if (turns.FindLast(t => speech.HappenedAt >= t.Start.HappenedAt - SameActs.Within && speech.HappenedAt <= t.End) is { Start: { } turn })
            {
                _behind[speech.Id] = turn.Id;
            }
        }
    }

    // The teacher's word on two entries stands over all of it.
    private void Words(IReadOnlyList<Entry> aligned)
    {
        var there = aligned.Select(e => e.Id).ToHashSet();
        foreach (var word in aligned.Select(e => e.Act).OfType<ActsCompared>())
        {
            if (!word.AreOne && Last(word.Other) == word.Entry)
            {
                _behind.Remove(word.Other);
            }
            else if (word.AreOne && there.Contains(word.Entry) && there.Contains(word.Other) && Last(word.Entry) != word.Other)
            {
                _behind[word.Other] = word.Entry;
            }
        }
    }

    // Behind what stands behind another, an entry stands behind that other.
    private Guid Last(Guid entry)
    {
        var seen = new HashSet<Guid>();
        while (_behind.TryGetValue(entry, out var next) && seen.Add(entry))
        {
            entry = next;
        }

        return entry;
    }
}
