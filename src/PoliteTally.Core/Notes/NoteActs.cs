using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Notes;

/// <summary>A small credit with a reason.</summary>
public sealed record NodGiven(Guid Student, string Reason) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => $"nod, {Reason}";

    internal override string? Typed => Reason;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Reason) ? "A nod needs a reason."
        : TextLimits.TooLong(Reason, "reason", TextLimits.LongestName);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<NotesTaken>().Nod(student, this, entry);
}

/// <summary>Nods that stand on the class board for a moment, because the teacher wanted the class to see them.</summary>
/// <param name="Nods">The entries that gave them, of one of the last presses.</param>
public sealed record NodsShown(IReadOnlyList<Guid> Nods) : Act
{
    /// <summary>The most nods that are shown at once: 2,000, as many as a class has students.</summary>
    public const int Most = 2000;

    /// <inheritdoc/>
    public override string InWords => "nods shown to the class";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Nods.Count is < 1 or > Most ? $"Nods shown to the class: from 1 to {Most:N0}." : null;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<NotesTaken>().Show(Nods, entry);
}

/// <summary>A private note about a student. Never scored, never shown to students.</summary>
public sealed record AsideNoted(Guid Student, string Text) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => $"aside: {Text}";

    internal override string? Typed => Text;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Text) ? "An aside needs words."
        : TextLimits.TooLong(Text, "aside", TextLimits.LongestText);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<NotesTaken>().Aside(student, this, entry);
}

/// <summary>Somebody tried to reach a student who was missing.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Channel">By what.</param>
/// <param name="Outcome">What came of it.</param>
/// <param name="Note">More in words; may be empty.</param>
public sealed record ContactTried(Guid Student, ContactChannel Channel, ContactOutcome Outcome, string Note) : StudentAct(Student)
{
    /// <inheritdoc/>
    // Somebody may call back days later.
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsTakenWhenSettled => true;

    /// <inheritdoc/>
    public override string InWords => $"{ByWhat}, {WhatCame}{(Note.Length > 0 ? $": {Note}" : "")}";

    internal override string? Typed => Note;

    private string ByWhat => Channel switch
    {
        ContactChannel.Email => "e-mail",
        ContactChannel.Phone => "call",
        ContactChannel.Message => "message",
        _ => "through somebody",
    };

    private string WhatCame => Outcome switch
    {
        ContactOutcome.Sent => "sent",
        ContactOutcome.Reached => "reached",
        ContactOutcome.NoAnswer => "no answer",
        _ => "could not go",
    };

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Note, "note", TextLimits.LongestName);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<NotesTaken>().Contact(student, this, entry);
}

/// <summary>How somebody was tried to be reached.</summary>
public enum ContactChannel
{
    /// <summary>A message by e-mail.</summary>
    Email,

    /// <summary>A call.</summary>
    Phone,

    /// <summary>A message in another program.</summary>
    Message,

    /// <summary>Through somebody else.</summary>
    Somebody,
}

/// <summary>What came of trying to reach somebody.</summary>
public enum ContactOutcome
{
    /// <summary>It went out; nobody knows yet.</summary>
    Sent,

    /// <summary>They answered.</summary>
    Reached,

    /// <summary>Nobody answered.</summary>
    NoAnswer,

    /// <summary>It could not go out.</summary>
    Failed,
}
