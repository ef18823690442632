using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A key to one lesson, for a helper or for a program. It is shown once; only its fingerprint is kept.</summary>
public sealed class LessonKey : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public Guid LessonId { get; init; }

    /// <summary>Who holds it: a person's or a program's name.</summary>
    public required string Name { get; set; }
    public KeyRights Rights { get; init; }

    /// <summary>SHA-256 of the key, in hexadecimal.</summary>
    public required string KeyHash { get; init; }
    public Instant MadeAt { get; init; }

    /// <summary>When it was taken back; null while it opens the lesson.</summary>
    public Instant? TakenBackAt { get; set; }
    public Lesson? Lesson { get; init; }
}

/// <summary>What the holder of a key may do in one lesson.</summary>
[Flags]
public enum KeyRights
{
    None = 0,

    /// <summary>Tell what happens in the meeting, as a program.</summary>
    Feed = 1,

    /// <summary>Sweep the chat.</summary>
    Sweep = 2,

    /// <summary>Keep the hand line.</summary>
    HandLine = 4,
}
