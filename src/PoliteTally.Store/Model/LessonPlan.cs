namespace PoliteTally.Store.Model;

/// <summary>What is planned for one lesson. It has a table of its own so that lists of lessons do not load it.</summary>
public sealed class LessonPlan : IOwned
{
    public Guid LessonId { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>The plan as JSON.</summary>
    public required string Document { get; init; }
}
