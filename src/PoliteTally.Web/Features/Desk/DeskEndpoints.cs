using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Objections;
using PoliteTally.Web.Features.Plans;

namespace PoliteTally.Web.Features.Desk;

/// <summary>The day of a teacher: what is on, what waits, what comes.</summary>
/// <param name="ToSettle">Lessons whose register is due.</param>
/// <param name="NotHandedIn">Registers that the desk of the school did not take, or that are on their way still.</param>
/// <param name="Confirmed">How many registers of today are confirmed and were never handed in.</param>
/// <param name="NotReady">Lessons within a week whose plan lacks something.</param>
/// <param name="Objections">What students say is wrong in their scores, and nobody has answered.</param>
/// <param name="WordsNotSent">Words ahead that did not go, within a week.</param>
public sealed record Desk(
    Instant Now, string TimeZone, IReadOnlyList<LessonLine> Today, IReadOnlyList<RegisterDue> ToSettle, IReadOnlyList<NotHandedIn> NotHandedIn, int Confirmed,
    IReadOnlyList<NotReady> NotReady, IReadOnlyList<WordNotSent> WordsNotSent, IReadOnlyList<ObjectionLine> Objections, IReadOnlyList<LessonLine> Coming, IReadOnlyList<DeskClass> Classes);

/// <summary>A lesson whose register is to be confirmed, and until when; a drop-in lesson has time.</summary>
public sealed record RegisterDue(LessonLine Lesson, Instant? DueAt);

/// <summary>A register that was handed in and has not arrived.</summary>
public sealed record NotHandedIn(LessonLine Lesson, HandInState State, string Said);

/// <summary>A lesson that is not ready, and the first thing it lacks.</summary>
public sealed record NotReady(LessonLine Lesson, int Missing, string First);

/// <summary>A word ahead that did not go, and why.</summary>
public sealed record WordNotSent(LessonLine Lesson, string Why);

/// <summary>A class on the desk.</summary>
/// <param name="RulesLost">Whether its ground rules cannot be read any more, so that the usual ones count.</param>
public sealed record DeskClass(Guid Id, string Name, int Students, int Settled, bool RulesLost);

internal static class DeskEndpoints
{
    private const int ComingShown = 8;
    private static readonly Duration Week = Duration.FromDays(7);

    public static void MapDesk(this RouteGroupBuilder api) => api.MapGet("/desk", async (SchoolDb db, Owner owner, IClock clock) =>
    {
        var now = clock.GetCurrentInstant();
        var zone = await LessonEndpoints.ZoneOf(db, owner);
        var day = now.InZone(zone).Date;
        var (from, to) = (zone.AtStartOfDay(day).ToInstant(), zone.AtStartOfDay(day.PlusDays(1)).ToInstant());
        var lessons = db.Lessons.AsNoTracking().Include(l => l.Class).Where(l => l.Class!.ArchivedAt == null).OrderBy(l => l.PlannedStart);
        var planned = lessons.Include(l => l.Plan);
        var today = await planned.Where(l => l.Stage == LessonStage.Live || (l.PlannedStart < to && l.PlannedEnd > from)).ToListAsync();
        var ended = await lessons.Where(l => l.Stage == LessonStage.Ended).ToListAsync();
        var coming = await planned.Where(l => l.Stage == LessonStage.Planned && l.PlannedStart >= to && l.CancelledAt == null)
            .Take(ComingShown).ToListAsync();
        var words = await db.WordOfLessons.AsNoTracking().Include(w => w.Lesson).ThenInclude(l => l!.Class)
            .Where(w => (w.State == WordState.NotSent || w.State == WordState.Delayed) && w.At > now - Week).OrderBy(w => w.At).ToListAsync();
        var handedIn = await db.HandIns.AsNoTracking().Include(h => h.Lesson).ThenInclude(l => l!.Class)
            .Where(h => h.State != HandInState.Taken && !db.HandIns.Any(later => later.LessonId == h.LessonId && later.Version > h.Version)).OrderBy(h => h.MadeAt).ToListAsync();
        var settledToday = today.Where(l => l.Stage == LessonStage.Settled && !l.DropIn && l.PlannedStart >= from && l.PlannedStart < to).Select(l => l.Id).ToList();
        var confirmed = settledToday.Count - await db.HandIns.Where(h => settledToday.Contains(h.LessonId)).Select(h => h.LessonId).Distinct().CountAsync();
        var classes = (await db.Classes.AsNoTracking().Where(c => c.ArchivedAt == null).OrderBy(c => c.MadeAt).Select(c => new
        {
            Row = c,
            Students = db.Enrolments.Count(e => e.ClassId == c.Id && e.Stays.Any(s => s.To == null) && e.Student!.MergedIntoId == null),
            Settled = db.Lessons.Count(l => l.ClassId == c.Id && l.Stage == LessonStage.Settled),
        }).ToListAsync()).ConvertAll(c => new DeskClass(c.Row.Id, c.Row.Name, c.Students, c.Settled, RulesJson.CannotBeRead(c.Row)));
        return TypedResults.Ok(new Desk(
            now, zone.Id, Lines(today),
            [.. ended.Select(l => new RegisterDue(LessonLine.Of(l, l.Class!.Name), l.DropIn ? null : RulesJson.Of(l, l.Class!).Register.DueAt(l.PlannedEnd, zone)))],
            [.. handedIn.Select(h => new NotHandedIn(LessonLine.Of(h.Lesson!, h.Lesson!.Class!.Name), h.State, h.Said))], confirmed, NotReady(today.Concat(coming)),
            [.. words.Select(w => new WordNotSent(LessonLine.Of(w.Lesson!, w.Lesson!.Class!.Name), w.Said))],
            await ObjectionEndpoints.Lines(db.Objections.Where(o => o.AnsweredAt == null && o.Lesson!.Class!.ArchivedAt == null), db), Lines(coming), classes));

        IReadOnlyList<LessonLine> Lines(IEnumerable<Lesson> some) => [.. some.Select(l => LessonLine.Of(l, l.Class!.Name))];

        IReadOnlyList<NotReady> NotReady(IEnumerable<Lesson> some) => [.. from lesson in some
            where lesson.Stage == LessonStage.Planned && lesson.CancelledAt is null && lesson.PlannedStart < now + Week
            let missing = PlanViews.ReadyNotes(lesson, db).Where(n => n.Needed).ToList()
            where missing.Count > 0
            select new NotReady(LessonLine.Of(lesson, lesson.Class!.Name), missing.Count, missing[0].Text)];
    }).WithName("GetDesk");
}
