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
/// The teacher's word on where a student was at a time of which two sources say different things, from the moment of the entry on: that they were there, or that they were not and
/// what they did meanwhile came from elsewhere. The last word on a moment counts.
/// </summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Seconds">Of how long it speaks, from 0 up.</param>
/// <param name="WasThere">Whether they were there.</param>
public sealed record AwayJudged(Guid Student, int Seconds, bool WasThere) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfAttendance => true;

    /// <inheritdoc/>
    public override string InWords => WasThere ? "was there" : "was not there";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => Seconds < 0 ? "A time of less than no seconds." : null;

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Evidence>().JudgeAway(student, new AwayWord(entry.HappenedAt, entry.HappenedAt + Duration.FromSeconds(Seconds), WasThere, entry.NotedAt, entry.Id));
}

/// <summary>The teacher's word on whether a connection that failed is to blame for what a student missed; then it costs nothing. The last word counts.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Missed">What they missed.</param>
/// <param name="Failed">Whether it was to blame.</param>
public sealed record ConnectionJudged(Guid Student, MissedBy Missed, bool Failed) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfAttendance => true;

    /// <inheritdoc/>
    public override string InWords => $"{(Failed ? "the connection failed" : "the connection was not to blame")}: {Missed switch
    {
        MissedBy.ComingLate => "came late",
        MissedBy.LeavingEarly => "left early",
        _ => "dropouts",
    }}";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Evidence>().JudgeLine(student, new LineWord(Missed, Failed, entry.Id));
}

/// <summary>The teacher sent a student out of the meeting. Until they are let back in they neither left early nor fell out; why is an aside.</summary>
public sealed record SentOut(Guid Student) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => "sent out";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<Evidence>().SendOut(student, entry);
}

/// <summary>The teacher let a student back in.</summary>
public sealed record LetBackIn(Guid Student) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    // Also after the lesson: it changes nothing of what was.
    public override bool IsTakenWhenSettled => true;

    /// <inheritdoc/>
    public override string InWords => "let back in";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<Evidence>().LetIn(student, entry);
}

/// <summary>An excuse was recorded. It counts if the student was not there, came late or left early.</summary>
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
