using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;

namespace PoliteTally.Core.Scoring;

/// <summary>How a class scores. Every weight, target and cap of the rules stands here, with its default, and nowhere else.</summary>
public sealed record Scheme
{
    /// <summary>The defaults.</summary>
    public static readonly Scheme Default = new();

    /// <summary>How attendance is counted.</summary>
    public AttendancePolicy Attendance { get; init; } = AttendancePolicy.Default;

    /// <summary>Weight of each strand, from zero up. Attendance 2, speaking 3, questions 3, chat 1, group work 1.</summary>
    public IReadOnlyDictionary<Strand, decimal> Weights { get; init; } = new Dictionary<Strand, decimal>
    {
        [Strand.Attendance] = 2,
        [Strand.Speaking] = 3,
        [Strand.Questions] = 3,
        [Strand.Chat] = 1,
        [Strand.GroupWork] = 1,
    };

    /// <summary>Turn credits for a full speaking strand. 1, above zero.</summary>
    public decimal SpeakingTarget { get; init; } = 1;

    /// <summary>What a hand that was raised and never called earns, once. 0.5.</summary>
    public decimal UncalledHand { get; init; } = 0.5m;

    /// <summary>What a signal round answered earns, up to 1 in all. 0.25.</summary>
    public decimal SignalAnswered { get; init; } = 0.25m;

    /// <summary>Whether an open hand line from which anybody was called is a chance for all who were there then. On.</summary>
    public bool OpenLineIsChance { get; init; } = true;

    /// <summary>What a contribution in the chat earns for speaking, of what is missing to a full turn; from 0 to 1. 0.25.</summary>
    public decimal WrittenStandsIn { get; init; } = 0.25m;

    /// <summary>The most that all of them earn for speaking, of what is missing to a full turn; from 0 to 1. 0.5.</summary>
    public decimal WrittenAtMost { get; init; } = 0.5m;

    /// <summary>How much marks weigh in the questions strand against answering at all. 0.5, from 0 to 1.</summary>
    public decimal MarksShare { get; init; } = 0.5m;

    /// <summary>What a signal given outside of a signal round earns for speaking, from 0 to 1; all of them together at most 1. 0: it is not counted.</summary>
    public decimal SignalGiven { get; init; }

    /// <summary>Whether contributions in the chat count. If not, the chat strand gives nobody a chance, and nothing written stands in for speaking. On.</summary>
    public bool ChatCounts { get; init; } = true;

    /// <summary>Chat credits for a full chat strand. 2, above zero.</summary>
    public decimal ChatTarget { get; init; } = 2;

    /// <summary>What a full turn earns for the chat, in contributions; from 0 to 1. 0.5.</summary>
    public decimal TurnInChat { get; init; } = 0.5m;

    /// <summary>The most that all of them earn for the chat, as a share of its target; from 0 to 1. 0.5.</summary>
    public decimal TurnsInChatAtMost { get; init; } = 0.5m;

    /// <summary>What one nod adds to the score, in points. 1.</summary>
    public decimal NodPoints { get; init; } = 1;

    /// <summary>The most that nods add to the score, in points. 5.</summary>
    public decimal NodsAtMost { get; init; } = 5;

    /// <summary>Whether an absence without excuse scores 0 in every strand instead of leaving out all but attendance. Off.</summary>
    public bool AbsenceScoresZero { get; init; }

    /// <summary>How many of the lowest lessons a term leaves out. 0.</summary>
    public int LowestLeftOut { get; init; }

    /// <summary>Whether every lesson of a term weighs the same instead of by its planned minutes. Off.</summary>
    public bool LessonsWeighTheSame { get; init; }

    /// <summary>Fewer scored lessons than this, after the lowest were left out, give no term score yet. 3.</summary>
    public int LessonsForTerm { get; init; } = 3;

    /// <summary>What a turn earns by its outcome; null if it is not counted.</summary>
    public static decimal? CreditOf(TurnOutcome? outcome) => outcome switch
    {
        TurnOutcome.Full => 1,
        TurnOutcome.Partial => 0.5m,
        TurnOutcome.Pass => 0,
        // Nobody said how it went, or it could not go: neither is the student's doing.
        _ => null,
    };

    /// <summary>What a message earns by its kind.</summary>
    public static decimal CreditOf(ChatKind kind) => kind switch
    {
        ChatKind.Question or ChatKind.Answer or ChatKind.Idea => 1,
        _ => 0,
    };

    /// <summary>What a contribution in a group earns.</summary>
    public static decimal CreditOf(Contribution contribution) => contribution switch
    {
        Contribution.Contributed => 1,
        Contribution.Some => 0.5m,
        _ => 0,
    };
}
