using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using PoliteTally.Core.Reports;
using SkiaSharp;

namespace PoliteTally.Formats.Documents;

/// <summary>The paper a document is set on.</summary>
public enum Paper
{
    /// <summary>ISO 216, 210 × 297 mm.</summary>
    A4,

    /// <summary>8.5 × 11 inches.</summary>
    Letter,
}

/// <summary>Writes documents as PDF: words that can be searched and copied, strokes and ribbons as lines, no row cut by the end of a page.</summary>
public static partial class PdfFile
{
    /// <summary>One file of several documents, each on pages of its own.</summary>
    /// <param name="title">What the file is called inside.</param>
    /// <param name="documents">The documents.</param>
    /// <param name="paper">The paper.</param>
    /// <param name="language">The language of its words, as in BCP 47.</param>
    /// <param name="told">Told after each document how many are done.</param>
    public static byte[] Write(string title, IReadOnlyList<Document> documents, Paper paper = Paper.A4, string language = "en-GB", Action<int>? told = null)
    {
        using var setter = new Typesetter();
        using var stream = new MemoryStream();
        using (var pdf = SKDocument.CreatePdf(stream, new SKDocumentPdfMetadata { Title = title, Creator = "Polite Tally", RasterDpi = SKDocumentPdfMetadata.DefaultRasterDpi, EncodingQuality = SKDocumentPdfMetadata.DefaultEncodingQuality }))
        {
            for (var i = 0; i < documents.Count; i++)
            {
                new PageSetter(setter, paper).Set(documents[i]).Write(pdf);
                told?.Invoke(i + 1);
            }

            pdf.Close();
        }

        return InLanguage(stream.ToArray(), language);
    }

    // The library cannot name the language, so the catalog is written once more at the end of the file (ISO 32000-1, 7.5.6: incremental updates).
    private static byte[] InLanguage(byte[] pdf, string language)
    {
        var text = Encoding.Latin1.GetString(pdf);
        var catalog = Catalog().Match(text);
        var trailer = Trailer().Matches(text)[^1];
        var last = LastTable().Matches(text)[^1].Groups[1].Value;
        var number = catalog.Groups["number"].Value;
        var start = pdf.Length + 1;
        var added = new StringBuilder("\n").Append(CultureInfo.InvariantCulture, $"{number} 0 obj\n{catalog.Groups["begin"].Value}\n/Lang ({language})\n>>\nendobj\n");
        var table = start + added.Length - 1;
        added.Append(CultureInfo.InvariantCulture, $"xref\n{number} 1\n{start:D10} 00000 n \ntrailer\n<<{trailer.Groups["entries"].Value}/Prev {last}>>\nstartxref\n{table}\n%%EOF\n");
        return [.. pdf, .. Encoding.Latin1.GetBytes(added.ToString())];
    }

    [GeneratedRegex(@"(?<number>\d+) 0 obj\n(?<begin><<\s*/Type /Catalog[^>]*)>>\s*endobj", RegexOptions.CultureInvariant)]
    private static partial Regex Catalog();

    [GeneratedRegex(@"trailer\s*<<(?<entries>[^>]*(?:<[0-9A-Fa-f]*>[^>]*)*)>>", RegexOptions.CultureInvariant)]
    private static partial Regex Trailer();

    [GeneratedRegex(@"startxref\s+(\d+)", RegexOptions.CultureInvariant)]
    private static partial Regex LastTable();
}
