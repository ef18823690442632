using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>One entry of the ledger.</summary>
public sealed class EntryRow : IOwned
{
    /// <summary>The order in which entries were stored; the position of a lesson's ledger is its highest.</summary>
    public long Seq { get; init; }
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }
    public Instant HappenedAt { get; init; }
    public Instant NotedAt { get; init; }
    public Core.Ledger.Source Source { get; init; }
    public required string By { get; init; }

    /// <summary>The act as JSON, its kind in <c>type</c>.</summary>
    public required string Act { get; init; }

    /// <summary>The kind of the act, by its name in <see cref="ActJson.Kinds"/>; the database reads it off the act.</summary>
    public string Kind { get; private init; } = "";

    /// <summary>Shared by the entries that one press noted; null if it noted one alone.</summary>
    public Guid? Together { get; init; }

    public Lesson? Lesson { get; init; }
}
