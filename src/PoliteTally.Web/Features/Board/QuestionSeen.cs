using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;

namespace PoliteTally.Web.Features.Board;

/// <summary>What of a question is shown to the class, on the board and on student pages.</summary>
internal static class QuestionSeen
{
    /// <summary>What is right in words, for kinds that have no options; null if nothing is.</summary>
    public static string? RightWords(Question question) => question switch
    {
        { Kind: QuestionKind.ShortText, AcceptedAnswers: [var first, ..] } => first,
        { Kind: QuestionKind.Number or QuestionKind.Scale, Target: { } target } =>
            Words.Plain(target) + (question.Tolerance > 0 ? $" ± {Words.Plain(question.Tolerance)}" : ""),
        _ => null,
    };

    /// <summary>
    /// The order of a ranking is its answer: students see it by the end of the ids, which is random. All the others as they stand.
    /// </summary>
    public static IEnumerable<QuestionOption> Options(Question question) => question.Kind == QuestionKind.Ranking
        ? question.Options.OrderBy(o => o.Id.ToString()[^12..], StringComparer.Ordinal)
        : question.Options;
}

/// <summary>An option as a student sees it.</summary>
public sealed record PageOption(Guid Id, string Text, Guid? Picture, string AlternativeText)
{
    internal static PageOption Of(QuestionOption option) => new(option.Id, option.Text, option.Picture, option.AlternativeText);
}
