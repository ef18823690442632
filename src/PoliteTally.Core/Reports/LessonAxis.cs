using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>Lessons side by side across a page, each with its number where there is room, under a share from 0 to 1.</summary>
public sealed class LessonAxis
{
    private const decimal Left = 34;
    private const decimal RoomForNumber = 13;

    private readonly decimal _height;

    /// <summary>Draws it.</summary>
    /// <param name="sketch">What it is drawn in, as wide as a page.</param>
    /// <param name="numbers">The numbers of the lessons, at least one, in their order.</param>
    /// <param name="top">Where a share of 1 lies, in points.</param>
    /// <param name="height">How far a share of 0 lies below it, in points.</param>
    public LessonAxis(Sketch sketch, IReadOnlyList<int> numbers, decimal top, decimal height)
    {
        (_height, Foot, Step) = (height, top + height, (sketch.Width - Left) / numbers.Count);
        foreach (var share in new[] { 0, 0.5m, 1 })
        {
            sketch.Line(Pen.Rule, Left, At(share), sketch.Width, At(share), 0.7m);
            sketch.Words(Pen.Soft, Left - 5, At(share) + 3, Words.Percent(share), 7.5m, Side.End);
        }

        for (var i = 0; i < numbers.Count && Step >= RoomForNumber; i++)
        {
            sketch.Words(Pen.Soft, Of(i), Foot + 10, $"{numbers[i]}", 7.5m, Side.Middle);
        }
    }

    /// <summary>Where a share of 0 lies, in points.</summary>
    public decimal Foot { get; }

    /// <summary>What lies under the foot is not lower than this.</summary>
    public decimal Bottom => Foot + 14;

    /// <summary>From one lesson to the next, in points.</summary>
    public decimal Step { get; }

    /// <summary>Where a lesson stands, counted from 0.</summary>
    public decimal Of(int lesson) => Left + (Step * (lesson + 0.5m));

    /// <summary>Where a share lies.</summary>
    public decimal At(decimal share) => Foot - (_height * share);
}
