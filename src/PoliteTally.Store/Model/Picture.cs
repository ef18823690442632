using NodaTime;

namespace PoliteTally.Store.Model;

/// <summary>A picture for questions, scaled down; its bytes lie in the data folder under its fingerprint.</summary>
public sealed class Picture : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }

    /// <summary>SHA-256 of the stored bytes, in hexadecimal; the name of the file.</summary>
    public required string Fingerprint { get; init; }
    public int Width { get; init; }
    public int Height { get; init; }
    public Instant AddedAt { get; init; }
}
