using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Keys;

/// <summary>Somebody, or a program, who came with the key to one lesson.</summary>
public sealed record KeyHolder(Guid Key, Guid Owner, Guid Lesson, string Name, KeyRights Rights);

/// <summary>
/// Keys to one lesson. A key is 256 random bits, shown once; the file keeps its SHA-256, which for so many bits needs no salt. It goes with
/// each request as <c>Authorization: Bearer …</c>, never in an address.
/// </summary>
public sealed class LessonKeys(SchoolFile file)
{
    /// <summary>What the windows hear of that were opened with a key.</summary>
    public static string WindowsOf(Guid key) => $"key {key}";

    /// <summary>A new key, and the row that knows it by its fingerprint.</summary>
    public static (string Key, LessonKey Row) Make(Guid lesson, string name, KeyRights rights, Instant now)
    {
        var key = SecretToken.Make();
        var row = new LessonKey { Id = Guid.CreateVersion7(), LessonId = lesson, Name = name, Rights = rights, KeyHash = SecretToken.HashOf(key), MadeAt = now };
        return (key, row);
    }

    /// <summary>Who holds the key that came with a request, with at least one of these rights; null if nobody does, or not any more.</summary>
    public async Task<KeyHolder?> HolderOf(HttpRequest request, KeyRights any)
    {
        var header = request.Headers.Authorization.ToString();
        return header.StartsWith("Bearer ", StringComparison.Ordinal) ? await HolderOf(header["Bearer ".Length..].Trim(), any) : null;
    }

    /// <summary>Who holds a key.</summary>
    public async Task<KeyHolder?> HolderOf(string key, KeyRights any)
    {
        var hash = SecretToken.HashOf(key);
        await using var db = file.Open(Guid.Empty);
        var found = await db.LessonKeys.IgnoreQueryFilters().AsNoTracking().FirstOrDefaultAsync(k => k.KeyHash == hash && k.TakenBackAt == null);
        return found is not null && (found.Rights & any) != 0 ? new KeyHolder(found.Id, found.OwnerId, found.LessonId, found.Name, found.Rights) : null;
    }
}
