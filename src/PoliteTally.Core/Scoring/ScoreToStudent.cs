using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>One part of a score as it is told to the student whose it is.</summary>
/// <param name="Strand">Which strand; null for nods, and for what is about the whole lesson.</param>
/// <param name="Share">How much of the strand they have, from 0 to 1; null if it does not count for them.</param>
/// <param name="Said">Why, in a child's words.</param>
public sealed record ToldPart(Strand? Strand, decimal? Share, string Said);

/// <summary>A score in a child's words: what you did, what counts, and that nobody is marked down for what they had no chance to do. The reason of an excuse is left out.</summary>
public static class ScoreToStudent
{
    /// <summary>The parts of a score, in the order of <see cref="Strand"/>, then nods, then what the teacher said of the whole lesson.</summary>
    /// <param name="score">The score.</param>
    /// <param name="did">What was done.</param>
    /// <param name="scheme">How it is scored.</param>
    public static IReadOnlyList<ToldPart> Of(LessonScore score, Tally did, Scheme scheme) =>
    [
        .. score.Strands.Where(s => s.Weight > 0).Select(s => new ToldPart(s.Strand, s.Value?.Value, SaidOf(s, did, scheme))),
        .. did.Nods > 0 && score.Strands.Count > 0
            ? [new ToldPart(null, null, $"{Words.Count(did.Nods, "nod")} from your teacher: {Words.Plain(Math.Min(did.Nods * scheme.NodPoints, scheme.NodsAtMost))} more.")]
            : Array.Empty<ToldPart>(),
        .. OfLesson(score, did),
    ];

    private static IEnumerable<ToldPart> OfLesson(LessonScore score, Tally did)
    {
        if (did.Corrections.FirstOrDefault(c => c.Strand is null) is { } correction)
        {
            yield return new ToldPart(
                null, null,
                $"{(correction.What == CorrectionKind.ScoreSet ? $"Your teacher set this lesson to {Words.Plain(correction.Value!.Value)}" : "Your teacher left this lesson out")}: {correction.Reason}");
        }
        else if (score.Total is null)
        {
            yield return new ToldPart(null, null, did switch
            {
                { IsDropIn: true } => "Nobody had to come to this lesson, so nobody has a score for it.",
                { Status: AttendanceStatus.Excused } => "You were excused. This lesson does not count for you.",
                _ => "You had no chance to take part in what counts. This lesson does not count for you.",
            });
        }
    }

    private static string SaidOf(StrandScore strand, Tally did, Scheme scheme) =>
        did.Corrections.FirstOrDefault(c => c.Strand == strand.Strand) is { } correction
            ? $"Your teacher {(correction.Value is { } set ? $"set this to {Words.Plain(set * 100)} %" : "left this out")}: {correction.Reason}"
        : did.Status == AttendanceStatus.Absent && strand.Strand is not (Strand.Attendance or Strand.Rubric) ? "You were not there."
        : strand.Strand switch
        {
            Strand.Attendance => Attendance(did, scheme),
            Strand.Speaking => Speaking(strand.Value is not null, did, scheme),
            Strand.Questions => Questions(did),
            Strand.Chat => Chat(strand.Value is not null, did),
            Strand.GroupWork => did.SitIns == 0 ? "Your teacher did not see you work in a group, so this is left out."
                : $"Your teacher saw you work in a group {Times(did.SitIns)}.",
            _ => strand.Value is null ? "Your teacher marked nothing here, so this is left out." : $"Your teacher marked: {strand.Because}.",
        };

    private static string Attendance(Tally did, Scheme scheme) => did switch
    {
        { Status: AttendanceStatus.Absent } => "You were not there.",
        { Status: AttendanceStatus.Late, LateCosts: false } => "You came late and had a reason, so being late costs nothing.",
        { Status: AttendanceStatus.Late, LeftEarlyCosts: true } => "You came late and left early.",
        { Status: AttendanceStatus.Late } => "You came late.",
        { LeftEarlyCosts: true } => "You left early.",
        { MeasuredShare: > 0 and var share } when share < scheme.Attendance.EnoughShare =>
            $"You were there for {Words.Plain(Math.Round(share * 100, MidpointRounding.AwayFromZero))} % of the time.",
        _ => "You were there.",
    };

    private static string Speaking(bool hadChance, Tally did, Scheme scheme)
    {
        if (!hadChance)
        {
            return did.SpeakingPaused ? "You could not speak, so this is left out." : "You had no chance to speak, so this is left out.";
        }

        string[] done =
        [
            .. did.FullTurns > 0 ? [$"You spoke {Times(did.FullTurns)}."] : Array.Empty<string>(),
            .. did.PartialTurns > 0 ? [$"You {(did.FullTurns > 0 ? "also " : "")}said a part {Times(did.PartialTurns)}."] : Array.Empty<string>(),
            .. did.HandNeverCalled ? ["Your hand was up and nobody called you: that counts, too."] : Array.Empty<string>(),
            .. did.SignalsAnswered > 0 ? [$"You showed a signal {Times(did.SignalsAnswered)}."] : Array.Empty<string>(),
        ];
        var said = done.Length > 0 ? string.Join(' ', done) : did.Passes > 0 ? "You passed when you were called." : "You did not speak, though you could have put up your hand.";
        var wrote = did.Contributions();
        return wrote > 0 && scheme.ChatCounts && did.FullTurns == 0 && scheme.WrittenStandsIn * scheme.WrittenAtMost > 0 ? $"{said} What you wrote counts for a part of it." : said;
    }

    private static string Questions(Tally did)
    {
        var answered = $"You answered {did.Answered} of {Words.Count(did.Asked, "question")}";
        return did.Asked == 0 ? "There was no question for you, so this is left out."
            : did.MarksPossible > 0 ? $"{answered}, and got {Words.Plain(did.MarksGot)} of {Words.Plain(did.MarksPossible)} marks."
            : $"{answered}.";
    }

    private static string Chat(bool hadChance, Tally did) =>
        !hadChance ? "The chat did not count, so this is left out."
        : did.Contributions() is > 0 and var wrote ? $"You wrote {Words.Count(wrote, "message")} that {(wrote == 1 ? "counts" : "count")}.{(did.FullTurns > 0 ? " That you spoke counts for a part of it." : "")}"
        : did.FullTurns > 0 ? "You wrote nothing that counts, but you spoke, and that counts for a part of it."
        : "You wrote nothing that counts in the chat.";

    private static string Times(int count) => count switch
    {
        1 => "once",
        2 => "twice",
        _ => $"{count} times",
    };
}
