using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>What a student says is wrong in their score of a lesson, and what the teacher answered.</summary>
public sealed class Objection : IOwned
{
    /// <summary>Made where it was written, so that sending it twice is harmless.</summary>
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }
    public Guid StudentId { get; init; }

    /// <summary>The entry that it is about; null if it is about what is missing, or the whole lesson.</summary>
    public Guid? EntryId { get; init; }

    /// <summary>The entry in the words that the student read; empty without one.</summary>
    public required string About { get; init; }
    public required string Text { get; init; }
    public Instant MadeAt { get; init; }

    /// <summary>What was answered; empty while nothing is.</summary>
    public string Answer { get; set; } = "";
    public string AnsweredBy { get; set; } = "";
    public Instant? AnsweredAt { get; set; }
    public Lesson? Lesson { get; init; }
    public Student? Student { get; init; }
}
