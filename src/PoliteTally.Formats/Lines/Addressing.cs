using System.Text.RegularExpressions;

namespace PoliteTally.Formats.Lines;

/// <summary>Who speaks to whom in a chat: what stands before the words, taken apart.</summary>
/// <remarks>
/// Short words of a language are parts of names in another ("Ana do Carmo", "An Thi", "Til Brand"), so a name of the class, or one that
/// speaks by itself elsewhere in the file, stays whole; a word parts them if it is seen to do that in this file.
/// </remarks>
internal sealed partial class Addressing
{
    // What is sent to everybody, in the languages of those who wrote this; in any other it is whom most messages go to.
    private static readonly HashSet<string> Everybody =
    [
        "everyone", "everybody", "all", "class", "theclass", "wholeclass", "group", "meeting", "public", "participants", "allparticipants", "channel", "room", "alle", "allen", "jeder", "tous", "toutlemonde", "todos", "todas", "todoelmundo",
        "tutti", "iedereen", "alla", "wszyscy", "wszystkich", "kaikki", "kaikille", "öll", "allir", "öllum", "øll", "øllum", "всем", "все", "大家", "所有人", "全員", "모두", "الجميع", "כולם", "herkes", "сите", "όλοι", "όλους",
    ];

    // What only one person sees.
    private static readonly HashSet<string> Secret = ["private", "privately", "directmessage", "direct", "dm", "privat", "privé", "privado", "privato", "onlyyou", "you", "me", "toyou", "tome", "mich", "dich", "moi", "toi", "mí", "ti"];

    private readonly Func<string, bool> _isNameHere;
    private readonly HashSet<string> _alone = new(StringComparer.OrdinalIgnoreCase);
    private readonly HashSet<string> _words = new(StringComparer.OrdinalIgnoreCase);
    private readonly string? _from;
    private readonly Dictionary<string, (string Name, string To)?> _known = new(StringComparer.Ordinal);

    // So many names are asked of the class; more are in none.
    private const int MostAsked = 2_000;

    /// <summary>Looks at what stands before the words in some messages of a file.</summary>
    /// <param name="whos">That.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public Addressing(IReadOnlyList<string> whos, Func<string, bool> isNameHere)
    {
        _isNameHere = isNameHere;
        // "From Ana to all": a word before most names is none of them.
        var addressed = whos.Where(w => Between().IsMatch(w)).ToList();
        var begun = addressed.Count > 0 ? addressed : whos;
        _from = begun.Select(w => FromWord().Match(w)).Where(m => m.Success).GroupBy(m => m.Value.Trim(), StringComparer.OrdinalIgnoreCase)
            .FirstOrDefault(g => g.Count() * 2 > begun.Count && begun.Count > 1)?.Key;
        var stripped = whos.Select(WithoutFrom).ToList();
        _alone.UnionWith(stripped.Where(w => !Between().IsMatch(w)));
        foreach (var (who, word, _, to) in stripped.SelectMany(w => Splits(w).Select(s => (w, s.Word, s.Name, s.To))))
        {
            if (IsEverybody(to) || (_alone.Contains(to) && !isNameHere(who)))
            {
                _words.Add(word);
            }
        }
    }

    /// <summary>Whether messages to somebody are for everybody to see.</summary>
    public static bool IsEverybody(string to) => to.Length == 0 || AndOthers().Split(to).Any(part => Everybody.Contains(Columns.Fold(InMeeting().Replace(part, ""))));

    /// <summary>Whether only one person sees what is sent so.</summary>
    public static bool IsSecret(string to) => Secret.Contains(Columns.Fold(to));

    /// <summary>Who it is and to whom, empty for everybody; null if nobody is named.</summary>
    public (string Name, string To)? Of(ReadOnlySpan<char> who)
    {
        var known = _known.GetAlternateLookup<ReadOnlySpan<char>>();
        return known.TryGetValue(who, out var found) ? found : known[who] = TakenApart(who.ToString());
    }

    /// <summary>Whether somebody of the class may be called so.</summary>
    public bool IsHere(string name) => _known.Count <= MostAsked && _isNameHere(name);

    private (string Name, string To)? TakenApart(string who)
    {
        var whole = WithoutFrom(who.Trim().TrimEnd(':', '-', '–', '—', '|', ',').Trim());
        if (whole.Length == 0)
        {
            return null;
        }

        // "Ana (to Tamsin only)", "Ana to Tamsin (privately)": in brackets stands whom it goes to, or what else somebody is.
        if (InBrackets().Match(whole) is { Success: true } brackets && Addressee(brackets.Groups["what"].Value) is { } said)
        {
            return Split(whole[..brackets.Index].Trim()) is var (name, to) && to.Length > 0 ? (name, to) : (name, said);
        }

        return Split(whole);
    }

    private (string Name, string To) Split(string whole)
    {
        // The last word that parts them, so that one within the name does not.
        var split = Splits(whole).LastOrDefault(s =>
            IsEverybody(s.To) || _alone.Contains(s.To) || (_alone.Contains(s.Name) && !(IsHere(whole) && IsHere(s.To))) || _words.Contains(s.Word) || IsToSomebody(s.Word, s.Name, s.To));
        return split.To is null ? (whole, "") : (split.Name, split.To);
    }

    // Nothing in the file says so: "Ana to Tamsin" is parted if Ana is of the class and Tamsin is no part of her name.
    private bool IsToSomebody(string word, string name, string to) => IsArrow(word) ? IsHere(to) || IsHere(name) : IsHere(name) && !IsHere(to);

    private static bool IsArrow(string word) => !char.IsLetter(word[0]);

    // What brackets behind a name say of whom it is for; null if they say something else of somebody.
    private static string? Addressee(string what)
    {
        if (IsSecret(what))
        {
            return what;
        }

        return ToWord().Match(what) is { Success: true } word ? Only().Replace(what[word.Length..], "").Trim() : null;
    }

    private string WithoutFrom(string who) => _from is not null && who.Length > _from.Length && who.StartsWith(_from, StringComparison.OrdinalIgnoreCase) && char.IsWhiteSpace(who[_from.Length])
        ? who[_from.Length..].Trim()
        : who;

    private static IEnumerable<(string Word, string Name, string To)> Splits(string who)
    {
        for (var match = Between().Match(who); match.Success; match = match.NextMatch())
        {
            var (name, to) = (who[..match.Index].Trim(), who[(match.Index + match.Length)..].Trim());
            if (name.Length > 0 && to.Length > 0)
            {
                yield return (match.Value.Trim(), name, to);
            }
        }
    }

    [GeneratedRegex(@"^(?:from|von|de|da|från|fra|van|od|от|di)\s+", RegexOptions.IgnoreCase)]
    private static partial Regex FromWord();

    // White space around it stays where it is, so that two of them may share one.
    [GeneratedRegex(@"\s(?:to|an|à|a|para|til|till|aan|do|für|for|pour|voor|ao|naar|кому|для)(?=\s)|\s*(?:→|⇒|➔|➜|->|-->|=>|>>|>|»|›)\s*", RegexOptions.IgnoreCase)]
    private static partial Regex Between();

    [GeneratedRegex(@"^(?:(?:only|private(?:ly)?|direct(?: message)?|nur|privat)[,:]?\s+)?(?:to|an|à|a|para|til|till|aan|do|für|for|pour|→|->|>)\s+", RegexOptions.IgnoreCase)]
    private static partial Regex ToWord();

    [GeneratedRegex(@"\s*,?\s*(?:only|privately|private|nur|seulement|solo|alone|allein)$", RegexOptions.IgnoreCase)]
    private static partial Regex Only();

    [GeneratedRegex(@"\s*[(\[](?<what>[^()\[\]]{2,120})[)\]]$")]
    private static partial Regex InBrackets();

    // "Everyone (in meeting)", "Everyone in Meeting".
    [GeneratedRegex(@"\s+(?:\([^()]{1,30}\)|in (?:the )?\p{L}{1,15})\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex InMeeting();

    [GeneratedRegex(@"\s*(?:[,;&/]|\band\b|\bund\b|\bet\b|\by\b)\s*", RegexOptions.IgnoreCase)]
    private static partial Regex AndOthers();
}
