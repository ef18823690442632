namespace PoliteTally.Core.Groups;

/// <summary>What groups are asked for.</summary>
/// <param name="Students">Who is to be in a group.</param>
/// <param name="Groups">How many groups, from 1 up; no more than students are made.</param>
/// <param name="Together">Sets of students who are to be in one group.</param>
/// <param name="Apart">Sets of students of whom no two are to be in one group.</param>
/// <param name="Past">Who was in one group in past lessons, one list of groups a lesson.</param>
/// <param name="Seed">The same seed makes the same groups.</param>
public sealed record GroupWish(
    IReadOnlyList<Guid> Students, int Groups, IReadOnlyList<IReadOnlyList<Guid>> Together, IReadOnlyList<IReadOnlyList<Guid>> Apart,
    IReadOnlyList<IReadOnlyList<StudentGroup>> Past, int Seed)
{
    /// <summary>How many groups of about this size: to the nearest, half up, at least one.</summary>
    public static int GroupsOfSize(int students, int size) => Math.Max(1, ((2 * students) + size) / (2 * size));
}

/// <summary>Groups as they came out.</summary>
/// <param name="Groups">The members of each group; sizes differ by at most one.</param>
/// <param name="Split">Pairs who were to be together and are not.</param>
/// <param name="Joined">Pairs who were to be apart and are not.</param>
/// <param name="Repeats">How many pairs were together in a past lesson, counted once for each time.</param>
public sealed record GroupsFound(
    IReadOnlyList<IReadOnlyList<Guid>> Groups, IReadOnlyList<(Guid A, Guid B)> Split, IReadOnlyList<(Guid A, Guid B)> Joined, int Repeats);

/// <summary>
/// Makes groups at random: sizes differ by at most one, wishes are honoured where they can be, and a short search exchanges
/// students as long as that saves repeated pairings. A broken wish weighs more than any number of repeats.
/// </summary>
public static class GroupMaking
{
    private const int Attempts = 12;
    private const long WishWeight = 1_000_000;

    /// <summary>Makes groups.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Fewer than one group is asked for.</exception>
    public static GroupsFound Make(GroupWish wish)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(wish.Groups, 1);
        var students = wish.Students.Distinct().ToList();
        var place = students.Select((s, i) => (s, i)).ToDictionary(p => p.s, p => p.i);
        var together = Pairs(wish.Together, place);
        var apart = Pairs(wish.Apart, place);
        var cost = Costs(students.Count, together, apart, wish.Past, place);
        var random = new Random(wish.Seed);
        var (best, bestCost) = (Array.Empty<int>(), long.MaxValue);
        for (var attempt = 0; attempt < Attempts && bestCost > 0; attempt++)
        {
            var groupOf = Dealt(students.Count, Math.Min(wish.Groups, Math.Max(1, students.Count)), together, tight: attempt % 2 == 0, random);
            Improve(groupOf, cost);
            if (CostOf(groupOf, cost) is var found && found < bestCost)
            {
                (best, bestCost) = (groupOf, found);
            }
        }

        var groups = best.Length == 0 ? [] : Enumerable.Range(0, best.Max() + 1)
            .Select(g => (IReadOnlyList<Guid>)[.. students.Where((_, i) => best[i] == g)]).ToList();
        return new GroupsFound(
            groups,
            [.. together.Where(p => best[p.A] != best[p.B]).Select(p => (students[p.A], students[p.B]))],
            [.. apart.Where(p => best[p.A] == best[p.B]).Select(p => (students[p.A], students[p.B]))],
            wish.Past.Sum(lesson => Pairs([.. lesson.Select(g => g.Members)], place).Count(p => best[p.A] == best[p.B])));
    }

    /// <summary>
    /// Shuffled, those who belong together dealt first and as one, into the group that they fill best, or, not tight, into any that has room: filled
    /// best, the same would come together each time, and some of them may be meant to be apart. All others into the group with the most room left.
    /// </summary>
    private static int[] Dealt(int count, int groups, IReadOnlyList<(int A, int B)> together, bool tight, Random random)
    {
        var room = Enumerable.Range(0, groups).Select(g => (count / groups) + (g < count % groups ? 1 : 0)).ToArray();
        var block = Enumerable.Range(0, count).ToArray();
        foreach (var (a, b) in together)
        {
            var (from, to) = (block[a], block[b]);
            block = [.. block.Select(x => x == from ? to : x)];
        }

        var groupOf = new int[count];
        var blocks = Enumerable.Range(0, count).GroupBy(i => block[i]).Select(g => g.ToArray()).ToArray();
        random.Shuffle(blocks);
        foreach (var members in blocks.OrderByDescending(b => b.Length))
        {
            var least = Enumerable.Range(0, groups).Where(g => room[g] >= members.Length).OrderBy(g => tight ? room[g] : random.Next()).FirstOrDefault(-1);
            var most = Array.IndexOf(room, room.Max());
            foreach (var member in members)
            {
                // A block that fits nowhere is spread over what room there is; the result says so.
                var target = members.Length > 1 && least >= 0 ? least : room[most] > 0 ? most : Array.FindIndex(room, r => r > 0);
                groupOf[member] = target;
                room[target]--;
            }
        }

        return groupOf;
    }

    /// <summary>Exchanges pairs of students as long as that costs less; sizes stay as they are.</summary>
    private static void Improve(int[] groupOf, long[,] cost)
    {
        var count = groupOf.Length;
        for (var improved = true; improved;)
        {
            improved = false;
            for (var a = 0; a < count; a++)
            {
                for (var b = a + 1; b < count; b++)
                {
                    if (groupOf[a] != groupOf[b] && GainOf(a, b) > 0)
                    {
                        (groupOf[a], groupOf[b]) = (groupOf[b], groupOf[a]);
                        improved = true;
                    }
                }
            }
        }

        long GainOf(int a, int b)
        {
            long gain = 0;
            for (var other = 0; other < count; other++)
            {
                if (other != a && other != b)
                {
                    var side = groupOf[other] == groupOf[a] ? 1 : groupOf[other] == groupOf[b] ? -1 : 0;
                    gain += side * (cost[a, other] - cost[b, other]);
                }
            }

            return gain;
        }
    }

    // Those who belong together cost nothing where they are together, and their weight where they are not.
    private static long CostOf(int[] groupOf, long[,] cost)
    {
        long sum = 0;
        for (var a = 0; a < groupOf.Length; a++)
        {
            for (var b = a + 1; b < groupOf.Length; b++)
            {
                var same = groupOf[a] == groupOf[b];
                sum += same ? Math.Max(0, cost[a, b]) : Math.Max(0, -cost[a, b]);
            }
        }

        return sum;
    }

    /// <summary>What it costs to have two students in one group; below zero for those who belong together.</summary>
    private static long[,] Costs(
        int count, IReadOnlyList<(int A, int B)> together, IReadOnlyList<(int A, int B)> apart, IReadOnlyList<IReadOnlyList<StudentGroup>> past,
        Dictionary<Guid, int> place)
    {
        var cost = new long[count, count];
        Add(past.SelectMany(lesson => Pairs([.. lesson.Select(g => g.Members)], place)), 1);
        Add(apart, WishWeight);
        Add(together, -WishWeight);
        return cost;

        void Add(IEnumerable<(int A, int B)> pairs, long weight)
        {
            foreach (var (a, b) in pairs)
            {
                cost[a, b] += weight;
                cost[b, a] += weight;
            }
        }
    }

    private static List<(int A, int B)> Pairs(IReadOnlyList<IReadOnlyList<Guid>> sets, Dictionary<Guid, int> place) =>
    [
        .. sets.SelectMany(set =>
        {
            var there = set.Where(place.ContainsKey).Select(s => place[s]).Distinct().Order().ToList();
            return there.SelectMany((a, i) => there.Skip(i + 1).Select(b => (a, b)));
        }).Distinct(),
    ];
}
