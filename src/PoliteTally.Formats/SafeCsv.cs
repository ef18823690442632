using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using CsvHelper;
using CsvHelper.Configuration;

namespace PoliteTally.Formats;

/// <summary>Writes tables that are safe to open in a spreadsheet: no cell can become a formula.</summary>
public static partial class SafeCsv
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

    // What stands behind a separator may become a cell of its own where a program cuts there: then it must not begin as a formula either.
    private static string Harmless(string cell) => AfterSeparator().Replace(cell.TrimStart(' ') is [var first, ..] && Begins.Contains(first, StringComparison.Ordinal) ? $"'{cell}" : cell, "$1'");

    private const string Begins = "=+-@\t\r\n＝＋－＠";

    [GeneratedRegex(@"([;\t|\r\n] *)(?=[=+\-@＝＋－＠])", RegexOptions.CultureInvariant)]
    private static partial Regex AfterSeparator();
}
