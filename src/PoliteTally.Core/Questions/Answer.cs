namespace PoliteTally.Core.Questions;

/// <summary>An answer to a question of any kind. Parts that its kind has no use for are empty.</summary>
public sealed record Answer
{
    /// <summary>Options chosen; of a ranking all of them, in the order given.</summary>
    public IReadOnlyList<Guid> Options { get; init; } = [];

    /// <summary>The number, or the step of a scale.</summary>
    public decimal? Number { get; init; }

    /// <summary>A few words.</summary>
    public string Text { get; init; } = "";

    /// <summary>Single words, in the order given.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Equal for equal answers, and different for different ones; says nothing of who gave it.</summary>
    public string Written => $"{string.Join(',', Options)}|{Number}|{Text}|{string.Join('\n', Words)}";

    /// <summary>It in words.</summary>
    /// <param name="question">The question that it answers.</param>
    public string InWords(Question question) => question.Kind switch
    {
        QuestionKind.ShortText => Text,
        QuestionKind.WordList => string.Join(", ", Words),
        QuestionKind.Number or QuestionKind.Scale => Core.Text.Words.Plain(Number ?? 0),
        _ => string.Join(question.Kind == QuestionKind.Ranking ? " > " : ", ", Options.Select(o => question.Options.FirstOrDefault(q => q.Id == o)?.Text ?? "?")),
    };
}
