using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Plans;

/// <summary>The stage that is on.</summary>
/// <param name="Stage">The stage as planned.</param>
/// <param name="Index">Its place among the stages, from 0.</param>
/// <param name="From">When it began.</param>
/// <param name="To">When its time, extended or not, is over.</param>
/// <param name="PlannedTo">When it was to be over by the plan, reckoned from the start of the lesson.</param>
/// <param name="Extended">How much was added to it.</param>
public sealed record StageNow(PlannedStage Stage, int Index, Instant From, Instant To, Instant PlannedTo, Duration Extended)
{
    /// <summary>How far the lesson is behind its plan, reckoned to the end of this stage; below zero if ahead.</summary>
    public Duration DriftAt(Instant now) => Instant.Max(now, To) - PlannedTo;
}

/// <summary>Which stage of a plan is on, by what was noted.</summary>
public static class StageClock
{
    /// <summary>The stage that is on; null before the lesson, or if the plan has no stages.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="started">When the lesson began.</param>
    /// <param name="moves">Stages that were moved to, and when, in order. Those that are not in the plan any more do not count.</param>
    /// <param name="extended">What was added to stages.</param>
    public static StageNow? Now(
        Plan plan, Instant? started, IReadOnlyList<(Guid Stage, Instant At)> moves, IReadOnlyDictionary<Guid, Duration> extended)
    {
        if (started is not { } start || plan.Stages.Count == 0)
        {
            return null;
        }

        var (index, from) = Latest(plan, start, moves);
        var stage = plan.Stages[index];
        var more = extended.GetValueOrDefault(stage.Id);
        return new StageNow(
            stage, index, from, from + Duration.Max(Duration.Zero, stage.Length + more), plan.Timed(start)[index].To, more);
    }

    /// <summary>The stage that was on at a moment; null before the lesson, or if the plan has no stages.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="started">When the lesson began.</param>
    /// <param name="moves">As in <see cref="Now"/>.</param>
    /// <param name="at">The moment.</param>
    public static PlannedStage? At(Plan plan, Instant? started, IReadOnlyList<(Guid Stage, Instant At)> moves, Instant at) =>
        started is { } start && start <= at && plan.Stages.Count > 0
            ? plan.Stages[Latest(plan, start, [.. moves.TakeWhile(m => m.At <= at)]).Index]
            : null;

    /// <summary>The stages as they were held, one after the other; one that was come back to is there twice. None if the plan has none.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="started">When the lesson began.</param>
    /// <param name="moves">As in <see cref="Now"/>.</param>
    /// <param name="ended">When the last of them was over.</param>
    public static IReadOnlyList<TimedStage> Held(Plan plan, Instant? started, IReadOnlyList<(Guid Stage, Instant At)> moves, Instant ended)
    {
        var stages = plan.Stages.DistinctBy(s => s.Id).ToDictionary(s => s.Id);
        var begun = moves.Where(m => stages.ContainsKey(m.Stage)).ToList();
        if (started is { } start && plan.Stages.Count > 0 && (begun.Count == 0 || begun[0].At > start))
        {
            begun.Insert(0, (plan.Stages[0].Id, start));
        }

        return [.. begun.Select((m, i) => new TimedStage(stages[m.Stage], m.At, i + 1 < begun.Count ? begun[i + 1].At : ended))];
    }

    /// <summary>How far stages were from what was planned, and which were not come to: a sentence for each of the first, one for all of the others.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="held">The stages as they were held.</param>
    public static IEnumerable<string> InWords(Plan plan, IReadOnlyList<TimedStage> held)
    {
        if (plan.Stages.Count == 0)
        {
            yield break;
        }

        var took = held.GroupBy(s => s.Stage.Id).ToDictionary(g => g.Key, g => g.Aggregate(Duration.Zero, (sum, s) => sum + (s.To - s.From)));
        var off = plan.Stages.Where(s => took.ContainsKey(s.Id)).Select(s => (s.Name, Took: Words.WholeMinutes(took[s.Id]), Planned: Words.WholeMinutes(s.Length)))
            .Where(s => Math.Abs(s.Took - s.Planned) >= Drift).ToList();
        foreach (var (name, minutes, planned) in off)
        {
            yield return $"“{name}” took {Words.Several(minutes, "minute")}, {Words.InLetters(Math.Abs(minutes - planned))} {(minutes > planned ? "more" : "fewer")} than planned.";
        }

        var missed = plan.Stages.Where(s => !took.ContainsKey(s.Id)).Select(s => $"“{s.Name}”").ToList();
        if (missed.Count > 0)
        {
            yield return $"{Words.Listed(missed)} {(missed.Count == 1 ? "was" : "were")} not come to.";
        }
        else if (off.Count == 0)
        {
            yield return "Every stage took about as long as planned.";
        }
    }

    // In whole minutes; less is no drift, for nobody moves on by the second.
    private const int Drift = 3;

    // The first stage begins with the lesson; nobody has to say so.
    private static (int Index, Instant From) Latest(Plan plan, Instant start, IReadOnlyList<(Guid Stage, Instant At)> moves)
    {
        var places = plan.Stages.Select((s, i) => (s.Id, Index: i)).DistinctBy(s => s.Id).ToDictionary(s => s.Id, s => s.Index);
        return moves.Where(m => places.ContainsKey(m.Stage)).Select(m => (places[m.Stage], m.At)).LastOrDefault((0, start));
    }
}
