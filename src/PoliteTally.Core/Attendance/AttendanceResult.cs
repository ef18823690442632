using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>The status of a student in the register of one lesson.</summary>
public enum AttendanceStatus
{
    /// <summary>There, and in time.</summary>
    Present,

    /// <summary>There, and late.</summary>
    Late,

    /// <summary>Not there, and no excuse.</summary>
    Absent,

    /// <summary>Not there, with an excuse.</summary>
    Excused,

    /// <summary>Not there, in a lesson that nobody has to come to.</summary>
    DidNotCome,
}

/// <summary>How a status is known, from the least to the best.</summary>
public enum KnownBy
{
    /// <summary>Nothing was noted.</summary>
    Nothing,

    /// <summary>From sightings only.</summary>
    Estimated,

    /// <summary>From joining and leaving times, or from minutes that a program counted.</summary>
    Measured,

    /// <summary>The teacher said so.</summary>
    Declared,
}

/// <summary>A sighting of a student, on one device.</summary>
public abstract record Sighting(Instant At, Guid Entry);

/// <summary>One end of a connection.</summary>
/// <param name="At">When.</param>
/// <param name="Entry">The entry that says so.</param>
/// <param name="Device">Tells the connections of one name apart; empty if the source does not say.</param>
/// <param name="Who">The name under which it was seen: the same device under two names is two connections, since files number devices name by name.</param>
public abstract record ConnectionEnd(Instant At, Guid Entry, string Device, string Who) : Sighting(At, Entry);

/// <summary>Came in.</summary>
public sealed record JoinAt(Instant At, Guid Entry, string Device, string Who = "") : ConnectionEnd(At, Entry, Device, Who);

/// <summary>Went out.</summary>
public sealed record LeaveAt(Instant At, Guid Entry, string Device, string Who = "") : ConnectionEnd(At, Entry, Device, Who);

/// <summary>Was there at that moment.</summary>
public sealed record SeenAt(Instant At, Guid Entry) : Sighting(At, Entry);

/// <summary>Their student page was opened, or closed: a glimpse, and while it is open they are there.</summary>
public sealed record PageAt(Instant At, Guid Entry, bool Opens) : Sighting(At, Entry);

/// <summary>Was there for so long, nobody says when.</summary>
public sealed record PresentFor(Duration Length, Instant At, Guid Entry) : Sighting(At, Entry);

/// <summary>A stretch of presence, cut to the lesson.</summary>
/// <param name="From">Its first moment.</param>
/// <param name="To">Its end, not part of it.</param>
/// <param name="Open">True if nothing says when it ended, so that it runs to the end of the lesson.</param>
public sealed record Stretch(Instant From, Instant To, bool Open);

/// <summary>Attendance of one student in one lesson, with how it is known.</summary>
/// <param name="Status">The status in the register.</param>
/// <param name="KnownBy">How the status is known.</param>
/// <param name="Present">Time present, bridged dropouts included; from zero to <paramref name="Counted"/>.</param>
/// <param name="Counted">The time that counts, from R to E.</param>
/// <param name="Share">Present over counted, 0 to 1; in a lesson of 0 min 1 if seen at all.</param>
/// <param name="Arrival">First presence − R; null if not there or if nobody says when.</param>
/// <param name="EarlyLeave">E − last presence; null as for <paramref name="Arrival"/>.</param>
/// <param name="Flags">What stands beside the status.</param>
/// <param name="Dropouts">Gaps between stretches, bridged ones too.</param>
/// <param name="Stretches">Presence before bridging, in order.</param>
/// <param name="Credit">0 to 1 for the attendance strand; null if not counted.</param>
/// <param name="Reason">The reason of an excuse that counts: of somebody who was not there, or came late.</param>
/// <param name="Entries">The entries it rests on.</param>
/// <param name="IsHere">Whether the newest evidence says that they are there.</param>
public sealed record AttendanceResult(
    AttendanceStatus Status,
    KnownBy KnownBy,
    Duration Present,
    Duration Counted,
    decimal Share,
    Duration? Arrival,
    Duration? EarlyLeave,
    AttendanceFlags Flags,
    int Dropouts,
    IReadOnlyList<Stretch> Stretches,
    decimal? Credit,
    string? Reason,
    IReadOnlyList<Guid> Entries,
    bool IsHere)
{
    /// <summary>What the credit rests on.</summary>
    public AttendanceWorth Worth { get; init; } = new(Status, false, false, 0, false);

    /// <summary>If they are not there by the newest evidence: when they did something last after it; null if nothing.</summary>
    public Instant? ShownSince { get; init; }

    /// <summary>Since when they are sent out and not let back in; null else.</summary>
    public Instant? SentOutSince { get; init; }

    /// <summary>How long they were sent out, within the lesson.</summary>
    public Duration SentOutFor { get; init; }

    /// <summary>Whether it is known when they came, and not only by when they had come.</summary>
    public bool ArrivalIsKnown { get; init; } = true;

    /// <summary>Times of which two sources say different things, and the teacher nothing yet.</summary>
    public IReadOnlyList<Contested> Contested { get; init; } = [];

    /// <summary>Times that were missed by coming late or leaving early without an excuse, if that counts as being asked; not cut to the lesson.</summary>
    public IReadOnlyList<(Instant From, Instant To)> Missed { get; init; } = [];

    /// <summary>So long an act beside every connection is taken to show that somebody may be there. 5 min.</summary>
    public static readonly Duration ShownFor = Duration.FromMinutes(5);

    /// <summary>Until when what they did after it shows that they may be there; null if they did nothing.</summary>
    public Instant? ShownUntil => ShownSince + ShownFor;

    /// <summary>Whether they may be there, though nothing but an act shows it.</summary>
    /// <param name="now">The moment.</param>
    /// <param name="onPage">Whether their student page is open: then it may be for as long as that.</param>
    public bool MayBeHere(Instant now, bool onPage) => ShownUntil is { } until && (onPage || now <= until);

    /// <summary>Whether a moment was missed by coming late or leaving early without an excuse.</summary>
    public bool HasMissed(Instant at) => Missed.Any(m => m.From <= at && at < m.To);

    /// <summary>True if the student took part in the lesson at all.</summary>
    public bool WasThere => Status is AttendanceStatus.Present or AttendanceStatus.Late;

    /// <summary>Whether nothing but what they did is known of where they were.</summary>
    public bool IsEstimated => Flags.HasFlag(AttendanceFlags.Estimated);

    /// <summary>Whether the student was there at a moment; where nothing says when they were there, whether they were there at all.</summary>
    /// <param name="at">The moment.</param>
    /// <param name="bridge">The longest gap that counts as present.</param>
    public bool WasThereAt(Instant at, Duration bridge) => WasThere && (Stretches.Count == 0 || ThereForHalf(at, at, bridge));

    /// <summary>
    /// Whether a question that they did not answer was asked of them: of whom only what they did is known, or only for how long they were there, nothing else was asked; of
    /// others what they missed without an excuse counts as if they had been there.
    /// </summary>
    /// <param name="from">When it was opened.</param>
    /// <param name="to">When it was closed.</param>
    /// <param name="bridge">The longest gap that counts as present.</param>
    /// <returns>Whether it counts, and whether only because they missed it.</returns>
    public (bool Counts, bool Missed) WasAsked(Instant from, Instant to, Duration bridge)
    {
        var isSomewhere = (Flags & (AttendanceFlags.Estimated | AttendanceFlags.LengthOnly | AttendanceFlags.LengthShorter)) == 0;
        if (isSomewhere && ThereForHalf(from, to, bridge))
        {
            return (true, false);
        }

        var there = isSomewhere ? ThereIn(from, to, bridge) : Duration.Zero;
        var missed = Missed.Aggregate(Duration.Zero, (sum, m) => sum + Duration.Max(Duration.Zero, Instant.Min(m.To, to) - Instant.Max(m.From, from)));
        var counts = to > from ? missed > Duration.Zero && (there + missed) * 2 >= to - from : HasMissed(from);
        return (counts, counts);
    }

    /// <summary>Whether the student was there for at least half of a part of the lesson; of a part without any length, its moment decides.</summary>
    /// <param name="from">When the part begins.</param>
    /// <param name="to">When it ends.</param>
    /// <param name="bridge">The longest gap that counts as present.</param>
    public bool ThereForHalf(Instant from, Instant to, Duration bridge) =>
        from == to ? Connections.Bridged(Stretches, bridge).Exists(s => s.From <= from && from < s.To) : ThereIn(from, to, bridge) * 2 >= to - from;

    private Duration ThereIn(Instant from, Instant to, Duration bridge) =>
        Connections.Bridged(Stretches, bridge).Aggregate(Duration.Zero, (sum, s) => sum + Duration.Max(Duration.Zero, Instant.Min(s.To, to) - Instant.Max(s.From, from)));
}

/// <summary>Flags beside the status; each independent of the others.</summary>
[Flags]
public enum AttendanceFlags
{
    /// <summary>None.</summary>
    None = 0,

    /// <summary>Left more than the allowed time before the end.</summary>
    LeftEarly = 1,

    /// <summary>There for less than enough of the lesson.</summary>
    Partly = 2,

    /// <summary>A join with no leave: counted to the end.</summary>
    Open = 4,

    /// <summary>Known from sightings only.</summary>
    Estimated = 8,

    /// <summary>A leave with no join: counted from the start.</summary>
    NoJoin = 16,

    /// <summary>Only the length is known, not when.</summary>
    LengthOnly = 32,

    /// <summary>A list gives less time than from joining to leaving: the gaps lie somewhere between.</summary>
    LengthShorter = 64,
}
