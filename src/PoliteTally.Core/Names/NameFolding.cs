using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace PoliteTally.Core.Names;

/// <summary>
/// Brings a name to a form in which two spellings of it are equal: case, accents, width, punctuation, pronouns and roles
/// in brackets, emoji, "Last, First", and a device's possessive.
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

    // Whoever is called this is somebody's relation or a member of staff, not the student whose name follows.
    private static readonly HashSet<string> OtherPeople =
    [
        "mr", "mrs", "ms", "miss", "mx", "dr", "prof", "mum", "mom", "mother", "dad", "father", "parent", "guardian",
        "gran", "granny", "grandad", "aunt", "uncle", "teacher", "tutor", "office", "guest", "host",
    ];

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

    /// <summary>True of "Mum (Barney)" and "Barney's mum": somebody, but not the student whose name stands in it.</summary>
    public static bool IsSomebodyElse(string name) =>
        Split(Brackets().Replace(Sound(name), " "), Letters).Any(OtherPeople.Contains);

    // Half a surrogate pair, as a cut-off name leaves it, is no text that Unicode could fold.
    private static string Sound(string name) => string.Concat(name.EnumerateRunes().Select(r => r.ToString()));

    private static string Strip(string name)
    {
        var text = Sound(name).Normalize(NormalizationForm.FormKC).Replace('’', '\'').Replace('`', '\'').Replace('´', '\'');
        var outside = Brackets().Replace(text, " ");
        text = outside.Trim().Length > 0 ? outside : text;
        text = Pronouns().Replace(text, " ");
        text = Possessive().Replace(text, "$1");
        text = DeviceOf().Replace(text, "$1");
        return text.Split(',') is [var last, var first] && last.Trim().Length > 0 && first.Trim().Length > 0
            ? $"{first} {last}"
            : text;
    }

    private static List<string> Split(string text, Dictionary<char, string> letters, bool digits = false)
    {
        var folded = new StringBuilder(text.Length);
        foreach (var rune in text.ToLowerInvariant().Normalize(NormalizationForm.FormC).EnumerateRunes())
        {
            if (rune.IsBmp && (letters.TryGetValue((char)rune.Value, out var plain) || Letters.TryGetValue((char)rune.Value, out plain)))
            {
                folded.Append(plain);
                continue;
            }

            foreach (var part in rune.ToString().Normalize(NormalizationForm.FormD).EnumerateRunes())
            {
                folded.Append(Rune.GetUnicodeCategory(part) switch
                {
                    UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark => "",
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

    // "Toby's tablet", "Toby's old laptop 2": whatever is owned is a device.
    [GeneratedRegex(@"^\s*(.+?)'s(\s+\S+){1,4}\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex Possessive();

    // The same in languages that put the owner last: "Tablet von Toby", "téléphone de Toby".
    [GeneratedRegex(@"^\s*(?:phone|tablet|laptop|computer|pc|telefon|handy|rechner|t[eé]l[eé]phone|tablette|ordinateur|tel[eé]fono|m[oó]vil|tableta|port[aá]til)\s+(?:of|von|de|di|av|til|d')\s*(.+)$", RegexOptions.IgnoreCase)]
    private static partial Regex DeviceOf();
}
