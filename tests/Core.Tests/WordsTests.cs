using PoliteTally.Core.Reports;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Tests;

/// <summary>How much there is of something, in words and on paper.</summary>
public sealed class WordsTests
{
    [Theory]
    [InlineData(0, "0 rows")]
    [InlineData(1, "1 row")]
    [InlineData(999, "999 rows")]
    [InlineData(12_000, "12,000 rows")]
    public void Of_something_there_is_so_much(int count, string said) => Words.Count(count, "row").ShouldBe(said);

    /// <summary>Lessons stand side by side at even distances, and each has its number as long as there is room for it.</summary>
    [Theory]
    [InlineData(1, 1)]
    [InlineData(37, 37)]
    [InlineData(38, 0)]
    public void Lessons_have_their_numbers_where_there_is_room(int lessons, int numbers)
    {
        var sketch = new Sketch(Sketch.PageWidth);
        var axis = new LessonAxis(sketch, [.. Enumerable.Range(1, lessons)], top: 8, height: 70);
        var drawn = sketch.Done("", axis.Bottom);
        drawn.Marks.Count(m => m.Side == Side.Middle).ShouldBe(numbers);
        drawn.Marks.Where(m => m.Side == Side.End).Select(m => (m.Text, m.Y - 3)).ShouldBe([("0 %", 78), ("50 %", 43), ("100 %", 8)], ignoreOrder: true);
        (axis.At(0), axis.At(1), axis.Foot).ShouldBe((78m, 8m, 78m));
        axis.Of(lessons - 1).ShouldBeLessThan(Sketch.PageWidth);
        axis.Of(0).ShouldBe(Sketch.PageWidth - (axis.Of(lessons - 1) - 34), 0.0001m);
    }
}
