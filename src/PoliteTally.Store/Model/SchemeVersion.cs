using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A version of the scheme of a class. It is never changed: a change makes another one.</summary>
public sealed class SchemeVersion : IOwned
{
    public Guid ClassId { get; init; }

    /// <summary>Counts the versions of a class from 1.</summary>
    public int Number { get; init; }
    public Guid OwnerId { get; set; }
    public Instant MadeAt { get; init; }

    /// <summary>Who made it; empty of the one a class began with.</summary>
    public required string By { get; init; }
    public required string Why { get; init; }

    /// <summary>The whole scheme as JSON, so that no later default changes it.</summary>
    public required string Scheme { get; init; }
    public SchoolClass? Class { get; init; }
}
