using NodaTime;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Questions;

/// <summary>Who can answer a question, and until when.</summary>
public static class AskingRules
{
    /// <summary>How long after a deadline an answer is still taken, for the way it had to come. 2 s.</summary>
    public static readonly Duration DeadlineSlack = Duration.FromSeconds(2);

    /// <summary>Why a student cannot answer a question now; null if they can. The teacher can at any time.</summary>
    public static string? OutOfTime(Asking asking, Guid student, GroupsNow groups, Instant at) => asking switch
    {
        { IsOpen: false } => "This question is closed. Your answer came too late to count.",
        _ when !asking.GoesTo(student, groups) => "This question goes to another group.",
        _ when asking.DeadlineOf(student) is { } deadline && at > deadline + DeadlineSlack => "Your time for this question is up.",
        _ => null,
    };

    internal static string? OutOfTime(Asking asking, Guid student, Entry entry, LessonFacts lesson) =>
        entry.Source == Source.Tapped ? null : OutOfTime(asking, lesson.Parts().Whose(student), lesson.See<GroupsNow>(), entry.HappenedAt);
}
