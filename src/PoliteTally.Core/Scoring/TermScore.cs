namespace PoliteTally.Core.Scoring;

/// <summary>A scored lesson, as far as a term is concerned.</summary>
/// <param name="Label">What the lesson is called.</param>
/// <param name="Score">0 to 100, unrounded.</param>
/// <param name="PlannedMinutes">Its planned length in minutes, from zero up.</param>
public sealed record ScoredLesson(string Label, decimal Score, decimal PlannedMinutes);

/// <summary>The score of a student over a term.</summary>
/// <param name="Total">0 to 100, with its parts; null if there is none yet.</param>
/// <param name="LeftOut">The lowest lessons, left out by the scheme.</param>
public sealed record TermScore(Figure? Total, IReadOnlyList<ScoredLesson> LeftOut)
{
    /// <summary>
    /// <c>Σ L·score / Σ L</c> over scored lessons, after leaving out the lowest k; null unless as many as the scheme asks for are left then. Among equal lowest ones
    /// the longest is left out, so that the order of lessons never matters.
    /// </summary>
    public static TermScore Of(IReadOnlyCollection<ScoredLesson> lessons, Scheme scheme)
    {
        // At least one lesson is always kept.
        var out_ = Math.Max(0, Math.Min(scheme.LowestLeftOut, lessons.Count - 1));
        if (lessons.Count - out_ < scheme.LessonsForTerm)
        {
            return new TermScore(null, []);
        }

        List<ScoredLesson> leftOut = [.. lessons.OrderBy(l => l.Score).ThenByDescending(l => l.PlannedMinutes).ThenBy(l => l.Label, StringComparer.Ordinal).Take(out_)];
        var kept = lessons.Except(leftOut, ReferenceEqualityComparer.Instance).Cast<ScoredLesson>().ToList();
        var weights = kept.ConvertAll(l => scheme.LessonsWeighTheSame ? 1 : l.PlannedMinutes);
        if (weights.Sum() == 0)
        {
            weights = kept.ConvertAll(_ => 1m);
        }

        var earned = Figure.Of("Score times length", Reckoning.Sum, [.. kept.Zip(weights, (lesson, weight) =>
            Figure.Of(lesson.Label, Reckoning.Product, Figure.Given("score", lesson.Score), Figure.Given("length", weight)))]);
        var length = Figure.Given("Length in all", weights.Sum());
        return new TermScore(Figure.Of("Term", Reckoning.Quotient, earned, length), leftOut);
    }
}
