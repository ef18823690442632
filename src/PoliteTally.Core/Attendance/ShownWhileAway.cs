using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Attendance;

/// <summary>What somebody did while their connections, their page and the teacher's marks have them away.</summary>
/// <param name="AwaySince">Since when they were away.</param>
/// <param name="AwayUntil">Until when.</param>
/// <param name="Acts">What they did meanwhile, in order, at least one.</param>
public sealed record ShownWhileAway(Instant AwaySince, Instant AwayUntil, IReadOnlyList<SeenAt> Acts)
{
    /// <summary>
    /// Every time away in which somebody did something. Only of those who were on a connection: of anybody else nothing says that they were away. What
    /// attendance bridges is no time away, and close to its ends two clocks may disagree.
    /// </summary>
    /// <param name="lesson">When the lesson was meant to be, and when it was.</param>
    /// <param name="sightings">Everything that says when they were there, in any order.</param>
    /// <param name="marks">The teacher's marks and roll calls in the order made.</param>
    /// <param name="bridge">The longest gap that counts as present.</param>
    /// <param name="slack">How far from both ends of the time away an act has to lie.</param>
    public static IReadOnlyList<ShownWhileAway> In(
        LessonTimes lesson, IReadOnlyList<Sighting> sightings, IReadOnlyList<MarkMade> marks, Duration bridge, Duration slack)
    {
        var (from, to) = (lesson.CountedFrom, lesson.CountedTo);
        var acts = sightings.OfType<SeenAt>().Where(s => s.At >= from && s.At < to).OrderBy(s => s.At).ToList();
        if (acts.Count == 0 || Presence.Connected(sightings, from, to).Connections is not { Count: > 0 } connections)
        {
            return [];
        }

        var there = Presence.Union(Timeline.Of(connections, sightings.Where(s => s is not SeenAt), marks, from, to).Stretches.Select(s => s.Stretch), from, to);
        Instant[] begins = [from, .. there.Select(s => s.To)];
        Instant[] ends = [.. there.Select(s => s.From), to];
        return
        [
            .. begins.Zip(ends, (since, until) => new ShownWhileAway(since, until, [.. acts.Where(a => a.At - since > slack && until - a.At > slack)]))
                .Where(away => away.AwayUntil - away.AwaySince > bridge && away.Acts.Count > 0),
        ];
    }
}
