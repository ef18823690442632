using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Text;

namespace PoliteTally.Web.Requests;

/// <summary>Short texts that people send: trimmed, on one line, not too long.</summary>
internal static class SentText
{
    /// <summary>The text without white space around it and without what nobody can see (<see cref="CleanText"/>); null if nothing is left, if it is too long, or holds a line break.</summary>
    public static string? Line(string? sent, int longest) =>
        sent is not null && sent.Trim() is var line && !line.AsSpan().ContainsAny('\n', '\r') && CleanText.Of(line) is { Length: > 0 } text && text.Length <= longest && !CleanText.IsBlank(text) ? text : null;

    /// <summary>A day written as "2026-11-23"; null if it is none.</summary>
    public static LocalDate? Day(string? sent) =>
        sent is not null && LocalDatePattern.Iso.Parse(sent) is { Success: true, Value: { Year: > 1900 and < 2200 } day } ? day : null;

    /// <summary>An address that a browser may open, or null. An empty one is null and right.</summary>
    /// <returns>Whether it is right, and what it is.</returns>
    public static (bool Right, string? Address) Link(string? sent)
    {
        if (string.IsNullOrWhiteSpace(sent))
        {
            return (true, null);
        }

        return Uri.TryCreate(sent.Trim(), UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http" && sent.Length <= 500
            ? (true, uri.AbsoluteUri)
            : (false, null);
    }
}
