using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>What became of the word ahead of a lesson as a whole.</summary>
public sealed class WordOfLesson : IOwned
{
    public Guid LessonId { get; init; }
    public Guid OwnerId { get; set; }
    public WordState State { get; set; }
    public Instant At { get; set; }

    /// <summary>What happened, in words.</summary>
    public string Said { get; set; } = "";
    public Lesson? Lesson { get; init; }
}
