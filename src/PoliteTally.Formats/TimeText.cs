using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>Reads times and lengths as other programs write them.</summary>
internal static partial class TimeText
{
    private static readonly string[] Dates =
    [
        "uuuu-MM-dd", "uuuu/M/d", "d/M/uuuu", "M/d/uuuu", "d.M.uuuu", "d-M-uuuu", "d/M/yy", "M/d/yy", "d.M.yy", "d MMM uuuu", "MMM d uuuu",
        "MMM d, uuuu", "d MMMM uuuu", "MMMM d uuuu", "MMMM d, uuuu",
    ];

    private static readonly string[] Hours = ["H:mm:ss", "H:mm", "h:mm:ss tt", "h:mm tt", "H:mm:ss.FFFFFFF"];

    /// <summary>Zones that are written behind times by their letters, in hours from UTC; only those that mean one thing in schools of one continent.</summary>
    public static readonly IReadOnlyDictionary<string, int> ZoneLetters = new Dictionary<string, int>(StringComparer.Ordinal)
    {
        ["GMT"] = 0,
        ["UTC"] = 0,
        ["WET"] = 0,
        ["WEST"] = 1,
        ["CET"] = 1,
        ["MEZ"] = 1,
        ["CEST"] = 2,
        ["MESZ"] = 2,
        ["EET"] = 2,
        ["EEST"] = 3,
        ["EST"] = -5,
        ["EDT"] = -4,
        ["PST"] = -8,
        ["PDT"] = -7,
    };

    // As a day of its own it would be a number, or a date.
    private const string Dotted = "H.mm.ss";

    // So many cells tell which way of writing a column has.
    private const int Looked = 500;

    // So many are tried with every way.
    private const int Few = 12;

    // No way of writing a time or a length is longer.
    private const int MostLetters = 60;

    // A shorter one is a time of day.
    private const int ShortestOther = 12;

    // “20261102T092805”.
    private const int WithoutSigns = 15;

    // No length that anybody could mean is longer, and no reader of numbers has room for all that somebody could write.
    private static readonly Duration Longest = Duration.FromDays(100);

    private static readonly List<LocalDatePattern> DateReaders = [.. Dates.Select(LocalDatePattern.CreateWithInvariantCulture)];

    // About.
    private static readonly Duration HalfALesson = Duration.FromMinutes(25);

    // Nobody settles a lesson later.
    private const int MostDaysAway = 400;

    private static readonly List<Func<string, LocalDateTime, (LocalDateTime Local, Offset? Offset)?>> Readers = [.. Zoned(), .. Dated(), .. OfDay(), Counted];

    /// <summary>
    /// Reads the cells of columns that belong together with the one way of writing that reads most of them; of two that
    /// read as many (3/4 is March or April) the one that comes closest to the lesson.
    /// </summary>
    /// <param name="cells">The cells; empty ones stay null.</param>
    /// <param name="lesson">The planned start of the lesson. A time of day is the one that is nearest to it, be that before or after midnight, and in the hour that comes twice when clocks go back.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <returns>The instants in the order of the cells, and whether the file itself names its zone.</returns>
    public static (IReadOnlyList<Instant?> Times, bool NamesZone) Read(
        IReadOnlyList<string> cells, Instant lesson, DateTimeZone zone)
    {
        var near = lesson.InZone(zone).LocalDateTime;
        // Which way it is shows in a part of them, taken from all over the file.
        var filled = cells.Where(c => !string.IsNullOrWhiteSpace(c));
        var step = Math.Max(1, filled.Count() / Looked);
        var sample = filled.Where((_, i) => i % step == 0).Select(Tidy).ToList();
        // What reads none of a few reads no column.
        var few = sample.Where((_, i) => i % Math.Max(1, sample.Count / Few) == 0).ToList();
        var reader = Readers.Where(read => sample.Count <= Few || few.Exists(t => CanBeTime(t) && read(t, near) is not null)).DefaultIfEmpty(Readers[0])
            .Select(read => (read, times: sample.ConvertAll(t => CanBeTime(t) ? read(t, near) : null)))
            .OrderByDescending(r => r.times.Count(t => t is not null))
            .ThenBy(r => Gap(r.times))
            .First().read;
        // In a large file the same second stands in many rows.
        var known = new Dictionary<string, Instant?>(StringComparer.Ordinal);
        var namesZone = false;
        var times = new Instant?[cells.Count];
        for (var i = 0; i < times.Length; i++)
        {
            ReadingBudget.Ask();
            if (!known.TryGetValue(cells[i], out times[i]))
            {
                var read = Tidy(cells[i]) is var text && CanBeTime(text) ? reader(text, near) : null;
                namesZone |= read?.Offset is not null;
                known[cells[i]] = times[i] = InstantOf(read);
            }
        }

        return (times, namesZone);

        double Gap(List<(LocalDateTime Local, Offset? Offset)?> read)
        {
            var gaps = read.Select(InstantOf).Where(i => i is not null).Select(i => Math.Abs((i!.Value - lesson).TotalMinutes)).Order().ToList();
            return gaps.Count == 0 ? double.MaxValue : gaps[gaps.Count / 2];
        }

        // From the middle of a lesson.
        Duration Away(Instant at) => Duration.Max(at - (lesson + HalfALesson), lesson + HalfALesson - at);

        Instant? InstantOf((LocalDateTime Local, Offset? Offset)? read) => read switch
        {
            null => null,
            // Beyond is nobody's lesson, and at the ends of the calendar there is no room for a zone.
            { Local.Year: < 1900 or > 2200 } => null,
            { Offset: { } offset } known => known.Local.WithOffset(offset).ToInstant(),
            { } known => zone.MapLocal(known.Local) switch
            {
                { Count: 1 } once => once.Single().ToInstant(),
                { Count: 2 } twice when Away(twice.Last().ToInstant()) < Away(twice.First().ToInstant()) => twice.Last().ToInstant(),
                _ => zone.AtLeniently(known.Local).ToInstant(),
            },
        };
    }

    /// <summary>A cell as a time, to be put in order: the first way of writing that reads it; null if none does. A time of day is the one nearest to the lesson.</summary>
    public static LocalDateTime? Sortable(string cell, LocalDateTime near)
    {
        var text = Tidy(cell);
        return !CanBeTime(text) ? null
            : Readers.Select(read => read(text, near)).FirstOrDefault(read => read is not null) is { } found ? found.Local : null;
    }

    /// <summary>Whether a cell is a time of day, or a length, and nothing tells which.</summary>
    public static bool IsClock(string cell) => cell.Length <= MostLetters && Colons().IsMatch(Digits.Plain(cell.Trim()));

    /// <summary>Whether a cell is a time of day or a day, both written with dots: 09.10.26.</summary>
    public static bool IsDotted(string cell) => cell.Length is 7 or 8 && Dots().IsMatch(cell);

    /// <summary>A cell that could be a time of day or a length (<see cref="IsClock"/>), as a time of day; null if there is no such time.</summary>
    public static LocalTime? TimeOfDay(string cell) => Digits.Plain(cell.Trim()).Split(':') is [var hour, var minute, .. var rest]
        && int.TryParse(hour, CultureInfo.InvariantCulture, out var h) && int.TryParse(minute, CultureInfo.InvariantCulture, out var m) && h is >= 0 and < 24 && m is >= 0 and < 60
            ? new LocalTime(h, m, rest is [var second] && int.TryParse(second, CultureInfo.InvariantCulture, out var s) && s is >= 0 and < 60 ? s : 0)
            : null;

    /// <summary>Whether a cell is a day without a time.</summary>
    public static bool IsDate(string cell) => cell.Length <= MostLetters && DateReaders.Exists(d => d.Parse(Tidy(cell)) is { Success: true, Value.Year: > 1900 });

    /// <summary>Reads a length: "47", "47 min", "1h 2m", "00:47:12"; a bare number is in <paramref name="bareUnit"/>. What is longer than 100 days is none.</summary>
    public static Duration? Length(string text, Duration bareUnit)
    {
        if (text.Length > MostLetters)
        {
            return null;
        }

        var cell = Digits.Plain(text.Trim()).ToLowerInvariant();
        if (decimal.TryParse(cell.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var bare))
        {
            return OfSeconds((double)bare * bareUnit.TotalSeconds);
        }

        if (Colons().Match(cell) is { Success: true } clock)
        {
            var parts = cell.Split(':').Select(p => int.Parse(p, CultureInfo.InvariantCulture)).ToList();
            return parts is [var h, var m, var s]
                ? Duration.FromSeconds((h * 3600L) + (m * 60L) + s)
                : Duration.FromSeconds((parts[0] * 60L) + parts[1]);
        }

        if (Units().Match(cell) is { Success: true, Length: > 0 } units && cell.Length > 0)
        {
            return OfSeconds((Number("h") * 3600) + (Number("m") * 60) + Number("s"));

            double Number(string group) => units.Groups[group].Success
                ? double.Parse(units.Groups[group].Value.Replace(',', '.'), CultureInfo.InvariantCulture)
                : 0;
        }

        return null;

        static Duration? OfSeconds(double seconds) => seconds <= Longest.TotalSeconds ? Duration.FromSeconds(seconds) : null;
    }

    // Every way of writing a time has a colon, between hours and minutes, or counts from 1970; and no text is tried with two hundred ways that does neither.
    private static bool CanBeTime(string text) => text.Length <= MostLetters && (text.Contains(':') || IsCounted(text) || IsDotted(text));

    /// <summary>Seconds since 1970 in ten digits, or milliseconds in thirteen, as a moment.</summary>
    public static Instant Since1970(string digits) =>
        long.Parse(digits, CultureInfo.InvariantCulture) is var number && digits.Length == 10 ? Instant.FromUnixTimeSeconds(number) : Instant.FromUnixTimeMilliseconds(number);

    // Seconds or milliseconds since 1970, of this century.
    private static bool IsCounted(string text) => text.Length is 10 or 13 && !text.AsSpan().ContainsAnyExceptInRange('0', '9');

    // A number of so many digits is no time unless it is one of about then.
    private static (LocalDateTime, Offset?)? Counted(string text, LocalDateTime about) =>
        IsCounted(text) && Since1970(text).InUtc().LocalDateTime is var time && Period.DaysBetween(about.Date, time.Date) is > -MostDaysAway and < MostDaysAway
            ? (time, Offset.Zero) : null;

    private static string Tidy(string cell)
    {
        if (cell.Length > 2 * MostLetters)
        {
            return cell;
        }

        var text = Spaces().Replace(Digits.Plain(cell.Trim()).Replace('\u202F', ' '), " ").Replace(" a.m.", " AM", StringComparison.OrdinalIgnoreCase).Replace(" p.m.", " PM", StringComparison.OrdinalIgnoreCase);
        // The few that are written otherwise: with the weekday, without any sign, with dots.
        return text.Length < ShortestOther ? text
            : char.IsLetter(text[0]) && Weekday().Match(text) is { Success: true } day ? Tidy(YearLast().Replace(text[day.Length..], "$1 $3 $2"))
            : text[^1] == 'Z' || (text.Length == WithoutSigns && text[8] == 'T') ? Together().Replace(text, "$1-$2-$3T$4:$5:$6$7")
            : text.Contains('.') ? DottedBoth().Replace(text, m => $"{m.Groups["date"].Value} {m.Groups["time"].Value.Replace('.', ':')}")
            : text.Contains(" at ", StringComparison.Ordinal) || text.Contains(" um ", StringComparison.Ordinal) ? text.Replace(" at ", " ", StringComparison.Ordinal).Replace(" um ", " ", StringComparison.Ordinal)
            : text;
    }

    private static IEnumerable<Func<string, LocalDateTime, (LocalDateTime, Offset?)?>> Zoned()
    {
        yield return (text, _) => OffsetDateTimePattern.ExtendedIso.Parse(text) is { Success: true } iso
            ? (iso.Value.LocalDateTime, iso.Value.Offset) : null;
        foreach (var pattern in new[] { "uuuu-MM-dd HH:mm:ss o<g>", "uuuu-MM-dd HH:mm:sso<g>", "uuuu-MM-dd'T'HH:mmo<G>" })
        {
            var parser = OffsetDateTimePattern.CreateWithInvariantCulture(pattern);
            yield return (text, _) => parser.Parse(text) is { Success: true } read ? (read.Value.LocalDateTime, read.Value.Offset) : null;
        }

        foreach (var bare in Dated().Concat(OfDay()))
        {
            yield return (text, near) => ZoneBehind(text) is var (rest, offset) && bare(rest, near) is var (local, _) ? (local, offset) : null;
        }
    }

    // The zone that stands behind a time, by its letters or its offset, and what stands before it.
    private static (string Time, Offset Offset)? ZoneBehind(string text)
    {
        if (text is [.., '+' or '-', _, _, _, _] or [.., '+' or '-', _, _, ':', _, _] && OffsetPattern.CreateWithInvariantCulture(text[^3] == ':' ? "+HH:mm" : "+HHmm").Parse(text[text.LastIndexOfAny(['+', '-'])..]) is { Success: true } offset)
        {
            return (text[..text.LastIndexOfAny(['+', '-'])].TrimEnd(), offset.Value);
        }

        return text is [.., >= 'A' and <= 'Z'] && text.LastIndexOf(' ') is > 0 and var cut && ZoneLetters.TryGetValue(text[(cut + 1)..], out var hours) ? (text[..cut].TrimEnd(), Offset.FromHours(hours)) : null;
    }

    private static IEnumerable<Func<string, LocalDateTime, (LocalDateTime, Offset?)?>> Dated()
    {
        var betweens = new[] { " ", "'T'", ", " };
        foreach (var pattern in from date in Dates from between in betweens from hour in Hours select $"{date}{between}{hour}")
        {
            var parser = LocalDateTimePattern.CreateWithInvariantCulture(pattern);
            // "26" is a year of four digits to the parser, in the first century.
            yield return (text, _) => parser.Parse(text) is { Success: true, Value.Year: > 1900 } read ? (read.Value, null) : null;
        }
    }

    private static IEnumerable<Func<string, LocalDateTime, (LocalDateTime, Offset?)?>> OfDay()
    {
        foreach (var pattern in Hours.Append(Dotted))
        {
            var parser = LocalTimePattern.CreateWithInvariantCulture(pattern);
            yield return (text, near) => parser.Parse(text) is { Success: true } read ? (NearestTo(near, read.Value), null) : null;
        }
    }

    // At half past eleven in the evening, ten past midnight is soon.
    private static LocalDateTime NearestTo(LocalDateTime near, LocalTime time) =>
        (near.Date + time).PlusDays((time.TickOfDay - near.TickOfDay) switch { >= HalfADay => -1, < -HalfADay => 1, _ => 0 });

    private const long HalfADay = NodaConstants.TicksPerDay / 2;

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();

    [GeneratedRegex("^" + Lines.Stamps.Weekday + @"\.?,?\s")]
    private static partial Regex Weekday();

    // “Nov 2 09:28:05 2026”.
    [GeneratedRegex(@"^(\p{L}{3} [0-9]{1,2}) ([0-9]{2}:[0-9]{2}:[0-9]{2}) ([0-9]{4})$")]
    private static partial Regex YearLast();

    // “20261102T092805Z”.
    [GeneratedRegex(@"^([0-9]{4})([0-9]{2})([0-9]{2})T([0-9]{2})([0-9]{2})([0-9]{2})(Z?)$")]
    private static partial Regex Together();

    // “2.11.2026, 9.28”.
    [GeneratedRegex(@"^(?<date>[0-9]{1,2}\.[0-9]{1,2}\.(?:[0-9]{2}|[0-9]{4})),? (?<time>[0-9]{1,2}\.[0-9]{2}(?:\.[0-9]{2})?)$", RegexOptions.ExplicitCapture)]
    private static partial Regex DottedBoth();

    [GeneratedRegex(@"^[0-9]{1,2}\.[0-9]{2}\.[0-9]{2}$")]
    private static partial Regex Dots();

    [GeneratedRegex(@"^[0-9]{1,3}:[0-9]{2}(:[0-9]{2})?$")]
    private static partial Regex Colons();

    // In words of several languages, and as ISO 8601 writes a length.
    [GeneratedRegex(
        @"^(?:pt)?(?:(?<h>[0-9]+(?:[.,][0-9]+)?)\s*(?:h|hr|hrs|hours?|std|stunden?|heures?|horas?|or[ae]|uur|t|tim|timer?|timm[ae]r?|tunti|tuntia|klst|klukkustund(?:ir)?|godz|godzin[ay]?|час(?:а|ов)?|ч|小时|時間)\.?)?" +
        @"[\s,]*(?:(?:and|und|et|y|e|og|och|ja|i|и)\s+)?(?:(?<m>[0-9]+(?:[.,][0-9]+)?)\s*(?:m|mins?|minutes?|minuten?|minutos?|minutt(?:er)?|minutter|minuter|minuuttia?|mínút(?:a|ur)|minut[iya]?|мин(?:ут[аы]?)?|分钟?)\.?)?" +
        @"[\s,]*(?:(?:and|und|et|y|e|og|och|ja|i|и)\s+)?(?:(?<s>[0-9]+(?:[.,][0-9]+)?)\s*(?:s|secs?|seconds?|sek|sekunden?|secondes?|segundos?|sekund(?:er)?|sekuntia?|sekúnd(?:a|ur)|sekund[ay]?|second[io]|сек(?:унд[аы]?)?|秒)\.?)?$")]
    private static partial Regex Units();
}
