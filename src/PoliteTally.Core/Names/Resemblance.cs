using F23.StringSimilarity;

namespace PoliteTally.Core.Names;

/// <summary>How a word that was shown is like a word of a name, from the nearest to the farthest.</summary>
internal enum Resemblance
{
    /// <summary>Not at all.</summary>
    None,

    /// <summary>The letter it begins with.</summary>
    Initial,

    /// <summary>Alike as a whole, or one the beginning of the other: as often another name as a slip.</summary>
    Alike,

    /// <summary>The beginning of it, three letters or more.</summary>
    Beginning,

    /// <summary>A short form of it by the table.</summary>
    ShortForm,

    /// <summary>A slip of the keyboard: two letters swapped, one doubled, one wrong or missing within a long word.</summary>
    Slip,

    /// <summary>The same in another spelling or script.</summary>
    Respelled,

    /// <summary>The same.</summary>
    Same,
}

/// <summary>What a shown word is to a word of a name, and how much of a match that is, from 0 to 1. Only the order of proposals follows from the weight.</summary>
internal readonly record struct Likeness(Resemblance As, double Weight)
{
    /// <summary>Not at all.</summary>
    public static readonly Likeness None = new(Resemblance.None, 0);
}

/// <summary>A word of a name, with what comparing needs.</summary>
/// <param name="Text">The folded word.</param>
/// <param name="Key">Its key across spellings, see <see cref="Romanised"/>.</param>
internal sealed record NameWord(string Text, string Key)
{
    private const double AlikeFrom = 0.8;
    private const int LongWord = 7;
    private const int ShortestSwapped = 5;
    private const int ShortestRespelled = 3;

    private static readonly JaroWinkler JaroWinkler = new();

    public static NameWord Of(string text) => new(text, Romanised.Key(text));

    /// <summary>How this word, as shown, is like a word of a name.</summary>
    public Likeness To(NameWord name, ShortForms shortForms)
    {
        var (shown, whole) = (Text, name.Text);
        if (shown == whole)
        {
            return new(Resemblance.Same, 1);
        }

        if (shown.Length == 1)
        {
            return whole[0] == shown[0] ? new(Resemblance.Initial, 0.7) : Likeness.None;
        }

        if (Key == name.Key && Key.Length >= ShortestRespelled)
        {
            return new(Resemblance.Respelled, 0.97);
        }

        if (shortForms.IsOf(shown, whole))
        {
            return new(Resemblance.ShortForm, 0.9);
        }

        if (IsSlip(shown, whole))
        {
            return new(Resemblance.Slip, 0.94);
        }

        if (shown.Length >= 3 && whole.StartsWith(shown, StringComparison.Ordinal))
        {
            return new(Resemblance.Beginning, 0.88);
        }

        return Alike(shown, whole);
    }

    // What begins alike and ends otherwise is another name: Mario is not Maria, nor Jane Jan.
    private static bool IsSlip(string shown, string name)
    {
        var (shorter, longer) = shown.Length <= name.Length ? (shown, name) : (name, shown);
        if (longer.Length - shorter.Length > 1 || shorter.Length < 3)
        {
            return false;
        }

        var from = 0;
        while (from < shorter.Length && shorter[from] == longer[from])
        {
            from++;
        }

        if (shorter.Length == longer.Length)
        {
            // Two swapped, or one wrong within; the end of a name is where another name begins.
            var isSwapped = from + 1 < shorter.Length && shorter[from] == longer[from + 1] && shorter[from + 1] == longer[from]
                && string.CompareOrdinal(shorter, from + 2, longer, from + 2, shorter.Length) == 0;
            return isSwapped
                ? shorter.Length >= ShortestSwapped
                : from > 0 && from < shorter.Length - 1 && shorter.Length >= LongWord && string.CompareOrdinal(shorter, from + 1, longer, from + 1, shorter.Length) == 0;
        }

        if (string.CompareOrdinal(shorter, from, longer, from + 1, shorter.Length) != 0)
        {
            return false;
        }

        // One letter more: twice the same, or one within that the other lacks.
        var isDoubled = from > 0 && longer[from] == longer[from - 1];
        return isDoubled ? from < shorter.Length && shorter.Length >= 4 : from > 0 && from < shorter.Length && shorter.Length >= LongWord;
    }

    private static Likeness Alike(string shown, string name)
    {
        if (shown[0] != name[0] || Math.Abs(shown.Length - name.Length) > 4)
        {
            return Likeness.None;
        }

        var alike = JaroWinkler.Similarity(shown, name);
        return (name.Length >= 3 && shown.StartsWith(name, StringComparison.Ordinal)) || (shown.Length == 2 && name.StartsWith(shown, StringComparison.Ordinal)) || alike >= AlikeFrom
            ? new(Resemblance.Alike, 0.85 * alike)
            : Likeness.None;
    }
}
