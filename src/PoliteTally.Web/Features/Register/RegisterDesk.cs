using System.Net;
using System.Net.Http.Headers;
using System.Text.Json;
using PoliteTally.Core.Text;
using PoliteTally.Web.Hosting;

namespace PoliteTally.Web.Features.Register;

/// <summary>What became of something that was handed to the register desk.</summary>
public enum DeskSays
{
    /// <summary>It has it.</summary>
    Taken,

    /// <summary>It does not take it.</summary>
    Refused,

    /// <summary>Nobody answers, or somebody who is no register desk; nothing has arrived.</summary>
    Away,

    /// <summary>The line broke off after it was sent: perhaps it has it.</summary>
    InDoubt,
}

/// <summary>
/// The register desk of the school, over its HTTP interface. What it speaks stands in docs/api.md. It is believed only if it says what is agreed there, within a bound of
/// time and size, and is not followed elsewhere: names and marks go where the school said, or nowhere.
/// </summary>
public sealed class RegisterDesk(HttpClient client, Settings settings)
{
    /// <summary>How long the desk is waited for, from asking to the end of its answer. 10 s.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    /// <summary>The longest answer that is read, in bytes: 1,000,000, which is more than the register of a thousand students.</summary>
    private const int LongestAnswer = 1_000_000;

    private const int LongestWhy = 400;
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>The line to the desk: it is not followed elsewhere, and of what is not wanted nothing more is read, not even to keep the line.</summary>
    public static HttpMessageHandler Line() => new SocketsHttpHandler { AllowAutoRedirect = false, UseCookies = false, MaxResponseDrainSize = 0, ResponseDrainTimeout = TimeSpan.Zero };

    /// <summary>Whether the school has one.</summary>
    public bool Exists => settings.Desk is not null;

    /// <summary>Hands in a register, and asks whether it is there.</summary>
    /// <returns>What the desk says, and its words.</returns>
    public async Task<(DeskSays Says, string Words)> HandIn(RegisterSheet sheet, CancellationToken stopping)
    {
        try
        {
            var (status, body) = await Ask(HttpMethod.Put, sheet, JsonContent.Create(sheet, options: Json), stopping);
            return (int)status switch
            {
                200 or 201 when IsReceipt(body, sheet) => await Has(sheet, stopping) switch
                {
                    true => (DeskSays.Taken, "The register desk has it."),
                    false => (DeskSays.Away, "Not handed in: the register desk said that it has it, and when asked has not."),
                    null => (DeskSays.InDoubt, "The register desk said that it has it, and could not be asked."),
                },
                401 or 403 => (DeskSays.Refused, "The register desk does not know us: its token is wrong. Ask whoever set up this program."),
                429 or >= 500 => (DeskSays.Away, "The register desk is away."),
                >= 400 => (DeskSays.Refused, WhyIn(body) ?? $"The register desk does not take it and gives no reason ({(int)status})."),
                >= 300 => (DeskSays.Away, $"Not handed in: the address of the register desk points elsewhere ({(int)status}). Ask whoever set up this program."),
                _ => (DeskSays.Away, "Not handed in: what answers at the address of the register desk is no register desk. Ask whoever set up this program."),
            };
        }
        catch (HttpRequestException failure) when (failure.HttpRequestError is HttpRequestError.ConnectionError or HttpRequestError.NameResolutionError or HttpRequestError.SecureConnectionError)
        {
            return (DeskSays.Away, "The register desk cannot be reached.");
        }
        catch (Exception failure) when (IsBrokenLine(failure, stopping))
        {
            return (DeskSays.InDoubt, "The line to the register desk broke off: perhaps it has it, perhaps not.");
        }
    }

    /// <summary>Whether the desk has a register; null if it cannot be asked.</summary>
    public async Task<bool?> Has(RegisterSheet sheet, CancellationToken stopping)
    {
        try
        {
            var (status, body) = await Ask(HttpMethod.Get, sheet, null, stopping);
            return status == HttpStatusCode.OK && IsReceipt(body, sheet) ? true : status == HttpStatusCode.NotFound ? false : null;
        }
        catch (Exception failure) when (IsBrokenLine(failure, stopping))
        {
            return null;
        }
    }

    private static bool IsBrokenLine(Exception failure, CancellationToken stopping) =>
        failure is HttpRequestException or IOException or OperationCanceledException && !stopping.IsCancellationRequested;

    /// <summary>Asks, and reads the answer as far as it is a register's; nothing of it if it is longer.</summary>
    private async Task<(HttpStatusCode Status, JsonElement? Body)> Ask(HttpMethod method, RegisterSheet sheet, HttpContent? content, CancellationToken stopping)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        patience.CancelAfter(Patience);
        using var request = new HttpRequestMessage(method, new Uri(settings.Desk!.Url, $"registers/{sheet.Lesson}/{sheet.Version}")) { Content = content };
        request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", settings.Desk.Token);
        using var answer = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, patience.Token);
        if (answer.Content.Headers.ContentType?.MediaType is not ("application/json" or "application/problem+json") || answer.Content.Headers.ContentLength > LongestAnswer)
        {
            return (answer.StatusCode, null);
        }

        await using var stream = await answer.Content.ReadAsStreamAsync(patience.Token);
        var read = new byte[LongestAnswer + 1];
        var length = await stream.ReadAtLeastAsync(read, read.Length, throwOnEndOfStream: false, patience.Token);
        return (answer.StatusCode, length > LongestAnswer ? null : Parsed(read.AsMemory(0, length)));
    }

    private static JsonElement? Parsed(ReadOnlyMemory<byte> body)
    {
        try
        {
            using var document = JsonDocument.Parse(body);
            return document.RootElement.ValueKind == JsonValueKind.Object ? document.RootElement.Clone() : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>Whether an answer names the register that it is about.</summary>
    private static bool IsReceipt(JsonElement? body, RegisterSheet sheet) =>
        body is { } said && said.TryGetProperty("lesson", out var lesson) && lesson.ValueKind == JsonValueKind.String && lesson.TryGetGuid(out var id) && id == sheet.Lesson
        && said.TryGetProperty("version", out var version) && version.ValueKind == JsonValueKind.Number && version.TryGetInt32(out var number) && number == sheet.Version;

    // Problem details (RFC 9457), cut short and in one line: what another program says is not to fill the page.
    private static string? WhyIn(JsonElement? body) =>
        body is { } said && said.TryGetProperty("detail", out var detail) && detail.ValueKind == JsonValueKind.String && CleanText.Of(Text(detail)) is { Length: > 0 } why
            ? why[..Math.Min(why.Length, LongestWhy)]
            : null;

    // Half a letter is no text, and no reason.
    private static string Text(JsonElement text)
    {
        try
        {
            return text.GetString() ?? "";
        }
        catch (InvalidOperationException)
        {
            return "";
        }
    }
}
