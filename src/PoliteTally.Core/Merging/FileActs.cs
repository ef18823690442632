using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Merging;

/// <summary>What a file from another program tells.</summary>
public enum FileKind
{
    /// <summary>Who was in the meeting, and when or for how long.</summary>
    Attendance,

    /// <summary>What was written in the chat.</summary>
    Chat,

    /// <summary>Who spoke, and for how long.</summary>
    Captions,

    /// <summary>What was answered to questions.</summary>
    Answers,

    /// <summary>Who was there at one moment.</summary>
    People,
}

/// <summary>
/// A file was brought in. What it says stands in entries of its own that carry the id of this one in <see cref="Entry.Together"/>; they count for as
/// long as this entry does, so that taking the file out is one strike.
/// </summary>
/// <param name="Kind">What it tells.</param>
/// <param name="Name">The name of the file.</param>
/// <param name="Rows">How many rows, messages, answers or stretches of speech were read in it, from 0 up.</param>
/// <param name="Fingerprint">SHA-256 of its bytes, in hexadecimal, by which the same file is known again.</param>
public sealed record FileBroughtIn(FileKind Kind, string Name, int Rows, string Fingerprint) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    /// <inheritdoc/>
    public override string InWords => $"“{Name}” brought in";

    internal override string? Typed => Name;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Name) ? "The name of the file is empty." : TextLimits.TooLong(Name, "name of the file", TextLimits.LongestName) ?? TextLimits.TooLong(Fingerprint, "fingerprint", TextLimits.LongestName);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // What it changes is known before anything of it is taken.
    }
}

/// <summary>The teacher's word on the clock of a file.</summary>
/// <param name="File">The id of the entry that brought the file in.</param>
/// <param name="Ahead">How far its clock is ahead of the lesson's, negative if it is behind; null to have it reckoned again.</param>
public sealed record ClockSet(Guid File, Duration? Ahead) : Act
{
    /// <summary>No clock is further off: 26 h, from the first zone of the earth to the last.</summary>
    public static readonly Duration Furthest = Duration.FromHours(26);

    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => Ahead is null ? "the clock of a file reckoned" : "the clock of a file set";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.ActOf(File) is not FileBroughtIn ? "This file was not brought in for this lesson."
        : Ahead is { } ahead && (ahead > Furthest || ahead < -Furthest) ? "No clock is more than 26 h off."
        : null;

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // Clocks are known before anything that happened is taken.
    }
}

/// <summary>The teacher's word on whether two entries tell of one act. The last word on a pair counts.</summary>
/// <param name="Entry">The id of the one that counts, if they are one.</param>
/// <param name="Other">The id of the one that stands behind it.</param>
/// <param name="AreOne">Whether they are one.</param>
public sealed record ActsCompared(Guid Entry, Guid Other, bool AreOne) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    /// <inheritdoc/>
    public override string InWords => AreOne ? "two entries joined to one" : "two entries parted";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Entry == Other ? "An entry is one with itself."
        : lesson.ActOf(Entry) is null || lesson.ActOf(Other) is null ? "The entry is not in this lesson."
        : null;

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // Which entries are one is known before any of them is taken.
    }
}
