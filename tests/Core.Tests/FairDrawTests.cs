using CsCheck;
using PoliteTally.Core.Fairness;

namespace PoliteTally.Core.Tests;

public sealed class FairDrawTests
{
    private static DrawCandidate Who(Guid student, int turns, int draws = 0, bool last = false) => new(student, turns, draws, last);

    private static readonly Gen<List<DrawCandidate>> Classes = Gen.Select(Gen.Int[0, 6], Gen.Int[0, 3]).Array[1, 30]
        .Select(all => all.Select((c, i) => Who(Given.Id(i + 1), c.Item1, c.Item2)).ToList());

    [Fact]
    public void Odds_are_one_more_than_what_is_missing_to_the_most_heard_squared()
    {
        // Most turns 2: weights 9, 4 and 1.
        var present = new[] { Who(Given.Juno, 0), Who(Given.Eino, 1), Who(Given.Cormac, 2) };
        var odds = Enumerable.Range(0, 200).Select(seed => FairDraw.Draw(present, DrawManner.LeastHeard, seed)!)
            .GroupBy(d => d.Student).ToDictionary(g => g.Key, g => g.Select(d => d.Odds).Distinct().ShouldHaveSingleItem());
        odds[Given.Juno].ShouldBe(9m / 14);
        odds[Given.Eino].ShouldBe(4m / 14);
        odds[Given.Cormac].ShouldBe(1m / 14);
    }

    [Fact]
    public void Over_many_draws_names_come_as_often_as_their_odds_say()
    {
        var present = new[] { Who(Given.Juno, 0), Who(Given.Eino, 1), Who(Given.Cormac, 2) };
        var juno = Enumerable.Range(0, 14_000).Count(seed => FairDraw.Draw(present, DrawManner.LeastHeard, seed)!.Student == Given.Juno);
        // Nine in fourteen, with five standard deviations to either side.
        juno.ShouldBeInRange(8717, 9283);
    }

    [Fact]
    public void The_same_seed_gives_the_same_name_in_whatever_order_the_class_comes() => Gen.Select(Classes, Gen.Int, Gen.Int).Sample((all, seed, shuffle) =>
        FairDraw.Draw(all, DrawManner.LeastHeard, seed) == FairDraw.Draw([.. all.OrderBy(c => HashCode.Combine(c.Student, shuffle))], DrawManner.LeastHeard, seed));

    [Fact]
    public void Once_round_draws_nobody_twice_before_everybody_once() => Gen.Select(Classes, Gen.Int).Sample((all, seed) =>
    {
        var drawn = FairDraw.Draw(all, DrawManner.OnceRound, seed)!.Student;
        return all.Single(c => c.Student == drawn).Draws == all.Min(c => c.Draws);
    });

    [Fact]
    public void Whoever_was_drawn_last_is_passed_over_unless_alone()
    {
        var two = new[] { Who(Given.Juno, 0, last: true), Who(Given.Cormac, 5) };
        Enumerable.Range(0, 50).ShouldAllBe(seed => FairDraw.Draw(two, DrawManner.LeastHeard, seed)!.Student == Given.Cormac);
        FairDraw.Draw([two[0]], DrawManner.LeastHeard, 1)!.Student.ShouldBe(Given.Juno);
        FairDraw.Draw([], DrawManner.LeastHeard, 1).ShouldBeNull();
    }

    [Theory]
    [InlineData(DrawManner.LeastHeard, 0, 0, 3, "not heard yet today")]
    [InlineData(DrawManner.LeastHeard, 1, 0, 3, "heard 1 time, others up to 3")]
    [InlineData(DrawManner.LeastHeard, 3, 0, 3, "heard 3 times, as much as anybody")]
    [InlineData(DrawManner.OnceRound, 2, 0, 3, "not drawn yet today")]
    [InlineData(DrawManner.OnceRound, 2, 1, 3, "everybody has been drawn 1 time, a new round")]
    public void The_draw_says_why(DrawManner manner, int turns, int draws, int most, string why)
    {
        var others = new[] { Who(Given.Cormac, most, draws, last: true), Who(Given.Eino, most, draws + 1, last: true) };
        // The most heard was drawn last, so the odds are reckoned without them: they are put in again not drawn last where that matters.
        var present = manner == DrawManner.LeastHeard ? [Who(Given.Juno, turns), .. others.Select(o => o with { DrawnLast = false })] : new[] { Who(Given.Juno, turns, draws), others[0] };
        Enumerable.Range(0, 500).Select(seed => FairDraw.Draw(present, manner, seed)!).First(d => d.Student == Given.Juno).Why.ShouldBe(why);
    }
}
