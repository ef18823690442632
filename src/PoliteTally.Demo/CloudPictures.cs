using SkiaSharp;

namespace PoliteTally.Demo;

/// <summary>Four skies, drawn: the demo school has no camera.</summary>
internal static class CloudPictures
{
    private const int Width = 640;
    private const int Height = 480;

    public static byte[] Cumulus() => Sky(canvas =>
    {
        foreach (var (x, y, size) in new[] { (150f, 250f, 1.1f), (420f, 190f, 0.8f), (520f, 330f, 0.6f) })
        {
            Heap(canvas, x, y, size, SKColors.White);
        }
    });

    public static byte[] Cirrus() => Sky(canvas =>
    {
        using var pen = new SKPaint { Color = new SKColor(255, 255, 255, 190), StrokeWidth = 4, IsAntialias = true, Style = SKPaintStyle.Stroke };
        for (var i = 0; i < 9; i++)
        {
            using var hair = new SKPath();
            hair.MoveTo(40 + (i * 55), 260 - (i % 3 * 40));
            hair.CubicTo(120 + (i * 50), 180 - (i % 3 * 40), 190 + (i * 48), 190 - (i % 3 * 30), 250 + (i * 46), 120 - (i % 3 * 20));
            canvas.DrawPath(hair, pen);
        }
    });

    public static byte[] Stratus() => Sky(canvas =>
    {
        using var grey = new SKPaint { IsAntialias = true };
        for (var i = 0; i < 7; i++)
        {
            grey.Color = new SKColor((byte)(176 + (i * 6)), (byte)(184 + (i * 6)), (byte)(190 + (i * 6)), 235);
            canvas.DrawRect(0, i * 46, Width, 58, grey);
        }
    });

    public static byte[] Cumulonimbus() => Sky(canvas =>
    {
        Heap(canvas, 320, 320, 1.9f, new SKColor(120, 130, 142));
        Heap(canvas, 300, 210, 1.5f, new SKColor(205, 212, 218));
        using var anvil = new SKPaint { Color = new SKColor(226, 231, 235), IsAntialias = true };
        canvas.DrawOval(320, 92, 250, 40, anvil);
        using var rain = new SKPaint { Color = new SKColor(70, 84, 98), StrokeWidth = 3, IsAntialias = true };
        for (var x = 200; x < 450; x += 22)
        {
            canvas.DrawLine(x, 372, x - 18, 440, rain);
        }
    });

    private static byte[] Sky(Action<SKCanvas> clouds)
    {
        using var bitmap = new SKBitmap(Width, Height);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(new SKColor(120, 168, 205));
        clouds(canvas);
        using var sea = new SKPaint { Color = new SKColor(43, 78, 92) };
        canvas.DrawRect(0, Height - 44, Width, 44, sea);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Webp, 84);
        return encoded.ToArray();
    }

    private static void Heap(SKCanvas canvas, float x, float y, float size, SKColor color)
    {
        using var paint = new SKPaint { Color = color, IsAntialias = true };
        canvas.DrawOval(x, y, 110 * size, 34 * size, paint);
        canvas.DrawCircle(x - (50 * size), y - (22 * size), 40 * size, paint);
        canvas.DrawCircle(x + (10 * size), y - (44 * size), 54 * size, paint);
        canvas.DrawCircle(x + (62 * size), y - (18 * size), 36 * size, paint);
    }
}
