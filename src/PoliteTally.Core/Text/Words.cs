using System.Globalization;
using NodaTime;

namespace PoliteTally.Core.Text;

/// <summary>Numbers in plain words, the same on the live sheet, in an explanation and in a file.</summary>
public static class Words
{
    private static readonly string[] Small = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];

    /// <summary>A whole number as a person writes it in a sentence: in letters up to twelve, "no" for nothing.</summary>
    public static string InLetters(int number) => number >= 0 && number < Small.Length ? Small[number] : number.ToString(CultureInfo.InvariantCulture);

    /// <summary>"one lesson", "two lessons", "14 lessons".</summary>
    public static string Several(int number, string noun) => $"{InLetters(number)} {noun}{(number == 1 ? "" : "s")}";

    /// <summary>"once", "twice", "three times", "14 times".</summary>
    public static string Times(int number) => number switch
    {
        1 => "once",
        2 => "twice",
        _ => $"{InLetters(number)} times",
    };

    /// <summary>With a capital.</summary>
    public static string Capital(string text) => text.Length == 0 ? text : $"{char.ToUpperInvariant(text[0])}{text[1..]}";

    /// <summary>A sentence: with a capital and a full stop.</summary>
    public static string Sentence(string text) => $"{Capital(text)}.";

    /// <summary>"a", "a and b", "a, b and c"; what is empty is left out.</summary>
    public static string Listed(IEnumerable<string> parts)
    {
        var all = parts.Where(p => p.Length > 0).ToList();
        return all.Count < 2 ? string.Concat(all) : $"{string.Join(", ", all[..^1])} and {all[^1]}";
    }

    /// <summary>A number with as few places as it needs, at most two.</summary>
    public static string Plain(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>A number rounded as scores are shown: to whole numbers, half away from zero.</summary>
    public static int Shown(decimal score) => (int)Math.Round(score, MidpointRounding.AwayFromZero);

    /// <summary>A share, from 0 to 1, in hundredths rounded as scores are: "83 %".</summary>
    public static string Percent(decimal share) => $"{Shown(share * 100)} %";

    /// <summary>A text with at most so many characters; of a longer one the end is left away, which is seen.</summary>
    public static string Cut(string text, int most) => text.Length <= most ? text : $"{text[..(most - 1)]}…";

    /// <summary>"1 nod", "2 nods", "12,000 nods".</summary>
    public static string Count(int count, string noun) => count == 1 ? $"1 {noun}" : $"{count.ToString("N0", CultureInfo.InvariantCulture)} {noun}s";

    /// <summary>Whole minutes, half away from zero.</summary>
    public static int WholeMinutes(Duration length) => (int)Math.Round(length.TotalMinutes, MidpointRounding.AwayFromZero);

    /// <summary>The same with the unit.</summary>
    public static string Minutes(Duration length) => $"{WholeMinutes(length).ToString(CultureInfo.InvariantCulture)} min";

    /// <summary>A time of the day: "09:41".</summary>
    public static string Clock(Instant at, DateTimeZone zone) => at.InZone(zone).TimeOfDay.ToString("HH:mm", CultureInfo.InvariantCulture);
}
