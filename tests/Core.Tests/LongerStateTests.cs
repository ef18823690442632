using System.Text.Json;
using System.Text.Json.Serialization;
using CsCheck;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Notes;

namespace PoliteTally.Core.Tests;

/// <summary>A lesson folded a few entries at a time is the same as one folded at once, whatever was noted and however late.</summary>
public sealed class LongerStateTests
{
    private static readonly Guid[] Students = [.. Enumerable.Range(1, 6).Select(Given.Id)];
    private static readonly JsonSerializerOptions Json = new() { IncludeFields = true, Converters = { new Whole(), new InOrder(), new ByKey() } };

    /// <summary>All that a state says, a line for each thing: whatever anybody can read of it and of what its trades keep, and that of each student.</summary>
    private static string[] Told(LessonState state)
    {
        var parts = typeof(LessonState).GetProperties().Where(p => p.PropertyType.IsSubclassOf(typeof(LessonPart))).Select(p => p.GetValue(state)!).ToList();
        return [.. parts.Prepend(state).SelectMany(part => part.GetType().GetProperties().Where(p => p.PropertyType != typeof(LessonParts) && !parts.Contains(p.GetValue(part)!))
            .Select(p => $"{part.GetType().Name}.{p.Name} {Written(p.GetValue(part), p.PropertyType)}")
            .Concat(from method in part.GetType().GetMethods()
                    where method.DeclaringType == part.GetType() && method.GetParameters() is [{ ParameterType: var type }] && type == typeof(Guid)
                    from student in Students
                    select $"{part.GetType().Name}.{method.Name} {student} {Written(method.Invoke(part, [student]), method.ReturnType)}"))];
    }

    private static string Written(object? value, Type type) => JsonSerializer.Serialize(value, type, Json);

    /// <summary>What is of several kinds is written as what it is, an entry by its id.</summary>
    private sealed class Whole : JsonConverter<object>
    {
        public override bool CanConvert(Type type) => type == typeof(Entry) || type == typeof(Sighting);

        public override object Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => throw new NotSupportedException();

        public override void Write(Utf8JsonWriter writer, object value, JsonSerializerOptions options) => writer.WriteStringValue(value is Entry entry ? entry.Id.ToString() : value.ToString());
    }

    /// <summary>What is in a set or a dictionary lies in the order in which it came, which says nothing.</summary>
    private sealed class InOrder : JsonConverter<IReadOnlySet<Guid>>
    {
        public override IReadOnlySet<Guid> Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => throw new NotSupportedException();

        public override void Write(Utf8JsonWriter writer, IReadOnlySet<Guid> value, JsonSerializerOptions options) => JsonSerializer.Serialize(writer, value.Order());
    }

    private sealed class ByKey : JsonConverterFactory
    {
        public override bool CanConvert(Type type) => type.IsGenericType && type.GetGenericTypeDefinition() == typeof(IReadOnlyDictionary<,>);

        public override JsonConverter CreateConverter(Type type, JsonSerializerOptions options) =>
            (JsonConverter)Activator.CreateInstance(typeof(Sorted<,>).MakeGenericType(type.GetGenericArguments()))!;

        private sealed class Sorted<TKey, T> : JsonConverter<IReadOnlyDictionary<TKey, T>>
            where TKey : notnull
        {
            public override IReadOnlyDictionary<TKey, T> Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => throw new NotSupportedException();

            public override void Write(Utf8JsonWriter writer, IReadOnlyDictionary<TKey, T> value, JsonSerializerOptions options) =>
                JsonSerializer.Serialize(writer, value.OrderBy(p => p.Key.ToString(), StringComparer.Ordinal), options);
        }
    }

    /// <summary>The first thing in which a state is another than it should be.</summary>
    private static string? Different(LessonState state, string[] wanted) =>
        Told(state).Zip(wanted).Where(p => p.First != p.Second).Select(p => $"{Around(p.First, p.Second)}\nand not {Around(p.Second, p.First)}").FirstOrDefault();

    // Where they part, with what stands about it.
    private static string Around(string text, string other)
    {
        var same = text.Zip(other).TakeWhile(p => p.First == p.Second).Count();
        return $"{text[..Math.Min(40, text.Length)]}… {text[Math.Max(0, same - 300)..Math.Min(text.Length, same + 200)]}";
    }

    [Fact]
    public void Ledgers_of_these_tests_know_every_kind_of_act()
    {
        var made = new AnyLedger(7, Students, Given.Start).Next(6000).Select(e => e.Act.GetType()).Distinct();
        AnyLedger.Kinds.Except(made).ShouldBeEmpty();
    }

    [Fact]
    public void A_few_entries_at_a_time_make_the_same_as_all_at_once() => Gen.Int.Sample(
        seed =>
        {
            var (ledger, sizes) = (new AnyLedger(seed, Students, Given.Start), new Random(seed));
            var (state, all) = (LessonState.Fold([]), new List<Entry>());
            for (var batch = 0; batch < 12; batch++)
            {
                var more = ledger.Next(1 + sizes.Next(sizes.Next(3) == 0 ? 90 : 4));
                all.AddRange(more);
                var (before, told) = (state, Told(state));
                state = state.With(more);
                Different(state, Told(LessonState.Fold(all))).ShouldBeNull($"seed {seed}, batch {batch}");
                // What was handed out earlier is still what it was.
                Different(before, told).ShouldBeNull($"seed {seed}, batch {batch}");
            }
        },
        iter: 150);

    /// <summary>Many windows note in one millisecond, and what they note arrives in any order: of one moment the order is that of the ledger.</summary>
    [Fact]
    public void Many_entries_of_one_moment_make_the_same_as_all_at_once() => Gen.Int.Sample(
        seed =>
        {
            var (ledger, random) = (new AnyLedger(seed, Students, Given.Start), new Random(seed));
            var (state, all) = (LessonState.Fold([]), new List<Entry>());
            for (var batch = 0; batch < 30; batch++)
            {
                // About four of a moment, some of them a little late, each noted after all before it.
                List<Entry> more = [.. ledger.Next(1 + random.Next(5)).Select((e, i) => e with
                {
                    HappenedAt = Given.Start + Duration.FromMilliseconds(((all.Count + i) / 4) - random.Next(3)),
                    NotedAt = Given.Start + Duration.FromSeconds(1) + Duration.FromMilliseconds(all.Count + i),
                })];
                all.AddRange(more);
                state = state.With(more);
                Different(state, Told(LessonState.Fold(all))).ShouldBeNull($"seed {seed}, batch {batch}");
            }
        },
        iter: 150);

    /// <summary>What comes late costs what stands behind it: so far back as the first half of the lesson nothing of it is folded anew.</summary>
    [Fact]
    public void What_comes_late_copies_no_more_than_what_stands_behind_it()
    {
        static Entry Nod(int second, int noted) => new(Guid.CreateVersion7(), Given.Start + Duration.FromSeconds(second), Given.Start + Duration.FromSeconds(noted), Source.Tapped, "", new NodGiven(Given.Juno, "on time"));
        var state = LessonState.Fold(Enumerable.Range(0, 20_000).Select(i => Nod(i, i)));
        state = Enumerable.Range(20_000, 2_000).Aggregate(state, (so, i) => so.With([Nod(i, i)]));
        long Allocated(Func<LessonState> next)
        {
            next();
            var before = GC.GetAllocatedBytesForCurrentThread();
            next();
            return GC.GetAllocatedBytesForCurrentThread() - before;
        }

        var (near, far, all) = (Allocated(() => state.With([Nod(21_990, 30_000)])), Allocated(() => state.With([Nod(21_500, 30_001)])), Allocated(() => LessonState.Fold(state.Entries)));
        // The list of its entries alone is 176,000 bytes long.
        near.ShouldBeLessThan(40_000);
        (far * 4).ShouldBeLessThan(all);
    }

    [Fact]
    public void Two_ways_on_from_one_state_do_not_meet() => Gen.Int.Sample(
        seed =>
        {
            var ledger = new AnyLedger(seed, Students, Given.Start);
            var first = ledger.Next(30);
            var state = LessonState.Fold(first);
            var (one, other) = (ledger.Next(3), ledger.Next(5));
            var (a, b) = (state.With(one), state.With(other));
            Different(a, Told(LessonState.Fold(first.Concat(one)))).ShouldBeNull($"seed {seed}");
            Different(b, Told(LessonState.Fold(first.Concat(other)))).ShouldBeNull($"seed {seed}");
        },
        iter: 100);

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(999)]
    [InlineData(1000)]
    [InlineData(1001)]
    [InlineData(20_000)]
    public void Undo_and_undoing_it_alternate_however_often(int strikes)
    {
        var nod = Given.Noted(5, new NodGiven(Given.Juno, "on time"));
        var chain = new List<Entry> { nod };
        for (var i = 0; i < strikes; i++)
        {
            chain.Add(Given.Strike(chain[^1]));
        }

        LessonState.Fold(chain).IsStruck(nod.Id).ShouldBe(strikes % 2 == 1);
    }
}
