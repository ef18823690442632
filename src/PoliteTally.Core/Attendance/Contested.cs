using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>A part of the lesson of which two sources say different things; only the teacher can know. Until that is answered what was measured counts.</summary>
/// <param name="From">Since when.</param>
/// <param name="To">Until when.</param>
/// <param name="Entries">What speaks against what was measured, in order, at least one.</param>
public abstract record Contested(Instant From, Instant To, IReadOnlyList<(Instant At, Guid Entry)> Entries);

/// <summary>They did something, or the teacher said "here", while nothing has them there.</summary>
/// <param name="From">Since when they were away.</param>
/// <param name="To">Until when.</param>
/// <param name="Entries">What they did, and what was said of them.</param>
/// <param name="Since">When they had been there last before it; null if not before.</param>
/// <param name="Until">When they were there next after it; null if not after.</param>
/// <param name="SaidHere">Whether the teacher said it.</param>
public sealed record ShownWhileAway(Instant From, Instant To, IReadOnlyList<(Instant At, Guid Entry)> Entries, Instant? Since, Instant? Until, bool SaidHere)
    : Contested(From, To, Entries);

/// <summary>The teacher said that they were not there while a connection was open. Until they came again, did something, or something else was said of them.</summary>
public sealed record GoneWhileConnected(Instant From, Instant To, IReadOnlyList<(Instant At, Guid Entry)> Entries) : Contested(From, To, Entries);

/// <summary>Finds what is contested.</summary>
internal static class ContestedTimes
{
    /// <summary>
    /// Every such part of a lesson, in order, of which the teacher has said nothing yet. Of those of whom nothing but what they did is known nothing is contested. What attendance
    /// bridges is no time away, and close to a joining or leaving two clocks may disagree.
    /// </summary>
    /// <param name="told">All that says where they were.</param>
    /// <param name="presence">What was made of it.</param>
    /// <param name="from">When the lesson begins to count.</param>
    /// <param name="to">When it ends to count.</param>
    /// <param name="policy">How the class counts.</param>
    public static IReadOnlyList<Contested> In(StudentEvidence told, Presence presence, Instant from, Instant to, AttendancePolicy policy)
    {
        if (presence.KnownBy is KnownBy.Estimated or KnownBy.Nothing || presence.Flags.HasFlag(AttendanceFlags.LengthOnly) || !Speaks(told))
        {
            return [];
        }

        return [.. Away(told, presence, from, to, policy), .. Gone(told, presence, policy)];
    }

    // Asked of everybody with every tap; of most there is nothing but a connection.
    private static bool Speaks(StudentEvidence told) => told.Marks.Count > 0 || told.Sightings.Any(s => s is SeenAt);

    private static IEnumerable<Contested> Away(StudentEvidence told, Presence presence, Instant from, Instant to, AttendancePolicy policy)
    {
        var said = presence.IsMeasured ? told.Marks.Where(m => m.Mark == Mark.Here).Select(m => (m.At, m.Entry, IsSaid: true)) : [];
        var shown = told.Sightings.OfType<SeenAt>().Select(s => (s.At, s.Entry, IsSaid: false)).Concat(said)
            .Where(a => a.At >= from && a.At < to && told.AwayWordOn(a.At) is null).OrderBy(a => a.At).ToList();
        if (shown.Count == 0)
        {
            yield break;
        }

        // Joins and leaves out of the lesson are near, too.
        var ends = presence.Whole.SelectMany(s => new[] { s.From, s.To }).ToList();
        var there = Connections.Bridged(presence.Stretches, policy.Bridge);
        for (var i = 0; i <= there.Count; i++)
        {
            Instant? since = i > 0 ? there[i - 1].To : null, until = i < there.Count ? there[i].From : null;
            // Before they came nothing was declared of where they were.
            if (!presence.IsMeasured && since is null)
            {
                continue;
            }

            var (begin, end) = (since ?? from, until ?? to);
            var open = shown.Where(a => a.At >= begin && a.At < end && !ends.Exists(e => Connections.Apart(e, a.At) <= AttendancePolicy.Near)).ToList();
            if (open.Count > 0)
            {
                yield return new ShownWhileAway(begin, end, [.. open.Select(a => (a.At, a.Entry))], since, until, open.Exists(a => a.IsSaid));
            }
        }
    }

    private static IEnumerable<Contested> Gone(StudentEvidence told, Presence presence, AttendancePolicy policy)
    {
        if (!presence.IsMeasured || !told.Marks.Any(m => m.Mark == Mark.Left))
        {
            yield break;
        }

        var until = Instant.MinValue;
        foreach (var mark in told.Marks.Where(m => m.Mark == Mark.Left))
        {
            if (mark.At < until || presence.Stretches.FirstOrDefault(s => s.From <= mark.At && mark.At < s.To) is not { } running || told.AwayWordOn(mark.At) is not null)
            {
                continue;
            }

            var back = told.Sightings.Where(s => s is SeenAt or JoinAt or PageAt { Opens: true }).Select(s => s.At)
                .Concat(told.Marks.Where(m => m.Mark != Mark.Left).Select(m => m.At)).Where(at => at > mark.At).Append(running.To).Min();
            until = Instant.Min(back, running.To);
            if (until - mark.At > policy.Bridge)
            {
                yield return new GoneWhileConnected(mark.At, until, [(mark.At, mark.Entry)]);
            }
        }
    }
}
