using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Register;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Register;

/// <summary>How it stands with the register of a lesson.</summary>
/// <param name="DueAt">When it is due; null of a drop-in lesson, which has none.</param>
/// <param name="HandIns">What was handed in, the newest first.</param>
/// <param name="Changes">What changed since it was handed in, in words.</param>
/// <param name="Ways">The ways there are.</param>
/// <param name="Past">What was done to it, by whom, the first first.</param>
public sealed record RegisterStands(
    Instant? DueAt, IReadOnlyList<HandInLine> HandIns, IReadOnlyList<string> Changes, IReadOnlyList<HandInWay> Ways, Instant Now, IReadOnlyList<RegisterPast> Past);

/// <summary>A register that was handed in.</summary>
public sealed record HandInLine(int Version, HandInWay Way, HandInState State, string By, Instant MadeAt, Instant At, string Said, string Why);

/// <summary>A wish to hand in a register.</summary>
/// <param name="Why">Why it is amended; needed from the second time on.</param>
/// <param name="After">How many were handed in before, as the window has it; so pressing twice, or in two windows, hands in once.</param>
public sealed record HandInSent(HandInWay Way, string Why, int After);

/// <summary>A register of a day that was handed in with the others.</summary>
/// <param name="State">How it stands with it; null if it could not be handed in.</param>
/// <param name="Said">What the desk said, or why it could not be handed in.</param>
public sealed record RegisterOfDay(LessonLine Lesson, HandInState? State, string Said);

internal static class RegisterEndpoints
{
    public static void MapRegisters(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/register", async (OwnLesson own, SchoolDb db, HandingIn handing, Owner owner, IClock clock) =>
            TypedResults.Ok(await StandsOf(own.Open, db, handing, owner, clock))).WithName("GetRegister");

        api.MapPost("/lessons/{id:guid}/register", async Task<Results<Ok<RegisterStands>, ProblemHttpResult>> (
            Guid id, OwnLesson own, HandInSent sent, SchoolDb db, HandingIn handing, Owner owner, HttpContext http, IClock clock) =>
            await handing.HandIn(own.Open, sent, http.User.Identity?.Name ?? "") is { } refused
                ? Refused.Now(refused)
                : TypedResults.Ok(await StandsOf(own.Open, db, handing, owner, clock))).WithName("HandInRegister").RequireRateLimiting(Limits.Files);

        api.MapPost("/registers", async Task<Results<Ok<List<RegisterOfDay>>, ProblemHttpResult>> (
            string day, SchoolDb db, HandingIn handing, OpenLessons openLessons, Owner owner, HttpContext http) =>
        {
            if (await LessonsOf(day, db, owner) is not { } lessons)
            {
                return Refused.NoDay();
            }

            var handed = new List<RegisterOfDay>();
            foreach (var open in await Opened(lessons, openLessons, owner))
            {
                var all = await handing.Before(open.Lesson.Id);
                // What was handed in once is amended with a reason, lesson by lesson.
                if (all.Any(h => h.State == HandInState.Taken))
                {
                    continue;
                }

                var refused = handing.WaysOf(open) is [var way, ..]
                    ? await handing.HandIn(open, new HandInSent(way, "", all.Count > 0 ? all[0].Version : 0), http.User.Identity?.Name ?? "")
                    : "There is no way to hand in here. Save the register as a file.";
                var last = refused is null ? (await handing.Before(open.Lesson.Id))[0] : null;
                handed.Add(new RegisterOfDay(LessonLine.Of(open.Lesson, open.ClassName), last?.State, refused ?? last?.Said ?? ""));
            }

            return TypedResults.Ok(handed);
        }).WithName("HandInDay").RequireRateLimiting(Limits.Files);

        api.MapGet("/lessons/{id:guid}/register.csv", async (Guid id, OwnLesson own, SchoolDb db, Owner owner) =>
            TypedResults.File(RegisterSheet.Table([await SheetOf(own.Open, db, owner)]), "text/csv", $"register-{own.Open.Lesson.PlannedStart.InUtc().Date:uuuu-MM-dd}.csv")).WithName("SaveRegister");

        api.MapGet("/registers.csv", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (string day, SchoolDb db, OpenLessons openLessons, Owner owner) =>
        {
            if (await LessonsOf(day, db, owner) is not { } lessons)
            {
                return Refused.NoDay();
            }

            var sheets = new List<RegisterSheet>();
            foreach (var open in await Opened(lessons, openLessons, owner))
            {
                sheets.Add(await SheetOf(open, db, owner));
            }

            return TypedResults.File(RegisterSheet.Table(sheets), "text/csv", $"registers-{day}.csv");
        }).WithName("SaveRegistersOfDay").RequireRateLimiting(Limits.Files);
    }

    /// <summary>The settled lessons of a day; null if it is no day.</summary>
    private static async Task<IReadOnlyList<Guid>?> LessonsOf(string day, SchoolDb db, Owner owner)
    {
        if (SentText.Day(day) is not { } date)
        {
            return null;
        }

        var zone = await LessonEndpoints.ZoneOf(db, owner);
        var (from, to) = (zone.AtStartOfDay(date).ToInstant(), zone.AtStartOfDay(date.PlusDays(1)).ToInstant());
        return await db.Lessons.AsNoTracking().Where(l => l.Stage == LessonStage.Settled && !l.DropIn && l.PlannedStart >= from && l.PlannedStart < to)
            .OrderBy(l => l.PlannedStart).Select(l => l.Id).ToListAsync();
    }

    private static async Task<IReadOnlyList<OpenLesson>> Opened(IReadOnlyList<Guid> lessons, OpenLessons openLessons, Owner owner)
    {
        var opened = new List<OpenLesson>();
        foreach (var lesson in lessons)
        {
            opened.Add((await openLessons.Find(owner.Id, lesson))!);
        }

        return opened;
    }

    private static async Task<RegisterSheet> SheetOf(OpenLesson open, SchoolDb db, Owner owner)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Class).SingleAsync(l => l.Id == open.Lesson.Id);
        var now = new HandIn { Marks = OtherJson.Write(RegisterSheet.MarksOf(open)), By = "" };
        return RegisterSheet.Of(now, null, lesson, open.Rules.Register, await LessonEndpoints.ZoneOf(db, owner));
    }

    private static async Task<RegisterStands> StandsOf(OpenLesson open, SchoolDb db, HandingIn handing, Owner owner, IClock clock)
    {
        var handIns = await handing.Before(open.Lesson.Id);
        var last = handIns.FirstOrDefault(h => h.State == HandInState.Taken);
        return new RegisterStands(
            open.Lesson.DropIn ? null : open.Rules.Register.DueAt(open.Lesson.PlannedEnd, await LessonEndpoints.ZoneOf(db, owner)),
            [.. handIns.Select(h => new HandInLine(h.Version, h.Way, h.State, h.By, h.MadeAt, h.At, h.Said, h.Why))],
            last is null ? [] : [.. RegisterChange.Between(OtherJson.ReadMarks(last.Marks), RegisterSheet.MarksOf(open)).Select(c => c.InWords)],
            handing.WaysOf(open), clock.GetCurrentInstant(), RegisterHistory.Of(open, handIns));
    }
}
