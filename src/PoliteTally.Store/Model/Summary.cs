namespace PoliteTally.Store.Model;

/// <summary>One student in one settled lesson: what term screens read instead of the ledger.</summary>
public sealed class Summary : IOwned
{
    public Guid LessonId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }
    public Core.Attendance.AttendanceStatus Status { get; init; }
    public Core.Attendance.KnownBy KnownBy { get; init; }

    /// <summary>What stands beside the status, in plain words.</summary>
    public required string Notes { get; init; }
    public int PresentSeconds { get; init; }
    public int CountedSeconds { get; init; }

    /// <summary>0 to 100, unrounded; null if the lesson does not count for the student.</summary>
    public decimal? Score { get; init; }

    /// <summary>The weight of the strands that the score rests on, and of all strands.</summary>
    public decimal RestsOn { get; init; }
    public decimal Whole { get; init; }

    // What follows is the tally of the lesson: all that a score rests on, counted.
    public decimal MeasuredShare { get; init; }
    public bool HasExcuse { get; init; }
    public int Dropouts { get; init; }
    public int FullTurns { get; init; }
    public int PartialTurns { get; init; }
    public int Passes { get; init; }
    public int TurnsNotCounted { get; init; }
    public bool HandNeverCalled { get; init; }
    public bool LineWasOpen { get; init; }
    public int SignalRounds { get; init; }
    public int SignalsAnswered { get; init; }
    public int SignalsGiven { get; init; }
    public bool SpeakingPaused { get; init; }
    public int Asked { get; init; }
    public int Answered { get; init; }
    public decimal MarksGot { get; init; }
    public decimal MarksPossible { get; init; }
    public int ChatQuestions { get; init; }
    public int ChatAnswers { get; init; }
    public int ChatIdeas { get; init; }
    public int ChatNotSwept { get; init; }
    public int SitIns { get; init; }
    public decimal GroupCredits { get; init; }
    public int Nods { get; init; }

    /// <summary>Criteria that were marked, and corrections, as JSON; null where there are none.</summary>
    public string? Marks { get; init; }
    public string? Corrections { get; init; }

    /// <summary>Stretches of presence and moments of speaking, for the ribbon: JSON of numbers from 0 to 1.</summary>
    public required string Ribbon { get; init; }

    public Lesson? Lesson { get; init; }
    public Student? Student { get; init; }
}
