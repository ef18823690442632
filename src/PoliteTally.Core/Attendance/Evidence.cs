using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>What the entries of a lesson say of where its students were, names shown in the meeting apart.</summary>
public sealed class Evidence : LessonPart
{
    private static readonly Dictionary<MissedBy, Guid> NoneFailed = [];

    private readonly ListsBy<Guid, MarkMade> _marks;
    private readonly ListsBy<Guid, Sighting> _sightings;
    private readonly Dictionary<Guid, DeclaredStatus> _declared;
    private readonly Dictionary<Guid, ExcuseGiven> _excuses;
    private readonly ListsBy<Guid, AwayWord> _away;
    private readonly ListsBy<Guid, LineWord> _lines;
    private readonly ListsBy<Guid, (Instant At, bool IsOut, Guid Entry)> _out;
    private readonly List<RollCall> _rollCalls;

    internal Evidence() => (_marks, _sightings, _declared, _excuses, _away, _lines, _out, _rollCalls) = (new(), new(), [], [], new(), new(), new(), []);

    private Evidence(Evidence from) =>
        (_marks, _sightings, _declared, _excuses, _away, _lines, _out, _rollCalls) =
            (from._marks.Copy(), from._sightings.Copy(), new(from._declared), new(from._excuses), from._away.Copy(), from._lines.Copy(), from._out.Copy(), [.. from._rollCalls]);

    /// <summary>Roll calls, in order.</summary>
    public IReadOnlyList<RollCall> RollCalls => _rollCalls;

    /// <summary>What the teacher said of where a student is, in order: marks, and being in a roll call or missing from it.</summary>
    public IReadOnlyList<MarkMade> MarksOf(Guid student) => _rollCalls.Count == 0
        ? _marks[student]
        : [.. _marks[student].Concat(_rollCalls.Select(c => new MarkMade(c.Here.Contains(student) ? Mark.Here : Mark.Left, c.At, c.Entry, ByRollCall: true))).OrderBy(m => m.At)];

    /// <summary>Acts of their own that show that a student was there.</summary>
    public IReadOnlyList<Sighting> SightingsOf(Guid student) => _sightings[student];

    /// <summary>The teacher's last word on the status of a student, if there is one.</summary>
    public DeclaredStatus? DeclaredOf(Guid student) => _declared.GetValueOrDefault(student);

    /// <summary>What the teacher said of whether a student was there at a time, in the order said.</summary>
    public IReadOnlyList<AwayWord> AwayWordsOf(Guid student) => _away[student] is { Count: > 1 } several ? [.. several.OrderBy(w => w.SaidAt)] : _away[student];

    /// <summary>What the connection of a student was to blame for, as the teacher says, each with the entry that says so.</summary>
    public IReadOnlyDictionary<MissedBy, Guid> LineFailedOf(Guid student) => _lines[student] is { Count: > 0 } words
        ? words.GroupBy(w => w.Missed).Select(g => g.Last()).Where(w => w.Failed).ToDictionary(w => w.Missed, w => w.Entry)
        : NoneFailed;

    /// <summary>Whether the teacher said of a student whether the connection was to blame.</summary>
    public bool IsLineJudged(Guid student, MissedBy missed) => _lines[student].Any(w => w.Missed == missed);

    /// <summary>When a student was sent out, in order; the last one without an end if they have not been let back in.</summary>
    public IReadOnlyList<TimeOut> TimesOutOf(Guid student)
    {
        var times = new List<TimeOut>();
        foreach (var (at, isOut, entry) in _out[student])
        {
            var open = times is [.., { To: null } last] ? last : null;
            if (isOut && open is null)
            {
                times.Add(new TimeOut(at, null, entry));
            }
            else if (!isOut && open is not null)
            {
                times[^1] = open with { To = at };
            }
        }

        return times;
    }

    /// <summary>The excuse of a student recorded last, if there is one.</summary>
    public ExcuseGiven? ExcuseOf(Guid student) => _excuses.GetValueOrDefault(student);

    internal void Take(Guid student, MarkMade mark) => _marks.Add(student, mark);

    internal void Call(RollCall call) => _rollCalls.Add(call);

    internal void Declare(Guid student, DeclaredStatus word) => _declared[student] = word;

    internal void JudgeAway(Guid student, AwayWord word) => _away.Add(student, word);

    internal void SendOut(Guid student, Entry entry) => _out.Add(student, (entry.HappenedAt, true, entry.Id));

    internal void LetIn(Guid student, Entry entry) => _out.Add(student, (entry.HappenedAt, false, entry.Id));

    internal void JudgeLine(Guid student, LineWord word) => _lines.Add(student, word);

    internal void Excuse(Guid student, ExcuseGiven excuse) => _excuses[student] = excuse;

    /// <summary>They did something that only somebody who is there can do.</summary>
    internal void Glimpse(Guid student, Entry entry) => _sightings.Add(student, new SeenAt(entry.HappenedAt, entry.Id));

    internal void SeePage(Guid student, Entry entry, bool opens) => _sightings.Add(student, new PageAt(entry.HappenedAt, entry.Id, opens));

    internal override LessonPart Copy() => new Evidence(this);
}

/// <summary>A mark of the teacher, and when it was made.</summary>
/// <param name="Mark">The mark: of a roll call "here" for whom it names and "left" for whom it does not.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry.</param>
/// <param name="ByRollCall">Whether a roll call made it.</param>
public sealed record MarkMade(Mark Mark, Instant At, Guid Entry, bool ByRollCall);

/// <summary>The teacher looked round.</summary>
/// <param name="At">When.</param>
/// <param name="Entry">The entry.</param>
/// <param name="Here">Who was there; everybody else was not.</param>
public sealed record RollCall(Instant At, Guid Entry, IReadOnlySet<Guid> Here);

/// <summary>The teacher's word on a status.</summary>
public sealed record DeclaredStatus(AttendanceStatus Status, Guid Entry);

/// <summary>The teacher's word on whether a student was there at a time of which two sources say different things.</summary>
/// <param name="From">From when on.</param>
/// <param name="To">Until when, with that moment.</param>
/// <param name="WasThere">Whether they were there.</param>
/// <param name="SaidAt">When it was said.</param>
/// <param name="Entry">The entry.</param>
public sealed record AwayWord(Instant From, Instant To, bool WasThere, Instant SaidAt, Guid Entry);

/// <summary>A time for which a student was sent out.</summary>
/// <param name="From">Since when.</param>
/// <param name="To">Until when; null while they are not let back in.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record TimeOut(Instant From, Instant? To, Guid Entry);

/// <summary>The teacher's word on whether the connection was to blame for what a student missed.</summary>
/// <param name="Missed">What they missed.</param>
/// <param name="Failed">Whether it was to blame.</param>
/// <param name="Entry">The entry.</param>
public sealed record LineWord(MissedBy Missed, bool Failed, Guid Entry);

/// <summary>An excuse and its reason.</summary>
public sealed record ExcuseGiven(string Reason, Guid Entry);
