using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>Connections to the meeting: what is measured of a presence.</summary>
public static class Connections
{
    /// <summary>Each connection from joining to leaving, not cut to the lesson, and what stands beside them.</summary>
    /// <param name="sightings">Everything that says when somebody was there, in any order.</param>
    /// <param name="from">When the lesson begins to count: what has an end only begins there, or with the latest leaving before its end.</param>
    /// <param name="to">When it ends to count: what has no end runs to it.</param>
    public static (IReadOnlyList<Stretch> All, AttendanceFlags Flags) Of(IEnumerable<Sighting> sightings, Instant from, Instant to)
    {
        var all = new List<Stretch>();
        var flags = AttendanceFlags.None;
        foreach (var device in sightings.OfType<ConnectionEnd>().GroupBy(s => (s.Who, s.Device)))
        {
            flags |= PairUp(device, from, to, all);
        }

        return (all, flags);
    }

    /// <summary>The union of stretches, in order; those without any length are left out.</summary>
    public static List<Stretch> Union(IEnumerable<Stretch> stretches)
    {
        var union = new List<Stretch>();
        foreach (var stretch in stretches.Where(s => s.To > s.From).OrderBy(s => s.From))
        {
            if (union is [.., var last] && stretch.From <= last.To)
            {
                union[^1] = last with { To = Instant.Max(last.To, stretch.To), Open = stretch.To > last.To ? stretch.Open : stretch.To == last.To ? last.Open || stretch.Open : last.Open };
            }
            else
            {
                union.Add(stretch);
            }
        }

        return union;
    }

    /// <summary>How long stretches are together; none of them may lie over another.</summary>
    public static Duration Length(IEnumerable<Stretch> stretches) => stretches.Aggregate(Duration.Zero, (sum, s) => sum + (s.To - s.From));

    /// <summary>How far apart two moments are, whichever comes first.</summary>
    public static Duration Apart(Instant a, Instant b) => a > b ? a - b : b - a;

    /// <summary>Stretches in order, without a part of the time.</summary>
    public static List<Stretch> Without(IEnumerable<Stretch> stretches, Instant from, Instant to) =>
        [.. stretches.SelectMany(s => s.To <= from || s.From >= to ? [s] : new[] { s with { To = Instant.Min(s.To, from), Open = false }, s with { From = Instant.Max(s.From, to) } }).Where(s => s.To > s.From)];

    /// <summary>Stretches in order, cut to the lesson. A gap that is bridged is so across the ends of the lesson, too.</summary>
    public static List<Stretch> Cut(IReadOnlyList<Stretch> union, Instant from, Instant to, Duration bridge)
    {
        var cut = new List<Stretch>();
        for (var i = 0; i < union.Count; i++)
        {
            var (begins, ends) = (union[i].From, union[i].To);
            if (i > 0 && union[i - 1].To <= from && begins > from && begins - union[i - 1].To <= bridge)
            {
                begins = from;
            }

            if (i + 1 < union.Count && ends < to && union[i + 1].From >= to && union[i + 1].From - ends <= bridge)
            {
                ends = to;
            }

            (begins, ends) = (Instant.Max(begins, from), Instant.Min(ends, to));
            if (ends > begins)
            {
                cut.Add(new Stretch(begins, ends, union[i].Open && ends == to));
            }
        }

        return cut;
    }

    /// <summary>Stretches in order, with short gaps bridged.</summary>
    public static List<Stretch> Bridged(IReadOnlyList<Stretch> stretches, Duration bridge)
    {
        var bridged = new List<Stretch>();
        foreach (var stretch in stretches)
        {
            if (bridged is [.., var last] && stretch.From - last.To <= bridge)
            {
                bridged[^1] = last with { To = stretch.To, Open = stretch.Open };
            }
            else
            {
                bridged.Add(stretch);
            }
        }

        return bridged;
    }

    // At one and the same moment an open stretch ends before the next begins (a program that reconnects writes both with
    // one time stamp); with no stretch open, somebody came and went at once. A device has one connection at a time, so coming in again
    // means that the one before broke off unseen. Where no device is told, several may be on at once: then it is over when the last has left.
    private static AttendanceFlags PairUp(IEnumerable<ConnectionEnd> device, Instant from, Instant to, List<Stretch> into)
    {
        var flags = AttendanceFlags.None;
        var (joined, left) = ((Instant?)null, (Instant?)null);
        var open = 0;
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
                        continue;
                    case LeaveAt when open > 1:
                        open--;
                        break;
                    case LeaveAt when joined is { } start:
                        open = 0;
                        into.Add(new Stretch(start, sighting.At, Open: false));
                        joined = null;
                        break;
                    default:
                        var since = Instant.Min(left ?? from, sighting.At);
                        into.Add(new Stretch(since, sighting.At, Open: false));
                        flags |= sighting.At > Instant.Max(since, from) ? AttendanceFlags.NoJoin : AttendanceFlags.None;
                        break;
                }

                left = sighting.At;
            }
        }

        if (joined is { } running)
        {
            into.Add(new Stretch(running, Instant.Max(running, to), Open: true));
            flags |= running < to ? AttendanceFlags.Open : AttendanceFlags.None;
        }

        return flags;
    }
}
