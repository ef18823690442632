using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Names;

/// <summary>
/// Brings a name to a form in which two spellings of it are equal: case, accents, width, punctuation, pronouns and roles
/// in brackets, emoji, and "Last, First". Whose a device or a relation is, <see cref="NameReading"/> says.
/// </summary>
public static partial class NameFolding
{
    // Letters that Unicode does not take apart into a base and an accent.
    private static readonly Dictionary<char, string> Letters = new()
    {
        ['ø'] = "o",
        ['đ'] = "d",
        ['ð'] = "d",
        ['þ'] = "th",
        ['æ'] = "ae",
        ['œ'] = "oe",
        ['ł'] = "l",
        ['ß'] = "ss",
        ['ı'] = "i",
        ['ħ'] = "h",
        ['ŧ'] = "t",
        ['ŋ'] = "n",
        ['ə'] = "e",
        // The two ways in which Arabic and Persian keyboards write one letter.
        ['ي'] = "ی",
        ['ى'] = "ی",
        ['ك'] = "ک",
        ['ة'] = "ه",
    };

    // How the same letters are written by those who have no key for them.
    private static readonly Dictionary<char, string> Digraphs = new()
    {
        ['ä'] = "ae",
        ['ö'] = "oe",
        ['ü'] = "ue",
        ['å'] = "aa",
        ['ø'] = "oe",
    };

    /// <summary>The folded name: lower-case tokens with single spaces between; empty if nothing is left.</summary>
    public static string Fold(string name) => string.Join(' ', Tokens(name));

    /// <summary>The tokens of the folded name, in the order shown, "Last, First" turned round.</summary>
    public static IReadOnlyList<string> Tokens(string name) => Split(Strip(name), Letters);

    /// <summary>As <see cref="Tokens"/>, with ö as oe and the like; equal to them where there is no such letter.</summary>
    public static IReadOnlyList<string> DigraphTokens(string name) => Split(Strip(name), Digraphs);

    /// <summary>
    /// Text that is no name, brought to a form in which two spellings of it are equal: case, accents, width, punctuation and spaces do not
    /// matter; brackets and commas hold nothing back. A minus before a number and the point or comma within one are part of it. What has no
    /// letters and no digits, such as an emoji, stays as it is.
    /// </summary>
    public static string FoldText(string text)
    {
        var sound = Point().Replace(Minus().Replace(Sound(text).Normalize(NormalizationForm.FormKC), " minus "), "point");
        var words = Split(sound, Letters, digits: true);
        return words.Count > 0 ? string.Join(' ', words) : text.Trim();
    }

    /// <summary>
    /// The name as it is remembered: only case, width and spaces do not matter. Two names that fold alike may be two people ("iPhone 12" and "iPhone 15"),
    /// so nothing else is folded.
    /// </summary>
    public static string AsShown(string name) =>
        string.Join(' ', Sound(name).Normalize(NormalizationForm.FormKC).ToLowerInvariant().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    // Half a surrogate pair, as a cut-off name leaves it, is no text that Unicode could fold, and neither is a code point that is no character.
    private static string Sound(string name) => string.Concat(name.EnumerateRunes().Where(r => !CleanText.IsNoCharacter(r)).Select(r => r.ToString()));

    /// <summary>The name with one width and one apostrophe.</summary>
    internal static string Straight(string name) =>
        Sound(name).Normalize(NormalizationForm.FormKC).Replace('’', '\'').Replace('`', '\'').Replace('´', '\'').Replace('ʼ', '\'');

    private static string Strip(string name)
    {
        var text = Straight(name);
        var outside = Brackets().Replace(text, " ");
        text = outside.Trim().Length > 0 ? outside : text;
        text = Pronouns().Replace(text, " ");
        return text.Split(',') is [var last, var first] && last.Trim().Length > 0 && first.Trim().Length > 0
            ? $"{first} {last}"
            : text;
    }

    private static List<string> Split(string text, Dictionary<char, string> letters, bool digits = false)
    {
        var folded = new StringBuilder(text.Length);
        // The invariant culture knows no small letter for İ.
        foreach (var rune in text.Replace('İ', 'i').ToLowerInvariant().Normalize(NormalizationForm.FormC).EnumerateRunes())
        {
            // Most letters are of these, and need not be taken apart.
            if (rune.IsAscii)
            {
                var letter = (char)rune.Value;
                if (char.IsAsciiLetter(letter) || (digits && char.IsAsciiDigit(letter)))
                {
                    folded.Append(letter);
                }
                else if (letter != '\'')
                {
                    folded.Append(' ');
                }

                continue;
            }

            if (rune.IsBmp && (letters.TryGetValue((char)rune.Value, out var plain) || Letters.TryGetValue((char)rune.Value, out plain)))
            {
                folded.Append(plain);
                continue;
            }

            foreach (var part in rune.ToString().Normalize(NormalizationForm.FormD).EnumerateRunes())
            {
                folded.Append(Rune.GetUnicodeCategory(part) switch
                {
                    // Beside Latin, Greek, Cyrillic, Hebrew and Arabic letters marks are left out by many; elsewhere they are the vowels, or half of a letter.
                    UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark => part.Value is (>= 0x0900 and < 0x1AB0) or 0x3099 or 0x309A ? part.ToString() : "",
                    // Which way to write, and where not to join letters.
                    UnicodeCategory.Format => "",
                    // The okina and its like are letters to Unicode and left out by most keyboards, as apostrophes are.
                    UnicodeCategory.ModifierLetter => "",
                    _ when part.Value == '\'' => "",
                    _ when Rune.IsLetter(part) || (digits && Rune.IsNumber(part)) => part.ToString(),
                    _ => " ",
                });
            }
        }

        return [.. folded.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries)];
    }

    [GeneratedRegex(@"(?<![\p{L}\p{N}])[-−](?=\p{Nd})")]
    private static partial Regex Minus();

    [GeneratedRegex(@"(?<=\p{Nd})[.,](?=\p{Nd})")]
    private static partial Regex Point();

    [GeneratedRegex(@"\([^)]*\)?|\[[^\]]*\]?|\{[^}]*\}?")]
    private static partial Regex Brackets();

    [GeneratedRegex(@"\b(she|he|they|xe|ze)\s*/\s*(her|hers|him|his|them|theirs|they|xem|zir)(\s*/\s*\w+)?\b", RegexOptions.IgnoreCase)]
    private static partial Regex Pronouns();
}
