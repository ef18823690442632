using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>A question as the columns of a table hold it.</summary>
/// <param name="Text">The question.</param>
/// <param name="Answer">The column of the answers; null if only points are given.</param>
/// <param name="Points">The column of the points; null if there is none.</param>
/// <param name="Key">The column that says what was right; null if there is none.</param>
internal sealed record QuestionColumns(string Text, int? Answer, int? Points, int? Key);

/// <summary>Which column of a table of answers holds what: by its heading, else by what stands in it.</summary>
internal static partial class AnswersColumns
{
    /// <summary>What a column can be that is no question, with the headings it goes by, the likeliest first.</summary>
    public static readonly IReadOnlyDictionary<string, string[]> Headings = new Dictionary<string, string[]>
    {
        ["name"] = ["name", "fullname", "yourname", "studentname", "displayname", "student", "who", "username", "respondent", "participant", "player", "nickname", "nom", "nombre", "namn", "navn", "nafn", "nimi", "wer", "qui", "kuka", "teilnehmer", "schüler", "elev", "nemandi", "oppilas", "user"],
        ["given"] = ["firstname", "givenname", "forename", "vorname", "prénom", "given", "first"],
        ["family"] = ["lastname", "familyname", "surname", "nachname", "family", "last"],
        ["email"] = ["email", "emailaddress", "mail", "useremail", "address", "upn"],
        ["number"] = ["studentnumber", "studentid", "pupilnumber", "idnumber"],
        ["time"] = ["timestamp", "time", "submitted", "submittedat", "completiontime", "completed", "completedat", "finished", "answeredat", "at", "when", "datetime", "submissiontime", "zeitstempel", "zeit", "abgabe", "hora", "heure", "horodateur", "aika", "kello", "tid", "tidspunkt", "tími", "endtime"],
        ["date"] = ["date", "day", "datum", "fecha", "jour"],
        ["question"] = ["question", "questiontext", "questiontitle", "item", "prompt", "pollquestion", "frage", "pregunta", "spørgsmål", "spørsmål", "fråga", "kysymys", "spurning", "spurningur", "énoncé", "pytanie", "pergunta", "domanda", "vraag"],
        ["answer"] =
        [
            "answer", "response", "answertext", "choice", "chosen", "selected", "selectedoption", "selectedanswer", "youranswer", "theiranswer", "studentanswer", "reply", "given", "antwort", "gewählt", "respuesta", "réponse",
            "svar", "valgt", "valgtsvar", "vastaus", "svaret", "odpowiedź", "resposta", "risposta", "antwoord",
        ],
        ["points"] = ["points", "score", "marks", "mark", "grade", "pointsearned", "punkte", "puntos", "point", "note", "pisteet", "poäng", "poeng", "stig", "result"],
        ["key"] = ["correctanswer", "rightanswer", "expectedanswer", "expected", "solution", "richtigeantwort", "lösung", "rättsvar", "rigtigtsvar", "bonneréponse", "respuestacorrecta"],
        ["try"] = ["try", "attempt", "attemptnumber", "versuch", "intento"],
    };

    // What programs note about whoever answered, and nobody asked.
    private static readonly HashSet<string> Asides =
    [
        "id", "responseid", "starttime", "started", "startedon", "startdate", "timetaken", "timetakens", "duration", "ip", "ipaddress", "status", "state", "progress", "language",
        "percentage", "percent", "prozent", "total", "totalscore", "totalpoints", "quizfeedback", "feedback", "comments", "rank", "place", "class", "section", "group", "institution", "department",
        "correct", "incorrect", "unattempted", "lastmodifiedtime", "collectorid", "token",
    ];

    private static readonly HashSet<string> SaysRight = ["right", "correct", "yes", "true", "t", "✓", "✔", "✅", "☑", "richtig", "ja", "wahr", "correcto", "sí", "verdadero", "juste", "oui", "vrai", "rätt", "riktig", "rigtig", "oikein", "kyllä", "rétt", "já", "sann"];
    private static readonly HashSet<string> SaysWrong = ["wrong", "incorrect", "no", "false", "f", "✗", "✘", "×", "❌", "falsch", "nein", "incorrecto", "falso", "faux", "non", "fel", "nej", "feil", "nei", "galt", "forkert", "väärin", "ei", "rangt", "usann"];

    // No number of points is longer.
    private const int LongestPoints = 60;

    private static readonly HashSet<string> HeadingWords = [.. Headings.Values.SelectMany(w => w), .. Asides];

    /// <summary>Whether a cell is a heading that tables of answers have, or one that asks something.</summary>
    public static bool IsHeading(string cell) => HeadingWords.Contains(Columns.Fold(cell)) || IsQuestion(cell);

    /// <summary>Whether a heading says that what is asked stands below it.</summary>
    public static bool IsOfQuestions(string heading) => HasWord(heading, "question");

    /// <summary>Whether a heading is one of answers: “Chosen”, “Réponse donnée”.</summary>
    public static bool IsOfAnswers(string heading) => HasWord(heading, "answer");

    /// <summary>The column that a word of a field stands over, and few others; -1 if none.</summary>
    private static int Called(Table table, Dictionary<string, int> fields, string field) =>
        fields.TryGetValue(field, out var known) ? known : Enumerable.Range(0, table.Headings.Count).Where(c => !fields.ContainsValue(c) && HasWord(table.Headings[c], field)).DefaultIfEmpty(-1).First();

    private static bool HasWord(string heading, string field) => !IsQuestion(heading) && !CorrectWords().IsMatch(heading) && heading.Split(' ', StringSplitOptions.RemoveEmptyEntries) is { Length: <= 3 } words
        && (Headings[field].Contains(Columns.Fold(heading)) || Array.Exists(words, w => Headings[field].Contains(Columns.Fold(w))));

    /// <summary>Whether a heading is of what programs note beside, and nobody asked.</summary>
    public static bool IsAside(string heading) => Asides.Contains(Columns.Fold(heading));

    /// <summary>Whether a heading asks something, by its form.</summary>
    public static bool IsQuestion(string heading) => heading.TrimEnd().EndsWith('?') || heading.TrimEnd().EndsWith('？') || heading.Contains('¿') || Numbered().IsMatch(heading);

    /// <summary>Which columns hold whose answers these are, and when.</summary>
    /// <param name="table">The table.</param>
    /// <param name="near">When the lesson was to begin, in the zone of its times.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static Dictionary<string, int> Guess(Table table, LocalDateTime near, Func<string, bool> isNameHere)
    {
        var holds = table.Headings.Select((_, column) => CellContent.Of(table, column, near)).ToList();
        var fields = new Dictionary<string, int>(Columns.Guess([.. table.Headings.Select(h => IsQuestion(h) && !AsksForName(h) ? "" : h)], Headings));
        List<int> free = [.. Enumerable.Range(0, table.Headings.Count).Where(c => !fields.ContainsValue(c))];
        // What they are called is a hint; what stands in them decides.
        (int Question, int Answer) called = (Called(table, fields, "question"), Called(table, fields, "answer"));
        fields.Remove("question");
        fields.Remove("answer");
        Verify("time", c => holds[c] == Holds.Times);
        Verify("email", c => holds[c] == Holds.Addresses);
        // A note in words is none of points.
        Verify("points", c => CellContent.Cells(table, c) is var cells && cells.Count(IsPoints) >= CellContent.Most * cells.Count);
        if (!fields.ContainsKey("name") && !(fields.ContainsKey("given") && fields.ContainsKey("family")))
        {
            fields.Remove("given");
            fields.Remove("family");
            Take("name", free.Where(c => AsksForName(table.Headings[c])));
            Take("name", free.Where(c => holds[c] == Holds.Texts && CellContent.Cells(table, c) is { Count: > 1 } cells && cells.Count(isNameHere) * 2 >= cells.Count).OrderByDescending(c => CellContent.Cells(table, c).Where(isNameHere).Distinct().Count()));
        }

        Take("time", free.Where(c => holds[c] == Holds.Times));
        Take("email", free.Where(c => holds[c] == Holds.Addresses));
        AnswersInRows.Find(table, fields, called, holds);
        if (!fields.ContainsKey("question"))
        {
            fields.Remove("key");
        }

        return fields;

        void Take(string field, IEnumerable<int> columns)
        {
            if (columns.Select(c => (int?)c).FirstOrDefault() is { } column && fields.TryAdd(field, column))
            {
                free.Remove(column);
            }
        }

        // A heading may promise what the column does not hold: “When does high water come?” is no time.
        void Verify(string field, Func<int, bool> keeps)
        {
            if (fields.TryGetValue(field, out var column) && !keeps(column))
            {
                fields.Remove(field);
            }
        }
    }

    /// <summary>The questions in the columns that are left, in order, with the points and the key that stand beside them.</summary>
    /// <param name="table">The table.</param>
    /// <param name="fields">What is known of its columns.</param>
    /// <param name="near">When the lesson was to begin, in the zone of its times.</param>
    public static IReadOnlyList<QuestionColumns> Questions(Table table, IReadOnlyDictionary<string, int> fields, LocalDateTime near)
    {
        var taken = fields.Where(f => f.Key != "points").Select(f => f.Value).ToHashSet();
        var questions = new List<QuestionColumns>();
        // Points of nothing in particular are those of the whole.
        int? total = fields.TryGetValue("points", out var known) ? known : null;
        // Under one word alone they are of each question only if they come again.
        var comeAgain = table.Headings.Count(h => h.Length > 0 && Columns.Fold(PointsWords().Replace(h, "")).Length == 0) > 1;
        foreach (var column in Enumerable.Range(0, table.Headings.Count).Where(c => !taken.Contains(c) && !(PresenceList.IsHeading(table.Headings[c]) && CellContent.Cells(table, c).TrueForAll(t => RightOrWrong(t) is not null))))
        {
            var (heading, cells) = (table.Headings[column], CellContent.Cells(table, column));
            var rest = Columns.Fold(PointsWords().Replace(heading, ""));
            var belongs = Belonging(rest);
            var at = belongs >= 0 ? belongs : questions.Count - 1;
            if (questions.Count == 0 && cells.Count > 0 && cells.TrueForAll(IsPoints) && Columns.Fold(PointsWords().Replace(WithoutMost().Replace(heading, ""), "")) is "" or "total")
            {
                total ??= column;
            }
            else if (questions.Count > 0 && (IsOfRight(heading) || EndsWithRight().IsMatch(heading)) && cells.Count > 0 && (cells.TrueForAll(c => RightOrWrong(c) is not null) || cells.TrueForAll(c => c is "0" or "1")))
            {
                var beside = questions[^1].Answer == column - 1 ? questions.Count - 1 : at;
                questions[beside] = questions[beside] with { Points = column };
            }
            else if (KeyWords().IsMatch(heading) && questions.Count > 0)
            {
                questions[at] = questions[at] with { Key = column };
            }
            else if (PointsWords().IsMatch(heading) && cells.Count > 0 && cells.TrueForAll(IsPoints) && questions.Count > 0 && (belongs >= 0 || (rest.Length == 0 && questions[^1].Answer == column - 1)))
            {
                if (belongs < 0 && questions.Count > 1 && !comeAgain)
                {
                    total ??= column;
                }
                else
                {
                    questions[at] = questions[at] with { Points = column };
                }
            }
            else if (cells.Count > 0 && !Asides.Contains(Columns.Fold(heading)) && !Asides.Contains(rest) && !CellContent.IsData(CellContent.Of(table, column, near)) && column != total)
            {
                questions.Add(OfHeading(heading) is { } most && cells.TrueForAll(IsPoints)
                    ? new QuestionColumns(WithoutMost().Replace(heading, "").Trim() is { Length: > 0 } text && most > 0 ? text : heading, null, column, null)
                    : new QuestionColumns(heading.Length > 0 ? heading : $"Column {column + 1}", column, null, null));
            }
        }

        // The question of the same words, else the longest that ends or begins alike: “Tide” is not “When is the next tide?”.
        int Belonging(string rest) => rest.Length == 0 ? -1
            : questions.Index().Select(q => (q.Index, Text: Columns.Fold(q.Item.Text)))
                .Where(q => q.Text == rest || q.Text.StartsWith(rest, StringComparison.Ordinal) || rest.EndsWith(q.Text, StringComparison.Ordinal))
                .OrderByDescending(q => q.Text == rest).ThenByDescending(q => q.Text.Length).Select(q => q.Index).DefaultIfEmpty(-1).First();

        return questions.Count == 0 && total is { } whole ? [new QuestionColumns(table.Headings[whole], null, whole, null)] : questions;
    }

    /// <summary>Whether the columns of a table are those of answers and of nothing else that a program gives.</summary>
    /// <param name="table">The table.</param>
    /// <param name="questions">The questions found in it.</param>
    /// <param name="fields">What is known of its other columns.</param>
    public static bool AreClear(Table table, IReadOnlyList<QuestionColumns> questions, IReadOnlyDictionary<string, int> fields) =>
        (fields.TryGetValue("question", out var asked) && fields.ContainsKey("answer")
            && (IsOfQuestions(table.Headings[asked]) || CellContent.Cells(table, asked) is var cells && cells.Count(IsQuestion) * 2 > cells.Count))
        || questions.Any(q => q.Points is not null || q.Key is not null)
        || table.Headings.Any(h => IsQuestion(h) && !AsksForName(h));

    /// <summary>The most points as a heading says them, as in “Q. 1 /2.50” or “Score (out of 10)”; null if it does not.</summary>
    public static decimal? OfHeading(string heading) => WithoutMost().Match(Digits.Plain(heading)) is { Success: true } most ? AnswerReading.NumberIn(most.Groups["most"].Value) : null;

    /// <summary>Points as a cell has them: how many, and of how many if it says so; one of one for what says “right”.</summary>
    public static (decimal Got, decimal? Most)? PointsIn(string cell) =>
        RightOrWrong(cell) is { } right ? (right ? 1 : 0, 1)
        : cell.Length > LongestPoints || Fraction().Match(Digits.Plain(cell)) is not { Success: true } points || AnswerReading.NumberIn(points.Groups["got"].Value) is not { } got ? null
        : (got, points.Groups["most"] is { Success: true } most ? AnswerReading.NumberIn(most.Value) : points.Groups["percent"].Success ? 100 : null);

    /// <summary>Whether a cell says that something was right, or that it was wrong; null if it says neither.</summary>
    public static bool? RightOrWrong(string cell) => cell.Length > LongestPoints ? null : SaysRight.Contains(cell.Trim().ToLowerInvariant()) ? true : SaysWrong.Contains(cell.Trim().ToLowerInvariant()) ? false : null;

    /// <summary>Whether a heading says that what is below it was right or wrong.</summary>
    public static bool IsOfRight(string heading) => CorrectWords().IsMatch(heading);

    /// <summary>Whether a cell holds points, or a dash for none.</summary>
    public static bool IsPoints(string cell) => cell is "-" || PointsIn(cell) is not null;

    private static bool AsksForName(string heading) => NameWords().IsMatch(heading);

    [GeneratedRegex(@"^\s*(?:q|question|frage|pregunta|item)\s*\.?\s*\d{1,3}\b|^\s*\d{1,3}\s*[.)]\s*\p{L}", RegexOptions.IgnoreCase)]
    private static partial Regex Numbered();

    [GeneratedRegex(@"\b(?:your|full|first and last|dein|ihr|votre|tu|su)\s+(?:name|nom|nombre)\b|\b(?:who are you|wie heißt du)\b", RegexOptions.IgnoreCase)]
    private static partial Regex NameWords();

    [GeneratedRegex(@"[\[(:\-–\s]*\b(?:points?|scores?|marks?|grade|punkte|puntos|pts)\b[\])\-–:\s]*", RegexOptions.IgnoreCase)]
    private static partial Regex PointsWords();

    private const string Right = "(?:correct|right|richtig|correcto|juste|rätt|riktigt?|rigtigt?|oikein|rétt)";

    [GeneratedRegex(@"^\W*(?:is\s+|was\s+)?(?:" + Right + @"|ok)\W*$|[\[(]\s*" + Right + @"\s*[?]?[\])]\s*$|^(?:is\s+)?(?:correct|right)\s*[-–:]\s", RegexOptions.IgnoreCase)]
    private static partial Regex CorrectWords();

    [GeneratedRegex(@"\s\(?" + Right + @"\)?\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex EndsWithRight();

    [GeneratedRegex(@"\b(?:right|correct)\s+(?:answer|response)|\banswer key\b|\brichtige antwort|\brätt svar|\brigtigt svar|\bbonne réponse|\brespuesta correcta|\boikea vastaus", RegexOptions.IgnoreCase)]
    private static partial Regex KeyWords();

    [GeneratedRegex(@"[\s(\[]*(?:/|out of|von|max\.?)\s*(?<most>[0-9]+(?:[.,][0-9]+)?)[)\]]?\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex WithoutMost();

    [GeneratedRegex(@"^\s*(?<got>-?[0-9]+(?:[.,][0-9]+)?)\s*(?:(?:/|of|out of|von)\s*(?<most>[0-9]+(?:[.,][0-9]+)?)|(?<percent>%))?\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex Fraction();
}
