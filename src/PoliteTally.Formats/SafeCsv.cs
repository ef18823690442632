using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace PoliteTally.Formats;

/// <summary>Writes tables that are safe to open in a spreadsheet: no cell can become a formula.</summary>
public static class SafeCsv
{
    /// <summary>UTF-8, commas, CRLF (RFC 4180).</summary>
    /// <param name="headings">The headings.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="mark">Whether it begins with the mark of UTF-8, by which spreadsheets know it; other programs take that for a part of the first heading.</param>
    public static byte[] Write(IReadOnlyList<string> headings, IEnumerable<IReadOnlyList<string>> rows, bool mark = true)
    {
        using var text = new StringWriter();
        // A leading apostrophe is what spreadsheets take as "this is text". Some of them cut at semicolons or tabs: a cell that holds one is quoted, so that its second half begins no cell.
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            NewLine = "\r\n",
            ShouldQuote = cell => ConfigurationFunctions.ShouldQuote(cell) || cell.Field?.IndexOfAny([';', '\t', '|']) >= 0,
        };
        using (var csv = new CsvWriter(text, configuration))
        {
            foreach (var row in rows.Prepend(headings))
            {
                foreach (var cell in row)
                {
                    csv.WriteField(Harmless(cell));
                }

                csv.NextRecord();
            }
        }

        return [.. mark ? Encoding.UTF8.Preamble : [], .. Encoding.UTF8.GetBytes(text.ToString())];
    }

    private static string Harmless(string cell) =>
        cell.TrimStart(' ') is ['=' or '+' or '-' or '@' or '\t' or '\r' or '\n' or '＝' or '＋' or '－' or '＠', ..] ? $"'{cell}" : cell;
}
