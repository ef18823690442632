using PoliteTally.Core.Reports;

namespace PoliteTally.Formats.Documents;

/// <summary>The figures of a document as a file of tables.</summary>
public static class FiguresFile
{
    /// <summary>As a workbook, a sheet for each table.</summary>
    public static byte[] Workbook(Document document) =>
        SheetFile.Write([.. TablesOf(document).Select(t => new SheetTable(t.Name, t.Headings, t.Rows.Select(r => (IReadOnlyList<SheetCell>)[.. r.Cells.Select(CellOf)]), 1))]);

    /// <summary>As a table whose columns are separated by commas; several tables stand below each other, each with its name in the first column.</summary>
    public static byte[] Csv(Document document)
    {
        var tables = TablesOf(document);
        if (tables.Count == 1)
        {
            return SafeCsv.Write(tables[0].Headings, tables[0].Rows.Select(Texts));
        }

        var all = tables.SelectMany(t => t.Rows.Select(Texts).Prepend(t.Headings).Select(cells => (IReadOnlyList<string>)[t.Name, .. cells])).ToList();
        return SafeCsv.Write(["Table"], all);
    }

    // A document without figures has what it says as its one table.
    private static List<Figures> TablesOf(Document document)
    {
        List<Figures> tables = [.. document.Sections.Select(s => s.Figures).OfType<Figures>().Where(f => f.Rows.Count > 0)];
        return tables.Count > 0 ? tables : [new Figures(document.Title, [document.Title], [.. document.Sections.SelectMany(s => s.Says).Select(s => new FigureRow([s.Text]))])];
    }

    private static IReadOnlyList<string> Texts(FigureRow row) => [.. row.Cells.Select(c => c.Text)];

    // A number that is shown with words beside it, as "83 %", is a number where it can be reckoned with.
    private static SheetCell CellOf(FigureCell cell) => cell.Number is { } number
        ? SheetCell.Of(number, number == decimal.Truncate(number) ? 0 : 2)
        : SheetCell.Of(cell.Text);
}
