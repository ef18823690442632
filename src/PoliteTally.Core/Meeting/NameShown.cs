using System.Security.Cryptography;
using System.Text;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Meeting;

/// <summary>What the entries of a lesson say of one name shown in the meeting.</summary>
/// <param name="Who">By what it is known: the name, and what stands beside it if several people were shown under the name.</param>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Beside">As in <see cref="NameAct.Beside"/>; empty if nothing stood beside it yet.</param>
public sealed record NameShown(string Who, string Name, string Beside)
{
    /// <summary>When it was seen.</summary>
    public IReadOnlyList<Sighting> Sightings => Seen;

    /// <summary>
    /// The last word on whose name it is; null while nobody has said. A name that somebody changed to is theirs, unless
    /// something else was said of it.
    /// </summary>
    public NameDecision? Match { get; internal init; }

    /// <summary>The entry by which it is to be asked later; null if it is not.</summary>
    public Guid? Later { get; internal init; }

    /// <summary>Whether the name was to be seen online last, and when.</summary>
    public (OnlineStatus Status, Instant At)? Online { get; internal init; }

    /// <summary>Whether it answered something and nobody knows when.</summary>
    public bool Answered { get; internal init; }

    /// <summary>The id under which the acts of the name stand while it belongs to no student. Follows from by what it is known.</summary>
    public Guid StandsFor { get; private init; } = new(SHA256.HashData(Encoding.UTF8.GetBytes(Who)).AsSpan(0, 16));

    internal GrowingList<Sighting> Seen { get; init; } = new([]);

    /// <summary>What was said of this very name.</summary>
    internal NameDecision? Word { get; init; }

    /// <summary>Who was shown before the name was changed to this one; null if it was not.</summary>
    internal string? Before { get; init; }
}

/// <summary>Whose name it is: a student, or null for "not a student".</summary>
public sealed record NameDecision(Guid? Student, Source Source, Guid Entry);
