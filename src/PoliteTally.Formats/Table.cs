using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace PoliteTally.Formats;

/// <summary>A row of a table. There may be a hundred thousand, so it is no object of its own, and neither are its cells.</summary>
/// <param name="Number">The row as a spreadsheet counts it, from 1.</param>
/// <param name="Cells">Its cells, trimmed.</param>
/// <param name="Formulas">Places of cells that hold a formula, such as "C5"; a table as text knows none.</param>
public readonly record struct TableRow(int Number, ArraySegment<string> Cells, IReadOnlyList<string>? Formulas = null);

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

    private const int RowsToLookForHeadings = 30;

    // Cells of many rows lie in one array: at first of so many, then of ever more.
    private const int FewCells = 256;
    private const int ManyCells = 16_384;

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
        var (text, encoding) = TextOf(bytes);
        return FromText(text, encoding, isHeading, headless, mostRows, isData);
    }

    /// <summary>As <see cref="Read"/>, of a text that was read from a file.</summary>
    internal static Table FromText(string text, string encoding, Func<string, bool> isHeading, bool headless = false, int mostRows = MostRows, Func<string, bool>? isData = null)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            throw new FormatProblem("This file is empty. Nothing was stored; choose another file.");
        }

        var separator = SeparatorOf(text);
        return FromRows(Parse(text, separator, mostRows), isHeading, isData, headless, $"{encoding}, cut at {SeparatorNames[separator]}");
    }

    private static Table FromRows(IEnumerable<TableRow> rows, Func<string, bool> isHeading, Func<string, bool>? isData, bool headless, string readAs)
    {
        var filled = rows.Where(HasAnything).ToList();
        if (filled.Count == 0)
        {
            throw new FormatProblem("This file is empty. Nothing was stored; choose another file.");
        }

        if (headless)
        {
            var width = filled.Max(r => r.Cells.Count);
            return width > MostColumns
                ? throw TooWide(filled.First(r => r.Cells.Count == width))
                : new Table([.. Enumerable.Repeat("", width)], 0, filled, readAs, HeadingsKnown: false);
        }

        var headings = filled.Take(RowsToLookForHeadings)
            .Select((row, index) => (row, index, words: row.Cells.Count(isHeading)))
            .Where(r => r.words > 0 && (isData is null || !r.row.Cells.Any(isData)))
            .OrderByDescending(r => r.words)
            .ThenBy(r => r.index)
            .Select(r => (int?)r.index)
            .FirstOrDefault();
        var at = headings ?? 0;
        var head = filled[at];
        if (head.Cells.Count > MostColumns)
        {
            throw TooWide(head);
        }

        if (filled.Count - at < 2)
        {
            throw new FormatProblem("This file has no rows under its headings. It must be a table with a row of headings and a row for each person.");
        }

        return new Table(head.Cells, head.Number, filled[(at + 1)..], readAs, headings is not null);
    }

    private static bool HasAnything(TableRow row)
    {
        for (var i = 0; i < row.Cells.Count; i++)
        {
            if (row.Cells[i].Length > 0)
            {
                return true;
            }
        }

        return false;
    }

    private static FormatProblem TooWide(TableRow row) =>
        new($"Row {row.Number} has {row.Cells.Count} columns; at most {MostColumns} can be read. Save only the columns with names and times.");

    internal static (string Text, string Encoding) TextOf(byte[] bytes)
    {
        switch (bytes)
        {
            case [0x25, 0x50, 0x44, 0x46, ..] or [0x89, 0x50, 0x4E, 0x47, ..] or [0xFF, 0xD8, 0xFF, ..]:
                throw new FormatProblem("This is a document or a picture, not a table. Ask the program it comes from for a CSV file.");
            case [0xEF, 0xBB, 0xBF, ..]:
                return (Decode(new UTF8Encoding(false, true), bytes.AsSpan(3), "UTF-8"), "UTF-8");
            case [0xFF, 0xFE, ..]:
                return (Decode(new UnicodeEncoding(false, false, true), bytes.AsSpan(2), "UTF-16"), "UTF-16");
            case [0xFE, 0xFF, ..]:
                return (Decode(new UnicodeEncoding(true, false, true), bytes.AsSpan(2), "UTF-16"), "UTF-16");
        }

        // Without a mark at the start: UTF-16 shows by its zero bytes, UTF-8 by being valid; what is left is Windows-1252.
        var sample = bytes.AsSpan(0, Math.Min(bytes.Length, 4096));
        var (even, odd) = (0, 0);
        for (var i = 0; i < sample.Length; i++)
        {
            if (sample[i] == 0)
            {
                _ = i % 2 == 0 ? even++ : odd++;
            }
        }

        if (even + odd > 0)
        {
            var bigEndian = even > odd;
            if (Math.Max(even, odd) * 4 < sample.Length || bytes.Length % 2 != 0)
            {
                throw new FormatProblem("This file is not text. It must be a table saved as CSV.");
            }

            return (Decode(new UnicodeEncoding(bigEndian, false, true), bytes, "UTF-16"), "UTF-16");
        }

        try
        {
            return (new UTF8Encoding(false, true).GetString(bytes), "UTF-8");
        }
        catch (DecoderFallbackException)
        {
            return (WindowsText(bytes), "Windows-1252");
        }
    }

    private static string Decode(Encoding encoding, ReadOnlySpan<byte> bytes, string name)
    {
        try
        {
            return encoding.GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            throw new FormatProblem($"This file says that it is {name}, but some of its letters are broken. Save it again as “CSV UTF-8” and bring in that.");
        }
    }

    // Five bytes mean nothing in Windows-1252; a file that has them was written by something else.
    private static string WindowsText(byte[] bytes)
    {
        var text = CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetString(bytes);
        var row = 1;
        foreach (var letter in text)
        {
            row += letter == '\n' ? 1 : 0;
            if (letter is (>= '\u0080' and <= '\u009F') or (< ' ' and not ('\t' or '\r' or '\n' or '\f')))
            {
                throw new FormatProblem($"Row {row} has letters in an encoding that cannot be read. Save the file as “CSV UTF-8” and bring in that.");
            }
        }

        return text;
    }

    /// <summary>The separator that cuts most of the first rows into the same number of cells, more than one.</summary>
    private static char SeparatorOf(string text)
    {
        var start = text[..Math.Min(text.Length, 20_000)];
        return new[] { ',', ';', '\t', '|' }
            .Select(separator => (separator, fit: Fit(separator)))
            .OrderByDescending(s => s.fit)
            .First().separator;

        int Fit(char separator)
        {
            try
            {
                var counts = Parse(start, separator, MostRows).Take(50).Select(r => r.Cells.Count).Where(c => c > 1)
                    .GroupBy(c => c).Select(g => g.Count() * g.Key).ToList();
                return counts.Count == 0 ? 0 : counts.Max();
            }
            catch (FormatProblem)
            {
                return 0;
            }
        }
    }

    private static List<TableRow> Parse(string text, char separator, int mostRows)
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
        using var parser = new CsvParser(new StringReader(text), configuration);
        var rows = new List<TableRow>();
        var (block, used) = (new string[FewCells], 0);
        try
        {
            while (parser.Read())
            {
                if (rows.Count > mostRows)
                {
                    throw new FormatProblem($"This file has more than {mostRows:N0} rows, more than a class or a lesson can have. Keep only the rows of this class and bring in that.");
                }

                var count = parser.Count;
                if (used + count > block.Length)
                {
                    (block, used) = (new string[Math.Max(count, Math.Min(2 * block.Length, ManyCells))], 0);
                }

                for (var i = 0; i < count; i++)
                {
                    block[used + i] = Clean(parser[i]);
                }

                rows.Add(new TableRow(parser.Row, new ArraySegment<string>(block, used, count)));
                used += count;
            }
        }
        catch (CsvHelperException)
        {
            throw new FormatProblem($"Row {parser.Row} cannot be read as a row of a table. Look for a quotation mark without its partner.");
        }

        return rows;
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
