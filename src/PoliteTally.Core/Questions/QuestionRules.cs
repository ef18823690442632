using System.Text.RegularExpressions;
using NodaTime;

namespace PoliteTally.Core.Questions;

/// <summary>What makes a question one that can be stored, and one that is ready to be opened.</summary>
public static partial class QuestionRules
{
    /// <summary>
    /// The names in braces in a question and its options, in order, each once: blanks that are filled in during the lesson,
    /// such as "{the first reading}".
    /// </summary>
    public static IReadOnlyList<string> Placeholders(Question question) =>
        [.. Braces().Matches(string.Join('\n', question.Options.Select(o => o.Text).Prepend(question.Text)))
            .Select(m => m.Groups[1].Value.Trim()).Where(name => name.Length > 0).Distinct(StringComparer.Ordinal)];

    /// <summary>What keeps a question from being stored at all; empty if nothing does. A draft may lack anything.</summary>
    public static IEnumerable<string> Problems(Question question)
    {
        if (question.Text.Length > Question.LongestText)
        {
            yield return $"A question may have {Question.LongestText:N0} characters; this one has {question.Text.Length:N0}.";
        }

        if (question.Options.Count > Question.MostOptions)
        {
            yield return $"A question may have {Question.MostOptions} options; this one has {question.Options.Count}.";
        }

        if (question.Options.Any(o => o.Text.Length > Question.LongestOption || o.AlternativeText.Length > Question.LongestOption)
            || question.AcceptedAnswers.Any(a => a.Length > Question.LongestOption)
            || question.ScaleFromLabel.Length > Question.LongestOption || question.ScaleToLabel.Length > Question.LongestOption)
        {
            yield return $"An option, an answer or a label may have {Question.LongestOption} characters.";
        }

        if (question.AcceptedAnswers.Count > 50)
        {
            yield return "A question may have 50 accepted answers.";
        }

        if (question.Kind == QuestionKind.Scale && question.ScaleTo - question.ScaleFrom is < 1 or > 10)
        {
            yield return "A scale has from 2 to 11 steps.";
        }

        if (question.Tolerance < 0)
        {
            yield return "A tolerance is 0 or more.";
        }

        if (question.WordsEach is < 1 or > 10)
        {
            yield return "A word list takes from 1 to 10 words of each student.";
        }

        if (question.TimeLimit is { } limit && (limit < Duration.FromSeconds(5) || limit > Duration.FromSeconds(3600)))
        {
            yield return "A time limit lies between 5 s and 60 min.";
        }
    }

    /// <summary>What a question still lacks before it can be opened, in plain words; empty if it is ready.</summary>
    public static IEnumerable<string> Missing(Question question)
    {
        if (string.IsNullOrWhiteSpace(question.Text))
        {
            yield return "it asks nothing yet";
        }

        if (question.TakesOptions)
        {
            if (question.Options.Count < 2)
            {
                yield return "it needs two options at least";
            }

            if (question.Kind == QuestionKind.PictureChoice)
            {
                if (question.Options.Any(o => o.Picture is null))
                {
                    yield return "an option has no picture";
                }
                else if (question.Options.Any(o => string.IsNullOrWhiteSpace(o.AlternativeText)))
                {
                    yield return "a picture has no words for those who cannot see it";
                }
            }
            else if (question.Options.Any(o => string.IsNullOrWhiteSpace(o.Text)))
            {
                yield return "an option is empty";
            }
            else if (question.Options.Select(o => o.Text.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() < question.Options.Count)
            {
                yield return "two options are the same";
            }
        }

        if (question.Purpose == QuestionPurpose.Quiz)
        {
            if (question.Anonymous)
            {
                yield return "a quiz cannot be anonymous: marks need names";
            }

            if (LacksKey(question) is { } lack)
            {
                yield return lack;
            }
        }
    }

    // A ranking holds its right order; short text without accepted answers is marked by hand; a scale without target has no marks.
    private static string? LacksKey(Question question) => question.Kind switch
    {
        QuestionKind.SingleChoice or QuestionKind.TrueFalse or QuestionKind.PictureChoice when question.Options.Count(o => o.Right) != 1 =>
            "exactly one option must be marked as right",
        QuestionKind.MultipleChoice when !question.Options.Any(o => o.Right) => "at least one option must be marked as right",
        QuestionKind.Number when question.Target is null => "the right number is missing",
        QuestionKind.WordList => "a word list has no right answer, so it is a poll",
        _ => null,
    };

    [GeneratedRegex(@"\{([^{}\n]{1,60})\}")]
    private static partial Regex Braces();
}
