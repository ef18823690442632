using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
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
    /// <summary>Attendance.</summary>
    public required AttendanceResult Attendance { get; init; }

    /// <summary>Their turns.</summary>
    public IReadOnlyList<Turn> Turns { get; init; } = [];

    /// <summary>Their hands.</summary>
    public IReadOnlyList<Hand> Hands { get; init; } = [];

    /// <summary>Whether anybody at all was called from the hand line.</summary>
    public bool AnybodyCalledFromLine { get; init; }

    /// <summary>Signal rounds of the lesson.</summary>
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

    /// <summary>Whether the lesson had a chat that counts.</summary>
    public bool ChatOpen { get; init; } = true;

    /// <summary>Sit-ins in which they were seen.</summary>
    public IReadOnlyList<SitIn> SitIns { get; init; } = [];

    /// <summary>Their nods.</summary>
    public IReadOnlyList<Guid> Nods { get; init; } = [];

    /// <summary>What the ledger of a lesson says of a student.</summary>
    /// <param name="state">The lesson.</param>
    /// <param name="student">The id of the student.</param>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="scheme">How the class scores.</param>
    /// <param name="chatCounts">Whether contributions in the chat count.</param>
    public static Participation From(LessonState state, Guid student, LessonTimes times, Scheme scheme, bool chatCounts = true)
    {
        var attendance = state.AttendanceOf(student, times, scheme.Attendance);
        var chat = state.Chat.Of(student);
        return new Participation
        {
            Attendance = attendance,
            Questions = [.. state.Questions.All.Select(a => a.ChanceOf(student, attendance, scheme.Attendance.Bridge, state.Groups)).OfType<QuestionChance>()],
            ChatOpen = chatCounts,
            Turns = [.. state.HandLine.Turns.Where(t => t.Student == student)],
            Hands = [.. state.HandLine.Hands.Where(h => h.Student == student)],
            AnybodyCalledFromLine = state.HandLine.Turns.Any(t => t.Origin == TurnOrigin.Hand),
            SignalRounds = [.. state.Signals.RoundsOf(student).Select(r => new SignalRound(r.Answered, r.Entry))],
            SignalsGiven = state.Signals.OfOwnAccord(student),
            SpeakingPausedBy = state.HandLine.PausedBy(student),
            Chat = [.. chat.Select(c => (c.CountsAs, c.Entry))],
            ChatNotSwept = chat.Count(c => c.IsToSweep),
            SitIns = [.. state.Groups.SitInsOf(student).Select(s => new SitIn(Scheme.CreditOf(s.Seen.Contribution), s.Entry.Id))],
            Nods = [.. state.Notes.NodsOf(student).Select(n => n.Entry.Id)],
        };
    }
}
