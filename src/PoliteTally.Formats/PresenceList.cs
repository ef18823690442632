using System.Text.RegularExpressions;
using NodaTime;

namespace PoliteTally.Formats;

/// <summary>A table in which somebody ticked who was there: a column of names, and one that says yes or no, or one for each of several days.</summary>
/// <param name="Here">Who was there, each with its row.</param>
/// <param name="Away">How many were not.</param>
internal sealed partial record PresenceList(IReadOnlyList<(int Row, string Name)> Here, int Away)
{
    private const int FewRows = 3;
    private const int FirstYear = 1000;

    private static readonly HashSet<string> Headings = new(["present", "here", "there", "attended", "attendance", "attending", "in class", "anwesend", "da", "présent", "présence", "présente", "presente", "asistencia", "asistió", "närvarande", "til stede", "tilstede", "läsnä", "mætt", "mættur"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> Yes = new(["yes", "y", "x", "1", "true", "✓", "✔", "✅", "☑", "p", "present", "here", "there", "attended", "late", "ja", "j", "oui", "sí", "si", "kyllä", "já", "anwesend", "da", "présent", "présente", "presente", "närvarande", "til stede", "läsnä", "mætt", "mættur"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> No = new(["", "no", "n", "0", "false", "✗", "✘", "❌", "☐", "-", "–", "a", "absent", "absente", "away", "missing", "not here", "nein", "non", "nej", "nei", "ei", "abwesend", "fehlt", "ausente", "frånvarande", "fraværende", "poissa", "fjarverandi", "excused"], StringComparer.OrdinalIgnoreCase);

    // Words that say it by themselves, whatever stands above.
    private static readonly HashSet<string> OfPresence = new(["present", "absent", "late", "excused", "anwesend", "abwesend", "présent", "présente", "presente", "ausente", "närvarande", "frånvarande", "til stede", "fraværende", "läsnä", "poissa"], StringComparer.OrdinalIgnoreCase);

    /// <summary>Reads such a table; null if the file is none.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="day">The day of the lesson.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <exception cref="OtherDays">It has ticks for some days, and none for that one.</exception>
    public static PresenceList? Of(byte[] bytes, LocalDate day, Func<string, bool> isNameHere)
    {
        // Where it is known when somebody came, that says more.
        if (TableOf(bytes) is not { Rows.Count: >= FewRows } table || table.Headings.Count < 2 || table.Headings.Any(h => AttendanceColumns.Headings["joined"].Contains(Columns.Fold(h))))
        {
            return null;
        }

        var all = Enumerable.Range(0, table.Headings.Count).ToList();
        List<int> says = all.FindAll(c => table.Rows.All(r => Columns.CellOf(r, c) is var cell && (Yes.Contains(cell) || No.Contains(cell))) && table.Rows.Any(r => Yes.Contains(Columns.CellOf(r, c)))
            && (IsHeading(table.Headings[c]) || Day().IsMatch(table.Headings[c]) || table.Rows.Count(r => OfPresence.Contains(Columns.CellOf(r, c))) >= CellContent.Most * table.Rows.Count));
        var name = all.FindIndex(c => !says.Contains(c) && CellContent.Cells(table, c) is { Count: > 0 } cells && cells.Count(isNameHere) * 2 > cells.Count);
        if (name >= 0 && says.FindAll(c => Day().IsMatch(table.Headings[c])) is { Count: > 0 } days)
        {
            says = days.FindAll(c => IsOn(Day().Match(table.Headings[c]), day)) is { Count: > 0 } today ? today
                : throw new OtherDays($"This list has ticks for {string.Join(", ", days.Select(c => $"“{table.Headings[c]}”"))}, and none for the day of this lesson, {day:uuuu-MM-dd}.");
        }

        return says is [var told] && name != told && CellContent.Cells(table, name).Count(isNameHere) * 2 > Math.Min(CellContent.Looked, table.Rows.Count)
            ? new PresenceList([.. table.Rows.Where(r => Yes.Contains(Columns.CellOf(r, told))).Select(r => (r.Number, Columns.CellOf(r, name)))], table.Rows.Count(r => No.Contains(Columns.CellOf(r, told))))
            : null;
    }

    // The day before the month or behind it: of 2/11 and 11/2 both may be the second of November.
    private static bool IsOn(Match said, LocalDate day)
    {
        List<int> parts = [.. said.Groups["number"].Captures.Select(c => int.Parse(c.Value, System.Globalization.CultureInfo.InvariantCulture))];
        return !parts.Exists(p => p >= FirstYear && p != day.Year) && parts.FindAll(p => p < FirstYear) is [var one, var other, ..] && ((one == day.Day && other == day.Month) || (one == day.Month && other == day.Day));
    }

    [GeneratedRegex(@"^(?:\p{L}{1,10}\.?,?\s)?(?<number>\d{1,4})[./-](?<number>\d{1,2})(?:[./-](?<number>\d{2,4})?)?$", RegexOptions.ExplicitCapture)]
    private static partial Regex Day();

    /// <summary>Whether a heading is one over ticks of who was there.</summary>
    public static bool IsHeading(string heading) => Headings.Contains(heading.TrimEnd('?', ' '));

    private static Table? TableOf(byte[] bytes)
    {
        try
        {
            return Table.Read(bytes, c => IsHeading(c) || AttendanceColumns.IsHeading(c));
        }
        catch (FormatProblem)
        {
            return null;
        }
    }
}
