using System.Buffers;
using System.Globalization;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>A column of a table, as it is shown to whoever maps it.</summary>
/// <param name="Index">Its place, from 0.</param>
/// <param name="Heading">Its heading.</param>
/// <param name="Samples">Its first values.</param>
/// <param name="Field">What it is taken for; null for nothing.</param>
public sealed record Column(int Index, string Heading, IReadOnlyList<string> Samples, string? Field);

/// <summary>Which column holds what: guessed from headings, changeable by the teacher.</summary>
internal static class Columns
{
    /// <summary>Heading words folded to letters only: "E-Mail address" is "emailaddress".</summary>
    public static string Fold(string heading) => string.Concat(heading.ToLowerInvariant().Where(char.IsLetterOrDigit));

    /// <summary>The field of each column, by its heading; each field is given once, to the best heading.</summary>
    public static IReadOnlyDictionary<string, int> Guess(
        IReadOnlyList<string> headings, IReadOnlyDictionary<string, string[]> wordsOf)
    {
        var guess = new Dictionary<string, int>();
        foreach (var (field, words) in wordsOf)
        {
            var best = headings.Select((heading, index) => (index, rank: Array.IndexOf(words, Fold(heading))))
                .Where(h => h.rank >= 0 && !guess.ContainsValue(h.index))
                .OrderBy(h => h.rank)
                .Select(h => (int?)h.index)
                .FirstOrDefault();
            if (best is { } index)
            {
                guess[field] = index;
            }
        }

        return guess;
    }

    /// <summary>The columns with what they are taken for.</summary>
    public static IReadOnlyList<Column> Describe(Table table, IReadOnlyDictionary<string, int> mapping) =>
        [.. table.Headings.Select((_, index) => new Column(
            index,
            TitleOf(table, index),
            [.. table.Rows.Select(r => CellOf(r, index)).Where(c => c.Length > 0).Take(3)],
            mapping.Where(m => m.Value == index).Select(m => m.Key).FirstOrDefault()))];

    /// <summary>What a column is called: its heading, or its place if it has none.</summary>
    public static string TitleOf(Table table, int index) => table.Headings[index] is { Length: > 0 } heading ? heading : $"Column {index + 1}";

    /// <summary>The cell of a column in a row; empty if the row is shorter, or there is no such column.</summary>
    public static string CellOf(TableRow row, int index) => (uint)index < (uint)row.Cells.Count ? row.Cells[index] : "";

    /// <summary>The column of a field, from 0; -1 if there is none.</summary>
    public static int Place(IReadOnlyDictionary<string, int> mapping, string field) => mapping.GetValueOrDefault(field, -1);

    /// <summary>The cell of a field in a row; empty if there is none.</summary>
    public static string Cell(TableRow row, IReadOnlyDictionary<string, int> mapping, string field) => CellOf(row, Place(mapping, field));

    /// <summary>The times in all rows, each with its day if that stands in a column of its own.</summary>
    public static string[] Moments(Table table, IReadOnlyDictionary<string, int> mapping, string field)
    {
        var (at, day) = (Place(mapping, field), Place(mapping, "date"));
        return [.. table.Rows.Select(row => CellOf(row, at) is { Length: > 0 } time && CellOf(row, day) is { Length: > 0 } date ? $"{date} {time}" : CellOf(row, at))];
    }

    /// <summary>A name as it is shown where it is too long to be one, and what is wrong with it; null if nothing is.</summary>
    public static (string Name, string? Problem) Checked(string name) => name.Length <= TextLimits.LongestName
        ? (name, null)
        : (name[..20], $"has a name of {Words.Count(name.Length, "letter")}; at most {TextLimits.LongestName} are a name.");

    /// <summary>What is wrong with a time that nobody can read.</summary>
    public static string Unreadable(string time) => $"has the time “{time}”, which cannot be read. Write it as 2026-11-23 09:31:00.";

    /// <summary>What is wrong with a row whose time belongs to another lesson, as in “was answered at …”.</summary>
    public static string OfAnotherTime(string what, Instant at, DateTimeZone zone) =>
        $"{what} {at.InZone(zone).ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture)}{NotInLesson}";

    /// <summary>Whether that is what is wrong with a row: it can be read, and belongs elsewhere.</summary>
    public static bool IsOfAnotherTime(string problem) => problem.EndsWith(NotInLesson, StringComparison.Ordinal);

    private const string NotInLesson = ", which is not in this lesson.";

    /// <summary>A cell; null if it is empty.</summary>
    public static string? OrNull(string cell) => cell.Length == 0 ? null : cell;

    /// <summary>What is wrong with a row whatever it is about.</summary>
    public static IReadOnlyList<string> Problems(Table table, TableRow row)
    {
        var problems = new RowProblems();
        if (row.Cells.Count != table.Headings.Count)
        {
            problems.Add($"has {row.Cells.Count} cells where the headings have {table.Headings.Count}. Look for a separator inside a cell without quotation marks.");
        }

        foreach (var place in row.Formulas ?? [])
        {
            problems.Add($"has a formula in {place}. Put the plain value there: copy the column and paste it as values.");
        }

        foreach (var cell in row.Cells)
        {
            if (IsFormula(cell))
            {
                problems.Add($"has a formula, “{Short(cell)}”. Put the plain value there.");
            }

            if (cell.Contains('\uFFFD'))
            {
                problems.Add($"has broken letters, “{Short(cell)}”. Save the file again as “CSV UTF-8”.");
            }

            if (cell.AsSpan().ContainsAny(Controls))
            {
                problems.Add("has a line break or a control character inside a cell. Take it out.");
            }

            if (cell.Length > 200)
            {
                problems.Add($"has a cell of {cell.Length} characters, “{Short(cell)}”; at most 200 can be kept.");
            }
        }

        return problems.All;
    }

    private static readonly SearchValues<char> Controls = SearchValues.Create(string.Concat(Enumerable.Range(0, 0xA0).Select(c => (char)c).Where(char.IsControl)));

    private static bool IsFormula(string cell) =>
        cell.Length > 1 && (cell[0] is '=' or '@' || (cell[0] is '+' or '-' && cell.Contains('(') && !RosterFile.IsPhone(cell)));

    private static string Short(string cell) => cell.Length <= 30 ? cell : $"{cell[..30]}…";
}
