using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>Where pictures lie: files in the data folder, named by their content.</summary>
public sealed class PictureFolder(string folder)
{
    /// <summary>Keeps a picture; the same one twice is kept once.</summary>
    public async Task<Picture> Keep(byte[] webP, int width, int height, SchoolDb db, Instant now)
    {
        var fingerprint = Convert.ToHexString(SHA256.HashData(webP));
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
            await File.WriteAllBytesAsync(whole, webP);
            File.Move(whole, path, overwrite: true);
        }

        var picture = new Picture { Id = Guid.CreateVersion7(), Fingerprint = fingerprint, Width = width, Height = height, AddedAt = now };
        db.Pictures.Add(picture);
        await db.SaveChangesAsync();
        return picture;
    }

    /// <summary>The bytes of a picture.</summary>
    public byte[] Read(Picture picture) => File.ReadAllBytes(PathOf(picture.Fingerprint));

    /// <summary>Where the file of a picture lies.</summary>
    public string PathOf(string fingerprint) => Path.Combine(folder, $"{fingerprint}.webp");
}
