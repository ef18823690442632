using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>What the teacher said once of how files of one layout are read; files of the class that are laid out so are read like that again.</summary>
public sealed class KnownLayout : IOwned
{
    public Guid ClassId { get; init; }

    /// <summary>By what the layout is known.</summary>
    public required string Layout { get; init; }

    public Guid OwnerId { get; set; }

    /// <summary>The name of the file of which it was said last.</summary>
    public required string FileName { get; set; }

    /// <summary>What was said: a JSON object of texts.</summary>
    public required string Said { get; set; }

    public Instant NotedAt { get; set; }
    public SchoolClass? Class { get; init; }
}
