using NodaTime;

namespace PoliteTally.Core.Ledger;

/// <summary>Somebody who came to the student page with the code of the lesson and a name.</summary>
/// <param name="Session">Tells apart who came.</param>
/// <param name="Name">The name they gave.</param>
/// <param name="At">When.</param>
/// <param name="Student">The student they are, by the teacher's word; null while nobody has said, and if they were turned away.</param>
/// <param name="Word">The entry of the teacher's word; null while there is none.</param>
public sealed record PageVisitor(Guid Session, string Name, Instant At, Guid? Student, Guid? Word);

/// <summary>The time given for a task.</summary>
/// <param name="Task">What is to be done; may be empty.</param>
/// <param name="From">When it began to run.</param>
/// <param name="To">When it runs out.</param>
/// <param name="Group">The group it is for; null for the whole class.</param>
public sealed record TaskTimer(string Task, Instant From, Instant To, Guid? Group = null);

/// <summary>A signal round that was held.</summary>
/// <param name="Statement">The statement.</param>
/// <param name="Answered">How many answered.</param>
/// <param name="Silent">How many were there and did not.</param>
/// <param name="LedBy">The student who led it, if one did.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record HeldRound(string Statement, int Answered, int Silent, Guid? LedBy, Instant At, Guid Entry);

/// <summary>Something that is up on the class board.</summary>
/// <param name="Text">Its words, where they do not follow from the lesson.</param>
/// <param name="Since">When it was put up.</param>
/// <param name="Entry">The entry that put it up.</param>
public sealed record OnBoard(string? Text, Instant Since, Guid Entry);
