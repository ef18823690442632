using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>The register of a lesson on its way to whom the school wants to have it, as it stood then. Noted before it goes, so that it never goes twice.</summary>
public sealed class HandIn : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }

    /// <summary>Counts the hand-ins of a lesson from 1; whatever comes after the first is an amendment.</summary>
    public int Version { get; init; }
    public HandInWay Way { get; init; }

    /// <summary>The marks that were handed in, as JSON.</summary>
    public required string Marks { get; init; }

    /// <summary>Why it was amended, in the teacher's words; empty of the first.</summary>
    public string Why { get; init; } = "";
    public required string By { get; init; }
    public Instant MadeAt { get; init; }
    public HandInState State { get; set; }

    /// <summary>When it was last tried, or went.</summary>
    public Instant At { get; set; }

    /// <summary>What became of it, in words; empty while nothing has.</summary>
    public string Said { get; set; } = "";
    public Lesson? Lesson { get; init; }
}

/// <summary>How a register goes.</summary>
public enum HandInWay
{
    /// <summary>To the register desk of the school.</summary>
    Desk,

    /// <summary>By mail.</summary>
    Mail,
}

public enum HandInState
{
    /// <summary>Waits for its turn, or for a desk that is away.</summary>
    Waiting,

    /// <summary>On its way now; after a sudden stop nobody knows whether it arrived.</summary>
    Going,
    Taken,
    Refused,

    /// <summary>Whether it arrived is not known: the desk is asked, and it is not sent again by itself.</summary>
    InDoubt,
}
