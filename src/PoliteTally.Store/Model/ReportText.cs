using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A part of a report that the teacher put in other words.</summary>
public sealed class ReportText : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid ClassId { get; init; }

    /// <summary>Which report of the class it is, with its days and its reader; made by the program.</summary>
    public required string Report { get; init; }

    /// <summary>Which part of it.</summary>
    public required string Part { get; init; }
    public required string Text { get; set; }

    /// <summary>What the program wrote when it was edited: where that is another now, the edit may be out of date.</summary>
    public required string Instead { get; set; }
    public Instant At { get; set; }
    public SchoolClass? Class { get; init; }
}

/// <summary>A report that went to somebody.</summary>
public sealed class SentReport : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid ClassId { get; init; }
    public Guid StudentId { get; init; }

    /// <summary>The address it went to.</summary>
    public required string To { get; init; }

    /// <summary>Which days it was about, in words.</summary>
    public required string About { get; init; }
    public Instant At { get; init; }

    /// <summary>Why it did not go; empty if it did.</summary>
    public required string Problem { get; init; }
    public SchoolClass? Class { get; init; }
    public Student? Student { get; init; }
}
