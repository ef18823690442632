namespace PoliteTally.Store.Model;

/// <summary>What a settled lesson tells of one student, so that whoever looks back need not read its ledger: nothing in it that the ledger does not say.</summary>
public sealed class LookBackRow : IOwned
{
    public Guid LessonId { get; init; }
    public Guid StudentId { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>What is known, as JSON: a list of what <see cref="Core.Lessons.KnownOfStudent"/> has, its moment in milliseconds.</summary>
    public required string Known { get; init; }

    public Lesson? Lesson { get; init; }
}
