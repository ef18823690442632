using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>Attendance of one student in one lesson.</summary>
public static class AttendanceRules
{
    /// <summary>
    /// Reckons attendance. The teacher's word wins the status, then the teacher's marks, then what was measured, then
    /// what was glimpsed; the minutes come from what was measured if anything was.
    /// </summary>
    /// <param name="lesson">When the lesson was meant to be, and when it was.</param>
    /// <param name="sightings">Joins, leaves and glimpses on every device, in any order.</param>
    /// <param name="marks">The teacher's marks and roll calls in the order made.</param>
    /// <param name="declared">The teacher's word when settling, if there is one.</param>
    /// <param name="excuse">An excuse, if there is one; it counts only if the student was not there.</param>
    /// <param name="lists">When lists of everybody who was there were seen.</param>
    /// <param name="policy">How the class counts.</param>
    public static AttendanceResult Reckon(
        LessonTimes lesson,
        IReadOnlyList<Sighting> sightings,
        IReadOnlyList<MarkMade> marks,
        DeclaredStatus? declared,
        ExcuseGiven? excuse,
        IReadOnlyCollection<Instant> lists,
        AttendancePolicy policy)
    {
        var (from, to) = (lesson.CountedFrom, lesson.CountedTo);
        var counted = to - from;
        var enough = Duration.Min(policy.AbsentBelow, counted * (double)policy.AbsentBelowShare);
        var presence = Presence.Of(sightings, marks, from, to);
        if (presence.Measured < enough && marks.Count == 0)
        {
            // Who took part was there, whatever a list says.
            presence = presence.ByActs(sightings, from, to) ?? presence;
        }

        var (present, dropouts) = presence.Bridged(policy.Bridge, counted);
        Duration? arrival = presence.Stretches is [var first, ..] ? first.From - from : null;
        Duration? earlyLeave = presence.Stretches is [.., var last] ? to - last.To : null;
        var share = counted > Duration.Zero ? Ratio(present, counted) : presence.SeenAtAll ? 1m : 0m;

        var canBeLate = !lesson.DropIn || policy.LateInDropIn;
        var (status, knownBy) = StatusOf();
        var there = status is AttendanceStatus.Present or AttendanceStatus.Late;
        var flags = presence.Flags;
        if (there && earlyLeave > policy.LeftEarlyBefore && (flags & AttendanceFlags.Estimated) == 0)
        {
            flags |= AttendanceFlags.LeftEarly;
        }

        if (there && share < policy.EnoughShare && presence.Measured is not null)
        {
            flags |= AttendanceFlags.Partly;
        }

        var measured = presence.Measured is null ? 0 : share;
        return new AttendanceResult(
            status, knownBy, present, counted, share, arrival, earlyLeave, flags, dropouts, presence.Stretches, CreditOf(status, measured, policy, excuse is not null),
            status is AttendanceStatus.Excused or AttendanceStatus.Late ? excuse?.Reason : null, RestsOn(), presence.IsHere)
        {
            MeasuredShare = measured,
        };

        (AttendanceStatus Status, KnownBy KnownBy) StatusOf()
        {
            if (declared is not null)
            {
                return (declared.Status, KnownBy.Declared);
            }

            if (marks.LastOrDefault(m => !m.ByRollCall && m.Mark is Mark.Here or Mark.Late) is { } mark)
            {
                var late = mark.Mark == Mark.Late && canBeLate;
                return (late ? AttendanceStatus.Late : AttendanceStatus.Present, KnownBy.Declared);
            }

            var estimated = (presence.Flags & AttendanceFlags.Estimated) != 0;
            // Whom the teacher saw in the lesson was there, however briefly.
            var calledHere = marks.Any(m => m.Mark == Mark.Here && m.At >= from && m.At < to);
            if (!presence.SeenAtAll || (!estimated && !calledHere && present < enough))
            {
                return excuse is not null
                    ? (AttendanceStatus.Excused, KnownBy.Declared)
                    : (lesson.DropIn ? AttendanceStatus.DidNotCome : AttendanceStatus.Absent, presence.KnownBy);
            }

            var isLate = presence.ArrivalIsKnown ? arrival > policy.LateAfter : WasMissed();
            return (isLate && canBeLate ? AttendanceStatus.Late : AttendanceStatus.Present, presence.KnownBy);
        }

        // A glimpse at 09:50 does not say that nobody was there at 09:30; a roll call or a list without them does.
        bool WasMissed() => presence.Stretches is [var glimpse, ..]
            && lists.Concat(marks.Where(m => m.ByRollCall && m.Mark == Mark.Left).Select(m => m.At))
                .Any(call => call > from + policy.LateAfter && call < to && glimpse.From > call);

        IReadOnlyList<Guid> RestsOn() =>
        [
            .. sightings.Select(s => s.Entry),
            .. marks.Select(m => m.Entry),
            .. declared is null ? Array.Empty<Guid>() : [declared.Entry],
            .. excuse is null ? Array.Empty<Guid>() : [excuse.Entry],
        ];
    }

    /// <summary>What a status earns: by the share that was measured; where none was, a known status earns what it earns by itself. Late with an excuse is as good as in time.</summary>
    /// <param name="status">The status.</param>
    /// <param name="share">The share that was measured, from 0 to 1; 0 if none was.</param>
    /// <param name="policy">How the class counts.</param>
    /// <param name="excused">Whether there is an excuse.</param>
    /// <returns>From 0 to 1; null if the status is not counted.</returns>
    public static decimal? CreditOf(AttendanceStatus status, decimal share, AttendancePolicy policy, bool excused) => status switch
    {
        AttendanceStatus.Excused or AttendanceStatus.DidNotCome => null,
        AttendanceStatus.Absent => 0m,
        AttendanceStatus.Late when excused => 1m,
        _ when policy.CreditBy == CreditBy.Share && share > 0 => Math.Min(1m, share / policy.EnoughShare),
        AttendanceStatus.Late => policy.LateCredit,
        _ => 1m,
    };

    private static decimal Ratio(Duration part, Duration whole) =>
        (decimal)part.TotalMilliseconds / (decimal)whole.TotalMilliseconds;
}
