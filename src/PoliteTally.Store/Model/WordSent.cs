using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>The word ahead of one lesson to one student: noted before it goes, so that it never goes twice.</summary>
public sealed class WordSent : IOwned
{
    public Guid LessonId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }
    public required string Address { get; init; }
    public WordState State { get; set; }
    public Instant At { get; set; }

    /// <summary>Why it did not go; empty if it did.</summary>
    public string Why { get; set; } = "";
    public Lesson? Lesson { get; init; }
    public Student? Student { get; init; }
}

public enum WordState
{
    /// <summary>Going out now; after a sudden stop, nobody knows whether it went.</summary>
    Going,
    Sent,
    NotSent,

    /// <summary>Could not go yet, for a reason that passes: tried again until the lesson begins.</summary>
    Delayed,
}
