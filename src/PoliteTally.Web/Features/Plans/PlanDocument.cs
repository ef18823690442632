using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Plans;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Plans;

/// <summary>A picture in a plan file.</summary>
/// <param name="Id">The id by which options name it.</param>
/// <param name="Data">Its bytes: a JPEG, PNG, WebP or GIF, base64 in JSON.</param>
public sealed record PlanPicture(Guid Id, byte[] Data);

/// <summary>A plan as a file: everything that is needed to use it elsewhere, but nothing about students.</summary>
/// <param name="Format">Always "polite-tally-plan".</param>
/// <param name="Version">The version of the format: 1.</param>
/// <param name="Title">What the lesson was about.</param>
/// <param name="Plan">The plan, without wishes for groups.</param>
/// <param name="Pictures">The pictures of its options.</param>
public sealed record PlanDocument(string Format, int Version, string Title, Plan Plan, IReadOnlyList<PlanPicture> Pictures)
{
    private const string FormatName = "polite-tally-plan";
    private const int NewestVersion = 1;
    private static readonly JsonSerializerOptions Indented = new(JsonFormat.Options) { WriteIndented = true };

    /// <summary>Writes a plan as a file.</summary>
    internal static async Task<byte[]> Write(Plan plan, string title, SchoolDb db, PictureFolder pictures)
    {
        var wanted = PicturesOf(plan).ToHashSet();
        var rows = await db.Pictures.AsNoTracking().Where(p => wanted.Contains(p.Id)).ToListAsync();
        var document = new PlanDocument(
            FormatName, NewestVersion, title, plan with { Together = [], Apart = [] },
            [.. rows.Where(p => File.Exists(pictures.PathOf(p.Fingerprint))).Select(p => new PlanPicture(p.Id, pictures.Read(p)))]);
        return JsonSerializer.SerializeToUtf8Bytes(document, Indented);
    }

    /// <summary>Reads a plan file.</summary>
    /// <exception cref="FormatProblem">It is none, or of a version that is not known here.</exception>
    internal static PlanDocument Read(byte[] bytes)
    {
        PlanDocument? document;
        try
        {
            document = JsonSerializer.Deserialize<PlanDocument>(bytes, JsonFormat.Options);
        }
        catch (JsonException broken)
        {
            var where = broken.Path is { Length: > 1 } path ? $" at {path[2..]}" : "";
            throw new FormatProblem($"This is not a plan file, or it is broken{where}{(broken.LineNumber is { } line ? $", line {line + 1}" : "")}. docs/plan.schema.json says what it looks like. Nothing was stored.");
        }

        return document switch
        {
            null or { Format: not FormatName } => throw new FormatProblem("This is not a plan file: its format is another. Nothing was stored."),
            { Version: not NewestVersion } => throw new FormatProblem($"This plan file is of version {document.Version}; here version {NewestVersion} is known. Nothing was stored."),
            _ => document,
        };
    }

    /// <summary>The plan with its pictures stored here, under ids of their own.</summary>
    internal async Task<Plan> TakeIn(SchoolDb db, PictureFolder pictures, Instant now, CancellationToken stopping)
    {
        // All are read before any is stored, so that a broken one leaves nothing half stored.
        var read = new List<(Guid Id, ScaledPicture Scaled)>();
        foreach (var picture in Pictures)
        {
            read.Add((picture.Id, await PictureFile.Read(picture.Data, stopping)));
        }

        var ids = new Dictionary<Guid, Guid>();
        foreach (var (id, scaled) in read)
        {
            ids[id] = (await pictures.Keep(scaled.WebP, scaled.Width, scaled.Height, db, now)).Id;
        }

        return Plan with
        {
            Together = [],
            Apart = [],
            Questions = [.. Plan.Questions.Select(q => q with
            {
                Options = [.. q.Options.Select(o => o with { Picture = o.Picture is { } p && ids.TryGetValue(p, out var kept) ? kept : null })],
            })],
        };
    }

    /// <summary>The JSON schema of plan files.</summary>
    public static string Schema() => JsonFormat.Schema<PlanDocument>("A plan of Polite Tally", JsonFormat.Options);

    private static IEnumerable<Guid> PicturesOf(Plan plan) =>
        plan.Questions.SelectMany(q => q.Options).Where(o => o.Picture is not null).Select(o => o.Picture!.Value);
}
