using System.Collections.Concurrent;
using System.Threading.RateLimiting;
using NodaTime;

namespace PoliteTally.Web.Features.Feed;

/// <summary>How it stands with the program that is connected to a lesson, for the teacher to see.</summary>
/// <param name="LastAt">When it was last heard of.</param>
/// <param name="Refused">Events that were not taken since the program started.</param>
/// <param name="Why">Why the last of them was not taken; null if all were.</param>
public sealed record FeedNow(Instant LastAt, int Refused, string? Why);

/// <summary>
/// What is known of feeds beyond their entries, and how much each may send: 200 events a second in the long run, and 4,000 at once, which is what
/// a lesson with an outage in it catches up on. A feed gone mad is slowed down; the lesson goes on.
/// </summary>
public sealed class FeedLimits : IDisposable
{
    /// <summary>Events a second that a feed may send in the long run: 200.</summary>
    public const int EventsASecond = 200;

    private const int AtOnce = 4000;

    private readonly ConcurrentDictionary<Guid, FeedNow> _now = new();
    private readonly PartitionedRateLimiter<Guid> _limiter = PartitionedRateLimiter.Create<Guid, Guid>(lesson =>
        RateLimitPartition.GetTokenBucketLimiter(lesson, _ => new TokenBucketRateLimiterOptions
        {
            TokenLimit = AtOnce,
            TokensPerPeriod = EventsASecond / 10,
            ReplenishmentPeriod = TimeSpan.FromMilliseconds(100),
            QueueLimit = 0,
        }));

    /// <summary>How it stands with the feed of a lesson; null if none was heard of since the program started.</summary>
    public FeedNow? Of(Guid lesson) => _now.GetValueOrDefault(lesson);

    /// <summary>Whether so many events may come in now; a batch is taken as a whole or not at all.</summary>
    public bool Takes(Guid lesson, int events)
    {
        using var lease = _limiter.AttemptAcquire(lesson, events);
        return lease.IsAcquired;
    }

    /// <summary>The feed was heard of.</summary>
    public void Heard(Guid lesson, Instant at, int refused, string? why) =>
        _now.AddOrUpdate(lesson, _ => new FeedNow(at, refused, why), (_, before) => new FeedNow(at, before.Refused + refused, why ?? before.Why));

    /// <inheritdoc/>
    public void Dispose() => _limiter.Dispose();
}
