using NodaTime;
using PoliteTally.Core.Board;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Features.Board;

/// <summary>
/// What the class sees. It carries what was put up and nothing else: every part is null unless it is up, and there is no part that could carry
/// anything of a student but a short name that the teacher chose to show.
/// </summary>
public sealed record BoardView(
    Instant Now, string? Directions, BoardStage? Stage, IReadOnlyList<BoardTimer>? Timers, string? Turn, IReadOnlyList<string>? HandLine,
    IReadOnlyList<AgreedSignal>? Signals, string? Rubric, BoardStatement? Statement, IReadOnlyList<BoardGroup>? Groups,
    IReadOnlyList<BoardQuestion>? Questions, BoardResults? Results, string? WayIn, IReadOnlyList<PageMessage>? Messages,
    IReadOnlyList<BoardNods>? Nods)
{
    private const int MessagesShown = 8;

    internal static BoardView Of(OpenLesson open, LessonState state, Instant now)
    {
        // Whatever was up comes down with the end of the lesson.
        var up = open.Lesson.Stage is LessonStage.Planned or LessonStage.Live ? state.Board.Items : new Dictionary<BoardItem, OnBoard>();
        var names = open.ShortNames;
        var stage = StageClock.Now(open.Plan, open.Lesson.ActualStart, state.Course.StageMoves, state.Course.Extended);
        return new BoardView(
            now,
            If(BoardItem.Directions, () => Rendered(stage?.Stage.Directions)),
            If(BoardItem.Stage, () => stage is null ? null : new BoardStage(stage.Stage.Name, stage.From, stage.To)),
            If(BoardItem.Timer, () => TimersOf(state) is { Count: > 0 } timers ? timers : null),
            If(BoardItem.Turn, () => state.HandLine.Current is { } turn ? names.GetValueOrDefault(turn.Student) : null),
            If(BoardItem.HandLine, () => state.HandLine.Hands.Where(h => h.InLine && !LiveRow.IsGone(h.Student, open, state)).Select(h => names.GetValueOrDefault(h.Student)).OfType<string>().ToList()),
            If(BoardItem.Signals, () => open.Rules.Signals),
            If(BoardItem.Rubric, () => Rendered(open.Rules.Rubric)),
            If(BoardItem.Statement, () => up[BoardItem.Statement] is { Text: { Length: > 0 } text } put ? new BoardStatement(text, put.Since) : null),
            If(BoardItem.Groups, () => state.Groups.Now.Select(g => new BoardGroup(g.Name, [.. g.Members.Select(m => names.GetValueOrDefault(m)).OfType<string>()])).ToList()),
            If(BoardItem.Question, () => state.Questions.All.Where(a => a.IsOpen && a.Group is null).Select(BoardQuestion.Of).ToList()),
            If(BoardItem.Results, () => state.ResultsUp is { } put && state.Questions.Of(put.Asking) is { } asking ? BoardResults.Of(put, asking, names) : null),
            If(BoardItem.WayIn, () => open.Lesson.Code is { } code ? Syllables.Show(code) : null),
            If(BoardItem.Messages, () => ShownMessages.In(open, state).TakeLast(MessagesShown).ToList()),
            open.Lesson.Stage == LessonStage.Live ? BoardNods.In(open, state, now) : null);

        T? If<T>(BoardItem item, Func<T?> part)
            where T : class => up.ContainsKey(item) ? part() : null;

        static List<BoardTimer> TimersOf(LessonState state) =>
            [.. state.Timers.Select(t => new BoardTimer(t.Task, t.From, t.To, state.Groups.Now.FirstOrDefault(g => g.Id == t.Group)?.Name))];

        static string? Rendered(string? markdown) =>
            string.IsNullOrWhiteSpace(markdown) ? null : MarkdownText.Render(markdown);
    }
}

/// <summary>The stage that is on.</summary>
public sealed record BoardStage(string Name, Instant From, Instant To);

/// <summary>The time for a task.</summary>
/// <param name="Group">The name of the group it is for; null for the whole class.</param>
public sealed record BoardTimer(string Task, Instant From, Instant To, string? Group);

/// <summary>The statement of a signal round, and when it was put up: the count-in runs from there.</summary>
public sealed record BoardStatement(string Text, Instant Since);

/// <summary>A group.</summary>
public sealed record BoardGroup(string Name, IReadOnlyList<string> Members);

/// <summary>A question that is open to the whole class, without its key.</summary>
public sealed record BoardQuestion(string Text, IReadOnlyList<PageOption> Options, Instant? Deadline)
{
    internal static BoardQuestion Of(Asking asking) => new(
        asking.Question.Text, [.. QuestionSeen.Options(asking.Question).Select(PageOption.Of)],
        asking.DeadlineOf(Guid.Empty));
}

/// <summary>Results of a question, with what was right only if that was put up, and names only of those who were chosen.</summary>
public sealed record BoardResults(
    string Text, QuestionKind Kind, IReadOnlyList<PageOption> Options, int? Answered, IReadOnlyList<AnswerCount> Counts, IReadOnlyList<RankedOption> Ranking,
    IReadOnlyList<BoardWord> Words, IReadOnlyList<BoardText> Texts, IReadOnlyList<Guid>? Right, string? RightWords, int ScaleFrom, int ScaleTo,
    string ScaleFromLabel, string ScaleToLabel, IReadOnlyList<BoardAnswer> Named)
{
    internal static BoardResults Of(ResultsPut put, Asking asking, IReadOnlyDictionary<Guid, string> names)
    {
        var question = asking.Question;
        var results = QuestionResults.Of(asking);
        results = put.HoldBackFew ? results.HoldingBackFew() : results;
        var right = put.WithRight && question.Purpose == QuestionPurpose.Quiz;
        return new BoardResults(
            question.Text, question.Kind, [.. question.Options.Select(PageOption.Of)],
            results.Answered, results.Counts, results.Ranking, [.. results.Words.Select(w => new BoardWord(w.Word, w.Count))],
            [.. results.Texts.Select(t => new BoardText(t.Text, t.Count))],
            right ? [.. question.Options.Where(o => o.Right).Select(o => o.Id)] : null, right ? QuestionSeen.RightWords(question) : null,
            question.ScaleFrom, question.ScaleTo, question.ScaleFromLabel, question.ScaleToLabel,
            [.. put.Named.Where(s => names.ContainsKey(s) && asking.Answers.ContainsKey(s)).Select(s => new BoardAnswer(names[s], asking.Answers[s].Answer.InWords(question)))]);
    }
}

/// <summary>A word and how many gave it.</summary>
public sealed record BoardWord(string Word, int Count);

/// <summary>A short text and how many gave it or one like it.</summary>
public sealed record BoardText(string Text, int Count);

/// <summary>The answer of a student who was chosen to be shown.</summary>
public sealed record BoardAnswer(string Who, string Answer);
