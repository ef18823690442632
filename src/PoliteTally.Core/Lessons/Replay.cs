using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Lessons;

/// <summary>
/// A lesson as it stood at any moment: folded from what had happened by then. What was struck out since is left out, and what a file brought in since is there, for both
/// say what really happened. A state now and then is kept, so that any moment is near one; not for several threads at once.
/// </summary>
public sealed class Replay
{
    private const int Between = 4000;

    private readonly IReadOnlyDictionary<Guid, Guid>? _merged;
    private readonly List<Entry> _entries;
    private readonly List<LessonState> _kept = [];

    /// <summary>Prepares a lesson.</summary>
    /// <param name="now">The lesson as it stands now.</param>
    /// <param name="merged">Records that turned out to be of one student, as for <see cref="LessonState.Fold"/>.</param>
    public Replay(LessonState now, IReadOnlyDictionary<Guid, Guid>? merged = null)
    {
        (_merged, Now) = (merged, now);
        _entries = [.. now.Entries.Where(e => !now.IsStruck(e.Id) && e.Act is not Struck).OrderBy(e => e.HappenedAt)];
    }

    /// <summary>The lesson as it stands now.</summary>
    public LessonState Now { get; }

    /// <summary>The lesson as it stood at a moment, with what happened at that very moment.</summary>
    public LessonState At(Instant moment)
    {
        // The first entry that comes after the moment.
        var (low, high) = (0, _entries.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = _entries[middle].HappenedAt <= moment ? (middle + 1, high) : (low, middle);
        }

        var near = low / Between;
        for (var i = _kept.Count; i <= near; i++)
        {
            _kept.Add(i == 0 ? LessonState.Fold([], _merged) : _kept[i - 1].With(_entries[((i - 1) * Between)..(i * Between)]));
        }

        return low == near * Between ? _kept[near] : _kept[near].With(_entries[(near * Between)..low]);
    }
}
