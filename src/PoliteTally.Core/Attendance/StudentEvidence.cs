using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>All that says where one student was in a lesson.</summary>
/// <param name="Sightings">Joins, leaves, acts and pages, in any order; those of which the teacher said that they show nothing are left out.</param>
/// <param name="Marks">The teacher's marks and roll calls, in order.</param>
public sealed record StudentEvidence(IReadOnlyList<Sighting> Sightings, IReadOnlyList<MarkMade> Marks)
{
    /// <summary>The teacher's word on the status, if there is one.</summary>
    public DeclaredStatus? Declared { get; init; }

    /// <summary>An excuse for the lesson, if there is one.</summary>
    public ExcuseGiven? Excuse { get; init; }

    /// <summary>The teacher's words on whether they were there at a time, in the order said.</summary>
    public IReadOnlyList<AwayWord> AwayWords { get; init; } = [];

    /// <summary>When they were sent out, in order.</summary>
    public IReadOnlyList<TimeOut> TimesOut { get; init; } = [];

    /// <summary>What the teacher says that the connection was to blame for, each with the entry that says so.</summary>
    public IReadOnlyDictionary<MissedBy, Guid> LineFailed { get; init; } = new Dictionary<MissedBy, Guid>();

    /// <summary>The teacher's last word on a moment; null if none was said.</summary>
    public AwayWord? AwayWordOn(Instant at) => AwayWords.LastOrDefault(w => w.From <= at && at <= w.To);
}

/// <summary>What a connection that failed made somebody miss.</summary>
public enum MissedBy
{
    /// <summary>Coming in time.</summary>
    ComingLate,

    /// <summary>Staying to the end.</summary>
    LeavingEarly,

    /// <summary>Time between.</summary>
    Dropouts,
}
