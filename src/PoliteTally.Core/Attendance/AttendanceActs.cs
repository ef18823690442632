using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>The teacher's mark at a moment of the lesson: here, late or left.</summary>
public sealed record Marked(Guid Student, Mark Mark) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => Mark switch
    {
        Mark.Here => "here",
        Mark.Late => "late",
        _ => "left",
    };

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Evidence>().Take(student, new MarkMade(Mark, entry.HappenedAt, entry.Id, ByRollCall: false));
}

/// <summary>The teacher looked round: those were there, everybody else was not.</summary>
/// <param name="Here">The ids of the students who were there.</param>
public sealed record RollCallTaken(IReadOnlyList<Guid> Here) : Act
{
    /// <inheritdoc/>
    public override string InWords => $"roll call, {Here.Count} here";

    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    internal override IEnumerable<Guid> About(LessonParts lesson) => Here.Select(lesson.Whose);

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => lesson.NotOnRoster(Here);

    internal override void Apply(LessonParts lesson, Entry entry) =>
        lesson.Change<Evidence>().Call(new RollCall(entry.HappenedAt, entry.Id, About(lesson).ToHashSet()));
}

/// <summary>The teacher's word on the status, given when settling; it wins over everything else.</summary>
public sealed record StatusDeclared(Guid Student, AttendanceStatus Status) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfAttendance => true;

    /// <inheritdoc/>
    public override string InWords => $"declared {Status.InWords()}";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Evidence>().Declare(student, new DeclaredStatus(Status, entry.Id));
}

/// <summary>
/// The teacher's word on what a student did while a list had them away, from the moment of the entry on: that it shows that they were there, as it does
/// where nothing is said, or that it came from elsewhere and shows nothing. The last word on a moment counts.
/// </summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Seconds">For how long it speaks of what they did, from 0 up.</param>
/// <param name="WasThere">Whether they were there.</param>
public sealed record AwayJudged(Guid Student, int Seconds, bool WasThere) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfAttendance => true;

    /// <inheritdoc/>
    public override string InWords => WasThere ? "was there, whatever the list says" : "was away, whatever they did meanwhile";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => Seconds < 0 ? "A time of less than no seconds." : null;

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Evidence>().JudgeAway(student, new AwayWord(entry.HappenedAt, entry.HappenedAt + Duration.FromSeconds(Seconds), WasThere, entry.NotedAt));
}

/// <summary>An excuse was recorded. It counts only if the student was not there.</summary>
public sealed record ExcuseRecorded(Guid Student, string Reason) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfAttendance => true;

    /// <inheritdoc/>
    public override string InWords => $"excused: {Reason}";

    internal override string? Typed => Reason;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Reason, "reason", TextLimits.LongestName);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Evidence>().Excuse(student, new ExcuseGiven(Reason, entry.Id));
}

/// <summary>The teacher's marks during a lesson.</summary>
public enum Mark
{
    /// <summary>Here, and not late.</summary>
    Here,

    /// <summary>Here from now on, and late.</summary>
    Late,

    /// <summary>Gone from now on.</summary>
    Left,
}
