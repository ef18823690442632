using PoliteTally.Core.Board;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Questions;

/// <summary>The teacher marked short texts.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Students">Whose.</param>
/// <param name="Marks">From 0 to 1.</param>
public sealed record AnswersMarked(Guid Asking, IReadOnlyList<Guid> Students, decimal Marks) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    /// <inheritdoc/>
    public override string InWords => $"{Words.Count(Students.Count, "answer")} marked, {Words.Plain(Marks)}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.WhoItIsAbout;

    internal override IEnumerable<Guid> About(LessonParts lesson) => Students.Select(lesson.Whose);

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Marks is < 0 or > 1 ? "Marks are from 0 to 1."
        : lesson.See<QuestionsAsked>().Of(Asking) is not { Question: { Kind: QuestionKind.ShortText, Purpose: QuestionPurpose.Quiz } }
            ? "Only short texts of a quiz are marked by hand."
        : lesson.NotOnRoster(Students);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        if (lesson.Change<QuestionsAsked>().Change(Asking) is { } asking)
        {
            foreach (var student in About(lesson))
            {
                asking.Mark(student, Marks, entry.Id);
            }
        }
    }
}

/// <summary>The key of a question was wrong; this is the right one. All its answers are marked anew.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Right">The options that are right; of a ranking all, in the right order.</param>
/// <param name="Target">As in <see cref="Question.Target"/>.</param>
/// <param name="Tolerance">As in <see cref="Question.Tolerance"/>.</param>
/// <param name="AcceptedAnswers">As in <see cref="Question.AcceptedAnswers"/>.</param>
public sealed record KeyCorrected(
    Guid Asking, IReadOnlyList<Guid> Right, decimal? Target, decimal Tolerance, IReadOnlyList<string> AcceptedAnswers) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => "key of a question corrected";

    /// <summary>The question with this key.</summary>
    public Question In(Question question) => question with
    {
        Options = question.Kind == QuestionKind.Ranking
            ? [.. question.Options.OrderBy(o => Right.ToList().IndexOf(o.Id))]
            : [.. question.Options.Select(o => o with { Right = Right.Contains(o.Id) })],
        Target = Target,
        Tolerance = Tolerance,
        AcceptedAnswers = AcceptedAnswers,
    };

    internal override string? WhyRefused(Entry entry, LessonFacts lesson)
    {
        if (lesson.See<QuestionsAsked>().Of(Asking) is not { Question: { Purpose: QuestionPurpose.Quiz } question })
        {
            return "Only a quiz has a key.";
        }

        var known = question.Options.Select(o => o.Id).ToHashSet();
        if (!Right.All(known.Contains) || (question.Kind == QuestionKind.Ranking && Right.Distinct().Count() < known.Count))
        {
            return "The key names what is not among the choices, or lacks one.";
        }

        var corrected = In(question);
        return QuestionRules.Problems(corrected).FirstOrDefault()
            ?? (QuestionRules.Missing(corrected).FirstOrDefault() is { } lack ? $"This cannot be the key: {lack}." : null);
    }

    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) => true;

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().Change(Asking)?.Correct(this, entry);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // All of it was learned.
    }
}

/// <summary>Two words of a word list are one.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Word">The word, folded.</param>
/// <param name="Into">The word it counts as, folded.</param>
public sealed record WordsMerged(Guid Asking, string Word, string Into) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => $"“{Word}” counts as “{Into}”";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.See<QuestionsAsked>().Of(Asking) is not { Question.Kind: QuestionKind.WordList } ? "Only words of a word list are merged."
        : TextLimits.TooLong(Word, "word", TextLimits.LongestName) ?? TextLimits.TooLong(Into, "word", TextLimits.LongestName);

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().Change(Asking)?.Merge(Word, Into);
}

/// <summary>What was right is shown to students on their own page.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
public sealed record RightRevealed(Guid Asking) : Act
{
    /// <inheritdoc/>
    public override string InWords => "what was right shown on student pages";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => lesson.See<QuestionsAsked>().Of(Asking) switch
    {
        null => QuestionsAsked.NotAsked,
        { IsOpen: true } => "Close the question first; then what was right can be shown.",
        _ => null,
    };

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().Reveal(Asking);
}

/// <summary>Results were put up on the class board, in place of any before.</summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="WithRight">Whether it shows what was right.</param>
/// <param name="HoldBackFew">Whether counts from 1 to 2 are held back.</param>
/// <param name="Named">Students whose answer is shown with their name, each chosen.</param>
public sealed record ResultsPut(Guid Asking, bool WithRight, bool HoldBackFew, IReadOnlyList<Guid> Named) : Act
{
    /// <inheritdoc/>
    public override string InWords => "results on the board";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => lesson.See<QuestionsAsked>().Of(Asking) switch
    {
        null => QuestionsAsked.NotAsked,
        { Question.Anonymous: true } when Named.Count > 0 => "Answers to an anonymous question have no names.",
        { Question.Anonymous: true, IsOpen: true } => "Close the anonymous question first: until then nobody sees its answers.",
        _ => lesson.NotOnRoster(Named),
    };

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        lesson.Change<BoardNow>().Put(BoardItem.Results, new OnBoard(null, entry.HappenedAt, entry.Id));
        lesson.Change<QuestionsAsked>().PutUp(this);
    }
}
