namespace PoliteTally.Core.Questions;

/// <summary>How hard a marked question was, and how well it told those who know from those who do not.</summary>
/// <param name="Answers">How many answers have marks.</param>
/// <param name="ShareRight">The mean of their marks, from 0 (nobody had it right) to 1; null without any.</param>
/// <param name="Tells">
/// The point-biserial correlation of the marks in this question with the marks in the others of the lesson, from −1 to 1; null where there are no others, or all had the
/// same. Where marks are parts it is the product-moment correlation, of which the point-biserial one is the case of 0 and 1 (Pearson 1909; with the rest of the
/// test instead of the whole, so that a question is not compared with itself: Henrysson 1963).
/// </param>
public sealed record ItemFigures(int Answers, decimal? ShareRight, decimal? Tells)
{
    /// <summary>With fewer answers than this a correlation says little: 10.</summary>
    public const int Few = 10;

    /// <summary>Whether there are so few answers that the figures say little.</summary>
    public bool IsOfFew => Answers < Few;

    /// <summary>Reckons them.</summary>
    /// <param name="asking">The question.</param>
    /// <param name="others">The other marked questions of the lesson.</param>
    public static ItemFigures Of(Asking asking, IReadOnlyCollection<Asking> others)
    {
        var marks = asking.Answers.Keys.Select(s => (Student: s, Mark: asking.MarksOf(s))).Where(m => m.Mark is not null).ToDictionary(m => m.Student, m => m.Mark!.Value);
        var pairs = marks.Select(m => (Own: m.Value, Others: others.Where(o => o.Id != asking.Id).Select(o => o.MarksOf(m.Key)).OfType<decimal>().ToList()))
            .Where(p => p.Others.Count > 0).Select(p => (p.Own, Others: p.Others.Sum())).ToList();
        return new ItemFigures(marks.Count, marks.Count == 0 ? null : marks.Values.Average(), CorrelationOf(pairs));
    }

    /// <summary>The product-moment correlation; null of fewer than three pairs, or where one side is the same throughout.</summary>
    public static decimal? CorrelationOf(IReadOnlyList<(decimal Own, decimal Others)> pairs)
    {
        if (pairs.Count < 3)
        {
            return null;
        }

        var (own, rest) = (pairs.Average(p => p.Own), pairs.Average(p => p.Others));
        var (varied, variedRest) = (pairs.Sum(p => (p.Own - own) * (p.Own - own)), pairs.Sum(p => (p.Others - rest) * (p.Others - rest)));
        return varied == 0 || variedRest == 0 ? null : (decimal)((double)pairs.Sum(p => (p.Own - own) * (p.Others - rest)) / Math.Sqrt((double)(varied * variedRest)));
    }
}
