using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>
/// Where somebody was by the teacher's marks, where nothing measured it. "Here" counts from the start, unless a roll call missed them before; "late" from its moment, or from
/// when they were seen before it; "left" until it. What they did shows a moment and no more.
/// </summary>
internal sealed class DeclaredLine
{
    private readonly List<Stretch> _stretches = [];
    private readonly Instant _from;
    private Instant? _since;
    private Instant? _missed;
    private Instant? _shown;
    private Instant _lastShown;
    private bool _saidLate;
    private bool _left;

    private DeclaredLine(Instant from) => _from = from;

    /// <summary>The stretches, not cut to the lesson; one may have no length. The last one is open if nothing says that they are gone.</summary>
    public IReadOnlyList<Stretch> Stretches => _stretches;

    /// <summary>Whether it is known when they came, and not only by when they had come.</summary>
    public bool ArrivalIsKnown { get; private set; }

    /// <summary>Whether it is known until when they were there, and not only by when they still were.</summary>
    public bool EndIsKnown { get; private set; } = true;

    /// <summary>Reads marks and acts.</summary>
    /// <param name="marks">The marks, in order.</param>
    /// <param name="acts">When they did something in the lesson.</param>
    /// <param name="from">When the lesson begins to count.</param>
    /// <param name="to">When it ends to count.</param>
    public static DeclaredLine Of(IEnumerable<MarkMade> marks, IEnumerable<Instant> acts, Instant from, Instant to)
    {
        var line = new DeclaredLine(from);
        // At one moment the teacher's word comes last.
        foreach (var (at, mark) in acts.Select(a => (At: a, Mark: (MarkMade?)null)).Concat(marks.Select(m => (At: m.At, Mark: (MarkMade?)m))).OrderBy(s => s.At).ThenBy(s => s.Mark is not null))
        {
            switch (mark)
            {
                case null:
                    line.Show(at);
                    break;
                case { Mark: Mark.Here }:
                    line.Here(mark);
                    break;
                case { Mark: Mark.Late }:
                    line.Late(at);
                    break;
                default:
                    line.Gone(mark);
                    break;
            }
        }

        if (line._since is { } open)
        {
            line._stretches.Add(new Stretch(open, Instant.Max(open, to), Open: true));
        }
        else if (line._shown is { } shown)
        {
            line.Was(shown, line._lastShown);
            line.EndIsKnown = false;
        }

        return line;
    }

    private bool IsFirst => _stretches.Count == 0;

    private void Show(Instant at)
    {
        if (!_left)
        {
            _shown ??= at;
            _lastShown = at;
        }
    }

    private void Here(MarkMade mark)
    {
        // A roll call does not unsay "late".
        if (IsFirst && (_since is null || (_saidLate && !mark.ByRollCall)))
        {
            (_since, ArrivalIsKnown) = (_missed ?? _from, true);
        }

        _saidLate &= mark.ByRollCall;
        Come(mark.At);
    }

    private void Late(Instant at)
    {
        if (IsFirst)
        {
            (_since, ArrivalIsKnown) = (_shown ?? at, true);
        }

        _saidLate = true;
        Come(at);
    }

    private void Come(Instant at)
    {
        _since ??= _shown ?? at;
        _left = false;
    }

    // Whom a roll call missed before came with the last one that did.
    private void Was(Instant shown, Instant last)
    {
        ArrivalIsKnown |= IsFirst && _missed is not null;
        _stretches.Add(new Stretch(IsFirst ? _missed ?? shown : shown, last, Open: false));
    }

    private void Gone(MarkMade mark)
    {
        if (mark.At <= _from)
        {
            // Whatever was said before the start says nothing of how they came.
            (ArrivalIsKnown, _saidLate) = (false, false);
        }
        else if (_since is { } since)
        {
            _stretches.Add(new Stretch(since, mark.At, Open: false));
        }
        else if (_shown is { } shown)
        {
            // Who left had been there until then; whom a look round missed, at least until the last thing they did.
            Was(shown, mark.ByRollCall ? _lastShown : mark.At);
        }
        else if (!_left && !mark.ByRollCall)
        {
            // Nobody knows since when.
            Was(mark.At, mark.At);
        }
        else if (IsFirst && mark.ByRollCall)
        {
            _missed = mark.At;
        }

        (_since, _shown) = (null, null);
        _left |= !mark.ByRollCall && mark.At > _from;
    }
}
