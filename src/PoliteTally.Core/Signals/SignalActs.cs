using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;

namespace PoliteTally.Core.Signals;

/// <summary>The whole class answered one statement at once, by an agreed gesture.</summary>
/// <param name="Statement">The statement.</param>
/// <param name="Answered">Who answered.</param>
/// <param name="Silent">Who was there and did not.</param>
/// <param name="LedBy">The student who led it; null if the teacher did.</param>
public sealed record SignalRoundHeld(
    string Statement, IReadOnlyList<Guid> Answered, IReadOnlyList<Guid> Silent, Guid? LedBy = null) : Act
{
    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    /// <inheritdoc/>
    public override string InWords => $"signal round, {Answered.Count} of {Answered.Count + Silent.Count}{(Statement.Length > 0 ? $": {Statement}" : "")}";

    internal override string? Typed => Statement;

    internal override IEnumerable<Guid> About(LessonParts lesson) => Answered.Concat(Silent).Select(lesson.Whose);

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Statement, "statement", TextLimits.LongestText)
        ?? lesson.NotOnRoster([.. Answered, .. Silent, .. LedBy is { } led ? [led] : Array.Empty<Guid>()]);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        var answered = Answered.Select(lesson.Whose).ToHashSet();
        var silent = Silent.Select(lesson.Whose).Where(s => !answered.Contains(s)).ToHashSet();
        lesson.Change<SignalsShown>().Hold(new HeldRound(Statement, Answered.Count, Silent.Count, LedBy, entry.HappenedAt, entry.Id), answered, silent);
        var evidence = lesson.Change<Evidence>();
        foreach (var student in answered)
        {
            evidence.Glimpse(student, entry);
        }
    }
}

/// <summary>A student gave a signal of the class while a statement was up.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Signal">What it means, as the class has agreed.</param>
public sealed record SignalGiven(Guid Student, string Signal) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => $"signal: {Signal}";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Signal, "signal", TextLimits.LongestName)
        ?? (!lesson.SignalsAnyTime && !lesson.See<SignalsShown>().IsRoundOn ? "No signal round is on." : null);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<SignalsShown>().Give(student, new Signalled(Signal, entry.HappenedAt, entry.Id));
}

/// <summary>A name sent a reaction. It shows that somebody was there, and counts for nothing.</summary>
public sealed record NameReacted(string Name, string Reaction) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => $"“{Name}” reacted: {Reaction}";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Reaction, "reaction", TextLimits.LongestName) ?? base.WhyRefused(entry, lesson);

    // A reaction counts for nothing, whatever the class has agreed on signals: the meeting's have a meaning of their own.
    internal override void Apply(LessonParts lesson, NameShown name, Entry entry)
    {
        if (lesson.See<NamesShown>().StudentOf(name) is { } student)
        {
            lesson.Change<SignalsShown>().Glimpse(student, new Signalled(Reaction, entry.HappenedAt, entry.Id));
        }
    }
}
