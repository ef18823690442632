using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>
/// Where somebody was, moment by moment: what the newest evidence says. A leaving ends only its own connection; the teacher's "here" holds until
/// the teacher says otherwise or a later leaving is seen; whatever a student does shows that they are there.
/// </summary>
internal sealed class Timeline
{
    private readonly List<(Stretch Stretch, Start By)> _stretches = [];
    private readonly Instant _from;
    private int _connections;
    private bool _pageOpen;
    private bool _word;
    private bool _isSettledBefore;
    private Instant? _since;
    private Start _startedBy;

    private Timeline(Instant from) => _from = from;

    /// <summary>What a stretch began with.</summary>
    public enum Start
    {
        /// <summary>A connection that says when it began.</summary>
        Joining,

        /// <summary>The teacher's mark.</summary>
        Mark,

        /// <summary>A glimpse or a roll call: they may have come any time before.</summary>
        Glimpse,
    }

    /// <summary>The stretches, not cut to the lesson, the last one open if nothing says that they are gone.</summary>
    public IReadOnlyList<(Stretch Stretch, Start By)> Stretches => _stretches;

    /// <summary>Whether the newest evidence says that they are there.</summary>
    public bool IsHere => _since is not null;

    /// <summary>Whether they are there and have their page open.</summary>
    public bool IsOnPage => IsHere && _pageOpen;

    /// <summary>Whether they are there on a connection of which nothing says that it ended.</summary>
    public bool IsConnected => IsHere && _connections > 0;

    /// <summary>Reads evidence in any order.</summary>
    /// <param name="connections">Connections, each from joining to leaving.</param>
    /// <param name="sightings">Sightings on the student page and by acts; those of connections are passed over.</param>
    /// <param name="marks">The teacher's marks and roll calls.</param>
    /// <param name="from">When the lesson begins to count.</param>
    /// <param name="to">When it ends to count; an open stretch ends there.</param>
    public static Timeline Of(
        IEnumerable<Stretch> connections, IEnumerable<Sighting> sightings, IEnumerable<MarkMade> marks, Instant from, Instant to)
    {
        var line = new Timeline(from);
        // At one moment an ending comes before a beginning, and the teacher's word last.
        var steps = new List<(Instant At, int Order, int Number, Action<Instant> Take)>();
        foreach (var connection in connections.Where(c => c.To > c.From))
        {
            Add(connection.From, 1, line.Begin);
            if (!connection.Open)
            {
                Add(connection.To, 0, line.End);
            }
        }

        foreach (var sighting in sightings)
        {
            switch (sighting)
            {
                case PageAt { Opens: false }:
                    Add(sighting.At, 0, line.ClosePage);
                    break;
                case PageAt:
                    Add(sighting.At, 1, line.OpenPage);
                    break;
                case SeenAt:
                    Add(sighting.At, 2, at => line.Come(at, Start.Glimpse));
                    break;
            }
        }

        foreach (var mark in marks)
        {
            Add(mark.At, 3, at => line.Say(mark, at));
        }

        foreach (var step in steps.OrderBy(s => s.At).ThenBy(s => s.Order).ThenBy(s => s.Number))
        {
            step.Take(step.At);
        }

        if (line._since is { } open)
        {
            line._stretches.Add((new Stretch(open, Instant.Max(open, to), Open: true), line._startedBy));
        }

        return line;

        void Add(Instant at, int order, Action<Instant> take) => steps.Add((at, order, steps.Count, take));
    }

    private void Begin(Instant at)
    {
        _connections++;
        Come(at, Start.Joining);
        _isSettledBefore = true;
    }

    private void End(Instant at)
    {
        _connections--;
        if (_connections == 0)
        {
            _word = false;
            if (!_pageOpen)
            {
                Go(at);
            }
        }
    }

    private void OpenPage(Instant at)
    {
        _pageOpen = true;
        Come(at, Start.Glimpse);
    }

    private void ClosePage(Instant at)
    {
        _pageOpen = false;
        if (_connections == 0 && !_word)
        {
            Go(at);
        }
    }

    private void Say(MarkMade mark, Instant at)
    {
        var by = mark.ByRollCall ? Start.Glimpse : Start.Mark;
        switch (mark.Mark)
        {
            case Mark.Here:
                _word = true;
                if (!_isSettledBefore && !(_since <= _from) && (_since is null || by == Start.Mark || _startedBy == Start.Glimpse))
                {
                    // Nothing says that they came later: it counts from the start. A roll call does not unsay "late".
                    (_since, _startedBy) = (_from, by);
                }

                Come(at, by);
                break;
            case Mark.Late:
                _word = true;
                if (!_isSettledBefore)
                {
                    _since = null;
                }

                Come(at, by);
                break;
            default:
                if (_since is null && !_isSettledBefore && !mark.ByRollCall)
                {
                    Come(_from, by);
                }

                _word = false;
                _isSettledBefore = true;
                Go(at);
                break;
        }
    }

    private void Come(Instant at, Start by)
    {
        if (_since is null)
        {
            (_since, _startedBy) = (at, by);
        }
    }

    private void Go(Instant at)
    {
        if (_since is { } since)
        {
            _stretches.Add((new Stretch(since, at, Open: false), _startedBy));
            _since = null;
        }
    }
}
