using NodaTime;

namespace PoliteTally.Core.Hands;

/// <summary>Where a hand stands: <c>up → called</c>, or one of the ends.</summary>
public enum HandStage
{
    /// <summary>In line, waiting.</summary>
    Up,

    /// <summary>Lowered by the other program by itself: still in line, shown as lapsed, until dealt with.</summary>
    Lapsed,

    /// <summary>Called: the student has or had the word.</summary>
    Called,

    /// <summary>Taken down by the student.</summary>
    Withdrawn,

    /// <summary>Taken down by the teacher.</summary>
    SetDown,
}

/// <summary>How a hand goes down without a turn.</summary>
public enum HandEnd
{
    /// <summary>By the student.</summary>
    Withdrawn,

    /// <summary>By the teacher.</summary>
    SetDown,

    /// <summary>By the other program, by itself.</summary>
    Lapsed,
}

/// <summary>How a student came by a turn.</summary>
public enum TurnOrigin
{
    /// <summary>Called from the hand line.</summary>
    Hand,

    /// <summary>Wrote "ready" in the chat.</summary>
    Ready,

    /// <summary>Drawn by chance.</summary>
    Drawn,

    /// <summary>Invited by the teacher.</summary>
    Invited,

    /// <summary>Handed on by another student.</summary>
    HandedOn,
}

/// <summary>How a turn went.</summary>
public enum TurnOutcome
{
    /// <summary>A full turn, credit 1.</summary>
    Full,

    /// <summary>A partial turn, credit 0.5.</summary>
    Partial,

    /// <summary>Passed, credit 0.</summary>
    Pass,

    /// <summary>Could not answer for reasons that are not theirs: not counted.</summary>
    CouldNot,
}

/// <summary>One raised hand, from going up to its end.</summary>
/// <param name="Student">Whose hand.</param>
/// <param name="RaisedAt">When it went up; the line is ordered by this.</param>
/// <param name="Entry">The entry that raised it.</param>
/// <param name="Stage">Where it stands now.</param>
/// <param name="Ready">True if they wrote that they are ready instead.</param>
public sealed record Hand(Guid Student, Instant RaisedAt, Guid Entry, HandStage Stage, bool Ready = false)
{
    /// <summary>True while the hand is in line: up, or lapsed and not dealt with.</summary>
    public bool InLine => Stage is HandStage.Up or HandStage.Lapsed;

    /// <summary>True of a hand that was never called and not withdrawn: up, lapsed or set down.</summary>
    public bool NeverCalled => Stage is HandStage.Up or HandStage.Lapsed or HandStage.SetDown;
}

/// <summary>One turn of speaking before the class.</summary>
/// <param name="Student">Whose turn.</param>
/// <param name="Origin">How they came by it.</param>
/// <param name="At">When they were called, or when the turn was noted if there was no call.</param>
/// <param name="Waited">From the hand going up to the call; null if no hand was up.</param>
/// <param name="Outcome">How it went; null while nobody has said.</param>
/// <param name="Entries">The call and the outcome.</param>
/// <param name="Length">How long they were heard in it; without captions, from the call to its outcome; null if nothing tells.</param>
/// <param name="Why">Why the draw fell on them; null if it did not.</param>
public sealed record Turn(
    Guid Student, TurnOrigin Origin, Instant At, Duration? Waited, TurnOutcome? Outcome, IReadOnlyList<Guid> Entries,
    Duration? Length = null, string? Why = null)
{
    /// <summary>Whether its length is that of what they were heard to say.</summary>
    public bool IsMeasured { get; init; }

    /// <summary>Points covered in it, each with the entry that says so.</summary>
    public IReadOnlyList<(Guid Point, Guid Entry)> Points { get; init; } = [];
}

/// <summary>Something a student was heard to say.</summary>
/// <param name="Student">Who.</param>
/// <param name="At">When they began.</param>
/// <param name="Length">For how long.</param>
/// <param name="Entry">The entry.</param>
/// <param name="Said">Their words; null if they are not kept.</param>
public sealed record SpeechHeard(Guid Student, Instant At, Duration Length, Guid Entry, string? Said = null);
