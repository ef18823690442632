using PoliteTally.Core.Names;

namespace PoliteTally.Core.Questions;

/// <summary>An answer as a file has it.</summary>
/// <param name="Text">The words of it.</param>
/// <param name="Share">How much of the points it got, from 0 to 1; null if the file has no points.</param>
public readonly record struct AnswerWritten(string Text, decimal? Share = null);

/// <summary>Makes a question of the answers that a file has to it, where nobody prepared one: its kind by how they are written, its key by what got points.</summary>
/// <param name="idOf">An id for words, the same for the same words.</param>
public sealed class QuestionGuess(Func<string, Guid> idOf)
{
    // Of a choice, each option is chosen by more than one on average.
    private const int ChosenOnAverage = 2;

    /// <summary>Makes the question.</summary>
    /// <param name="text">The question as the file has it.</param>
    /// <param name="answers">The answers to it, without empty ones.</param>
    /// <param name="right">The right answers as far as somebody says so; empty to guess by points.</param>
    /// <param name="anonymous">Whether the answers have no names.</param>
    public Question Of(string text, IReadOnlyList<AnswerWritten> answers, IReadOnlyList<string> right, bool anonymous = false)
    {
        var kind = KindOf(answers);
        var key = anonymous ? [] : right.Count > 0 ? right.Select(Folded).ToHashSet() : ByPoints(answers, kind);
        var distinct = Parts(kind, answers.Select(a => a.Text).Concat(right)).DistinctBy(Folded).ToList();
        // Whoever reads them in another order, or with one more of them, has the same options.
        var options = kind is QuestionKind.SingleChoice or QuestionKind.MultipleChoice or QuestionKind.TrueFalse
            ? distinct.OrderBy(Folded, StringComparer.Ordinal).Select(o => new QuestionOption(idOf($"{text}\n{Folded(o)}"), o, key.Contains(Folded(o)))).ToList()
            : [];
        var question = new Question { Id = idOf(text), Kind = kind, Text = text, Options = options, Anonymous = anonymous };
        // Points that follow no key were given by somebody: they are the marks, whatever the words are.
        if (key.Count == 0 && !anonymous && answers.Any(a => a.Share is not null))
        {
            return AsText(question with { Purpose = QuestionPurpose.Quiz }, distinct, key);
        }

        var quiz = key.Count == 0 ? question : question with
        {
            Purpose = QuestionPurpose.Quiz,
            Target = kind == QuestionKind.Number ? distinct.Where(d => key.Contains(Folded(d))).Select(AnswerReading.NumberIn).FirstOrDefault() : null,
            AcceptedAnswers = kind == QuestionKind.ShortText ? [.. distinct.Where(d => key.Contains(Folded(d))).Take(50)] : [],
        };
        return QuestionRules.Missing(quiz).Any() ? AsText(quiz, distinct, key) : quiz;
    }

    /// <summary>The right answers as the points of the file tell; empty if they do not.</summary>
    private static HashSet<string> ByPoints(IReadOnlyList<AnswerWritten> answers, QuestionKind kind)
    {
        var full = answers.Where(a => a.Share == 1).ToList();
        var less = answers.Where(a => a.Share < 1).SelectMany(a => kind == QuestionKind.MultipleChoice ? [] : new[] { Folded(a.Text) }).ToHashSet();
        var key = Parts(kind, full.Select(a => a.Text)).Select(Folded).ToHashSet();
        // What got all points once and less another time was marked by somebody, not by a key.
        return key.Overlaps(less) ? [] : key;
    }

    // What fits no choice is a text: right is what is among the accepted answers, or what the file gave points for.
    private static Question AsText(Question question, IReadOnlyList<string> distinct, HashSet<string> key) => question with
    {
        Kind = QuestionKind.ShortText,
        Options = [],
        AcceptedAnswers = [.. distinct.Where(d => key.Contains(Folded(d))).Take(50)],
    };

    private static QuestionKind KindOf(IReadOnlyList<AnswerWritten> answers)
    {
        var texts = answers.Select(a => a.Text).ToList();
        if (texts.Count == 0 || texts.Exists(t => t.Length > Question.LongestOption))
        {
            return QuestionKind.ShortText;
        }

        var distinct = texts.Select(Folded).Distinct().Count();
        if (texts.TrueForAll(t => AnswerReading.Truth(t) is not null) && distinct == 2)
        {
            return QuestionKind.TrueFalse;
        }

        if (texts.TrueForAll(t => AnswerReading.NumberIn(t) is not null))
        {
            return QuestionKind.Number;
        }

        var parts = texts.ConvertAll(AnswerReading.PartsOf);
        var partsDistinct = parts.SelectMany(p => p).Select(Folded).Distinct().Count();
        return parts.Exists(p => p.Count > 1) && partsDistinct is >= 2 and <= Question.MostOptions && partsDistinct < distinct && texts.Count >= ChosenOnAverage * partsDistinct ? QuestionKind.MultipleChoice
            : distinct is >= 2 and <= Question.MostOptions && texts.Count >= ChosenOnAverage * distinct ? QuestionKind.SingleChoice
            : QuestionKind.ShortText;
    }

    private static IEnumerable<string> Parts(QuestionKind kind, IEnumerable<string> texts) =>
        kind == QuestionKind.MultipleChoice ? texts.SelectMany(AnswerReading.PartsOf) : texts;

    private static string Folded(string text) => NameFolding.FoldText(text);
}
