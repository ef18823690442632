using System.Text.RegularExpressions;

namespace PoliteTally.Core.Names;

/// <summary>What a shown name says beside the name: whether it is one at all, and whose.</summary>
internal enum Speaks
{
    /// <summary>Of the person themselves.</summary>
    OfItself,

    /// <summary>Of a person, but so that it may be another: with a role or a title, with digits for letters, in a genitive.</summary>
    Doubtfully,

    /// <summary>Of somebody who belongs to the person: a relation, whoever that is.</summary>
    OfSomebodyElse,

    /// <summary>Of nobody in particular: a device, a guest, a number.</summary>
    OfNobody,
}

/// <summary>
/// A shown name, taken apart: what is left of it when roles, devices, class tags and the like are taken away, and what those say. Words that are a student's
/// name are a name whatever else they may mean; whether they are, the matcher asks first.
/// </summary>
/// <param name="Speaks">What it says.</param>
/// <param name="Forms">The words that are left, in each way of writing them; none if nothing is.</param>
internal sealed partial record NameReading(Speaks Speaks, IReadOnlyList<IReadOnlyList<string>> Forms)
{
    /// <summary>The name as it stands, nothing taken away but brackets, pronouns and class tags; with ö as oe, with humps parted.</summary>
    public static NameReading Whole(string shown)
    {
        var text = ClassTag().Replace(shown, " ");
        var doubtful = DigitWithin().IsMatch(text);
        return new(doubtful ? Speaks.Doubtfully : Speaks.OfItself, doubtful ? [.. Undigited(text).Select(NameFolding.Tokens)] : FormsOf(text));
    }

    /// <summary>The name with everything taken away that is none.</summary>
    /// <param name="shown">The name as shown.</param>
    /// <param name="isName">Whether somebody on the roster is called so: then it is a name, and no role or relation.</param>
    public static NameReading Stripped(string shown, Func<string, bool> isName)
    {
        var text = ClassTag().Replace(NameFolding.Straight(shown), " ");
        if (Possessive().Match(text) is { Success: true } owned)
        {
            return Owned(owned.Groups[1].Value, owned.Groups[2].Value, isName);
        }

        // What stands in brackets says who it is as often as what they are: "Mum (Barney)", "Robin Adler (Host)".
        var bare = Brackets().Replace(text, " $1 ");
        var words = NameFolding.Tokens(bare);
        var beside = words.Where(w => !isName(w)).ToHashSet(StringComparer.Ordinal);
        var rest = words.Where(w => !beside.Contains(w) || (!IsBeside(w) && !NameWords.Nobody.Contains(w))).ToList();
        var (device, relation) = (beside.Overlaps(NameWords.Devices), beside.Overlaps(NameWords.Relations));
        if (device || relation)
        {
            rest = [.. rest.Where(w => !NameWords.Between.Contains(w))];
        }

        if (rest.Count == 0)
        {
            return new(relation ? Speaks.OfSomebodyElse : Speaks.OfNobody, []);
        }

        // "Mrs Adler" is hardly the student.
        var titled = beside.Overlaps(NameWords.Titles);
        if (relation || (titled && rest.Count == 1))
        {
            return new(Speaks.OfSomebodyElse, [rest]);
        }

        return new(titled || beside.Overlaps(NameWords.WeightyRoles) || DigitWithin().IsMatch(text) ? Speaks.Doubtfully : Speaks.OfItself, [rest]);
    }

    /// <summary>A word that ends as a genitive does, without its ending; null if it does not. "Robins telefon", "Robinin puhelin".</summary>
    public static string? WithoutGenitive(string word) => Genitive().Match(word) is { Success: true } found ? found.Groups[1].Value : null;

    /// <summary>Whether what stands in brackets says that it may not be the person themselves.</summary>
    public static bool IsOtherwiseInBrackets(string shown) => Brackets().Matches(shown).SelectMany(m => NameFolding.Tokens(m.Groups[1].Value))
        .Any(w => NameWords.Relations.Contains(w) || NameWords.WeightyRoles.Contains(w) || NameWords.Titles.Contains(w));

    private static NameReading Owned(string owner, string what, Func<string, bool> isName)
    {
        var ownerWords = NameFolding.Tokens(owner);
        var things = NameFolding.Tokens(what);
        if (ownerWords.All(w => IsBeside(w) && !isName(w)))
        {
            // "Teacher's pet Robin Adler": nobody of the roster owns anything here.
            return new(Speaks.Doubtfully, [things]);
        }

        return things.Count == 0 || things.Any(NameWords.IsOwnedDevice)
            ? new(Speaks.OfItself, FormsOf(owner))
            : new(Speaks.OfSomebodyElse, [ownerWords]);
    }

    private static bool IsBeside(string word) =>
        NameWords.Devices.Contains(word) || NameWords.PlainRoles.Contains(word) || NameWords.WeightyRoles.Contains(word)
        || NameWords.Titles.Contains(word) || NameWords.Relations.Contains(word);

    private static IReadOnlyList<string>[] FormsOf(string text) =>
        [NameFolding.Tokens(text), NameFolding.DigraphTokens(text), NameFolding.Tokens(CamelHumps(text))];

    private static string CamelHumps(string name) =>
        string.Concat(name.Select((c, i) => i > 0 && char.IsUpper(c) && char.IsLower(name[i - 1]) ? $" {c}" : c.ToString()));

    // A one is an i or an l; the rest stands for one letter.
    private static IEnumerable<string> Undigited(string text) => new[] { 'i', 'l' }.Select(one => DigitWithin().Replace(text, m => string.Concat(m.Value.Select(d => d switch
    {
        '0' => 'o',
        '1' => one,
        '3' => 'e',
        '4' => 'a',
        '5' => 's',
        '7' => 't',
        '8' => 'b',
        _ => d,
    }))));

    // "9A", "10-b", "Y9": a word of its own, of one or two digits with a letter or two.
    [GeneratedRegex(@"(?<![\p{L}\p{N}])(?:\d{1,2}[-./]?\p{L}{1,2}|\p{L}[-.]?\d{1,2}\p{L}?)(?![\p{L}\p{N}])")]
    private static partial Regex ClassTag();

    [GeneratedRegex(@"(?<=\p{L})[0134578]+(?=\p{L})")]
    private static partial Regex DigitWithin();

    // "Toby's tablet", "James' phone", 蓮のiPad, 梓涵的手机: whatever is owned, a device or a person.
    [GeneratedRegex(@"^\s*(.+?)(?:'s|(?<=[sxzSXZ])'|の|的)(?:\s+|(?<=[の的]))(.*)$")]
    private static partial Regex Possessive();

    [GeneratedRegex(@"[(\[{]([^)\]}]*)[)\]}]?")]
    private static partial Regex Brackets();

    [GeneratedRegex(@"^(\p{L}{3,}?)(?:s|es|ens|in|n|a|u|e|y|ova|inha)$")]
    private static partial Regex Genitive();
}
