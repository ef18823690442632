using System.IO.Compression;
using System.Text;
using PoliteTally.Core.Merging;
using PoliteTally.Formats.Tests.MadeUp;

namespace PoliteTally.Formats.Tests;

/// <summary>What was pasted into a document, or kept in an open spreadsheet, is read like the same text in a file of its own.</summary>
public sealed class OfficeTextTests
{
    private static readonly (string Name, string In, string Out)[] Stays = [("Juno Quillfeather", "09:28:05", "10:20:00"), ("Eino Rautio", "09:31:40", "10:19:12"), ("Zainab Usman", "09:30:00", "10:02:31")];

    private static byte[] Zipped(params (string Name, string Content)[] parts)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, content) in parts)
            {
                using var part = zip.CreateEntry(name).Open();
                part.Write(Encoding.UTF8.GetBytes(content));
            }
        }

        return bytes.ToArray();
    }

    private static byte[] Words(string body) => Zipped(
        ("[Content_Types].xml", "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"/>"),
        ("word/document.xml", $"<w:document xmlns:w=\"http://schemas.openxmlformats.org/wordprocessingml/2006/main\"><w:body>{body}</w:body></w:document>"));

    private static byte[] Open(string kind, string body) => Zipped(
        ("mimetype", $"application/vnd.oasis.opendocument.{kind}"),
        ("content.xml", $"<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\" xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\"><office:body><office:{kind}>{body}</office:{kind}></office:body></office:document-content>"));

    private static string Paragraph(string text) => $"<w:p><w:r><w:t xml:space=\"preserve\">{text}</w:t></w:r></w:p>";

    private static string Cell(string text) => $"<table:table-cell><text:p>{text}</text:p></table:table-cell>";

    private static string Row(params string[] cells) => $"<table:table-row>{string.Concat(cells)}<table:table-cell table:number-columns-repeated=\"16381\"/></table:table-row>";

    private static string Each(Func<(string Name, string In, string Out), string> write) => string.Concat(Stays.Select(write));

    private static readonly Dictionary<string, Func<byte[]>> Files = new()
    {
        ["a table in a document"] = () => Words($"{Paragraph("Monday")}<w:tbl><w:tr><w:tc>{Paragraph("Name")}</w:tc><w:tc>{Paragraph("In")}</w:tc><w:tc>{Paragraph("Out")}</w:tc></w:tr>{Each(s => $"<w:tr><w:tc>{Paragraph(s.Name)}</w:tc><w:tc>{Paragraph(s.In)}</w:tc><w:tc>{Paragraph(s.Out)}</w:tc></w:tr>")}</w:tbl>"),
        ["lines in a document"] = () => Words(Each(s => Paragraph($"{s.Name}: {s.In} - {s.Out}"))),
        ["lines in an open document"] = () => Open("text", Each(s => $"<text:p>{s.Name}<text:tab/>{s.In}<text:tab/>{s.Out}</text:p>")),
        ["times of an open spreadsheet"] = () => Open("spreadsheet", $"<table:table>{Row(Cell("Name"), Cell("Joined"), Cell("Left"))}{Each(s => Row(Cell(s.Name), Timed(s.In), Timed(s.Out)))}</table:table>"),
        ["days of an open spreadsheet"] = () => Open("spreadsheet", $"<table:table>{Row(Cell("made by Tamsin"))}</table:table><table:table>{Row(Cell("Name"), Cell("Joined"), Cell("Left"))}{Each(s => Row(Cell(s.Name), Dated(s.In), Dated(s.Out)))}</table:table>"),
    };

    public static TheoryData<string> Kinds => [.. Files.Keys];

    private static string Timed(string time) => $"<table:table-cell office:value-type=\"time\" office:time-value=\"PT{time[..2]}H{time[3..5]}M{time[6..]}S\"><text:p>{time[..5]}</text:p></table:table-cell>";

    private static string Dated(string time) => $"<table:table-cell office:value-type=\"date\" office:date-value=\"2026-11-02T{time}\"><text:p>2 Nov {time[..5]}</text:p></table:table-cell>";

    [Theory]
    [MemberData(nameof(Kinds))]
    public void A_list(string kind)
    {
        var bytes = PlainContent.Of(Files[kind]());
        MadeUpReading.KindsOf(bytes, new MadeUpClass()).ShouldBe([FileKind.Attendance]);
        AttendanceFile.Read(bytes, null, MadeUpReading.Zone, MadeUpChats.From, MadeUpReading.To).Rows
            .Select(r => $"{r.Name} {r.Joined!.Value.InZone(MadeUpReading.Zone).TimeOfDay:HH:mm:ss} {r.Left!.Value.InZone(MadeUpReading.Zone).TimeOfDay:HH:mm:ss}").ShouldBe(Stays.Select(s => $"{s.Name} {s.In} {s.Out}"));
    }

    [Fact]
    public void A_roster() =>
        RosterFile.Read(Open("spreadsheet", $"<table:table>{Row(Cell("Given name"), Cell("Family name"))}{Row(Cell("Juno"), Cell("Quillfeather"))}</table:table>"), null).Rows.ShouldHaveSingleItem().Family.ShouldBe("Quillfeather");

    [Fact]
    public void A_broken_one_is_said_to_be_broken() => Should.Throw<FormatProblem>(() => PlainContent.Of(Words("<w:p>"))).Message.ShouldContain("broken");

    [Fact]
    public void Cells_without_end_are_counted() =>
        PlainContent.Of(Open("spreadsheet", $"<table:table>{Row($"<table:table-cell table:number-columns-repeated=\"2000000000\">{"<text:p>Juno</text:p>"}</table:table-cell>")}</table:table>")).Length.ShouldBeLessThan(100);
}
