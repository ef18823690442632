using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Lessons;

/// <summary>
/// How entries are taken: first what they say of names, messages and questions, then what happened. A state is made from an earlier one where that
/// comes to the same; the copy shares the parts of all trades of which nothing is taken.
/// </summary>
public sealed partial class LessonState
{
    private static readonly Dictionary<Guid, Guid> NoneMerged = [];

    private static readonly HashSet<Guid> NoneAmong = [];

    private GrowingList<Entry> _entries;
    private Instant _lastNoted = Instant.MinValue;

    /// <summary>Its entries with the times of files put right; null if it has no files.</summary>
    private Entry[]? _aligned;

    /// <summary>The lesson as it stood before, the newest first: each about twice as many entries ago as the one before it, so that what comes late costs what stands behind it.</summary>
    private LessonState[] _earlier = [];

    private LessonState(IReadOnlyDictionary<Guid, Guid> merged) => (Parts, _entries) = (new LessonParts(Fresh(merged), merged), new([]));

    private LessonState(LessonState from) => (Parts, _entries, _lastNoted) = (from.Parts.Next(), from._entries, from._lastNoted);

    /// <summary>
    /// What the entries amount to with more of them. The same as folding all of them together, and it costs about as much as what happened after the first of them, or
    /// after what they speak of, such as undoing something old.
    /// </summary>
    /// <param name="more">More entries of the lesson, none of which is among these, in any order.</param>
    public LessonState With(IReadOnlyList<Entry> more)
    {
        if (more.Count == 0)
        {
            return this;
        }

        // What a file tells is about all of the lesson, and files come when it is over.
        if (_aligned is not null || more.Any(Merge.Concerns))
        {
            return Fold(_entries.Concat(more), Parts.Merged);
        }

        var late = Ordered.ByTime([.. more]);
        if (Extend(this, late) is { } longer)
        {
            longer._earlier = WithBefore(longer._entries.Count);
            return longer;
        }

        for (var i = 0; i < _earlier.Length; i++)
        {
            var past = _earlier[i];
            // One that lacks half of the lesson saves little, if it does at all.
            if (past._entries.Count * 2 < _entries.Count)
            {
                break;
            }

            if (past.MayComeBefore(late[0]) && Extend(past, Ordered.Merged(_entries.From(past._entries.Count), late)) is { } mended)
            {
                mended._earlier = _earlier[i..];
                return mended;
            }
        }

        return Fold(_entries.Concat(more), Parts.Merged);
    }

    /// <summary>What is kept of earlier, this state with it, for one that is so long: of three that lie closer together than each of them lies back, the middle one goes.</summary>
    private LessonState[] WithBefore(int count)
    {
        List<LessonState> kept = [new LessonState(this)];
        for (var i = 0; i < _earlier.Length; i++)
        {
            if (i + 1 == _earlier.Length || count - _earlier[i + 1]._entries.Count > 2 * (count - kept[^1]._entries.Count))
            {
                kept.Add(_earlier[i]);
            }
        }

        return [.. kept];
    }

    private bool MayComeBefore(Entry entry) => _entries.Count == 0 || Ordered.Compare(_entries[^1], entry) < 0;

    /// <summary>A state with more entries behind all of its own; null if one of them says something of what is before them.</summary>
    private static LessonState? Extend(LessonState from, Entry[] more)
    {
        // Of one moment the order is that of the ledger, which notes each entry later than the one before it.
        if (from._entries.Count > 0
            && (!from.MayComeBefore(more[0]) || !Array.TrueForAll(more, e => e.NotedAt > from._lastNoted && !(e.Act.IsOfAllItsMoment && e.HappenedAt == from._entries[^1].HappenedAt)) || from.IsSpokenOfBy(more)))
        {
            return null;
        }

        var longer = new LessonState(from);
        return longer.Take(more) ? longer : null;
    }

    private bool IsSpokenOfBy(Entry[] more)
    {
        var among = new HashSet<Guid>(more.Length);
        foreach (var entry in more)
        {
            among.Add(entry.Id);
        }

        return Parts.See<StrikesMade>().HaveAnyOf(among) || Array.Exists(more, e => e.Act.SpeaksOfEarlier(Parts, e, among));
    }

    /// <summary>Takes entries that happened after all there are, in order.</summary>
    /// <returns>False if they change whose a name is in a way that what came before counts for otherwise; then all is to be folded anew.</returns>
    private bool Take(Entry[] more)
    {
        _entries = _entries.With(more);
        // One look at each of them: a long lesson does not fit where a processor finds it at once.
        var (strikes, merges, speaksOfNames, named) = (false, false, false, (List<NameAct>?)null);
        foreach (var entry in more)
        {
            strikes |= entry.Act is Struck;
            merges |= Merge.Concerns(entry);
            speaksOfNames |= entry.Act is NameMatched or Renamed;
            if (entry.Act is NameAct { Beside.Length: > 0 } name)
            {
                (named ??= []).Add(name);
            }

            _lastNoted = Instant.Max(_lastNoted, entry.NotedAt);
        }

        if (merges || strikes)
        {
            Parts.Change<StrikesMade>().Take(more);
        }

        HashSet<Guid> struckByHand = [];
        if (merges)
        {
            struckByHand = [.. more.Where(e => IsStruck(e.Id)).Select(e => e.Id)];
            Parts.Change<StrikesMade>().Take(Merge.WithoutFile(more, IsStruck));
        }

        var standing = more;
        if (Parts.See<StrikesMade>() is { Count: > 0 } made && Array.Exists(more, e => made.Have(e.Id)))
        {
            standing = [.. more.Where(e => !made.Have(e.Id))];
            (speaksOfNames, named) = (Array.Exists(standing, e => e.Act is NameMatched or Renamed), [.. standing.Select(e => e.Act).OfType<NameAct>().Where(a => a.Beside.Length > 0)]);
        }

        if (named is { Count: > 0 } && !Parts.Change<NamesShown>().TellApart(named))
        {
            return false;
        }

        HashSet<string> counted = speaksOfNames ? [.. Names.All.Keys] : [];
        // What is said of names and of messages counts for what came before it, too.
        foreach (var entry in standing)
        {
            entry.Act.Learn(Parts, entry);
        }

        // Whose a name is may be said together with what it did: then that is of somebody of whom something stands already.
        if (speaksOfNames && (!Parts.Change<NamesShown>().Settle(counted) || Array.Exists(standing, e => e.Act is NameAct && e.Act.SpeaksOfEarlier(Parts, e, NoneAmong))))
        {
            return false;
        }

        if (merges)
        {
            standing = Merge.Into(Parts, more, IsStruck, struckByHand);
            var aligned = standing.ToDictionary(e => e.Id);
            _aligned = Ordered.ByTime([.. _entries.Select(e => aligned.GetValueOrDefault(e.Id, e))]);
        }

        foreach (var entry in standing)
        {
            Apply(entry);
        }

        return true;
    }

    private void Apply(Entry entry)
    {
        switch (entry.Act)
        {
            case StudentAct { ShowsPresence: true } act:
                Parts.Change<Evidence>().Glimpse(Whose(act.Student), entry);
                break;
            case NameAct { ShowsPresence: true } act:
                Parts.Change<NamesShown>().See(Names.Of(act), new SeenAt(entry.HappenedAt, entry.Id));
                break;
        }

        // What another entry counts for as well still shows that somebody was there, and nothing else.
        if (Files.CountsBy(entry.Id) is null)
        {
            entry.Act.Apply(Parts, entry);
        }
    }

    /// <summary>What every trade keeps of a lesson in which nothing has happened.</summary>
    private static LessonPart[] Fresh(IReadOnlyDictionary<Guid, Guid> merged) =>
    [
        new StrikesMade(), new CourseNow(), new NamesShown(merged), new Evidence(), new HandLine(), new SignalsShown(), new GroupsNow(), new BoardNow(),
        new QuestionsAsked(), new ChatLog(), new PageVisits(), new NotesTaken(), new Judged(), new FilesMerged(),
    ];
}
