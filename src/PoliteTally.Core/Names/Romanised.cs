using System.Text;
using AnyAscii;

namespace PoliteTally.Core.Names;

/// <summary>
/// Names across scripts: in Latin letters by AnyAscii (which reads Han letters as in Mandarin), and as a key in which the usual ways of romanising one name
/// meet. The key is made for names that are written in one of many ways, not for sounds; two names of one key can still be two names.
/// </summary>
internal static class Romanised
{
    // Longest first; each is put in place of all that stands there, from left to right.
    private static readonly (string Written, string Key)[] Folds =
    [
        ("tsch", "c"), ("tch", "c"), ("sch", "s"), ("dzh", "j"), ("shch", "sc"), ("zh", "z"), ("sh", "s"), ("ch", "c"), ("kh", "h"), ("gh", "g"), ("ph", "f"), ("th", "t"),
        ("ts", "c"), ("tz", "c"), ("cz", "c"), ("sz", "s"), ("dj", "j"), ("ck", "k"), ("qu", "k"), ("ou", "u"), ("oo", "u"), ("ee", "i"), ("ij", "i"),
        ("x", "ks"), ("q", "k"), ("w", "v"), ("y", "i"), ("j", "i"),
    ];

    /// <summary>A folded word in small Latin letters; the word itself if it is.</summary>
    public static string Latin(string word) =>
        // Read letter by letter, the Greek for "ou" would become "oy".
        word.All(char.IsAscii) ? word : string.Concat(word.Replace("ου", "ou", StringComparison.Ordinal).Transliterate().Where(char.IsAsciiLetter)).ToLowerInvariant();

    /// <summary>What different ways of writing one name have in common.</summary>
    public static string Key(string word)
    {
        var latin = Latin(word);
        var key = new StringBuilder(latin.Length);
        for (var i = 0; i < latin.Length;)
        {
            var (length, next) = At(latin, i);
            i += length;
            // Doubled letters count once, and an h after a vowel is not heard.
            if (key.Length > 0 && (key[^1] == next[0] || (next == "h" && key[^1] is 'a' or 'e' or 'i' or 'o' or 'u' && (i == latin.Length || latin[i] is not ('a' or 'e' or 'i' or 'o' or 'u')))))
            {
                next = next[1..];
            }

            key.Append(next);
        }

        return key.ToString();
    }

    private static (int Length, string Key) At(string latin, int i)
    {
        foreach (var (written, fold) in Folds)
        {
            if (string.CompareOrdinal(latin, i, written, 0, written.Length) == 0)
            {
                return (written.Length, fold);
            }
        }

        // A c is a k but before a light vowel.
        return (1, latin[i] == 'c' && !(i + 1 < latin.Length && latin[i + 1] is 'e' or 'i' or 'y') ? "k" : latin[i].ToString());
    }
}
