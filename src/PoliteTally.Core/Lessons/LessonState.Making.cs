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
    /// <summary>How far back a late entry may reach before the whole lesson is folded anew. 128 entries.</summary>
    private const int TailKept = 128;

    private static readonly Dictionary<Guid, Guid> NoneMerged = [];

    private GrowingList<Entry> _entries;
    private Instant _lastNoted = Instant.MinValue;

    /// <summary>Its entries with the times of files put right; null if it has no files.</summary>
    private Entry[]? _aligned;

    /// <summary>The lesson as it stood some entries ago, from which a late entry is folded; null if it is not kept.</summary>
    private LessonState? _past;

    /// <summary>What becomes <see cref="_past"/> next.</summary>
    private LessonState? _nextPast;

    private LessonState(IReadOnlyDictionary<Guid, Guid> merged) => (Parts, _entries) = (new LessonParts(Fresh(merged), merged), new([]));

    private LessonState(LessonState from) => (Parts, _entries, _lastNoted) = (from.Parts.Next(), from._entries, from._lastNoted);

    /// <summary>
    /// What the entries amount to with more of them. The same as folding all of them together, and quick if they happened last, as they mostly
    /// do, or not long before the last; what reaches further back, such as undoing something old, folds all anew.
    /// </summary>
    /// <param name="more">More entries of the lesson, none of which is among these, in any order.</param>
    public LessonState With(IReadOnlyList<Entry> more)
    {
        if (more.Count == 0)
        {
            return this;
        }

        // What a file tells is about all of the lesson, and files come when it is over.
        if (_aligned is not null || Merge.Concerns(more))
        {
            return Fold(_entries.Concat(more), Parts.Merged);
        }

        var late = Ordered.ByTime([.. more]);
        if (Extend(this, late) is { } longer)
        {
            // What happened a while ago is kept as it stood, to begin from when something comes late.
            (longer._past, longer._nextPast) = (_past, _nextPast ?? new LessonState(this));
            if (longer._entries.Count - longer._nextPast._entries.Count >= TailKept)
            {
                (longer._past, longer._nextPast) = (longer._nextPast, null);
            }

            return longer;
        }

        if (_past is { } past && Extend(past, Ordered.ByTime([.. _entries.AsSpan()[past._entries.Count..], .. more])) is { } mended)
        {
            mended._past = past;
            return mended;
        }

        return Fold(_entries.Concat(more), Parts.Merged);
    }

    /// <summary>A state with more entries behind all of its own; null if one of them says something of what is before them.</summary>
    private static LessonState? Extend(LessonState from, Entry[] more)
    {
        if (from._entries.Count > 0
            && (more[0].HappenedAt <= from._entries[^1].HappenedAt || !more.All(e => e.NotedAt > from._lastNoted) || from.IsSpokenOfBy(more)))
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
    /// <returns>False if they change whose a name is that acts of it were counted for already; then all is to be folded anew.</returns>
    private bool Take(Entry[] more)
    {
        _entries = _entries.Count == 0 ? new GrowingList<Entry>(more) : _entries.With(more);
        var merges = Merge.Concerns(more);
        if (merges || Array.Exists(more, e => e.Act is Struck))
        {
            Parts.Change<StrikesMade>().Take(more);
        }

        HashSet<Guid> struckByHand = [];
        if (merges)
        {
            struckByHand = [.. more.Where(e => IsStruck(e.Id)).Select(e => e.Id)];
            Parts.Change<StrikesMade>().Take(Merge.WithoutFile(more, IsStruck));
        }

        var strikes = Parts.See<StrikesMade>();
        var standing = strikes.Count == 0 ? more : [.. more.Where(e => !strikes.Have(e.Id))];
        var named = standing.Select(e => e.Act).OfType<NameAct>().Where(a => a.Beside.Length > 0).ToList();
        if (named.Count > 0 && !Parts.Change<NamesShown>().TellApart(named))
        {
            return false;
        }

        var speaksOfNames = Array.Exists(standing, e => e.Act is NameMatched or Renamed);
        HashSet<string> counted = speaksOfNames ? [.. Names.All.Keys] : [];
        // What is said of names and of messages counts for what came before it, too.
        foreach (var entry in standing)
        {
            entry.Act.Learn(Parts, entry);
        }

        if (speaksOfNames && !Parts.Change<NamesShown>().Settle(counted))
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

        foreach (var entry in more)
        {
            _lastNoted = Instant.Max(_lastNoted, entry.NotedAt);
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
