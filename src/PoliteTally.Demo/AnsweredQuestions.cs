using NodaTime;
using PoliteTally.Core.Questions;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Demo;

/// <summary>What the class answered: without names in lesson 5, in the quiz of lesson 10, on the page and in the school's form in lesson 13, and in the lesson that is going on.</summary>
internal static class AnsweredQuestions
{
    private const int Seed = 51_014;

    public static void Tell(DemoClass weather, IReadOnlyList<DemoLesson> lessons, DateTimeZone zone)
    {
        var random = new Random(Seed);
        DemoLesson Lesson(int number) => lessons.Single(l => l.Lesson.ClassId == weather.Class.Id && l.Lesson.Number == number);
        WithoutNames(Lesson(5), weather, random);
        Quiz(Lesson(10), weather, random);
        Today(Lesson(14), weather, random);
        LookingBack(Lesson(13), weather, random, zone);
    }

    /// <summary>The first question is answered on the page, and all three in a form into which students type their name. Dewi thought again meanwhile.</summary>
    private static void LookingBack(DemoLesson lesson, DemoClass weather, Random random, DateTimeZone zone)
    {
        var questions = PlanJson.Of(lesson.Lesson).Questions;
        var asking = lesson.Script.Open(41, questions[0]);
        var there = weather.Students.Where(s => s.Given is not ("Ingvild" or "Eino")).ToList();
        List<FilledForm> forms = [];
        foreach (var (student, i) in there.Select((s, i) => (s, i)))
        {
            var (first, changes) = (AnswerTo(questions[0], random.NextDouble() < 0.7, random), student.Given == "Dewi");
            if (student.Given is not ("Birkir" or "Zainab" or "Wojtek"))
            {
                lesson.Script.Page(41.2 + (random.NextDouble() * 1.2), new AnswerGiven(student.Id, asking, changes ? new Answer { Options = [questions[0].Options[0].Id] } : first));
            }

            var (second, third) = (AnswerTo(questions[1], random.NextDouble() < 0.8, random), AnswerTo(questions[2], random.NextDouble() < 0.6, random));
            forms.Add(new FilledForm(
                lesson.Script.At(44.5 + (random.NextDouble() * 4)), TypedName(student, i),
                [(changes ? new Answer { Options = [questions[0].Options[1].Id] } : first).InWords(questions[0]), second.InWords(questions[1]), $"{third.InWords(questions[2])}{(i % 5 == 0 ? " tides" : "")}"]));
        }

        lesson.Script.Tap(42.8, new QuestionClosed(asking));
        lesson.Waiting.Add(WaitingFiles.Answers(lesson.Lesson.Number, questions, forms, zone));
    }

    // Whoever types their own name does not look it up.
    private static string TypedName(Student student, int place)
    {
        var whole = $"{student.Preferred ?? student.Given} {student.Family}";
        return (place % 4) switch
        {
            0 => whole.ToLowerInvariant(),
            1 => $"{student.Given} {student.Family}",
            _ => whole,
        };
    }

    private static void WithoutNames(DemoLesson lesson, DemoClass weather, Random random)
    {
        var asking = lesson.Script.Open(1.2, PlanJson.Of(lesson.Lesson).Questions[0]);
        foreach (var student in weather.Students.Where(_ => random.NextDouble() < 0.9))
        {
            lesson.Script.Ballot(1.4 + (random.NextDouble() * 2), asking, student, new Answer { Number = random.Next(2, 6) });
        }

        lesson.Script.Tap(3.8, new QuestionClosed(asking));
    }

    /// <summary>Six questions. Birkir knows them all, Barney guesses, Ingvild is excused from the one with a time.</summary>
    private static void Quiz(DemoLesson lesson, DemoClass weather, Random random)
    {
        foreach (var (question, i) in PlanJson.Of(lesson.Lesson).Questions.Select((q, i) => (q, i)))
        {
            var minute = 11 + (i * 4.0);
            var asking = lesson.Script.Open(minute, question);
            foreach (var student in weather.Students)
            {
                if (question.TimeLimit is not null && student.Given == "Ingvild")
                {
                    lesson.Script.Tap(minute + 0.1, new CannotAnswer(student.Id, asking));
                }
                else if (random.NextDouble() < (student.Given == "Wojtek" ? 0.4 : 0.95))
                {
                    var knows = student.Given == "Birkir" || random.NextDouble() < (student.Given == "Barney" ? 0.35 : 0.78);
                    lesson.Script.Page(minute + 0.2 + (random.NextDouble() * 0.7), new AnswerGiven(student.Id, asking, AnswerTo(question, knows, random)));
                }
            }

            lesson.Script.Tap(minute + 1.6, new QuestionClosed(asking));
        }
    }

    /// <summary>One question is answered and closed; the others wait.</summary>
    private static void Today(DemoLesson lesson, DemoClass weather, Random random)
    {
        var question = PlanJson.Of(lesson.Lesson).Questions[0];
        var asking = lesson.Script.Open(19.2, question);
        foreach (var student in weather.Students.Where(s => s.Given is not ("Wojtek" or "Ingvild" or "Eino") && random.NextDouble() < 0.9))
        {
            lesson.Script.Page(19.4 + (random.NextDouble() * 1.2), new AnswerGiven(student.Id, asking, AnswerTo(question, random.NextDouble() < 0.75, random)));
        }

        lesson.Script.Tap(21, new QuestionClosed(asking));
    }

    private static Answer AnswerTo(Question question, bool knows, Random random)
    {
        var options = question.Options.Select(o => o.Id).ToArray();
        switch (question.Kind)
        {
            case QuestionKind.Number:
                // As far off as one guesses.
                var spread = Math.Max(6, (int)(question.Target!.Value / 12));
                return new Answer { Number = knows ? question.Target : question.Target + random.Next(-spread, spread) };
            case QuestionKind.ShortText:
                string[] guesses = ["isotherms", "isobar lines", "pressure lines", "ice bars", "contours"];
                return new Answer { Text = knows ? question.AcceptedAnswers[random.Next(question.AcceptedAnswers.Count)] : guesses[random.Next(guesses.Length)] };
            case QuestionKind.Ranking:
                var order = options.ToList();
                if (!knows)
                {
                    var at = random.Next(order.Count - 1);
                    (order[at], order[at + 1]) = (order[at + 1], order[at]);
                }

                return new Answer { Options = order };
            case QuestionKind.MultipleChoice when knows:
                return new Answer { Options = [.. question.Options.Where(o => o.Right).Select(o => o.Id)] };
            default:
                return new Answer { Options = [knows ? question.Options.First(o => o.Right).Id : options[random.Next(options.Length)]] };
        }
    }
}
