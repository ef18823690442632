using System.Globalization;
using System.Text.RegularExpressions;
using F23.StringSimilarity;
using PoliteTally.Core.Names;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Questions;

/// <summary>Reads answers as other programs write them: the words of an option or its letter, several in one cell, numbers with a unit.</summary>
public static partial class AnswerReading
{
    /// <summary>Words are those of an option from this similarity on, from 0 to 1: 0.85, a slip in a short word.</summary>
    public const double AlikeFrom = 0.85;

    // Of a cell that holds a book, so many characters are looked at.
    private const int MostRead = 4000;

    private static readonly NormalizedLevenshtein Likeness = new();

    private static readonly string[] TrueWords = ["TRUE", "YES", "CORRECT", "RIGHT", "WAHR", "JA", "RICHTIG", "VRAI", "OUI", "VERDADERO", "SI", "VERO", "SANT", "T", "Y"];
    private static readonly string[] FalseWords = ["FALSE", "NO", "INCORRECT", "WRONG", "FALSCH", "NEIN", "FAUX", "NON", "FALSO", "FALSK", "NEJ", "NEE", "F", "N"];

    // What stands between several answers in one cell, the clearest first. A comma may be part of an answer.
    private static readonly string[][] Between = [["\n"], [";"], ["|"], [","], [" > ", " → "]];

    /// <summary>What a cell answers to a question; null if it is no answer to it.</summary>
    /// <param name="question">The question.</param>
    /// <param name="cell">The cell.</param>
    public static Answer? Of(Question question, string cell)
    {
        var text = CleanText.Of(cell.Length > MostRead ? cell[..MostRead] : cell);
        if (CleanText.IsBlank(text))
        {
            return null;
        }

        var answer = question.Kind switch
        {
            QuestionKind.Number => new Answer { Number = NumberIn(text) },
            QuestionKind.Scale => new Answer { Number = NumberIn(text) ?? StepNamed(question, text) },
            QuestionKind.ShortText => new Answer { Text = text.Length > AnswerRules.LongestText ? text[..AnswerRules.LongestText] : text },
            QuestionKind.WordList => new Answer { Words = [.. PartsOf(text).Take(question.WordsEach)] },
            QuestionKind.MultipleChoice or QuestionKind.Ranking => SeveralIn(question, text),
            _ => OptionIn(question, text) is { } option ? new Answer { Options = [option] } : null,
        };
        return answer is not null && AnswerRules.WhyRefused(question, answer) is null ? AnswerRules.Kept(question, answer) : null;
    }

    /// <summary>Whether a cell says that something is true, or that it is false; null if it says neither.</summary>
    public static bool? Truth(string cell) => NameFolding.FoldText(cell) switch
    {
        var said when TrueWords.Contains(said, StringComparer.OrdinalIgnoreCase) => true,
        var said when FalseWords.Contains(said, StringComparer.OrdinalIgnoreCase) => false,
        _ => null,
    };

    /// <summary>The number that a cell begins with, whatever unit stands behind it; null if there is none.</summary>
    public static decimal? NumberIn(string cell) =>
        Number().Match(Digits.Plain(cell.Trim())) is { Success: true } number
        && decimal.TryParse(number.Groups["number"].Value.Replace(" ", "", StringComparison.Ordinal).Replace(',', '.'), NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var read)
            ? read
            : null;

    /// <summary>The parts of a cell that holds several answers; one, if nothing stands between.</summary>
    public static IReadOnlyList<string> PartsOf(string cell)
    {
        var between = Array.Find(Between, b => b.Any(s => cell.Contains(s, StringComparison.Ordinal)));
        return between is null ? [cell] : [.. cell.Split(between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)];
    }

    /// <summary>Whether two questions are the same one, written a little differently.</summary>
    public static bool AreAlike(string question, string other)
    {
        var (a, b) = (NameFolding.FoldText(WithoutNumber(Cut(question))), NameFolding.FoldText(WithoutNumber(Cut(other))));
        var (shorter, longer) = a.Length <= b.Length ? (a, b) : (b, a);
        // Some programs cut long questions off.
        return shorter.Length > 0 && (Likeness.Similarity(a, b) >= AlikeFrom || (shorter.Length >= 20 && longer.StartsWith(shorter, StringComparison.Ordinal)));
    }

    private static string Cut(string question) => question.Length > Question.LongestText ? question[..Question.LongestText] : question;

    private static string WithoutNumber(string question) => Numbered().Replace(question, "");

    private static Answer? SeveralIn(Question question, string text)
    {
        if (OptionIn(question, text) is { } whole)
        {
            return new Answer { Options = [whole] };
        }

        foreach (var between in Between)
        {
            var options = text.Split(between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(part => OptionIn(question, part)).ToList();
            if (options.Count > 1 && options.TrueForAll(o => o is not null))
            {
                return new Answer { Options = [.. options.Select(o => o!.Value).Distinct()] };
            }
        }

        return null;
    }

    private static Guid? OptionIn(Question question, string text)
    {
        // Nobody chooses an option with so many words, and likeness is dear to reckon.
        if (text.Length > 2 * Question.LongestOption)
        {
            return null;
        }

        var folded = NameFolding.FoldText(text);
        var unlabelled = NameFolding.FoldText(Label().Replace(text, ""));
        var known = question.Options.Select(o => (o.Id, Text: NameFolding.FoldText(o.Text))).ToList();
        if (known.Find(o => o.Text == folded) is { Text: not null } same)
        {
            return same.Id;
        }

        var (id, likeness) = known.Select(o => (o.Id, Like: Math.Max(Same(folded, o.Text), Same(unlabelled, o.Text)))).MaxBy(o => o.Like);
        return likeness >= AlikeFrom ? id
            : question.Kind == QuestionKind.TrueFalse && Truth(text) is { } truth && question.Options.FirstOrDefault(o => Truth(o.Text) == truth) is { } named ? named.Id
            : Letter().Match(text.Trim()) is { Success: true } letter && char.ToUpperInvariant(letter.Groups["letter"].Value[0]) - 'A' is var place && place < known.Count ? known[place].Id
            : null;

        static double Same(string a, string b) => a == b ? 1 : Likeness.Similarity(a, b);
    }

    private static decimal? StepNamed(Question question, string text) =>
        question.ScaleFromLabel.Length > 0 && NameFolding.FoldText(text) == NameFolding.FoldText(question.ScaleFromLabel) ? question.ScaleFrom
        : question.ScaleToLabel.Length > 0 && NameFolding.FoldText(text) == NameFolding.FoldText(question.ScaleToLabel) ? question.ScaleTo
        : null;

    [GeneratedRegex(@"^(?<number>[-+]?(?:[0-9]{1,3}(?: [0-9]{3})+|[0-9]+)(?:[.,][0-9]+)?)(?=$|[^0-9.,])(?:\s*[^0-9\s]{0,12})?(?:\s.{0,40})?$")]
    private static partial Regex Number();

    [GeneratedRegex(@"^\(?[A-La-l1-9][).:]\s+")]
    private static partial Regex Label();

    [GeneratedRegex(@"^\(?(?<letter>[A-La-l])[).:]?$")]
    private static partial Regex Letter();

    [GeneratedRegex(@"^\s*(?:(?:Q(?:uestion)?\s*)?\d{1,3}\s*[.):\-–]\s*|Q(?:uestion)?\s*\d{1,3}\s+)", RegexOptions.IgnoreCase)]
    private static partial Regex Numbered();
}
