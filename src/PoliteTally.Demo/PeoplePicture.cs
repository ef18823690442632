using SkiaSharp;

namespace PoliteTally.Demo;

/// <summary>A picture of the list of people in a meeting, as somebody takes one of their screen.</summary>
internal static class PeoplePicture
{
    private const int Width = 300;
    private const int LineHeight = 25;
    private const float LetterHeight = 15;

    private static readonly SKColor[] Badges = [new(98, 130, 120), new(160, 112, 84), new(92, 104, 150), new(140, 96, 130)];

    /// <summary>Draws the names under the time of day, each behind a badge.</summary>
    public static byte[] Of(string time, IReadOnlyList<string> names)
    {
        using var letters = SKTypeface.FromStream(typeof(PeoplePicture).Assembly.GetManifestResourceStream("noto-sans-latin.ttf"));
        using var font = new SKFont(letters, LetterHeight) { Subpixel = true };
        using var ink = new SKPaint { Color = new SKColor(38, 42, 46), IsAntialias = true };
        using var badge = new SKPaint { IsAntialias = true };
        using var surface = SKSurface.Create(new SKImageInfo(Width, ((names.Count + 2) * LineHeight) + 10));
        var canvas = surface.Canvas;
        canvas.Clear(new SKColor(250, 250, 248));
        canvas.DrawText(time, 16, LineHeight, SKTextAlign.Left, font, ink);
        foreach (var (name, i) in names.Select((n, i) => (n, i)))
        {
            var baseline = (i + 2.4f) * LineHeight;
            badge.Color = Badges[i % Badges.Length];
            canvas.DrawCircle(24, baseline - 5, 8, badge);
            canvas.DrawText(name, 44, baseline, SKTextAlign.Left, font, ink);
        }

        using var image = surface.Snapshot();
        return image.Encode(SKEncodedImageFormat.Png, 100).ToArray();
    }
}
