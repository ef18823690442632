using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
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
public sealed record RegisterStands(Instant? DueAt, IReadOnlyList<HandInLine> HandIns, IReadOnlyList<string> Changes, IReadOnlyList<HandInWay> Ways, Instant Now);

/// <summary>A register that was handed in.</summary>
public sealed record HandInLine(int Version, HandInWay Way, HandInState State, string By, Instant MadeAt, Instant At, string Said, string Why);

/// <summary>A wish to hand in a register.</summary>
/// <param name="Why">Why it is amended; needed from the second time on.</param>
/// <param name="After">How many were handed in before, as the window has it; so pressing twice, or in two windows, hands in once.</param>
public sealed record HandInSent(HandInWay Way, string Why, int After);

internal static class RegisterEndpoints
{
    private const int LongestWhy = 300;

    public static void MapRegisters(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/register", async (OwnLesson own, SchoolDb db, RegisterDesk desk, Owner owner, IClock clock) =>
            TypedResults.Ok(await StandsOf(own.Open, db, desk, owner, clock))).WithName("GetRegister");

        api.MapPost("/lessons/{id:guid}/register", async Task<Results<Ok<RegisterStands>, ProblemHttpResult>> (
            Guid id, OwnLesson own, HandInSent sent, SchoolDb db, RegisterDesk desk, RegisterSender sender, Owner owner, HttpContext http, IClock clock) =>
        {
            var open = own.Open;
            var all = await db.HandIns.AsNoTracking().Where(h => h.LessonId == id).OrderByDescending(h => h.Version).ToListAsync();
            var (before, taken) = (all.FirstOrDefault(), all.Find(h => h.State == HandInState.Taken));
            if ((before?.Version ?? 0) > sent.After)
            {
                return TypedResults.Ok(await StandsOf(open, db, desk, owner, clock));
            }

            var marks = RegisterSheet.MarksOf(open);
            var why = sent.Why?.Trim() ?? "";
            if (WhyNot() is { } refused)
            {
                return Refused.Now(refused);
            }

            var now = clock.GetCurrentInstant();
            var one = new HandIn
            {
                Id = Guid.CreateVersion7(),
                LessonId = id,
                Version = (before?.Version ?? 0) + 1,
                Way = sent.Way,
                Marks = RegisterSheet.Written(marks),
                Why = why,
                By = http.User.Identity?.Name ?? "",
                MadeAt = now,
                At = now,
            };
            db.HandIns.Add(one);
            try
            {
                await db.SaveChangesAsync();
            }
            catch (DbUpdateException failure) when (failure.InnerException is Microsoft.Data.Sqlite.SqliteException { SqliteErrorCode: 19 })
            {
                // Another window was quicker.
                db.ChangeTracker.Clear();
                return TypedResults.Ok(await StandsOf(open, db, desk, owner, clock));
            }

            // It is noted; whoever goes away now does not stop it.
            await sender.Send(owner.Id, one.Id, CancellationToken.None);
            db.ChangeTracker.Clear();
            return TypedResults.Ok(await StandsOf(open, db, desk, owner, clock));

            string? WhyNot() =>
                open.Lesson.DropIn ? "A drop-in lesson has no register."
                : open.Lesson.Stage != LessonStage.Settled ? "Confirm the register first."
                : !WaysOf(open, desk).Contains(sent.Way) ? "There is no such way to hand in here. Save the register as a file."
                : why.Length > LongestWhy ? $"The reason has at most {LongestWhy} letters."
                : before is { State: HandInState.Waiting or HandInState.Going or HandInState.InDoubt } ? "The one before is still on its way. This one goes when it has arrived."
                : taken is not null && RegisterChange.Between(RegisterSheet.Read(taken.Marks), marks).Count == 0 ? "It was handed in, and nothing has changed since."
                : taken is not null && why.Length == 0 ? "Say why it is amended."
                : null;
        }).WithName("HandInRegister").RequireRateLimiting(Limits.Files);

        api.MapGet("/lessons/{id:guid}/register.csv", async (Guid id, OwnLesson own, SchoolDb db, Owner owner) =>
            TypedResults.File(RegisterSheet.Table([await SheetOf(own.Open, db, owner)]), "text/csv", $"register-{own.Open.Lesson.PlannedStart.InUtc().Date:uuuu-MM-dd}.csv")).WithName("SaveRegister");

        api.MapGet("/registers.csv", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (string day, SchoolDb db, OpenLessons openLessons, Owner owner) =>
        {
            if (LocalDatePattern.Iso.Parse(day) is not { Success: true, Value: { Year: > 1900 and < 2200 } date })
            {
                return TypedResults.Problem("A day is written as 2026-11-23.", statusCode: StatusCodes.Status400BadRequest);
            }

            var zone = await LessonEndpoints.ZoneOf(db, owner);
            var (from, to) = (zone.AtStartOfDay(date).ToInstant(), zone.AtStartOfDay(date.PlusDays(1)).ToInstant());
            var lessons = await db.Lessons.AsNoTracking().Where(l => l.Stage == LessonStage.Settled && !l.DropIn && l.PlannedStart >= from && l.PlannedStart < to)
                .OrderBy(l => l.PlannedStart).Select(l => l.Id).ToListAsync();
            var sheets = new List<RegisterSheet>();
            foreach (var lesson in lessons)
            {
                sheets.Add(await SheetOf((await openLessons.Find(owner.Id, lesson))!, db, owner));
            }

            return TypedResults.File(RegisterSheet.Table(sheets), "text/csv", $"registers-{day}.csv");
        }).WithName("SaveRegistersOfDay").RequireRateLimiting(Limits.Files);
    }

    private static async Task<RegisterSheet> SheetOf(OpenLesson open, SchoolDb db, Owner owner)
    {
        var lesson = await db.Lessons.AsNoTracking().Include(l => l.Class).SingleAsync(l => l.Id == open.Lesson.Id);
        var now = new HandIn { Marks = RegisterSheet.Written(RegisterSheet.MarksOf(open)), By = "" };
        return RegisterSheet.Of(now, null, lesson, open.Rules.Register, await LessonEndpoints.ZoneOf(db, owner));
    }

    private static IReadOnlyList<HandInWay> WaysOf(OpenLesson open, RegisterDesk desk) =>
        [.. desk.Exists ? [HandInWay.Desk] : Array.Empty<HandInWay>(), .. open.Rules.Register.MailTo.Length > 0 ? [HandInWay.Mail] : Array.Empty<HandInWay>()];

    private static async Task<RegisterStands> StandsOf(OpenLesson open, SchoolDb db, RegisterDesk desk, Owner owner, IClock clock)
    {
        var handIns = await db.HandIns.AsNoTracking().Where(h => h.LessonId == open.Lesson.Id).OrderByDescending(h => h.Version).ToListAsync();
        var last = handIns.Find(h => h.State == HandInState.Taken);
        return new RegisterStands(
            open.Lesson.DropIn ? null : open.Rules.Register.DueAt(open.Lesson.PlannedEnd, await LessonEndpoints.ZoneOf(db, owner)),
            [.. handIns.Select(h => new HandInLine(h.Version, h.Way, h.State, h.By, h.MadeAt, h.At, h.Said, h.Why))],
            last is null ? [] : [.. RegisterChange.Between(RegisterSheet.Read(last.Marks), RegisterSheet.MarksOf(open)).Select(c => c.InWords)],
            WaysOf(open, desk), clock.GetCurrentInstant());
    }
}
