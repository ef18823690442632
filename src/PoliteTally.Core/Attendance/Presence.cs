using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>The stretches in which a student was there, and how that is known.</summary>
/// <param name="Stretches">Cut to the lesson, in order.</param>
/// <param name="KnownBy">How it is known.</param>
/// <param name="Flags">What stands beside it.</param>
/// <param name="SeenAtAll">Whether they were seen in the lesson at all.</param>
/// <param name="ArrivalIsKnown">Whether it is known when they came, and not only by when they had come.</param>
/// <param name="IsMeasured">Whether connections or a length measured it.</param>
/// <param name="Length">How long they were there, where a list says it beside or instead of when; null else.</param>
/// <param name="EndIsKnown">Whether it is known until when they were there, and not only by when they still were.</param>
internal sealed record Presence(
    IReadOnlyList<Stretch> Stretches, KnownBy KnownBy, AttendanceFlags Flags, bool SeenAtAll, bool ArrivalIsKnown, bool IsMeasured, Duration? Length = null, bool EndIsKnown = true)
{
    /// <summary>Whether something that they did shows them in the lesson, where nothing measured it.</summary>
    public bool IsShown { get; init; }

    /// <summary>The stretches before they were cut to the lesson.</summary>
    public IReadOnlyList<Stretch> Whole { get; init; } = Stretches;

    // Lists of lengths are of whole minutes.
    private static readonly Duration Rounding = Duration.FromMinutes(1);

    /// <summary>Reads everything that says when a student was there: connections measure; else the teacher's marks say it; else what they did shows it.</summary>
    /// <param name="told">All that says where the student was.</param>
    /// <param name="connections">Their connections, and what stands beside them.</param>
    /// <param name="from">When the lesson begins to count.</param>
    /// <param name="to">When it ends to count.</param>
    /// <param name="bridge">The longest gap that counts as present.</param>
    public static Presence Of(StudentEvidence told, (IReadOnlyList<Stretch> All, AttendanceFlags Flags) connections, Instant from, Instant to, Duration bridge)
    {
        var length = told.Sightings.OfType<PresentFor>().Select(p => (Duration?)p.Length).Aggregate((Duration?)null, (sum, l) => (sum ?? Duration.Zero) + l);
        return connections.All.Count > 0 ? Measured(told, connections.All, connections.Flags, length, from, to, bridge)
            : length is { } lasted ? new Presence([], KnownBy.Measured, AttendanceFlags.LengthOnly, lasted > Duration.Zero, ArrivalIsKnown: false, IsMeasured: true, Duration.Min(lasted, to - from))
            : told.Marks.Any(m => m.At >= from || m.Mark != Mark.Left) ? Declared(told, from, to)
            : Estimated(told, from, to);
    }

    /// <summary>Time present, short gaps bridged.</summary>
    public Duration Time(Duration bridge, Duration counted)
    {
        var present = Duration.Min(counted, Connections.Length(Connections.Bridged(Stretches, bridge)));
        return Length is { } length && (Stretches.Count == 0 || length < present) ? length : present;
    }

    // What was measured, with what the teacher said of times that were asked about.
    private static List<Stretch> Answered(StudentEvidence told, List<Stretch> measured)
    {
        foreach (var word in told.AwayWords)
        {
            measured = word.WasThere ? Connections.Union([.. measured, new Stretch(word.From, word.To, Open: false)]) : Connections.Without(measured, word.From, word.To);
        }

        return measured;
    }

    private static Presence Measured(StudentEvidence told, IReadOnlyList<Stretch> connections, AttendanceFlags flags, Duration? length, Instant from, Instant to, Duration bridge)
    {
        var measured = Connections.Union(connections);
        var there = Answered(told, measured);
        var cut = Connections.Cut(there, from, to, bridge);
        // The gaps lie somewhere between.
        var isShorter = length is { } lasted && lasted + Rounding < Connections.Length(measured) && cut.Count > 0;
        if (!cut.Any(s => s.Open))
        {
            flags &= ~AttendanceFlags.Open;
        }

        return new Presence(
            cut, told.AwayWords.Any(w => w.WasThere && w.To > from && w.From < to) ? KnownBy.Declared : KnownBy.Measured,
            flags | (isShorter ? AttendanceFlags.LengthShorter : AttendanceFlags.None),
            // Who comes at the very end, or leaves at the very start, was not there; but in a lesson of 0 min no stretch has a length, and yet they came.
            to > from ? cut.Count > 0 : there.Any(s => s.From <= to && s.To >= from),
            ArrivalIsKnown: true, IsMeasured: true, isShorter ? length : null)
        {
            Whole = there,
        };
    }

    private static Presence Declared(StudentEvidence told, Instant from, Instant to)
    {
        var shown = ShownIn(told, from, to);
        var line = DeclaredLine.Of(told.Marks, shown, from, to);
        // Who was seen to leave when it ran over was there until its end; who came then was not.
        var within = line.Stretches.Where(s => s.To >= from && (s.To > from || s.From == s.To) && (s.From < to || (s.From == s.To && !s.Open) || to == from))
            .Select(s => s with { From = Instant.Max(Instant.Min(s.From, to), from), To = Instant.Min(s.To, to) });
        var cut = Connections.Bridged([.. within], Duration.Zero);
        return new Presence(
            cut, KnownBy.Declared, AttendanceFlags.None,
            cut.Count > 0, line.ArrivalIsKnown, IsMeasured: false, EndIsKnown: line.EndIsKnown)
        {
            IsShown = shown.Count > 0,
        };
    }

    // From the first to the last thing they did.
    private static Presence Estimated(StudentEvidence told, Instant from, Instant to)
    {
        var seen = ShownIn(told, from, to);
        if (seen.Count > 0 && IsOnPage(told, to))
        {
            seen.Add(to);
        }

        return seen.Count > 0
            ? new Presence([new Stretch(seen.Min(), seen.Max(), Open: false)], KnownBy.Estimated, AttendanceFlags.Estimated, SeenAtAll: true, ArrivalIsKnown: false, IsMeasured: false)
            : new Presence([], told.Marks.Count > 0 ? KnownBy.Declared : KnownBy.Nothing, AttendanceFlags.None, SeenAtAll: false, ArrivalIsKnown: false, IsMeasured: false);
    }

    // The page is no connection, but who has it open is there: when it begins, too.
    private static List<Instant> ShownIn(StudentEvidence told, Instant from, Instant to) =>
        [.. told.Sightings.Where(s => s is SeenAt or PageAt && s.At >= from && (s.At < to || s.At == from)).Select(s => s.At), .. IsOnPage(told, from) ? [from] : Array.Empty<Instant>()];

    private static bool IsOnPage(StudentEvidence told, Instant at) => told.Sightings.OfType<PageAt>().Where(p => p.At <= at).MaxBy(p => p.At) is { Opens: true };
}
