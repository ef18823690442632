using System.Net;
using Markdig;
using Markdig.Syntax;
using Markdig.Syntax.Inlines;

namespace PoliteTally.Formats;

/// <summary>
/// Markdown (CommonMark) for directions and rubrics. No tags, no pictures, no addresses but of the web and of mail: what
/// it renders to is safe to show to a class.
/// </summary>
public static class MarkdownText
{
    private static readonly MarkdownPipeline Pipeline = new MarkdownPipelineBuilder().UsePipeTables().UseEmphasisExtras().Build();

    /// <summary>What is wrong with a text, each with its line; empty if it can be shown.</summary>
    public static IReadOnlyList<string> Problems(string text) => Look(text).Problems;

    /// <summary>Renders a text. One with something wrong is shown as it was written, so that it can be seen and put right.</summary>
    public static string Render(string text) => Look(text) is { Html: { } html, Problems: [] } ? html : $"<pre>{WebUtility.HtmlEncode(text)}</pre>\n";

    /// <summary>Reads a text and renders it, for only that shows whether it can be: some texts can be read and not be rendered.</summary>
    private static (string? Html, IReadOnlyList<string> Problems) Look(string text)
    {
        try
        {
            var document = Markdown.Parse(text, Pipeline);
            return (document.ToHtml(Pipeline), ProblemsOf(document));
        }
        catch (ArgumentException)
        {
            return (null, ["This text is nested too deeply to be read. Take some of its brackets or quotation marks out."]);
        }
    }

    private static IReadOnlyList<string> ProblemsOf(MarkdownDocument document)
    {
        var parts = document.Descendants().ToList();
        return
        [
            .. parts.OfType<HtmlBlock>().Select(b => Tag(b.Line, b.Lines.ToString())),
            .. parts.OfType<HtmlInline>().Select(i => Tag(i.Line, i.Tag)),
            .. parts.OfType<LinkInline>().Where(l => l.IsImage).Select(l => $"Line {l.Line + 1} has a picture. Pictures belong in a picture choice."),
            .. parts.OfType<LinkInline>().Where(l => !l.IsImage && !IsSafe(l.Url)).Select(l => $"Line {l.Line + 1} has a link to “{Short(l.Url ?? "")}”. A link begins with https://, http:// or mailto:."),
            .. parts.OfType<AutolinkInline>().Where(l => !l.IsEmail && !IsSafe(l.Url)).Select(l => $"Line {l.Line + 1} has a link to “{Short(l.Url)}”. A link begins with https://, http:// or mailto:."),
        ];

        static string Tag(int line, string tag) =>
            $"Line {line + 1} has a tag, “{Short(tag)}”. Directions are Markdown: **bold**, *italic*, lists with a dash. To show a tag, put it between `backticks`.";
    }

    private static bool IsSafe(string? address) =>
        Uri.TryCreate(address, UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http" or "mailto";

    private static string Short(string text) => text.ReplaceLineEndings(" ").Trim() is { Length: > 40 } longer ? $"{longer[..40]}…" : text.ReplaceLineEndings(" ").Trim();
}
