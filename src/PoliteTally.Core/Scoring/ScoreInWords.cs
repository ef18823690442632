using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>A score in one plain sentence, before anybody looks at figures.</summary>
public static class ScoreInWords
{
    /// <summary>Such as "83: there all the time, one full turn, wrote nothing in the chat though it was open."</summary>
    /// <param name="score">The score.</param>
    /// <param name="did">What was done.</param>
    /// <param name="scheme">How it is scored.</param>
    public static string Of(LessonScore score, Tally did, Scheme scheme)
    {
        if (score.Total is not { } total)
        {
            return score.Because!;
        }

        var byHand = did.Corrections.FirstOrDefault(c => c.Strand is null);
        var all = byHand is null ? string.Join(", ", Parts(score, did, scheme).Where(p => p.Length > 0)) : byHand.Said;
        return $"{Words.Plain(scheme.Shown(total.Value))}: {all}.";
    }

    private static IEnumerable<string> Parts(LessonScore score, Tally did, Scheme scheme)
    {
        if (did.Status == AttendanceStatus.Absent)
        {
            yield return "absent without an excuse";
            yield break;
        }

        yield return (did.Status, did.MeasuredShare) switch
        {
            (AttendanceStatus.Late, _) => $"{(did.LateCosts ? "late" : "late with an excuse")}{(did.LeftEarlyCosts ? ", left early" : "")}",
            _ when did.LeftEarlyCosts => "left early",
            (_, > 0 and var share) when share < scheme.Attendance.EnoughShare => $"there for {Words.Plain(Math.Round(share * 100, MidpointRounding.AwayFromZero))} % of the time",
            _ => "there all the time",
        };
        foreach (var strand in score.Strands.Where(s => s.Weight > 0 && s.Strand != Strand.Attendance))
        {
            yield return did.Corrections.FirstOrDefault(c => c.Strand == strand.Strand) is { } correction ? correction.Said : Part(strand, did, scheme);
        }

        yield return did.Nods > 0 ? Counted(did.Nods, "nod") : "";
    }

    private static string Part(StrandScore strand, Tally did, Scheme scheme) => (strand.Strand, HadChance: strand.Value is not null) switch
    {
        (Strand.Speaking, true) => Joined(
            did.FullTurns > 0 ? Counted(did.FullTurns, "full turn") : "", did.PartialTurns > 0 ? Counted(did.PartialTurns, "partial turn") : "",
            did.HandNeverCalled ? "a hand that nobody called" : "", did.SignalsAnswered > 0 ? Counted(did.SignalsAnswered, "signal round") + " answered" : "") is { Length: > 0 } said
            ? said
            : did.Passes > 0 ? "passed when called" : did.LineWasOpen ? "no turn though the line was open" : "no turn",
        (Strand.Speaking, false) => did.SpeakingPaused ? "could not speak" : did.TurnsNotCounted > 0 ? "called but could not" : "no chance to speak",
        (Strand.Questions, true) => $"answered {(did.Answered == did.Asked ? did.Asked == 1 ? "the question" : $"all {did.Asked} questions" : $"{did.Answered} of {Words.Count(did.Asked, "question")}")}"
            + (did.MarksPossible > 0 ? $" for {Words.Plain(did.MarksGot)} of {Words.Plain(did.MarksPossible)} marks" : ""),
        (Strand.Chat, true) => did.Contributions() is > 0 and var wrote ? $"{Counted(wrote, "contribution")} in the chat" : "wrote nothing in the chat though it was open",
        (Strand.GroupWork, true) => $"worked in a group at {Words.Plain(did.GroupCredits / did.SitIns * 100)} %",
        (Strand.Rubric, true) => strand.Because,
        _ => "",
    };

    private static string Joined(params IEnumerable<string> parts) => string.Join(" and ", parts.Where(p => p.Length > 0));

    private static string Counted(int count, string noun) => count == 1 ? $"one {noun}" : Words.Count(count, noun);
}
