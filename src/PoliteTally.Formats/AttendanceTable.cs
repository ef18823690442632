using NodaTime;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats;

/// <summary>Brings an attendance list, however it stands in its file, into a table with a row for each stay, coming or going.</summary>
/// <param name="near">When the lesson was to begin, in the zone of its times.</param>
/// <param name="clocksGoBack">Whether an hour of the lesson comes twice.</param>
internal sealed class AttendanceTable(LocalDateTime near, bool clocksGoBack)
{
    /// <summary>
    /// The table of a file: of JSON the objects, each stay of somebody a row; of several tables the one that says when people came and went, and of those the one with most rows; of a text
    /// that is no table what its lines say. Without headings that are known, a first row that holds a time or an address is a row like the others.
    /// </summary>
    /// <exception cref="FormatProblem">The file is no table that can be read.</exception>
    public Table Of(byte[] bytes)
    {
        if (Archive.IsOne(bytes))
        {
            return Apart(OfRows(bytes));
        }

        FileSize.Check(bytes.Length, FileSize.OnlyTheSheet);
        var text = FileText.Of(bytes);
        if (text.BeginsAsJson && JsonTable.Of(text, takeApart: true) is { } objects)
        {
            // Of a path its last step says what it is.
            return PlainCells.WithStays(objects with { Headings = [.. objects.Headings.Select(h => h.Contains('.') && AttendanceColumns.IsHeading(h[(h.LastIndexOf('.') + 1)..]) ? h[(h.LastIndexOf('.') + 1)..] : h)] }, near);
        }

        var (table, problem) = Rows();
        return table is not null && Says(table) ? Apart(table)
            : !text.IsBlank && AttendanceLines.Of(text.Whole) is { } lines ? lines
            : table ?? throw problem!;

        (Table?, FormatProblem?) Rows()
        {
            try
            {
                return (OfRows(bytes), null);
            }
            catch (FormatProblem none)
            {
                return (null, none);
            }
        }
    }

    // Whether it is known of whom the table tells, and something of when or how long.
    private bool Says(Table table) => AttendanceColumns.Guess(table, near, clocksGoBack).Fields is var fields && AttendanceColumns.NamePeople(fields) && AttendanceColumns.ShapeOf(fields) is not null;

    private Table OfRows(byte[] bytes) => PlainCells.WithStays(Cut(bytes), near);

    private Table Cut(byte[] bytes)
    {
        // Whoever takes part may be called “participant” in every row: a row that holds a time or an address has no headings.
        var table = Table.Read(bytes, AttendanceColumns.IsHeading, mostRows: Table.MostOfLesson, isData: IsData);
        if (!table.HeadingsKnown)
        {
            return table.Headings.Any(IsData) || table.Headings.Where((h, c) => HoldsLength(h, table, c)).Any() ? Headless() : table;
        }

        var parts = new AttendanceParts(AttendanceColumns.IsHeading, IsData);
        return parts.AreSeveral(table) && Headless() is var rows && parts.Of(rows.Rows, rows.ReadAs, table.HeadingsRow).ToList() is { Count: > 0 } tables
            ? tables.MaxBy(t => AttendanceColumns.Guess(t, near, clocksGoBack).Fields is var fields ? (fields.ContainsKey("name"), AttendanceColumns.HasTimes(fields), t.Rows.Count) : default)!
            : table;

        Table Headless() => Table.Read(bytes, AttendanceColumns.IsHeading, headless: true, mostRows: Table.MostOfLesson);

        bool IsData(string cell) => CellContent.IsData(cell, near);

        // A length over lengths is the first of them.
        bool HoldsLength(string heading, Table of, int column) => CellContent.Of([heading], near) == Holds.Lengths && CellContent.Of(of, column, near) == Holds.Lengths;
    }

    // Whoever came several times may have all of it in one row: “Joined 1, Left 1, Joined 2, Left 2”.
    private static Table Apart(Table table)
    {
        List<int> comings = [.. Places("joined")], goings = [.. Places("left")];
        if (comings.Count < 2 || comings.Count != goings.Count || comings.Zip(goings).Any(p => p.First > p.Second))
        {
            return table;
        }

        List<int> kept = [.. Enumerable.Range(0, table.Headings.Count).Where(c => !comings.Skip(1).Contains(c) && !goings.Skip(1).Contains(c))];
        var rows = new List<TableRow>();
        foreach (var row in table.Rows)
        {
            for (var stay = 0; stay < comings.Count; stay++)
            {
                // A row with nothing in it is one that lacks its time, and that is said.
                if (stay == 0 || Columns.CellOf(row, comings[stay]).Length + Columns.CellOf(row, goings[stay]).Length > 0)
                {
                    rows.Add(row with { Cells = kept.Select(c => Columns.CellOf(row, c == comings[0] ? comings[stay] : c == goings[0] ? goings[stay] : c)).ToArray() });
                }
            }
        }

        return table with { Headings = [.. kept.Select(c => table.Headings[c])], Rows = rows };

        IEnumerable<int> Places(string field) => Enumerable.Range(0, table.Headings.Count).Where(c => AttendanceColumns.Headings[field].Contains(Columns.Fold(table.Headings[c]).TrimEnd('0', '1', '2', '3', '4', '5', '6', '7', '8', '9')));
    }
}
