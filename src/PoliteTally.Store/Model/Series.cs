using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>Lessons that come back every week, or every few weeks. Each is a row of its own; this says how they were made.</summary>
public sealed class Series : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid ClassId { get; init; }
    public required string Title { get; set; }

    /// <summary>ISO days of the week, from 1 for Monday, separated by commas.</summary>
    public required string Days { get; set; }

    /// <summary>Every how many weeks, from 1 up.</summary>
    public int EveryWeeks { get; set; } = 1;
    public LocalTime Time { get; set; }
    public int Minutes { get; set; }
    public LocalDate FirstDay { get; set; }
    public LocalDate LastDay { get; set; }

    /// <summary>Days that were taken out of it, in ISO form, separated by commas.</summary>
    public string Except { get; set; } = "";
    public bool DropIn { get; set; }
    public string? MeetingLink { get; set; }
    public SchoolClass? Class { get; init; }
}
