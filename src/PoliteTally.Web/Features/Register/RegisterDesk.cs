using System.Net;
using System.Net.Http.Headers;
using System.Text.Json;
using PoliteTally.Web.Hosting;

namespace PoliteTally.Web.Features.Register;

/// <summary>What became of something that was handed to the register desk.</summary>
public enum DeskSays
{
    /// <summary>It has it.</summary>
    Taken,

    /// <summary>It does not take it.</summary>
    Refused,

    /// <summary>Nobody answers; nothing has arrived.</summary>
    Away,

    /// <summary>The line broke off after it was sent: perhaps it has it.</summary>
    InDoubt,
}

/// <summary>The register desk of the school, over its HTTP interface. What it speaks stands in docs/api.md.</summary>
public sealed class RegisterDesk(HttpClient client, Settings settings)
{
    /// <summary>How long the desk is waited for. 20 s.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    private const int LongestAnswer = 400;
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Whether the school has one.</summary>
    public bool Exists => settings.Desk is not null;

    /// <summary>Hands in a register.</summary>
    /// <returns>What the desk says, and its words.</returns>
    public async Task<(DeskSays Says, string Words)> HandIn(RegisterSheet sheet, CancellationToken stopping)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, AddressOf(sheet)) { Content = JsonContent.Create(sheet, options: Json) };
        try
        {
            using var answer = await Send(request, stopping);
            return answer.StatusCode switch
            {
                HttpStatusCode.ServiceUnavailable or HttpStatusCode.BadGateway or HttpStatusCode.GatewayTimeout or HttpStatusCode.TooManyRequests =>
                    (DeskSays.Away, "The register desk is away."),
                _ when answer.IsSuccessStatusCode => (DeskSays.Taken, "The register desk has it."),
                HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden => (DeskSays.Refused, "The register desk does not know us: its token is wrong. Ask whoever set up this program."),
                _ => (DeskSays.Refused, await WhyIn(answer, stopping)),
            };
        }
        catch (HttpRequestException failure) when (failure.HttpRequestError is HttpRequestError.ConnectionError or HttpRequestError.NameResolutionError or HttpRequestError.SecureConnectionError)
        {
            return (DeskSays.Away, "The register desk cannot be reached.");
        }
        catch (Exception failure) when (failure is HttpRequestException or TaskCanceledException && !stopping.IsCancellationRequested)
        {
            return (DeskSays.InDoubt, "The line to the register desk broke off: perhaps it has it, perhaps not.");
        }
    }

    /// <summary>Whether the desk has a register; null if it cannot be asked.</summary>
    public async Task<bool?> Has(RegisterSheet sheet, CancellationToken stopping)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, AddressOf(sheet));
        try
        {
            using var answer = await Send(request, stopping);
            return answer.IsSuccessStatusCode ? true : answer.StatusCode == HttpStatusCode.NotFound ? false : null;
        }
        catch (Exception failure) when (failure is HttpRequestException or TaskCanceledException && !stopping.IsCancellationRequested)
        {
            return null;
        }
    }

    private Task<HttpResponseMessage> Send(HttpRequestMessage request, CancellationToken stopping)
    {
        request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", settings.Desk!.Token);
        return client.SendAsync(request, stopping);
    }

    private Uri AddressOf(RegisterSheet sheet) => new(settings.Desk!.Url, $"registers/{sheet.Lesson}/{sheet.Version}");

    // Problem details (RFC 9457), cut short: what another program says is not to fill the page.
    private static async Task<string> WhyIn(HttpResponseMessage answer, CancellationToken stopping)
    {
        string? why = null;
        try
        {
            var body = await answer.Content.ReadFromJsonAsync<JsonElement>(stopping);
            why = body.ValueKind == JsonValueKind.Object && body.TryGetProperty("detail", out var detail) ? detail.GetString() : null;
        }
        catch (Exception failure) when (failure is JsonException or NotSupportedException or InvalidOperationException)
        {
            // Then it gave no reason.
        }

        return why is { Length: > 0 } ? why[..Math.Min(why.Length, LongestAnswer)] : $"The register desk does not take it and gives no reason ({(int)answer.StatusCode}).";
    }
}
