using System.Globalization;
using System.Runtime.InteropServices;
using CsvHelper;
using CsvHelper.Configuration;

namespace PoliteTally.Formats;

/// <summary>A row of a table. There may be a hundred thousand, so it is no object of its own, and neither are its cells.</summary>
/// <param name="Number">The row as a spreadsheet counts it, from 1.</param>
/// <param name="Cells">Its cells, trimmed.</param>
/// <param name="Formulas">Places of cells that hold a formula, such as "C5"; a table as text knows none.</param>
public readonly record struct TableRow(int Number, ArraySegment<string> Cells, IReadOnlyList<string>? Formulas = null)
{
    /// <summary>How many of its cells are not empty.</summary>
    internal int Filled => Cells.Count(c => c.Length > 0);
}

/// <summary>A table as it stands in a file: headings, rows, and how it was read.</summary>
/// <param name="Headings">The headings, in order.</param>
/// <param name="HeadingsRow">The row of the headings; 0 if the table has none.</param>
/// <param name="Rows">The rows under them; empty rows are left out.</param>
/// <param name="ReadAs">How it was read, in words: its encoding and separator, or the sheet of a workbook.</param>
/// <param name="HeadingsKnown">Whether any heading is a word that stands in tables of this purpose.</param>
public sealed record Table(
    IReadOnlyList<string> Headings, int HeadingsRow, IReadOnlyList<TableRow> Rows, string ReadAs, bool HeadingsKnown)
{
    /// <summary>The most rows that are read: 20,000.</summary>
    public const int MostRows = 20_000;

    /// <summary>The most rows that are read of what a meeting program saved: 100,000.</summary>
    public const int MostOfLesson = 100_000;

    /// <summary>The most columns that are read: 60.</summary>
    public const int MostColumns = 60;

    // A text with commas in it has some more cells in a row than a table has columns; what has more than this is neither.
    private const int MostCells = 2_000;
    private const int RowsToLookForHeadings = 30;
    private const int LooksForSeparator = 20_000;

    private static readonly Dictionary<char, string> SeparatorNames = new() { [','] = "commas", [';'] = "semicolons", ['\t'] = "tabs", ['|'] = "bars" };

    /// <summary>Reads a table: text of any separator and encoding, or the sheet of a workbook that has the most known headings.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="isHeading">True of words that stand as headings in tables of this purpose.</param>
    /// <param name="headless">Whether the first row holds data already, so that there are no headings.</param>
    /// <param name="mostRows">The most rows that are read.</param>
    /// <param name="isData">True of cells that never stand among headings; null if nothing is known of that.</param>
    /// <exception cref="FormatProblem">The file is no table that can be read.</exception>
    public static Table Read(byte[] bytes, Func<string, bool> isHeading, bool headless = false, int mostRows = MostRows, Func<string, bool>? isData = null)
    {
        if (Archive.IsOne(bytes))
        {
            return Workbook.Sheets(bytes, mostRows)
                .Select(sheet => FromRows(sheet.Rows, isHeading, isData, headless, $"sheet “{sheet.Name}” of a workbook"))
                .OrderByDescending(table => table.Headings.Count(isHeading))
                .First();
        }

        FileSize.Check(bytes.Length, FileSize.OnlyTheSheet);
        return FromText(FileText.Of(bytes), isHeading, headless, mostRows, isData);
    }

    /// <summary>As <see cref="Read"/>, of a text that was read from a file.</summary>
    internal static Table FromText(FileText text, Func<string, bool> isHeading, bool headless = false, int mostRows = MostRows, Func<string, bool>? isData = null)
    {
        var (rows, readAs) = Cut(text, mostRows);
        return FromRows(rows, isHeading, isData, headless, readAs);
    }

    /// <summary>The rows of a text as they stand, whatever is in them, and how they were read.</summary>
    internal static (List<TableRow> Rows, string ReadAs) Cut(FileText text, int mostRows)
    {
        if (text.IsBlank)
        {
            throw new FormatProblem("This file is empty. Nothing was stored; choose another file.");
        }

        var separator = SeparatorOf(text.Start);
        using var reader = text.Open();
        return (Parse(reader, separator, mostRows, text.Lines), $"{text.Encoding}, cut at {SeparatorNames[separator]}");
    }

    /// <summary>Rows with the headings that stand among the first of them.</summary>
    internal static Table FromRows(List<TableRow> filled, Func<string, bool> isHeading, Func<string, bool>? isData, bool headless, string readAs)
    {
        if (filled.Count == 0)
        {
            throw new FormatProblem("This file is empty. Nothing was stored; choose another file.");
        }

        if (headless)
        {
            var width = filled.Max(r => r.Cells.Count);
            return width > MostColumns
                ? throw TooWide(filled.First(r => r.Cells.Count == width).Number, width)
                : new Table([.. Enumerable.Repeat("", width)], 0, filled, readAs, HeadingsKnown: false);
        }

        var headings = filled.Take(RowsToLookForHeadings)
            .Select((row, index) => (row, index, words: row.Cells.Count(isHeading)))
            .Where(r => r.words > 0 && (isData is null || !r.row.Cells.Any(isData)))
            .OrderByDescending(r => r.words)
            // A title may be a word that is a heading, too: “Participants”.
            .ThenByDescending(r => r.row.Filled > 1)
            .ThenBy(r => r.index)
            .Select(r => (int?)r.index)
            .FirstOrDefault();
        var at = headings ?? 0;
        var head = filled[at];
        if (head.Cells.Count > MostColumns)
        {
            throw TooWide(head.Number, head.Cells.Count);
        }

        if (filled.Count - at < 2)
        {
            throw new FormatProblem("This file has no rows under its headings. It must be a table with a row of headings and a row for each person.");
        }

        filled.RemoveRange(0, at + 1);
        return new Table(head.Cells, head.Number, filled, readAs, headings is not null);
    }

    private static FormatProblem TooWide(int row, int cells) =>
        new($"Row {row} has {cells} columns; at most {MostColumns} can be read. Save only the columns with names and times.");

    /// <summary>The separator that cuts most of the first rows into the same number of cells, more than one.</summary>
    private static char SeparatorOf(string text)
    {
        var start = text[..Math.Min(text.Length, LooksForSeparator)];
        var fits = new[] { ',', ';', '\t', '|' }.Select(separator => (Separator: separator, Fit: Fit(separator))).ToList();
        // A comma stands inside of days and words, too: “11/2/2026, 9:28:05 AM”.
        return fits.OrderByDescending(s => s.Fit).ThenBy(s => s.Separator == ',' && s.Fit > 0).First().Separator;

        int Fit(char separator)
        {
            try
            {
                var counts = Parse(new StringReader(start), separator, MostRows, rowsExpected: 0).Take(50).Select(r => r.Cells.Count).Where(c => c > 1)
                    .GroupBy(c => c).Select(g => g.Count() * g.Key).ToList();
                return counts.Count == 0 ? 0 : counts.Max();
            }
            catch (FormatProblem)
            {
                return 0;
            }
        }
    }

    // The rows with anything in them.
    private static List<TableRow> Parse(TextReader text, char separator, int mostRows, int rowsExpected)
    {
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = separator.ToString(),
            TrimOptions = TrimOptions.Trim,
            IgnoreBlankLines = false,
            BadDataFound = null,
            HasHeaderRecord = false,
            MaxFieldSize = 100_000,
            // The same names and times stand in many rows: one text for all of them.
            CacheFields = true,
        };
        using var parser = new CsvParser(text, configuration);
        var rows = new TableRows(Math.Min(rowsExpected, mostRows + 1));
        var cells = new List<string>();
        try
        {
            while (parser.Read())
            {
                if (rows.All.Count > mostRows)
                {
                    throw new FormatProblem($"This file has more than {mostRows:N0} rows, more than a class or a lesson can have. Keep only the rows of this class and bring in that.");
                }

                ReadingBudget.Ask();
                if (parser.Count > MostCells)
                {
                    throw TooWide(parser.Row, parser.Count);
                }

                cells.Clear();
                for (var i = 0; i < parser.Count; i++)
                {
                    cells.Add(Clean(parser[i]));
                }

                rows.Add(parser.Row, CollectionsMarshal.AsSpan(cells));
            }
        }
        catch (CsvHelperException)
        {
            throw new FormatProblem($"Row {parser.Row} cannot be read as a row of a table. Look for a quotation mark without its partner.");
        }

        return rows.All;
    }

    // Spreadsheets leave no-break spaces and marks of writing direction behind.
    internal static string Clean(string? cell)
    {
        var text = cell ?? "";
        return text.Length == 0 || (char.IsLetterOrDigit(text[0]) && char.IsLetterOrDigit(text[^1]) && !text.Contains('\u00A0'))
            ? text
            : text.Replace('\u00A0', ' ').Trim(' ', '\t', '\u200E', '\u200F', '\uFEFF');
    }
}
