using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A file that was brought in for a lesson.</summary>
public sealed class BroughtIn : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }
    public required string FileName { get; init; }

    /// <summary>SHA-256 of its bytes, in hexadecimal.</summary>
    public required string Fingerprint { get; init; }
    public int Entries { get; init; }
    public Instant NotedAt { get; init; }

    /// <summary>The entries that say what it says, whether it brought them or a file before it; empty of files from before this was kept.</summary>
    public List<Guid> EntryIds { get; set; } = [];

    /// <summary>When it was taken out again; null while it counts.</summary>
    public Instant? TakenOutAt { get; set; }
    public Lesson? Lesson { get; init; }
}
