using System.Globalization;
using NodaTime;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>A question that was asked in a lesson.</summary>
/// <param name="Lesson">The id of the lesson.</param>
/// <param name="Number">Its number in the class.</param>
/// <param name="Day">Its day.</param>
/// <param name="Asking">The question with its answers.</param>
/// <param name="Figures">How hard it was, and how well it told apart.</param>
/// <param name="Went">To how many it went: of those it was for, whoever was there or answered.</param>
public sealed record AskedQuestion(Guid Lesson, int Number, LocalDate Day, Asking Asking, ItemFigures Figures, int Went)
{
    /// <summary>The questions of a lesson, in the order in which they were asked.</summary>
    /// <param name="lesson">The id of the lesson.</param>
    /// <param name="number">Its number in the class.</param>
    /// <param name="day">Its day.</param>
    /// <param name="state">What its entries amount to.</param>
    /// <param name="roster">Who belongs to it, each with whether they were there.</param>
    public static IEnumerable<AskedQuestion> In(Guid lesson, int number, LocalDate day, LessonState state, IReadOnlyCollection<(Guid Student, bool WasThere)> roster)
    {
        var marked = state.Questions.All.Where(a => !a.Question.Anonymous && a.Answers.Keys.Any(s => a.MarksOf(s) is not null)).ToList();
        return state.Questions.All.Select(a => new AskedQuestion(
            lesson, number, day, a, ItemFigures.Of(a, marked),
            roster.Count(s => a.GoesTo(s.Student, state.Groups) && (s.WasThere || a.Answers.ContainsKey(s.Student) || a.TookPart.Contains(s.Student)))));
    }
}

/// <summary>Each question: what was answered, how hard it was, and how well it told those who know from those who do not.</summary>
/// <param name="Questions">The questions, in the order in which they were asked.</param>
/// <param name="Called">What a student is called in it; null to name nobody.</param>
public sealed record QuestionReport(IReadOnlyList<AskedQuestion> Questions, Func<Guid, string>? Called)
{
    private const decimal TellsWell = 0.3m;
    private const decimal TellsWrong = -0.2m;
    private const int LongestLabel = 44;

    /// <summary>The report.</summary>
    /// <param name="about">The line above the title.</param>
    public Document Written(string about) => new("Questions", about, [new("", [.. Summary()]), .. Overview(), .. Questions.Select(Section)]);

    /// <summary>The section of one question.</summary>
    public Section Section(AskedQuestion asked)
    {
        var results = ResultsOf(asked.Asking);
        return new Section(
            $"Lesson {asked.Number}: {asked.Asking.Question.Text}", [.. Says(asked).Select(s => s with { Opens = new Opens(Lesson: asked.Lesson) })], Bars(results, asked.Asking), Figures(results, asked.Asking));
    }

    private sealed record Result(string Answer, int Count, decimal? Marks, IReadOnlyList<Guid> Students);

    private IEnumerable<Sentence> Summary()
    {
        if (Questions.Count == 0)
        {
            yield return "No question was asked in the settled lessons of these days.";
            yield break;
        }

        var (went, answered) = (Questions.Sum(q => q.Went), Questions.Sum(q => AnsweredIn(q.Asking)));
        yield return $"{Words.Capital(Words.Several(Questions.Count, "question"))} {(Questions.Count == 1 ? "was" : "were")} asked in {Words.Several(Questions.Select(q => q.Lesson).Distinct().Count(), "lesson")}, and {(went == 0 ? "nobody" : Words.Percent((decimal)answered / went))} of those asked answered.";
        var marked = Questions.Where(q => q.Figures.ShareRight is not null).ToList();
        if (marked.Count > 1)
        {
            var (hardest, easiest) = (marked.MinBy(q => q.Figures.ShareRight)!, marked.MaxBy(q => q.Figures.ShareRight)!);
            yield return $"The hardest was “{hardest.Asking.Question.Text}” with {Words.Percent(hardest.Figures.ShareRight!.Value)} right, the easiest “{easiest.Asking.Question.Text}” with {Words.Percent(easiest.Figures.ShareRight!.Value)}.";
        }
    }

    private IEnumerable<Section> Overview()
    {
        if (Questions.Count < 2)
        {
            return [];
        }

        return
        [
            new("All of them", [], null, new Figures(
                "All questions", ["Question", "Lesson", "Answered", "Right", "Tells apart"],
                [
                    .. Questions.Select(q => new FigureRow(
                    [
                        q.Asking.Question.Text, q.Number, $"{AnsweredIn(q.Asking)} of {q.Went}",
                        q.Figures.ShareRight is { } right ? new FigureCell(Words.Percent(right), Math.Round(right, 4)) : "", q.Figures.Tells is { } tells ? new FigureCell(Two(tells) + (q.Figures.IsOfFew ? ", of few" : ""), Math.Round(tells, 4)) : "",
                    ])),
                ])),
        ];
    }

    private static string Two(decimal value) => value.ToString("0.00", CultureInfo.InvariantCulture);

    private static int AnsweredIn(Asking asking) => asking.Question.Anonymous ? asking.BallotsCast : asking.Answers.Count;

    private IEnumerable<Sentence> Says(AskedQuestion asked)
    {
        var (asking, figures) = (asked.Asking, asked.Figures);
        yield return $"{AnsweredIn(asking)} of {asked.Went} answered{(asking.Question.Anonymous ? ", without names" : "")}.";
        if (asking.Question.Anonymous && asking.BallotsCast is > 0 and < Asking.FewestAnonymous)
        {
            yield return "So few would say who said what: their answers were not kept.";
        }

        if (figures.ShareRight is { } right)
        {
            yield return $"{Words.Percent(right)} had it right.";
        }

        if (figures.Tells is { } tells)
        {
            yield return (tells <= TellsWrong ? $"Those who knew the other answers had this one wrong more often ({Two(tells)}): look at its key and its wording."
                    : tells < TellsWell ? $"It hardly tells those who know from those who do not ({Two(tells)})."
                    : $"It tells those who know from those who do not ({Two(tells)}).")
                + (figures.IsOfFew ? $" With {figures.Answers} answers that is little to go by." : "");
        }

        if (asking.CopyOf is { } before && Questions.FirstOrDefault(q => q.Asking.Id == before || q.Asking.Question.Id == before) is { } first)
        {
            yield return first.Figures.ShareRight is { } was && figures.ShareRight is { } now
                ? $"Asked before in lesson {first.Number}: {Words.Percent(was)} right then, {Words.Percent(now)} now."
                : $"Asked before in lesson {first.Number}, where {AnsweredIn(first.Asking)} answered.";
        }

        if (asking.Corrections.Count > 0)
        {
            yield return $"Its key was put right {Words.Times(asking.Corrections.Count)}.";
        }
    }

    private static List<Result> ResultsOf(Asking asking)
    {
        var question = asking.Question;
        if (question.Anonymous)
        {
            return [.. asking.Ballots.GroupBy(b => b.InWords(question)).Select(g => new Result(g.Key, g.Count(), null, [])).OrderByDescending(r => r.Count).ThenBy(r => r.Answer, StringComparer.Ordinal)];
        }

        var given = asking.Answers.Select(a => (Student: a.Key, Words: a.Value.Answer.InWords(question), Marks: asking.MarksOf(a.Key))).GroupBy(a => a.Words)
            .Select(g => new Result(g.Key, g.Count(), g.Max(a => a.Marks), [.. g.Select(a => a.Student).Order()])).ToList();
        // Options that nobody chose say something, too.
        var chosen = given.Select(g => g.Answer).ToHashSet();
        var unchosen = question.Kind is QuestionKind.SingleChoice or QuestionKind.TrueFalse ? question.Options.Select(o => new Answer { Options = [o.Id] }.InWords(question)).Where(o => !chosen.Contains(o)) : [];
        return [.. given.Concat(unchosen.Select(o => new Result(o, 0, null, []))).OrderByDescending(r => r.Count).ThenBy(r => r.Answer, StringComparer.Ordinal)];
    }

    private static Drawing? Bars(List<Result> results, Asking asking)
    {
        if (results.Count is 0 or > 12 || results.All(r => r.Count == 0))
        {
            return null;
        }

        const decimal left = 210, row = 15;
        var (sketch, most) = (new Sketch(Sketch.PageWidth), results.Max(r => r.Count));
        for (var i = 0; i < results.Count; i++)
        {
            var (result, y) = (results[i], (row * i) + 11);
            var right = result.Marks == 1;
            sketch.Words(Pen.Ink, left - 8, y, Words.Cut(result.Answer, LongestLabel), 8.5m, Side.End, right);
            if (result.Count > 0)
            {
                sketch.Line(right || asking.Question.Anonymous || result.Marks is null ? Pen.Questions : Pen.Soft, left, y - 3, left + ((Sketch.PageWidth - left - 60) * result.Count / most), y - 3, right ? 6 : 3.5m);
            }

            sketch.Words(Pen.Ink, left + ((Sketch.PageWidth - left - 60) * result.Count / most) + 8, y, $"{result.Count}{(right ? ", right" : "")}", 8.5m, bold: right);
        }

        return sketch.Done($"Answers to “{asking.Question.Text}”: {string.Join(", ", results.Select(r => $"{r.Answer} {r.Count}"))}.", (row * results.Count) + 4);
    }

    private Figures Figures(List<Result> results, Asking asking)
    {
        var named = Called is not null && !asking.Question.Anonymous;
        return new Figures(
            asking.Question.Text, ["Answer", "How many", "Marks", .. named ? ["Who"] : Array.Empty<string>()],
            [
                .. results.Select(r => new FigureRow(
                [
                    r.Answer, r.Count, FigureCell.Of(r.Marks), .. named ? [string.Join(", ", r.Students.Select(s => Called!(s)).Order(StringComparer.Ordinal))] : Array.Empty<FigureCell>(),
                ])),
            ],
            Fold: true);
    }
}
