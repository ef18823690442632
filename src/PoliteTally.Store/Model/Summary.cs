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

    /// <summary>Whether the score rests on less than half of the scheme.</summary>
    public bool RestsOnLittle => Score is not null && RestsOn * 2 < Whole;

    /// <summary>All that the score rests on, counted, as JSON: what is nothing is left out.</summary>
    public required string Tally { get; init; }

    /// <summary>Stretches of presence and moments of speaking, for the ribbon: JSON of numbers from 0 to 1.</summary>
    public required string Ribbon { get; init; }

    public Lesson? Lesson { get; init; }
    public Student? Student { get; init; }
}
