using SkiaSharp;

namespace PoliteTally.Formats;

/// <summary>A picture as it is kept: WebP, scaled down, with nothing of the file it came from but what is seen.</summary>
public sealed record ScaledPicture(byte[] WebP, int Width, int Height);

/// <summary>Reads pictures for picture choices.</summary>
public static class PictureFile
{
    /// <summary>The largest file, in bytes: 12 MB.</summary>
    public const int LargestFile = 12_000_000;

    /// <summary>The longest side of a kept picture, in pixels: 1,280.</summary>
    public const int LongestSide = 1280;

    private const long MostPixels = 60_000_000;
    private const int Quality = 84;

    // Codecs scale in steps of their own; what is read is never smaller than what is kept.
    private const double ReadLarger = 1.5;

    // A large picture takes some 300 MB while it is read: one after the other, whoever sends how many.
    private static readonly SemaphoreSlim OneAtATime = new(1);

    /// <summary>Reads a JPEG, PNG, WebP or GIF, scales it down and turns it upright. One picture is read at a time, and the others wait.</summary>
    /// <exception cref="FormatProblem">The file is no such picture, or too large.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static async Task<ScaledPicture> Read(byte[] bytes, CancellationToken stopping)
    {
        await OneAtATime.WaitAsync(stopping);
        try
        {
            return await Task.Run(() => Scaled(bytes), stopping);
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    private static ScaledPicture Scaled(byte[] bytes)
    {
        if (bytes.Length > LargestFile)
        {
            throw new FormatProblem("This picture is larger than 12 MB. Save it smaller and choose it again; nothing was stored.");
        }

        using var codec = SKCodec.Create(new MemoryStream(bytes)) ?? throw NotOne();
        var info = codec.Info;
        if (info.Width < 1 || info.Height < 1 || (long)info.Width * info.Height > MostPixels)
        {
            throw new FormatProblem($"This picture has {info.Width:N0} × {info.Height:N0} points, more than can be worked on. Save it smaller and choose it again; nothing was stored.");
        }

        var scale = Math.Min(1d, (double)LongestSide / Math.Max(info.Width, info.Height));
        var read = codec.GetScaledDimensions((float)Math.Min(1, scale * ReadLarger));
        using var whole = SKBitmap.Decode(codec, new SKImageInfo(read.Width, read.Height)) ?? throw NotOne();
        var size = new SKImageInfo(Math.Max(1, (int)Math.Round(info.Width * scale)), Math.Max(1, (int)Math.Round(info.Height * scale)));
        using var scaled = whole.Resize(size, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)) ?? throw NotOne();
        using var upright = Upright(scaled, codec.EncodedOrigin);
        using var encoded = upright.Encode(SKEncodedImageFormat.Webp, Quality) ?? throw NotOne();
        return new ScaledPicture(encoded.ToArray(), upright.Width, upright.Height);
    }

    // Telephones store pictures as the sensor lay and note how they were held.
    private static SKBitmap Upright(SKBitmap picture, SKEncodedOrigin origin)
    {
        var turn = origin switch
        {
            SKEncodedOrigin.BottomRight => 180,
            SKEncodedOrigin.RightTop => 90,
            SKEncodedOrigin.LeftBottom => 270,
            _ => 0,
        };
        if (turn == 0)
        {
            return picture;
        }

        var sideways = turn is 90 or 270;
        var upright = new SKBitmap(sideways ? picture.Height : picture.Width, sideways ? picture.Width : picture.Height);
        using var canvas = new SKCanvas(upright);
        canvas.Translate(upright.Width / 2f, upright.Height / 2f);
        canvas.RotateDegrees(turn);
        canvas.DrawBitmap(picture, -picture.Width / 2f, -picture.Height / 2f);
        return upright;
    }

    private static FormatProblem NotOne() =>
        new("This is not a picture that can be read. It must be a JPEG, PNG, WebP or GIF file; nothing was stored.");
}
