using System.Globalization;

namespace PoliteTally.Core.Ledger;

/// <summary>How long a text in an entry may be, in UTF-16 code units.</summary>
public static class TextLimits
{
    /// <summary>The longest text: 2,000.</summary>
    public const int LongestText = 2000;

    /// <summary>The longest name or reason: 200.</summary>
    public const int LongestName = 200;

    /// <summary>The longest message from a student page: 500.</summary>
    public const int LongestFromPage = 500;

    /// <summary>Why a text is not taken for its length; null if it is.</summary>
    internal static string? TooLong(string? text, string what, int longest) => text?.Length > longest
        ? $"The {what} is too long: at most {longest.ToString(CultureInfo.InvariantCulture)} characters."
        : null;
}
