using F23.StringSimilarity;
using PoliteTally.Core.Names;

namespace PoliteTally.Core.Questions;

/// <summary>How many chose an option, a step of a scale or a number.</summary>
/// <param name="Option">The option; null for a step or a number.</param>
/// <param name="Number">The step or the number; null for an option.</param>
/// <param name="Count">How many; null if it is held back.</param>
public sealed record AnswerCount(Guid? Option, decimal? Number, int? Count);

/// <summary>Where an option of a ranking was put.</summary>
/// <param name="Option">The option.</param>
/// <param name="MeanPlace">The mean of its places, from 1.</param>
/// <param name="Places">How often it was put at each place, the first place first.</param>
public sealed record RankedOption(Guid Option, decimal MeanPlace, IReadOnlyList<int> Places);

/// <summary>A word and how many gave it, in any spelling.</summary>
/// <param name="Folded">The word, folded.</param>
/// <param name="Word">The spelling given most often.</param>
/// <param name="Count">How many students gave it.</param>
/// <param name="With">Other words that were merged into it, folded.</param>
public sealed record WordCount(string Folded, string Word, int Count, IReadOnlyList<string> With);

/// <summary>Short texts that are alike.</summary>
/// <param name="Text">The one given most often.</param>
/// <param name="Texts">All spellings, each once.</param>
/// <param name="Students">Who gave them; empty without names.</param>
/// <param name="Count">How many gave them.</param>
public sealed record AlikeTexts(string Text, IReadOnlyList<string> Texts, IReadOnlyList<Guid> Students, int Count);

/// <summary>What answers to a question amount to.</summary>
/// <param name="Answered">How many answered; null if it would say what is held back.</param>
/// <param name="Counts">Of choices, scales and numbers.</param>
/// <param name="Ranking">Of rankings, the best place first.</param>
/// <param name="Words">Of word lists, the most frequent first.</param>
/// <param name="Texts">Of short texts, the most frequent first.</param>
public sealed record QuestionResults(
    int? Answered, IReadOnlyList<AnswerCount> Counts, IReadOnlyList<RankedOption> Ranking, IReadOnlyList<WordCount> Words,
    IReadOnlyList<AlikeTexts> Texts)
{
    /// <summary>Counts below this can be held back. 3.</summary>
    public const int Few = 3;

    /// <summary>Two short texts are alike from this similarity on, from 0 to 1. 0.75.</summary>
    public const double AlikeFrom = 0.75;

    // The edit distance (V. I. Levenshtein, 1966) over the longer length, from 1 down.
    private static readonly NormalizedLevenshtein Likeness = new();

    /// <summary>The results of a question as they stand; without any for an anonymous question that is open, or that too few answered.</summary>
    public static QuestionResults Of(Asking asking)
    {
        var question = asking.Question;
        if (question.Anonymous)
        {
            var withoutNames = asking.Ballots.Select(a => (Guid.Empty, a)).ToList();
            return Of(question, withoutNames, asking.Merged) with { Answered = asking.BallotsCast };
        }

        return Of(question, [.. asking.Answers.OrderBy(a => a.Value.At).Select(a => (a.Key, a.Value.Answer))], asking.Merged);
    }

    /// <summary>
    /// The same with counts from 1 to 2 held back, and with them the sum, which would give them away. Words and texts so few gave are left out.
    /// </summary>
    public QuestionResults HoldingBackFew()
    {
        var held = Counts.Any(c => c.Count is > 0 and < Few) || Words.Any(w => w.Count < Few) || Texts.Any(t => t.Count < Few);
        return !held ? this : this with
        {
            Answered = null,
            Counts = [.. Counts.Select(c => c.Count is > 0 and < Few ? c with { Count = null } : c).Where(c => c.Option is not null || c.Count is not null)],
            Words = [.. Words.Where(w => w.Count >= Few)],
            Texts = [.. Texts.Where(t => t.Count >= Few)],
        };
    }

    private static QuestionResults Of(Question question, List<(Guid Student, Answer Answer)> answers, IReadOnlyDictionary<string, string> merged) => new(
        answers.Count,
        question.Kind switch
        {
            QuestionKind.SingleChoice or QuestionKind.MultipleChoice or QuestionKind.TrueFalse or QuestionKind.PictureChoice =>
                [.. question.Options.Select(o => new AnswerCount(o.Id, null, answers.Count(a => a.Answer.Options.Contains(o.Id))))],
            QuestionKind.Scale =>
                [.. Enumerable.Range(question.ScaleFrom, question.ScaleTo - question.ScaleFrom + 1)
                    .Select(step => new AnswerCount(null, step, answers.Count(a => a.Answer.Number == step)))],
            QuestionKind.Number =>
                [.. answers.GroupBy(a => a.Answer.Number!.Value).OrderBy(g => g.Key).Select(g => new AnswerCount(null, g.Key, g.Count()))],
            _ => [],
        },
        question.Kind == QuestionKind.Ranking && answers.Count > 0 ? Ranked(question, answers) : [],
        question.Kind == QuestionKind.WordList ? Counted(answers, merged) : [],
        question.Kind == QuestionKind.ShortText ? Grouped(answers) : []);

    private static IReadOnlyList<RankedOption> Ranked(Question question, List<(Guid Student, Answer Answer)> answers) =>
    [
        .. question.Options.Select(option =>
        {
            var places = new int[question.Options.Count];
            foreach (var (_, answer) in answers)
            {
                places[answer.Options.ToList().IndexOf(option.Id)]++;
            }

            return new RankedOption(option.Id, places.Select((count, place) => count * (place + 1m)).Sum() / answers.Count, places);
        }).OrderBy(r => r.MeanPlace),
    ];

    private static IReadOnlyList<WordCount> Counted(List<(Guid Student, Answer Answer)> answers, IReadOnlyDictionary<string, string> merged)
    {
        // Each student counts once for a word, however many spellings of it they gave.
        var given = answers.SelectMany((a, i) => a.Answer.Words.Select(word => (Student: i, Word: word, Folded: NameFolding.FoldText(word))))
            .Select(g => (g.Student, g.Word, g.Folded, Into: IntoOf(g.Folded, merged)));
        return
        [
            .. given.GroupBy(g => g.Into)
                .Select(g => new WordCount(
                    g.Key, Commonest(g.Where(w => w.Folded == g.Key).DefaultIfEmpty(g.First()).Select(w => w.Word)), g.Select(w => w.Student).Distinct().Count(),
                    [.. g.Select(w => w.Folded).Where(f => f != g.Key).Distinct().Order(StringComparer.Ordinal)]))
                .OrderByDescending(w => w.Count).ThenBy(w => w.Folded, StringComparer.Ordinal),
        ];
    }

    // Merged into a word that was merged itself: the end of the chain, or a word of a ring that somebody made.
    private static string IntoOf(string word, IReadOnlyDictionary<string, string> merged)
    {
        for (var steps = 0; steps < 100 && merged.TryGetValue(word, out var into) && into != word; steps++)
        {
            word = into;
        }

        return word;
    }

    private static IReadOnlyList<AlikeTexts> Grouped(List<(Guid Student, Answer Answer)> answers)
    {
        var groups = new List<List<(Guid Student, string Text, string Folded)>>();
        var spellings = answers.Select(a => (a.Student, a.Answer.Text, Folded: NameFolding.FoldText(a.Answer.Text)))
            .GroupBy(a => a.Folded).OrderByDescending(g => g.Count()).ThenBy(g => g.Key, StringComparer.Ordinal);
        foreach (var same in spellings)
        {
            var alike = groups.FirstOrDefault(g => Likeness.Similarity(g[0].Folded, same.Key) >= AlikeFrom);
            if (alike is null)
            {
                groups.Add(alike = []);
            }

            alike.AddRange(same);
        }

        return
        [
            .. groups.Select(g => new AlikeTexts(
                    Commonest(g.Select(a => a.Text)), [.. g.Select(a => a.Text).Distinct(StringComparer.Ordinal)],
                    [.. g.Select(a => a.Student).Where(s => s != Guid.Empty)], g.Count))
                .OrderByDescending(g => g.Count).ThenBy(g => g.Text, StringComparer.Ordinal),
        ];
    }

    // Of those that are as common, the one that shouts least.
    private static string Commonest(IEnumerable<string> spellings) => spellings.GroupBy(s => s, StringComparer.Ordinal)
        .OrderByDescending(g => g.Count()).ThenBy(g => g.Key.Count(char.IsUpper)).ThenBy(g => g.Key, StringComparer.Ordinal).First().Key;
}
