using System.Buffers;
using System.Text.RegularExpressions;

namespace PoliteTally.Formats.Lines;

/// <summary>
/// What a program writes beside every name is no part of any: “schrieb”, “says”, a number. It shows by standing beside all of them.
/// </summary>
internal sealed partial class NameEdges
{
    // Of two or three people who share a word it may be their name.
    private const int Fewest = 4;

    // So many of the names have it; the others may be the program's own.
    private const double Mostly = 0.8;

    private const int MostWords = 4;

    private static readonly SearchValues<char> Opening = SearchValues.Create("[<{@#~");
    private static readonly SearchValues<char> Closing = SearchValues.Create("]>}");

    private readonly bool _numbered;
    private readonly string _before = "";
    private readonly string _behind = "";

    /// <summary>Looks at the names of a file.</summary>
    /// <param name="names">Each of its names, once.</param>
    public NameEdges(IReadOnlyCollection<string> names)
    {
        _numbered = names.Count > 1 && names.Count(n => Number().IsMatch(n)) >= Mostly * names.Count;
        var bare = names.Select(n => _numbered ? Number().Replace(n, "") : n).Distinct(StringComparer.Ordinal).ToList();
        if (bare.Count < Fewest)
        {
            return;
        }

        for (var words = 0; words < MostWords && Common(bare, n => n.LastIndexOf(' ') is > 0 and var cut ? n[cut..] : "") is { Length: > 0 } last; words++)
        {
            _behind = last + _behind;
            bare = bare.ConvertAll(n => n.EndsWith(last, StringComparison.OrdinalIgnoreCase) ? n[..^last.Length] : n);
        }

        for (var words = 0; words < MostWords && Common(bare, n => n.IndexOf(' ') is > 0 and var cut ? n[..(cut + 1)] : "") is { Length: > 0 } next; words++)
        {
            _before += next;
            bare = bare.ConvertAll(n => n.StartsWith(next, StringComparison.OrdinalIgnoreCase) ? n[next.Length..] : n);
        }

        // “chat[Juno]”, “@juno”: what is tied to every name by a sign.
        _before += Tied(bare, (one, other) => one.TakeWhile((letter, i) => i < other.Length && letter == other[i]).Count(), length => bare[0].AsSpan(0, length).LastIndexOfAny(Opening) is >= 0 and var sign ? bare[0][..(sign + 1)] : "");
        _behind = Tied(bare, (one, other) => one.Reverse().TakeWhile((letter, i) => i < other.Length && letter == other[^(i + 1)]).Count(), length => bare[0].AsSpan(bare[0].Length - length).IndexOfAny(Closing) is >= 0 and var sign ? bare[0][^(length - sign)..] : "") + _behind;

        static string Tied(List<string> of, Func<string, string, int> same, Func<int, string> cut) => of.Min(n => same(of[0], n)) is > 0 and var length ? cut(length) : "";

        string Common(List<string> of, Func<string, string> edge)
        {
            var most = of.CountBy(edge, StringComparer.OrdinalIgnoreCase).MaxBy(e => e.Value);
            return most.Key.Length > 0 && most.Value >= Mostly * of.Count ? most.Key : "";
        }
    }

    /// <summary>A name without what stands beside all of them.</summary>
    public string Without(string name)
    {
        name = _numbered ? Number().Replace(name, "") : name;
        if (_behind.Length > 0 && name.EndsWith(_behind, StringComparison.OrdinalIgnoreCase))
        {
            name = name[..^_behind.Length];
        }

        return (_before.Length > 0 && name.StartsWith(_before, StringComparison.OrdinalIgnoreCase) ? name[_before.Length..] : name).Trim().TrimEnd(',');
    }

    [GeneratedRegex(@"^\s*\d{1,4}\s?[.)]\s+")]
    private static partial Regex Number();
}
