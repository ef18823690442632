using CsCheck;
using PoliteTally.Core.Groups;

namespace PoliteTally.Core.Tests;

public sealed class GroupMakingTests
{
    private static readonly Guid[] Class = [.. Enumerable.Range(1, 28).Select(Given.Id)];

    private static GroupWish Wish(int students, int groups, int seed = 1) => new([.. Class.Take(students)], groups, [], [], [], seed);

    private static IReadOnlyList<Guid> Set(params int[] members) => [.. members.Select(m => Class[m])];

    [Fact]
    public void Everybody_is_in_one_group_and_sizes_differ_by_at_most_one() => Gen.Select(Gen.Int[1, 28], Gen.Int[1, 12], Gen.Int).Sample((students, groups, seed) =>
    {
        var found = GroupMaking.Make(Wish(students, groups, seed)).Groups;
        return found.Count == Math.Min(groups, students) && found.SelectMany(g => g).Order().SequenceEqual(Class.Take(students).Order())
            && found.Max(g => g.Count) - found.Min(g => g.Count) <= 1;
    });

    [Fact]
    public void The_same_seed_makes_the_same_groups_and_another_seed_others()
    {
        static string Told(int seed) => string.Join('|', GroupMaking.Make(Wish(28, 7, seed)).Groups.Select(g => string.Join(' ', g)));
        Told(5).ShouldBe(Told(5));
        Told(6).ShouldNotBe(Told(5));
    }

    [Fact]
    public void Wishes_are_honoured_where_they_can_be() => Gen.Select(Gen.Int[2, 9], Gen.Int).Sample((groups, seed) =>
    {
        var wish = Wish(28, groups, seed) with { Together = [Set(0, 1), Set(2, 3, 4)], Apart = [Set(0, 2), Set(5, 6)] };
        var found = GroupMaking.Make(wish);
        int Of(int student) => found.Groups.ToList().FindIndex(g => g.Contains(Class[student]));
        return found.Split.Count == 0 && found.Joined.Count == 0 && Of(0) == Of(1) && Of(2) == Of(4) && Of(0) != Of(2) && Of(5) != Of(6);
    });

    [Fact]
    public void Two_sets_that_belong_apart_are_not_dealt_into_the_same_small_group()
    {
        for (var seed = 0; seed < 300; seed++)
        {
            var wish = Wish(28, 5, seed) with { Together = [Set(0, 1), Set(2, 3, 4)], Apart = [Set(0, 2), Set(5, 6)] };
            GroupMaking.Make(wish).Joined.ShouldBeEmpty($"seed {seed}");
        }
    }

    [Fact]
    public void What_cannot_be_is_said()
    {
        var apart = GroupMaking.Make(Wish(4, 2) with { Apart = [Set(0, 1, 2)] });
        apart.Joined.ShouldHaveSingleItem();
        var together = GroupMaking.Make(Wish(6, 3) with { Together = [Set(0, 1, 2)] });
        together.Split.Count.ShouldBe(2);
        together.Groups.ShouldAllBe(g => g.Count == 2);
        var both = GroupMaking.Make(Wish(4, 2) with { Together = [Set(0, 1)], Apart = [Set(0, 1)] });
        (both.Split.Count + both.Joined.Count).ShouldBe(1);
    }

    [Fact]
    public void Repeated_pairings_are_avoided_as_far_as_a_short_search_finds()
    {
        var monday = GroupMaking.Make(Wish(12, 3, 1)).Groups.Select((g, i) => new StudentGroup(Given.Id(900 + i), $"Group {i + 1}", g)).ToList();
        // Three groups of four, made anew: any four of twelve hold two of one old group, so three repeats is the least there can be.
        var thursday = GroupMaking.Make(Wish(12, 3, 2) with { Past = [monday] });
        thursday.Repeats.ShouldBe(3);
        GroupMaking.Make(Wish(9, 3, 2) with { Past = [[.. Enumerable.Range(0, 3).Select(i => new StudentGroup(Given.Id(800 + i), "x", Set(i * 3, (i * 3) + 1, (i * 3) + 2)))]] })
            .Repeats.ShouldBe(0);
    }

    [Theory]
    [InlineData(28, 4, 7)]
    [InlineData(28, 3, 9)]
    [InlineData(5, 3, 2)]
    [InlineData(7, 2, 4)]
    [InlineData(2, 5, 1)]
    [InlineData(1, 1, 1)]
    public void Groups_of_a_size_are_as_many_as_come_nearest(int students, int size, int groups) => GroupWish.GroupsOfSize(students, size).ShouldBe(groups);

    [Fact]
    public void Fewer_than_one_group_is_refused() => Should.Throw<ArgumentOutOfRangeException>(() => GroupMaking.Make(Wish(3, 0)));
}
