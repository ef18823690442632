using PoliteTally.Core.Text;

namespace PoliteTally.Core.Fairness;

/// <summary>How a name is drawn.</summary>
public enum DrawManner
{
    /// <summary>By weight, in favour of the least heard.</summary>
    LeastHeard,

    /// <summary>Nobody twice before everybody once.</summary>
    OnceRound,
}

/// <summary>Somebody whose name can be drawn.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Turns">Turns of theirs in this lesson, however they came by them.</param>
/// <param name="Draws">How often they were drawn in this lesson.</param>
/// <param name="DrawnLast">Whether the last draw fell on them.</param>
public sealed record DrawCandidate(Guid Student, int Turns, int Draws, bool DrawnLast);

/// <summary>A name that was drawn.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Why">Why the odds were as they were, in plain words.</param>
/// <param name="Odds">The odds that this name had, above 0 and up to 1.</param>
public sealed record Drawn(Guid Student, string Why, decimal Odds);

/// <summary>
/// Picks a name at random with the odds in favour of the least heard: weight <c>(1 + most turns − own turns)²</c> among those who can be
/// drawn; or <em>once round</em>, where all who were drawn the fewest times have the same odds. Whoever was drawn last is passed over, unless
/// there is nobody else.
/// </summary>
public static class FairDraw
{
    /// <summary>Draws a name; null if there is nobody to draw from.</summary>
    /// <param name="present">Those who are present and not paused.</param>
    /// <param name="manner">How.</param>
    /// <param name="seed">The same seed and candidates give the same name.</param>
    public static Drawn? Draw(IReadOnlyCollection<DrawCandidate> present, DrawManner manner, int seed)
    {
        var candidates = present.Any(c => !c.DrawnLast) ? present.Where(c => !c.DrawnLast) : present;
        // In one order whatever order they came in, so that a seed means something.
        var ordered = candidates.OrderBy(c => c.Student).ToList();
        if (ordered.Count == 0)
        {
            return null;
        }

        if (manner == DrawManner.OnceRound)
        {
            var fewest = ordered.Min(c => c.Draws);
            ordered = [.. ordered.Where(c => c.Draws == fewest)];
        }

        var most = ordered.Max(c => c.Turns);
        var weights = ordered.Select(c => manner == DrawManner.OnceRound ? 1L : Square(1 + most - c.Turns)).ToList();
        var total = weights.Sum();
        var at = new Random(seed).NextInt64(total);
        var index = 0;
        while (at >= weights[index])
        {
            at -= weights[index++];
        }

        return new Drawn(ordered[index].Student, WhyOf(ordered[index], most, manner), (decimal)weights[index] / total);
    }

    private static string WhyOf(DrawCandidate drawn, int most, DrawManner manner) => (manner, drawn) switch
    {
        (DrawManner.OnceRound, { Draws: 0 }) => "not drawn yet today",
        (DrawManner.OnceRound, _) => $"everybody has been drawn {Words.Count(drawn.Draws, "time")}, a new round",
        (_, { Turns: 0 }) => "not heard yet today",
        _ when drawn.Turns == most => $"heard {Words.Count(drawn.Turns, "time")}, as much as anybody",
        _ => $"heard {Words.Count(drawn.Turns, "time")}, others up to {most}",
    };

    private static long Square(long number) => number * number;
}
