using NodaTime;

namespace PoliteTally.Store.Model;

public sealed class Student : IOwned
{
    public Guid Id { get; init; }
    public Guid OwnerId { get; set; }
    public string? Number { get; set; }
    public required string Family { get; set; }
    public required string Given { get; set; }
    public string? Preferred { get; set; }
    public string? Email { get; set; }

    /// <summary>Another address to reach them or their home by. Nobody is known by it.</summary>
    public string? SecondEmail { get; set; }
    public string? Phone { get; set; }

    /// <summary>Tags, separated by semicolons.</summary>
    public string Tags { get; set; } = "";

    /// <summary>The record that this one was merged into, being of the same student; null if it stands for itself.</summary>
    public Guid? MergedIntoId { get; set; }

    /// <summary>Fingerprint of the personal pass; null while there is none.</summary>
    public string? PassHash { get; set; }
    public Instant? PassMadeAt { get; set; }
}
