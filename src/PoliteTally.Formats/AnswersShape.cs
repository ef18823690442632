using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats;

/// <summary>
/// Brings answers into rows, however they stand: a row a person and a row an answer are left as they are; a part for each question, people across, and lists inside of
/// lists become a row an answer.
/// </summary>
internal static partial class AnswersShape
{
    // So many rows show how a table is built.
    private const int Looked = 1000;

    // So many headings of one word are not all like names by chance.
    private const int FewPeople = 4;

    // A title has at least two people below.
    private const int FewRows = 3;

    // So many cells below each show what stands there.
    private const int FewCells = 3;

    // A part of people has so many of the class; of counts below it, none are.
    private const double Most = 0.5;

    /// <summary>The headings of a row an answer.</summary>
    private static readonly string[] RowAnAnswer = ["Name", "Question", "Answer"];

    /// <summary>The table in a text.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isData">True of cells that never stand among headings.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <exception cref="FormatProblem">It is no table.</exception>
    public static Table Of(FileText text, Func<string, bool> isData, Func<string, bool> isNameHere)
    {
        if (text.BeginsAsJson && JsonTable.Of(text, takeApart: true) is { } objects)
        {
            return Across(objects with { Headings = WithoutPaths(objects.Headings) }, isData, isNameHere);
        }

        if (AnswerLines.Of(text, isNameHere) is { } lines)
        {
            return Parts(lines, AnswerLines.ReadAs, isData, isNameHere) ?? AnswerLines.TableOf(lines);
        }

        var (rows, readAs) = Table.Cut(text, Table.MostOfLesson);
        return Parts(rows, readAs, isData, isNameHere)
            // Names over the answers are headings, though a question is one in other tables.
            ?? (rows.Count > 1 && rows[0].Cells is { Count: > FewPeople } over && over[0].Length == 0 && over.Count(isNameHere) >= Most * over.Count && over.Any(n => n.Contains(' '))
                ? Across(new Table([RowAnAnswer[1], .. over.Skip(1)], rows[0].Number, rows[1..], readAs, HeadingsKnown: true), isData, isNameHere) : null)
            ?? Across(Table.FromRows(rows, AnswersColumns.IsHeading, isData, headless: false, readAs), isData, isNameHere);
    }

    /// <summary>A table whose headings are people, as a row an answer; any other as it is.</summary>
    public static Table Across(Table table, Func<string, bool> isData, Func<string, bool> isNameHere)
    {
        if (Ticked(table, isNameHere) is { } ticked)
        {
            return ticked;
        }

        // A single word may be like a name, and be none: “Time”, “Answer”.
        List<int> named = [.. Enumerable.Range(0, table.Headings.Count).Where(c => !table.Headings[c].Any(char.IsDigit) && isNameHere(table.Headings[c]))];
        var whole = named.FindAll(c => table.Headings[c].Contains(' '));
        var people = whole.Count * 2 > table.Headings.Count ? whole : named.Count >= Math.Max(FewPeople, table.Headings.Count - 1) && !table.Headings.Skip(1).Any(AnswersColumns.IsHeading) ? named : [];
        // Names below names are a grid of people.
        if (people.Count == 0 || table.Headings.Count == 1 || table.Headings.Any(h => isData(h) || Clock().IsMatch(h)) || people.SelectMany(c => CellContent.Cells(table, c).Take(FewCells)).ToList() is var below && below.Count(c => c.Contains(' ') && isNameHere(c)) * 2 > below.Count)
        {
            return table;
        }

        // Whoever is not in the class stands between those who are; the question stands before them all.
        var first = Math.Max(1, people[0]);
        var asked = Enumerable.Range(0, first).MaxBy(c => CellContent.Cells(table, c).Distinct().Sum(t => t.Length));
        var answers = new TableRows(table.Rows.Count * (table.Headings.Count - first));
        foreach (var row in table.Rows)
        {
            for (var column = first; column < table.Headings.Count; column++)
            {
                ReadingBudget.Ask();
                if (Columns.CellOf(row, column) is { Length: > 0 } answer)
                {
                    answers.Add(row.Number, [table.Headings[column], Columns.CellOf(row, asked), answer]);
                }
            }
        }

        return new Table(RowAnAnswer, table.HeadingsRow, answers.All, table.ReadAs, HeadingsKnown: true);
    }

    // A question over the names and a column for each answer, with a tick under the one that was chosen.
    private static Table? Ticked(Table table, Func<string, bool> isNameHere)
    {
        if (table.Headings.Count < FewCells || !AnswersColumns.IsQuestion(table.Headings[0]) || CellContent.Cells(table, 0) is var names && names.Count(isNameHere) < Most * Math.Max(1, names.Count)
            || table.Rows.Any(r => r.Cells.Skip(1).Any(c => c.Length > 0 && !IsTick(c)) || r.Cells.Skip(1).Count(IsTick) > 1))
        {
            return null;
        }

        var answers = new TableRows(table.Rows.Count);
        foreach (var row in table.Rows)
        {
            var chosen = Enumerable.Range(1, table.Headings.Count - 1).FirstOrDefault(c => IsTick(Columns.CellOf(row, c)));
            answers.Add(row.Number, [Columns.CellOf(row, 0), table.Headings[0], chosen == 0 ? "" : table.Headings[chosen]]);
        }

        return new Table(RowAnAnswer, table.HeadingsRow, answers.All, table.ReadAs, HeadingsKnown: true);

        static bool IsTick(string cell) => cell is "x" or "X" or "✓" or "✔" or "✅" or "☑" or "●" or "•";
    }

    // A line with the question, then whoever answered, again and again; with the headings once, each time, or never.
    private static Table? Parts(List<TableRow> rows, string readAs, Func<string, bool> isData, Func<string, bool> isNameHere)
    {
        // What is written first is a title that asks, or one of several, each of them once and with people below.
        if (rows.Count < FewRows || !IsTitle(rows[0]))
        {
            return null;
        }

        var (all, titles) = (Math.Min(rows.Count, Looked), rows.Take(Looked).Count(IsTitle));
        if (titles * FewRows > all || rows.Take(Looked).Where(IsTitle).DistinctBy(TitleOf).Count() < titles
            || rows.Take(Looked).Count(IsOfPresence) * 2 > all || rows.Take(Looked).Any(IsHeadOfPresence) || (titles == 1 && !AnswersColumns.IsQuestion(TitleOf(rows[0])) && !rows[1].Cells.Any(AnswersColumns.IsOfAnswers)))
        {
            return null;
        }

        bool IsHeadOfPresence(TableRow row) => row.Cells.Count(AttendanceColumns.IsHeading) > 1 && row.Cells.Any(AttendanceColumns.IsOfPresence) && !row.Cells.Any(AnswersColumns.IsOfAnswers);

        // Two times, a length, a coming or going are no answer.
        bool IsOfPresence(TableRow row) => row.Cells.Count(isData) > 1 || row.Cells.Any(c => AttendanceColumns.Says(c) is (true, false) or (false, true) || (c.Any(char.IsLetter) && TimeText.Length(c, Duration.FromMinutes(1)) is not null));

        var blocks = Blocks(rows);
        var head = blocks[0].Rows is [var first, ..] && (first.Cells.Any(AnswersColumns.IsOfAnswers) || !first.Cells.Any(isNameHere)) ? first.Cells : ArraySegment<string>.Empty;
        var width = blocks.Max(b => b.Rows.Count == 0 ? 0 : b.Rows.Max(r => r.Cells.Count));
        var answers = new TableRows(rows.Count);
        var blocksOfPeople = 0;
        foreach (var (title, block) in blocks)
        {
            List<TableRow> said = [.. block.Where(r => !r.Cells.SequenceEqual(head))];
            if (said.Count > 0 && said.Take(CellContent.Looked).Count(r => r.Cells.Any(isNameHere)) >= Most * Math.Min(said.Count, CellContent.Looked))
            {
                blocksOfPeople++;
                foreach (var row in said)
                {
                    answers.Add(row.Number, [title, .. row.Cells, .. Enumerable.Repeat("", width - row.Cells.Count)]);
                }
            }
        }

        return blocksOfPeople == 0 || head.Any(AttendanceColumns.IsOfPresence) || (titles > 1 && blocksOfPeople < 2) ? null
            : new Table([RowAnAnswer[1], .. head, .. Enumerable.Repeat("", width - head.Count)], rows[0].Number, answers.All, readAs, HeadingsKnown: true);
    }

    // What stands together, under the last title above it.
    private static List<(string Title, List<TableRow> Rows)> Blocks(List<TableRow> rows)
    {
        var blocks = new List<(string Title, List<TableRow> Rows)>();
        var (title, last) = ("", 0);
        foreach (var row in rows)
        {
            if (IsTitle(row))
            {
                title = TitleOf(row);
                blocks.Add((title, []));
            }
            else if (row.Number > last + 1 && blocks[^1].Rows.Count > 0)
            {
                blocks.Add((title, [row]));
            }
            else
            {
                blocks[^1].Rows.Add(row);
            }

            last = row.Number;
        }

        return blocks;
    }

    private static bool IsTitle(TableRow row) => row.Filled == 1 && TitleOf(row).Length > 0;

    private static string TitleOf(TableRow row) => row.Cells[0];

    // "item.text" is an item, "user.name" is a name; of two that are called the same the whole path stays.
    private static IReadOnlyList<string> WithoutPaths(IReadOnlyList<string> headings)
    {
        var last = headings.Select(h => Array.Find(Path().Match(h).Value.Split('.'), part => AnswersColumns.IsOfQuestions(part) || AnswersColumns.IsOfAnswers(part)) ?? Path().Replace(h, "")).ToList();
        return [.. headings.Select((h, i) => last.Count(l => l == last[i]) == 1 ? last[i] : h)];
    }

    // A time of day, wherever it stands: it is over no answers.
    [GeneratedRegex(@"(?<!\d)\d{1,2}[:.]\d{2}[:.]\d{2}(?!\d)|(?<!\d)\d{1,2}:\d{2}(?!\d)")]
    private static partial Regex Clock();

    // Names of properties before the last; a question has spaces.
    [GeneratedRegex(@"^(?:[\p{L}\p{N}_]+\.)+(?=\S)")]
    private static partial Regex Path();
}
