using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Plans;

/// <summary>A picture that was kept.</summary>
public sealed record PictureKept(Guid Id, int Width, int Height);

internal static class PictureEndpoints
{
    private const int MostPictures = 5000;

    public static void MapPictures(this RouteGroupBuilder api)
    {
        api.MapPost("/pictures", async Task<Results<Ok<PictureKept>, ProblemHttpResult>> (
            HttpRequest request, SchoolDb db, PictureFolder pictures, IClock clock) =>
        {
            var sent = await SentFile.From(request);
            var scaled = await PictureFile.Read(sent.Bytes, request.HttpContext.RequestAborted);
            if (await db.Pictures.CountAsync() >= MostPictures)
            {
                return Refused.Now($"There are {MostPictures:N0} pictures already, as many as are kept.");
            }

            var kept = await pictures.Keep(scaled.WebP, scaled.Width, scaled.Height, db, clock.GetCurrentInstant());
            return TypedResults.Ok(new PictureKept(kept.Id, kept.Width, kept.Height));
        }).WithName("AddPicture").RequireRateLimiting(Limits.Files);

        api.MapGet("/pictures/{id:guid}", async Task<Results<PhysicalFileHttpResult, NotFound>> (
            Guid id, SchoolDb db, PictureFolder pictures, HttpContext http) =>
        {
            return Served(await db.Pictures.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id), pictures, http) is { } served ? served : TypedResults.NotFound();
        }).WithName("GetPicture");
    }

    /// <summary>A picture for the browser to keep: its bytes never change. Null if there is none, or if its file is gone.</summary>
    internal static PhysicalFileHttpResult? Served(Picture? picture, PictureFolder pictures, HttpContext http)
    {
        if (picture is null || !File.Exists(pictures.PathOf(picture.Fingerprint)))
        {
            return null;
        }

        http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(pictures.PathOf(picture.Fingerprint), "image/webp");
    }
}
