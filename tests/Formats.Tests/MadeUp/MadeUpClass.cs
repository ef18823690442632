using PoliteTally.Core.Names;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>The class that made-up files are of: that of the demo school, and some whose names hold short words of other languages.</summary>
public sealed class MadeUpClass
{
    /// <summary>Who teaches it, and is nobody of it.</summary>
    public const string Teacher = "Tamsin Vale";

    /// <summary>Given and family names.</summary>
    public static readonly IReadOnlyList<(string Given, string Family)> Students =
    [
        ("Ify", "Abernethy-Okafor"), ("Birkir", "Árnason"), ("Cormac", "Bellweather"), ("Rowan", "Bellweather"), ("Ximena", "Castellanos Ruiz"), ("Tiago", "D'Ambrosio-Lund"),
        ("Saga", "Eriksdotter"), ("Pip", "Farrow"), ("Wojtek", "Grzelak"), ("Toby", "Hollis"), ("Meenu", "Iyengar"), ("Liezel", "Jansen van Wyk"), ("Nohea", "Kalaniʻōpuʻu"),
        ("Rowan", "Lindqvist"), ("Cat", "MacAskill"), ("Sipho", "Mbeki-Thorne"), ("Tram", "Nguyễn"), ("Diarmuid", "Ó Flannagáin"), ("Ana", "Petrosyan"), ("Juno", "Quillfeather"),
        ("Eino", "Rautio"), ("Ingvild", "Sørbø"), ("Dewi", "Suharto"), ("Kensa", "Tremayne"), ("Zainab", "Usman"), ("蓮", "渡辺"), ("Barney", "Whitlock"), ("Çağla", "Yıldız"),
        ("Amund", "Vik"), ("Benta", "do Carmo"), ("Thi", "An Pham"), ("Til", "Brandt"), ("Pmela", "Para"), ("Ebbe", "från Torp"),
    ];

    private readonly NameMatcher _matcher = new(Students.Select((s, i) => new RosterName(new Guid(i + 1, 0, 0, new byte[8]), s.Given, s.Family)), []);
    private readonly Dictionary<string, bool> _known = new(StringComparer.Ordinal);

    /// <summary>Whether somebody of it may be called so, as the program asks that.</summary>
    public bool IsNameHere(string name) =>
        _known.TryGetValue(name, out var known) ? known : _known[name] = _matcher.Match(new ShownName(name)).Certainty != Certainty.Unknown;
}
