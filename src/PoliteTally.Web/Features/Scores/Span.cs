using NodaTime;
using NodaTime.Text;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Days whose lessons are looked at.</summary>
/// <param name="From">The beginning of the first day; null for no beginning.</param>
/// <param name="To">The end of the last day, not part of it; null for no end.</param>
internal sealed record Span(Instant? From, Instant? To)
{
    /// <summary>All days.</summary>
    public static readonly Span All = new(null, null);

    /// <summary>The span of days as they were written ("2026-11-23"), each of which may be missing.</summary>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day.</param>
    /// <param name="zone">Where the days are.</param>
    /// <returns>Null if one of them is no day.</returns>
    public static Span? Of(string? from, string? to, DateTimeZone zone)
    {
        var (first, last) = (DayOf(from), DayOf(to));
        return (first is null && !string.IsNullOrEmpty(from)) || (last is null && !string.IsNullOrEmpty(to)) ? null
            : Of(first, last, zone);
    }

    /// <summary>The span from one day to another, both part of it.</summary>
    public static Span Of(LocalDate? first, LocalDate? last, DateTimeZone zone) =>
        new(first is { } from ? zone.AtStartOfDay(from).ToInstant() : null, last is { } to ? zone.AtStartOfDay(to.PlusDays(1)).ToInstant() : null);

    /// <summary>Whether a moment lies in it.</summary>
    public bool Has(Instant at) => (From is null || at >= From) && (To is null || at < To);

    private static LocalDate? DayOf(string? written) =>
        written is not null && LocalDatePattern.Iso.Parse(written) is { Success: true, Value: { Year: > 1900 and < 2200 } day } ? day : null;
}
