using NodaTime;

namespace PoliteTally.Core.Ledger;

/// <summary>When a lesson was meant to be, and when it was.</summary>
/// <param name="PlannedStart">Planned start.</param>
/// <param name="PlannedEnd">Planned end, not before the planned start.</param>
/// <param name="ActualStart">Actual start, if it began.</param>
/// <param name="ActualEnd">Actual end, if it ended.</param>
/// <param name="DropIn">True of a lesson that nobody has to come to.</param>
public sealed record LessonTimes(
    Instant PlannedStart, Instant PlannedEnd, Instant? ActualStart, Instant? ActualEnd, bool DropIn)
{
    /// <summary>Begun so long before its time a lesson counts from when it began. 15 min.</summary>
    public static readonly Duration BegunEarly = Duration.FromMinutes(15);

    /// <summary>
    /// R, from which attendance counts: coming early earns nothing, and nobody is late for a lesson that began late. One that began more than
    /// <see cref="BegunEarly"/> before its time, or was over before it, counts from when it began.
    /// </summary>
    public Instant CountedFrom => ActualStart is not { } actual ? PlannedStart : IsMoved ? actual : Instant.Max(PlannedStart, actual);

    /// <summary>
    /// E, to which attendance counts: running over harms nobody. Never before R. A lesson that began long before its time counts for its planned
    /// length.
    /// </summary>
    public Instant CountedTo
    {
        get
        {
            var end = IsMoved ? CountedFrom + (PlannedEnd - PlannedStart) : PlannedEnd;
            return Instant.Max(CountedFrom, ActualEnd is { } actual ? Instant.Min(actual, end) : end);
        }
    }

    /// <summary>When it began; when it was to begin, if it did not.</summary>
    public Instant HeldFrom => ActualStart ?? PlannedStart;

    /// <summary>When it ended; when it is to end, if it has not.</summary>
    public Instant HeldTo => ActualEnd ?? PlannedEnd;

    private bool IsMoved => ActualStart < PlannedStart - BegunEarly || (ActualStart < PlannedStart && ActualEnd <= PlannedStart);
}
