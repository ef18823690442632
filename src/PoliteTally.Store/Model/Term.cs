using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A term of the school, with the days on which there are no lessons.</summary>
public sealed class Term : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public required string Name { get; set; }
    public LocalDate FirstDay { get; set; }
    public LocalDate LastDay { get; set; }

    /// <summary>Days off as JSON: a list of name, first and last day.</summary>
    public string DaysOff { get; set; } = "[]";
}
