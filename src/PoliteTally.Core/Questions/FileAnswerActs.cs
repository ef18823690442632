using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;

namespace PoliteTally.Core.Questions;

/// <summary>A question that another program asked; its answers come with it. It stands among the questions of the lesson under the id of the question.</summary>
/// <param name="Question">The question, one of the plan or made from the file.</param>
/// <param name="Lasts">How long answers came in, from when this happened; of a file without times as long as the lesson.</param>
/// <param name="Cast">How many answers the file has.</param>
/// <param name="Ballots">Answers without names, in an order of their own; empty if they have names, or if so few would say whose they are.</param>
public sealed record QuestionFromFile(Question Question, Duration Lasts, int Cast, IReadOnlyList<Answer> Ballots) : Act
{
    /// <summary>The most answers without names: 5,000.</summary>
    public const int MostBallots = 5000;

    /// <inheritdoc/>
    public override string InWords => $"question from a file: {Question.Text}";

    internal override string? Typed => string.Concat(Question.Options.Select(o => o.Text).Prepend(Question.Text).Concat(Ballots.Select(b => b.Text)));

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        QuestionRules.Problems(Question).FirstOrDefault() ?? QuestionRules.Missing(Question).Select(lack => $"“{Question.Text}” cannot be taken: {lack}.").FirstOrDefault()
        ?? (Lasts < Duration.Zero ? "A question cannot end before it begins."
            : Ballots.Count > MostBallots ? $"At most {MostBallots} answers without names can be kept."
            : Ballots.Count is > 0 and < Asking.FewestAnonymous ? "So few answers would say whose they are."
            : Ballots.Select(b => AnswerRules.WhyRefused(Question, b)).FirstOrDefault(why => why is not null));

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().BringIn(this, entry);

    internal override void Apply(LessonParts lesson, Entry entry) =>
        lesson.Change<QuestionsAsked>().Change(Question.Id)?.OpenFrom(entry.HappenedAt, entry.HappenedAt + Lasts);
}

/// <summary>A name answered a question in another program.</summary>
/// <param name="Name">The name exactly as it was given; students may have typed it themselves.</param>
/// <param name="Asking">The id under which the question stands in the lesson.</param>
/// <param name="Answer">What was answered.</param>
/// <param name="Marks">The marks of the file, from 0 to 1, if they count instead of those by the key.</param>
/// <param name="Timed">Whether the file says when.</param>
public sealed record NameAnswered(string Name, Guid Asking, Answer Answer, decimal? Marks, bool Timed) : NameAct(Name)
{
    /// <inheritdoc/>
    // Nobody knows when an answer without a time was given; it may have been after the lesson.
    public override bool ShowsPresence => Timed;

    /// <inheritdoc/>
    public override string InWords => $"“{Name}” answered";

    internal override string? Typed => $"{Name}{Beside}{Answer.Text}{string.Concat(Answer.Words)}";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Marks is < 0 or > 1 ? "Marks lie between 0 and 1." : base.WhyRefused(entry, lesson);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Answer, lesson, Asking.ToString()) with { Timed = Timed };

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry)
    {
        if (!Timed)
        {
            lesson.Change<NamesShown>().AnswerSometime(name);
        }

        if (lesson.See<NamesShown>().StudentOf(name) is { } student)
        {
            lesson.Change<QuestionsAsked>().Change(Asking)?.TakeFromFile(student, Answer, Marks, entry);
        }
    }
}
