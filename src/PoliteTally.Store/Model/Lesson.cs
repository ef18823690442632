using NodaTime;

namespace PoliteTally.Store.Model;

public sealed class Lesson : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid ClassId { get; init; }

    /// <summary>Counts the lessons of a class from 1: those that have begun, then the planned ones in the order of their starts. 0 for a cancelled one.</summary>
    public int Number { get; set; }
    public required string Title { get; set; }
    public Instant PlannedStart { get; set; }
    public Instant PlannedEnd { get; set; }
    public bool DropIn { get; set; }

    /// <summary>The way into the meeting: an http or https address.</summary>
    public string? MeetingLink { get; set; }
    public Guid? SeriesId { get; set; }

    /// <summary>The day of the series that this lesson stands for, wherever it was moved; null of a lesson of no series, or from before this was kept.</summary>
    public LocalDate? SeriesDay { get; set; }

    /// <summary>True of a lesson of a series that was moved by itself: changes of the series leave it where it is.</summary>
    public bool Moved { get; set; }

    /// <summary>Which event of an imported calendar it is: UID and the day of the occurrence.</summary>
    public string? CalendarUid { get; set; }
    public Instant? CancelledAt { get; set; }

    /// <summary>What of the ground rules differs from those of the class, as JSON.</summary>
    public string Rules { get; set; } = "{}";

    /// <summary>
    /// The code of its student page; null until somebody asked for it. It is an address and opens nothing by itself, so it is kept as it is.
    /// </summary>
    public string? Code { get; set; }

    /// <summary>Whether anything is planned for it: then there is a <see cref="LessonPlan"/>.</summary>
    public bool Prepared { get; set; }

    /// <summary>Counts the changes of the plan, so that two windows notice each other.</summary>
    public int PlanVersion { get; set; }

    // What follows is read off the ledger, in the transaction that stores the entry that changes it.
    public LessonStage Stage { get; set; }
    public Instant? ActualStart { get; set; }
    public Instant? ActualEnd { get; set; }

    /// <summary>Whether its summaries are to be reckoned anew: something they rest on was changed, and the program has not come to it yet.</summary>
    public bool ReckonAgain { get; set; }

    /// <summary>Whether what it tells of its students is kept in words (<see cref="LookBackRow"/>), and nothing was noted since. Only of a settled lesson.</summary>
    public bool LookBackKept { get; set; }

    /// <summary>When the lesson was settled for the first time: whoever joined the class later is not on its roster.</summary>
    public Instant? RosterClosedAt { get; set; }

    /// <summary>The version of the scheme that was the newest when the lesson was settled for the first time; null before.</summary>
    public int? SettledWith { get; set; }

    /// <summary>The version that it is scored by; null while that is always the newest.</summary>
    public int? ScoredBy { get; set; }

    public SchoolClass? Class { get; init; }
    public LessonPlan? Plan { get; set; }
}

public enum LessonStage
{
    Planned,
    Live,
    Ended,
    Settled,
}
