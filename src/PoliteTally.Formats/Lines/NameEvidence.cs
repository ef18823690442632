using PoliteTally.Core.Ledger;

namespace PoliteTally.Formats.Lines;

/// <summary>How much speaks for a place of a file being that of names: a name of the class is surest, then what comes again and again.</summary>
internal static class NameEvidence
{
    // What a name counts that the class knows, that comes again, and that could be one.
    private const double Known = 1;
    private const double Again = 0.6;
    private const double Possible = 0.25;

    // No name has more words or digits, and no sentence is one, but for what is short: "Ana P."
    private const int MostWords = 7;
    private const int MostDigits = 6;
    private const int Short = 12;

    /// <summary>What each of some names counts, from 0 to 1.</summary>
    public static IEnumerable<double> Of(IReadOnlyList<string> names, Func<string, bool> isNameHere)
    {
        var times = names.CountBy(n => n).ToDictionary(n => n.Key, n => n.Value);
        return names.Select(name => !CouldBeName(name) ? 0 : isNameHere(name) ? Known : times[name] > 1 ? Again : Possible);
    }

    private static bool CouldBeName(string name) => name.Length is > 0 and <= TextLimits.LongestName && name.Any(char.IsLetter) && name.Count(char.IsDigit) <= MostDigits
        && (name.Length <= Short || name[^1] is not ('.' or '!' or '?' or '…')) && name.Count(c => c == ' ') < MostWords && !name.Contains("://", StringComparison.Ordinal);
}
