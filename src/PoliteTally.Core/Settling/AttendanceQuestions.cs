using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Register;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Settling;

/// <summary>What only the teacher can know of where students were. Until a question is answered, what was measured counts.</summary>
/// <param name="state">The lesson.</param>
/// <param name="times">When it was meant to be, and when it was.</param>
/// <param name="policy">How the class counts.</param>
/// <param name="roster">The ids of its students, in the order of the register.</param>
/// <param name="attended">Where each of them was, as it counts now.</param>
/// <param name="zone">The zone in which times are said.</param>
internal sealed class AttendanceQuestions(LessonState state, LessonTimes times, AttendancePolicy policy, IReadOnlyList<Guid> roster, IReadOnlyDictionary<Guid, AttendanceResult> attended, DateTimeZone zone)
{
    // So many who leave within one minute are no coincidence.
    private const int Several = 3;

    private readonly Lazy<Dictionary<Guid, Act>> _acts = new(() => state.Entries.ToDictionary(e => e.Id, e => e.Act));

    /// <summary>Everything that is asked, in the order of the register. Where the teacher has said what the status is, nothing is worth a question.</summary>
    public IReadOnlyList<OpenQuestion> All() => [.. roster.Where(s => state.Evidence.DeclaredOf(s) is null).SelectMany(Of)];

    private IEnumerable<OpenQuestion> Of(Guid student)
    {
        var (was, status) = (attended[student], OfStatus(student));
        if (status is not null)
        {
            yield return status;
        }

        foreach (var away in was.Contested.OfType<ShownWhileAway>().Where(a => status is null || !a.SaidHere))
        {
            yield return OfTimeAway(student, away, was);
        }

        foreach (var gone in was.Contested.OfType<GoneWhileConnected>())
        {
            yield return OfGone(student, gone);
        }

        if (OfArrival(student, was) is { } arrival)
        {
            yield return arrival;
        }

        if (OfLine(student, was) is { } line)
        {
            yield return line;
        }
    }

    // The teacher said one thing of how they came, and the list says another.
    private OpenQuestion? OfStatus(Guid student)
    {
        var told = state.EvidenceOf(student) with { Excuse = null };
        if (!told.Marks.Any(m => m.Mark != Mark.Left))
        {
            return null;
        }

        var seen = AttendanceRules.Reckon(times, told with { Marks = [] }, policy);
        var tapped = AttendanceRules.Reckon(times, told with { Sightings = [], AwayWords = [] }, policy);
        if (seen.KnownBy == KnownBy.Nothing || seen.KnownBy == KnownBy.Estimated || tapped.Status == seen.Status || OnlySeenOnceThere(told.Marks, seen))
        {
            return null;
        }

        // A mark made too early is taken back; a roll call is about others as well, so there the status is said.
        Act[] theirs = told.Marks.Any(m => m.ByRollCall)
            ? [new StatusDeclared(student, seen.Status)]
            : [new Struck(told.Marks[0].Entry, told.Marks.Count > 1 ? [.. told.Marks.Skip(1).Select(m => m.Entry)] : null)];
        return new OpenQuestion(
            $"status {student}", Asks.WhichStatus, student, "",
            [
                new Choice("you", tapped.Status.InWords(), null, [new StatusDeclared(student, tapped.Status)]),
                new Choice("the list", RegisterMark.Of(student, null, "", seen).InWords, null, theirs),
            ],
            // What was measured is better known than a look at the class; but whom the teacher saw was there.
            seen.WasThere ? 1 : 0, seen.WasThere ? "measured, and nothing shows them there meanwhile" : "you saw them, and the list does not have them");
    }

    // To be here says nothing of having been here before: a look at the class later on does not contradict a coming that was measured.
    private static bool OnlySeenOnceThere(IReadOnlyList<MarkMade> marks, AttendanceResult seen) =>
        seen is { Status: AttendanceStatus.Late, Stretches: [var first, ..] } && marks.All(m => m.Mark == Mark.Here && m.At >= first.From - AttendancePolicy.Near);

    private OpenQuestion OfTimeAway(Guid student, ShownWhileAway away, AttendanceResult was)
    {
        var (first, last) = (away.Entries[0], away.Entries[^1]);
        // Until they come again if they do, else until what they did last; what the teacher said holds.
        var until = away.Until ?? (away.SaidHere ? away.To : last.At);
        var there = Spoken(away.Since ?? first.At, until);
        var nothing = Spoken(first.At, last.At);
        var more = away.Entries.Count > 1 ? $", and {Words.Count(away.Entries.Count - 1, "thing")} more" : "";
        var isMeasured = was.Worth.IsMeasured;
        return new OpenQuestion(
            $"away {student} {first.Entry}", Asks.WereTheyAway, student, "",
            [
                new Choice(isMeasured ? "the list" : "you", $"away from {Clock(away.From)} to {Clock(away.To)}", null, [new AwayJudged(student, nothing.Seconds, WasThere: false)], nothing.From),
                new Choice(away.SaidHere ? "you" : "what they did", $"there from {Clock(there.From)} to {Clock(until)}", null, [new AwayJudged(student, there.Seconds, WasThere: true)], there.From),
            ],
            // Once may be a slip of a clock, or sent from elsewhere.
            away.SaidHere || away.Entries.Count > 1 ? 1 : 0,
            $"{Did(first.Entry)} at {Clock(first.At)}{more}, while {(isMeasured ? "the list has" : "you have")} them away");
    }

    private OpenQuestion OfGone(Guid student, GoneWhileConnected gone)
    {
        var span = Spoken(gone.From, gone.To);
        return new OpenQuestion(
            $"gone {student} {gone.Entries[0].Entry}", Asks.WereTheyAway, student, "",
            [
                new Choice("you", $"away from {Clock(gone.From)} to {Clock(gone.To)}", null, [new AwayJudged(student, span.Seconds, WasThere: false)], span.From),
                new Choice("the list", "there", null, [new AwayJudged(student, span.Seconds, WasThere: true)], span.From),
            ],
            1, $"{Did(gone.Entries[0].Entry)} at {Clock(gone.From)}, while connected");
    }

    // What somebody did does not say that they came just then; but others were there before.
    private OpenQuestion? OfArrival(Guid student, AttendanceResult was)
    {
        if (!was.WasThere || was.ArrivalIsKnown || was.Stretches.Count == 0 || was.Flags.HasFlag(AttendanceFlags.LengthOnly))
        {
            return null;
        }

        var first = was.Stretches[0].From;
        if (first - times.CountedFrom <= policy.LateAfter || !roster.Any(s => s != student && IsKnownBefore(s, first)))
        {
            return null;
        }

        var late = RegisterMark.Of(student, null, "", was with { Status = AttendanceStatus.Late }).InWords;
        return new OpenQuestion(
            $"arrival {student}", Asks.WhenTheyCame, student, "",
            [
                new Choice("", late, null, [new Marked(student, Mark.Late)], first),
                new Choice("", "there before", null, [new Marked(student, Mark.Here)], first),
            ],
            0, $"first seen at {Clock(first)}, and others were there before");
    }

    private bool IsKnownBefore(Guid student, Instant at)
    {
        var told = state.EvidenceOf(student);
        return told.Marks.Any(m => m.Mark == Mark.Here && m.At < at) || told.Sightings.Any(s => s is JoinAt && s.At < at);
    }

    // Offered where it costs something, and the connection may well be to blame.
    private OpenQuestion? OfLine(Guid student, AttendanceResult was)
    {
        if (!was.WasThere || !was.Worth.IsMeasured || was.Stretches.Count == 0 || state.Evidence.ExcuseOf(student) is not null)
        {
            return null;
        }

        var isCrowd = was.Worth.LeftEarlyCosts && attended.Values.Count(w => w.Flags.HasFlag(AttendanceFlags.LeftEarly) && w.Stretches.Count > 0
            && w.Worth.IsMeasured && Connections.Apart(w.Stretches[^1].To, was.Stretches[^1].To) <= Duration.FromMinutes(1)) >= Several;
        var missed = Enum.GetValues<MissedBy>().Where(m => !state.Evidence.IsLineJudged(student, m) && m switch
        {
            MissedBy.ComingLate => was.Worth.LateCosts && was.Dropouts > 0,
            MissedBy.LeavingEarly => was.Worth.LeftEarlyCosts && (was.Dropouts > 0 || isCrowd),
            _ => was.Dropouts > 0 && (policy.CreditBy == CreditBy.Share ? was.Worth.Share < policy.EnoughShare : was.Worth.Share < 0.5m),
        }).ToList();
        return missed.Count == 0 ? null : new OpenQuestion(
            $"line {student}", Asks.WasItTheLine, student, "",
            [
                new Choice("", "the connection failed", null, [.. missed.Select(m => new ConnectionJudged(student, m, Failed: true))]),
                new Choice("", "counts as it is", null, [.. missed.Select(m => new ConnectionJudged(student, m, Failed: false))]),
            ],
            isCrowd ? 0 : 1,
            $"{string.Join(", ", was.Notes())}{(isCrowd ? $"; several left at {Clock(was.Stretches[^1].To)}" : "")}");
    }

    private string Did(Guid entry) => _acts.Value[entry].InWords;

    // Entries have milliseconds, and whole seconds are told.
    private static (Instant From, int Seconds) Spoken(Instant from, Instant to)
    {
        var since = Instant.FromUnixTimeMilliseconds(from.ToUnixTimeMilliseconds());
        return (since, (int)Math.Ceiling((to - since).TotalSeconds));
    }

    private string Clock(Instant at) => Words.Clock(at, zone);
}
