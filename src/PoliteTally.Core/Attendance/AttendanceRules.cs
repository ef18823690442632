using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>Attendance of one student in one lesson.</summary>
public static class AttendanceRules
{
    /// <summary>
    /// Reckons attendance. Connections measure, the teacher declares, what somebody did shows a moment and no more: the teacher's word wins the status, "late" likewise; minutes are
    /// those of the connections if there are any. What was done or said against them is asked (<see cref="AttendanceResult.Contested"/>), and what was measured counts meanwhile.
    /// </summary>
    /// <param name="lesson">When the lesson was meant to be, and when it was.</param>
    /// <param name="told">All that says where the student was.</param>
    /// <param name="policy">How the class counts.</param>
    public static AttendanceResult Reckon(LessonTimes lesson, StudentEvidence told, AttendancePolicy policy)
    {
        var (from, to) = (lesson.CountedFrom, lesson.CountedTo);
        var counted = to - from;
        var all = told.Marks;
        // Of what is said after the end only that somebody is seen to leave tells of the lesson.
        told = told with { Marks = [.. all.Where(m => m.At < to || m is { Mark: Mark.Left, ByRollCall: false } || to == from)] };
        var enough = Duration.Min(policy.AbsentBelow, counted * (double)policy.AbsentBelowShare);
        var connections = Connections.Of(told.Sightings, from, to);
        var presence = Presence.Of(told, connections, from, to, policy.Bridge);
        var present = presence.Time(policy.Bridge, counted);
        // Whom the teacher sent out neither left nor fell out.
        var stays = presence.Stretches.Count == 0 || told.TimesOut.Count == 0 ? presence.Stretches : Stays(presence.Stretches, told.TimesOut, from, to);
        var dropouts = Math.Max(0, stays.Count - 1);
        Duration? arrival = presence.Stretches is [var first, ..] ? first.From - from : null;
        Duration? earlyLeave = stays is [.., var last] ? to - last.To : null;
        var share = counted > Duration.Zero ? Ratio(present, counted) : presence.SeenAtAll ? 1m : 0m;
        var isEstimated = presence.KnownBy == KnownBy.Estimated;

        var (status, knownBy) = StatusOf();
        var there = status is AttendanceStatus.Present or AttendanceStatus.Late;
        var flags = presence.Flags;
        if (there && earlyLeave > policy.LeftEarlyBefore && presence.EndIsKnown && !isEstimated && told.Declared?.Status != AttendanceStatus.Present)
        {
            flags |= AttendanceFlags.LeftEarly;
        }

        if (there && share < policy.EnoughShare && presence.IsMeasured)
        {
            flags |= AttendanceFlags.Partly;
        }

        var leftEarly = flags.HasFlag(AttendanceFlags.LeftEarly);
        var worth = new AttendanceWorth(
            status, status == AttendanceStatus.Late && !IsExcused(MissedBy.ComingLate), leftEarly && !IsExcused(MissedBy.LeavingEarly),
            presence.IsMeasured && there ? CountedAsThere() : 0, presence.IsMeasured && told.Declared is null);
        var newest = NewestEvidence.Of(connections.All, ActsSince(from), [.. all, .. told.TimesOut.SelectMany(MarksOf)]);
        return new AttendanceResult(
            status, knownBy, present, counted, share, arrival, earlyLeave, flags, dropouts, presence.Stretches, worth.Credit(policy),
            status is AttendanceStatus.Excused or AttendanceStatus.Late || leftEarly ? told.Excuse?.Reason : null, RestsOn(), newest.IsHere)
        {
            Worth = worth,
            ShownSince = newest.ShownSince,
            SentOutSince = told.TimesOut is [.., { To: null } open] ? open.From : null,
            SentOutFor = told.TimesOut.Aggregate(Duration.Zero, (sum, t) => sum + Duration.Max(Duration.Zero, Instant.Min(t.To ?? to, to) - Instant.Max(t.From, from))),
            ArrivalIsKnown = presence.ArrivalIsKnown,
            Contested = ContestedTimes.In(told, presence, from, to, policy),
            Missed = there && !isEstimated && policy.MissedCounts ? [.. Missed()] : [],
        };

        (AttendanceStatus Status, KnownBy KnownBy) StatusOf()
        {
            if (told.Declared is not null)
            {
                return (told.Declared.Status, KnownBy.Declared);
            }

            var canBeLate = !lesson.DropIn || policy.LateInDropIn;
            var mark = told.Marks.LastOrDefault(m => !m.ByRollCall && m.Mark is Mark.Here or Mark.Late);
            if (mark?.Mark == Mark.Late && (mark.At >= from || HoldsInto(mark)))
            {
                return (canBeLate ? AttendanceStatus.Late : AttendanceStatus.Present, KnownBy.Declared);
            }

            var byTime = presence.SeenAtAll && (isEstimated || present >= enough || (!presence.IsMeasured && presence.IsShown));
            var byWord = told.Marks.Any(SaysSeen) || told.AwayWords.Any(w => w.WasThere && w.From < to && w.To >= from);
            var byActs = presence.IsMeasured && told.Sightings.Any(s => s is SeenAt && IsIn(s.At) && Connections.Bridged(presence.Stretches, policy.Bridge).Exists(t => t.From - AttendancePolicy.Near <= s.At && s.At <= t.To + AttendancePolicy.Near));
            // Whom the teacher saw in the lesson was there, however briefly, and so was who took part in it while connected.
            if (!byTime && !byWord && !byActs)
            {
                return told.Excuse is not null
                    ? (AttendanceStatus.Excused, KnownBy.Declared)
                    : (lesson.DropIn ? AttendanceStatus.DidNotCome : AttendanceStatus.Absent, presence.KnownBy);
            }

            return (presence.ArrivalIsKnown && arrival > policy.LateAfter && canBeLate ? AttendanceStatus.Late : AttendanceStatus.Present,
                byTime || byActs ? presence.KnownBy : KnownBy.Declared);
        }

        bool IsIn(Instant at) => at >= from && at < to;

        // What was said before the start holds until the teacher says otherwise or they are seen to leave.
        bool HoldsInto(MarkMade said) => !told.Marks.Any(m => m.Mark == Mark.Left && m.At > said.At && m.At <= from) && !told.Sightings.Any(s => s is LeaveAt && s.At > said.At && s.At <= from);

        // Who is seen to leave had been there; beside a connection that is a question of its own.
        bool SaysSeen(MarkMade mark) => mark.Mark == Mark.Here ? mark.At < to && (mark.At >= from || HoldsInto(mark)) : mark is { Mark: Mark.Left, ByRollCall: false } && !presence.IsMeasured && mark.At > from;

        bool IsExcused(MissedBy missed) => told.Excuse is not null || told.LineFailed.ContainsKey(missed);

        // What is excused costs nothing, and sent out is no time of their own choice.
        decimal CountedAsThere()
        {
            if (told.Excuse is not null || counted <= Duration.Zero)
            {
                return 1;
            }

            var gaps = stays.Count == 0 ? Duration.Zero : stays[^1].To - stays[0].From - Connections.Length(Connections.Bridged(stays, policy.Bridge));
            var (late, early) = (arrival ?? Duration.Zero, earlyLeave ?? Duration.Zero);
            var excused = (IsExcused(MissedBy.ComingLate) ? late : Duration.Zero) + (IsExcused(MissedBy.LeavingEarly) ? early : Duration.Zero) + (IsExcused(MissedBy.Dropouts) ? gaps : Duration.Zero);
            var sentOut = Connections.Length(stays) - Connections.Length(presence.Stretches);
            return Math.Min(1m, Ratio(present + excused + sentOut, counted));
        }

        IEnumerable<(Instant From, Instant To)> Missed()
        {
            if (arrival > Duration.Zero && presence.ArrivalIsKnown && !IsExcused(MissedBy.ComingLate))
            {
                yield return (Instant.MinValue, presence.Stretches[0].From);
            }

            if (earlyLeave > Duration.Zero && presence.EndIsKnown && !IsExcused(MissedBy.LeavingEarly))
            {
                yield return (stays[^1].To, Instant.MaxValue);
            }
        }

        IEnumerable<Instant> ActsSince(Instant start)
        {
            var pages = told.Sightings.OfType<PageAt>().ToList();
            var openBefore = pages.Where(p => p.At < start).MaxBy(p => p.At) is { Opens: true };
            return told.Sightings.Where(s => s is SeenAt or PageAt { Opens: true } && s.At >= start).Select(s => s.At).Concat(openBefore ? [start] : []);
        }

        IReadOnlyList<Guid> RestsOn() =>
        [
            .. told.Sightings.Select(s => s.Entry),
            .. all.Select(m => m.Entry),
            .. told.AwayWords.Select(w => w.Entry),
            .. told.LineFailed.Values,
            .. told.TimesOut.Select(t => t.Entry),
            .. told.Declared is null ? Array.Empty<Guid>() : [told.Declared.Entry],
            .. told.Excuse is null ? Array.Empty<Guid>() : [told.Excuse.Entry],
        ];
    }

    // Who is let back in is here again, as far as anybody knows; where there are connections they say it themselves.
    private static IEnumerable<MarkMade> MarksOf(TimeOut time) =>
        time.To is { } back ? [new(Mark.Left, time.From, time.Entry, ByRollCall: false), new(Mark.Here, back, time.Entry, ByRollCall: false)] : [new(Mark.Left, time.From, time.Entry, ByRollCall: false)];

    // With the times out between and behind the stretches; the meeting may say that they left a little sooner or came a little later.
    private static List<Stretch> Stays(IReadOnlyList<Stretch> stretches, IReadOnlyList<TimeOut> timesOut, Instant from, Instant to) =>
        Connections.Cut(
            Connections.Union([.. stretches, .. timesOut.Select(t => new Stretch(t.From - AttendancePolicy.Near, (t.To ?? to) + AttendancePolicy.Near, Open: false)).Where(t => t.From < to && t.To > stretches[0].From)]),
            stretches[0].From, to, Duration.Zero);

    private static decimal Ratio(Duration part, Duration whole) =>
        (decimal)part.TotalMilliseconds / (decimal)whole.TotalMilliseconds;
}
