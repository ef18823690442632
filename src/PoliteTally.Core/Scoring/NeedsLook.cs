using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>A settled lesson of a student, as far as it says whether the term score needs a look.</summary>
/// <param name="Score">0 to 100, unrounded; null without a score.</param>
/// <param name="RestsOnLittle">Whether the score rests on less than half of the scheme.</param>
/// <param name="Did">What was done in it.</param>
public sealed record LessonLooked(decimal? Score, bool RestsOnLittle, Tally Did);

/// <summary>What a teacher looks at before a term score is given to anybody.</summary>
public static class NeedsLook
{
    /// <summary>How many lessons make "now", and how many there have to be before them. 3.</summary>
    public const int Lately = 3;

    /// <summary>By how many points the last lessons have to lie below those before them. 15.</summary>
    public const decimal MuchLower = 15;

    /// <summary>Why a term score needs a look, each in a few words; empty if it does not.</summary>
    /// <param name="lessons">The settled lessons of the student, in order.</param>
    /// <param name="score">The score over them.</param>
    public static IReadOnlyList<string> Because(IReadOnlyList<LessonLooked> lessons, TermScore score) => [.. Reasons(lessons, score)];

    private static IEnumerable<string> Reasons(IReadOnlyList<LessonLooked> lessons, TermScore score)
    {
        var scored = lessons.Where(l => l.Score is not null).ToList();
        if (score.Total is null)
        {
            yield return "not enough yet";
        }

        if (scored.Count >= 2 * Lately && scored[..^Lately].Average(l => l.Score!.Value) - scored[^Lately..].Average(l => l.Score!.Value) is >= MuchLower and var lower)
        {
            yield return $"{Words.Plain(Math.Round(lower))} lower than before";
        }

        if (score.Total is not null && scored.Sum(l => Deeds(l.Did)) is 1)
        {
            yield return "rests on one entry";
        }

        var corrected = lessons.Count(l => l.Did.Corrections.Count > 0);
        if (corrected > 0)
        {
            yield return $"put right by hand in {Words.Count(corrected, "lesson")}";
        }

        var little = scored.Count(l => l.RestsOnLittle && l.Did.Status != Attendance.AttendanceStatus.Absent);
        if (little * 2 >= scored.Count && little > 1)
        {
            yield return $"little chance in {little} of {Words.Count(scored.Count, "lesson")}";
        }
    }

    private static int Deeds(Tally did) =>
        did.Turns() + did.Answered + did.Contributions() + did.SitIns + did.SignalsAnswered + did.Marks.Count;
}
