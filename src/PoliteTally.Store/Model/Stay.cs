using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A stretch of time in which a student was in a class. What they did stays theirs when it is over.</summary>
public sealed class Stay : IOwned
{
    public Guid ClassId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>When the student came into the class.</summary>
    public Instant From { get; init; }

    /// <summary>When the student left it; null while they are in it.</summary>
    public Instant? To { get; set; }
}
