using NodaTime;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// One thing that happened, as it was noted. Entries are never changed or deleted: a later entry strikes one out.
/// </summary>
/// <param name="Id">A UUIDv7 made where the act was noted, so that sending the entry twice is harmless.</param>
/// <param name="HappenedAt">When the act happened, aligned to the clock of the server.</param>
/// <param name="NotedAt">
/// When the server first saw the entry; no two entries of a lesson the same, so that what happened at one moment keeps the order of arrival.
/// </param>
/// <param name="Source">How the entry came.</param>
/// <param name="By">Who noted it: a person's name, or the name of a file.</param>
/// <param name="Act">What happened, and to whom.</param>
/// <param name="Together">Shared by the entries that one press noted, so that one press takes them back; null if it noted one alone.</param>
public sealed record Entry(Guid Id, Instant HappenedAt, Instant NotedAt, Source Source, string By, Act Act, Guid? Together = null);

/// <summary>How an entry came.</summary>
public enum Source
{
    /// <summary>Tapped by the teacher or a helper.</summary>
    Tapped,

    /// <summary>From the student page.</summary>
    Page,

    /// <summary>From a program connected live.</summary>
    Feed,

    /// <summary>Brought in afterwards from a file.</summary>
    File,
}
