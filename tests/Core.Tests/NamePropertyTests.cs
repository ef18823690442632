using CsCheck;
using PoliteTally.Core.Names;

namespace PoliteTally.Core.Tests;

/// <summary>What always holds of matching, whoever is on the roster.</summary>
public sealed class NamePropertyTests
{
    private static readonly string[] Given_ = ["Wren", "Jan", "Jana", "Sam", "Samuel", "Samira", "Marta", "Robin", "Mei-Ling", "Юлия", "葵", "Pemba", ""];
    private static readonly string[] Family = ["Ashdown", "Holm", "Holmberg", "Berg", "Bakke", "Robin", "王", "Шевченко", "O'Brannigan", ""];

    private static Gen<string> OneOf(params string[] from) => Gen.Int[0, from.Length - 1].Select(i => from[i]);

    private static readonly Gen<List<RosterName>> Rosters = Gen.Select(OneOf(Given_), OneOf(Family)).List[1, 12]
        .Select(names => names.Distinct().Where(n => n.Item1 != n.Item2).Select((n, i) => new RosterName(Given.Id(i + 1), n.Item1, n.Item2)).ToList());

    private static readonly Gen<string> Shown = Gen.Select(
        OneOf(Given_), OneOf(Family), OneOf("{0} {1}", "{1}, {0}", "{0}", "{0} {1} 9A", "{0}'s iPad", "{0}'s mum", "guest {0} {1}", "{0} x", "Mrs {1}", "{0}{1}"),
        (given, family, form) => string.Format(null, form, given, family).Trim());

    [Fact]
    public void The_order_of_the_roster_does_not_matter() => Gen.Select(Rosters, Shown, Gen.Int[0, 999]).Sample((roster, shown, seed) =>
    {
        var shuffled = roster.ToArray();
        new Random(seed).Shuffle(shuffled);
        var (one, other) = (new NameMatcher(roster, []).Match(new ShownName(shown)), new NameMatcher(shuffled, []).Match(new ShownName(shown)));
        return (one.Certainty, one.By, one.Student) == (other.Certainty, other.By, other.Student) && one.Proposals.SequenceEqual(other.Proposals);
    });

    [Fact]
    public void A_stranger_on_the_roster_never_makes_a_match_surer() => Gen.Select(Rosters, Shown, OneOf(Given_), OneOf(Family)).Sample((roster, shown, given, family) =>
    {
        if (given + family == "" || roster.Exists(r => (r.Given, r.Family) == (given, family)))
        {
            return true;
        }

        var stranger = new RosterName(Given.Id(90), given, family);
        var (without, with) = (new NameMatcher(roster, []).Match(new ShownName(shown)), new NameMatcher([.. roster, stranger], []).Match(new ShownName(shown)));
        // Sure of somebody of before only if it was before, too.
        return with.Certainty != Certainty.Sure || with.Student is null || with.Student == stranger.Id || (without.Certainty == Certainty.Sure && without.Student == with.Student);
    });

    [Fact]
    public void A_whole_name_that_is_nobody_else_s_is_theirs() => Rosters.Sample(roster =>
    {
        var matcher = new NameMatcher(roster, []);
        var written = roster.ToLookup(r => Written($"{r.Given}{r.Family}")).Concat(roster.ToLookup(r => Written($"{r.Family}{r.Given}"))).SelectMany(g => g.Select(r => (g.Key, r.Id))).ToLookup(g => g.Key, g => g.Id);
        return roster.TrueForAll(r => written[Written($"{r.Given}{r.Family}")].Distinct().Count() > 1
            || (matcher.Match(new ShownName($"{r.Given} {r.Family}")) is { Certainty: Certainty.Sure } match && match.Student == r.Id));

        static string Written(string name) => string.Concat(NameFolding.Tokens(name));
    });

    [Fact]
    public void Who_is_proposed_first_is_who_is_shown() => Gen.Select(Rosters, Shown.List[1, 8]).Sample((roster, shown) =>
        new NameMatcher(roster, []).Match([.. shown.Select(s => new ShownName(s))]).All(m => m.Certainty != Certainty.Likely || m.Proposals[0] == m.Student));

    [Fact]
    public void Nothing_that_can_be_shown_breaks_it() => Gen.Select(Rosters, Gen.String[Gen.Char, 0, 40]).Sample((roster, shown) =>
        new NameMatcher(roster, [new ConfirmedName(shown, null)]).Match(new ShownName(shown)).Proposals.Count <= 5);
}
