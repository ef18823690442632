using System.Text.Json;
using CsCheck;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Tests;

/// <summary>A lesson folded a few entries at a time is the same as one folded at once, whatever was noted and however late.</summary>
public sealed class LongerStateTests
{
    private static readonly Guid[] Students = [.. Enumerable.Range(1, 6).Select(Given.Id)];
    private static readonly JsonSerializerOptions Json = new() { IncludeFields = true };

    /// <summary>All that a state says, a line for each thing.</summary>
    private static string[] Told(LessonState state)
    {
        var whole = new
        {
            Entries = state.Entries.Select(e => e.Id),
            state.StartedAt,
            state.EndedAt,
            state.EndedBy,
            state.SettledBy,
            state.Hands,
            state.Turns,
            state.CurrentTurn,
            state.Chat,
            Moves = state.StageMoves,
            state.Extended,
            state.Timers,
            state.SignalRounds,
            state.Groups,
            state.LastGroups,
            state.Revealed,
            state.ResultsUp,
            state.Signals,
            state.PageVisitors,
            state.Board,
            RollCalls = state.RollCalls.Select(c => new { c.At, c.Entry, Here = c.Here.Order() }),
            state.ListsSeen,
            state.RemindersTicked,
            Struck = state.Struck.Select(e => e.Id),
            Names = state.Names.Values.OrderBy(n => n.Name, StringComparer.Ordinal)
                .Select(n => new { n.Name, n.Match, n.Later, n.Online, Sightings = n.Sightings.Select(s => s.ToString()), n.StandsFor, Student = state.StudentOf(n) }),
            Students = Students.Select(s => (State: state.Of(s), Seen: state.SightingsOf(s).Select(x => x.ToString()).Order(StringComparer.Ordinal))).Select(s => new
            {
                s.Seen,
                s.State.Marks,
                s.State.Declared,
                s.State.Excuse,
                s.State.PausedBy,
                s.State.PageOpenBy,
                s.State.Chat,
                s.State.SignalRounds,
                s.State.SignalsGiven,
                s.State.LastSignal,
                Asides = Ids(s.State.Asides.Select(x => x.Entry)),
                Contacts = Ids(s.State.Contacts.Select(x => x.Entry)),
                Nods = Ids(s.State.Nods.Select(x => x.Entry)),
                SitIns = Ids(s.State.SitIns.Select(x => x.Entry)),
            }),
            Askings = state.Askings.Select(a => new
            {
                a.Id,
                a.Question,
                a.OpenedAt,
                a.ClosedAt,
                a.Corrections,
                a.Answers,
                a.Cannot,
                a.Ballots,
                a.BallotsCast,
                a.TookPart,
                a.Merged,
                a.IsCounted,
                Goes = Students.Select(s => (a.GoesTo(s), a.MarksOf(s), a.DeadlineOf(s))),
            }),
        };
        return [.. whole.GetType().GetProperties().Select(p => $"{p.Name} {JsonSerializer.Serialize(p.GetValue(whole), Json)}")];

        static IEnumerable<Guid> Ids(IEnumerable<Entry> entries) => entries.Select(e => e.Id);
    }

    /// <summary>The first thing in which a state is another than it should be.</summary>
    private static string? Different(LessonState state, string[] wanted) =>
        Told(state).Zip(wanted).Where(p => p.First != p.Second).Select(p => $"{p.First}\nand not {p.Second}").FirstOrDefault();

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
