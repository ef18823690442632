using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Calendar;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>A series of a class, with how many lessons of it are still to come.</summary>
public sealed record SeriesLine(
    Guid Id, string Title, IReadOnlyList<int> Days, int EveryWeeks, LocalTime Time, int Minutes, LocalDate FirstDay, LocalDate LastDay, bool DropIn,
    string? MeetingLink, IReadOnlyList<LocalDate> Except, int Coming)
{
    internal static SeriesLine Of(Series series, int coming) => new(
        series.Id, series.Title, DaysOf(series), series.EveryWeeks, series.Time, series.Minutes, series.FirstDay, series.LastDay,
        series.DropIn, series.MeetingLink, ExceptOf(series), coming);

    private static IReadOnlyList<int> DaysOf(Series series) =>
        [.. series.Days.Split(',').Select(d => int.Parse(d, CultureInfo.InvariantCulture))];

    private static IReadOnlyList<LocalDate> ExceptOf(Series series) =>
        [.. series.Except.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(d => LocalDatePattern.Iso.Parse(d).Value)];
}

/// <summary>A series as it is to be.</summary>
/// <param name="Days">ISO days of the week, from 1 for Monday.</param>
/// <param name="Except">Days on which there is none after all.</param>
public sealed record SeriesSent(
    string Title, IReadOnlyList<int> Days, int EveryWeeks, LocalTime Time, int Minutes, LocalDate FirstDay, LocalDate LastDay, bool DropIn,
    string? MeetingLink, IReadOnlyList<LocalDate> Except);

/// <summary>A day of a series, looked at before it is made.</summary>
/// <param name="Off">Why there is no lesson; null if there is.</param>
public sealed record SeriesDate(LocalDate Day, Instant Start, string? Off);

/// <summary>What happened to the lessons of a series.</summary>
public sealed record SeriesChanged(Guid Id, int Made, int Moved, int Cancelled, int Kept);

internal static class SeriesEndpoints
{
    public static void MapSeries(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/series/preview", async Task<Results<Ok<IReadOnlyList<SeriesDate>>, ProblemHttpResult>> (
            OwnClass own, SeriesSent sent, SchoolDb db, Owner owner) =>
        {
            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            var zone = await LessonEndpoints.ZoneOf(db, owner);
            return TypedResults.Ok<IReadOnlyList<SeriesDate>>(
                [.. RuleOf(sent).On(OtherJson.DaysOffOf(own.Row.Term)).Select(d => new SeriesDate(d.Day, WeeklySeries.At(d.Day, sent.Time, zone), d.Off))]);
        }).WithName("PreviewSeries");

        api.MapPost("/classes/{id:guid}/series", async Task<Results<Ok<SeriesChanged>, ProblemHttpResult>> (
            Guid id, OwnClass own, SeriesSent sent, SchoolDb db, Owner owner, OpenLessons openLessons) =>
        {
            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            var series = new Series { Id = Guid.CreateVersion7(), ClassId = id, Title = "", Days = "" };
            Write(sent, series);
            var zone = await LessonEndpoints.ZoneOf(db, owner);
            var days = DaysOf(sent, own.Row.Term).ToList();
            if (days.Count == 0)
            {
                return Refused.Because("No day is left for a lesson: every one is off or taken out. Nothing was stored.");
            }

            db.Series.Add(series);
            db.Lessons.AddRange(days.Select(day => LessonOn(day, series, zone)));
            await LessonNumbers.Renew(id, db, openLessons);
            return TypedResults.Ok(new SeriesChanged(series.Id, days.Count, 0, 0, 0));
        }).WithName("MakeSeries");

        api.MapPut("/series/{id:guid}", async Task<Results<Ok<SeriesChanged>, NotFound, ProblemHttpResult>> (
            Guid id, SeriesSent sent, SchoolDb db, Owner owner, OpenLessons openLessons, IClock clock) =>
        {
            if (await db.Series.Include(s => s.Class).ThenInclude(c => c!.Term).FirstOrDefaultAsync(s => s.Id == id) is not { } series)
            {
                return TypedResults.NotFound();
            }

            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            var (zone, now) = (await LessonEndpoints.ZoneOf(db, owner), clock.GetCurrentInstant());
            var formerTitle = series.Title;
            Write(sent, series);
            // What has begun, and what somebody moved by itself, stays as it is.
            var lessons = await db.Lessons.Where(l => l.SeriesId == id).ToListAsync();
            var wanted = DaysOf(sent, series.Class!.Term).ToHashSet();
            SetDays(lessons, wanted, zone);
            var (made, moved, cancelled, kept) = (0, 0, 0, 0);
            foreach (var lesson in lessons)
            {
                var day = lesson.SeriesDay!.Value;
                if (lesson.Stage != LessonStage.Planned || lesson.Moved || lesson.PlannedStart <= now)
                {
                    wanted.Remove(day);
                    kept++;
                    continue;
                }

                if (!wanted.Remove(day))
                {
                    cancelled += lesson.CancelledAt is null ? 1 : 0;
                    lesson.CancelledAt ??= now;
                    continue;
                }

                var start = WeeklySeries.At(day, series.Time, zone);
                moved += lesson.PlannedStart != start ? 1 : 0;
                (lesson.PlannedStart, lesson.PlannedEnd) = (start, start + Duration.FromMinutes(series.Minutes));
                (lesson.DropIn, lesson.MeetingLink) = (series.DropIn, series.MeetingLink);
                lesson.Title = lesson.Title == formerTitle ? series.Title : lesson.Title;
            }

            foreach (var day in wanted.Where(d => WeeklySeries.At(d, series.Time, zone) > now).Order())
            {
                db.Lessons.Add(LessonOn(day, series, zone));
                made++;
            }

            await LessonNumbers.Renew(series.ClassId, db, openLessons);
            return TypedResults.Ok(new SeriesChanged(id, made, moved, cancelled, kept));
        }).WithName("ChangeSeries");

        api.MapDelete("/series/{id:guid}", async Task<Results<Ok<SeriesChanged>, NotFound>> (
            Guid id, SchoolDb db, OpenLessons openLessons, IClock clock) =>
            await Cancel(id, clock.GetCurrentInstant(), db, openLessons) is { } done ? TypedResults.Ok(done) : TypedResults.NotFound())
            .WithName("CancelSeries");

        api.MapPost("/series/{id:guid}/restore", async Task<Results<Ok<SeriesChanged>, NotFound>> (
            Guid id, SchoolDb db, OpenLessons openLessons) =>
            await Cancel(id, null, db, openLessons) is { } done ? TypedResults.Ok(done) : TypedResults.NotFound())
            .WithName("RestoreSeries");
    }

    /// <summary>
    /// Gives each lesson from before that was kept the day of the series that it stands for: one that was not moved the day it is on, one that was
    /// moved the nearest day that no other stands for.
    /// </summary>
    private static void SetDays(List<Lesson> lessons, IEnumerable<LocalDate> days, DateTimeZone zone)
    {
        foreach (var lesson in lessons.Where(l => l.SeriesDay is null).OrderBy(l => l.Moved))
        {
            var on = lesson.PlannedStart.InZone(zone).Date;
            lesson.SeriesDay = lesson.Moved
                ? days.Except(lessons.Select(l => l.SeriesDay).OfType<LocalDate>()).OrderBy(d => Math.Abs(Period.DaysBetween(on, d))).Append(on).First()
                : on;
        }
    }

    /// <summary>Cancels what of a series has not begun, or takes the latest cancelling back.</summary>
    private static async Task<SeriesChanged?> Cancel(Guid id, Instant? at, SchoolDb db, OpenLessons openLessons)
    {
        if (await db.Series.FirstOrDefaultAsync(s => s.Id == id) is not { } series)
        {
            return null;
        }

        var lessons = await db.Lessons.Where(l => l.SeriesId == id && l.Stage == LessonStage.Planned).ToListAsync();
        var latest = lessons.Max(l => l.CancelledAt);
        var changed = lessons.Where(l => at is null ? l.CancelledAt is not null && l.CancelledAt == latest : l.CancelledAt is null).ToList();
        foreach (var lesson in changed)
        {
            lesson.CancelledAt = at;
        }

        await LessonNumbers.Renew(series.ClassId, db, openLessons);
        return new SeriesChanged(id, at is null ? changed.Count : 0, 0, at is null ? 0 : changed.Count, lessons.Count - changed.Count);
    }

    /// <summary>The days on which there is a lesson.</summary>
    private static IEnumerable<LocalDate> DaysOf(SeriesSent sent, Term? term) =>
        RuleOf(sent).On(OtherJson.DaysOffOf(term)).Where(d => d.Off is null && !sent.Except.Contains(d.Day)).Select(d => d.Day);

    private static WeeklySeries RuleOf(SeriesSent sent) =>
        new([.. sent.Days.Select(d => (IsoDayOfWeek)d)], sent.EveryWeeks, sent.FirstDay, sent.LastDay);

    private static Lesson LessonOn(LocalDate day, Series series, DateTimeZone zone)
    {
        var start = WeeklySeries.At(day, series.Time, zone);
        return new Lesson
        {
            Id = Guid.CreateVersion7(),
            ClassId = series.ClassId,
            SeriesId = series.Id,
            SeriesDay = day,
            Title = series.Title,
            PlannedStart = start,
            PlannedEnd = start + Duration.FromMinutes(series.Minutes),
            DropIn = series.DropIn,
            MeetingLink = series.MeetingLink,
        };
    }

    private static void Write(SeriesSent sent, Series series)
    {
        (series.Title, series.Days, series.EveryWeeks) = (sent.Title.Trim(), string.Join(',', sent.Days.Distinct().Order()), sent.EveryWeeks);
        (series.Time, series.Minutes, series.FirstDay, series.LastDay) = (sent.Time, sent.Minutes, sent.FirstDay, sent.LastDay);
        series.Except = string.Join(',', sent.Except.Distinct().Order().Select(LocalDatePattern.Iso.Format));
        (series.DropIn, series.MeetingLink) = (sent.DropIn, SentText.Link(sent.MeetingLink).Address);
    }

    private static string? WhyNot(SeriesSent sent) => sent switch
    {
        _ when SentText.Line(sent.Title, LessonEndpoints.LongestTitle) is null => $"Lessons need a title of at most {LessonEndpoints.LongestTitle} letters.",
        { Days.Count: 0 } => "Choose a day of the week.",
        { Except.Count: > WeeklySeries.MostDays } => "More days are taken out than a series can have.",
        _ when sent.Days.Any(d => d is < 1 or > 7) => "A week has days from 1, Monday, to 7, Sunday.",
        { EveryWeeks: < 1 or > 52 } => "A series comes back every 1 to 52 weeks.",
        { Minutes: < 5 or > 600 } => LessonEndpoints.HowLong,
        { FirstDay.Year: < 2000 or > 2100 } => "The first day lies too far off.",
        _ when sent.LastDay < sent.FirstDay => "The last day lies before the first.",
        _ when Period.DaysBetween(sent.FirstDay, sent.LastDay) > WeeklySeries.MostDays => "A series runs over at most five years.",
        _ when !SentText.Link(sent.MeetingLink).Right => LessonEndpoints.WhatLink,
        _ => null,
    };
}
