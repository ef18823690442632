using System.Text.Json;
using System.Text.Json.Serialization;
using PoliteTally.Core.Reports;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>A document as a file for other programs, as <c>docs/report.schema.json</c> describes it.</summary>
internal static class DocumentJson
{
    private const string Format = "polite-tally-report";
    private static readonly JsonSerializerOptions Options = new(JsonFormat.Options) { WriteIndented = true, DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };

    private sealed record Kept(string Format, int Version, Document Report);

    /// <summary>The JSON schema of these files.</summary>
    public static string Schema() => JsonFormat.Schema<Kept>("A report of Polite Tally", Options);

    /// <summary>The file, UTF-8.</summary>
    public static byte[] Write(Document document) => JsonSerializer.SerializeToUtf8Bytes(new Kept(Format, 1, document), Options);
}
