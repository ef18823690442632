using System.Text;

namespace PoliteTally.Formats;

/// <summary>A table of text whose columns stand one under the other, with nothing but spaces between them.</summary>
internal static class FixedWidth
{
    private const int FewLines = 5;
    private const int LinesLooked = 300;
    private const int WidthLooked = 300;
    private const int FewColumns = 3;

    // Between two columns there is a space in every line, and in most lines at least so many.
    private const int Gap = 2;

    // In so many lines a column has something in it.
    private const double Mostly = 0.8;

    /// <summary>The table with tabs between its columns; null if the text is none.</summary>
    public static string? Of(FileText text)
    {
        var lines = text.Start.Split('\n').Select(l => l.TrimEnd()).ToList();
        // A line or two above are a title.
        var body = lines.Where(l => l.Contains("  ", StringComparison.Ordinal)).Take(LinesLooked).ToList();
        if (body.Count < FewLines || body.Count < Mostly * Math.Min(LinesLooked, lines.Count(l => l.Length > 0)) || body.Exists(l => l.Contains('\t')) || ColumnsOf(body) is not { Count: >= FewColumns } columns)
        {
            return null;
        }

        var table = new StringBuilder();
        foreach (var line in text.Whole.AsSpan().EnumerateLines())
        {
            ReadingBudget.Ask();
            for (var i = 0; i < columns.Count; i++)
            {
                table.Append(i == 0 ? "" : "\t").Append(PlainContent.Cell(Cell(line, columns[i], i + 1 < columns.Count ? columns[i + 1] : line.Length)));
            }

            table.Append('\n');
        }

        return table.ToString();
    }

    // Where columns begin: after a place that is empty in every line.
    private static List<int>? ColumnsOf(List<string> lines)
    {
        var width = Math.Min(WidthLooked, lines.Max(l => l.Length));
        var isEmpty = Enumerable.Range(0, width).Select(at => lines.TrueForAll(l => at >= l.Length || l[at] == ' ')).ToArray();
        List<int> begins = [.. Enumerable.Range(0, width).Where(at => !isEmpty[at] && (at == 0 || (at >= Gap && isEmpty[at - 1] && (isEmpty[at - Gap] || IsEdge(at))) || Array.TrueForAll(isEmpty[..at], e => e)))];
        // One long cell comes near to the next column; in the other lines it is clear where that begins.
        bool IsEdge(int at) => lines.Count(l => at < l.Length && l[at] != ' ' && l[at - Gap] == ' ') >= Mostly * lines.Count;

        return begins.Where((from, i) => lines.Count(l => Cell(l, from, i + 1 < begins.Count ? begins[i + 1] : l.Length).Length > 0) < Mostly * lines.Count).Any() ? null : begins;
    }

    private static string Cell(ReadOnlySpan<char> line, int from, int to) => from >= line.Length ? "" : line[from..Math.Min(Math.Max(from, to), line.Length)].Trim().ToString();
}
