using System.Globalization;
using System.Text.Json.Nodes;
using NodaTime;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>An answer as it was given.</summary>
/// <param name="Share">Which part of the points it got; null if the file says nothing of points.</param>
public sealed record TrueAnswer(string Question, string Name, string Text, decimal? Share);

/// <summary>A table of answers in a layout that was drawn at random, and what it says.</summary>
public sealed record MadeUpTable(string Layout, string Text, IReadOnlyList<TrueAnswer> Answers);

/// <summary>Writes answers in layouts drawn at random: a row a person, a row an answer, people across, a part for each question, and JSON of several depths.</summary>
public sealed class MadeUpAnswers(int seed)
{
    private static readonly (string Question, string[] Answers)[] Asked =
    [
        ("Which way does the needle go?", ["down", "up", "neither"]), ("What is normal pressure?", ["1013", "1000", "1013 hPa", "990"]), ("Why does the wind back here?", ["because a low passes north of us", "the hill turns it", "no idea", "Coriolis, I think"]),
        ("When is the next spring tide?", ["Tuesday", "at full moon", "in nine days"]), ("Haar comes in from the sea", ["true", "false"]), ("Name a cloud that brings rain", ["nimbostratus", "cumulonimbus", "all of them"]),
        ("How many sixths in the third hour?", ["3", "2", "1"]), ("Is fog a cloud?", ["yes", "no"]), ("Pick the ebb", ["A", "B", "C", "D"]), ("Tide", ["high", "low", "slack"]),
    ];

    // What the name, the question, the answer, the points and the time are called.
    private static readonly string[][] Words =
    [
        ["Name", "Question", "Answer", "Points", "Time"], ["Student", "Item", "Chosen", "Score", "Answered at"], ["Participant", "Poll question", "Selected option", "Marks", "Submitted"], ["Teilnehmer", "Frage", "Gewählt", "Punkte", "Zeit"],
        ["Navn", "Spørgsmål", "Valgt svar", "Point", "Tidspunkt"], ["Qui", "Énoncé", "Réponse donnée", "Note", "Heure"], ["Kuka", "Kysymys", "Vastaus", "Pisteet", "Aika"], ["Your name", "Prompt", "Your answer", "Points earned", "When"],
    ];

    private static readonly string[] PaperWords = ["Points - {0}", "{0} (points)", "Score", "{0} [Score]", "Points: {0}"];

    private static readonly (string Told, Func<Instant, string> Write)[] Times =
    [
        ("2026-11-02 10:12:05", t => Told(t, "uuuu-MM-dd HH:mm:ss")), ("02/11/2026 10:12", t => Told(t, "dd/MM/uuuu HH:mm")), ("11/2/2026 10:12:05 AM", t => Told(t, "M/d/uuuu h:mm:ss tt")), ("iso", t => Told(t, "uuuu-MM-dd'T'HH:mm:ss'Z'")), ("10:12:05", t => Told(t, "HH:mm:ss")),
    ];

    private readonly Random _random = new(seed);

    /// <summary>Draws the next one.</summary>
    public MadeUpTable Draw()
    {
        var students = MadeUpClass.Students.ToArray();
        _random.Shuffle(students);
        var people = students.Take(_random.Next(4, 26)).ToList();
        var asked = Asked.ToArray();
        _random.Shuffle(asked);
        var questions = asked.Take(_random.Next(1, 6)).ToList();
        var shape = _random.Next(5);
        var scored = _random.Next(2) == 0;
        // Two answers at least are given to each question, or nothing shows what the column is.
        var answers = new List<TrueAnswer>();
        foreach (var (question, some) in questions)
        {
            foreach (var (i, person) in people.Index())
            {
                if (i < 3 || _random.Next(6) > 0)
                {
                    var text = i < 2 ? some[i] : _random.Of(some);
                    answers.Add(new TrueAnswer(question, $"{person.Given} {person.Family}", text, scored ? text == some[0] ? 1 : 0 : null));
                }
            }
        }

        return shape switch
        {
            0 => RowAPerson(people, [.. questions.Select(q => q.Question)], answers, scored),
            1 => RowAnAnswer(answers, scored),
            2 => PeopleAcross(people, [.. questions.Select(q => q.Question)], [.. answers.Select(a => a with { Share = null })]),
            3 => PartAQuestion([.. questions.Select(q => q.Question)], [.. answers.Select(a => a with { Share = null })]),
            _ => Json(people, [.. questions.Select(q => q.Question)], answers, scored),
        };
    }

    private MadeUpTable RowAPerson(List<(string Given, string Family)> people, List<string> questions, List<TrueAnswer> answers, bool scored)
    {
        var (words, time, separator, paper, numbered, parts) = (_random.Of(Words), _random.Of(Times), _random.Of<char>([',', ';', '\t']), _random.Of(PaperWords), _random.Next(3) == 0, _random.Next(4) == 0);
        var (timed, total, ids, tries) = (_random.Next(2) == 0, scored && _random.Next(2) == 0, _random.Next(3) == 0, _random.Next(4) == 0);
        var head = new List<string>();
        if (ids)
        {
            head.Add("Response ID");
        }

        if (timed)
        {
            head.Add(words[4]);
        }

        head.AddRange(parts ? ["First name", "Surname"] : [words[0]]);
        if (total)
        {
            head.Add("Total points");
        }

        foreach (var (i, question) in questions.Index())
        {
            var heading = numbered ? $"{i + 1}. {question}" : question;
            head.AddRange(scored ? [heading, string.Format(CultureInfo.InvariantCulture, paper, heading)] : [heading]);
        }

        var rows = new List<string[]>();
        foreach (var (i, (given, family)) in people.Index())
        {
            // An earlier try of somebody who later answered everything.
            if (tries && i % 5 == 0 && answers.Count(a => a.Name == $"{given} {family}") == questions.Count)
            {
                rows.Add(Row(i, given, family, _ => new TrueAnswer("", "", "dunno", scored ? 0 : null)));
            }

            rows.Add(Row(i + 100, given, family, q => answers.Find(a => a.Question == q && a.Name == $"{given} {family}")));
        }

        var meant = answers.Select(a => a with { Question = numbered ? $"{questions.IndexOf(a.Question) + 1}. {a.Question}" : a.Question });
        return new MadeUpTable($"a row a person: {string.Join(" | ", head)}, “{separator}”{(timed ? $", {time.Told}" : "")}{(tries ? ", tries" : "")}", Text(rows.Prepend([.. head]), separator), [.. meant]);

        string[] Row(int i, string given, string family, Func<string, TrueAnswer?> answer) =>
        [
            .. ids ? [(7000 + i).ToString(CultureInfo.InvariantCulture)] : Array.Empty<string>(),
            .. timed ? [time.Write(MadeUpChats.From + Duration.FromMinutes(10) + Duration.FromSeconds(9 * i))] : Array.Empty<string>(),
            .. parts ? [given, family] : new[] { $"{given} {family}" },
            .. total ? [questions.Sum(q => answer(q)?.Share ?? 0).ToString(CultureInfo.InvariantCulture)] : Array.Empty<string>(),
            .. questions.SelectMany(q => scored ? [answer(q)?.Text ?? "", answer(q) is { } a ? a.Share!.Value.ToString(CultureInfo.InvariantCulture) : ""] : new[] { answer(q)?.Text ?? "" }),
        ];
    }

    private MadeUpTable RowAnAnswer(List<TrueAnswer> answers, bool scored)
    {
        var (words, time, separator, timed, right, tries, mixed) = (_random.Of(Words), _random.Of(Times), _random.Of<char>([',', ';', '\t', '|']), _random.Next(2) == 0, _random.Of<(string, string)>([("1", "0"), ("yes", "no"), ("true", "false"), ("✓", "✗"), ("2 / 2", "0 / 2")]), _random.Next(4) == 0, _random.Next(2) == 0);
        var columns = new List<(string Heading, Func<TrueAnswer, int, string> Cell)> { (words[0], (a, _) => a.Name), (words[1], (a, _) => a.Question), (words[2], (a, _) => a.Text) };
        if (scored)
        {
            columns.Add((right.Item1 is "1" or "2 / 2" ? words[3] : "Correct", (a, _) => a.Share == 1 ? right.Item1 : right.Item2));
        }

        if (timed)
        {
            columns.Add((words[4], (_, i) => time.Write(MadeUpChats.From + Duration.FromMinutes(10) + Duration.FromSeconds(3 * i))));
        }

        if (mixed)
        {
            // By who answered, not by what was asked.
            answers = [.. answers.OrderBy(a => a.Name, StringComparer.Ordinal)];
        }

        // An earlier try, which does not count.
        var rows = tries ? answers.SelectMany((a, i) => i % 7 == 0 ? [a with { Text = "dunno", Share = scored ? 0 : null }, a] : new[] { a }).ToList() : answers;
        var shown = columns.ToArray();
        if (_random.Next(3) == 0)
        {
            _random.Shuffle(shown);
        }

        return new MadeUpTable(
            $"a row an answer: {string.Join(" | ", shown.Select(c => c.Heading))}, “{separator}”{(timed ? $", {time.Told}" : "")}{(scored ? $", {right.Item1}" : "")}{(tries ? ", tries" : "")}",
            Text(rows.Select((a, i) => shown.Select(c => c.Cell(a, i)).ToArray()).Prepend([.. shown.Select(c => c.Heading)]), separator), answers);
    }

    private MadeUpTable PeopleAcross(List<(string Given, string Family)> people, List<string> questions, List<TrueAnswer> answers)
    {
        var (words, separator, title) = (_random.Of(Words), _random.Of<char>([',', ';', '\t']), _random.Next(4) == 0);
        var names = people.ConvertAll(p => $"{p.Given} {p.Family}");
        var rows = questions.Select(q => names.Select(n => answers.Find(a => a.Question == q && a.Name == n)?.Text ?? "").Prepend(q).ToArray());
        return new MadeUpTable($"people across: {words[1]}, “{separator}”{(title ? ", title" : "")}", (title ? "Lesson 12, Fog and haar\n\n" : "") + Text(rows.Prepend([words[1], .. names]), separator), answers);
    }

    private MadeUpTable PartAQuestion(List<string> questions, List<TrueAnswer> answers)
    {
        var (words, separator, again, numbered) = (_random.Of(Words), _random.Of<char>([',', ';', '\t']), _random.Next(2) == 0, _random.Next(2) == 0);
        var rows = new List<string[]>();
        foreach (var (i, question) in questions.Index())
        {
            rows.Add([Titled(i, question)]);
            if (again || i == 0)
            {
                rows.Add([words[0], words[2]]);
            }

            rows.AddRange(answers.Where(a => a.Question == question).Select(a => new[] { a.Name, a.Text }));
            rows.Add([]);
        }

        return new MadeUpTable($"a part a question: {words[0]} | {words[2]}, “{separator}”{(again ? ", headings again" : "")}", Text(rows, separator), [.. answers.Select(a => a with { Question = Titled(questions.IndexOf(a.Question), a.Question) })]);

        string Titled(int i, string question) => numbered ? $"{i + 1}. {question}" : question;
    }

    private MadeUpTable Json(List<(string Given, string Family)> people, List<string> questions, List<TrueAnswer> answers, bool scored)
    {
        var (name, question, answer, form, nested) = (_random.Of<string>(["name", "student", "user.name", "who"]), _random.Of<string>(["question", "item.text", "prompt"]), _random.Of<string>(["answer", "response", "chosen", "value"]), _random.Next(4), _random.Next(2) == 0);
        IEnumerable<JsonNode> list = form switch
        {
            0 => answers.Select(a => (JsonNode)Scored(With(name, a.Name, question, a.Question, answer, a.Text), a)),
            1 => people.Select(p => $"{p.Given} {p.Family}").Select(p => With(name, p).Put("answers", new JsonArray([.. answers.Where(a => a.Name == p).Select(a => (JsonNode)Scored(With(question, a.Question, answer, a.Text), a))]))),
            2 => questions.Select(q => With(question, q).Put("responses", new JsonArray([.. answers.Where(a => a.Question == q).Select(a => (JsonNode)Scored(With(name, a.Name, answer, a.Text), a))]))),
            _ => people.Select(p => $"{p.Given} {p.Family}").Select(p => With(name, p).Put("answers", new JsonObject(answers.Where(a => a.Name == p).Select(a => KeyValuePair.Create(a.Question, (JsonNode?)a.Text))))),
        };
        var array = new JsonArray([.. list]);
        var root = nested ? (JsonNode)new JsonObject { ["quiz"] = new JsonObject { ["title"] = "Fog and haar", ["results"] = array } } : array;
        return new MadeUpTable(
            $"JSON of form {form}: {name} {question} {answer}{(nested ? ", nested" : "")}{(scored ? ", points" : "")}", Writing.Json(root),
            form == 3 ? [.. answers.Select(a => a with { Share = null })] : answers);

        JsonObject Scored(JsonObject one, TrueAnswer a)
        {
            if (scored)
            {
                one["points"] = (int)a.Share!.Value;
            }

            return one;
        }

        static JsonObject With(params string[] pairs)
        {
            var one = new JsonObject();
            foreach (var pair in pairs.Chunk(2))
            {
                one.Put(pair[0], pair[1]);
            }

            return one;
        }
    }

    private static string Text(IEnumerable<string[]> rows, char separator) => string.Join('\n', rows.Select(r => string.Join(separator, r.Select(c => Writing.Quoted(c, separator))))) + "\n";

    private static string Told(Instant at, string pattern) => at.InUtc().LocalDateTime.ToString(pattern, CultureInfo.InvariantCulture);
}
