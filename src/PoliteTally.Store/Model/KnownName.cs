using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A name seen in a meeting of a class, and whose it is.</summary>
public sealed class KnownName : IOwned
{
    public Guid ClassId { get; init; }

    /// <summary>The name with case, width and spaces folded, and nothing else: what is said of one name must not spread to another.</summary>
    public required string Folded { get; init; }

    /// <summary>What stood beside the name and is theirs in every lesson: an address or a number; empty if nothing did.</summary>
    public string Beside { get; init; } = "";
    public Guid OwnerId { get; set; }
    public required string Shown { get; set; }

    /// <summary>Null for "not a student".</summary>
    public Guid? StudentId { get; set; }

    public Instant NotedAt { get; set; }

    /// <summary>Where it came from, in words: the lesson or the file in which it was seen.</summary>
    public string Origin { get; set; } = "";

    /// <summary>The lesson in which the teacher decided it; null if it was decided elsewhere.</summary>
    public Guid? LessonId { get; set; }
    public SchoolClass? Class { get; init; }
}
