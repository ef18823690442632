namespace PoliteTally.Formats;

/// <summary>
/// Finds in a table whether a row is one answer, and which of its columns say what was asked, what was answered and what that got: a question comes once for each of many
/// people, and each of them has several.
/// </summary>
internal static class AnswersInRows
{
    // Whoever answers four questions stands in four rows; somebody who tries again, in two.
    private const double SeveralEach = 1.5;

    // Of pairs of a person and a question so many come once.
    private const double Once = 0.75;

    // What is nearly as good as the best.
    private const double NearlyAsGood = 0.95;

    // Of fewer rows nothing can be told.
    private const int FewRows = 4;

    private const int Looked = 1000;

    /// <summary>Finds them; what is found is added to the fields.</summary>
    /// <param name="table">The table.</param>
    /// <param name="fields">What is known of its columns.</param>
    /// <param name="called">The columns that are called question and answer; -1 for none.</param>
    /// <param name="holds">What each column holds.</param>
    public static void Find(Table table, Dictionary<string, int> fields, (int Question, int Answer) called, IReadOnlyList<Holds> holds)
    {
        List<int> whole = [.. new[] { "name", "given", "family", "email", "number" }.Where(fields.ContainsKey).Select(f => fields[f])];
        List<TableRow> rows = [.. table.Rows.Take(Looked)];
        List<int> free = [.. Enumerable.Range(0, table.Headings.Count).Where(c => !fields.ContainsValue(c) && !CellContent.IsData(holds[c]) && CellContent.Cells(table, c).Count > 0)];
        var question = free.Contains(called.Question) ? called.Question
            : whole.Count == 0 ? -1
            : QuestionAmong() is var asked and >= 0 ? asked
            : TheOnlyQuestion();
        if (question < 0)
        {
            return;
        }

        var right = free.Where(c => c != question && AnswersColumns.IsOfRight(table.Headings[c]) && CellContent.Cells(table, c).TrueForAll(AnswersColumns.IsPoints)).ToList();
        var rest = free.Where(c => c != question && !AnswersColumns.IsAside(table.Headings[c]) && !right.Contains(c)).ToList();
        var answers = rest.Contains(called.Answer) ? [called.Answer] : rest.Where(c => !IsOfIds(c)).OrderByDescending(c => CellContent.Cells(table, c).Distinct().Count()).ToList();
        if (answers.Count == 0)
        {
            return;
        }

        (fields["question"], fields["answer"]) = (question, answers[0]);
        if (right.Count > 0)
        {
            fields.TryAdd("points", right[0]);
        }

        bool IsOfNumbers(int column) => CellContent.Cells(table, column) is { Count: > 0 } cells && cells.TrueForAll(AnswersColumns.IsPoints);

        // A number for every row is none that somebody answered.
        bool IsOfIds(int column) => rest.Count > 1 && rows.Count >= FewRows && IsOfNumbers(column) && rows.Select(r => Columns.CellOf(r, column)).Distinct().Count() == rows.Count;

        // One question for all of them, beside a column of answers.
        int TheOnlyQuestion()
        {
            var constant = free.Where(c => c != called.Answer && !IsOfNumbers(c) && rows.TrueForAll(r => Columns.CellOf(r, c) == Columns.CellOf(rows[0], c))).OrderByDescending(c => Columns.CellOf(rows[0], c).Length).ToList();
            var others = free.Count(c => !constant.Contains(c) && !AnswersColumns.IsAside(table.Headings[c]));
            return rows.Count >= FewRows && constant.Count > 0 && (called.Answer >= 0 || (others == 1 && Columns.CellOf(rows[0], constant[0]).Contains(' '))) ? constant[0] : -1;
        }

        int QuestionAmong()
        {
            var who = rows.ConvertAll(r => string.Join('\n', whole.Select(c => Columns.CellOf(r, c))));
            if (rows.Count < FewRows || who.Distinct().Count() * SeveralEach > rows.Count)
            {
                return -1;
            }

            var likely = free.Select(column =>
                {
                    var cells = rows.ConvertAll(r => Columns.CellOf(r, column));
                    return (Column: column, Different: cells.Distinct().Count(), Once: who.Zip(cells).Distinct().Count() / (double)rows.Count, Asks: cells.Count(AnswersColumns.IsQuestion));
                })
                .Where(c => c.Once >= Once && c.Different > 1 && c.Different <= AnswersFile.MostQuestions && c.Different * 2 <= rows.Count).ToList();
            return likely.Count == 0 ? -1
                : likely.Where(c => c.Once >= NearlyAsGood * likely.Max(l => l.Once)).OrderByDescending(c => c.Asks * 2 > rows.Count).ThenBy(c => c.Different).First().Column;
        }
    }
}
