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

    public static void Run()
    {
        var start = Instant.FromUtc(2026, 11, 23, 9, 30);
        var students = Enumerable.Range(0, 500).Select(_ => Guid.CreateVersion7()).ToList();
        var entries = Enumerable.Range(0, Entries).Select(i =>
        {
            var student = students[i % students.Count];
            Act act = (i % 5) switch
            {
                0 => new HandRaised(student),
                1 => new Called(student, TurnOrigin.Hand),
                2 => new TurnTaken(student, TurnOutcome.Full, TurnOrigin.Invited),
                3 => new ChatSaid(student, ChatKind.Question, "is neap tide the one at half moon?"),
                _ => new Joined($"name {i % 700}", "laptop"),
            };
            return new Entry(Guid.CreateVersion7(), start + Duration.FromMilliseconds(i * 150), start + Duration.FromMilliseconds(i * 150), Source.Tapped, "", act);
        }).ToList();
        var json = entries.ConvertAll(e => ActJson.Write(e.Act));

        var fold = Figures.Milliseconds(() => LessonState.Fold(entries));
        var read = Figures.Milliseconds(() => json.ForEach(text => ActJson.Read(text)));
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
        Figures.Row($"an entry that comes 1 s late, onto {Entries:N0}", Figures.Of(lately, "ms", "0.000"), $"folding all once {Figures.Of(fold, "ms", "0.0")}", lately / fold);
    }
}
