using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Scoring;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.GroundRules;

/// <summary>Ground rules with an example of each at work.</summary>
/// <param name="Defaults">What they are while nobody changes them; of a lesson the rules of its class.</param>
/// <param name="RubricHtml">The rubric, rendered.</param>
/// <param name="CannotBeRead">Whether what is stored of the class cannot be read: then these are the usual rules.</param>
public sealed record RulesView(
    string Name, ClassRules Rules, ClassRules Defaults, IReadOnlyList<RuleExample> Examples, string RubricHtml, int SettledLessons, bool CannotBeRead);

/// <summary>Rules as they are to be.</summary>
/// <param name="Why">Why what counts is changed; it stands with the version of the scheme that comes of it.</param>
public sealed record RulesSent(ClassRules Rules, string Why = "");

/// <summary>What rules amount to.</summary>
public sealed record RulesAtWork(IReadOnlyList<RuleExample> Examples, string RubricHtml);

/// <summary>What storing rules did: how many settled lessons were reckoned anew, and how many scores are another now.</summary>
/// <param name="Version">The version of the scheme that came of it; null if what counts is as it was.</param>
public sealed record RulesStored(RulesView View, int Lessons, int Scores, int? Version);

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
            Guid id, RulesSent sent, SchoolDb db, OpenLessons openLessons, HttpContext http, IClock clock) =>
        {
            if (await db.Classes.FirstOrDefaultAsync(c => c.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            if (Wrong(sent) is { } wrong)
            {
                return wrong;
            }

            await using var transaction = await db.Database.BeginTransactionAsync();
            var before = Schemes.Newest(db, found);
            var version = Schemes.Change(
                db, found, sent.Rules.Scheme, http.User.Identity?.Name ?? "", sent.Why.Trim() is { Length: > 0 } why ? why : "changed among the ground rules", clock.GetCurrentInstant());
            found.Rules = RulesJson.Difference(ClassRules.Default, sent.Rules);
            await db.SaveChangesAsync();
            await transaction.CommitAsync();
            openLessons.Forget(lesson => lesson.ClassId == id);
            // What was settled keeps the scheme it was settled with.
            return TypedResults.Ok(new RulesStored(await ViewOf(found, db), 0, 0, version == before ? null : version));
        }).WithName("ChangeClassRules");

        api.MapGet("/lessons/{id:guid}/rules", async Task<Results<Ok<RulesView>, NotFound>> (Guid id, SchoolDb db) =>
            await db.Lessons.AsNoTracking().Include(l => l.Class).FirstOrDefaultAsync(l => l.Id == id) is { } found
                ? TypedResults.Ok(ViewOf(found, Schemes.Of(db, found)))
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

            var scheme = Schemes.Of(db, found);
            found.Rules = RulesJson.Difference(RulesJson.Of(found.Class!, scheme), sent.Rules);
            var (lessons, scores) = await Summaries.Renew(db, lesson => lesson.Id == id);
            openLessons.Forget(lesson => lesson.Id == id);
            return TypedResults.Ok(new RulesStored(ViewOf(found, scheme), lessons, scores, null));
        }).WithName("ChangeLessonRules");
    }

    private static async Task<RulesView> ViewOf(SchoolClass found, SchoolDb db)
    {
        var rules = RulesJson.Of(found);
        return new RulesView(
            found.Name, rules, ClassRules.Default, RuleExamples.Of(rules), MarkdownText.Render(rules.Rubric),
            await db.Lessons.CountAsync(l => l.ClassId == found.Id && l.Stage == LessonStage.Settled), RulesJson.CannotBeRead(found));
    }

    private static RulesView ViewOf(Lesson found, Scheme? scheme)
    {
        var rules = RulesJson.Of(found, found.Class!, scheme);
        return new RulesView(
            found.Title, rules, RulesJson.Of(found.Class!, scheme), RuleExamples.Of(rules), MarkdownText.Render(rules.Rubric),
            found.Stage == LessonStage.Settled ? 1 : 0, RulesJson.CannotBeRead(found.Class!));
    }

    private static ProblemHttpResult? Wrong(RulesSent sent)
    {
        IReadOnlyList<string> problems = [.. sent.Rules.Problems(), .. MarkdownText.Problems(sent.Rules.Rubric).Select(p => $"The rubric: {p}")];
        return problems.Count == 0 ? null : Refused.Because($"{string.Join(" ", problems)} Nothing was stored.");
    }
}
