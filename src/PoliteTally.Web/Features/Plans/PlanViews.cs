using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Names;
using PoliteTally.Core.Plans;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;

namespace PoliteTally.Web.Features.Plans;

/// <summary>The plan of a lesson, with what follows from it.</summary>
/// <param name="Version">Counts its changes; sent back with the next one.</param>
/// <param name="Stages">When each stage begins, and its directions rendered.</param>
/// <param name="Ready">"Is it ready?": what is missing, and what is good to know.</param>
/// <param name="RulesDiffer">Whether the lesson changes any of the ground rules of its class.</param>
public sealed record PlanView(
    LessonLine Lesson, Plan Plan, int Version, int Minutes, int Planned, IReadOnlyList<StageLook> Stages, IReadOnlyList<ReadyNote> Ready,
    IReadOnlyList<Person> Students, IReadOnlyList<string> BeforeStart, IReadOnlyList<string> BeforeEnd, bool RulesDiffer);

/// <summary>A stage as the class board will show it.</summary>
public sealed record StageLook(Guid Id, Instant From, Instant To, string DirectionsHtml);

internal static class PlanViews
{
    public static PlanView Of(Lesson lesson, SchoolDb db)
    {
        var (plan, rules) = (PlanJson.Of(lesson), RulesJson.Of(lesson, lesson.Class!));
        var roster = Rosters.Of(db, lesson);
        var names = ShortNames.For([.. roster.Select(s => s.Name)]);
        return new PlanView(
            LessonLine.Of(lesson, lesson.Class!.Name), plan, lesson.PlanVersion, MinutesOf(lesson), (int)plan.Length.TotalMinutes,
            [.. plan.Timed(lesson.PlannedStart).Select(t => new StageLook(t.Stage.Id, t.From, t.To, MarkdownText.Render(t.Stage.Directions)))],
            Ready(lesson, plan, rules, roster),
            [.. roster.Select(s => new Person(s.Name.Id, names[s.Name.Id], s.Name.Whole))],
            rules.BeforeStart, rules.BeforeEnd, lesson.Rules != "{}");
    }

    /// <summary>What the plan of a lesson lacks.</summary>
    public static IReadOnlyList<ReadyNote> ReadyNotes(Lesson lesson, SchoolDb db) =>
        Ready(lesson, PlanJson.Of(lesson), RulesJson.Of(lesson, lesson.Class!), Rosters.Of(db, lesson));

    private static IReadOnlyList<ReadyNote> Ready(Lesson lesson, Plan plan, ClassRules rules, IReadOnlyList<OnSheet> roster) => PlanJson.CannotBeRead(lesson)
        ? [new ReadyNote(PlanPart.Lesson, "What was planned for this lesson cannot be read any more. Plan the lesson again; that puts it right.", Needed: true)]
        : Readiness.Of(plan, rules, new LessonAhead(
            lesson.PlannedEnd - lesson.PlannedStart, lesson.MeetingLink is not null, ShortNames.For([.. roster.Select(s => s.Name)]),
            roster.Count(s => s.Name.Email is null)));

    private static int MinutesOf(Lesson lesson) => (int)Math.Round((lesson.PlannedEnd - lesson.PlannedStart).TotalMinutes);
}
