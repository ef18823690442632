using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Hands;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// What the entries of a lesson amount to. A pure fold: the order in which entries arrive does not matter, an entry that
/// arrives twice counts once, and a struck-out entry leaves no trace. The live screen, settling, scores and tests all
/// read this.
/// </summary>
public sealed class LessonState
{
    private static readonly StudentState Nothing = new();
    private static readonly Dictionary<Guid, Guid> NoneMerged = [];

    private readonly Dictionary<Guid, StudentState> _students = [];
    private readonly Dictionary<string, NameState> _names = new(StringComparer.Ordinal);
    private readonly HandLine _line = new();
    private readonly SortedSet<Instant> _rollCalls = [];
    private readonly Dictionary<string, Guid> _reminders = new(StringComparer.Ordinal);
    private readonly HashSet<Guid> _struck;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;

    private LessonState(IReadOnlyList<Entry> ordered, HashSet<Guid> struck, IReadOnlyDictionary<Guid, Guid> merged)
    {
        _struck = struck;
        _merged = merged;
        Entries = ordered;
        foreach (var entry in ordered)
        {
            if (!struck.Contains(entry.Id))
            {
                Apply(entry);
            }
        }
    }

    /// <summary>All entries, struck-out ones too, in the order in which they happened.</summary>
    public IReadOnlyList<Entry> Entries { get; }

    /// <summary>When the lesson began; null before it has.</summary>
    public Instant? StartedAt { get; private set; }

    /// <summary>When the lesson ended; null before it has.</summary>
    public Instant? EndedAt { get; private set; }

    /// <summary>The entry by which the lesson was settled; null while it is not.</summary>
    public Guid? SettledBy { get; private set; }

    /// <summary>Names seen in the meeting, by the name as shown.</summary>
    public IReadOnlyDictionary<string, NameState> Names => _names;

    /// <summary>Every hand of the lesson, by the time raised.</summary>
    public IReadOnlyList<Hand> Hands => _line.Hands;

    /// <summary>Every turn of the lesson, by the time called.</summary>
    public IReadOnlyList<Turn> Turns => _line.Turns;

    /// <summary>The latest call that nobody has said the outcome of.</summary>
    public Turn? CurrentTurn => _line.Current();

    /// <summary>When roll calls were taken.</summary>
    public IReadOnlyCollection<Instant> RollCalls => _rollCalls;

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
        var seen = new HashSet<Guid>();
        var ordered = new List<Entry>();
        foreach (var entry in entries)
        {
            if (seen.Add(entry.Id))
            {
                ordered.Add(entry);
            }
        }

        ordered.Sort(InOrder);
        return new LessonState(ordered, StruckOut(ordered), merged ?? NoneMerged);
    }

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
        var named = _names.Values.Where(n => n.Match?.Student is { } matched && Whose(matched) == student).SelectMany(n => n.Sightings);
        return [.. named, .. own];
    }

    private static int InOrder(Entry a, Entry b)
    {
        var byTime = a.HappenedAt.CompareTo(b.HappenedAt);
        if (byTime != 0)
        {
            return byTime;
        }

        var byNoted = a.NotedAt.CompareTo(b.NotedAt);
        return byNoted != 0 ? byNoted : a.Id.CompareTo(b.Id);
    }

    /// <summary>An entry is struck out if an entry that is not itself struck out says so.</summary>
    private static HashSet<Guid> StruckOut(List<Entry> entries)
    {
        var strikes = entries.Where(e => e.Act is Struck).ToLookup(e => ((Struck)e.Act).Entry);
        var struck = new HashSet<Guid>();
        foreach (var target in strikes)
        {
            if (IsStruckOut(target.Key, strikes, depth: 0))
            {
                struck.Add(target.Key);
            }
        }

        return struck;
    }

    // A strike can only name an entry that was stored before it, so chains end; the depth is a guard against a damaged file.
    private static bool IsStruckOut(Guid id, ILookup<Guid, Entry> strikes, int depth) =>
        depth < 1000 && strikes[id].Any(s => !IsStruckOut(s.Id, strikes, depth + 1));

    private void Apply(Entry entry)
    {
        switch (entry.Act)
        {
            case LessonStarted:
                StartedAt ??= entry.HappenedAt;
                break;
            case LessonEnded:
                EndedAt = entry.HappenedAt;
                break;
            case LessonSettled:
                SettledBy = entry.Id;
                break;
            case ReminderTicked ticked:
                _reminders[ticked.Reminder] = entry.Id;
                break;
            case StudentAct act:
                ApplyTo(Whose(act.Student), act, entry);
                break;
            case NameAct act:
                ApplyTo(act, entry);
                break;
        }
    }

    private void ApplyTo(Guid id, StudentAct act, Entry entry)
    {
        if (!_students.TryGetValue(id, out var student))
        {
            _students[id] = student = new StudentState();
        }

        student.Apply(act, entry);
        switch (act)
        {
            case HandRaised:
                _line.Raise(id, entry.HappenedAt, entry.Id);
                break;
            case HandEnded ended:
                _line.End(id, ended.End);
                break;
            case Called called:
                _line.Call(id, called.Origin, entry.HappenedAt, entry.Id);
                break;
            case TurnTaken taken:
                _line.Take(id, taken.Outcome, taken.Origin, entry.HappenedAt, entry.Id);
                break;
        }
    }

    private void ApplyTo(NameAct act, Entry entry)
    {
        if (!_names.TryGetValue(act.Name, out var name))
        {
            _names[act.Name] = name = new NameState(act.Name);
        }

        name.Apply(act, entry);
        if (act is Seen)
        {
            _rollCalls.Add(entry.HappenedAt);
        }
    }
}
