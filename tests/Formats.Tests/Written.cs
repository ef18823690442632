using System.IO.Compression;
using System.Text;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace PoliteTally.Formats.Tests;

/// <summary>Files made for tests.</summary>
internal static class Written
{
    public static byte[] Utf8(string text) => Encoding.UTF8.GetBytes(text);

    public static byte[] Zip(params (string Name, byte[] Content)[] parts)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, content) in parts)
            {
                using var part = zip.CreateEntry(name, CompressionLevel.SmallestSize).Open();
                part.Write(content);
            }
        }

        return bytes.ToArray();
    }

    /// <summary>A workbook; a cell that begins with "=" is a formula, one such as "#45000.5" a number shown as a date.</summary>
    public static byte[] Workbook(string?[][] rows, string? merged = null, string sheetName = "8W", string?[][]? before = null)
    {
        using var bytes = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(bytes, SpreadsheetDocumentType.Workbook))
        {
            var book = document.AddWorkbookPart();
            book.Workbook = new Workbook(new Sheets());
            var styles = book.AddNewPart<WorkbookStylesPart>();
            styles.Stylesheet = new Stylesheet(
                new Fonts(new Font()), new Fills(new Fill()), new Borders(new Border()), new CellStyleFormats(new CellFormat()),
                new CellFormats(new CellFormat(), new CellFormat { NumberFormatId = 22, ApplyNumberFormat = true }));
            var shared = book.AddNewPart<SharedStringTablePart>();
            shared.SharedStringTable = new SharedStringTable();
            if (before is not null)
            {
                Add("notes", before, null);
            }

            Add(sheetName, rows, merged);

            void Add(string name, string?[][] cells, string? merge)
            {
                var part = book.AddNewPart<WorksheetPart>();
                var data = new SheetData();
                part.Worksheet = new Worksheet(data);
                for (var r = 0; r < cells.Length; r++)
                {
                    var row = new Row { RowIndex = (uint)(r + 1) };
                    for (var c = 0; c < cells[r].Length; c++)
                    {
                        if (cells[r][c] is { } text)
                        {
                            row.Append(CellOf($"{(char)('A' + c)}{r + 1}", text, shared));
                        }
                    }

                    data.Append(row);
                }

                if (merge is not null)
                {
                    part.Worksheet.Append(new MergeCells(new MergeCell { Reference = merge }));
                }

                var sheets = book.Workbook.Sheets!;
                sheets.Append(new Sheet { Id = book.GetIdOfPart(part), SheetId = (uint)sheets.Count() + 1, Name = name });
            }
        }

        return bytes.ToArray();
    }

    private static Cell CellOf(string reference, string text, SharedStringTablePart shared)
    {
        if (text.StartsWith('='))
        {
            return new Cell { CellReference = reference, CellFormula = new CellFormula(text[1..]), CellValue = new CellValue("Juno"), DataType = CellValues.String };
        }

        if (text.StartsWith('#'))
        {
            return new Cell { CellReference = reference, StyleIndex = 1, CellValue = new CellValue(text[1..]) };
        }

        shared.SharedStringTable.Append(new SharedStringItem(new Text(text)));
        return new Cell
        {
            CellReference = reference,
            DataType = CellValues.SharedString,
            CellValue = new CellValue((shared.SharedStringTable.Elements<SharedStringItem>().Count() - 1).ToString(System.Globalization.CultureInfo.InvariantCulture)),
        };
    }
}
