using System.Text;
using UglyToad.PdfPig;
using UglyToad.PdfPig.DocumentLayoutAnalysis.TextExtractor;

namespace PoliteTally.Formats.Tests;

/// <summary>A PDF read again, by a reader that knows nothing of what wrote it.</summary>
public sealed record PrintedPdf(IReadOnlyList<string> Pages, string Title, string Raw)
{
    /// <summary>All of its text, with one blank wherever there is any.</summary>
    public string Text => string.Join(' ', Pages);

    public static PrintedPdf Read(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return new PrintedPdf(
            [.. document.GetPages().Select(p => string.Join(' ', ContentOrderTextExtractor.GetText(p).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)))],
            document.Information.Title ?? "", Encoding.Latin1.GetString(pdf));
    }
}
