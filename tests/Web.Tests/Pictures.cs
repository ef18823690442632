using SkiaSharp;

namespace PoliteTally.Web.Tests;

/// <summary>Pictures made for tests.</summary>
internal static class Pictures
{
    public static byte[] Png(int width, int height, byte shade = 120)
    {
        using var bitmap = new SKBitmap(width, height);
        bitmap.Erase(new SKColor(shade, shade, shade));
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return encoded.ToArray();
    }
}
