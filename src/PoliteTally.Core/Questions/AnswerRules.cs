using System.Globalization;
using PoliteTally.Core.Names;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Questions;

/// <summary>What is an answer to a question, and what it is worth.</summary>
public static class AnswerRules
{
    /// <summary>The longest short text, in UTF-16 code units: 200.</summary>
    public const int LongestText = 200;

    /// <summary>The longest word of a word list, in UTF-16 code units: 40.</summary>
    public const int LongestWord = 40;

    private const decimal LargestNumber = 1_000_000_000_000m;

    /// <summary>The answer as it is kept: only the parts that the kind of the question has a use for, without what cannot be shown.</summary>
    public static Answer Kept(Question question, Answer answer) => question.Kind switch
    {
        QuestionKind.Scale or QuestionKind.Number => new Answer { Number = answer.Number },
        QuestionKind.ShortText => new Answer { Text = CleanText.Of(answer.Text) },
        QuestionKind.WordList => new Answer
        {
            Words = [.. answer.Words.Where(w => !CleanText.IsBlank(w)).Select(CleanText.Of).DistinctBy(NameFolding.FoldText)],
        },
        // Of options that are ticked, the order says nothing.
        QuestionKind.MultipleChoice => new Answer { Options = [.. question.Options.Select(o => o.Id).Where(answer.Options.Contains), .. answer.Options.Except(question.Options.Select(o => o.Id))] },
        _ => new Answer { Options = answer.Options },
    };

    /// <summary>Why it is no answer to the question, in plain words; null if it is one.</summary>
    public static string? WhyRefused(Question question, Answer answer)
    {
        var known = question.Options.Select(o => o.Id).ToHashSet();
        return question.Kind switch
        {
            QuestionKind.SingleChoice or QuestionKind.TrueFalse or QuestionKind.PictureChoice when answer.Options.Count != 1 => "Choose one.",
            QuestionKind.MultipleChoice when answer.Options.Count == 0 => "Choose at least one.",
            QuestionKind.Ranking when answer.Options.Count != known.Count => "Put all of them in order.",
            _ when question.TakesOptions && (!answer.Options.All(known.Contains) || answer.Options.Distinct().Count() < answer.Options.Count) =>
                "This is not one of the choices.",
            QuestionKind.Scale when answer.Number is not { } step || step != decimal.Truncate(step) || step < question.ScaleFrom || step > question.ScaleTo =>
                $"Choose a step from {question.ScaleFrom} to {question.ScaleTo}.",
            QuestionKind.Number when answer.Number is null => "Write a number.",
            QuestionKind.Number when Math.Abs(answer.Number!.Value) > LargestNumber => "This number is too large.",
            QuestionKind.ShortText when CleanText.IsBlank(answer.Text) => "Write a few words.",
            QuestionKind.ShortText when answer.Text.Length > LongestText => TooLong(LongestText),
            QuestionKind.WordList when answer.Words.All(CleanText.IsBlank) => "Write at least one word.",
            QuestionKind.WordList when answer.Words.Count > question.WordsEach => $"At most {Words.Count(question.WordsEach, "word")}.",
            QuestionKind.WordList when answer.Words.Any(w => w.Length > LongestWord) => $"A word may have {LongestWord} characters.",
            _ => null,
        };
    }

    /// <summary>The marks possible in a question: 1 in a quiz that has a key or is marked by hand, 0 in a poll and in a scale without a target.</summary>
    public static decimal Possible(Question question) => question switch
    {
        { Purpose: QuestionPurpose.Poll } or { Anonymous: true } or { Kind: QuestionKind.WordList } or { Kind: QuestionKind.Scale, Target: null } => 0,
        _ => 1,
    };

    /// <summary>
    /// The marks of an answer, from 0 to 1; null if it has none: in a poll, and while a short text that equals no accepted answer waits for the
    /// teacher. Multiple choice: <c>max(0, right ticked − wrong ticked) / number right</c>, or all or nothing. Ranking: <c>(τ + 1) / 2</c> with the τ
    /// of M. G. Kendall, “A new measure of rank correlation”, Biometrika 30 (1938), without ties.
    /// </summary>
    /// <param name="question">The question, with its key.</param>
    /// <param name="answer">The answer.</param>
    /// <param name="byHand">The mark that the teacher gave, from 0 to 1; it wins.</param>
    public static decimal? MarksOf(Question question, Answer answer, decimal? byHand = null)
    {
        if (Possible(question) == 0)
        {
            return null;
        }

        if (byHand is { } given)
        {
            return given;
        }

        var right = question.Options.Where(o => o.Right).Select(o => o.Id).ToHashSet();
        return question.Kind switch
        {
            QuestionKind.MultipleChoice when question.AllOrNothing => right.SetEquals(answer.Options) ? 1 : 0,
            QuestionKind.MultipleChoice =>
                Math.Max(0m, answer.Options.Count(right.Contains) - answer.Options.Count(o => !right.Contains(o))) / right.Count,
            QuestionKind.Number or QuestionKind.Scale => Math.Abs(answer.Number!.Value - question.Target!.Value) <= question.Tolerance ? 1 : 0,
            QuestionKind.Ranking => (Kendall([.. question.Options.Select(o => o.Id)], answer.Options) + 1) / 2,
            QuestionKind.ShortText => question.AcceptedAnswers.Any(a => NameFolding.FoldText(a) == NameFolding.FoldText(answer.Text)) ? 1 : null,
            _ => answer.Options.All(right.Contains) ? 1 : 0,
        };
    }

    // Pairs in the right order less pairs in the wrong one, over all pairs.
    private static decimal Kendall(List<Guid> right, IReadOnlyList<Guid> given)
    {
        var places = given.Select(o => right.IndexOf(o)).ToList();
        var balance = 0;
        for (var i = 0; i < places.Count; i++)
        {
            for (var j = i + 1; j < places.Count; j++)
            {
                balance += Math.Sign(places[j] - places[i]);
            }
        }

        return balance / (places.Count * (places.Count - 1) / 2m);
    }

    private static string TooLong(int longest) => $"An answer may have {longest.ToString(CultureInfo.InvariantCulture)} characters.";
}
