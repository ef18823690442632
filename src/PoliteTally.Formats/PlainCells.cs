using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace PoliteTally.Formats;

/// <summary>Writes the cells of a table as its readers know them: days and times that a spreadsheet counts, two times in one cell, and a name in two columns.</summary>
internal static partial class PlainCells
{
    // Two times stand in so many cells, or in none.
    private const double Mostly = 0.8;

    private static readonly string[] Between = [" - ", " – ", " — ", " to ", " bis ", " → ", "/", "–", "—", "-"];
    private static readonly HashSet<string> Given = ["firstname", "givenname", "forename", "vorname", "prénom", "given", "first", "fornavn", "förnamn", "etunimi", "fornafn", "navn", "imię", "voornaam"];
    private static readonly HashSet<string> Family = ["lastname", "familyname", "surname", "nachname", "family", "last", "nomdefamille", "apellido", "apellidos", "etternavn", "efternavn", "efternamn", "sukunimi", "eftirnafn", "nazwisko", "achternaam"];

    // The day from which spreadsheets count.
    private static readonly LocalDateTime First = new(1899, 12, 30, 0, 0);

    /// <summary>The table with its counted days as days.</summary>
    public static Table WithTimes(Table table)
    {
        var counted = Enumerable.Range(0, table.Headings.Count).Where(c => CellContent.Cells(table, c) is { Count: > 0 } cells && cells.TrueForAll(t => Counted().IsMatch(t))).ToHashSet();
        return counted.Count == 0 ? table : table with { Rows = [.. table.Rows.Select(r => r with { Cells = r.Cells.Select((cell, c) => counted.Contains(c) && Counted().IsMatch(cell) ? Moment(cell) : cell).ToArray() })] };
    }

    /// <summary>The table with given and family name in one column, and two times of one cell in two.</summary>
    /// <param name="table">The table.</param>
    /// <param name="near">When the lesson was to begin, in the zone of its times.</param>
    public static Table WithStays(Table table, LocalDateTime near)
    {
        var names = Whole(WithTimes(table));
        var (column, sign) = Enumerable.Range(0, names.Headings.Count).SelectMany(c => Between.Select(between => (Column: c, Sign: between))).FirstOrDefault(at => HoldsStays(CellContent.Cells(names, at.Column), at.Sign), (Column: -1, Sign: ""));
        return column < 0 ? names : names with
        {
            Headings = [.. names.Headings.Select((h, c) => c == column ? "Joined" : h), "Left"],
            Rows = [.. names.Rows.Select(r => Parts(Columns.CellOf(r, column), sign) is var (from, to) ? r with { Cells = (string[])[.. Wide(r).Select((cell, c) => c == column ? from : cell), to] } : r)],
        };

        bool HoldsStays(List<string> cells, string between) =>
            cells.Count > 1 && cells.Count(cell => Parts(cell, between) is var (from, to) && TimeText.Sortable(from, near) is not null && TimeText.Sortable(to, near) is not null) >= Mostly * cells.Count;

        IEnumerable<string> Wide(TableRow row) => Enumerable.Range(0, names.Headings.Count).Select(c => Columns.CellOf(row, c));
    }

    private static Table Whole(Table table)
    {
        var headings = table.Headings.Select(Columns.Fold).ToList();
        var (given, family) = (headings.FindIndex(Given.Contains), headings.FindIndex(Family.Contains));
        if (given < 0 || family < 0 || headings.Exists(AttendanceColumns.Headings["name"].Contains))
        {
            return table;
        }

        var (first, second) = (Math.Min(given, family), Math.Max(given, family));
        return table with
        {
            Headings = [.. table.Headings.Select((h, c) => c == first ? "Name" : h).Where((_, c) => c != second)],
            Rows = [.. table.Rows.Select(r => r with { Cells = r.Cells.Select((cell, c) => c == first ? $"{Columns.CellOf(r, given)} {Columns.CellOf(r, family)}".Trim() : cell).Where((_, c) => c != second).ToArray() })],
        };
    }

    private static (string From, string To)? Parts(string cell, string between) => cell.Split(between) is [{ Length: > 0 } from, { Length: > 0 } to] ? (from.Trim(), to.Trim()) : null;

    private static string Moment(string cell)
    {
        var days = double.Parse(cell.Replace(',', '.'), CultureInfo.InvariantCulture);
        var at = First.PlusSeconds((long)Math.Round(days * NodaConstants.SecondsPerDay));
        return days < 1 ? at.ToString("HH:mm:ss", CultureInfo.InvariantCulture) : at.ToString("uuuu-MM-dd HH:mm:ss", CultureInfo.InvariantCulture);
    }

    // A part of a day, or days since 1900 with one: to the second, so that no points are taken for a time.
    [GeneratedRegex(@"^(?:0[.,]\d{5,}|[34567]\d{4}[.,]\d{4,})$")]
    private static partial Regex Counted();
}
