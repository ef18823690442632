using CsCheck;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Tests;

public sealed class ItemFiguresTests
{
    [Theory]
    // By hand: the means are 0.5 and 2, the products of what differs 1 and 1, the squares 1 and 5.
    [InlineData(new[] { 0, 0, 1, 1 }, new[] { 1, 1, 2, 4 }, 0.8165)]
    [InlineData(new[] { 0, 1, 0, 1 }, new[] { 0, 3, 0, 3 }, 1)]
    [InlineData(new[] { 1, 0, 1, 0 }, new[] { 0, 3, 0, 3 }, -1)]
    [InlineData(new[] { 0, 1, 0, 1 }, new[] { 1, 1, 2, 2 }, 0)]
    public void How_well_a_question_tells_those_who_know_from_those_who_do_not(int[] own, int[] others, double expected) =>
        ItemFigures.CorrelationOf([.. own.Zip(others, (o, r) => ((decimal)o, (decimal)r))])!.Value.ShouldBe((decimal)expected, 0.0001m);

    [Theory]
    [InlineData(new[] { 0, 1 }, new[] { 0, 3 })]
    [InlineData(new[] { 1, 1, 1 }, new[] { 0, 3, 2 })]
    [InlineData(new[] { 0, 1, 1 }, new[] { 2, 2, 2 })]
    [InlineData(new int[0], new int[0])]
    public void Of_too_few_or_of_all_alike_nothing_is_said(int[] own, int[] others) =>
        ItemFigures.CorrelationOf([.. own.Zip(others, (o, r) => ((decimal)o, (decimal)r))]).ShouldBeNull();

    [Fact]
    public void It_lies_between_minus_one_and_one_does_not_see_a_scale_and_is_the_same_the_other_way_round() =>
        Gen.Select(Gen.Int[0, 4], Gen.Int[0, 20]).Array[3, 20].Sample(pairs =>
        {
            var told = ItemFigures.CorrelationOf([.. pairs.Select(p => ((decimal)p.Item1, (decimal)p.Item2))]);
            (told is null or (>= -1.0000001m and <= 1.0000001m)).ShouldBeTrue();
            var scaled = ItemFigures.CorrelationOf([.. pairs.Select(p => (p.Item2 * 3m, (p.Item1 * 0.5m) + 7))]);
            (told is null).ShouldBe(scaled is null);
            (scaled ?? 0).ShouldBe(told ?? 0, 0.0000001m);
        });
}
