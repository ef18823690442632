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

/// <summary>What is copied cheaply is what was copied, and stays it while the copy changes.</summary>
public sealed class SharedTests
{
    [Fact]
    public void A_list_is_as_one_that_was_copied_whole() => Gen.Int.Sample(seed =>
    {
        var random = new Random(seed);
        List<(SharedList<int> Shared, List<int> Plain)> all = [];
        var (shared, plain) = (new SharedList<int>(), new List<int>());
        for (var i = 0; i < 40; i++)
        {
            for (var j = random.Next(random.Next(4) == 0 ? 300 : 6); j > 0; j--)
            {
                var (at, item) = (random.Next(2) == 0 && plain.Count > 0 ? random.Next(plain.Count) : -1, random.Next());
                if (at < 0)
                {
                    shared.Add(item);
                    plain.Add(item);
                }
                else
                {
                    (shared[at], plain[at]) = (item, item);
                }
            }

            all.Add((shared, plain));
            (shared, plain) = (shared.Copy(), [.. plain]);
        }

        all.ShouldAllBe(a => a.Shared.SequenceEqual(a.Plain) && a.Shared.Count == a.Plain.Count && Enumerable.Range(0, a.Plain.Count).All(i => a.Shared[i] == a.Plain[i]));
    }, iter: 60);

    [Fact]
    public void An_index_is_as_one_that_was_copied_whole() => Gen.Int.Sample(seed =>
    {
        var (random, value) = (new Random(seed), 0);
        List<(SharedIndex<int, int> Shared, Dictionary<int, int> Plain)> all = [];
        var (shared, plain) = (new SharedIndex<int, int>(), new Dictionary<int, int>());
        for (var i = 0; i < 60; i++)
        {
            for (var j = random.Next(6); j > 0; j--)
            {
                var (key, next) = (random.Next(80), random.Next());
                (shared[key], plain[key]) = (next, next);
            }

            all.Add((shared, plain));
            (shared, plain) = (shared.Copy(), new(plain));
        }

        foreach (var (one, wanted) in all)
        {
            Enumerable.Range(0, 80).Where(one.Has).ShouldBe(wanted.Keys.Order());
            foreach (var key in wanted.Keys)
            {
                one.TryGet(key, out value).ShouldBeTrue();
                value.ShouldBe(wanted[key]);
            }
        }
    }, iter: 60);
}
