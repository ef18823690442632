using NodaTime;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Questions;

/// <summary>The questions that were opened in a lesson, as the teacher sees them.</summary>
/// <param name="Lacks">What questions of the plan lack, so that they cannot be opened.</param>
public sealed record QuestionsView(long Position, IReadOnlyList<AskingView> Askings, IReadOnlyList<QuestionLack> Lacks)
{
    internal static QuestionsView Of(OpenLesson open)
    {
        var (position, state) = (open.Position, open.State);
        return new QuestionsView(position, [.. state.Questions.All.Select(a => AskingView.Of(a, open, state))], [.. LacksOf(open.Plan)]);
    }

    private static IEnumerable<QuestionLack> LacksOf(Plan plan) =>
        from question in plan.Questions
        let lack = QuestionRules.Missing(question).FirstOrDefault()
        where lack is not null
        select new QuestionLack(question.Id, lack);
}

/// <summary>What a question lacks, so that it cannot be opened.</summary>
public sealed record QuestionLack(Guid Question, string What);

/// <summary>A question that was opened, with what came of it.</summary>
/// <param name="Question">As it was opened, with its key as corrected last.</param>
/// <param name="Answered">How many answered.</param>
/// <param name="Results">What the answers amount to; of an anonymous question nothing until it is closed.</param>
/// <param name="HeldBack">Why nothing is shown, if so few answered an anonymous question that it would say who; null else.</param>
/// <param name="Students">Each student it goes to, with their answer; empty for an anonymous question.</param>
/// <param name="Revealed">Whether students see on their page what was right.</param>
/// <param name="OnBoard">How its results are on the class board; null if they are not.</param>
/// <param name="Corrections">How often its key was corrected.</param>
public sealed record AskingView(
    Guid Asking, Question Question, Guid? Group, string? GroupName, Guid? CopyOf, Instant OpenedAt, Instant? ClosedAt, int Answered, QuestionResults Results,
    string? HeldBack, IReadOnlyList<AskedStudent> Students, bool Revealed, ResultsOnBoard? OnBoard, int Corrections)
{
    internal static AskingView Of(Asking asking, OpenLesson open, LessonState state)
    {
        var question = asking.Question;
        return new AskingView(
            asking.Id, question, asking.Group, asking.Group is { } group ? state.Groups.Last.FirstOrDefault(g => g.Id == group)?.Name ?? "a group" : null,
            asking.CopyOf, asking.OpenedAt, asking.ClosedAt, open.AnsweredIn(asking), QuestionResults.Of(asking), HeldBackOf(asking),
            question.Anonymous ? [] : [.. open.Roster.Select(s => s.Name.Id).Where(s => asking.GoesTo(s, state.Groups) || asking.Answers.ContainsKey(s))
                .Select(s => AskedStudent.Of(s, asking, open, state))],
            state.Questions.Revealed.Contains(asking.Id), state.ResultsUp is { } up && up.Asking == asking.Id ? new ResultsOnBoard(up.WithRight, up.HoldBackFew, up.Named) : null, asking.Corrections.Count);
    }

    private static string? HeldBackOf(Asking asking) => asking switch
    {
        { Question.Anonymous: false } => null,
        { IsOpen: true } => "Answers without names are counted when the question is closed.",
        { BallotsCast: < Core.Questions.Asking.FewestAnonymous } =>
            $"Fewer than {Core.Questions.Asking.FewestAnonymous} answered. So few would say who said what, so their answers were not kept.",
        _ => null,
    };
}

/// <summary>How results are on the class board.</summary>
public sealed record ResultsOnBoard(bool WithRight, bool HoldBackFew, IReadOnlyList<Guid> Named);

/// <summary>A student to whom a question goes.</summary>
/// <param name="Answer">In words; null if there is none.</param>
/// <param name="ByTeacher">Whether the teacher entered it.</param>
/// <param name="Marks">Out of 1; null without any, or while it waits for the teacher.</param>
/// <param name="Cannot">Whether they cannot answer.</param>
/// <param name="Here">Whether they are in the lesson now.</param>
/// <param name="Deadline">When their time runs out; null without a limit.</param>
public sealed record AskedStudent(
    Guid Student, string? Answer, Instant? At, bool ByTeacher, decimal? Marks, bool Cannot, bool Here, Instant? Deadline)
{
    internal static AskedStudent Of(Guid student, Asking asking, OpenLesson open, LessonState state)
    {
        var given = asking.Answers.GetValueOrDefault(student);
        var attendance = state.AttendanceOf(student, open.Times, open.Rules.Scheme.Attendance);
        return new AskedStudent(
            student, given is null ? null : given.Answer.InWords(asking.Question), given?.At, given?.ByTeacher ?? false, asking.MarksOf(student),
            asking.Cannot.ContainsKey(student), attendance.WasThere, asking.DeadlineOf(student));
    }
}
