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
    public Lesson? Lesson { get; init; }
}
