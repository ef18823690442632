using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Store;

namespace PoliteTally.Bench;

/// <summary>Folding a lesson of 20,000 entries, beside only reading their acts from JSON.</summary>
internal static class Folding
{
    private const int Entries = 20_000;

    private static readonly Instant Start = Instant.FromUtc(2026, 11, 23, 9, 30);

    private static List<Entry> Made(int count, int students)
    {
        var ids = Enumerable.Range(0, students).Select(_ => Guid.CreateVersion7()).ToList();
        return [.. Enumerable.Range(0, count).Select(i => Noted(i, ActOf(i, ids[i % students])))];
    }

    private static Act ActOf(int i, Guid student) => (i % 5) switch
    {
        0 => new HandRaised(student),
        1 => new Called(student, TurnOrigin.Hand),
        2 => new TurnTaken(student, TurnOutcome.Full, TurnOrigin.Invited),
        3 => new ChatSaid(student, ChatKind.Question, "is neap tide the one at half moon?"),
        _ => new Joined($"name {i % 700}", "laptop"),
    };

    private static Entry Noted(int i, Act act) => new(Guid.CreateVersion7(), Start + Duration.FromMilliseconds(i * 150), Start + Duration.FromMilliseconds(i * 150), Source.Tapped, "", act);

    /// <summary>What one more entry of each kind, one after the other, asks for in room.</summary>
    private static double BytesOfOneMore(int after)
    {
        var entries = Made(after, 28);
        var (state, number) = (LessonState.Fold(entries), after);
        return Figures.Bytes(() => state = state.With([Noted(number, ActOf(number++, ((StudentAct)entries[0].Act).Student))]));
    }

    public static void Run()
    {
        var entries = Made(Entries, 500);
        var json = entries.ConvertAll(e => ActJson.Write(e.Act));

        var (fold, read) = Figures.ByTurns(() => LessonState.Fold(entries), () => json.ForEach(text => ActJson.Read(text)));
        var state = LessonState.Fold(entries);
        var last = entries[^1];
        List<Entry> batch = [.. Enumerable.Range(1, 256).Select(i => last with
        {
            Id = Guid.CreateVersion7(), HappenedAt = last.HappenedAt + Duration.FromMilliseconds(i * 50), NotedAt = last.NotedAt + Duration.FromMilliseconds(i * 50),
        })];
        var more = Figures.Milliseconds(() => _ = batch.Aggregate(state, (so, entry) => so.With([entry])));
        var late = last with { Id = Guid.CreateVersion7(), HappenedAt = batch[^1].HappenedAt - Duration.FromSeconds(1), NotedAt = batch[^1].NotedAt + Duration.FromSeconds(1) };
        var longer = batch.Aggregate(state, (so, entry) => so.With([entry]));
        var lately = Figures.Milliseconds(() => _ = longer.With([late]));
        Figures.Row($"folding a lesson of {Entries:N0} entries", Figures.Of(fold, "ms", "0.0"), $"reading them from JSON {Figures.Of(read, "ms", "0.0")}", fold / read);
        Figures.Row($"256 more entries, one by one, onto {Entries:N0}", Figures.Of(more, "ms", "0.00"), $"folding all once {Figures.Of(fold, "ms", "0.0")}", more / fold);
        var (few, many) = (BytesOfOneMore(100), BytesOfOneMore(50_000));
        Figures.Row("one more entry, onto 50,000", Figures.Of(many, "bytes", "0"), $"onto 100 {Figures.Of(few, "bytes", "0")}", many / few);
        Figures.Row($"an entry that comes 1 s late, onto {Entries:N0}", Figures.Of(lately, "ms", "0.000"), $"folding all once {Figures.Of(fold, "ms", "0.0")}", lately / fold);
    }
}
