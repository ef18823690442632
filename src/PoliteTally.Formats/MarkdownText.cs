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
    public static IReadOnlyList<string> Problems(string text)
    {
        var parts = Parse(text).Descendants().ToList();
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

    /// <summary>Renders a text with no problems.</summary>
    /// <exception cref="FormatProblem">Something is wrong with it.</exception>
    public static string Render(string text)
    {
        if (Problems(text) is [var first, ..])
        {
            throw new FormatProblem(first);
        }

        return Parse(text).ToHtml(Pipeline);
    }

    private static MarkdownDocument Parse(string text)
    {
        try
        {
            return Markdown.Parse(text, Pipeline);
        }
        catch (ArgumentException)
        {
            throw new FormatProblem("This text is nested too deeply to be read. Take some of its brackets or quotation marks out.");
        }
    }

    private static bool IsSafe(string? address) =>
        Uri.TryCreate(address, UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http" or "mailto";

    private static string Short(string text) => text.ReplaceLineEndings(" ").Trim() is { Length: > 40 } longer ? $"{longer[..40]}…" : text.ReplaceLineEndings(" ").Trim();
}
