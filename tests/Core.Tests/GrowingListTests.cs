using CsCheck;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Tests;

/// <summary>A list that grows is the list one would have copied, whatever was made longer from wherever.</summary>
public sealed class GrowingListTests
{
    [Fact]
    public void Whatever_is_made_longer_from_wherever_each_list_is_what_it_was() => Gen.Int.Sample(seed =>
    {
        var random = new Random(seed);
        List<(GrowingList<int> Growing, List<int> Plain)> lists = [(new([]), [])];
        for (var i = 0; i < 60; i++)
        {
            var (growing, plain) = lists[random.Next(lists.Count)];
            int[] more = [.. Enumerable.Range(0, random.Next(4) switch { 0 => 0, 1 => 1, 2 => random.Next(20), _ => random.Next(700) }).Select(_ => random.Next())];
            lists.Add((more is [var one] ? growing.With(one) : growing.With(more), [.. plain, .. more]));
        }

        foreach (var (growing, plain) in lists)
        {
            growing.ShouldBe(plain);
            growing.Count.ShouldBe(plain.Count);
            Enumerable.Range(0, plain.Count).Select(i => growing[i]).ShouldBe(plain);
            var from = random.Next(plain.Count + 1);
            growing.From(from).ShouldBe(plain.Skip(from));
            Should.Throw<ArgumentOutOfRangeException>(() => growing[plain.Count]);
        }
    }, iter: 60);

    [Theory]
    [InlineData(255)]
    [InlineData(256)]
    [InlineData(257)]
    [InlineData(512)]
    [InlineData(513)]
    public void Blocks_end_where_they_end(int count)
    {
        int[] items = [.. Enumerable.Range(0, count)];
        new GrowingList<int>(items).With(count).ShouldBe(items.Append(count));
        new GrowingList<int>([]).With(items).With([count, count + 1]).ShouldBe(items.Concat([count, count + 1]));
    }
}
