using NodaTime;
using PoliteTally.Store;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Days whose lessons are looked at.</summary>
/// <param name="From">The beginning of the first day; null for no beginning.</param>
/// <param name="To">The end of the last day, not part of it; null for no end.</param>
internal sealed record Span(Instant? From, Instant? To)
{
    /// <summary>All days.</summary>
    public static readonly Span All = new(null, null);

    /// <summary>The span of days as they were asked for, where the teacher's school is.</summary>
    /// <param name="from">The first day, written as "2026-11-23"; null or empty for no beginning.</param>
    /// <param name="to">The last day.</param>
    /// <param name="db">A context of the owner.</param>
    /// <param name="owner">The teacher.</param>
    /// <returns>Null if one of them is no day.</returns>
    public static async Task<Span?> Asked(string? from, string? to, SchoolDb db, Owner owner) =>
        string.IsNullOrEmpty(from) && string.IsNullOrEmpty(to) ? All : Of(from, to, await LessonEndpoints.ZoneOf(db, owner));

    /// <summary>The span from one day to another, both part of it.</summary>
    public static Span Of(LocalDate? first, LocalDate? last, DateTimeZone zone) =>
        new(first is { } from ? zone.AtStartOfDay(from).ToInstant() : null, last is { } to ? zone.AtStartOfDay(to.PlusDays(1)).ToInstant() : null);

    /// <summary>Whether a moment lies in it.</summary>
    public bool Has(Instant at) => (From is null || at >= From) && (To is null || at < To);

    private static Span? Of(string? from, string? to, DateTimeZone zone)
    {
        var (first, last) = (SentText.Day(from), SentText.Day(to));
        return (first is null && !string.IsNullOrEmpty(from)) || (last is null && !string.IsNullOrEmpty(to)) ? null
            : Of(first, last, zone);
    }
}
