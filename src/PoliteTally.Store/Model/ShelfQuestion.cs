using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A question kept for use in any lesson.</summary>
public sealed class ShelfQuestion : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>The question as JSON.</summary>
    public required string Question { get; set; }
    public Instant KeptAt { get; set; }
}
