using NodaTime;

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

    // The first stage begins with the lesson; nobody has to say so.
    private static (int Index, Instant From) Latest(Plan plan, Instant start, IReadOnlyList<(Guid Stage, Instant At)> moves)
    {
        var places = plan.Stages.Select((s, i) => (s.Id, Index: i)).DistinctBy(s => s.Id).ToDictionary(s => s.Id, s => s.Index);
        return moves.Where(m => places.ContainsKey(m.Stage)).Select(m => (places[m.Stage], m.At)).LastOrDefault((0, start));
    }
}
