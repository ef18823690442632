using System.Buffers;
using System.Globalization;
using System.Text;

namespace PoliteTally.Core.Text;

/// <summary>Text from elsewhere, fit to stand in a line with other text.</summary>
public static class CleanText
{
    /// <summary>
    /// The text without control characters, code points that are no characters, and those that override or embed a direction of writing; line breaks and tabs become spaces.
    /// Marks that letters of a script need (joiners, and the marks of direction without extent) stay.
    /// </summary>
    public static string Of(string text)
    {
        // Most text has nothing to take out, and there is much of it in large files.
        if (!text.AsSpan().ContainsAny(Suspects))
        {
            return text.Trim();
        }

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
    public static bool IsBlank(string text) => (text.Length == 0 || !char.IsLetterOrDigit(text[0])) && text.EnumerateRunes().All(r =>
        Rune.IsWhiteSpace(r) || Rune.GetUnicodeCategory(r) is UnicodeCategory.Control or UnicodeCategory.Format);

    // All that is taken out, and halves of surrogate pairs, which may be part of it.
    private static readonly SearchValues<char> Suspects = SearchValues.Create(
        string.Concat(Enumerable.Range(0xFDD0, 0x20).Concat([0xFFFE, 0xFFFF]).Concat(Enumerable.Range(0, 0x20)).Concat(Enumerable.Range(0x7F, 0x21)).Concat([0x2028, 0x2029]).Concat(Enumerable.Range(0x202A, 5)).Concat(Enumerable.Range(0x2066, 4))
            .Concat(Enumerable.Range(0xD800, 0x800)).Select(c => (char)c)));

    /// <summary>Whether a code point is no character: U+FDD0 to U+FDEF and the last two of each plane (The Unicode Standard, 23.7). Text that has one cannot be normalised.</summary>
    internal static bool IsNoCharacter(Rune rune) => rune.Value is (>= 0xFDD0 and <= 0xFDEF) || (rune.Value & 0xFFFE) == 0xFFFE;

    // U+202A–U+202E and U+2066–U+2069 turn or embed a direction; half a surrogate pair reads as U+FFFD, which is harmless.
    private static bool IsUnshowable(Rune rune) =>
        Rune.GetUnicodeCategory(rune) == UnicodeCategory.Control || rune.Value is (>= 0x202A and <= 0x202E) or (>= 0x2066 and <= 0x2069)
        || IsNoCharacter(rune);
}
