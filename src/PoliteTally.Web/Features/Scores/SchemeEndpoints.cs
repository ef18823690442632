using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Scores;

internal static class SchemeEndpoints
{
    private const int LongestWhy = 300;

    public static void MapSchemes(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/scheme", async (Guid id, OwnClass own, SchoolDb db) => TypedResults.Ok(await SchemeView.Of(own.Row, db))).WithName("GetScheme");

        api.MapPost("/classes/{id:guid}/scheme/try", async Task<Results<Ok<SchemeCompared>, ProblemHttpResult>> (Guid id, OwnClass own, SchemeTried sent, SchoolDb db) =>
        {
            if (Wrong(sent.Scheme) is { } wrong)
            {
                return wrong;
            }

            var term = await TermSheet.Of(own.Row, db, figuresOnly: true);
            var rules = RulesJson.Of(own.Row);
            return TypedResults.Ok(SchemeCompared.Of(
                BeforeAfter.Of(Trial.Of(term, own.Row, sent.Scheme, sent.Lessons.ToHashSet(), db), rules.Scheme, sent.Scheme), term, rules with { Scheme = sent.Scheme }));
        }).WithName("TryScheme");

        api.MapPost("/classes/{id:guid}/scheme", async Task<Results<Ok<SchemeStored>, NotFound, ProblemHttpResult>> (
            Guid id, SchemeSent sent, SchoolDb db, OpenLessons openLessons, AcrossLessons across, HttpContext http, IClock clock) =>
        {
            if (await db.Classes.FirstOrDefaultAsync(c => c.Id == id) is not { } found)
            {
                return TypedResults.NotFound();
            }

            if ((Wrong(sent.Scheme) ?? WrongWhy(sent.Why)) is { } wrong)
            {
                return wrong;
            }

            var by = http.User.Identity?.Name ?? "";
            int version;
            await using (var transaction = await db.Database.BeginTransactionAsync())
            {
                var newest = Schemes.Newest(db, found);
                if (newest != sent.After)
                {
                    return Refused.Now($"Another window has made version {newest} of the scheme meanwhile. Look at it, then change what you want to change. Nothing was stored.");
                }

                version = Schemes.Change(db, found, sent.Scheme, by, sent.Why.Trim(), clock.GetCurrentInstant());
                await db.SaveChangesAsync();
                await transaction.CommitAsync();
            }

            openLessons.Forget(lesson => lesson.ClassId == id);
            var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == id && l.Stage == LessonStage.Settled && sent.Lessons.Contains(l.Id) && l.ScoredBy != version)
                .OrderBy(l => l.PlannedStart).Select(l => l.Id).ToListAsync();
            Guid? together = lessons.Count == 0 ? null : (await across.Note(by, lessons, new ScoredAnew(version))).Together;
            return TypedResults.Ok(new SchemeStored(await SchemeView.Of(found, db), together, lessons.Count));
        }).WithName("ChangeScheme");

        api.MapPost("/classes/{id:guid}/scheme/take-back", async (
            Guid id, OwnClass own, ScoringTakenBack sent, SchoolDb db, AcrossLessons across, HttpContext http) =>
        {
            await across.TakeBack(http.User.Identity?.Name ?? "", id, typeof(ScoredAnew), sent.Together);
            return TypedResults.Ok(await SchemeView.Of(own.Row, db));
        }).WithName("TakeBackScoring");
    }

    private static ProblemHttpResult? Wrong(Scheme scheme) =>
        scheme.Problems() is { Count: > 0 } problems ? Refused.Because($"{string.Join(" ", problems)} Nothing was stored.") : null;

    private static ProblemHttpResult? WrongWhy(string? why) =>
        string.IsNullOrWhiteSpace(why) ? Refused.Because("Say why the scheme is changed. Nothing was stored.")
        : why.Length > LongestWhy ? Refused.Because($"The reason has at most {LongestWhy} characters. Nothing was stored.") : null;
}
