using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Scoring;

/// <summary>
/// What a student did in a lesson and had a chance to do, counted: all that a score rests on but the entries themselves. It is kept with a settled lesson, so that another
/// scheme can be tried over a whole term without reading its ledgers. It holds for schemes that see attendance alike (<see cref="CountsAlike"/>).
/// </summary>
public sealed record Tally
{
    private static readonly Turn AnyTurn = new(Guid.Empty, TurnOrigin.Invited, default, null, null, []);
    private static readonly Hand AnyHand = new(Guid.Empty, default, Guid.Empty, HandStage.Up);

    /// <summary>Whether nobody had to come to the lesson.</summary>
    public bool IsDropIn { get; init; }

    /// <summary>The status in the register.</summary>
    public AttendanceStatus Status { get; init; }

    /// <summary>How it is known.</summary>
    public KnownBy KnownBy { get; init; }

    /// <summary>The share of the lesson that was measured, what is excused counted as there; from 0 to 1, 0 if none was.</summary>
    public decimal MeasuredShare { get; init; }

    /// <summary>Whether the time was measured, and the teacher has not said what the status is.</summary>
    public bool IsMeasured { get; init; }

    /// <summary>Whether they came late without an excuse.</summary>
    public bool LateCosts { get; init; }

    /// <summary>Whether they left early without an excuse.</summary>
    public bool LeftEarlyCosts { get; init; }

    /// <summary>Whether there is an excuse that counts.</summary>
    public bool HasExcuse { get; init; }

    /// <summary>How often they fell out of the meeting; it tells of the line and counts for nothing.</summary>
    public int Dropouts { get; init; }

    /// <summary>Full turns.</summary>
    public int FullTurns { get; init; }

    /// <summary>Partial turns.</summary>
    public int PartialTurns { get; init; }

    /// <summary>Turns that were passed on.</summary>
    public int Passes { get; init; }

    /// <summary>Turns that are not counted: they could not, or nobody said how it went.</summary>
    public int TurnsNotCounted { get; init; }

    /// <summary>Whether a hand of theirs was never called.</summary>
    public bool HandNeverCalled { get; init; }

    /// <summary>Whether they were there when anybody was called from the line.</summary>
    public bool LineWasOpen { get; init; }

    /// <summary>Signal rounds held while they were there.</summary>
    public int SignalRounds { get; init; }

    /// <summary>Those that they answered.</summary>
    public int SignalsAnswered { get; init; }

    /// <summary>Signals of their own accord.</summary>
    public int SignalsGiven { get; init; }

    /// <summary>Whether they could not speak.</summary>
    public bool SpeakingPaused { get; init; }

    /// <summary>Questions that count for them only because they missed them.</summary>
    public int AskedMissed { get; init; }

    /// <summary>Questions that count for them.</summary>
    public int Asked { get; init; }

    /// <summary>Those that they answered.</summary>
    public int Answered { get; init; }

    /// <summary>Marks they got.</summary>
    public decimal MarksGot { get; init; }

    /// <summary>Marks they could have got.</summary>
    public decimal MarksPossible { get; init; }

    /// <summary>Questions in the chat.</summary>
    public int ChatQuestions { get; init; }

    /// <summary>Answers in the chat.</summary>
    public int ChatAnswers { get; init; }

    /// <summary>Ideas in the chat.</summary>
    public int ChatIdeas { get; init; }

    /// <summary>Messages that no sweep has looked at.</summary>
    public int ChatNotSwept { get; init; }

    /// <summary>How often they were seen in a group.</summary>
    public int SitIns { get; init; }

    /// <summary>What they contributed there, added up.</summary>
    public decimal GroupCredits { get; init; }

    /// <summary>Nods.</summary>
    public int Nods { get; init; }

    /// <summary>Criteria by which the teacher judged them.</summary>
    public IReadOnlyCollection<CriterionMark> Marks { get; init; } = [];

    /// <summary>What the teacher put right by hand.</summary>
    public IReadOnlyCollection<Correction> Corrections { get; init; } = [];

    /// <summary>Turns that earned something. A method, for what is kept as JSON are the counts alone.</summary>
    public int Turns() => FullTurns + PartialTurns;

    /// <summary>Contributions in the chat: questions, answers and ideas.</summary>
    public int Contributions() => ChatQuestions + ChatAnswers + ChatIdeas;

    /// <summary>Counts what a student did.</summary>
    public static Tally Of(Participation did) => new()
    {
        IsDropIn = did.IsDropIn,
        Status = did.Attendance.Status,
        KnownBy = did.Attendance.KnownBy,
        MeasuredShare = did.Attendance.Worth.Share,
        IsMeasured = did.Attendance.Worth.IsMeasured,
        LateCosts = did.Attendance.Worth.LateCosts,
        LeftEarlyCosts = did.Attendance.Worth.LeftEarlyCosts,
        HasExcuse = did.Attendance.Reason is not null,
        Dropouts = did.Attendance.Dropouts,
        FullTurns = did.Turns.Count(t => t.Outcome == TurnOutcome.Full),
        PartialTurns = did.Turns.Count(t => t.Outcome == TurnOutcome.Partial),
        Passes = did.Turns.Count(t => t.Outcome == TurnOutcome.Pass),
        TurnsNotCounted = did.Turns.Count(t => Scheme.CreditOf(t.Outcome) is null),
        HandNeverCalled = did.Hands.Any(h => h.NeverCalled),
        LineWasOpen = did.LineWasOpen,
        SignalRounds = did.SignalRounds.Count,
        SignalsAnswered = did.SignalRounds.Count(r => r.Answered),
        SignalsGiven = did.SignalsGiven.Count,
        SpeakingPaused = did.SpeakingPausedBy is not null,
        Asked = did.Questions.Count,
        AskedMissed = did.Questions.Count(q => q.Missed),
        Answered = did.Questions.Count(q => q.Answered),
        MarksGot = did.Questions.Sum(q => q.Marks),
        MarksPossible = did.Questions.Sum(q => q.Possible),
        ChatQuestions = did.Chat.Count(c => c.Kind == ChatKind.Question),
        ChatAnswers = did.Chat.Count(c => c.Kind == ChatKind.Answer),
        ChatIdeas = did.Chat.Count(c => c.Kind == ChatKind.Idea),
        ChatNotSwept = did.ChatNotSwept,
        SitIns = did.SitIns.Count,
        GroupCredits = did.SitIns.Sum(s => s.Credit),
        Nods = did.Nods.Count,
        Marks = did.Marks,
        Corrections = did.Corrections,
    };

    /// <summary>
    /// The same, to be scored; without entries, and with questions and sit-ins that only add up to what they were.
    /// </summary>
    /// <param name="scheme">The scheme it is to be scored by.</param>
    public Participation ToScore(Scheme scheme) => new()
    {
        IsDropIn = IsDropIn,
        Attendance = new AttendanceResult(
            Status, KnownBy, Duration.Zero, Duration.Zero, MeasuredShare, null, null, AttendanceFlags.None, 0, [],
            new AttendanceWorth(Status, LateCosts, LeftEarlyCosts, MeasuredShare, IsMeasured).Credit(scheme.Attendance), HasExcuse ? "" : null, [], IsHere: false),
        Turns =
        [
            .. Times(FullTurns, AnyTurn with { Outcome = TurnOutcome.Full }), .. Times(PartialTurns, AnyTurn with { Outcome = TurnOutcome.Partial }),
            .. Times(Passes, AnyTurn with { Outcome = TurnOutcome.Pass }), .. Times(TurnsNotCounted, AnyTurn),
        ],
        Hands = HandNeverCalled ? [AnyHand] : [],
        LineWasOpen = LineWasOpen,
        SignalRounds = [.. Times(SignalsAnswered, new SignalRound(true, Guid.Empty)), .. Times(SignalRounds - SignalsAnswered, new SignalRound(false, Guid.Empty))],
        SignalsGiven = Times(SignalsGiven, Guid.Empty),
        SpeakingPausedBy = SpeakingPaused ? Guid.Empty : null,
        Questions = [.. Enumerable.Range(0, Asked).Select(i => new QuestionChance(i < Answered, i == 0 ? MarksGot : 0, i == 0 ? MarksPossible : 0, [], Missed: i >= Asked - AskedMissed))],
        Chat =
        [
            .. Times(ChatQuestions, (ChatKind.Question, Guid.Empty)), .. Times(ChatAnswers, (ChatKind.Answer, Guid.Empty)), .. Times(ChatIdeas, (ChatKind.Idea, Guid.Empty)),
        ],
        ChatNotSwept = ChatNotSwept,
        SitIns = [.. Enumerable.Range(0, SitIns).Select(i => new SitIn(i == 0 ? GroupCredits : 0, Guid.Empty))],
        Nods = Times(Nods, Guid.Empty),
        Marks = Marks,
        Corrections = Corrections,
    };

    /// <summary>
    /// Whether two ways of counting attendance see the same in a lesson, whatever they make of it: then one tally serves both. Bridges count, for a question is a chance
    /// only for who was there.
    /// </summary>
    public static bool CountsAlike(AttendancePolicy one, AttendancePolicy other) =>
        one == other with { LateCredit = one.LateCredit, LeftEarlyCredit = one.LeftEarlyCredit, CreditBy = one.CreditBy, EnoughShare = one.EnoughShare };

    private static T[] Times<T>(int count, T item)
    {
        var items = new T[count];
        Array.Fill(items, item);
        return items;
    }
}
