using NodaTime;
using PoliteTally.Core.Attendance;

namespace PoliteTally.Core.Tests;

/// <summary>
/// Attendance by the words of docs/rules.md and in the plainest way: every second of the lesson is looked at by itself. For the tests alone, of a lesson of 50 min by the default rules,
/// with neither a drop-in nor a word said when settling. Times are whole seconds from R.
/// </summary>
internal static class PlainAttendance
{
    private const int Lesson = 50 * 60;

    public static (AttendanceStatus Status, double Seconds) Of(IReadOnlyList<Sighting> sightings, IReadOnlyList<MarkMade> marks)
    {
        // Of what is said after the end only that somebody is seen to leave tells of the lesson.
        marks = [.. marks.Where(m => S(m.At) < Lesson || m is { Mark: Mark.Left, ByRollCall: false })];
        var connections = Connections(sightings);
        return connections.Count > 0 ? Measured(connections, sightings, marks)
            : marks.Any(m => S(m.At) >= 0 || m.Mark != Mark.Left) ? Declared(sightings, marks)
            : Estimated(sightings);
    }

    private static int S(Instant at) => (int)(at - Given.Start).TotalSeconds;

    private static List<(int From, int To)> Connections(IReadOnlyList<Sighting> sightings)
    {
        var all = new List<(int, int)>();
        foreach (var device in sightings.OfType<ConnectionEnd>().GroupBy(c => c.Device))
        {
            var named = device.Key.Length > 0;
            var (since, on, lastLeft) = (0, 0, (int?)null);
            // At one moment what is open is left first, then joined; with nothing open the join comes first.
            var queue = device.OrderBy(c => S(c.At)).ToList();
            while (queue.Count > 0)
            {
                var now = S(queue[0].At);
                var one = queue.TakeWhile(c => S(c.At) == now).FirstOrDefault(c => on > 0 ? c is LeaveAt : c is JoinAt) ?? queue[0];
                // Those who were on before this moment leave first; whoever joins in it and leaves in it comes after.
                queue.Remove(one);
                if (one is JoinAt)
                {
                    (since, on) = (on == 0 ? now : since, named ? 1 : on + 1);
                }
                else if (on > 0)
                {
                    on--;
                    lastLeft = now;
                    if (on == 0)
                    {
                        all.Add((since, now));
                    }
                }
                else
                {
                    all.Add((Math.Min(lastLeft ?? 0, now), now));
                    lastLeft = now;
                }
            }

            if (on > 0)
            {
                all.Add((since, Math.Max(since, Lesson)));
            }
        }

        return all;
    }

    private static (AttendanceStatus, double) Measured(List<(int From, int To)> connections, IReadOnlyList<Sighting> sightings, IReadOnlyList<MarkMade> marks)
    {
        var (first, last) = (-3600, Lesson + 3600);
        bool On(int second) => connections.Exists(c => c.From <= second && second < c.To);
        var there = Enumerable.Range(first, last - first).Select(On).ToArray();
        // A gap of at most 2 min is bridged, across R and E too.
        for (var i = 0; i < there.Length; i++)
        {
            if (there[i] && i + 1 < there.Length && !there[i + 1])
            {
                var next = Array.IndexOf(there, true, i + 1);
                if (next > 0 && next - i - 1 <= 120)
                {
                    Array.Fill(there, true, i + 1, next - i - 1);
                }
            }
        }

        var seconds = Enumerable.Range(0, Lesson).Where(s => there[s - first]).ToList();
        var word = marks.LastOrDefault(m => !m.ByRollCall && m.Mark != Mark.Left);
        if (word is { Mark: Mark.Late } && Holds(word, sightings, marks))
        {
            return (AttendanceStatus.Late, seconds.Count);
        }

        var seen = marks.Any(m => m.Mark == Mark.Here && S(m.At) < Lesson && Holds(m, sightings, marks));
        var runs = seconds.Where(s => s == 0 || !there[s - 1 - first]).Zip(seconds.Where(s => s == Lesson - 1 || !there[s + 1 - first]), (a, b) => (From: a, To: b + 1)).ToList();
        // A gap that was bridged has joins and leaves in it, so what was done near it lies within.
        var took = sightings.OfType<SeenAt>().Select(a => S(a.At)).Any(a => a is >= 0 and < Lesson && runs.Exists(r => r.From - 45 <= a && a <= r.To + 45));
        return seconds.Count < 300 && !seen && !took ? (AttendanceStatus.Absent, seconds.Count)
            : (seconds.Count > 0 && seconds[0] > 300 ? AttendanceStatus.Late : AttendanceStatus.Present, seconds.Count);
    }

    // What was said before R holds into the lesson until the teacher says otherwise or they are seen to leave.
    private static bool Holds(MarkMade mark, IReadOnlyList<Sighting> sightings, IReadOnlyList<MarkMade> marks) =>
        S(mark.At) >= 0 || !(marks.Any(m => m.Mark == Mark.Left && m.At > mark.At && S(m.At) <= 0) || sightings.Any(s => s is LeaveAt && s.At > mark.At && S(s.At) <= 0));

    private static List<int> Shown(IReadOnlyList<Sighting> sightings) =>
    [
        .. sightings.Where(s => s is SeenAt or PageAt && S(s.At) is >= 0 and < Lesson).Select(s => S(s.At)),
        .. PageOpenAt(sightings, 0) ? [0] : Array.Empty<int>(),
    ];

    private static bool PageOpenAt(IReadOnlyList<Sighting> sightings, int second) => sightings.OfType<PageAt>().Where(p => S(p.At) <= second).OrderBy(p => p.At).LastOrDefault() is { Opens: true };

    private static (AttendanceStatus, double) Estimated(IReadOnlyList<Sighting> sightings)
    {
        var shown = Shown(sightings);
        return shown.Count == 0 ? (AttendanceStatus.Absent, 0)
            : (AttendanceStatus.Present, (PageOpenAt(sightings, Lesson) ? Lesson : shown.Max()) - shown.Min());
    }

    private static (AttendanceStatus, double) Declared(IReadOnlyList<Sighting> sightings, IReadOnlyList<MarkMade> marks)
    {
        var shown = Shown(sightings).Order().ToList();
        var stays = new List<(int From, int To)>();
        var word = marks.LastOrDefault(m => !m.ByRollCall && m.Mark != Mark.Left);
        int? arrival = null;
        var (came, isIn, saidLate, missed, gone) = ((int?)null, false, false, (int?)null, (int?)null);
        // What they did since the last look round that missed them; nothing after "left".
        List<int> Since(int from, int to) => [.. shown.Where(s => s >= from && s <= to)];
        var (lookFrom, isLeft) = (0, false);
        foreach (var mark in marks.OrderBy(m => m.At))
        {
            var at = S(mark.At);
            var acts = isLeft ? [] : Since(lookFrom, at);
            var isFirst = gone is null;
            switch (mark.Mark)
            {
                case Mark.Here:
                    if (isFirst && (!isIn || (saidLate && !mark.ByRollCall)))
                    {
                        (came, arrival) = (missed ?? 0, missed ?? 0);
                    }

                    came = isIn || isFirst ? came : acts.Count > 0 ? acts[0] : at;
                    saidLate &= mark.ByRollCall;
                    (isIn, isLeft) = (true, false);
                    break;
                case Mark.Late:
                    if (isFirst)
                    {
                        came = arrival = acts.Count > 0 ? acts[0] : at;
                    }

                    came = isIn || isFirst ? came : acts.Count > 0 ? acts[0] : at;
                    (isIn, isLeft, saidLate) = (true, false, true);
                    break;
                case var _ when at <= 0:
                    (isIn, came, arrival, saidLate) = (false, null, null, false);
                    lookFrom = Math.Max(lookFrom, at + 1);
                    break;
                default:
                    if (isIn)
                    {
                        Fill(came!.Value, at);
                        gone = at;
                    }
                    else if (acts.Count > 0 || (!mark.ByRollCall && !isLeft))
                    {
                        var from = acts.Count > 0 ? acts[0] : at;
                        arrival ??= isFirst ? missed : null;
                        Fill(isFirst ? missed ?? from : from, mark.ByRollCall ? acts[^1] : at);
                        gone = at;
                    }
                    else if (isFirst && mark.ByRollCall)
                    {
                        missed = at;
                    }

                    (isIn, lookFrom, isLeft) = (false, at + 1, isLeft || !mark.ByRollCall);
                    break;
            }
        }

        var rest = isLeft ? [] : Since(lookFrom, Lesson);
        if (isIn)
        {
            Fill(came!.Value, Lesson);
        }
        else if (rest.Count > 0)
        {
            arrival ??= gone is null ? missed : null;
            Fill(gone is null ? missed ?? rest[0] : rest[0], rest[^1]);
        }

        var seconds = 0;
        var until = (int?)null;
        foreach (var (from, to) in stays.Where(s => s.To >= 0 && (s.From < Lesson || s.From == s.To)).Select(s => (Math.Clamp(s.From, 0, Lesson), Math.Clamp(s.To, 0, Lesson))).OrderBy(s => s.Item1))
        {
            // A gap of at most 2 min is bridged.
            seconds += to - from + (until is { } last && from - last <= 120 ? from - last : 0);
            until = to;
        }

        var seen = marks.Any(m => (m.Mark == Mark.Here && S(m.At) < Lesson && Holds(m, sightings, marks)) || (m is { Mark: Mark.Left, ByRollCall: false } && S(m.At) > 0));
        return word is { Mark: Mark.Late } && Holds(word, sightings, marks) ? (AttendanceStatus.Late, seconds)
            : !seen && shown.Count == 0 && seconds < 300 ? (AttendanceStatus.Absent, seconds)
            : (arrival > 300 ? AttendanceStatus.Late : AttendanceStatus.Present, seconds);

        void Fill(int from, int to) => stays.Add((from, to));
    }
}
