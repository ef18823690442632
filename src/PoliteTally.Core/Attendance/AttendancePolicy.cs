using NodaTime;

namespace PoliteTally.Core.Attendance;

/// <summary>How attendance earns credit.</summary>
public enum CreditBy
{
    /// <summary>Present 1, late 0.75, absent 0.</summary>
    Status,

    /// <summary>The share of the lesson, full from <see cref="AttendancePolicy.EnoughShare"/> on.</summary>
    Share,
}

/// <summary>How a class counts attendance. Every threshold of the rules stands here, with its default, and nowhere else.</summary>
public sealed record AttendancePolicy
{
    /// <summary>What somebody does so close to joining or leaving belongs to it, for clocks differ. 45 s, as two sources tell of one act.</summary>
    public static readonly Duration Near = Duration.FromSeconds(45);

    /// <summary>The defaults.</summary>
    public static readonly AttendancePolicy Default = new();

    /// <summary>Arriving later than this is late. 5 min.</summary>
    public Duration LateAfter { get; init; } = Duration.FromMinutes(5);

    /// <summary>Whether somebody can be late for a drop-in lesson, which nobody has to come to. No.</summary>
    public bool LateInDropIn { get; init; }

    /// <summary>Leaving more than this before the end is leaving early. 5 min.</summary>
    public Duration LeftEarlyBefore { get; init; } = Duration.FromMinutes(5);

    /// <summary>A dropout of at most this is bridged: its time counts as present. 2 min.</summary>
    public Duration Bridge { get; init; } = Duration.FromMinutes(2);

    /// <summary>Less presence than this is absent, if <see cref="AbsentBelowShare"/> of the time is not smaller still. 5 min.</summary>
    public Duration AbsentBelow { get; init; } = Duration.FromMinutes(5);

    /// <summary>See <see cref="AbsentBelow"/>. 0.10, from 0 to 1.</summary>
    public decimal AbsentBelowShare { get; init; } = 0.10m;

    /// <summary>Below this share a student was there only partly. 0.75, above 0 and up to 1.</summary>
    public decimal EnoughShare { get; init; } = 0.75m;

    /// <summary>Credit of a student who came late. 0.75, from 0 to 1.</summary>
    public decimal LateCredit { get; init; } = 0.75m;

    /// <summary>Credit of a student who left early. 0.75, from 0 to 1; who came late besides has what both leave together.</summary>
    public decimal LeftEarlyCredit { get; init; } = 0.75m;

    /// <summary>
    /// Whether what was asked before a student came and after they left, without an excuse, counts as asked and not answered. Yes: else being there for less would pay.
    /// </summary>
    public bool MissedCounts { get; init; } = true;

    /// <summary>How attendance earns credit. By status.</summary>
    public CreditBy CreditBy { get; init; } = CreditBy.Status;
}
