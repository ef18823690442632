using NodaTime;

namespace PoliteTally.Web.Hosting;

/// <summary>The time that everything here goes by, as an instant.</summary>
internal sealed class ClockBy(TimeProvider time) : IClock
{
    /// <inheritdoc/>
    public Instant GetCurrentInstant() => Instant.FromDateTimeOffset(time.GetUtcNow());
}
