using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>The stretches in which a student was there, and how that is known.</summary>
/// <param name="Stretches">Cut to the lesson, in order.</param>
/// <param name="KnownBy">How it is known.</param>
/// <param name="Flags">What stands beside it.</param>
/// <param name="SeenAtAll">Whether they were seen at all.</param>
/// <param name="IsHere">Whether the newest evidence says that they are there.</param>
/// <param name="ArrivalIsKnown">Whether it is known when they came, and not only by when they had come.</param>
/// <param name="Measured">How long they were there by their connections, or by a length, alone; null if nothing measured them.</param>
/// <param name="LengthOnly">How long they were there, if nobody says when.</param>
internal sealed record Presence(
    IReadOnlyList<Stretch> Stretches, KnownBy KnownBy, AttendanceFlags Flags, bool SeenAtAll, bool IsHere, bool ArrivalIsKnown, Duration? Measured = null, Duration? LengthOnly = null)
{
    /// <summary>Reads everything that says when a student was there.</summary>
    public static Presence Of(IReadOnlyList<Sighting> sightings, IReadOnlyList<MarkMade> marks, Instant from, Instant to)
    {
        var (connections, flags) = Connected(sightings, from, to);
        var line = Timeline.Of(connections, sightings, marks, from, to);
        if (connections.Count == 0 && sightings.OfType<PresentFor>().Select(p => p.Length).ToList() is { Count: > 0 } lengths)
        {
            var total = Duration.Min(lengths.Aggregate(Duration.Zero, (a, b) => a + b), to - from);
            return new Presence([], KnownBy.Measured, AttendanceFlags.LengthOnly, lengths.Any(l => l > Duration.Zero), line.IsHere, ArrivalIsKnown: false, total, total);
        }

        if (connections.Count == 0 && marks.Count == 0)
        {
            return Glimpsed(sightings, line, from, to);
        }

        if (!line.IsConnected)
        {
            flags &= ~AttendanceFlags.Open;
        }

        var seen = connections.Any(IsWithin) || line.Stretches.Any(s => IsWithin(s.Stretch));
        var first = line.Stretches.FirstOrDefault(s => s.Stretch.To > from && s.Stretch.From < to);
        var known = marks.Any(m => !m.ByRollCall) || connections.Count == 0 ? KnownBy.Declared : KnownBy.Measured;
        return new Presence(
            Union(line.Stretches.Select(s => s.Stretch), from, to), known, flags, seen, line.IsHere,
            first.Stretch is null || first.SinceThen || first.Stretch.From <= from,
            connections.Count == 0 ? null : Union(connections, from, to).Aggregate(Duration.Zero, (sum, s) => sum + (s.To - s.From)));

        // Who comes at the very end, or leaves at the very start, was not there; but in a lesson of 0 min no stretch has a length, and yet they came.
        bool IsWithin(Stretch stretch) => to > from ? stretch.From < to && stretch.To > from : stretch.From <= to && stretch.To >= from;
    }

    /// <summary>
    /// The same by what somebody did in the lesson alone, from the first act to the last; null if they did nothing in it. Whether they are there now all
    /// evidence says as before.
    /// </summary>
    public Presence? ByActs(IReadOnlyList<Sighting> sightings, Instant from, Instant to)
    {
        var acts = sightings.Where(s => s is SeenAt && s.At >= from && s.At < to).Select(s => s.At).ToList();
        return acts.Count == 0 ? null : this with
        {
            Stretches = [new Stretch(acts.Min(), acts.Max(), Open: false)],
            KnownBy = KnownBy.Estimated,
            Flags = AttendanceFlags.Estimated | AttendanceFlags.SeenOtherwise,
            SeenAtAll = true,
            ArrivalIsKnown = false,
            Measured = null,
            LengthOnly = null,
        };
    }

    // From the first to the last glimpse.
    private static Presence Glimpsed(IReadOnlyList<Sighting> sightings, Timeline line, Instant from, Instant to)
    {
        var glimpses = sightings.Where(s => s is SeenAt or PageAt && s.At <= to).Select(s => s.At).ToList();
        // Who was there before the start and has not gone is there when it begins.
        var during = glimpses.Where(g => g >= from).ToList();
        if (glimpses.Count > during.Count && (line.IsHere || during.Count > 0 || IsOnPageAt(from)))
        {
            during.Add(from);
        }

        // A page that is open goes on as a connection does, and that it is closed after the lesson says nothing of the lesson.
        if (during.Count > 0 && (line.IsOnPage || IsOnPageAt(to)))
        {
            during.Add(to);
        }

        return during.Count == 0
            ? new Presence([], KnownBy.Nothing, AttendanceFlags.None, SeenAtAll: false, line.IsHere, ArrivalIsKnown: false)
            : new Presence(
                [new Stretch(during.Min(), during.Max(), Open: false)], KnownBy.Estimated, AttendanceFlags.Estimated, SeenAtAll: true, line.IsHere, ArrivalIsKnown: false);

        bool IsOnPageAt(Instant moment) => sightings.OfType<PageAt>().Where(p => p.At <= moment).MaxBy(p => p.At) is { Opens: true };
    }

    /// <summary>Time present with short gaps bridged, and the number of gaps, bridged or not.</summary>
    public (Duration Present, int Dropouts) Bridged(Duration bridge, Duration counted)
    {
        if (LengthOnly is { } length)
        {
            return (length, 0);
        }

        var present = Stretches.Aggregate(Duration.Zero, (sum, s) => sum + (s.To - s.From));
        var gaps = Stretches.Zip(Stretches.Skip(1), (a, b) => b.From - a.To).ToList();
        return (Duration.Min(counted, present + gaps.Where(g => g <= bridge).Aggregate(Duration.Zero, (a, b) => a + b)), gaps.Count);
    }

    /// <summary>Connections, each from joining to leaving, not cut to the lesson, and what stands beside them.</summary>
    internal static (IReadOnlyList<Stretch> Connections, AttendanceFlags Flags) Connected(IEnumerable<Sighting> sightings, Instant from, Instant to)
    {
        var connections = new List<Stretch>();
        var flags = AttendanceFlags.None;
        foreach (var device in sightings.OfType<ConnectionEnd>().GroupBy(s => (s.Who, s.Device)))
        {
            flags |= PairUp(device, from, to, connections);
        }

        return (connections, flags);
    }

    // At one and the same moment an open stretch ends before the next begins (a program that reconnects writes both with
    // one time stamp); with no stretch open, somebody came and went at once. A device has one connection at a time, so coming in again
    // means that the one before broke off unseen. Where no device is told, several may be on at once: then it is over when the last has left.
    private static AttendanceFlags PairUp(IEnumerable<ConnectionEnd> device, Instant from, Instant to, List<Stretch> into)
    {
        var flags = AttendanceFlags.None;
        Instant? joined = null;
        var (open, any) = (0, false);
        foreach (var moment in device.GroupBy(s => s.At).OrderBy(m => m.Key))
        {
            // As many as are on may leave before somebody comes; whoever leaves besides has come and gone in one moment.
            var leaving = moment.OfType<LeaveAt>().ToList();
            foreach (var sighting in leaving.Take(open).Concat<ConnectionEnd>(moment.OfType<JoinAt>()).Concat(leaving.Skip(open)))
            {
                switch (sighting)
                {
                    case JoinAt join:
                        joined ??= sighting.At;
                        open = join.Device.Length == 0 ? open + 1 : 1;
                        break;
                    case LeaveAt when open > 1:
                        open--;
                        break;
                    case LeaveAt when joined is { } start:
                        open = 0;
                        into.Add(new Stretch(start, sighting.At, Open: false));
                        joined = null;
                        break;
                    case LeaveAt when !any:
                        into.Add(new Stretch(Instant.Min(from, sighting.At), sighting.At, Open: false));
                        flags |= AttendanceFlags.NoJoin;
                        break;
                }

                any = true;
            }
        }

        if (joined is { } since)
        {
            into.Add(new Stretch(since, Instant.Max(since, to), Open: true));
            flags |= since < to ? AttendanceFlags.Open : AttendanceFlags.None;
        }

        return flags;
    }

    internal static List<Stretch> Union(IEnumerable<Stretch> raw, Instant from, Instant to)
    {
        var union = new List<Stretch>();
        foreach (var stretch in raw.OrderBy(s => s.From))
        {
            var cut = stretch with { From = Instant.Max(stretch.From, from), To = Instant.Min(stretch.To, to) };
            if (cut.To <= cut.From)
            {
                continue;
            }

            if (union is [.., var last] && cut.From <= last.To)
            {
                union[^1] = last with { To = Instant.Max(last.To, cut.To), Open = last.Open || cut.Open };
            }
            else
            {
                union.Add(cut);
            }
        }

        return union;
    }
}
