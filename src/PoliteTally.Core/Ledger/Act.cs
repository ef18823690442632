using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

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

/// <summary>Earlier entries are struck out; striking out a strike puts them back, all of them together.</summary>
/// <param name="Entry">The id of the entry that no longer counts.</param>
/// <param name="Others">The ids of entries that no longer count either, for one press noted them together; null if there are none.</param>
public sealed record Struck(Guid Entry, IReadOnlyList<Guid>? Others = null) : Act
{
    /// <summary>The most entries that one strike is about: 500, as many as are sent at once.</summary>
    public const int Most = 500;

    /// <summary>All entries that it strikes out.</summary>
    public IEnumerable<Guid> Entries => Others is null ? [Entry] : Others.Prepend(Entry);

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
/// <param name="Student">The id of the student.</param>
/// <param name="Ready">True if they wrote that they are ready instead of raising a hand.</param>
public sealed record HandRaised(Guid Student, bool Ready = false) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A hand went down without a turn.</summary>
public sealed record HandEnded(Guid Student, HandEnd End) : StudentAct(Student);

/// <summary>A student was given the word.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Origin">How they came by it.</param>
/// <param name="Why">Why the draw fell on them; null if they were not drawn.</param>
/// <param name="By">Who handed on to them, whose own turn that ends as a full one; null if nobody did or that is not known.</param>
public sealed record Called(Guid Student, TurnOrigin Origin, string? Why = null, Guid? By = null) : StudentAct(Student);

/// <summary>How a turn ended. Without a call before it, it is a whole turn by itself.</summary>
public sealed record TurnTaken(Guid Student, TurnOutcome Outcome, TurnOrigin Origin) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => Outcome is TurnOutcome.Full or TurnOutcome.Partial or TurnOutcome.Pass;
}

/// <summary>A point that everyone is asked to speak to was covered in the turn of a student.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Point">The id of the point in the plan.</param>
public sealed record PointCovered(Guid Student, Guid Point) : StudentAct(Student);

/// <summary>A student cannot speak today, so the draw passes them over and speaking is not counted; or can again.</summary>
public sealed record SpeakingPaused(Guid Student, bool Paused) : StudentAct(Student);

/// <summary>The whole class answered one statement at once, by an agreed gesture.</summary>
/// <param name="Statement">The statement.</param>
/// <param name="Answered">Who answered.</param>
/// <param name="Silent">Who was there and did not.</param>
/// <param name="LedBy">The student who led it; null if the teacher did.</param>
public sealed record SignalRoundHeld(
    string Statement, IReadOnlyList<Guid> Answered, IReadOnlyList<Guid> Silent, Guid? LedBy = null) : Act;

/// <summary>The teacher looked round: those were there, everybody else was not.</summary>
/// <param name="Here">The ids of the students who were there.</param>
public sealed record RollCallTaken(IReadOnlyList<Guid> Here) : Act;

/// <summary>A contribution in the chat.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Kind">What the message was.</param>
/// <param name="Text">The message itself, when it is known.</param>
public sealed record ChatSaid(Guid Student, ChatKind Kind, string? Text) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>Something said of a message in the chat.</summary>
/// <param name="Message">The id of the entry of the message.</param>
public abstract record ChatAct(Guid Message) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>What a message was, by the sweep. The last word counts.</summary>
public sealed record ChatSorted(Guid Message, ChatKind Kind) : ChatAct(Message);

/// <summary>A message is not to be shown outside of settling any more. What it counts for stays.</summary>
public sealed record ChatHidden(Guid Message) : ChatAct(Message);

/// <summary>A question in the chat was answered, aloud or otherwise.</summary>
public sealed record ChatDealtWith(Guid Message) : ChatAct(Message);

/// <summary>A small credit with a reason.</summary>
public sealed record NodGiven(Guid Student, string Reason) : StudentAct(Student);

/// <summary>A private note about a student. Never scored, never shown to students.</summary>
public sealed record AsideNoted(Guid Student, string Text) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>Somebody tried to reach a student who was missing.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Channel">By what.</param>
/// <param name="Outcome">What came of it.</param>
/// <param name="Note">More in words; may be empty.</param>
public sealed record ContactTried(Guid Student, ContactChannel Channel, ContactOutcome Outcome, string Note) : StudentAct(Student);

/// <summary>A stage of the plan began, and the one before it ended.</summary>
/// <param name="Stage">The id of the stage in the plan.</param>
public sealed record StageMoved(Guid Stage) : Act;

/// <summary>A stage was given more time, or less.</summary>
/// <param name="Stage">The id of the stage in the plan.</param>
/// <param name="Minutes">How many minutes more; below zero for fewer. From −120 to 120.</param>
public sealed record StageExtended(Guid Stage, int Minutes) : Act;

/// <summary>The time for a task began to run, in place of one before for the same.</summary>
/// <param name="Seconds">How long it runs, from 5 s to 3 h.</param>
/// <param name="Task">What is to be done; may be empty.</param>
/// <param name="Group">The group it is for; null for the whole class.</param>
public sealed record TimerStarted(int Seconds, string Task, Guid? Group = null) : Act;

/// <summary>The time for a task was ended before it ran out, or was put away after.</summary>
/// <param name="Group">The group it was for; null for the whole class.</param>
public sealed record TimerStopped(Guid? Group = null) : Act;

/// <summary>The class was split into groups, in place of any before.</summary>
public sealed record GroupsMade(IReadOnlyList<StudentGroup> Groups) : Act;

/// <summary>A student came into a group, from none or from another; or, with null, is in none any more.</summary>
public sealed record GroupJoined(Guid Student, Guid? Group) : StudentAct(Student);

/// <summary>A group was given another name.</summary>
public sealed record GroupRenamed(Guid Group, string Name) : Act;

/// <summary>The groups came back together.</summary>
public sealed record GroupsDissolved : Act;

/// <summary>The teacher sat in on a group and saw what this member did there.</summary>
public sealed record SatIn(Guid Student, Guid Group, Contribution Contribution) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A question was opened. It is copied whole, so that nothing can change what was asked.</summary>
/// <param name="Question">The question, its blanks filled in.</param>
/// <param name="Group">The group it goes to; null for the whole class.</param>
/// <param name="CopyOf">The id of the entry that opened it before, if it is asked again.</param>
/// <param name="LongerFor">Students who have extra time.</param>
/// <param name="LongerSeconds">How much extra time they have, from 0 to 3,600 s.</param>
public sealed record QuestionOpened(
    Question Question, Guid? Group, Guid? CopyOf, IReadOnlyList<Guid> LongerFor, int LongerSeconds) : Act;

/// <summary>A question was closed: from here on only the teacher enters answers.</summary>
/// <param name="Asking">The id of the entry that opened it.</param>
public sealed record QuestionClosed(Guid Asking) : Act;

/// <summary>A student answered a question, or the teacher did for them. The latest counts.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Answer">What they answered.</param>
public sealed record AnswerGiven(Guid Student, Guid Asking, Answer Answer) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>A student cannot answer a question, so it does not count for them.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Asking">The id of the entry that opened the question.</param>
public sealed record CannotAnswer(Guid Student, Guid Asking) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>
/// An anonymous question was closed and its answers were counted. Answers and students each stand in an order of their own, which says nothing
/// of when anybody answered.
/// </summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Cast">How many answered.</param>
/// <param name="Answers">What they answered; empty if fewer than <see cref="Asking.FewestAnonymous"/> did.</param>
/// <param name="TookPart">Who answered, if that counts; else empty.</param>
public sealed record BallotsCounted(Guid Asking, int Cast, IReadOnlyList<Answer> Answers, IReadOnlyList<Guid> TookPart) : Act;

/// <summary>The teacher marked short texts.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Students">Whose.</param>
/// <param name="Marks">From 0 to 1.</param>
public sealed record AnswersMarked(Guid Asking, IReadOnlyList<Guid> Students, decimal Marks) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>The key of a question was wrong; this is the right one. All its answers are marked anew.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Right">The options that are right; of a ranking all, in the right order.</param>
/// <param name="Target">As in <see cref="Question.Target"/>.</param>
/// <param name="Tolerance">As in <see cref="Question.Tolerance"/>.</param>
/// <param name="AcceptedAnswers">As in <see cref="Question.AcceptedAnswers"/>.</param>
public sealed record KeyCorrected(
    Guid Asking, IReadOnlyList<Guid> Right, decimal? Target, decimal Tolerance, IReadOnlyList<string> AcceptedAnswers) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <summary>The question with this key.</summary>
    public Question In(Question question) => question with
    {
        Options = question.Kind == QuestionKind.Ranking
            ? [.. question.Options.OrderBy(o => Right.ToList().IndexOf(o.Id))]
            : [.. question.Options.Select(o => o with { Right = Right.Contains(o.Id) })],
        Target = Target,
        Tolerance = Tolerance,
        AcceptedAnswers = AcceptedAnswers,
    };
}

/// <summary>Two words of a word list are one.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Word">The word, folded.</param>
/// <param name="Into">The word it counts as, folded.</param>
public sealed record WordsMerged(Guid Asking, string Word, string Into) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>What was right is shown to students on their own page.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
public sealed record RightRevealed(Guid Asking) : Act;

/// <summary>Results were put up on the class board, in place of any before.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="WithRight">Whether it shows what was right.</param>
/// <param name="HoldBackFew">Whether counts from 1 to 2 are held back.</param>
/// <param name="Named">Students whose answer is shown with their name, each chosen.</param>
public sealed record ResultsPut(Guid Asking, bool WithRight, bool HoldBackFew, IReadOnlyList<Guid> Named) : Act;

/// <summary>A student gave a signal of the class while a statement was up.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Signal">What it means, as the class has agreed.</param>
public sealed record SignalGiven(Guid Student, string Signal) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A student wrote from their page. It stays between them and the teacher until it is shown.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Kind">What they say it is: a question, an answer or an idea.</param>
/// <param name="Text">The message.</param>
public sealed record StudentWrote(Guid Student, ChatKind Kind, string Text) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A message from a student page is shown to the class.</summary>
/// <param name="Message">The id of the entry of the message.</param>
/// <param name="WithoutName">Whether the class is not to see who wrote it.</param>
public sealed record MessageShown(Guid Message, bool WithoutName = false) : ChatAct(Message);

/// <summary>A student opened their page: the first of their windows.</summary>
public sealed record PageOpened(Guid Student) : StudentAct(Student);

/// <summary>The last window of a student's page was closed.</summary>
public sealed record PageClosed(Guid Student) : StudentAct(Student);

/// <summary>Somebody came to the student page with the code of the lesson and a name.</summary>
/// <param name="Session">Tells apart who came.</param>
/// <param name="Name">The name they gave.</param>
public sealed record PageKnocked(Guid Session, string Name) : Act;

/// <summary>The teacher said who came to the student page.</summary>
/// <param name="Session">Who came.</param>
/// <param name="Student">The student they are; null to turn them away.</param>
public sealed record PageAdmitted(Guid Session, Guid? Student) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>Something was put up on the class board.</summary>
/// <param name="Item">What.</param>
/// <param name="Text">Its words, where they do not follow from the lesson: the statement of a signal round.</param>
public sealed record BoardPut(BoardItem Item, string? Text = null) : Act;

/// <summary>Something was taken down from the class board.</summary>
public sealed record BoardTaken(BoardItem Item) : Act;

/// <summary>A reminder of the class was seen to.</summary>
/// <param name="Reminder">Its line, as it stands in the ground rules.</param>
public sealed record ReminderTicked(string Reminder) : Act;

/// <summary>An act about a name shown in the meeting, whoever that may be.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
public abstract record NameAct(string Name) : Act
{
    /// <summary>As in <see cref="StudentAct.ShowsPresence"/>.</summary>
    public virtual bool ShowsPresence => false;
}

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

/// <summary>Whose name this is will be asked later: it leaves the door list for the end of it.</summary>
public sealed record AskedLater(string Name) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;
}

/// <summary>Somebody in the meeting changed the name that it shows. They stay one person.</summary>
/// <param name="Name">The name shown until now.</param>
/// <param name="To">The name shown from now on.</param>
/// <param name="Device">As in <see cref="Joined"/>.</param>
public sealed record Renamed(string Name, string To, string Device) : NameAct(Name);

/// <summary>The hand of a name went up in the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Ready">As in <see cref="HandRaised"/>.</param>
public sealed record NameRaisedHand(string Name, bool Ready = false) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>The hand of a name went down in the meeting.</summary>
public sealed record NameLoweredHand(string Name, HandEnd End) : NameAct(Name);

/// <summary>A name wrote in the chat of the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Text">The message.</param>
/// <param name="Private">True if only the teacher could read it.</param>
public sealed record NameWrote(string Name, string Text, bool Private) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>A name sent a reaction. It shows that somebody was there, and counts for nothing.</summary>
public sealed record NameReacted(string Name, string Reaction) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;
}

/// <summary>Whether a name was to be seen online, somewhere else than in the meeting.</summary>
public sealed record NameOnline(string Name, OnlineStatus Status) : NameAct(Name);

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

/// <summary>Whether somebody is to be seen online.</summary>
public enum OnlineStatus
{
    /// <summary>Online.</summary>
    Online,

    /// <summary>Online, and not at the machine.</summary>
    Away,

    /// <summary>Not online.</summary>
    Offline,
}

/// <summary>What can stand on the class board. It can show nothing else.</summary>
public enum BoardItem
{
    /// <summary>The directions of the current stage.</summary>
    Directions,

    /// <summary>The current stage and how much of its time is left.</summary>
    Stage,

    /// <summary>The time for the task.</summary>
    Timer,

    /// <summary>Whose turn it is.</summary>
    Turn,

    /// <summary>The hand line.</summary>
    HandLine,

    /// <summary>The signals that the class has agreed on.</summary>
    Signals,

    /// <summary>The rubric.</summary>
    Rubric,

    /// <summary>The statement of a signal round, with a count-in.</summary>
    Statement,

    /// <summary>Who is in which group.</summary>
    Groups,

    /// <summary>Questions that are open to the whole class.</summary>
    Question,

    /// <summary>Results of one question.</summary>
    Results,

    /// <summary>The way to the student page, with the code of the lesson.</summary>
    WayIn,

    /// <summary>Messages from student pages that are shown.</summary>
    Messages,
}
