namespace PoliteTally.Formats;

/// <summary>A table in which somebody ticked who was there: a column of names, and one that says yes or no.</summary>
/// <param name="Here">Who was there, each with its row.</param>
/// <param name="Away">How many were not.</param>
internal sealed record PresenceList(IReadOnlyList<(int Row, string Name)> Here, int Away)
{
    private const int FewRows = 3;

    private static readonly HashSet<string> Headings = new(["present", "here", "there", "attended", "attendance", "attending", "in class", "anwesend", "da", "présent", "présence", "présente", "presente", "asistencia", "asistió", "närvarande", "til stede", "tilstede", "läsnä", "mætt", "mættur"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> Yes = new(["yes", "y", "x", "1", "true", "✓", "✔", "✅", "☑", "p", "present", "here", "there", "attended", "late", "ja", "j", "oui", "sí", "si", "kyllä", "já", "anwesend", "da", "présent", "présente", "presente", "närvarande", "til stede", "läsnä", "mætt", "mættur"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> No = new(["", "no", "n", "0", "false", "✗", "✘", "❌", "☐", "-", "–", "a", "absent", "absente", "away", "missing", "not here", "nein", "non", "nej", "nei", "ei", "abwesend", "fehlt", "ausente", "frånvarande", "fraværende", "poissa", "fjarverandi", "excused"], StringComparer.OrdinalIgnoreCase);

    // Words that say it by themselves, whatever stands above.
    private static readonly HashSet<string> OfPresence = new(["present", "absent", "anwesend", "abwesend", "présent", "présente", "presente", "ausente", "närvarande", "frånvarande", "til stede", "fraværende", "läsnä", "poissa"], StringComparer.OrdinalIgnoreCase);

    /// <summary>Reads such a table; null if the file is none.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static PresenceList? Of(byte[] bytes, Func<string, bool> isNameHere)
    {
        if (TableOf(bytes) is not { Rows.Count: >= FewRows } table || table.Headings.Count < 2)
        {
            return null;
        }

        var all = Enumerable.Range(0, table.Headings.Count).ToList();
        List<int> says = all.FindAll(c => table.Rows.All(r => Columns.CellOf(r, c) is var cell && (Yes.Contains(cell) || No.Contains(cell))) && table.Rows.Any(r => Yes.Contains(Columns.CellOf(r, c)))
            && (Headings.Contains(table.Headings[c]) || table.Rows.Count(r => OfPresence.Contains(Columns.CellOf(r, c))) >= CellContent.Most * table.Rows.Count));
        var name = all.Find(c => !says.Contains(c) && CellContent.Cells(table, c) is { Count: > 0 } cells && cells.Count(isNameHere) * 2 > cells.Count);
        return says is [var told] && name != told && CellContent.Cells(table, name).Count(isNameHere) * 2 > Math.Min(CellContent.Looked, table.Rows.Count)
            ? new PresenceList([.. table.Rows.Where(r => Yes.Contains(Columns.CellOf(r, told))).Select(r => (r.Number, Columns.CellOf(r, name)))], table.Rows.Count(r => No.Contains(Columns.CellOf(r, told))))
            : null;
    }

    private static Table? TableOf(byte[] bytes)
    {
        try
        {
            return Table.Read(bytes, c => Headings.Contains(c) || AttendanceColumns.IsHeading(c));
        }
        catch (FormatProblem)
        {
            return null;
        }
    }
}
