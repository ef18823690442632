using PoliteTally.Core.Reports;
using SkiaSharp;

namespace PoliteTally.Formats.Documents;

/// <summary>Draws a drawing on paper.</summary>
internal static class Inks
{
    /// <summary>The colour of a pen on white paper.</summary>
    public static SKColor OnPaper(Pen pen) => pen switch
    {
        Pen.Ink => new SKColor(0x15, 0x24, 0x1D),
        Pen.Soft => new SKColor(0x4B, 0x5F, 0x54),
        Pen.Rule => new SKColor(0xC6, 0xD5, 0xC4),
        Pen.Highlight => new SKColor(0xFF, 0xD9, 0x4A),
        Pen.Speaking => new SKColor(0x1B, 0x4A, 0x9C),
        Pen.Questions => new SKColor(0x7B, 0x2A, 0x7C),
        Pen.Chat => new SKColor(0x0F, 0x6A, 0x63),
        Pen.Group => new SKColor(0x8A, 0x4B, 0x08),
        Pen.Nods => new SKColor(0xB0, 0x26, 0x4E),
        _ => throw new ArgumentOutOfRangeException(nameof(pen), pen, "no such pen"),
    };

    /// <summary>Draws all marks, from the upper left corner on.</summary>
    public static void Draw(Drawing drawing, SKCanvas canvas, Typesetter setter)
    {
        foreach (var mark in drawing.Marks)
        {
            var (x, y, x2, y2, size) = ((float)mark.X, (float)mark.Y, (float)mark.X2, (float)mark.Y2, (float)mark.Size);
            using var paint = new SKPaint { Color = OnPaper(mark.Pen), IsAntialias = true, StrokeWidth = size, StrokeCap = SKStrokeCap.Round };
            switch (mark.Kind)
            {
                case MarkKind.Line:
                    canvas.DrawLine(x, y, x2, y2, paint);
                    break;
                case MarkKind.Dot:
                    canvas.DrawCircle(x, y, size, paint);
                    break;
                case MarkKind.Field:
                    canvas.DrawRect(new SKRect(x, y, x2, y2), paint);
                    break;
                default:
                    setter.Draw(canvas, mark.Text ?? "", x, y, size, OnPaper(mark.Pen), mark.Bold, mark.Side);
                    break;
            }
        }
    }
}
