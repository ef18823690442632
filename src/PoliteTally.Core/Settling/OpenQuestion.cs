using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Settling;

/// <summary>What kind of thing only the teacher can know.</summary>
public enum Asks
{
    /// <summary>Whose a name in the meeting is.</summary>
    WhoseName,

    /// <summary>Which of several files has the right time.</summary>
    WhichClock,

    /// <summary>What somebody's status is, where the teacher's marks and what was measured say different things.</summary>
    WhichStatus,

    /// <summary>Whether somebody was there who did something while a list has them away, or was said to be gone while it has them there.</summary>
    WereTheyAway,

    /// <summary>Whether somebody came late of whom nothing is known but what they did.</summary>
    WhenTheyCame,

    /// <summary>Whether the connection was to blame for what somebody missed.</summary>
    WasItTheLine,

    /// <summary>Whether something that somebody was heard to say, and nobody noted, was a turn.</summary>
    WasItATurn,

    /// <summary>How a turn ended, of which nobody said it.</summary>
    HowItEnded,

    /// <summary>What somebody answered, where two sources say different things.</summary>
    WhichAnswer,

    /// <summary>What the messages in the chat were that nobody has sorted.</summary>
    WhatMessages,
}

/// <summary>One thing that is asked while a lesson is settled, with the answers there are.</summary>
/// <param name="Id">Stays the same for as long as it is asked.</param>
/// <param name="Asks">What is asked.</param>
/// <param name="Student">Of whom; null if of nobody in particular.</param>
/// <param name="About">What it is about, where that is no student: the name shown.</param>
/// <param name="Choices">The answers, at least one.</param>
/// <param name="Proposed">The place of the answer that is proposed; null if none is.</param>
/// <param name="Why">Why, or what is known of it.</param>
public sealed record OpenQuestion(string Id, Asks Asks, Guid? Student, string About, IReadOnlyList<Choice> Choices, int? Proposed, string Why);

/// <summary>An answer to an open question.</summary>
/// <param name="By">Who says so: "you", "the list"; empty if nobody in particular.</param>
/// <param name="Says">What it says.</param>
/// <param name="Student">The student whom it names; null if it names none.</param>
/// <param name="Acts">What is noted if it is taken.</param>
/// <param name="At">When it happened; null of a decision, which has no moment.</param>
public sealed record Choice(string By, string Says, Guid? Student, IReadOnlyList<Act> Acts, Instant? At = null);
