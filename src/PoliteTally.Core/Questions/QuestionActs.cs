using NodaTime;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Questions;

/// <summary>A question was opened. It is copied whole, so that nothing can change what was asked.</summary>
/// <param name="Question">The question, its blanks filled in.</param>
/// <param name="Group">The group it goes to; null for the whole class.</param>
/// <param name="CopyOf">The id of the entry that opened it before, if it is asked again.</param>
/// <param name="LongerFor">Students who have extra time.</param>
/// <param name="Longer">How much extra time they have, from 0 to 3,600 s.</param>
public sealed record QuestionOpened(
    Question Question, Guid? Group, Guid? CopyOf, IReadOnlyList<Guid> LongerFor, Duration Longer) : Act
{
    /// <summary>The most questions open at once: 12.</summary>
    public const int MostOpen = 12;

    /// <inheritdoc/>
    public override string InWords => $"question opened: {Question.Text}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => string.Concat(Question.Options.Select(o => o.Text).Prepend(Question.Text));

    internal override string? WhyRefused(Entry entry, LessonFacts lesson)
    {
        var asked = lesson.See<QuestionsAsked>();
        return lesson.Times switch
        {
            { ActualStart: null } => "Begin the lesson first; then questions can be opened.",
            { ActualEnd: not null } => "This lesson has ended: no question can be opened in it any more.",
            _ when QuestionRules.Problems(Question).FirstOrDefault() is { } problem => problem,
            _ when QuestionRules.Missing(Question).FirstOrDefault() is { } lack => $"This question cannot be opened: {lack}.",
            _ when QuestionRules.Placeholders(Question) is [var blank, ..] => $"Fill in {{{blank}}} first.",
            _ when Group is { } group && lesson.See<GroupsNow>().NoSuch(group) is { } noGroup => noGroup,
            _ when Longer < Duration.Zero || Longer > Duration.FromSeconds(3600) || lesson.NotOnRoster(LongerFor) is not null => "The extra time does not fit this class.",
            _ when CopyOf is { } earlier && asked.Of(earlier) is null => QuestionsAsked.NotAsked,
            _ when asked.All.Any(a => a.Question.Id == Question.Id && a.Group == Group) => "This question was asked already. Ask it again as a copy.",
            _ when asked.All.Count(a => a.IsOpen) >= MostOpen => $"At most {MostOpen} questions can be open at once. Close one first.",
            _ => null,
        };
    }

    internal override bool IsOfAllItsMoment => true;

    // The end of a lesson closes whatever was opened in it.
    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) => lesson.See<QuestionsAsked>().AllClosed;

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().Open(this, entry);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        if (Group is { } group)
        {
            lesson.Change<QuestionsAsked>().Change(entry.Id)!.GoesToGroup(lesson.See<GroupsNow>().Now.FirstOrDefault(g => g.Id == group)?.Members ?? []);
        }
    }
}

/// <summary>A question was closed: from here on only the teacher enters answers.</summary>
/// <param name="Asking">The id of the entry that opened it.</param>
public sealed record QuestionClosed(Guid Asking) : Act
{
    /// <inheritdoc/>
    public override string InWords => "question closed";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => lesson.See<QuestionsAsked>().Of(Asking) switch
    {
        null => QuestionsAsked.NotAsked,
        { IsOpen: false } => "This question is closed already.",
        _ => null,
    };

    internal override string? WhyNotStruckOut(LessonFacts lesson) =>
        lesson.See<QuestionsAsked>().Of(Asking) is { Question.Anonymous: true } ? BallotsCounted.WereCounted : null;

    internal override bool IsOfAllItsMoment => true;

    // How a question ended is told by whatever ended it first.
    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) =>
        !among.Contains(Asking) && lesson.See<QuestionsAsked>().Of(Asking) is not { IsOpen: true };

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().Change(Asking)?.Close(entry);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // All of it was learned.
    }
}

/// <summary>A student answered a question, or the teacher did for them. The latest counts.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Answer">What they answered.</param>
public sealed record AnswerGiven(Guid Student, Guid Asking, Answer Answer) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => "answered";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => lesson.See<QuestionsAsked>().Of(Asking) switch
    {
        null => QuestionsAsked.NotAsked,
        { Question.Anonymous: true } => "Answers to this question carry no name, so none is entered under one.",
        var asking => AskingRules.OutOfTime(asking, Student, entry, lesson) ?? AnswerRules.WhyRefused(asking.Question, Answer),
    };

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Answer, lesson, Asking.ToString());

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<QuestionsAsked>().Change(Asking)?.Take(student, Answer, entry);
}

/// <summary>A student cannot answer a question, so it does not count for them.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Asking">The id of the entry that opened the question.</param>
public sealed record CannotAnswer(Guid Student, Guid Asking) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => "cannot answer a question";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => lesson.See<QuestionsAsked>().Of(Asking) is { } asking
        ? AskingRules.OutOfTime(asking, Student, entry, lesson)
        : QuestionsAsked.NotAsked;

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<QuestionsAsked>().Change(Asking)?.Excuse(student, entry);
}

/// <summary>
/// An anonymous question was closed and its answers were counted. Answers and students each stand in an order of their own, which says nothing
/// of when anybody answered.
/// </summary>
/// <param name="Asking">The id of the entry that opened the question.</param>
/// <param name="Cast">How many answered.</param>
/// <param name="Answers">What they answered; empty if fewer than <see cref="Questions.Asking.FewestAnonymous"/> did.</param>
/// <param name="TookPart">Who answered, if that counts; else empty.</param>
public sealed record BallotsCounted(Guid Asking, int Cast, IReadOnlyList<Answer> Answers, IReadOnlyList<Guid> TookPart) : Act
{
    internal const string WereCounted =
        "An anonymous question that was closed cannot be opened again: its answers were counted. Ask it again as a copy.";

    /// <inheritdoc/>
    public override string InWords => $"{Words.Count(Cast, "answer")} without names counted";

    internal override string WhyNotStruckOut(LessonFacts lesson) => WereCounted;

    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) => true;

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<QuestionsAsked>().Change(Asking)?.Count(this, entry, lesson.Whose);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // All of it was learned.
    }
}
