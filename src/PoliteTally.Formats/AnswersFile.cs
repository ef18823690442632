using System.Globalization;
using NodaTime;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>What one person answered to one question.</summary>
/// <param name="Row">The row, from 1.</param>
/// <param name="Name">The name given; empty if the table has no names.</param>
/// <param name="Written">What was answered; empty if the table has only points.</param>
/// <param name="At">When; null if the table does not say.</param>
public sealed record AnswerRow(int Row, string Name, string? Number, string? Email, AnswerWritten Written, Instant? At);

/// <summary>A question in a table of answers.</summary>
/// <param name="Text">The question.</param>
/// <param name="Answers">The answers to it, of each name the last one.</param>
/// <param name="Right">What the table says is right; empty if it does not.</param>
/// <param name="OnlyPoints">Whether nothing is known of the answers but their points.</param>
public sealed record QuestionRead(string Text, IReadOnlyList<AnswerRow> Answers, IReadOnlyList<string> Right, bool OnlyPoints);

/// <summary>A table of answers as it would be brought in.</summary>
/// <param name="Columns">Its columns, with what they are taken for.</param>
/// <param name="NamesZone">Whether its times name their zone.</param>
/// <param name="Anonymous">Whether it has no names.</param>
/// <param name="Questions">The questions, in order.</param>
/// <param name="People">Its rows, without what was answered; with what is wrong with them.</param>
/// <param name="Problems">What is wrong with it as a whole.</param>
/// <param name="Remarks">What is worth a look.</param>
/// <param name="IsClear">Whether its columns say that these are answers, and nothing else that a program gives.</param>
/// <param name="IsEven">Whether it has headings, and rows as long as they are: a text with commas in it has not.</param>
public sealed record AnswersPreview(
    IReadOnlyList<Column> Columns, bool NamesZone, bool Anonymous, IReadOnlyList<QuestionRead> Questions, IReadOnlyList<AnswersRow> People, IReadOnlyList<string> Problems,
    IReadOnlyList<string> Remarks, bool IsClear, bool IsEven);

/// <summary>A row of a table of answers.</summary>
public sealed record AnswersRow(int Row, string Name, Instant? At, IReadOnlyList<string> Problems);

/// <summary>Reads answers: a row a person with a column a question, or a row an answer.</summary>
public static class AnswersFile
{
    /// <summary>The most questions that are read: 40.</summary>
    public const int MostQuestions = 40;

    // Whoever answers shortly before or after is asked with the lesson.
    private static readonly Duration Around = Duration.FromHours(2);

    /// <summary>Reads a table of answers.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="mapping">Which column holds what, by field; null to guess.</param>
    /// <param name="zone">The zone of times that do not name theirs.</param>
    /// <param name="lessonFrom">When the lesson was to begin.</param>
    /// <param name="lessonTo">When the lesson was to end.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <exception cref="FormatProblem">It is no table.</exception>
    public static AnswersPreview Read(
        byte[] bytes, IReadOnlyDictionary<string, int>? mapping, DateTimeZone zone, Instant lessonFrom, Instant lessonTo, Func<string, bool> isNameHere)
    {
        var near = lessonFrom.InZone(zone).LocalDateTime;
        var table = TableOf(bytes, near);
        var fields = mapping ?? AnswersColumns.Guess(table, near, isNameHere);
        var single = fields.ContainsKey("question") && fields.ContainsKey("answer");
        var questions = single ? [] : AnswersColumns.Questions(table, fields, near);
        var columns = Columns.Describe(table, fields);
        if (!single && questions.Count == 0)
        {
            return new AnswersPreview(columns, NamesZone: true, Anonymous: false, [], [], ["Say which columns hold the questions and the answers: every column that is nothing else is taken for a question."], [], IsClear: false, IsEven: false);
        }

        if (questions.Count > MostQuestions)
        {
            throw new FormatProblem($"This table has {questions.Count} questions; at most {MostQuestions} can be read. Keep only those of this lesson.");
        }

        var (times, namesZone) = fields.ContainsKey("time")
            ? TimeText.Read([.. table.Rows.Select(r => Columns.Moment(r, fields, "time"))], near, zone)
            : ([.. table.Rows.Select(_ => (Instant?)null)], true);
        var isNear = times.Any(t => t > lessonFrom - Around && t < lessonTo + Around);
        var anonymous = !fields.ContainsKey("name") && !fields.ContainsKey("given") && !fields.ContainsKey("email") && !fields.ContainsKey("number");
        var people = table.Rows.Select((row, i) => PersonOf(row, times[i])).ToList();
        // The last try counts: by its time, else by its number, else by where it stands.
        var ordered = table.Rows.Zip(people).Where(r => r.Second.Problems.Count == 0)
            .OrderBy(r => r.Second.At ?? Instant.MinValue).ThenBy(r => AnswerReading.NumberIn(Columns.Cell(r.First, fields, "try")) ?? 0).ToList();
        var tries = anonymous || single ? 0 : ordered.Count - ordered.Select(r => WhoIs(r.First, r.Second)).ToHashSet(StringComparer.Ordinal).Count;
        var read = single ? OfRows() : questions.Select(OfColumns).ToList();
        if (read.Count > MostQuestions)
        {
            throw new FormatProblem($"This table has {read.Count} questions; at most {MostQuestions} can be read. Keep only those of this lesson.");
        }

        return new AnswersPreview(
            columns, namesZone, anonymous, read, people, FarFrom(), tries == 0 ? [] : [$"{Words.Count(tries, "row")} of somebody who tried again: the last try counts."],
            AnswersColumns.AreClear(table, questions, fields), IsEven(table));

        AnswersRow PersonOf(TableRow row, Instant? at)
        {
            var problems = new RowProblems();
            var name = CleanText.Of(Columns.Cell(row, fields, "name") is { Length: > 0 } whole ? whole
                : $"{Columns.Cell(row, fields, "given")} {Columns.Cell(row, fields, "family")}".Trim() is { Length: > 0 } both ? both
                : Columns.Cell(row, fields, "email") is { Length: > 0 } mail ? mail : Columns.Cell(row, fields, "number"));
            if (!anonymous && CleanText.IsBlank(name))
            {
                problems.Add("has no name.");
            }

            (name, var tooLong) = Columns.Checked(name);
            if (tooLong is not null)
            {
                problems.Add(tooLong);
            }

            if (fields.ContainsKey("time") && at is null)
            {
                problems.Add(Columns.Unreadable(Columns.Cell(row, fields, "time")));
            }
            else if (at is { } moment && isNear && (moment < lessonFrom - Around || moment > lessonTo + Around))
            {
                problems.Add($"was answered at {moment.InZone(zone).ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture)}, which is not in this lesson.");
            }

            return new AnswersRow(row.Number, name, at, problems.All);
        }

        string WhoIs(TableRow row, AnswersRow person) => Columns.Cell(row, fields, "number") is { Length: > 0 } number ? number : Columns.Cell(row, fields, "email") is { Length: > 0 } mail ? mail : person.Name;

        AnswerRow RowOf(TableRow row, AnswersRow person, string written, decimal? share) => new(
            row.Number, anonymous ? "" : person.Name, Columns.OrNull(Columns.Cell(row, fields, "number")), Columns.Cell(row, fields, "email") is var mail && mail.Contains('@') ? mail : null,
            new AnswerWritten(AsMeant(written), share), person.At);

        // Of several tries of one person the last one.
        IReadOnlyList<AnswerRow> Last(IEnumerable<(string Who, AnswerRow Answer)> answers) => anonymous || (!single && tries == 0)
            ? [.. answers.Select(a => a.Answer)]
            : [.. answers.GroupBy(a => a.Who, StringComparer.Ordinal).Select(g => g.Last().Answer)];

        QuestionRead OfColumns(QuestionColumns question)
        {
            var most = question.Points is { } points ? MostOf([.. ordered.Select(r => Columns.CellOf(r.First, points))], table.Headings[points]) : 0;
            var answers = Last(
                from r in ordered
                let written = question.Answer is { } column ? Columns.CellOf(r.First, column) : ""
                let got = question.Points is { } p ? AnswersColumns.PointsIn(Columns.CellOf(r.First, p)) : null
                where IsAnswer(written) || (question.Answer is null && got is not null)
                select (WhoIs(r.First, r.Second), RowOf(r.First, r.Second, question.Answer is null ? got!.Value.Got.ToString(CultureInfo.InvariantCulture) : written, ShareOf(got, most))));
            var right = question.Key is { } key ? ordered.Select(r => Columns.CellOf(r.First, key)).Where(c => c.Length > 0).Distinct().ToList() : [];
            return new QuestionRead(question.Text, answers, right, question.Answer is null);
        }

        List<QuestionRead> OfRows() =>
        [
            .. from r in ordered
               let text = Columns.Cell(r.First, fields, "question")
               where text.Length > 0
               group r by text into question
               let most = MostOf([.. question.Select(r => Columns.Cell(r.First, fields, "points"))], "")
               select new QuestionRead(
                   question.Key,
                   Last(
                       from r in question
                       let written = Columns.Cell(r.First, fields, "answer")
                       where IsAnswer(written)
                       select (WhoIs(r.First, r.Second), RowOf(r.First, r.Second, written, ShareOf(AnswersColumns.PointsIn(Columns.Cell(r.First, fields, "points")), most)))),
                   [], OnlyPoints: false),
        ];

        IReadOnlyList<string> FarFrom()
        {
            var known = people.Where(p => p.At is not null).Select(p => p.At!.Value).ToList();
            return known.Count == 0 || isNear
                ? []
                : [$"None of its answers were given on the day of this lesson; the first is of {known.Min().InZone(zone).ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture)}. Are they answers of another lesson?"];
        }
    }

    private static Table TableOf(byte[] bytes, LocalDateTime near) =>
        !Archive.IsOne(bytes) && Table.TextOf(bytes).Text.TrimStart() is ['{' or '[', ..] json && JsonTable.Of(json) is { } objects
            ? objects
            : Table.Read(bytes, AnswersColumns.IsHeading, mostRows: Table.MostOfLesson, isData: cell => CellContent.Of([cell], near) is Holds.Times or Holds.Dates or Holds.Addresses);

    private static bool IsEven(Table table) =>
        table.HeadingsKnown && table.Headings.Count > 1 && table.Rows.Count(r => r.Cells.Count == table.Headings.Count) >= CellContent.Most * table.Rows.Count;

    // So that a spreadsheet takes it for no formula, some programs write an apostrophe before it.
    private static string AsMeant(string cell) => cell is ['\'', '=' or '+' or '-' or '@', ..] ? cell[1..] : cell;

    // Programs write a dash where nothing was answered.
    private static bool IsAnswer(string cell) => cell.Length > 0 && cell is not ("-" or "–" or "N/A" or "n/a");

    private static decimal MostOf(IReadOnlyList<string> cells, string heading)
    {
        var points = cells.Select(AnswersColumns.PointsIn).Where(p => p is not null).Select(p => p!.Value).ToList();
        return points.Count == 0 ? 0 : AnswersColumns.OfHeading(heading) ?? points.Max(p => p.Most) ?? points.Max(p => p.Got);
    }

    private static decimal? ShareOf((decimal Got, decimal? Most)? points, decimal most) =>
        points is not { } p ? null : (p.Most ?? most) is > 0 and var of ? Math.Clamp(p.Got / of, 0, 1) : 0;
}
