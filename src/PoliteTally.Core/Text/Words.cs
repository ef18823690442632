using System.Globalization;
using NodaTime;

namespace PoliteTally.Core.Text;

/// <summary>Numbers in plain words, the same on the live sheet, in an explanation and in a file.</summary>
public static class Words
{
    /// <summary>A number with as few places as it needs, at most two.</summary>
    public static string Plain(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>A number rounded as scores are shown: to whole numbers, half away from zero.</summary>
    public static int Shown(decimal score) => (int)Math.Round(score, MidpointRounding.AwayFromZero);

    /// <summary>"1 nod", "2 nods".</summary>
    public static string Count(int count, string noun) => count == 1 ? $"1 {noun}" : $"{count} {noun}s";

    /// <summary>Whole minutes, half away from zero, with the unit.</summary>
    public static string Minutes(Duration length) =>
        $"{Math.Round(length.TotalMinutes, MidpointRounding.AwayFromZero).ToString(CultureInfo.InvariantCulture)} min";
}
