using System.Globalization;
using NodaTime;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>What one person answered to one question.</summary>
/// <param name="Row">Who, and when.</param>
/// <param name="Written">What was answered; empty if the table has only points.</param>
public readonly record struct AnswerRead(AnswersRow Row, AnswerWritten Written);

/// <summary>A question in a table of answers.</summary>
/// <param name="Text">The question.</param>
/// <param name="Answers">The answers to it, of each name the last one.</param>
/// <param name="Right">What the table says is right; empty if it does not.</param>
/// <param name="OnlyPoints">Whether nothing is known of the answers but their points.</param>
public sealed record QuestionRead(string Text, IReadOnlyList<AnswerRead> Answers, IReadOnlyList<string> Right, bool OnlyPoints);

/// <summary>A table of answers as it would be brought in.</summary>
/// <param name="Columns">Its columns, with what they are taken for.</param>
/// <param name="NamesZone">Whether its times name their zone.</param>
/// <param name="Anonymous">Whether it has no names.</param>
/// <param name="Questions">The questions, in order.</param>
/// <param name="People">Its rows, without what was answered; with what is wrong with them.</param>
/// <param name="Problems">What is wrong with it as a whole.</param>
/// <param name="Unclear">What is asked of its columns.</param>
/// <param name="Remarks">What is worth a look.</param>
/// <param name="IsClear">Whether its columns say that these are answers, and nothing else that a program gives.</param>
/// <param name="IsEven">Whether it has headings, and rows as long as they are: a text with commas in it has not.</param>
public sealed record AnswersPreview(
    IReadOnlyList<Column> Columns, bool NamesZone, bool Anonymous, IReadOnlyList<QuestionRead> Questions, IReadOnlyList<AnswersRow> People, IReadOnlyList<string> Problems,
    IReadOnlyList<string> Unclear, IReadOnlyList<string> Remarks, bool IsClear, bool IsEven)
{
    /// <summary>Whether headings say what is the question and what the answer.</summary>
    internal bool IsSaidByHeadings => Columns.Any(c => c.Field == "question" && AnswersColumns.IsOfQuestions(c.Heading)) && Columns.Any(c => c.Field == "answer" && AnswersColumns.IsOfAnswers(c.Heading));
}

/// <summary>A row of a table of answers, without what was answered.</summary>
/// <param name="Row">The row, from 1.</param>
/// <param name="Name">The name given; empty if the table has no names.</param>
/// <param name="At">When; null if the table does not say.</param>
/// <param name="Problems">What is wrong with it; empty if it can be taken.</param>
public sealed record AnswersRow(int Row, string Name, string? Number, string? Email, Instant? At, IReadOnlyList<string> Problems);

/// <summary>Reads answers: a row a person with a column a question, or a row an answer.</summary>
public static class AnswersFile
{
    /// <summary>The most questions that are read: 40.</summary>
    public const int MostQuestions = 40;

    // So many rows show whether they are all as long.
    private const int RowsLookedAt = 1000;

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
        using var budget = ReadingBudget.Begin();
        using var room = ReadingRoom.For(bytes.Length);
        var near = lessonFrom.InZone(zone).LocalDateTime;
        var table = TableOf(bytes, near, isNameHere);
        var fields = mapping ?? AnswersColumns.Guess(table, near, isNameHere);
        var single = fields.ContainsKey("question") && fields.ContainsKey("answer");
        var questions = single ? [] : AnswersColumns.Questions(table, fields, near);
        var columns = Columns.Describe(table, fields);
        if (!single && questions.Count == 0)
        {
            return new AnswersPreview(columns, NamesZone: true, Anonymous: false, [], [], ["Say which columns hold the questions and the answers: every column that is nothing else is taken for a question."], [], [], IsClear: false, IsEven: false);
        }

        if (questions.Count > MostQuestions)
        {
            throw new FormatProblem($"This table has {questions.Count} questions; at most {MostQuestions} can be read. Keep only those of this lesson.");
        }

        int Place(string field) => Columns.Place(fields, field);
        var (named, given, family, email, number) = (Place("name"), Place("given"), Place("family"), Place("email"), Place("number"));
        var (time, attempt, asked, answered, pointed) = (Place("time"), Place("try"), Place("question"), Place("answer"), Place("points"));
        var rows = table.Rows;
        var (times, namesZone) = time >= 0 ? TimeText.Read(Columns.Moments(table, fields, "time"), lessonFrom, zone) : (new Instant?[rows.Count], true);
        var (soonest, latest) = (lessonFrom - Around, lessonTo + Around);
        var isNear = times.Any(t => t > soonest && t < latest);
        var anonymous = named < 0 && given < 0 && email < 0 && number < 0;
        var people = Enumerable.Range(0, rows.Count).Select(i => PersonOf(rows[i], times[i])).ToList();
        var ordered = Ordered();
        var tries = anonymous || single ? 0 : ordered.Length - Different(ordered.Select(WhoIs), ordered.Length);
        var read = single ? OfRows() : questions.Select(OfColumns).ToList();
        if (read.Count > MostQuestions)
        {
            throw new FormatProblem($"This table has {read.Count} questions; at most {MostQuestions} can be read. Keep only those of this lesson.");
        }

        return new AnswersPreview(
            columns, namesZone, anonymous, read, people, FarFrom(), Unclear(), tries == 0 ? [] : [$"{Words.Count(tries, "row")} of somebody who tried again: the last try counts."],
            AnswersColumns.AreClear(table, questions, fields), IsEven());

        AnswersRow PersonOf(TableRow row, Instant? at)
        {
            var problems = new RowProblems();
            var (mail, numbered) = (Columns.CellOf(row, email), Columns.CellOf(row, number));
            var name = CleanText.Of(Columns.CellOf(row, named) is { Length: > 0 } whole ? whole
                : (given >= 0 || family >= 0) && $"{Columns.CellOf(row, given)} {Columns.CellOf(row, family)}".Trim() is { Length: > 0 } both ? both
                : mail.Length > 0 ? mail : numbered);
            if (!anonymous && CleanText.IsBlank(name))
            {
                problems.Add("has no name.");
            }

            (name, var tooLong) = Columns.Checked(name);
            if (tooLong is not null)
            {
                problems.Add(tooLong);
            }

            if (time >= 0 && at is null)
            {
                problems.Add(Columns.Unreadable(Columns.CellOf(row, time)));
            }
            else if (at is { } moment && isNear && (moment < soonest || moment > latest))
            {
                problems.Add(Columns.OfAnotherTime("was answered at", moment, zone));
            }

            return new AnswersRow(row.Number, anonymous ? "" : name, Columns.OrNull(numbered), mail.Contains('@') ? mail : null, at, problems.All);
        }

        string WhoIs(int i) => people[i].Number ?? Columns.OrNull(Columns.CellOf(rows[i], email)) ?? people[i].Name;

        // The rows that can be taken. The last try counts: by its time, else by its number, else by where it stands.
        int[] Ordered()
        {
            int[] usable = [.. Enumerable.Range(0, rows.Count).Where(i => people[i].Problems.Count == 0)];
            decimal[] attempts = attempt >= 0 ? [.. rows.Select(r => AnswerReading.NumberIn(Columns.CellOf(r, attempt)) ?? 0)] : [];
            int Later(int a, int b) => Nullable.Compare(times[a], times[b]) is not 0 and var byTime ? byTime
                : attempt >= 0 && attempts[a].CompareTo(attempts[b]) is not 0 and var byNumber ? byNumber
                : a.CompareTo(b);
            // Programs write the rows of a large file in this order already.
            for (var i = 1; i < usable.Length; i++)
            {
                if (Later(usable[i - 1], usable[i]) > 0)
                {
                    Array.Sort(usable, Later);
                    break;
                }
            }

            return usable;
        }

        IReadOnlyList<string> Unclear() => mapping is not null ? []
            // Nobody tries so often that most rows count for nothing.
            : tries * 2 > ordered.Length && attempt < 0
                ? [$"{Words.Count(tries, "row")} of {ordered.Length} would count for nothing, as earlier tries of the same people. If each row is one answer, say below which column holds the question and which the answer."]
            : single && !AnswersColumns.IsOfAnswers(table.Headings[answered]) && columns.FirstOrDefault(CouldBeAnswers) is { } other
                ? [$"“{Columns.TitleOf(table, answered)}” is taken for the answers, and “{other.Heading}” could be the answers, too."]
            : [];

        bool CouldBeAnswers(Column column) => column.Field is null && !AnswersColumns.IsAside(column.Heading) && CellContent.IsMixed(table, column.Index)
            && CellContent.Cells(table, column.Index).Exists(c => c.Any(char.IsLetter));

        bool IsEven() => table.Headings.Count > 1 && (table.HeadingsKnown || !HoldsData(table.Headings))
            && rows.Take(RowsLookedAt).Count(r => r.Cells.Count == table.Headings.Count) >= CellContent.Most * Math.Min(rows.Count, RowsLookedAt);

        // Where somebody is named, or a time stands, are no headings.
        bool HoldsData(IReadOnlyList<string> headings) => (named >= 0 && isNameHere(headings[named])) || headings.Any(h => CellContent.IsData(h, near));

        QuestionRead OfColumns(QuestionColumns question)
        {
            var (answer, points) = (question.Answer ?? -1, question.Points ?? -1);
            var most = points >= 0 ? MostOf(ordered.Select(i => Columns.CellOf(rows[i], points)), table.Headings[points]) : 0;
            var answers = new LastTries(ordered.Length, anonymous || tries == 0 ? null : WhoIs);
            foreach (var i in ordered)
            {
                var written = Columns.CellOf(rows[i], answer);
                var got = points >= 0 ? AnswersColumns.PointsIn(Columns.CellOf(rows[i], points)) : null;
                if (answer < 0 ? got is not null : IsAnswer(written))
                {
                    answers.Add(i, new AnswerRead(people[i], new AnswerWritten(answer < 0 ? got!.Value.Got.ToString(CultureInfo.InvariantCulture) : AsMeant(written), ShareOf(got, most))));
                }
            }

            return new QuestionRead(question.Text, answers.All, question.Key is { } key ? TextsOf(ordered, key) : [], question.Answer is null);
        }

        IReadOnlyList<string> TextsOf(IEnumerable<int> some, int column) => [.. some.Select(i => Columns.CellOf(rows[i], column)).Where(c => c.Length > 0).Distinct()];

        List<QuestionRead> OfRows() =>
        [
            .. from i in ordered
               let text = Columns.CellOf(rows[i], asked)
               where text.Length > 0
               group i by text into question
               select new QuestionRead(question.Key, TriesOf([.. question]), TextsOf(question, Place("key")), OnlyPoints: false),
        ];

        IReadOnlyList<AnswerRead> TriesOf(List<int> question)
        {
            var most = MostOf(question.Select(i => Columns.CellOf(rows[i], pointed)), "");
            var answers = new LastTries(question.Count, anonymous ? null : WhoIs);
            foreach (var i in question.Where(i => IsAnswer(Columns.CellOf(rows[i], answered))))
            {
                answers.Add(i, new AnswerRead(people[i], new AnswerWritten(AsMeant(Columns.CellOf(rows[i], answered)), ShareOf(AnswersColumns.PointsIn(Columns.CellOf(rows[i], pointed)), most))));
            }

            return answers.All;
        }

        IReadOnlyList<string> FarFrom()
        {
            var first = isNear ? null : times.Min();
            return first is null
                ? []
                : [$"None of its answers were given on the day of this lesson; the first is of {first.Value.InZone(zone).ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture)}. Are they answers of another lesson?"];
        }
    }

    private static Table TableOf(byte[] bytes, LocalDateTime near, Func<string, bool> isNameHere)
    {
        bool IsData(string cell) => CellContent.IsData(cell, near);
        if (Archive.IsOne(bytes))
        {
            return AnswersShape.Across(Table.Read(bytes, AnswersColumns.IsHeading, mostRows: Table.MostOfLesson, isData: IsData), IsData, isNameHere);
        }

        FileSize.Check(bytes.Length, FileSize.OnlyTheSheet);
        return AnswersShape.Of(FileText.Of(bytes), IsData, isNameHere);
    }

    private static int Different(IEnumerable<string> texts, int most)
    {
        var seen = new HashSet<string>(most, StringComparer.Ordinal);
        seen.UnionWith(texts);
        return seen.Count;
    }

    // So that a spreadsheet takes it for no formula, some programs write an apostrophe before it.
    private static string AsMeant(string cell) => cell is ['\'', '=' or '+' or '-' or '@', ..] ? cell[1..] : cell;

    // Programs write a dash where nothing was answered.
    private static bool IsAnswer(string cell) => cell.Length > 0 && cell is not ("-" or "–" or "N/A" or "n/a");

    private static decimal MostOf(IEnumerable<string> cells, string heading)
    {
        var points = cells.Select(AnswersColumns.PointsIn).Where(p => p is not null).Select(p => p!.Value).ToList();
        return points.Count == 0 ? 0 : AnswersColumns.OfHeading(heading) ?? points.Max(p => p.Most) ?? points.Max(p => p.Got);
    }

    private static decimal? ShareOf((decimal Got, decimal? Most)? points, decimal most) =>
        points is not { } p ? null : (p.Most ?? most) is > 0 and var of ? Math.Clamp(p.Got / of, 0, 1) : 0;

    /// <summary>Answers to one question: of several tries of one person the last one.</summary>
    /// <param name="most">At most so many come.</param>
    /// <param name="whoIs">Who is in a row; null if nobody tried twice, or nobody is known, so that all of them count.</param>
    private sealed class LastTries(int most, Func<int, string>? whoIs)
    {
        private readonly List<AnswerRead> _answers = new(most);
        private readonly Dictionary<string, int> _places = new(StringComparer.Ordinal);

        public IReadOnlyList<AnswerRead> All => _answers;

        public void Add(int row, AnswerRead answer)
        {
            if (whoIs is not null && !_places.TryAdd(whoIs(row), _answers.Count))
            {
                _answers[_places[whoIs(row)]] = answer;
            }
            else
            {
                _answers.Add(answer);
            }
        }
    }
}
