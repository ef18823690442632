using System.Globalization;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Sheets = DocumentFormat.OpenXml.Spreadsheet;

namespace PoliteTally.Formats;

/// <summary>A cell of a sheet that is written: text, or a number that stays one.</summary>
/// <param name="Text">What it says; empty for a number.</param>
/// <param name="Number">The number; null for text.</param>
/// <param name="Places">With how many places the number is shown, from 0 to 2.</param>
public readonly record struct SheetCell(string Text, decimal? Number = null, int Places = 0)
{
    /// <summary>A cell that says something.</summary>
    public static SheetCell Of(string text) => new(text);

    /// <summary>A cell that holds a number; an empty one for null.</summary>
    public static SheetCell Of(decimal? number, int places = 0) => new("", number, places);
}

/// <summary>A sheet that is written.</summary>
/// <param name="Name">What it is called; made to fit where it cannot be the name of a sheet.</param>
/// <param name="Headings">The head.</param>
/// <param name="Rows">The rows.</param>
/// <param name="Frozen">How many columns stay when it is scrolled.</param>
public sealed record SheetTable(string Name, IReadOnlyList<string> Headings, IEnumerable<IReadOnlyList<SheetCell>> Rows, int Frozen);

/// <summary>Writes sheets as a workbook (ISO/IEC 29500): a bold head that stays when the sheet is scrolled, as do the first columns. Text is kept as text, so that no cell becomes a formula.</summary>
public static class SheetFile
{
    // Styles of the sheet, by their place: plain, head, numbers with 0, 1 and 2 places.
    private const uint Head = 1;
    private const uint FirstNumber = 2;

    /// <summary>A workbook with one sheet.</summary>
    /// <param name="name">The name of the sheet.</param>
    /// <param name="headings">The head.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="frozen">How many columns stay when the sheet is scrolled.</param>
    public static byte[] Write(string name, IReadOnlyList<string> headings, IEnumerable<IReadOnlyList<SheetCell>> rows, int frozen) =>
        Write([new SheetTable(name, headings, rows, frozen)]);

    /// <summary>A workbook with several sheets, in their order.</summary>
    public static byte[] Write(IReadOnlyList<SheetTable> tables)
    {
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var book = document.AddWorkbookPart();
            book.AddNewPart<WorkbookStylesPart>().Stylesheet = Styles();
            var sheets = new Sheets.Sheets();
            var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
            foreach (var table in tables)
            {
                var sheet = book.AddNewPart<WorksheetPart>();
                sheet.Worksheet = WorksheetOf(table);
                // No two sheets may have one name.
                var name = SheetName(table.Name);
                for (var i = 2; !names.Add(name); i++)
                {
                    name = $"{SheetName(table.Name)[..Math.Min(27, SheetName(table.Name).Length)]} {i}";
                }

                sheets.Append(new Sheet { Id = book.GetIdOfPart(sheet), SheetId = (uint)names.Count, Name = name });
            }

            book.Workbook = new Sheets.Workbook(sheets);
        }

        return stream.ToArray();
    }

    private static Worksheet WorksheetOf(SheetTable table) => new(
        new SheetViews(new SheetView(new Pane
        {
            HorizontalSplit = table.Frozen,
            VerticalSplit = 1,
            TopLeftCell = $"{ColumnOf(table.Frozen)}2",
            ActivePane = PaneValues.BottomRight,
            State = PaneStateValues.Frozen,
        })
        { WorkbookViewId = 0 }),
        new Sheets.Columns(table.Headings.Select((h, i) => new Sheets.Column { Min = (uint)i + 1, Max = (uint)i + 1, Width = Math.Clamp(h.Length + 2, 8, 32), CustomWidth = true })),
        new SheetData(table.Rows.Select(row => new Row(row.Select(CellOf))).Prepend(new Row(table.Headings.Select(h => TextCell(h, Head))))));

    private static Cell CellOf(SheetCell cell) => cell.Number is { } number
        ? new Cell { CellValue = new CellValue(number.ToString(CultureInfo.InvariantCulture)), DataType = CellValues.Number, StyleIndex = FirstNumber + (uint)cell.Places }
        : TextCell(cell.Text, 0);

    private static Cell TextCell(string text, uint style) =>
        new() { InlineString = new InlineString(new Text(XmlText.Clean(text)) { Space = SpaceProcessingModeValues.Preserve }), DataType = CellValues.InlineString, StyleIndex = style };

    // At most 31 characters, and none that a name of a sheet may not have.
    private static string SheetName(string name)
    {
        var clean = new string([.. XmlText.Clean(name).Where(c => !"[]:*?/\\'".Contains(c, StringComparison.Ordinal))]).Trim();
        return clean.Length == 0 ? "Scores" : clean[..Math.Min(31, clean.Length)];
    }

    private static string ColumnOf(int index) => index < 26 ? $"{(char)('A' + index)}" : $"{ColumnOf((index / 26) - 1)}{(char)('A' + (index % 26))}";

    private static Stylesheet Styles() => new(
        new Fonts(new Font(), new Font(new Bold())),
        new Fills(new Fill(new PatternFill { PatternType = PatternValues.None }), new Fill(new PatternFill { PatternType = PatternValues.Gray125 })),
        new Borders(new Border(), new Border(new LeftBorder(), new RightBorder(), new TopBorder(), new BottomBorder { Style = BorderStyleValues.Medium }, new DiagonalBorder())),
        new CellStyleFormats(new CellFormat()),
        new CellFormats(
            new CellFormat(), new CellFormat { FontId = 1, ApplyFont = true, BorderId = 1, ApplyBorder = true },
            // 1 and 2 are numbers with no and with two places by the standard; one place has none of its own.
            new CellFormat { NumberFormatId = 1, ApplyNumberFormat = true }, new CellFormat { NumberFormatId = 164, ApplyNumberFormat = true },
            new CellFormat { NumberFormatId = 2, ApplyNumberFormat = true }))
    {
        NumberingFormats = new NumberingFormats(new NumberingFormat { NumberFormatId = 164, FormatCode = "0.0" }),
    };
}
