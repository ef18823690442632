using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A browser in which a student's page was entered.</summary>
public sealed class PageSession : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>Who came with a pass; null for somebody who came with a name, until the lesson's ledger says who they are.</summary>
    public Guid? StudentId { get; init; }

    /// <summary>The one lesson it opens, for somebody who came with a name; null for whoever has a pass.</summary>
    public Guid? LessonId { get; init; }

    /// <summary>SHA-256 of the token in the cookie, in hexadecimal.</summary>
    public required string TokenHash { get; init; }

    /// <summary>What kind of device it seems to be, in a word.</summary>
    public string Device { get; init; } = "";
    public Instant MadeAt { get; init; }
    public Instant? EndedAt { get; set; }
    public Student? Student { get; init; }
    public Lesson? Lesson { get; init; }
}
