using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A session of a teacher that was ended by signing out, while its cookie could still be shown.</summary>
public sealed class EndedSession
{
    public Guid Id { get; init; }
    public Instant At { get; init; }
}
