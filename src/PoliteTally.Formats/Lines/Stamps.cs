using System.Buffers;
using System.Text.RegularExpressions;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats.Lines;

/// <summary>How a file writes the time of day.</summary>
internal enum Clock
{
    /// <summary>09:41:22.</summary>
    Colons,

    /// <summary>9:41 AM, in the words of several languages.</summary>
    Halves,

    /// <summary>09.41.22.</summary>
    Dots,

    /// <summary>9h41.</summary>
    Letters,
}

/// <summary>Finds times in lines, with the day beside them, and writes them as other readers know them.</summary>
internal static partial class Stamps
{
    // What can stand before the first digit of a time and is part of it: a weekday, a month.
    private const int BeforeDigits = 40;

    /// <summary>Where the first or the last time stands in a part of a line, with its day and what marks it as changed; null if there is none.</summary>
    /// <param name="text">The text.</param>
    /// <param name="part">The part that is searched.</param>
    /// <param name="clock">How times are written.</param>
    /// <param name="last">Whether the last one is meant, and not the first.</param>
    public static Range? Find(string text, Range part, Clock clock, bool last)
    {
        var (from, length) = part.GetOffsetAndLength(text.Length);
        var searched = text.AsSpan(from, length);
        Range? found = null;
        // Most lines go on with a message, and most of those have no number.
        if (searched.IndexOfAny(Numbers) is >= 0 and var digit)
        {
            foreach (var match in (last ? Single(clock) : Pattern(clock)).EnumerateMatches(searched, Math.Max(0, digit - BeforeDigits)))
            {
                found = (from + match.Index)..(from + match.Index + match.Length);
                if (!last)
                {
                    break;
                }
            }
        }

        return found;
    }

    // Digits of every script that a time is written in.
    private static readonly SearchValues<char> Numbers = SearchValues.Create(string.Concat(Enumerable.Range(0, char.MaxValue).Select(c => (char)c).Where(char.IsDigit)));

    /// <summary>A time that was found, written with colons, its day before it if it has one: "2026-11-02 09:41:22"; and until when that lasted, if it says so.</summary>
    public static (string Time, string? Until) Plain(string stamp, Clock clock)
    {
        var found = Pattern(clock).Match(Digits.Plain(stamp));
        return found.Success ? (Written(found, clock), found.Groups["until"] is { Success: true } until ? until.Value : null) : (stamp, null);
    }

    private static string Written(Match found, Clock clock)
    {
        var hours = found.Groups["clock"].Value.Replace("a.", "a", StringComparison.OrdinalIgnoreCase).Replace("p.", "p", StringComparison.OrdinalIgnoreCase);
        if (clock is Clock.Dots or Clock.Letters)
        {
            hours = string.Join(':', hours.Split(['.', ':', 'h', 'H', 'm', 'i', 'n', 's', 'e', 'c', ' '], StringSplitOptions.RemoveEmptyEntries).Select(part => part.PadLeft(2, '0')));
        }

        if (clock == Clock.Halves)
        {
            hours = hours.Replace('.', ':');
        }

        if (clock == Clock.Colons && hours.IndexOf('.') is > 0 and var part && hours.IndexOf(':') == hours.LastIndexOf(':'))
        {
            // Minutes and seconds from a start, and parts of a second.
            hours = hours[..part];
        }

        hours = hours.Replace(',', '.');

        var half = found.Groups["half"] is { Success: true } said ? IsLater(said.Value) ? " PM" : " AM" : "";
        var day = found.Groups["date"].Value.Replace(". ", " ", StringComparison.Ordinal);
        var zone = found.Groups["zone"].Value.Trim();
        if (TimeText.ZoneLetters.ContainsKey(zone))
        {
            return $"{day} {hours}{half} {zone}".TrimStart();
        }

        // A time that names its zone is written whole, as ISO 8601 has it.
        return $"{day}{(day.Length == 0 ? "" : zone.Length > 0 ? "T" : " ")}{hours}{half}{zone}";
    }

    /// <summary>All times in a part of a line, in order, as other readers know them, the end of a stretch like its beginning; and where they stand.</summary>
    public static IEnumerable<(Range Place, string Time)> All(string line, Clock clock)
    {
        foreach (Match found in Pattern(clock).Matches(Digits.Plain(line)))
        {
            yield return (found.Index..(found.Index + found.Length), Written(found, clock));
            if (found.Groups["until"] is { Success: true } until)
            {
                // Of the same day as the beginning.
                var day = found.Groups["date"] is { Success: true } date ? $"{date.Value.Replace(". ", " ", StringComparison.Ordinal)} " : "";
                yield return (default, Plain($"{day}{until.Value}", clock).Time);
            }
        }
    }

    /// <summary>Whether a line tells a day and nothing else, as lines between the messages of two days do.</summary>
    public static bool IsDay(ReadOnlySpan<char> line) => line.Length is > 3 and < 60 && DayAlone().IsMatch(line);

    /// <summary>The day that a line tells, with its year; null if it tells none.</summary>
    public static string? DayIn(ReadOnlySpan<char> line) => IsDay(line) && DayWithYear().Match(line.ToString()) is { Success: true } day ? day.Value.Replace(". ", " ", StringComparison.Ordinal) : null;

    private static bool IsLater(string half) => Later.Contains(Columns.Fold(half));

    private static readonly HashSet<string> Later = ["pm", "em", "ip", "下午", "午後", "오후", "μμ", "du"];

    // A time, and until when it lasted.
    private static Regex Pattern(Clock clock) => clock switch
    {
        Clock.Halves => HalvesUntil(),
        Clock.Dots => DotsUntil(),
        Clock.Letters => Letters(),
        _ => ColonsUntil(),
    };

    // A time alone: behind words that end with a time, the last one is not until when that was.
    private static Regex Single(Clock clock) => clock switch
    {
        Clock.Halves => Halves(),
        Clock.Dots => Dots(),
        Clock.Letters => Letters(),
        _ => Colons(),
    };

    private const string Day =
        @"\d{4}[-/.]\d{1,2}[-/.]\d{1,2}|\d{1,2}[./-]\d{1,2}[./-](?:\d{4}|\d{2})(?!\d)|\d{1,2}\.?\s\p{L}{3,9}\.?,?\s\d{4}|\p{L}{3,9}\.?\s\d{1,2},?\s\d{4}";

    // Whole words: "Martin 02/11/2026" begins with a name.
    internal const string Weekday =
        "(?i:mon|tue|tues|wed|thu|thur|thurs|fri|sat|sun|(?:mon|tues|wednes|thurs|fri|satur|sun)day|montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonntag|lundi|mardi|mercredi|jeudi|vendredi|samedi|dimanche|lunes|martes|miércoles|jueves|viernes|sábado|domingo)";

    // Not within a word or a number; a day before it, with the name of its weekday or not.
    private const string Before =
        @"(?<![\p{L}\d.:/-]|\S\s?\+)(?:(?:" + Weekday + @"\.?,?\s)?(?<date>" + Day + @")(?:,|T|\s(?:at|um|kl\.?|klo|à|às))?\s*)?(?:(?i:kl\.?|klo|um|at)\s)?";

    // Until when something lasted, written like its beginning.
    private const string ToWhen = @"(?:\s?(?:Uhr|hrs|h)(?![\p{L}\d]))?(?:\s?(?:[-–—→]|-->|to|bis)\s?(?<until>";

    private const string UntilColons = ToWhen + @"\d{1,2}:\d{2}(?::\d{2}(?:[.,]\d{1,3})?)?)(?![:\d\p{L}]))?";
    private const string UntilHalves = ToWhen + @"\d{1,2}[:.]\d{2}(?:[:.]\d{2})?\s?[AaPp]\.?\s?[Mm]\.?|\d{1,2}:\d{2}(?::\d{2})?)(?![:\d\p{L}]))?";

    // Behind a time with dots a number with a dot may be one of the words: “1.10 m”.
    private const string UntilDots = ToWhen + @"\d{1,2}\.[0-5]\d(?:\.[0-5]\d)?)(?=\s*(?:$|[\])|,;])))?";

    // A day behind it, and what says that the message is another than it was.
    private const string Behind =
        @"(?:(?:\s?(?:Uhr|hrs|h)(?![\p{L}\d]))?(?:,?\s+(?<date>" + Day + @"))?(?:\s*[(\[](?:" + SaidByPrograms.EditedWords + @")[)\]])?)";

    private const string OfZones = @"\s?(?:GMT|UTC|WES?T|CES?T|MES?Z|EES?T|E[SD]T|P[SD]T)(?![\p{L}\d+-])";

    // In “09:28:05,2026-11-02” a year follows, and no part of a second.
    private const string RestOfDay = @"[-/.]\d{1,2}[-/.]\d";

    private const string OfColons = Before + @"(?<clock>\d{1,2}:\d{2}(?::\d{2}(?:[.,]\d{1,7}(?!\d|" + RestOfDay + @"))?|\.\d{2,3}(?![\d.]))?)(?!\d|:\d)(?(date)(?<zone>Z|\s?[+-]\d{2}:\d{2}(?![:\d])|" + OfZones + @")?|(?<zone>Z|" + OfZones + @")?)";

    private const string OfHalves = Before + @"(?:(?<clock>\d{1,2}[:.]\d{2}(?:[:.]\d{2})?)\s?(?<half>[AaPp]\.?\s?[Mm]\.?|[FfEe]\.?[Mm]\.?|[IiAa]p\.?|[πμ]\.?μ\.?)(?![\p{L}\d])(?<zone>" + OfZones + @")?|(?<half>上午|下午|午前|午後|오전|오후)\s?(?<clock>\d{1,2}:\d{2}(?::\d{2})?))";

    private const string OfDots = Before + @"(?<clock>\d{1,2}\.[0-5]\d(?:\.[0-5]\d)?)(?![\d.:]\d)(?!\d)";

    [GeneratedRegex(OfColons + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Colons();

    [GeneratedRegex(OfColons + UntilColons + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex ColonsUntil();

    [GeneratedRegex(OfHalves + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Halves();

    [GeneratedRegex(OfHalves + UntilHalves + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex HalvesUntil();

    [GeneratedRegex(OfDots + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Dots();

    [GeneratedRegex(OfDots + UntilDots + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex DotsUntil();

    [GeneratedRegex(Before + @"(?<clock>\d{1,2}\s?[hH]\s?[0-5]\d(?:\s?m(?:in)?\s?[0-5]\d\s?s?)?|\d{1,3}\s?m(?:in)?\s?[0-5]?\d\s?s(?:ec)?)(?![\d\p{L}])" + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Letters();

    [GeneratedRegex(Day)]
    private static partial Regex DayWithYear();

    [GeneratedRegex(@"^[\s=*_·•–—-]*(?:" + Weekday + @"\.?,?\s+)?(?:" + Day + @"|(?:\d{1,2}\.?\s\p{L}{3,10}|\p{L}{3,10}\s\d{1,2}))[\s=*_·•:–—-]*$")]
    private static partial Regex DayAlone();
}
