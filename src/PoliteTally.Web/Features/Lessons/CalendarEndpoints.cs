using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>Some days of the calendar.</summary>
public sealed record CalendarView(string TimeZone, LocalDate Today, bool HasLink, IReadOnlyList<CalendarDay> Days);

/// <summary>A day with its lessons, in order.</summary>
/// <param name="Off">Why there are no lessons on it; null on other days.</param>
public sealed record CalendarDay(LocalDate Day, string? Off, IReadOnlyList<LessonLine> Lessons);

/// <summary>A calendar file, looked at: what it holds by title, and what would come of it.</summary>
public sealed record CalendarLook(IReadOnlyList<CalendarTitleLook> Titles);

/// <summary>The events of one title.</summary>
/// <param name="Known">How many of its dates are lessons here already.</param>
/// <param name="ClassId">The class that its lessons belong to, if any are here already.</param>
public sealed record CalendarTitleLook(
    string Title, bool Endless, int Dates, Instant? First, Instant? Last, int Minutes, int Cancelled, int Known, Guid? ClassId, IReadOnlyList<string> Problems);

/// <summary>What is to become of the events of a title.</summary>
public sealed record CalendarChoice(string Title, Guid ClassId, bool DropIn);

/// <summary>What bringing in a calendar did.</summary>
public sealed record CalendarBroughtIn(int Made, int Moved, int Cancelled, int Unchanged, int Begun);

/// <summary>What bringing in a calendar did, with the lessons it made, so that they can be taken off again.</summary>
public sealed record CalendarStored(CalendarBroughtIn Counts, IReadOnlyList<Guid> Made);

/// <summary>Lessons to take off the calendar again.</summary>
public sealed record LessonsMade(IReadOnlyList<Guid> Lessons);

/// <summary>How many lessons were taken off, and how many stay because something was prepared for them or noted of them.</summary>
public sealed record LessonsTakenOff(int TakenOff, int Kept);

/// <summary>The private link to the calendar; shown once, since only its fingerprint is kept.</summary>
public sealed record CalendarLink(string Path);

internal static class CalendarEndpoints
{
    private const int MostDaysShown = 62;

    public static void MapCalendar(this RouteGroupBuilder api)
    {
        api.MapGet("/calendar", async Task<Results<Ok<CalendarView>, ProblemHttpResult>> (
            string from, int days, SchoolDb db, Owner owner, IClock clock) =>
        {
            if (LocalDatePattern.Iso.Parse(from) is not { Success: true, Value: { Year: >= 1900 and <= 2200 } first } || days is < 1 or > MostDaysShown)
            {
                return Refused.Because($"Say from which day, such as 2026-11-23, and from 1 to {MostDaysShown} days.");
            }

            var zone = await LessonEndpoints.ZoneOf(db, owner);
            var (start, end) = (zone.AtStartOfDay(first).ToInstant(), zone.AtStartOfDay(first.PlusDays(days)).ToInstant());
            var lessons = await db.Lessons.AsNoTracking().Where(l => l.PlannedStart >= start && l.PlannedStart < end && l.Class!.ArchivedAt == null)
                .Include(l => l.Class).OrderBy(l => l.PlannedStart).ToListAsync();
            var off = (await db.Terms.AsNoTracking().ToListAsync()).SelectMany(OtherJson.DaysOffOf).ToList();
            return TypedResults.Ok(new CalendarView(
                zone.Id, clock.GetCurrentInstant().InZone(zone).Date, await db.Users.AnyAsync(u => u.Id == owner.Id && u.CalendarKeyHash != null),
                [.. Enumerable.Range(0, days).Select(first.PlusDays).Select(day => DayOf(day, zone, off, lessons))]));
        }).WithName("GetCalendar");

        api.MapPost("/calendar/preview", async (HttpRequest request, SchoolDb db, Owner owner) =>
        {
            var sent = await SentFile.From(request);
            var titles = await Read(sent, db, owner);
            var uids = titles.SelectMany(t => t.Dates).Select(d => d.Uid).ToHashSet();
            var known = (await db.Lessons.AsNoTracking().Where(l => l.CalendarUid != null).Select(l => new { l.CalendarUid, l.ClassId }).ToListAsync())
                .Where(l => uids.Contains(l.CalendarUid!)).ToLookup(l => l.CalendarUid!, l => l.ClassId);
            return TypedResults.Ok(new CalendarLook([.. titles.Select(t => new CalendarTitleLook(
                t.Title, t.Endless, t.Dates.Count, t.Dates is [var first, ..] ? first.Start : null, t.Dates is [.., var last] ? last.Start : null,
                t.Dates is [var one, ..] ? (int)(one.End - one.Start).TotalMinutes : 0, t.Dates.Count(d => d.Cancelled),
                t.Dates.Count(d => known.Contains(d.Uid)), t.Dates.SelectMany(d => known[d.Uid]).Select(c => (Guid?)c).FirstOrDefault(), t.Problems))]));
        }).WithName("PreviewCalendar").RequireRateLimiting(Limits.Files);

        api.MapPost("/calendar", async Task<Results<Ok<CalendarStored>, ProblemHttpResult>> (
            HttpRequest request, SchoolDb db, Owner owner, OpenLessons openLessons, IClock clock) =>
        {
            var sent = await SentFile.From(request);
            var choices = sent.Chosen<IReadOnlyList<CalendarChoice>>("choices") ?? [];
            var titles = (await Read(sent, db, owner)).ToDictionary(t => t.Title, StringComparer.Ordinal);
            var classes = (await db.Classes.Select(c => c.Id).ToListAsync()).ToHashSet();
            if (choices.Count == 0 || choices.Any(c => !classes.Contains(c.ClassId) || !titles.ContainsKey(c.Title)))
            {
                return Refused.Because("Say which events belong to which class. Nothing was stored.");
            }

            if (choices.Select(c => titles[c.Title]).FirstOrDefault(t => t.Endless && sent.Decided["until"] is not [{ Length: > 0 }]) is { } endless)
            {
                return Refused.Because($"“{endless.Title}” goes on without end. Say until which day it is to be read. Nothing was stored.");
            }

            if (choices.SelectMany(c => titles[c.Title].Dates).FirstOrDefault(d => (d.End - d.Start).TotalMinutes is < 5 or > 600) is { } odd)
            {
                return Refused.Because($"A date lasts {(odd.End - odd.Start).TotalMinutes:0} min. {LessonEndpoints.HowLong} Nothing was stored.");
            }

            await using var transaction = await db.Database.BeginTransactionAsync();
            var done = await Apply(choices, titles, db, clock.GetCurrentInstant());
            foreach (var inClass in choices.Select(c => c.ClassId).Distinct())
            {
                await LessonNumbers.Renew(inClass, db, openLessons);
            }

            await transaction.CommitAsync();
            openLessons.Forget(lesson => lesson.OwnerId == owner.Id);
            return TypedResults.Ok(done);
        }).WithName("BringInCalendar").RequireRateLimiting(Limits.Files);

        api.MapPost("/calendar/undo", async (LessonsMade made, SchoolDb db, Owner owner, OpenLessons openLessons) =>
        {
            await using var transaction = await db.Database.BeginTransactionAsync();
            var lessons = (await db.Lessons.Where(l => l.CalendarUid != null && l.Stage == LessonStage.Planned).ToListAsync())
                .IntersectBy(made.Lessons, l => l.Id).ToList();
            var noted = (await db.Entries.Where(e => made.Lessons.Contains(e.LessonId)).Select(e => e.LessonId).Distinct().ToListAsync()).ToHashSet();
            var bare = lessons.Where(l => !l.Prepared && !noted.Contains(l.Id)).ToList();
            db.Lessons.RemoveRange(bare);
            foreach (var inClass in bare.Select(l => l.ClassId).Distinct().ToList())
            {
                await LessonNumbers.Renew(inClass, db, openLessons);
            }

            await transaction.CommitAsync();
            openLessons.Forget(lesson => lesson.OwnerId == owner.Id);
            return TypedResults.Ok(new LessonsTakenOff(bare.Count, made.Lessons.Count - bare.Count));
        }).WithName("UndoCalendar");

        api.MapGet("/calendar.ics", async (SchoolDb db, Owner owner, IClock clock) =>
            TypedResults.File(await Written(db, owner.Id, clock), "text/calendar; charset=utf-8", "lessons.ics")).WithName("GetCalendarFile");

        api.MapPost("/calendar/link", async (SchoolDb db, Owner owner) =>
        {
            var key = SecretToken.Make();
            await SetLink(SecretToken.HashOf(key), db, owner);
            return TypedResults.Ok(new CalendarLink($"/calendars/{key}.ics"));
        }).WithName("MakeCalendarLink");

        api.MapDelete("/calendar/link", async (SchoolDb db, Owner owner) =>
        {
            await SetLink(null, db, owner);
            return TypedResults.NoContent();
        }).WithName("RevokeCalendarLink");
    }

    /// <summary>The calendar behind its private link: whoever has the link may read it, and nothing else.</summary>
    public static void MapPrivateCalendar(this IEndpointRouteBuilder app) =>
        app.MapGet("/calendars/{key:length(20,64)}.ics", async Task<Results<FileContentHttpResult, NotFound>> (
            string key, SchoolFile file, IClock clock) =>
        {
            var hash = SecretToken.HashOf(key);
            await using var anybody = file.Open(Guid.Empty);
            if (await anybody.Users.Where(u => u.CalendarKeyHash == hash).Select(u => (Guid?)u.Id).FirstOrDefaultAsync() is not { } owner)
            {
                return TypedResults.NotFound();
            }

            await using var db = file.Open(owner);
            return TypedResults.File(await Written(db, owner, clock), "text/calendar; charset=utf-8");
        }).RequireRateLimiting(Limits.SignIn).ExcludeFromDescription();

    private static CalendarDay DayOf(LocalDate day, DateTimeZone zone, List<Core.Calendar.DaysOff> off, List<Lesson> lessons)
    {
        var (from, to) = (zone.AtStartOfDay(day).ToInstant(), zone.AtStartOfDay(day.PlusDays(1)).ToInstant());
        return new CalendarDay(
            day, off.Find(o => o.Has(day))?.Name,
            [.. lessons.Where(l => l.PlannedStart >= from && l.PlannedStart < to).Select(l => LessonLine.Of(l, l.Class!.Name))]);
    }

    private static async Task<IReadOnlyList<CalendarTitle>> Read(SentFile sent, SchoolDb db, Owner owner)
    {
        LocalDate? until = sent.Decided["until"] is [{ Length: > 0 } text]
            ? LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value : throw new FormatProblem("The last day is not a day such as 2027-06-30.")
            : null;
        var zone = await LessonEndpoints.ZoneOf(db, owner);
        using var budget = ReadingBudget.Begin(sent.Gone);
        return CalendarFile.Read(sent.Bytes, zone, until);
    }

    private static async Task<CalendarStored> Apply(
        IReadOnlyList<CalendarChoice> choices, Dictionary<string, CalendarTitle> titles, SchoolDb db, Instant now)
    {
        var known = (await db.Lessons.Where(l => l.CalendarUid != null).ToListAsync()).GroupBy(l => l.CalendarUid!).ToDictionary(g => g.Key, g => g.First());
        var made = new List<Guid>();
        var (moved, cancelled, unchanged, begun) = (0, 0, 0, 0);
        foreach (var choice in choices)
        {
            foreach (var date in titles[choice.Title].Dates)
            {
                if (!known.TryGetValue(date.Uid, out var lesson))
                {
                    if (date.Cancelled)
                    {
                        continue;
                    }

                    db.Lessons.Add(lesson = known[date.Uid] = new Lesson
                    {
                        Id = Guid.CreateVersion7(),
                        ClassId = choice.ClassId,
                        CalendarUid = date.Uid,
                        Title = SentText.Line(choice.Title, LessonEndpoints.LongestTitle) ?? "Lesson",
                        PlannedStart = date.Start,
                        PlannedEnd = date.End,
                        DropIn = choice.DropIn,
                        MeetingLink = SentText.Link(date.Link).Address,
                    });
                    made.Add(lesson.Id);
                }
                else if (lesson.Stage != LessonStage.Planned)
                {
                    begun++;
                }
                else
                {
                    // It may have been put back and moved at once.
                    var (putOffOrBack, moves) = (date.Cancelled != lesson.CancelledAt is not null, (lesson.PlannedStart, lesson.PlannedEnd) != (date.Start, date.End));
                    lesson.CancelledAt = putOffOrBack ? date.Cancelled ? now : null : lesson.CancelledAt;
                    (lesson.PlannedStart, lesson.PlannedEnd) = (date.Start, date.End);
                    cancelled += putOffOrBack ? 1 : 0;
                    moved += moves ? 1 : 0;
                    unchanged += putOffOrBack || moves ? 0 : 1;
                }
            }
        }

        return new CalendarStored(new CalendarBroughtIn(made.Count, moved, cancelled, unchanged, begun), made);
    }

    private static async Task<byte[]> Written(SchoolDb db, Guid owner, IClock clock)
    {
        var school = await db.Users.Where(u => u.Id == owner).Select(u => u.School).SingleAsync();
        var lessons = await db.Lessons.AsNoTracking().Where(l => l.Class!.ArchivedAt == null).Include(l => l.Class).OrderBy(l => l.PlannedStart).ToListAsync();
        return CalendarFile.Write(school, lessons.Select(l => new CalendarLesson(
            $"{l.Id}@polite-tally", $"{l.Class!.Name}: {l.Title}", l.PlannedStart, l.PlannedEnd, l.MeetingLink, l.CancelledAt is not null)), clock.GetCurrentInstant());
    }

    private static async Task SetLink(string? hash, SchoolDb db, Owner owner)
    {
        (await db.Users.SingleAsync(u => u.Id == owner.Id)).CalendarKeyHash = hash;
        await db.SaveChangesAsync();
    }
}
