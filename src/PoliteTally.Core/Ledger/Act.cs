using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Hands;

namespace PoliteTally.Core.Ledger;

/// <summary>What an entry says. A closed set: every kind of act stands in this file.</summary>
public abstract record Act
{
    private protected Act()
    {
    }

    /// <summary>
    /// A decision is about the lesson but not a moment of it (a name matched, a status declared), so it may be noted at
    /// any time after; everything else must lie close to the lesson.
    /// </summary>
    public virtual bool IsDecision => false;
}

/// <summary>The lesson began.</summary>
public sealed record LessonStarted : Act;

/// <summary>The lesson ended for everyone.</summary>
public sealed record LessonEnded : Act;

/// <summary>The register was confirmed and the lesson closed. Striking this entry out opens it again.</summary>
public sealed record LessonSettled : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>An earlier entry is struck out; striking out a strike puts the earlier entry back.</summary>
/// <param name="Entry">The id of the entry that no longer counts.</param>
public sealed record Struck(Guid Entry) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>An act about one student of the roster.</summary>
/// <param name="Student">The id of the student.</param>
public abstract record StudentAct(Guid Student) : Act
{
    /// <summary>
    /// True of what a student can only do while there. Such an act is taken as a sighting, so that nobody who spoke is
    /// marked absent because nobody took the roll.
    /// </summary>
    public virtual bool ShowsPresence => false;
}

/// <summary>The teacher's mark at a moment of the lesson: here, late or left.</summary>
public sealed record Marked(Guid Student, Mark Mark) : StudentAct(Student);

/// <summary>The teacher's word on the status, given when settling; it wins over everything else.</summary>
public sealed record StatusDeclared(Guid Student, AttendanceStatus Status) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>An excuse was recorded. It counts only if the student was not there.</summary>
public sealed record ExcuseRecorded(Guid Student, string Reason) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>A hand went up.</summary>
public sealed record HandRaised(Guid Student) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A hand went down without a turn.</summary>
public sealed record HandEnded(Guid Student, HandEnd End) : StudentAct(Student);

/// <summary>A student was given the word.</summary>
public sealed record Called(Guid Student, TurnOrigin Origin) : StudentAct(Student);

/// <summary>How a turn ended. Without a call before it, it is a whole turn by itself.</summary>
public sealed record TurnTaken(Guid Student, TurnOutcome Outcome, TurnOrigin Origin) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => Outcome is TurnOutcome.Full or TurnOutcome.Partial or TurnOutcome.Pass;
}

/// <summary>A contribution in the chat.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Kind">What the message was.</param>
/// <param name="Text">The message itself, when it is known.</param>
public sealed record ChatSaid(Guid Student, ChatKind Kind, string? Text) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A small credit with a reason.</summary>
public sealed record NodGiven(Guid Student, string Reason) : StudentAct(Student);

/// <summary>A reminder of the class was seen to.</summary>
/// <param name="Reminder">Its line, as it stands in the ground rules.</param>
public sealed record ReminderTicked(string Reminder) : Act;

/// <summary>An act about a name shown in the meeting, whoever that may be.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
public abstract record NameAct(string Name) : Act;

/// <summary>The name came into the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Device">Tells apart the connections of one person; empty when the source does not say.</param>
public sealed record Joined(string Name, string Device) : NameAct(Name);

/// <summary>The name left the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Device">As in <see cref="Joined"/>.</param>
public sealed record Left(string Name, string Device) : NameAct(Name);

/// <summary>The name was in the meeting when a roll call was taken.</summary>
public sealed record Seen(string Name) : NameAct(Name);

/// <summary>The name was in the meeting for so long; nobody says when.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Length">How long in all, from zero up.</param>
public sealed record Attended(string Name, Duration Length) : NameAct(Name);

/// <summary>Whose name this is. The last word on a name counts.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Student">The id of the student, or null for "not a student".</param>
public sealed record NameMatched(string Name, Guid? Student) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
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

/// <summary>What a message in the chat was.</summary>
public enum ChatKind
{
    /// <summary>Not settled yet.</summary>
    Unsorted,

    /// <summary>A question.</summary>
    Question,

    /// <summary>An answer.</summary>
    Answer,

    /// <summary>An idea.</summary>
    Idea,

    /// <summary>Greetings and the like.</summary>
    Social,

    /// <summary>Nothing to do with the lesson.</summary>
    OffTask,
}
