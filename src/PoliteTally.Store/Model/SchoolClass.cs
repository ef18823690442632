using NodaTime;

namespace PoliteTally.Store.Model;

public sealed class SchoolClass : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public required string Name { get; set; }
    public Instant MadeAt { get; init; }
    public Guid? TermId { get; set; }

    /// <summary>When the class was put away; null while it is in use.</summary>
    public Instant? ArchivedAt { get; set; }

    /// <summary>Its ground rules as JSON: what differs from the defaults.</summary>
    public string Rules { get; set; } = "{}";
    public Term? Term { get; init; }
}
