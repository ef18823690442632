using System.Security.Cryptography;
using System.Text;

namespace PoliteTally.Formats;

/// <summary>By what the layout of a file is known again, whoever stands in it and whatever they said: its headings, or how most of its lines are cut.</summary>
public static class LayoutShape
{
    // So many lines show how a file is cut.
    private const int Looked = 80;

    // A workbook is opened whole to see its headings, and once more to be read.
    private const int LargestWorkbook = 200_000;

    // Further back in a line stands what somebody wrote.
    private const int LongestCut = 5;

    /// <summary>A text that is the same for files of one layout; null if nothing can be told of it, as of lines that hold nothing but words.</summary>
    /// <param name="bytes">The file, as <see cref="PlainContent.Of"/> leaves it.</param>
    public static string? Of(byte[] bytes)
    {
        try
        {
            var shape = !Archive.IsOne(bytes) ? OfLines(FileText.Of(bytes).Start)
                : bytes.Length <= LargestWorkbook ? OfHeadings(Table.Read(bytes, _ => false).Headings)
                : null;
            return shape is null ? null : Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(shape)).AsSpan(0, 16));
        }
        catch (FormatProblem)
        {
            return null;
        }
    }

    private static string? OfLines(string text)
    {
        var lines = text.Split('\n', Looked + 1).Take(Looked).Select(l => l.Trim()).Where(l => l.Length > 0).ToList();
        if (lines.Count == 0)
        {
            return null;
        }

        // A title with a comma in it is no row of headings: below headings most lines have as many cells.
        return Cells(lines[0]) is { Length: > 1 } cells && !lines[0].Any(char.IsDigit) && lines.Skip(1).Count(l => Cells(l).Length >= cells.Length) * 2 >= lines.Count - 1
            ? OfHeadings(cells)
            : lines.CountBy(CutOf).OrderByDescending(c => c.Value).ThenBy(c => c.Key, StringComparer.Ordinal).First().Key is { Length: > 1 } cut ? $"lines {cut}" : null;
    }

    private static string[] Cells(string line) => line.Split([',', ';', '\t', '|']);

    private static string OfHeadings(IEnumerable<string> headings) => $"headings {string.Join('|', headings.Select(Columns.Fold))}";

    // Numbers and words, whatever they are, and the signs between.
    private static string CutOf(string line)
    {
        var cut = new StringBuilder();
        foreach (var letter in line)
        {
            var kind = char.IsDigit(letter) ? '9' : char.IsLetter(letter) ? 'a' : letter;
            var last = cut.Length > 0 ? cut[^1] : ' ';
            // Names have spaces, hyphens and full stops in them.
            if (char.IsWhiteSpace(letter) || kind == last || (last == 'a' && letter is '.' or '-' or '\'' or '’'))
            {
                continue;
            }

            if (cut.Length == LongestCut)
            {
                break;
            }

            cut.Append(kind);
        }

        return cut.ToString();
    }
}
