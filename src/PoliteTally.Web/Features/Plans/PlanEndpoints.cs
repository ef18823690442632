using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Plans;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Plans;

/// <summary>A changed plan.</summary>
/// <param name="Version">The version it began from.</param>
/// <param name="Origin">The plan of that version.</param>
/// <param name="Plan">The plan as it is to be.</param>
public sealed record PlanSent(int Version, Plan Origin, Plan Plan);

/// <summary>A plan that was stored.</summary>
/// <param name="Merged">Whether another window had changed it meanwhile, so that both changes were brought together.</param>
/// <param name="Conflicts">Where both changed the same thing: what was sent stands, and what the other wrote is here.</param>
public sealed record PlanStored(PlanView View, bool Merged, IReadOnlyList<MergeConflict> Conflicts);

/// <summary>The lesson to copy a plan from.</summary>
public sealed record CopyFrom(Guid Lesson);

/// <summary>A text to look at.</summary>
public sealed record MarkdownSent(string Text);

/// <summary>A text, rendered; or what is wrong with it.</summary>
public sealed record MarkdownLook(string Html, IReadOnlyList<string> Problems);

internal static class PlanEndpoints
{
    private const int Tries = 8;

    public static void MapPlans(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/plan", async Task<Results<Ok<PlanView>, NotFound>> (Guid id, SchoolDb db) =>
            await LessonOf(id, db) is { } lesson ? TypedResults.Ok(PlanViews.Of(lesson, db)) : TypedResults.NotFound()).WithName("GetPlan");

        api.MapPut("/lessons/{id:guid}/plan", async Task<Results<Ok<PlanStored>, NotFound, ProblemHttpResult>> (
            Guid id, PlanSent sent, SchoolDb db, OpenLessons openLessons) =>
        {
            if (await LessonOf(id, db) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            return WhyNot(lesson, sent.Plan) is { } why ? why : await Store(lesson, sent, db, openLessons);
        }).WithName("ChangePlan");

        api.MapPost("/lessons/{id:guid}/plan/copy", async Task<Results<Ok<PlanStored>, NotFound, ProblemHttpResult>> (
            Guid id, CopyFrom copy, SchoolDb db, OpenLessons openLessons) =>
        {
            if (await LessonOf(id, db) is not { } lesson || await LessonOf(copy.Lesson, db) is not { } from)
            {
                return TypedResults.NotFound();
            }

            var plan = Copied(PlanJson.Of(from), lesson, db);
            return WhyNot(lesson, plan) is { } why ? why : await Store(lesson, Instead(lesson, plan), db, openLessons);
        }).WithName("CopyPlan");

        api.MapGet("/lessons/{id:guid}/plan.json", async Task<Results<FileContentHttpResult, NotFound>> (
            Guid id, SchoolDb db, PictureFolder pictures) =>
            await LessonOf(id, db) is { } lesson
                ? TypedResults.File(
                    await PlanDocument.Write(PlanJson.Of(lesson), lesson.Title, db, pictures), "application/json", $"plan-lesson-{lesson.Number}.json")
                : TypedResults.NotFound()).WithName("GetPlanFile");

        api.MapPost("/lessons/{id:guid}/plan/file", async Task<Results<Ok<PlanStored>, NotFound, ProblemHttpResult>> (
            Guid id, HttpRequest request, SchoolDb db, OpenLessons openLessons, PictureFolder pictures, IClock clock) =>
        {
            if (await LessonOf(id, db) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            var sent = await SentFile.From(request);
            var document = PlanDocument.Read(sent.Bytes);
            if (WhyNot(lesson, document.Plan) is { } why)
            {
                return why;
            }

            var plan = await document.TakeIn(db, pictures, clock.GetCurrentInstant(), request.HttpContext.RequestAborted);
            return await Store(lesson, Instead(lesson, Copied(plan, lesson, db)), db, openLessons);
        }).WithName("BringInPlan").RequireRateLimiting(Limits.Files);

        api.MapPost("/markdown", (MarkdownSent sent) => TypedResults.Ok(
            MarkdownText.Problems(Limited(sent.Text)) is { Count: > 0 } problems
                ? new MarkdownLook("", problems)
                : new MarkdownLook(MarkdownText.Render(sent.Text), []))).WithName("LookAtMarkdown");
    }

    private static string Limited(string text) => text.Length <= Core.GroundRules.ClassRules.LongestText
        ? text
        : throw new FormatProblem("This text is longer than 10,000 characters.");

    private static Task<Lesson?> LessonOf(Guid id, SchoolDb db) =>
        db.Lessons.AsNoTracking().Include(l => l.Class).Include(l => l.Plan).FirstOrDefaultAsync(l => l.Id == id);

    private static Plan Copied(Plan plan, Lesson to, SchoolDb db) =>
        plan.CopiedFor(Guid.CreateVersion7, Rosters.Of(db, to).Select(s => s.Name.Id).ToHashSet());

    private static PlanSent Instead(Lesson lesson, Plan plan) => new(lesson.PlanVersion, PlanJson.Of(lesson), plan);

    private static ProblemHttpResult? WhyNot(Lesson lesson, Plan plan)
    {
        if (lesson.Stage == LessonStage.Settled)
        {
            return Refused.Now("This lesson is settled, and its plan stays as it was. Copy it to another lesson to work on it.");
        }

        IReadOnlyList<string> problems =
        [
            .. plan.Problems(),
            .. plan.Stages.SelectMany((s, i) => MarkdownText.Problems(s.Directions).Select(p => $"Stage {i + 1}, directions: {p}")),
        ];
        return problems.Count == 0 ? null : Refused.Because($"{string.Join(" ", problems.Take(5))} Nothing was stored.");
    }

    /// <summary>
    /// Stores a plan if nobody stored another meanwhile. Otherwise both changes are brought together over the plan that both
    /// began from, and that is stored; so that the second window is told and neither loses anything.
    /// </summary>
    private static async Task<Results<Ok<PlanStored>, NotFound, ProblemHttpResult>> Store(Lesson lesson, PlanSent sent, SchoolDb db, OpenLessons openLessons)
    {
        for (var tries = 0; tries < Tries; tries++)
        {
            var (plan, conflicts) = sent.Version == lesson.PlanVersion
                ? (sent.Plan, [])
                : Merge(sent.Origin, sent.Plan, PlanJson.Of(lesson));
            if (WhyNot(lesson, plan) is { } why)
            {
                return why;
            }

            if (await Put(plan, lesson, db))
            {
                // The live lesson shows stages, points and statements of it.
                openLessons.Forget(l => l.Id == lesson.Id);
                var stored = (await LessonOf(lesson.Id, db))!;
                return TypedResults.Ok(new PlanStored(PlanViews.Of(stored, db), sent.Version != lesson.PlanVersion, conflicts));
            }

            lesson = (await LessonOf(lesson.Id, db))!;
        }

        return Refused.Now("Too many windows change this plan at once. Try again; nothing of yours is lost here.");
    }

    /// <returns>Whether it was put in place; false if another was meanwhile.</returns>
    private static async Task<bool> Put(Plan plan, Lesson lesson, SchoolDb db)
    {
        await using var transaction = await db.Database.BeginTransactionAsync();
        if (await db.Lessons.Where(l => l.Id == lesson.Id && l.PlanVersion == lesson.PlanVersion)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.Prepared, !plan.IsEmpty).SetProperty(l => l.PlanVersion, lesson.PlanVersion + 1)) == 0)
        {
            return false;
        }

        await db.LessonPlans.Where(p => p.LessonId == lesson.Id).ExecuteDeleteAsync();
        if (!plan.IsEmpty)
        {
            db.LessonPlans.Add(new LessonPlan { LessonId = lesson.Id, Document = PlanJson.Write(plan) });
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }

        await transaction.CommitAsync();
        return true;
    }

    private static (Plan Plan, IReadOnlyList<MergeConflict> Conflicts) Merge(Plan origin, Plan mine, Plan theirs)
    {
        var (merged, conflicts) = JsonMerge.Of(Node(origin), Node(mine), Node(theirs));
        return (PlanJson.ReadPlan(merged!.ToJsonString()), conflicts);

        static JsonNode? Node(Plan plan) => JsonNode.Parse(PlanJson.Write(plan));
    }
}
