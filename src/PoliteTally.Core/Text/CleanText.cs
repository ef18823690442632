using System.Globalization;
using System.Text;

namespace PoliteTally.Core.Text;

/// <summary>Text from elsewhere, fit to stand in a line with other text.</summary>
public static class CleanText
{
    /// <summary>
    /// The text without control characters and without those that override or embed a direction of writing; line breaks and tabs become spaces.
    /// Marks that letters of a script need (joiners, and the marks of direction without extent) stay.
    /// </summary>
    public static string Of(string text)
    {
        var clean = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            if (rune.Value is '\n' or '\r' or '\t' or 0x2028 or 0x2029)
            {
                clean.Append(' ');
            }
            else if (!IsUnshowable(rune))
            {
                clean.Append(rune.ToString());
            }
        }

        return clean.ToString().Trim();
    }

    /// <summary>Whether a text has nothing to take out; line breaks and tabs are fine.</summary>
    public static bool IsClean(string text) => !text.EnumerateRunes().Any(r => r.Value is not ('\n' or '\r' or '\t') && IsUnshowable(r));

    /// <summary>Whether a text shows nothing: it is empty, or all of it is white space, control characters and marks without extent.</summary>
    public static bool IsBlank(string text) => text.EnumerateRunes().All(r =>
        Rune.IsWhiteSpace(r) || Rune.GetUnicodeCategory(r) is UnicodeCategory.Control or UnicodeCategory.Format);

    // U+202A–U+202E and U+2066–U+2069 turn or embed a direction; half a surrogate pair reads as U+FFFD, which is harmless.
    private static bool IsUnshowable(Rune rune) =>
        Rune.GetUnicodeCategory(rune) == UnicodeCategory.Control || rune.Value is (>= 0x202A and <= 0x202E) or (>= 0x2066 and <= 0x2069);
}
