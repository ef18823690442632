using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Web.Features.Keys;

namespace PoliteTally.Web.Features.Live;

/// <summary>One of the last presses, with all that it noted.</summary>
/// <param name="Id">The first entry of it.</param>
/// <param name="Entries">All its entries, in order.</param>
/// <param name="Struck">Whether all of it is struck out.</param>
/// <param name="StruckBy">The strikes that strike it out: striking those out puts it back.</param>
/// <param name="Helper">The name of the helper who noted it; null if the teacher did.</param>
public sealed record LastEntry(
    Guid Id, Instant At, string Text, bool Struck, bool CanStrike, string? Helper, IReadOnlyList<Guid> Entries, IReadOnlyList<Guid> StruckBy);

/// <summary>The newest of what was tapped, press by press.</summary>
internal static class LastEntries
{
    private const int Shown = 40;

    // What is struck out does not use up the list, so that undo never runs out while there is something to undo; and of that as much is shown, so
    // that it does not grow with every undo.
    public static IReadOnlyList<LastEntry> Of(LessonState state, IReadOnlyDictionary<Guid, string> names)
    {
        var (presses, together) = (new List<List<Entry>>(), new Dictionary<Guid, List<Entry>>());
        var (standing, struck) = (0, 0);
        foreach (var entry in state.Entries.Where(e => e.Source == Source.Tapped && e.Act is not Struck).Reverse())
        {
            if (entry.Together is { } press && together.TryGetValue(press, out var known))
            {
                known.Insert(0, entry);
                continue;
            }

            if (standing == Shown)
            {
                break;
            }

            if (state.IsStruck(entry.Id) ? struck++ < Shown : ++standing > 0)
            {
                presses.Add([entry]);
                if (entry.Together is { } first)
                {
                    together[first] = presses[^1];
                }
            }
        }

        var strikes = struck > 0 || presses.Exists(p => p.Count > 1) ? state.StrikesOn() : null;
        return
        [
            .. presses.Select(press =>
            {
                var isStruck = press.TrueForAll(e => state.IsStruck(e.Id));
                return new LastEntry(
                    press[0].Id, press[0].HappenedAt, Wording.Of(press, state, names), isStruck,
                    press.TrueForAll(e => e.Act is not (LessonStarted or LessonEnded or LessonSettled)), HelperSignature.NameIn(press[0].By),
                    [.. press.Select(e => e.Id)], isStruck ? [.. press.SelectMany(e => strikes![e.Id]).Distinct()] : []);
            }),
        ];
    }
}
