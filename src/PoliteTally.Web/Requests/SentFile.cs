using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Primitives;
using PoliteTally.Core.Text;
using PoliteTally.Formats;

namespace PoliteTally.Web.Requests;

/// <summary>
/// A file sent to be looked at or brought in. Looking stores nothing, so bringing in sends the file again, with what
/// was decided about it.
/// </summary>
/// <param name="Name">Its name.</param>
/// <param name="Bytes">Its content.</param>
/// <param name="Mapping">Which column holds what, by field; null to guess.</param>
/// <param name="Zone">The time zone of its times, if it was asked for.</param>
/// <param name="LeaveOut">Whether rows with something wrong are to be left out.</param>
/// <param name="Decided">Everything decided, by field, as it was sent.</param>
/// <param name="Gone">Says that nobody waits for it any more.</param>
internal sealed record SentFile(
    string Name, byte[] Bytes, IReadOnlyDictionary<string, int>? Mapping, string? Zone, bool LeaveOut, IFormCollection Decided, CancellationToken Gone)
{
    private const int ProblemsNamed = 5;

    /// <summary>Reads the form: <c>file</c>, and if decided <c>mapping</c> (JSON), <c>zone</c> and <c>leaveOut</c>. A large file waits for its turn (<see cref="ReadingLine"/>).</summary>
    /// <exception cref="FormatProblem">The form has no usable file.</exception>
    public static async Task<SentFile> From(HttpRequest request)
    {
        if (!request.HasFormContentType)
        {
            throw new FormatProblem("A file is missing. Send it as a form with the field “file”.");
        }

        IFormCollection form;
        try
        {
            form = await request.ReadFormAsync(request.HttpContext.RequestAborted);
        }
        catch (InvalidDataException)
        {
            throw new FormatProblem("The form that carried the file is broken. Send it again.");
        }

        if (form.Files.GetFile("file") is not { } file)
        {
            throw new FormatProblem("A file is missing. Send it as a form with the field “file”.");
        }

        FileSize.Check(file.Length, FileSize.OnlyTheSheet);
        var name = CleanText.Of(Path.GetFileName(file.FileName)) is { Length: > 0 and <= 120 } given ? given : "file";
        await request.HttpContext.RequestServices.GetRequiredService<ReadingLine>().Wait(request.HttpContext, file.Length, name);
        var bytes = new byte[file.Length];
        await using (var stream = file.OpenReadStream())
        {
            await stream.ReadExactlyAsync(bytes, request.HttpContext.RequestAborted);
        }

        return Decide(name, bytes, form, request.HttpContext.RequestAborted);
    }

    /// <summary>The same file with more that was decided.</summary>
    /// <param name="more">What, by field.</param>
    /// <exception cref="FormatProblem">It is not understood.</exception>
    public SentFile With(IReadOnlyDictionary<string, string> more) =>
        Decide(Name, Bytes, new FormCollection(Decided.Concat(more.Select(m => KeyValuePair.Create(m.Key, new StringValues(m.Value)))).GroupBy(f => f.Key).ToDictionary(g => g.Key, g => g.Last().Value)), Gone);

    private static SentFile Decide(string name, byte[] bytes, IFormCollection decided, CancellationToken gone) =>
        new(name, bytes, MappingOf(decided["mapping"]), decided["zone"] is [{ Length: > 0 } zone] ? zone : null, decided["leaveOut"] == "true", decided, gone);

    /// <summary>A refusal that names the rows which are wrong; null if none is, or they are to be left out.</summary>
    public static ProblemHttpResult? StillWrong(IEnumerable<(int Row, IReadOnlyList<string> Problems)> lines, bool leaveOut)
    {
        var wrong = lines.Where(l => l.Problems.Count > 0).ToList();
        if (wrong.Count == 0 || leaveOut)
        {
            return null;
        }

        var named = string.Join(" ", wrong.Take(ProblemsNamed).Select(l => $"Row {l.Row} {l.Problems[0]}"));
        var more = wrong.Count > ProblemsNamed ? $" And {wrong.Count - ProblemsNamed} more rows." : "";
        return TypedResults.Problem(
            $"{named}{more} Nothing was stored: put the file right, or choose to leave these rows out.",
            statusCode: StatusCodes.Status422UnprocessableEntity);
    }

    /// <summary>A decision that is JSON; default if it was not sent.</summary>
    /// <exception cref="FormatProblem">It is not of the form that is wanted.</exception>
    public T? Chosen<T>(string field)
    {
        if (Decided[field] is not [{ Length: > 0 } json])
        {
            return default;
        }

        try
        {
            return JsonSerializer.Deserialize<T>(json, JsonFormat.Options);
        }
        catch (JsonException)
        {
            throw new FormatProblem("What was chosen for this file is not understood. Choose it again.");
        }
    }

    private static Dictionary<string, int>? MappingOf(string? json)
    {
        if (string.IsNullOrEmpty(json))
        {
            return null;
        }

        try
        {
            return JsonSerializer.Deserialize<Dictionary<string, int>>(json)?.Where(m => m.Value >= 0).ToDictionary();
        }
        catch (JsonException)
        {
            throw new FormatProblem("The choice of columns is not understood. Choose them again.");
        }
    }
}
