using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>A lesson in a list.</summary>
public sealed record LessonLine(
    Guid Id, Guid ClassId, string ClassName, int Number, string Title, LessonStage Stage, bool DropIn,
    Instant PlannedStart, Instant PlannedEnd)
{
    internal static LessonLine Of(Lesson lesson, string className) => new(
        lesson.Id, lesson.ClassId, className, lesson.Number, lesson.Title, lesson.Stage, lesson.DropIn, lesson.PlannedStart,
        lesson.PlannedEnd);
}

/// <summary>The day of a teacher: what is on, what waits, what comes.</summary>
public sealed record Desk(
    Instant Now, string TimeZone, IReadOnlyList<LessonLine> Today, IReadOnlyList<LessonLine> ToSettle, IReadOnlyList<LessonLine> Coming,
    IReadOnlyList<DeskClass> Classes);

/// <summary>A class on the desk.</summary>
public sealed record DeskClass(Guid Id, string Name, int Students, int Settled);

/// <summary>What a lesson that starts now takes.</summary>
public sealed record LessonNow([property: StringLength(100)] string? Title, int Minutes);

internal static class LessonEndpoints
{
    private const int ComingShown = 5;

    public static void MapLessons(this RouteGroupBuilder api)
    {
        api.MapGet("/desk", async (SchoolDb db, Owner owner, IClock clock) =>
        {
            var now = clock.GetCurrentInstant();
            var zone = await ZoneOf(db, owner);
            var today = now.InZone(zone).Date;
            var (from, to) = (zone.AtStartOfDay(today).ToInstant(), zone.AtStartOfDay(today.PlusDays(1)).ToInstant());
            var lessons = await db.Lessons.AsNoTracking().Include(l => l.Class)
                .Where(l => l.Stage != LessonStage.Settled || l.PlannedEnd > from).OrderBy(l => l.PlannedStart).ToListAsync();
            var classes = await db.Classes.AsNoTracking().OrderBy(c => c.MadeAt).Select(c => new DeskClass(
                c.Id, c.Name, db.Enrolments.Count(e => e.ClassId == c.Id),
                db.Lessons.Count(l => l.ClassId == c.Id && l.Stage == LessonStage.Settled))).ToListAsync();
            return TypedResults.Ok(new Desk(
                now, zone.Id,
                Lines(l => l.Stage == LessonStage.Live || (l.PlannedStart < to && l.PlannedEnd > from)),
                Lines(l => l.Stage == LessonStage.Ended),
                [.. Lines(l => l.Stage == LessonStage.Planned && l.PlannedStart >= to).Take(ComingShown)],
                classes));

            IReadOnlyList<LessonLine> Lines(Func<Lesson, bool> which) =>
                [.. lessons.Where(which).Select(l => LessonLine.Of(l, l.Class!.Name))];
        }).WithName("GetDesk");

        api.MapPost("/classes/{id:guid}/lessons", async Task<Results<Ok<LessonLine>, NotFound, ProblemHttpResult>> (
            Guid id, LessonNow made, SchoolDb db, Owner owner, LedgerWriter ledger, IClock clock) =>
        {
            if (await db.Classes.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id) is not { } inClass)
            {
                return TypedResults.NotFound();
            }

            if (made.Minutes is < 5 or > 600)
            {
                return TypedResults.Problem("A lesson lasts from 5 to 600 minutes.", statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.ClassId == id && l.Stage == LessonStage.Live) is { } running)
            {
                return TypedResults.Problem(
                    $"Lesson {running.Number} of this class is running. Open it, or end it first.", statusCode: StatusCodes.Status409Conflict);
            }

            var now = clock.GetCurrentInstant();
            var number = await db.Lessons.Where(l => l.ClassId == id).MaxAsync(l => (int?)l.Number) + 1 ?? 1;
            var lesson = new Lesson
            {
                Id = Guid.CreateVersion7(),
                ClassId = id,
                Number = number,
                Title = made.Title?.Trim() is { Length: > 0 and <= 100 } title ? title : $"Lesson {number}",
                PlannedStart = now,
                PlannedEnd = now + Duration.FromMinutes(made.Minutes),
            };
            db.Lessons.Add(lesson);
            await db.SaveChangesAsync();
            await ledger.Append(owner.Id, lesson.Id, Source.Tapped, "", [new NewEntry(Guid.CreateVersion7(), now, new LessonStarted())]);
            return TypedResults.Ok(LessonLine.Of((await db.Lessons.AsNoTracking().FirstAsync(l => l.Id == lesson.Id)), inClass.Name));
        }).WithName("StartLessonNow");
    }

    /// <summary>The time zone of the school.</summary>
    public static async Task<DateTimeZone> ZoneOf(SchoolDb db, Owner owner) =>
        DateTimeZoneProviders.Tzdb[await db.Users.Where(u => u.Id == owner.Id).Select(u => u.TimeZone).SingleAsync()];
}
