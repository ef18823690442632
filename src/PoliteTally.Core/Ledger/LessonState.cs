using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// What the entries of a lesson amount to. A pure fold: the order in which entries arrive does not matter, an entry that
/// arrives twice counts once, and a struck-out entry leaves no trace. The live screen, settling, scores and tests all
/// read this. It never changes; <see cref="With"/> makes another one.
/// </summary>
public sealed partial class LessonState
{
    /// <summary>How far back a late entry may reach before the whole lesson is folded anew. 128 entries.</summary>
    private const int TailKept = 128;

    private static readonly StudentState Nothing = new(new object());
    private static readonly Dictionary<Guid, Guid> NoneMerged = [];

    /// <summary>All entries, struck-out ones too, in the order in which they happened.</summary>
    public IReadOnlyList<Entry> Entries => _entries;

    /// <summary>When the lesson began; null before it has.</summary>
    public Instant? StartedAt { get; private set; }

    /// <summary>When the lesson ended; null before it has.</summary>
    public Instant? EndedAt { get; private set; }

    /// <summary>The entry by which the lesson ended; null before it has.</summary>
    public Guid? EndedBy { get; private set; }

    /// <summary>The entry by which the lesson was settled; null while it is not.</summary>
    public Guid? SettledBy { get; private set; }

    /// <summary>Names seen in the meeting, by the name as shown.</summary>
    public IReadOnlyDictionary<string, NameState> Names => _names;

    /// <summary>Every hand of the lesson, by the time raised.</summary>
    public IReadOnlyList<Hand> Hands => _line.Hands;

    /// <summary>Every turn of the lesson, by the time called.</summary>
    public IReadOnlyList<Turn> Turns => _line.Turns;

    /// <summary>The latest call, if nobody has said the outcome of it; one before it does not come back.</summary>
    public Turn? CurrentTurn => _line.Current();

    /// <summary>Messages in the chat, in order.</summary>
    public IReadOnlyList<ChatMessage> Chat => _chat;

    /// <summary>Stages that were moved to, and when, in order.</summary>
    public IReadOnlyList<(Guid Stage, Instant At)> StageMoves => _stageMoves;

    /// <summary>Minutes that were added to stages.</summary>
    public IReadOnlyDictionary<Guid, int> Extended => _extended;

    /// <summary>
    /// The times that were given for tasks and not ended, in the order in which they began: at most one for the class and one for each group there is.
    /// </summary>
    public IReadOnlyList<TaskTimer> Timers => [.. _timers.Where(t => t.Group is null || Groups.Any(g => g.Id == t.Group))];

    /// <summary>Signal rounds, in order.</summary>
    public IReadOnlyList<HeldRound> SignalRounds => _rounds;

    /// <summary>The groups that the class is split into; empty while it is not.</summary>
    public IReadOnlyList<StudentGroup> Groups => _groups.Groups;

    /// <summary>The groups there were last, dissolved or not.</summary>
    public IReadOnlyList<StudentGroup> LastGroups => _groups.Last;

    /// <summary>Questions that were opened, in order.</summary>
    public IReadOnlyList<Asking> Askings => _askings;

    /// <summary>Questions of which students see on their page what was right, by the entries that opened them.</summary>
    public IReadOnlySet<Guid> Revealed => _revealed;

    /// <summary>The results that are up on the class board; null while none are.</summary>
    public ResultsPut? ResultsUp { get; private set; }

    /// <summary>Signals from student pages for the statement that is up, by student.</summary>
    public IReadOnlyDictionary<Guid, string> Signals => _signals;

    /// <summary>Who came to the student page with a code and a name, by the id that tells them apart.</summary>
    public IReadOnlyDictionary<Guid, PageVisitor> PageVisitors => _visitors;

    /// <summary>What is up on the class board.</summary>
    public IReadOnlyDictionary<BoardItem, OnBoard> Board => _board;

    /// <summary>Roll calls, in order.</summary>
    public IReadOnlyList<RollCall> RollCalls => _rollCalls;

    /// <summary>When lists of everybody who was there were seen, in order.</summary>
    public IReadOnlyCollection<Instant> ListsSeen => _listsSeen;

    /// <summary>Reminders that were seen to, each with the entry that says so.</summary>
    public IReadOnlyDictionary<string, Guid> RemindersTicked => _reminders;

    /// <summary>Folds entries, given in any order.</summary>
    /// <param name="entries">The entries of one lesson.</param>
    /// <param name="merged">
    /// Records that turned out to be of one student: what entries say of the key counts for the value. The entries themselves
    /// stay as they are, so that a merge can be undone.
    /// </param>
    public static LessonState Fold(IEnumerable<Entry> entries, IReadOnlyDictionary<Guid, Guid>? merged = null)
    {
        var ordered = InOrder([.. entries]);
        // The same entry twice stands side by side now.
        var once = 0;
        for (var i = 0; i < ordered.Length; i++)
        {
            if (once == 0 || ordered[once - 1].Id != ordered[i].Id)
            {
                ordered[once++] = ordered[i];
            }
        }

        var state = new LessonState(merged ?? NoneMerged);
        state.Take(once == ordered.Length ? ordered : ordered[..once]);
        return state;
    }

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

        var late = InOrder([.. more]);
        if (Extend(this, late) is { } longer)
        {
            // What happened a while ago is kept as it stood, to begin from when something comes late.
            (longer._past, longer._nextPast) = (_past, _nextPast ?? Copy());
            if (longer._entries.Count - longer._nextPast._entries.Count >= TailKept)
            {
                (longer._past, longer._nextPast) = (longer._nextPast, null);
            }

            return longer;
        }

        if (_past is { } past && Extend(past, InOrder([.. _entries.AsSpan()[past._entries.Count..], .. more])) is { } mended)
        {
            mended._past = past;
            return mended;
        }

        return Fold(_entries.Concat(more), _merged);
    }

    /// <summary>Entries that were struck out, in order.</summary>
    public IEnumerable<Entry> Struck => _struck.Count == 0 ? [] : Entries.Where(e => _struck.Contains(e.Id));

    /// <summary>The strikes that count, by the entries that they strike out: to strike those out puts an entry back.</summary>
    public ILookup<Guid, Guid> StrikesOn() => Entries.Where(e => e.Act is Struck && !_struck.Contains(e.Id))
        .SelectMany(e => ((Struck)e.Act).Entries.Select(struck => (struck, e.Id))).ToLookup(s => s.struck, s => s.Id);

    /// <summary>True if the entry no longer counts.</summary>
    public bool IsStruck(Guid entry) => _struck.Contains(entry);

    /// <summary>The student that an entry about this id counts for.</summary>
    public Guid Whose(Guid student) => _merged.GetValueOrDefault(student, student);

    /// <summary>What is known of a student; empty for one of whom nothing was noted.</summary>
    public StudentState Of(Guid student) => _students.GetValueOrDefault(student, Nothing);

    /// <summary>Everything that says when a student was there: the sightings of all names that are theirs, and their own acts.</summary>
    public IReadOnlyList<Sighting> SightingsOf(Guid student)
    {
        var own = Of(student).OwnSightings;
        var named = _names.Values.Where(n => StudentOf(n) == student).SelectMany(n => n.Sightings);
        return [.. named, .. own];
    }

    /// <summary>What the teacher said of where a student is, in order: marks, and being in a roll call or missing from it.</summary>
    public IReadOnlyList<MarkMade> MarksOf(Guid student)
    {
        var marks = Of(student).Marks;
        return _rollCalls.Count == 0
            ? marks
            : [.. marks.Concat(_rollCalls.Select(c => new MarkMade(c.Here.Contains(student) ? Mark.Here : Mark.Left, c.At, c.Entry, ByRollCall: true))).OrderBy(m => m.At)];
    }

    /// <summary>The message that an entry brought; null if it brought none.</summary>
    public ChatMessage? MessageOf(Guid entry) => _messages.GetValueOrDefault(entry);

    /// <summary>The question that an entry opened; null if it opened none.</summary>
    public Asking? AskingOf(Guid entry) => _askings.Find(a => a.Id == entry);

    /// <summary>The student whose name it is; null if nobody has said, or if it is not a student's.</summary>
    public Guid? StudentOf(NameState name) => name.Match?.Student is { } matched ? Whose(matched) : null;

    private static Entry[] InOrder(Entry[] entries)
    {
        // They mostly come in the order in which they happened.
        for (var i = 1; i < entries.Length; i++)
        {
            if (Compare(entries[i - 1], entries[i]) > 0)
            {
                Array.Sort(entries, Compare);
                break;
            }
        }

        return entries;
    }

    private static int Compare(Entry a, Entry b)
    {
        var byTime = a.HappenedAt.CompareTo(b.HappenedAt);
        if (byTime != 0)
        {
            return byTime;
        }

        var byNoted = a.NotedAt.CompareTo(b.NotedAt);
        return byNoted != 0 ? byNoted : a.Id.CompareTo(b.Id);
    }
}
