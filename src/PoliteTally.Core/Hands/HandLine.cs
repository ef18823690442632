using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Hands;

/// <summary>
/// Hands and turns as the entries of a lesson tell them. Fed in the order in which things happened;
/// the order of the line is by the time raised, ties by arrival.
/// </summary>
public sealed class HandLine : LessonPart
{
    private readonly SharedList<Hand> _hands;
    private readonly SharedList<Turn> _turns;
    private readonly SharedList<SpeechHeard> _heard;
    private readonly Dictionary<string, Duration> _others;
    private readonly Dictionary<Guid, int> _inLine;
    private readonly Dictionary<Guid, int> _openTurn;
    private readonly Dictionary<Guid, Guid> _paused;
    private int? _called;

    internal HandLine() => (_hands, _turns, _heard, _others, _inLine, _openTurn, _paused) = (new(), new(), new(), new(StringComparer.Ordinal), [], [], []);

    private HandLine(HandLine from)
    {
        (_hands, _turns, _heard, _others, _paused) = (from._hands.Copy(), from._turns.Copy(), from._heard.Copy(), new(from._others, StringComparer.Ordinal), new(from._paused));
        (_inLine, _openTurn, _called) = (new(from._inLine), new(from._openTurn), from._called);
    }

    /// <summary>Every hand of the lesson, by the time raised.</summary>
    public IReadOnlyList<Hand> Hands => _hands;

    /// <summary>Every turn of the lesson, by the time called.</summary>
    public IReadOnlyList<Turn> Turns => _turns;

    /// <summary>What students were heard to say that is no turn which was noted, in order.</summary>
    public IReadOnlyList<SpeechHeard> Heard => _heard;

    /// <summary>For how long names that are no student's were heard: the teacher, a guest. Each name exactly as it was shown.</summary>
    public IReadOnlyDictionary<string, Duration> OthersHeard => _others;

    /// <summary>For how long each student was heard to speak, as captions have it: in turns that were noted, and beside them. Empty without captions.</summary>
    public IReadOnlyDictionary<Guid, Duration> Spoken() => _turns.Where(t => t is { IsMeasured: true, Length: not null }).Select(t => (t.Student, Length: t.Length!.Value))
        .Concat(_heard.Select(h => (h.Student, h.Length)))
        .GroupBy(h => h.Student).ToDictionary(g => g.Key, g => g.Aggregate(Duration.Zero, (sum, h) => sum + h.Length));

    /// <summary>
    /// The latest call, if nobody has said the outcome of it; else null. A call before it does not come back: who called somebody else meanwhile
    /// has let it go, though its outcome can still be said.
    /// </summary>
    public Turn? Current => _called is { } latest && _turns[latest].Outcome is null ? _turns[latest] : null;

    /// <summary>The entry that says that a student cannot speak today; null if they can.</summary>
    public Guid? PausedBy(Guid student) => _paused.TryGetValue(student, out var entry) ? entry : null;

    /// <summary>A hand already up stays where it is. A lapsed hand raised again keeps its place: its owner never gave it up.</summary>
    internal void Raise(Guid student, Entry entry, bool ready)
    {
        if (_inLine.TryGetValue(student, out var index))
        {
            _hands[index] = _hands[index] with { Stage = HandStage.Up };
            return;
        }

        _inLine[student] = _hands.Count;
        _hands.Add(new Hand(student, entry.HappenedAt, entry.Id, HandStage.Up, ready));
    }

    /// <summary>Ends the hand in line, if there is one; a lapsed hand stays in line.</summary>
    internal void End(Guid student, HandEnd end)
    {
        if (!_inLine.TryGetValue(student, out var index))
        {
            return;
        }

        var stage = end switch
        {
            HandEnd.Withdrawn => HandStage.Withdrawn,
            HandEnd.SetDown => HandStage.SetDown,
            _ => HandStage.Lapsed,
        };
        _hands[index] = _hands[index] with { Stage = stage };
        if (stage != HandStage.Lapsed)
        {
            _inLine.Remove(student);
        }
    }

    /// <summary>Gives the word. A hand in line makes it a turn from the line, however the call was noted.</summary>
    internal void Call(Guid student, TurnOrigin origin, string? why, Entry entry, Duration? spoken = null)
    {
        var (hand, at) = (TakeFromLine(student), entry.HappenedAt);
        _called = _openTurn[student] = _turns.Count;
        _turns.Add(new Turn(
            student, OriginOf(hand, origin), at, hand is null ? null : at - hand.RaisedAt, Outcome: null, [entry.Id], spoken, why)
        { IsMeasured = spoken is not null });
    }

    /// <summary>Ticks a point in the latest turn of the student; without a turn there is nothing to tick it in.</summary>
    internal void Cover(Guid student, Guid point, Guid entry)
    {
        var index = _turns.Count - 1;
        while (index >= 0 && _turns[index].Student != student)
        {
            index--;
        }

        if (index >= 0 && _turns[index].Points.All(p => p.Point != point))
        {
            _turns[index] = _turns[index] with { Points = [.. _turns[index].Points, (point, entry)] };
        }
    }

    /// <summary>Ends the open turn of the student; without one, this is a whole turn by itself.</summary>
    internal void Take(Guid student, TurnOutcome outcome, TurnOrigin origin, Entry entry, Duration? spoken = null)
    {
        var at = entry.HappenedAt;
        if (_openTurn.Remove(student, out var open))
        {
            _turns[open] = _turns[open] with { Outcome = outcome, Entries = [.. _turns[open].Entries, entry.Id], Length = _turns[open].IsMeasured ? _turns[open].Length : at - _turns[open].At };
            return;
        }

        var hand = TakeFromLine(student);
        _turns.Add(new Turn(
            student, OriginOf(hand, origin), at, hand is null ? null : at - hand.RaisedAt, outcome, [entry.Id], spoken)
        { IsMeasured = spoken is not null });
    }

    /// <summary>Somebody was heard, and nothing was noted of it.</summary>
    internal void Hear(SpeechHeard speech) => _heard.Add(speech);

    /// <summary>Somebody was heard whose name is no student's.</summary>
    internal void HearOther(string name, Duration length) => _others[name] = _others.GetValueOrDefault(name) + length;

    /// <summary>A student cannot speak by this entry, or, with null, can again.</summary>
    internal void Pause(Guid student, Guid? by)
    {
        if (by is { } entry)
        {
            _paused[student] = entry;
        }
        else
        {
            _paused.Remove(student);
        }
    }

    internal override LessonPart Copy() => new HandLine(this);

    private Hand? TakeFromLine(Guid student)
    {
        if (!_inLine.Remove(student, out var index))
        {
            return null;
        }

        _hands[index] = _hands[index] with { Stage = HandStage.Called };
        return _hands[index];
    }

    // Somebody who was in line came from there, unless they were drawn or another student handed on to them.
    private static TurnOrigin OriginOf(Hand? hand, TurnOrigin noted) => hand switch
    {
        { Ready: true } when noted is TurnOrigin.Invited or TurnOrigin.Hand => TurnOrigin.Ready,
        not null when noted == TurnOrigin.Invited => TurnOrigin.Hand,
        _ => noted,
    };
}
