using System.Globalization;
using PoliteTally.Core.Names;

namespace PoliteTally.Bench;

/// <summary>How quickly names are matched, and how well: a made-up school, so that a change of a rule can be judged.</summary>
internal static class NameBench
{
    private const int Seed = 20261126;

    public static void Run()
    {
        var names = new MadeUpNames(Seed);
        var school = names.Roster(1000);
        var shown = Enumerable.Range(0, 2000).Select(_ => new ShownName(names.Sighted(school).Shown)).ToList();
        var (matching, folding) = (
            Figures.Milliseconds(() => new NameMatcher(school, []).Match(shown), times: 5),
            Figures.Milliseconds(() => shown.ForEach(s => NameFolding.Fold(s.Name)), times: 5));
        Figures.Row("2,000 names matched with 1,000 students", Figures.Of(matching, "ms", "0"), $"folding the names {Figures.Of(folding, "ms", "0.0")}", matching / folding);

        var told = new List<(Sighting Seen, NameMatch Match)>();
        foreach (var _ in Enumerable.Range(0, 200))
        {
            var roster = names.Roster(30);
            var matcher = new NameMatcher(roster, []);
            told.AddRange(Enumerable.Range(0, 40).Select(_ => names.Sighted(roster)).Select(s => (s, matcher.Match(new ShownName(s.Shown)))));
        }

        Console.WriteLine();
        Console.WriteLine($"Classes of 30, {told.Count:N0} names, seed {Seed}:");
        Console.WriteLine();
        Console.WriteLine("| kind | names | taken, right | taken, wrong | proposed first | proposed, another first | not known |");
        Console.WriteLine("|---|---|---|---|---|---|---|");
        foreach (var kind in told.GroupBy(t => t.Seen.Kind).OrderBy(g => g.Key, StringComparer.Ordinal).Append(told.GroupBy(_ => "all").Single()))
        {
            Console.WriteLine($"| {kind.Key} | {kind.Count()} | {string.Join(" | ", Enum.GetValues<Outcome>().Select(o => Share(kind.Count(t => Of(t.Seen, t.Match) == o), kind.Count())))} |");
        }

        var taken = told.Where(t => t.Match.Certainty == Certainty.Sure).ToList();
        var students = told.Where(t => t.Seen.Student is not null).ToList();
        Console.WriteLine();
        Console.WriteLine($"Of the names taken {Share(taken.Count(t => t.Match.Student == t.Seen.Student), taken.Count)} are right; of students' names {Share(students.Count(t => Of(t.Seen, t.Match) is Outcome.TakenRight or Outcome.First), students.Count)} are taken rightly or proposed first.");
        foreach (var (seen, match) in taken.Where(t => t.Match.Student != t.Seen.Student).Take(10))
        {
            Console.WriteLine($"- {seen.Kind}: “{seen.Shown}”, by {match.By}");
        }
    }

    private enum Outcome
    {
        TakenRight,
        TakenWrong,
        First,
        NotFirst,
        Unknown,
    }

    private static Outcome Of(Sighting seen, NameMatch match) => match.Certainty switch
    {
        Certainty.Sure => match.Student == seen.Student ? Outcome.TakenRight : Outcome.TakenWrong,
        Certainty.Likely => match.Student == seen.Student ? Outcome.First : Outcome.NotFirst,
        _ => Outcome.Unknown,
    };

    private static string Share(int part, int of) => (100.0 * part / Math.Max(1, of)).ToString("0.0", CultureInfo.InvariantCulture) + " %";
}
