using NodaTime;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Course;

/// <summary>The lesson began.</summary>
public sealed record LessonStarted : Act
{
    /// <inheritdoc/>
    public override string InWords => "Lesson started";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.Cancelled ? "This lesson is cancelled. Put it back on the calendar first."
        : lesson.Times.ActualStart is not null ? "This lesson has begun already."
        : null;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<CourseNow>().Start(entry);
}

/// <summary>The lesson ended for everyone.</summary>
public sealed record LessonEnded : Act
{
    /// <inheritdoc/>
    public override string InWords => "Lesson ended";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.Times.ActualStart is null ? "This lesson has not begun, so it cannot end."
        : lesson.Times.ActualEnd is not null ? "This lesson has ended already."
        : null;

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        lesson.Change<CourseNow>().End(entry);
        lesson.Change<QuestionsAsked>().CloseAll(entry);
    }
}

/// <summary>The register was confirmed and the lesson closed. Striking this entry out opens it again.</summary>
public sealed record LessonSettled : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => "Register confirmed, lesson settled";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.Times.ActualEnd is null ? "End the lesson before settling it." : null;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<CourseNow>().Settle(entry);
}

/// <summary>A stage of the plan began, and the one before it ended.</summary>
/// <param name="Stage">The id of the stage in the plan.</param>
public sealed record StageMoved(Guid Stage) : Act
{
    /// <inheritdoc/>
    public override string InWords => "next stage";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<CourseNow>().Move(Stage, entry.HappenedAt);
}

/// <summary>A stage was given more time, or less.</summary>
/// <param name="Stage">The id of the stage in the plan.</param>
/// <param name="By">How much more; below zero for less. From −120 to 120 min.</param>
public sealed record StageExtended(Guid Stage, Duration By) : Act
{
    private static readonly Duration Most = Duration.FromMinutes(120);

    /// <inheritdoc/>
    public override string InWords => $"stage {(By < Duration.Zero ? "shortened by" : "extended by")} {Words.Minutes(By < Duration.Zero ? -By : By)}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        By < -Most || By > Most ? $"A stage can be given up to {Words.Minutes(Most)} more or less at once." : null;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<CourseNow>().Extend(Stage, By);
}

/// <summary>The time for a task began to run, in place of one before for the same.</summary>
/// <param name="Length">How long it runs, from 5 s to 3 h.</param>
/// <param name="Task">What is to be done; may be empty.</param>
/// <param name="Group">The group it is for; null for the whole class.</param>
public sealed record TimerStarted(Duration Length, string Task, Guid? Group = null) : Act
{
    private static readonly Duration Least = Duration.FromSeconds(5);
    private static readonly Duration Most = Duration.FromHours(3);

    /// <inheritdoc/>
    public override string InWords => $"timer{(Group is null ? "" : " of a group")}, {(int)Length.TotalMinutes}:{Length.Seconds:00}{(Task.Length > 0 ? $", {Task}" : "")}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => Task;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Length < Least || Length > Most ? "The time for a task is from 5 s to 3 h."
        : TextLimits.TooLong(Task, "task", TextLimits.LongestName) ?? (Group is { } group ? lesson.See<GroupsNow>().NoSuch(group) : null);

    internal override void Apply(LessonParts lesson, Entry entry) =>
        lesson.Change<CourseNow>().StartTimer(new TaskTimer(Task, entry.HappenedAt, entry.HappenedAt + Length, Group));
}

/// <summary>The time for a task was ended before it ran out, or was put away after.</summary>
/// <param name="Group">The group it was for; null for the whole class.</param>
public sealed record TimerStopped(Guid? Group = null) : Act
{
    /// <inheritdoc/>
    public override string InWords => Group is null ? "timer ended" : "timer of a group ended";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<CourseNow>().StopTimer(Group);
}

/// <summary>A reminder of the class was seen to.</summary>
/// <param name="Reminder">Its line, as it stands in the ground rules.</param>
/// <param name="ReadAloud">What was read to the class, in the words of then; null if there was nothing to read.</param>
public sealed record ReminderTicked(string Reminder, string? ReadAloud = null) : Act
{
    /// <inheritdoc/>
    public override string InWords => $"{(ReadAloud is null ? "reminder seen to" : "read aloud")}: {Reminder}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => ReadAloud;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Reminder, "reminder", TextLimits.LongestName)
        ?? TextLimits.TooLong(ReadAloud, "text that was read aloud", TextLimits.LongestText);

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<CourseNow>().Tick(Reminder, new(entry.Id, entry.HappenedAt, ReadAloud));
}
