using PoliteTally.Core.Names;

namespace PoliteTally.Core.Chat;

/// <summary>Words of the chat and what they make of a message, from <c>chat-words.txt</c>.</summary>
internal static class MessageWords
{
    private static readonly Dictionary<string, HashSet<string>> Known = Read();
    private static readonly int Longest = Known.Values.SelectMany(v => v).Max(v => v.Count(c => c == ' ')) + 1;

    /// <summary>The words of a text in their order, folded as names are; a comma turns nothing round here.</summary>
    public static IReadOnlyList<string> Of(string text) =>
        NameFolding.Tokens(text.Replace("'", "", StringComparison.Ordinal).Replace("’", "", StringComparison.Ordinal).Replace(',', ' '));

    /// <summary>How many words at the beginning are of a kind, as one of its groups of words; 0 if none are.</summary>
    public static int BeginsWith(IReadOnlyList<string> words, string kind) => At(words, 0, kind);

    /// <summary>Whether words of a kind stand anywhere.</summary>
    public static bool Has(IReadOnlyList<string> words, string kind) => Enumerable.Range(0, words.Count).Any(i => At(words, i, kind) > 0);

    private static int At(IReadOnlyList<string> words, int at, string kind)
    {
        var groups = Known[kind];
        for (var many = Math.Min(Longest, words.Count - at); many > 0; many--)
        {
            if (groups.Contains(string.Join(' ', words.Skip(at).Take(many))))
            {
                return many;
            }
        }

        return 0;
    }

    private static Dictionary<string, HashSet<string>> Read()
    {
        var known = new Dictionary<string, HashSet<string>>(StringComparer.Ordinal);
        foreach (var line in ChatWordsFile.Text.Split('\n'))
        {
            if (line.StartsWith('#') || line.Split(": ", 2) is not [var kind, var groups])
            {
                continue;
            }

            if (!known.TryGetValue(kind, out var words))
            {
                known[kind] = words = new(StringComparer.Ordinal);
            }

            words.UnionWith(groups.Split(" | ").Select(g => string.Join(' ', Of(g))));
        }

        return known;
    }
}
