using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>The stretches in which a student was there, and how that is known.</summary>
internal sealed record Presence(
    IReadOnlyList<Stretch> Stretches, KnownBy KnownBy, AttendanceFlags Flags, bool SeenAtAll, Duration? LengthOnly = null)
{
    public static readonly Presence None = new([], KnownBy.Nothing, AttendanceFlags.None, SeenAtAll: false);

    /// <summary>The union over devices of [join, leave), cut to [from, to); null if nothing was measured.</summary>
    public static Presence? Measured(IReadOnlyList<Sighting> sightings, Instant from, Instant to)
    {
        var measured = sightings.Where(s => s.Measures).ToList();
        if (measured.Count == 0)
        {
            return null;
        }

        var raw = new List<Stretch>();
        var flags = AttendanceFlags.None;
        foreach (var device in measured.Where(s => s is JoinAt or LeaveAt).GroupBy(DeviceOf))
        {
            flags |= PairUp(device, from, to, raw);
        }

        var lengths = measured.OfType<PresentFor>().Select(p => p.Length).ToList();
        if (raw.Count == 0 && lengths.Count > 0)
        {
            var total = Duration.Min(lengths.Aggregate(Duration.Zero, (a, b) => a + b), to - from);
            return new Presence(
                [], KnownBy.Measured, AttendanceFlags.LengthOnly, lengths.Any(l => l > Duration.Zero), total);
        }

        // In a lesson of 0 min no stretch has a length, yet somebody who came was seen.
        var seen = raw.Any(s => s.From <= to && s.To >= from);
        return new Presence(Union(raw, from, to), KnownBy.Measured, flags, seen);
    }

    /// <summary>
    /// What the teacher's marks say: "here" means from the start, "late" from the moment of the mark, "left" until it, and
    /// "here" after "left" means back from that moment. Null without marks.
    /// </summary>
    public static Presence? Marked(IReadOnlyList<MarkMade> marks, Instant from, Instant to)
    {
        if (marks.Count == 0)
        {
            return null;
        }

        var raw = new List<Stretch>();
        Instant? since = null;
        foreach (var mark in marks)
        {
            switch (mark.Mark)
            {
                case Mark.Here:
                    since = raw.Count == 0 ? from : since ?? mark.At;
                    break;
                case Mark.Late:
                    since = mark.At;
                    break;
                case Mark.Left:
                    raw.Add(new Stretch(since ?? from, mark.At, Open: false));
                    since = null;
                    break;
            }
        }

        if (since is { } open)
        {
            raw.Add(new Stretch(open, to, Open: true));
        }

        return new Presence(Union(raw, from, to), KnownBy.Declared, AttendanceFlags.None, SeenAtAll: true);
    }

    /// <summary>From the first to the last glimpse; null if there was none during the lesson.</summary>
    public static Presence? Glimpsed(IReadOnlyList<Sighting> sightings, Instant from, Instant to)
    {
        var glimpses = sightings.OfType<SeenAt>().Where(s => s.At >= from && s.At <= to).Select(s => s.At).ToList();
        if (glimpses.Count == 0)
        {
            return null;
        }

        var stretch = new Stretch(glimpses.Min(), glimpses.Max(), Open: false);
        return new Presence([stretch], KnownBy.Estimated, AttendanceFlags.Estimated, SeenAtAll: true);
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

    private static string DeviceOf(Sighting sighting) => sighting switch
    {
        JoinAt join => join.Device,
        LeaveAt leave => leave.Device,
        _ => "",
    };

    // At one and the same moment an open stretch ends before the next begins (a program that reconnects writes both with
    // one time stamp); with no stretch open, somebody came and went at once.
    private static AttendanceFlags PairUp(IEnumerable<Sighting> device, Instant from, Instant to, List<Stretch> into)
    {
        var flags = AttendanceFlags.None;
        Instant? joined = null;
        var any = false;
        foreach (var moment in device.GroupBy(s => s.At).OrderBy(m => m.Key))
        {
            var leavesFirst = joined is not null;
            foreach (var sighting in moment.OrderBy(s => s is LeaveAt == leavesFirst ? 0 : 1))
            {
                switch (sighting)
                {
                    case JoinAt:
                        joined ??= sighting.At;
                        break;
                    case LeaveAt when joined is { } start:
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

        if (joined is { } open)
        {
            into.Add(new Stretch(open, Instant.Max(open, to), Open: true));
            flags |= open < to ? AttendanceFlags.Open : AttendanceFlags.None;
        }

        return flags;
    }

    private static List<Stretch> Union(List<Stretch> raw, Instant from, Instant to)
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
