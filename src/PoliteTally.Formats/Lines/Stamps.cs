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
            foreach (var match in Pattern(clock).EnumerateMatches(searched, Math.Max(0, digit - BeforeDigits)))
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

    /// <summary>A time that was found, written with colons, its day before it if it has one: "2026-11-02 09:41:22".</summary>
    public static string Plain(string stamp, Clock clock)
    {
        var found = Pattern(clock).Match(Digits.Plain(stamp));
        if (!found.Success)
        {
            return stamp;
        }

        var hours = found.Groups["clock"].Value.Replace("a.", "a", StringComparison.OrdinalIgnoreCase).Replace("p.", "p", StringComparison.OrdinalIgnoreCase);
        if (clock is Clock.Dots or Clock.Letters)
        {
            hours = string.Join(':', hours.Split(['.', ':', 'h', 'H', 'm', 'i', 'n', 's', ' '], StringSplitOptions.RemoveEmptyEntries));
        }

        var half = found.Groups["half"] is { Success: true } said ? IsLater(said.Value) ? " PM" : " AM" : "";
        var day = found.Groups["date"].Value.Replace(". ", " ", StringComparison.Ordinal);
        var zone = found.Groups["zone"].Value.Trim();
        // A time that names its zone is written whole, as ISO 8601 has it.
        return $"{day}{(day.Length == 0 ? "" : zone.Length > 0 ? "T" : " ")}{hours}{half}{zone}";
    }

    /// <summary>Whether a line tells a day and nothing else, as lines between the messages of two days do.</summary>
    public static bool IsDay(ReadOnlySpan<char> line) => line.Length is > 3 and < 60 && DayAlone().IsMatch(line);

    private static bool IsLater(string half) => Later.Contains(Columns.Fold(half));

    private static readonly HashSet<string> Later = ["pm", "em", "ip", "下午", "오후", "μμ", "du"];

    private static Regex Pattern(Clock clock) => clock switch
    {
        Clock.Halves => Halves(),
        Clock.Dots => Dots(),
        Clock.Letters => Letters(),
        _ => Colons(),
    };

    private const string Day =
        @"\d{4}[-/.]\d{1,2}[-/.]\d{1,2}|\d{1,2}[./-]\d{1,2}[./-](?:\d{4}|\d{2})(?!\d)|\d{1,2}\.?\s\p{L}{3,9}\.?,?\s\d{4}|\p{L}{3,9}\.?\s\d{1,2},?\s\d{4}";

    // Whole words: "Martin 02/11/2026" begins with a name.
    private const string Weekday =
        "(?i:mon|tue|tues|wed|thu|thur|thurs|fri|sat|sun|(?:mon|tues|wednes|thurs|fri|satur|sun)day|montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonntag|lundi|mardi|mercredi|jeudi|vendredi|samedi|dimanche|lunes|martes|miércoles|jueves|viernes|sábado|domingo)";

    // Not within a word or a number; a day before it, with the name of its weekday or not.
    private const string Before =
        @"(?<![\p{L}\d.:/+-])(?:(?:" + Weekday + @"\.?,?\s)?(?<date>" + Day + @")(?:,|T|\s(?:at|um|kl\.?|klo|à|às))?\s*)?(?:(?:kl\.?|klo|um|at)\s)?";

    // A day behind it, and what says that the message is another than it was.
    private const string Behind =
        @"(?:(?:\s?(?:Uhr|hrs|h)(?![\p{L}\d]))?(?:,?\s+(?<date>" + Day + @"))?(?:\s*[(\[](?:" + SaidByPrograms.EditedWords + @")[)\]])?)";

    [GeneratedRegex(Before + @"(?<clock>\d{1,2}:\d{2}(?::\d{2}(?:[.,]\d{1,7})?)?)(?!\d|:\d)(?<zone>Z|\s?[+-]\d{2}:\d{2})?" + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Colons();

    [GeneratedRegex(
        Before + @"(?:(?<clock>\d{1,2}:\d{2}(?::\d{2})?)\s?(?<half>[AaPp]\.?\s?[Mm]\.?|[FfEe]\.?[Mm]\.?|[IiAa]p\.?|[πμ]\.?μ\.?)(?![\p{L}\d])|(?<half>上午|下午|오전|오후)\s?(?<clock>\d{1,2}:\d{2}(?::\d{2})?))" + Behind,
        RegexOptions.ExplicitCapture)]
    private static partial Regex Halves();

    [GeneratedRegex(Before + @"(?<clock>\d{1,2}\.[0-5]\d(?:\.[0-5]\d)?)(?![\d.:]\d)(?!\d)" + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Dots();

    [GeneratedRegex(Before + @"(?<clock>\d{1,2}\s?[hH]\s?[0-5]\d(?:\s?m(?:in)?\s?[0-5]\d\s?s?)?)(?![\d\p{L}])" + Behind, RegexOptions.ExplicitCapture)]
    private static partial Regex Letters();

    [GeneratedRegex(@"^[\s=*_·•–—-]*(?:" + Weekday + @"\.?,?\s+)?(?:" + Day + @"|(?:\d{1,2}\.?\s\p{L}{3,10}|\p{L}{3,10}\s\d{1,2}))[\s=*_·•:–—-]*$")]
    private static partial Regex DayAlone();
}
