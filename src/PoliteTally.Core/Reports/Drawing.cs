namespace PoliteTally.Core.Reports;

/// <summary>What a mark of a drawing is drawn with. Screen, paper and file each have their own colours for it.</summary>
public enum Pen
{
    /// <summary>What is to be seen first.</summary>
    Ink,

    /// <summary>What stands beside it.</summary>
    Soft,

    /// <summary>Lines to read along.</summary>
    Rule,

    /// <summary>The point of the drawing; at most one.</summary>
    Highlight,

    /// <summary>The strand of speaking.</summary>
    Speaking,

    /// <summary>The strand of questions.</summary>
    Questions,

    /// <summary>The strand of the chat.</summary>
    Chat,

    /// <summary>The strand of group work.</summary>
    Group,

    /// <summary>Nods.</summary>
    Nods,
}

/// <summary>What a mark of a drawing is.</summary>
public enum MarkKind
{
    /// <summary>A line from one point to another.</summary>
    Line,

    /// <summary>A round dot around a point.</summary>
    Dot,

    /// <summary>A filled field between two corners.</summary>
    Field,

    /// <summary>Words on a line.</summary>
    Words,
}

/// <summary>On which side of its point a text stands.</summary>
public enum Side
{
    /// <summary>It begins there.</summary>
    Start,

    /// <summary>Around it.</summary>
    Middle,

    /// <summary>It ends there.</summary>
    End,
}

/// <summary>A mark of a drawing. Lengths in points (1/72 inch), x to the right and y downwards from the upper left corner.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Pen">What it is drawn with.</param>
/// <param name="X">Where it begins; the middle of a dot.</param>
/// <param name="Y">Where it begins; of words the line that they stand on.</param>
/// <param name="X2">Where it ends.</param>
/// <param name="Y2">Where it ends.</param>
/// <param name="Size">The width of a line, the radius of a dot, the height of words.</param>
/// <param name="Text">The words.</param>
/// <param name="Side">On which side of their point they stand.</param>
/// <param name="Bold">Whether they are set bold.</param>
public sealed record DrawnMark(
    MarkKind Kind, Pen Pen, decimal X, decimal Y, decimal X2, decimal Y2, decimal Size, string? Text = null, Side Side = Side.Start, bool Bold = false);

/// <summary>A drawing made of lines, dots, fields and words, so that it can be drawn on a screen, on paper and in any file.</summary>
/// <param name="Says">What it shows, for those who cannot see it.</param>
/// <param name="Width">Its width in points.</param>
/// <param name="Height">Its height in points.</param>
/// <param name="Marks">What is drawn, the lowest first.</param>
public sealed record Drawing(string Says, decimal Width, decimal Height, IReadOnlyList<DrawnMark> Marks);

/// <summary>Draws a drawing, mark by mark.</summary>
/// <param name="width">Its width in points.</param>
public sealed class Sketch(decimal width)
{
    /// <summary>The width of a drawing that goes from margin to margin of a page, in points.</summary>
    public const decimal PageWidth = 515;

    private const decimal Step = 3.4m;
    private readonly List<DrawnMark> _marks = [];

    /// <summary>Its width in points.</summary>
    public decimal Width { get; } = width;

    /// <summary>A line.</summary>
    public void Line(Pen pen, decimal x, decimal y, decimal x2, decimal y2, decimal width = 1) => _marks.Add(new(MarkKind.Line, pen, x, y, x2, y2, width));

    /// <summary>A dot.</summary>
    public void Dot(Pen pen, decimal x, decimal y, decimal radius) => _marks.Add(new(MarkKind.Dot, pen, x, y, x, y, radius));

    /// <summary>A filled field.</summary>
    public void Field(Pen pen, decimal x, decimal y, decimal x2, decimal y2) => _marks.Add(new(MarkKind.Field, pen, x, y, x2, y2, 0));

    /// <summary>Words.</summary>
    public void Words(Pen pen, decimal x, decimal y, string text, decimal size = 8, Side side = Side.Start, bool bold = false) =>
        _marks.Add(new(MarkKind.Words, pen, x, y, x, y, size, text, side, bold));

    /// <summary>A lesson as one line: open, solid while there, with a cap where a stretch begins or ends inside, and a dot where they spoke.</summary>
    /// <param name="x">Where the lesson begins.</param>
    /// <param name="y">The line.</param>
    /// <param name="length">How long the line is.</param>
    /// <param name="stretches">From where to where they were there, each as fractions of the lesson.</param>
    /// <param name="spoke">When they spoke, as fractions of the lesson.</param>
    public void Ribbon(decimal x, decimal y, decimal length, IReadOnlyList<decimal[]> stretches, IReadOnlyList<decimal> spoke)
    {
        const decimal hair = 0.02m;
        Line(Pen.Rule, x, y, x + length, y, 1.4m);
        foreach (var stretch in stretches)
        {
            Line(Pen.Ink, x + (length * stretch[0]), y, x + (length * stretch[1]), y, 1.8m);
            foreach (var cap in new[] { stretch[0], stretch[1] }.Where(c => c is > hair and < 1 - hair))
            {
                Line(Pen.Ink, x + (length * cap), y - 2.6m, x + (length * cap), y + 2.6m);
            }
        }

        foreach (var at in spoke)
        {
            Dot(Pen.Speaking, x + (length * at), y, 2);
        }
    }

    /// <summary>Strokes in fives, the fifth across the four; a half one is half as high and stands apart.</summary>
    /// <param name="pen">The pen of the strand.</param>
    /// <param name="x">Where they begin.</param>
    /// <param name="y">Their foot.</param>
    /// <param name="height">Their height.</param>
    /// <param name="whole">How many whole ones.</param>
    /// <param name="half">How many half ones.</param>
    /// <returns>Where they end.</returns>
    public decimal Strokes(Pen pen, decimal x, decimal y, decimal height, int whole, int half = 0)
    {
        const decimal width = 1.4m;
        for (var i = 0; i < whole; i++)
        {
            if (i % 5 == 4)
            {
                Line(pen, x - (4 * Step) - 2, y - 2, x, y - height + 2, width);
                x += Step + 1.5m;
            }
            else
            {
                Line(pen, x + 0.6m, y - height, x, y, width);
                x += Step;
            }
        }

        x += half > 0 && whole > 0 ? 2 : 0;
        for (var i = 0; i < half; i++, x += Step)
        {
            Line(pen, x + 0.3m, y - (height / 2), x, y, width);
        }

        return x;
    }

    /// <summary>The drawing.</summary>
    /// <param name="says">What it shows, for those who cannot see it.</param>
    /// <param name="height">Its height in points.</param>
    public Drawing Done(string says, decimal height) => new(says, Width, height, [.. _marks]);
}
