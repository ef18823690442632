using CsCheck;
using NodaTime;
using PoliteTally.Core.Fairness;
using PoliteTally.Core.Hands;

namespace PoliteTally.Core.Tests;

public sealed class ClassHeardTests
{
    private static readonly IReadOnlyList<Guid> Class = [.. Enumerable.Range(1, 20).Select(i => new Guid(i, 0, 0, new byte[8]))];

    private static LessonHeard Lesson(int number, IReadOnlyList<Guid> present, params int[] spoke) => new(
        Guid.NewGuid(), number, new LocalDate(2026, 10, number), present, [.. spoke.Select(s => (Class[s], TurnOrigin.Hand))], [], 0, new Dictionary<Guid, Duration>());

    [Theory]
    [InlineData(new[] { 3, 3, 3, 3 }, 0)]
    [InlineData(new[] { 0, 0, 0, 1 }, 0.75)]
    [InlineData(new[] { 0, 0 }, 0)]
    [InlineData(new int[0], 0)]
    [InlineData(new[] { 5 }, 0)]
    // By hand: (−3·1 − 1·2 + 1·3 + 3·4) / (4 · 10)
    [InlineData(new[] { 1, 2, 3, 4 }, 0.25)]
    public void The_Gini_coefficient_of_turns(int[] turns, double expected) => ClassHeard.GiniOf(turns).ShouldBe((decimal)expected);

    [Fact]
    public void The_Gini_coefficient_is_half_the_mean_difference_between_any_two_by_the_mean() => Gen.Int[0, 9].Array[1, 12].Sample(turns =>
    {
        // The definition, which the form for a sorted list is only a quicker way to.
        var pairs = turns.SelectMany(a => turns.Select(b => Math.Abs(a - b))).Sum();
        var expected = turns.Sum() == 0 ? 0 : pairs / (2m * turns.Length * turns.Sum());
        ClassHeard.GiniOf(turns).ShouldBe(expected, 0.0000001m);
        ClassHeard.GiniOf([.. turns.Select(t => t * 10)]).ShouldBe(expected, 0.0000001m);
    });

    [Theory]
    [InlineData(new[] { 4, 3, 2, 1 }, 0.4)]
    [InlineData(new[] { 0, 0 }, 0)]
    [InlineData(new[] { 9, 1, 1, 1, 1, 1, 1, 1, 1, 1, 3 }, 0.5714)]
    public void The_most_heard_tenth_is_at_least_one_student(int[] turns, double expected) => ClassHeard.TopTenthOf(turns).ShouldBe((decimal)expected, 0.0001m);

    [Fact]
    public void A_row_without_a_turn_counts_lessons_in_which_the_student_was_there()
    {
        var two = Class.Take(2).ToList();
        var heard = new ClassHeard([Lesson(1, two, 0), Lesson(2, two, 0), Lesson(3, [Class[0]], 0), Lesson(4, two, 0, 0)]);
        heard.Students.Single(s => s.Student == Class[1]).ShouldBe(new StudentHeard(Class[1], 0, 3, 3, 3, Duration.Zero));
        heard.Students.Single(s => s.Student == Class[0]).ShouldBe(new StudentHeard(Class[0], 5, 4, 0, 0, Duration.Zero));
        heard.UnheardFor(3).Select(s => s.Student).ShouldBe([Class[1]]);
        heard.UnheardFor(4).ShouldBeEmpty();
        heard.HadATurn.ShouldBe(1);
        heard.Curve.ShouldBe([0, 0, 1]);
    }

    [Fact]
    public void All_turns_for_one_are_less_even_than_chance_and_one_each_is_more_even()
    {
        var (one, each) = (new ClassHeard([Lesson(1, Class, [.. Enumerable.Repeat(0, 20)])]), new ClassHeard([Lesson(1, Class, [.. Enumerable.Range(0, 20)])]));
        (one.Gini!.IsHigh, one.TopTenth!.IsHigh).ShouldBe((true, true));
        (each.Gini!.IsLow, each.Gini.Value).ShouldBe((true, 0));
        // The same lessons say the same, whenever they are asked.
        new ClassHeard([Lesson(1, Class, [.. Enumerable.Range(0, 20)])]).Gini.ShouldBe(each.Gini);
    }

    [Fact]
    public void An_even_draw_lies_within_what_an_even_draw_makes_nine_times_of_ten()
    {
        var inside = 0;
        for (var seed = 0; seed < 60; seed++)
        {
            var random = new Random(seed);
            var heard = new ClassHeard([.. Enumerable.Range(1, 6).Select(n => Lesson(n, Class, [.. Enumerable.Range(0, 12).Select(_ => random.Next(20))]))]);
            inside += heard.Gini is { IsHigh: false, IsLow: false } ? 1 : 0;
        }

        inside.ShouldBeInRange(46, 60);
    }

    [Theory]
    [InlineData(4, false)]
    [InlineData(5, true)]
    [InlineData(15, true)]
    [InlineData(16, false)]
    public void Groups_are_compared_only_with_five_on_each_side(int many, bool compared) =>
        (new ClassHeard([Lesson(1, Class, 0, 1, 2)]).Compare("choir", Class.Take(many).ToHashSet()) is not null).ShouldBe(compared);

    [Fact]
    public void A_group_that_has_all_turns_differs_by_more_than_chance_and_one_that_has_its_share_does_not()
    {
        var choir = Class.Take(10).ToHashSet();
        new ClassHeard([Lesson(1, Class, [.. Enumerable.Range(0, 10)])]).Compare("choir", choir)!.Difference.IsHigh.ShouldBeTrue();
        new ClassHeard([Lesson(1, Class, [.. Enumerable.Range(0, 20)])]).Compare("choir", choir)!.Difference.ShouldBe(new BesideChance(0, 0, 0));
    }

    [Fact]
    public void Nothing_is_said_of_nothing()
    {
        var heard = new ClassHeard([]);
        (heard.HadATurn, heard.Gini, heard.TopTenth, heard.MedianWait, heard.Curve.Count).ShouldBe((0, null, null, null, 0));
    }
}
