using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.GroundRules;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.GroundRules;

/// <summary>Ground rules with an example of each at work.</summary>
/// <param name="Defaults">What they are while nobody changes them; of a lesson the rules of its class.</param>
/// <param name="RubricHtml">The rubric, rendered.</param>
public sealed record RulesView(
    string Name, ClassRules Rules, ClassRules Defaults, IReadOnlyList<RuleExample> Examples, string RubricHtml, int SettledLessons);

/// <summary>Rules as they are to be.</summary>
public sealed record RulesSent(ClassRules Rules);

/// <summary>What rules amount to.</summary>
public sealed record RulesAtWork(IReadOnlyList<RuleExample> Examples, string RubricHtml);

/// <summary>What storing rules did: how many settled lessons were reckoned anew, and how many scores are another now.</summary>
public sealed record RulesStored(RulesView View, int Lessons, int Scores);

internal static class RuleEndpoints
{
    public static void MapGroundRules(this RouteGroupBuilder api)
    {
        api.MapPost("/rules/examples", Results<Ok<RulesAtWork>, ProblemHttpResult> (RulesSent sent) =>
            Wrong(sent) is { } wrong
                ? wrong
                : TypedResults.Ok(new RulesAtWork(RuleExamples.Of(sent.Rules), MarkdownText.Render(sent.Rules.Rubric))))
            .WithName("TryRules");

        api.MapGet("/classes/{id:guid}/rules", async Task<Results<Ok<RulesView>, NotFound>> (Guid id, SchoolDb db) =>
            await db.Classes.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id) is { } found
                ? TypedResults.Ok(await ViewOf(found, db))
                : TypedResults.NotFound()).WithName("GetClassRules");

        api.MapPut("/classes/{id:guid}/rules", async Task<Results<Ok<RulesStored>, NotFound, ProblemHttpResult>> (
            Guid id, RulesSent sent, SchoolDb db, OpenLessons openLessons) =>
        {
            if (await db.Classes.FirstOrDefaultAsync(c => c.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            if (Wrong(sent) is { } wrong)
            {
                return wrong;
            }

            found.Rules = RulesJson.Difference(ClassRules.Default, sent.Rules);
            var (lessons, scores) = await Summaries.Renew(db, lesson => lesson.ClassId == id);
            openLessons.Forget(lesson => lesson.ClassId == id);
            return TypedResults.Ok(new RulesStored(await ViewOf(found, db), lessons, scores));
        }).WithName("ChangeClassRules");

        api.MapGet("/lessons/{id:guid}/rules", async Task<Results<Ok<RulesView>, NotFound>> (Guid id, SchoolDb db) =>
            await db.Lessons.AsNoTracking().Include(l => l.Class).FirstOrDefaultAsync(l => l.Id == id) is { } found
                ? TypedResults.Ok(ViewOf(found))
                : TypedResults.NotFound()).WithName("GetLessonRules");

        api.MapPut("/lessons/{id:guid}/rules", async Task<Results<Ok<RulesStored>, NotFound, ProblemHttpResult>> (
            Guid id, RulesSent sent, SchoolDb db, OpenLessons openLessons) =>
        {
            if (await db.Lessons.Include(l => l.Class).FirstOrDefaultAsync(l => l.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            if (Wrong(sent) is { } wrong)
            {
                return wrong;
            }

            found.Rules = RulesJson.Difference(RulesJson.Of(found.Class!), sent.Rules);
            var (lessons, scores) = await Summaries.Renew(db, lesson => lesson.Id == id);
            openLessons.Forget(lesson => lesson.Id == id);
            return TypedResults.Ok(new RulesStored(ViewOf(found), lessons, scores));
        }).WithName("ChangeLessonRules");
    }

    private static async Task<RulesView> ViewOf(SchoolClass found, SchoolDb db)
    {
        var rules = RulesJson.Of(found);
        return new RulesView(
            found.Name, rules, ClassRules.Default, RuleExamples.Of(rules), MarkdownText.Render(rules.Rubric),
            await db.Lessons.CountAsync(l => l.ClassId == found.Id && l.Stage == LessonStage.Settled));
    }

    private static RulesView ViewOf(Lesson found)
    {
        var rules = RulesJson.Of(found, found.Class!);
        return new RulesView(
            found.Title, rules, RulesJson.Of(found.Class!), RuleExamples.Of(rules), MarkdownText.Render(rules.Rubric),
            found.Stage == LessonStage.Settled ? 1 : 0);
    }

    private static ProblemHttpResult? Wrong(RulesSent sent)
    {
        IReadOnlyList<string> problems = [.. sent.Rules.Problems(), .. MarkdownText.Problems(sent.Rules.Rubric).Select(p => $"The rubric: {p}")];
        return problems.Count == 0 ? null : Refused.Because($"{string.Join(" ", problems)} Nothing was stored.");
    }
}
