using Microsoft.AspNetCore.SignalR;

namespace PoliteTally.Web.Requests;

/// <summary>
/// Lets no page of another site act in the name of whoever has this one open, for the browser would send their cookies along. Browsers say where a
/// request comes from, and no page can make them say otherwise: <c>Sec-Fetch-Site</c> (W3C Fetch Metadata), or <c>Origin</c> (RFC 6454), which
/// older ones send, and all of them for a socket. What says neither is no browser, and has nobody's cookies.
/// </summary>
internal static class FromHere
{
    private const string AnotherSite = "This was sent by a page of another site. Nothing was stored; do it here.";

    /// <summary>Refuses what changes something, or asks for a line to a hub, from elsewhere.</summary>
    public static Task Check(HttpContext context, RequestDelegate next)
    {
        var request = context.Request;
        var onlyLooks = (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method))
            && context.GetEndpoint()?.Metadata.GetMetadata<HubMetadata>() is null;
        return onlyLooks || IsFromHere(request)
            ? next(context)
            : TypedResults.Problem(AnotherSite, statusCode: StatusCodes.Status403Forbidden).ExecuteAsync(context);
    }

    private static bool IsFromHere(HttpRequest request) =>
        request.Headers["Sec-Fetch-Site"] is [{ Length: > 0 } site, ..] ? site is "same-origin" or "none"
        : request.Headers.Origin is not [{ Length: > 0 } origin, ..]
            || (Uri.TryCreate(origin, UriKind.Absolute, out var from) && from.Authority == new Uri($"{request.Scheme}://{request.Host}").Authority);
}
