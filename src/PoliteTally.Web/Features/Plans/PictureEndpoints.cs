using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Plans;

/// <summary>A picture that was kept.</summary>
public sealed record PictureKept(Guid Id, int Width, int Height);

/// <summary>Where pictures lie: files in the data folder, named by their content.</summary>
public sealed class PictureFolder(string folder)
{
    /// <summary>Keeps a picture; the same one twice is kept once.</summary>
    internal async Task<Picture> Keep(ScaledPicture scaled, SchoolDb db, Instant now)
    {
        var fingerprint = Convert.ToHexString(SHA256.HashData(scaled.WebP));
        if (await db.Pictures.FirstOrDefaultAsync(p => p.Fingerprint == fingerprint) is { } known)
        {
            return known;
        }

        // The file before the row: a row never names a file that is not there.
        Directory.CreateDirectory(folder);
        var path = PathOf(fingerprint);
        if (!File.Exists(path))
        {
            var whole = $"{path}.{Guid.NewGuid():N}";
            await File.WriteAllBytesAsync(whole, scaled.WebP);
            File.Move(whole, path, overwrite: true);
        }

        var picture = new Picture
        {
            Id = Guid.CreateVersion7(),
            Fingerprint = fingerprint,
            Width = scaled.Width,
            Height = scaled.Height,
            AddedAt = now,
        };
        db.Pictures.Add(picture);
        await db.SaveChangesAsync();
        return picture;
    }

    internal byte[] Read(Picture picture) => File.ReadAllBytes(PathOf(picture.Fingerprint));

    internal string PathOf(string fingerprint) => Path.Combine(folder, $"{fingerprint}.webp");
}

internal static class PictureEndpoints
{
    private const int MostPictures = 5000;

    public static void MapPictures(this RouteGroupBuilder api)
    {
        api.MapPost("/pictures", async Task<Results<Ok<PictureKept>, ProblemHttpResult>> (
            HttpRequest request, SchoolDb db, PictureFolder pictures, IClock clock) =>
        {
            var sent = await SentFile.From(request);
            var scaled = PictureFile.Read(sent.Bytes);
            if (await db.Pictures.CountAsync() >= MostPictures)
            {
                return Refused.Now($"There are {MostPictures:N0} pictures already, as many as are kept.");
            }

            var kept = await pictures.Keep(scaled, db, clock.GetCurrentInstant());
            return TypedResults.Ok(new PictureKept(kept.Id, kept.Width, kept.Height));
        }).WithName("AddPicture").RequireRateLimiting(Limits.Files);

        api.MapGet("/pictures/{id:guid}", async Task<Results<PhysicalFileHttpResult, NotFound>> (
            Guid id, SchoolDb db, PictureFolder pictures, HttpContext http) =>
        {
            if (await db.Pictures.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id) is not { } picture)
            {
                return TypedResults.NotFound();
            }

            http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return TypedResults.PhysicalFile(pictures.PathOf(picture.Fingerprint), "image/webp");
        }).WithName("GetPicture");
    }
}
