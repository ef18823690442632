using System.Globalization;
using System.Text;
using System.Xml.Linq;
using PoliteTally.Core.Reports;
using SkiaSharp;

namespace PoliteTally.Formats.Documents;

/// <summary>A drawing of a report as a file of its own, in the colours of paper.</summary>
public static class DrawingFile
{
    private const float PixelsPerPoint = 3;
    private static readonly XNamespace Svg11 = "http://www.w3.org/2000/svg";

    /// <summary>As SVG (W3C, 1.1): lines stay lines, and words stay words.</summary>
    public static byte[] Svg(Drawing drawing)
    {
        var svg = new XElement(
            Svg11 + "svg", new XAttribute("viewBox", $"0 0 {Text(drawing.Width)} {Text(drawing.Height)}"), Length("width", drawing.Width), Length("height", drawing.Height),
            new XAttribute("role", "img"), new XAttribute("font-family", "Atkinson Hyperlegible Next, Noto Sans, sans-serif"),
            new XElement(Svg11 + "title", XmlText.Clean(drawing.Says)), drawing.Marks.Select(Drawn));
        return Encoding.UTF8.GetBytes(svg.ToString());
    }

    /// <summary>As PNG on white, with three pixels a point.</summary>
    public static byte[] Png(Drawing drawing)
    {
        using var surface = SKSurface.Create(new SKImageInfo((int)Math.Ceiling((float)drawing.Width * PixelsPerPoint), (int)Math.Ceiling((float)drawing.Height * PixelsPerPoint)));
        using var setter = new Typesetter();
        surface.Canvas.Clear(SKColors.White);
        surface.Canvas.Scale(PixelsPerPoint);
        Inks.Draw(drawing, surface.Canvas, setter);
        using var image = surface.Snapshot();
        using var png = image.Encode(SKEncodedImageFormat.Png, 100);
        return png.ToArray();
    }

    private static XElement Drawn(DrawnMark mark)
    {
        var colour = $"#{Inks.OnPaper(mark.Pen).ToString()[3..]}";
        return mark.Kind switch
        {
            MarkKind.Line => new(
                Svg11 + "line", Length("x1", mark.X), Length("y1", mark.Y), Length("x2", mark.X2), Length("y2", mark.Y2), new XAttribute("stroke", colour), Length("stroke-width", mark.Size)),
            MarkKind.Dot => new(Svg11 + "circle", Length("cx", mark.X), Length("cy", mark.Y), Length("r", mark.Size), new XAttribute("fill", colour)),
            MarkKind.Field => new(
                Svg11 + "rect", Length("x", mark.X), Length("y", mark.Y), Length("width", mark.X2 - mark.X), Length("height", mark.Y2 - mark.Y), new XAttribute("fill", colour)),
            _ => new(
                Svg11 + "text", Length("x", mark.X), Length("y", mark.Y), Length("font-size", mark.Size), new XAttribute("fill", colour),
                mark.Bold ? new XAttribute("font-weight", "bold") : null,
                mark.Side == Side.Start ? null : new XAttribute("text-anchor", mark.Side == Side.End ? "end" : "middle"), XmlText.Clean(mark.Text ?? "")),
        };
    }

    private static XAttribute Length(string name, decimal value) => new(name, Text(value));

    private static string Text(decimal value) => value.ToString("0.##", CultureInfo.InvariantCulture);
}
