using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>
/// Where somebody was, moment by moment: what the newest evidence says. A leaving ends only its own connection; the teacher's "here" holds until
/// the teacher says otherwise or a later leaving is seen; whatever a student does shows that they are there.
/// </summary>
internal sealed class Timeline
{
    private readonly List<(Stretch Stretch, bool SinceThen)> _stretches = [];
    private readonly Instant _from;
    private int _connections;
    private bool _pageOpen;
    private bool _word;
    private bool _saidLate;
    private bool _isSettledBefore;
    private Instant? _since;
    private bool _sinceThen;
    // Since when something of their own shows that they are there, and not the teacher's word alone.
    private Instant? _shown;

    private Timeline(Instant from) => _from = from;

    /// <summary>
    /// The stretches, not cut to the lesson, the last one open if nothing says that they are gone; and of each whether it is known that they came
    /// just then. Of what began with a glimpse or a roll call it is not: they may have come any time before.
    /// </summary>
    public IReadOnlyList<(Stretch Stretch, bool SinceThen)> Stretches => _stretches;

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
        var steps = new List<(Instant At, int Order, Action<Instant> Take)>();
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
                    Add(sighting.At, 2, at => line.Show(at, sinceThen: false));
                    break;
            }
        }

        foreach (var mark in marks)
        {
            Add(mark.At, 3, at => line.Say(mark, at));
        }

        foreach (var step in steps.OrderBy(s => s.At).ThenBy(s => s.Order))
        {
            step.Take(step.At);
        }

        if (line._since is { } open)
        {
            line._stretches.Add((new Stretch(open, Instant.Max(open, to), Open: true), line._sinceThen));
        }

        return line;

        void Add(Instant at, int order, Action<Instant> take) => steps.Add((at, order, take));
    }

    private void Begin(Instant at)
    {
        _connections++;
        Show(at, sinceThen: true);
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
        Show(at, sinceThen: false);
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
        var sinceThen = !mark.ByRollCall;
        switch (mark.Mark)
        {
            case Mark.Here:
                (_word, _saidLate) = (true, false);
                if (!_isSettledBefore && !(_since <= _from) && (_since is null || sinceThen || !_sinceThen))
                {
                    // Nothing says that they came later: it counts from the start. A roll call does not unsay "late".
                    (_since, _sinceThen) = (_from, sinceThen);
                }

                Come(at, sinceThen);
                break;
            case Mark.Late:
                (_word, _saidLate) = (true, true);
                if (!_isSettledBefore)
                {
                    (_since, _sinceThen) = (_shown, false);
                }

                Come(at, sinceThen);
                break;
            default:
                if (!mark.ByRollCall && !_isSettledBefore && !_saidLate && !_sinceThen && !(_since <= _from))
                {
                    // Who left had been there; of a glimpse before it nobody says that they came just then.
                    (_since, _sinceThen) = (_from, sinceThen);
                }

                _word = false;
                _isSettledBefore = true;
                Go(at);
                break;
        }
    }

    private void Show(Instant at, bool sinceThen)
    {
        _shown ??= at;
        Come(at, sinceThen);
    }

    private void Come(Instant at, bool sinceThen)
    {
        if (_since is null)
        {
            (_since, _sinceThen) = (at, sinceThen);
        }
    }

    private void Go(Instant at)
    {
        if (_since is { } since)
        {
            _stretches.Add((new Stretch(since, at, Open: false), _sinceThen));
            (_since, _shown) = (null, null);
        }
    }
}
