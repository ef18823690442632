using System.Globalization;
using System.Xml;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace PoliteTally.Formats;

/// <summary>
/// Reads the sheets of a workbook (Office Open XML) as tables of text. Formulas are pointed out, never reckoned. Whatever a file can make large is read piece by
/// piece and counted, for a small file can hold millions of empty cells.
/// </summary>
internal static class Workbook
{
    /// <summary>The most cells and the most texts that are read: 250,000 of each.</summary>
    private const int MostPieces = 250_000;

    // Read as a whole, and never large: which sheets there are, and how the parts belong together.
    private const long LargestDirectory = 2_000_000;

    /// <summary>The sheets that hold anything.</summary>
    /// <exception cref="FormatProblem">The file is no workbook that can be read, or cells of it are merged.</exception>
    public static IReadOnlyList<(string Name, List<TableRow> Rows)> Sheets(byte[] bytes, int mostRows)
    {
        if (!Archive.IsWorkbook(bytes))
        {
            throw new FormatProblem("This is an archive, but neither a workbook nor a rostering bundle with users.csv, classes.csv and enrollments.csv. Nothing was stored; choose another file.");
        }

        // Nothing of it is kept here; what matters is that all of it was counted while unpacking.
        Archive.Unpack(bytes, _ => false, part => part is "workbook.xml" or "[Content_Types].xml" || part.EndsWith(".rels", StringComparison.Ordinal) ? LargestDirectory : long.MaxValue);
        try
        {
            using var document = SpreadsheetDocument.Open(new MemoryStream(bytes), isEditable: false);
            var book = document.WorkbookPart!;
            var shared = book.SharedStringTablePart is { } texts ? Pieces(texts, [typeof(SharedStringItem)]).Select(s => s.InnerText).ToList() : [];
            var dates = DateStyles(book);
            var sheets = book.Workbook.Descendants<Sheet>()
                .Where(s => s.Id?.Value is not null && book.GetPartById(s.Id.Value) is WorksheetPart)
                .Select(s => (Name: s.Name?.Value ?? "", Rows: RowsOf(s.Name?.Value ?? "", (WorksheetPart)book.GetPartById(s.Id!.Value!), shared, dates, mostRows)))
                .Where(s => s.Rows.Count > 0)
                .ToList();
            return sheets.Count > 0 ? sheets : throw new FormatProblem("This workbook is empty. Nothing was stored; choose another file.");
        }
        catch (Exception broken) when (broken is XmlException or OpenXmlPackageException or InvalidDataException or FileFormatException
            or InvalidOperationException or ArgumentException or FormatException or NullReferenceException or KeyNotFoundException)
        {
            throw new FormatProblem("This workbook is broken and cannot be read. Nothing was stored; open it, save it again as .xlsx, and bring in that.");
        }
    }

    private static List<TableRow> RowsOf(
        string sheet, WorksheetPart part, List<string> shared, HashSet<uint> dates, int mostRows)
    {
        var rows = new List<(int Number, List<string> Cells, List<string> Formulas)>();
        foreach (var piece in Pieces(part, [typeof(Row), typeof(Cell), typeof(MergeCell)]))
        {
            switch (piece)
            {
                // A title over the columns holds nothing else in its row.
                case MergeCell { Reference.Value: { } merged } when !IsTitle(merged):
                    throw new FormatProblem($"Cells {merged} of sheet “{sheet}” are merged, so nobody can say whose they are. Nothing was stored; take the merging apart and bring it in again.");
                case Row row when rows.Count > mostRows:
                    throw new FormatProblem($"Sheet “{sheet}” has more than {mostRows:N0} rows, more than a class or a lesson can have. Keep only the rows of this class and bring in that.");
                case Row row:
                    rows.Add(((int)(row.RowIndex?.Value ?? (uint)(rows.Count + 1)), [], []));
                    break;
                case Cell cell when rows.Count > 0:
                    Take(cell, rows[^1]);
                    break;
            }
        }

        // A sheet has no end of a row: all are as wide as the widest.
        var width = rows.Count == 0 ? 0 : rows.Max(r => r.Cells.Count);
        return [.. rows.Where(r => r.Cells.Exists(c => c.Length > 0)).Select(r => new TableRow(r.Number, (string[])[.. r.Cells, .. Enumerable.Repeat("", width - r.Cells.Count)], r.Formulas))];

        bool IsTitle(string merged) => merged.Split(':') is [var from, var to] && RowOf(from) is { } at && at == RowOf(to)
            && rows.Find(r => r.Number == at) is (_, { } cells, _) && cells.Count(c => c.Length > 0) == 1 && cells[Math.Min(ColumnOf(from), cells.Count - 1)].Length > 0;

        static int? RowOf(string reference) => int.TryParse(reference.AsSpan().TrimStart("ABCDEFGHIJKLMNOPQRSTUVWXYZ$"), CultureInfo.InvariantCulture, out var row) ? row : null;

        void Take(Cell cell, (int Number, List<string> Cells, List<string> Formulas) row)
        {
            var (number, cells, formulas) = row;
            var at = cell.CellReference?.Value is { } reference ? ColumnOf(reference) : cells.Count;
            if (at > Table.MostColumns)
            {
                if (TextOf(cell, shared, dates).Length > 0)
                {
                    throw new FormatProblem($"Row {number} of sheet “{sheet}” has more than {Table.MostColumns} columns. Save only the columns with names and times.");
                }

                return;
            }

            while (cells.Count <= at)
            {
                cells.Add("");
            }

            cells[at] = Table.Clean(TextOf(cell, shared, dates));
            if (cell.CellFormula is not null)
            {
                formulas.Add(cell.CellReference?.Value ?? $"row {number}");
            }
        }
    }

    private static string TextOf(Cell cell, List<string> shared, HashSet<uint> dates)
    {
        var value = cell.CellValue?.InnerText ?? "";
        if (cell.DataType?.Value is { } type)
        {
            return type == CellValues.SharedString
                    ? int.TryParse(value, CultureInfo.InvariantCulture, out var index) && index >= 0 && index < shared.Count ? shared[index]
                        : throw new FormatProblem($"Cell {cell.CellReference?.Value ?? "?"} names a text that is not in this workbook. Save it anew in the program it comes from.")
                : type == CellValues.InlineString ? cell.InlineString?.InnerText ?? ""
                : type == CellValues.Boolean ? (value == "1" ? "true" : "false")
                : value;
        }

        // Days since the end of 1899, as spreadsheets count; written so that no order of day and month has to be guessed.
        return cell.StyleIndex?.Value is { } style && dates.Contains(style)
            && double.TryParse(value, CultureInfo.InvariantCulture, out var days) && days is > 0 and < 2_958_466
            ? days < 1 ? DateTime.FromOADate(days).ToString("HH:mm:ss", CultureInfo.InvariantCulture)
                : DateTime.FromOADate(days).ToString(days % 1 == 0 ? "yyyy-MM-dd" : "yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture)
            : value;
    }

    private static HashSet<uint> DateStyles(WorkbookPart book)
    {
        if (book.WorkbookStylesPart is not { } styles)
        {
            return [];
        }

        var own = new HashSet<uint>();
        var dates = new HashSet<uint>();
        var index = 0u;
        foreach (var piece in Pieces(styles, [typeof(NumberingFormat), typeof(CellFormat)]))
        {
            switch (piece)
            {
                case NumberingFormat { FormatCode.Value: { } code, NumberFormatId.Value: var id } when code.Any(c => c is 'y' or 'd' or 'h'):
                    own.Add(id);
                    break;
                case CellFormat format:
                    if ((format.NumberFormatId?.Value ?? 0) is var number && (number is (>= 14 and <= 22) or (>= 45 and <= 47) || own.Contains(number)))
                    {
                        dates.Add(index);
                    }

                    index++;
                    break;
            }
        }

        return dates;
    }

    /// <summary>The elements of some kinds in a part, one at a time and in order. Of a row only its attributes are read: its cells follow as pieces of their own.</summary>
    private static IEnumerable<OpenXmlElement> Pieces(OpenXmlPart part, IReadOnlyCollection<Type> kinds)
    {
        using var reader = OpenXmlReader.Create(part);
        var (read, isOfCells) = (0, false);
        while (reader.Read())
        {
            // Named styles have formats, too, which no cell names.
            if (reader.ElementType == typeof(CellFormats))
            {
                isOfCells = reader.IsStartElement;
            }

            if (!reader.IsStartElement || !kinds.Contains(reader.ElementType) || (reader.ElementType == typeof(CellFormat) && !isOfCells))
            {
                continue;
            }

            if (++read > MostPieces)
            {
                throw new FormatProblem($"This workbook holds more than {MostPieces:N0} cells or texts, far more than a class or a lesson needs. Nothing was stored; save only the sheet with the names as CSV and bring in that.");
            }

            if (reader.ElementType != typeof(Row))
            {
                yield return reader.LoadCurrentElement()!;
                continue;
            }

            var row = new Row();
            if (reader.Attributes.FirstOrDefault(a => a.LocalName == "r") is { Value: { } number } && uint.TryParse(number, CultureInfo.InvariantCulture, out var at))
            {
                row.RowIndex = at;
            }

            yield return row;
        }
    }

    private static int ColumnOf(string reference) =>
        reference.TakeWhile(char.IsAsciiLetterUpper).Aggregate(0, (column, letter) => Math.Min((column * 26) + letter - 'A' + 1, 20_000)) - 1;
}
