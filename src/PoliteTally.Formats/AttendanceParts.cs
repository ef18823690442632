namespace PoliteTally.Formats;

/// <summary>Finds in a file that holds more than one table, with titles and sums above and between, the one that says most of who was there.</summary>
/// <param name="isHeading">True of words that stand as headings in such tables.</param>
/// <param name="isData">True of cells that never stand among headings.</param>
internal sealed class AttendanceParts(Func<string, bool> isHeading, Func<string, bool> isData)
{
    // One word alone may be somebody’s.
    private const int FewHeadings = 2;

    private static readonly HashSet<string> Sums = new(["total", "totals", "sum", "summe", "gesamt", "somme", "suma", "totalt", "i alt", "yhteensä", "samtals", "all", "average"], StringComparer.OrdinalIgnoreCase);

    /// <summary>Whether headings stand below a line that is empty, or below a title.</summary>
    public bool AreSeveral(Table table)
    {
        var last = table.HeadingsRow;
        for (var i = 0; i < table.Rows.Count; i++)
        {
            var row = table.Rows[i];
            if ((row.Number > last + 1 || (i > 0 && IsTitle(table.Rows[i - 1]))) && IsHead(row))
            {
                return true;
            }

            last = row.Number;
        }

        return Ends(table.Rows, table.HeadingsRow) < table.Rows.Count;
    }

    /// <summary>The tables of a file, each with its headings, without what stands between them.</summary>
    /// <param name="rows">All of its rows.</param>
    /// <param name="readAs">How they were read, in words.</param>
    /// <param name="known">The row of headings that was found first, however few of them are known.</param>
    public IEnumerable<Table> Of(IReadOnlyList<TableRow> rows, string readAs, int known)
    {
        for (var at = 0; at < rows.Count; at++)
        {
            if (IsHead(rows[at]) || rows[at].Number == known)
            {
                var (head, first) = (rows[at], at + 1);
                while (at + 1 < rows.Count && !IsHead(rows[at + 1]))
                {
                    at++;
                }

                List<TableRow> below = [.. rows.Skip(first).Take(at + 1 - first)];
                below = [.. below.Take(Ends(below, head.Number))];
                if (below.Count > 0)
                {
                    yield return Trimmed(head, below, readAs);
                }
            }
        }
    }

    // Where, after an empty line, something else begins: a sum, a note, a title.
    private int Ends(IReadOnlyList<TableRow> rows, int after)
    {
        var filled = rows.Count == 0 ? 0 : rows[0].Filled;
        for (var i = 0; i < rows.Count; i++)
        {
            if (rows[i].Number > after + 1 && i > 0 && !rows[i].Cells.Any(isData) && (rows[i].Filled < filled || Sums.Contains(rows[i].Cells[0].TrimEnd(':'))))
            {
                return i;
            }

            after = rows[i].Number;
        }

        return rows.Count;
    }

    // A sheet is as wide as its widest table: what is empty to the end belongs to none of this one.
    private static Table Trimmed(TableRow head, List<TableRow> rows, string readAs)
    {
        var width = head.Cells.Count;
        while (width > 1 && head.Cells[width - 1].Length == 0 && rows.TrueForAll(r => Columns.CellOf(r, width - 1).Length == 0))
        {
            width--;
        }

        return new Table([.. head.Cells.Take(width)], head.Number, rows.ConvertAll(r => r.Cells.Count <= width ? r : r with { Cells = r.Cells[..width] }), readAs, HeadingsKnown: true);
    }

    private bool IsHead(TableRow row) => row.Cells.Count(isHeading) >= FewHeadings && !row.Cells.Any(isData);

    // Most rows have something in the second place.
    private static bool IsTitle(TableRow row) => Columns.CellOf(row, 1).Length == 0 && row.Filled == 1;
}
