using System.Globalization;
using System.Text.RegularExpressions;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using NodaTime;
using NodaTime.TimeZones;

namespace PoliteTally.Formats;

/// <summary>
/// A time zone that a calendar brings along under a name that nobody else knows (VTIMEZONE, RFC 5545 section 3.6.5). Zones with
/// names of the IANA database or of Windows are left to the database.
/// </summary>
internal sealed partial class BroughtZone
{
    private readonly List<(LocalDateTime Onset, Offset To)> _onsets = [];
    private Offset _before;

    /// <summary>The offset that holds at a local time: that of the latest onset not after it.</summary>
    public Offset At(LocalDateTime local)
    {
        var found = _before;
        foreach (var (onset, to) in _onsets)
        {
            if (onset > local)
            {
                break;
            }

            found = to;
        }

        return found;
    }

    /// <summary>
    /// Takes zones of unknown names out of a calendar: what is left has floating times for them, and events by UID say whose
    /// zone those are in.
    /// </summary>
    public static (string Plain, Dictionary<string, BroughtZone> ZoneOf) Split(string text)
    {
        var unfolded = Folds().Replace(text, "");
        var known = DateTimeZoneProviders.Tzdb.Ids.ToHashSet(StringComparer.Ordinal);
        var windows = TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping;
        var unknown = ZoneNames().Matches(unfolded).Select(m => m.Groups["name"].Value).Distinct()
            .Where(name => !known.Contains(name) && !windows.ContainsKey(name)).ToHashSet(StringComparer.Ordinal);
        if (unknown.Count == 0)
        {
            return (text, []);
        }

        var zones = new Dictionary<string, BroughtZone>(StringComparer.Ordinal);
        foreach (Match block in Zones().Matches(unfolded))
        {
            var name = Value(block.Value, "TZID");
            if (name is not null && unknown.Contains(name))
            {
                zones[name] = Read(block.Value);
            }
        }

        if (unknown.FirstOrDefault(name => !zones.ContainsKey(name)) is { } missing)
        {
            throw new FormatProblem($"This calendar has times in the zone “{missing}”, which nobody knows and which it does not describe. Nothing was stored; choose a named zone, such as Atlantic/Faroe, in the program it comes from.");
        }

        var zoneOf = new Dictionary<string, BroughtZone>(StringComparer.Ordinal);
        foreach (Match block in Events().Matches(unfolded))
        {
            if (Value(block.Value, "UID") is { } uid && ZoneNames().Match(block.Value) is { Success: true } named
                && zones.TryGetValue(named.Groups["name"].Value, out var zone))
            {
                zoneOf[uid] = zone;
            }
        }

        var plain = Zones().Replace(unfolded, block => unknown.Contains(Value(block.Value, "TZID") ?? "") ? "" : block.Value);
        plain = ZoneNames().Replace(plain, m => unknown.Contains(m.Groups["name"].Value) ? "" : m.Value);
        return (plain, zoneOf);
    }

    private static BroughtZone Read(string block)
    {
        var zone = new BroughtZone();
        var observances = Observances().Matches(block).Select(m => m.Value).ToList();
        foreach (var observance in observances)
        {
            var start = DateTime.ParseExact(Value(observance, "DTSTART")!.TrimEnd('Z'), "yyyyMMdd'T'HHmmss", CultureInfo.InvariantCulture);
            var to = OffsetOf(Value(observance, "TZOFFSETTO")!);
            zone._onsets.Add((LocalDateTime.FromDateTime(start), to));
            if (Value(observance, "RRULE") is { } rule)
            {
                var recurring = new CalendarEvent
                {
                    Start = new CalDateTime(start, hasTime: true),
                    RecurrenceRule = new RecurrenceRule(UtcEnds().Replace(rule, "$1")),
                };
                zone._onsets.AddRange(recurring.GetOccurrences(null, new Ical.Net.Evaluation.EvaluationOptions { MaxUnmatchedIncrementsLimit = 1000 })
                    .TakeWhile(o => o.Period.StartTime.Year < 2100)
                    .Select(o => (LocalDateTime.FromDateTime(o.Period.StartTime.Value), to)));
            }
        }

        zone._onsets.Sort((a, b) => a.Onset.CompareTo(b.Onset));
        zone._before = observances.Count == 0
            ? throw new FormatProblem("A time zone of this calendar is empty.")
            : OffsetOf(Value(observances.MinBy(o => Value(o, "DTSTART"))!, "TZOFFSETFROM")!);
        return zone;
    }

    private static Offset OffsetOf(string text)
    {
        var digits = text.TrimStart('+', '-').PadRight(6, '0');
        var seconds = (int.Parse(digits[..2], CultureInfo.InvariantCulture) * 3600)
            + (int.Parse(digits[2..4], CultureInfo.InvariantCulture) * 60) + int.Parse(digits[4..6], CultureInfo.InvariantCulture);
        return Offset.FromSeconds(text.StartsWith('-') ? -seconds : seconds);
    }

    private static string? Value(string block, string property) =>
        Regex.Match(block, $@"^{property}(?:;[^:\r\n]*)?:(.*?)\r?$", RegexOptions.Multiline) is { Success: true } match ? match.Groups[1].Value.Trim() : null;

    // A beginning without its end is looked for to the end of the file, for each beginning anew.
    private const int Patience = 1000;

    [GeneratedRegex(@"\r?\n[ \t]")]
    private static partial Regex Folds();

    [GeneratedRegex("""(?<=^(?:DTSTART|DTEND|RECURRENCE-ID|EXDATE|RDATE)[^:\r\n]*?);TZID=("?)(?<name>[^";:\r\n]+)\1""", RegexOptions.Multiline)]
    private static partial Regex ZoneNames();

    [GeneratedRegex(@"^BEGIN:VTIMEZONE\r?\n.*?^END:VTIMEZONE\r?\n", RegexOptions.Multiline | RegexOptions.Singleline, matchTimeoutMilliseconds: Patience)]
    private static partial Regex Zones();

    [GeneratedRegex(@"^BEGIN:(STANDARD|DAYLIGHT)\r?\n.*?^END:\1\r?$", RegexOptions.Multiline | RegexOptions.Singleline, matchTimeoutMilliseconds: Patience)]
    private static partial Regex Observances();

    [GeneratedRegex(@"^BEGIN:VEVENT\r?\n.*?^END:VEVENT\r?$", RegexOptions.Multiline | RegexOptions.Singleline, matchTimeoutMilliseconds: Patience)]
    private static partial Regex Events();

    // The end of a rule is in UTC; its onsets are read as local times.
    [GeneratedRegex(@"(UNTIL=[0-9]{8}T[0-9]{6})Z")]
    private static partial Regex UtcEnds();
}
