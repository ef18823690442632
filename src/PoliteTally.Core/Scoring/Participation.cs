using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Scoring;

/// <summary>What a student contributed in a group, as the teacher saw it.</summary>
/// <param name="Credit">Contributed 1, some 0.5, not 0.</param>
/// <param name="Entry">The entry it rests on.</param>
public sealed record SitIn(decimal Credit, Guid Entry);

/// <summary>A signal round, from the point of view of one student who was there.</summary>
/// <param name="Answered">Whether they answered.</param>
/// <param name="Entry">The entry it rests on.</param>
public sealed record SignalRound(bool Answered, Guid Entry);

/// <summary>All that a score of one student in one lesson rests on.</summary>
public sealed record Participation
{
    /// <summary>Whether nobody had to come to the lesson: it has no score.</summary>
    public bool IsDropIn { get; init; }

    /// <summary>Attendance.</summary>
    public required AttendanceResult Attendance { get; init; }

    /// <summary>Their turns.</summary>
    public IReadOnlyList<Turn> Turns { get; init; } = [];

    /// <summary>Their hands.</summary>
    public IReadOnlyList<Hand> Hands { get; init; } = [];

    /// <summary>Whether anybody was called from the hand line while they were there, or while they missed it by coming late or leaving early.</summary>
    public bool LineWasOpen { get; init; }

    /// <summary>Signal rounds that they were in, or missed by coming late or leaving early.</summary>
    public IReadOnlyList<SignalRound> SignalRounds { get; init; } = [];

    /// <summary>Signals that they gave of their own accord, outside of signal rounds.</summary>
    public IReadOnlyList<Guid> SignalsGiven { get; init; } = [];

    /// <summary>The entry that says that they cannot speak today; null if they can.</summary>
    public Guid? SpeakingPausedBy { get; init; }

    /// <summary>Questions that count for them.</summary>
    public IReadOnlyList<QuestionChance> Questions { get; init; } = [];

    /// <summary>Their contributions in the chat.</summary>
    public IReadOnlyList<(ChatKind Kind, Guid Entry)> Chat { get; init; } = [];

    /// <summary>How many messages of theirs no sweep has looked at: they count for nothing until one has.</summary>
    public int ChatNotSwept { get; init; }

    /// <summary>Sit-ins in which they were seen.</summary>
    public IReadOnlyList<SitIn> SitIns { get; init; } = [];

    /// <summary>Criteria by which the teacher judged them.</summary>
    public IReadOnlyCollection<CriterionMark> Marks { get; init; } = [];

    /// <summary>What the teacher put right by hand.</summary>
    public IReadOnlyCollection<Correction> Corrections { get; init; } = [];

    /// <summary>Their nods.</summary>
    public IReadOnlyList<Guid> Nods { get; init; } = [];
}
