using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Calendar;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>What a lesson that starts now takes.</summary>
public sealed record LessonNow(string? Title, int Minutes);

/// <summary>When and what a lesson is to be, in the zone of the school.</summary>
public sealed record LessonPlanned(string Title, LocalDate Day, LocalTime Time, int Minutes, bool DropIn, string? MeetingLink, bool Cancelled);

internal static class LessonEndpoints
{
    public const int LongestTitle = 100;

    public static void MapLessons(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/lessons", async Task<Results<Ok<LessonLine>, ProblemHttpResult>> (
            Guid id, OwnClass own, LessonNow made, SchoolDb db, Owner owner, LedgerWriter ledger, OpenLessons openLessons, IClock clock) =>
        {
            if (made.Minutes is < 5 or > 600)
            {
                return Refused.Because(HowLong);
            }

            if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.ClassId == id && l.Stage == LessonStage.Live) is { } running)
            {
                return Refused.Now($"Lesson {running.Number} of this class is running. Open it, or end it first.");
            }

            var now = clock.GetCurrentInstant();
            var lesson = new Lesson
            {
                Id = Guid.CreateVersion7(),
                ClassId = id,
                Title = SentText.Line(made.Title, LongestTitle) ?? "",
                PlannedStart = now,
                PlannedEnd = now + Duration.FromMinutes(made.Minutes),
            };
            db.Lessons.Add(lesson);
            await LessonNumbers.Renew(id, db, openLessons);
            if (lesson.Title.Length == 0)
            {
                lesson.Title = $"Lesson {lesson.Number}";
                await db.SaveChangesAsync();
            }

            await ledger.Append(owner.Id, lesson.Id, Source.Tapped, "", [new NewEntry(Guid.CreateVersion7(), now, new LessonStarted())]);
            // Planned ones may have counted as earlier than this; now it has begun.
            await LessonNumbers.Renew(id, db, openLessons);
            return TypedResults.Ok(LessonLine.Of((await db.Lessons.AsNoTracking().FirstAsync(l => l.Id == lesson.Id)), own.Row.Name));
        }).WithName("StartLessonNow");

        api.MapPost("/classes/{id:guid}/lessons/planned", async Task<Results<Ok<LessonLine>, ProblemHttpResult>> (
            Guid id, OwnClass own, LessonPlanned sent, SchoolDb db, Owner owner, OpenLessons openLessons) =>
        {
            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            var lesson = new Lesson { Id = Guid.CreateVersion7(), ClassId = id, Title = "" };
            Write(sent, lesson, await ZoneOf(db, owner));
            db.Lessons.Add(lesson);
            await LessonNumbers.Renew(id, db, openLessons);
            return TypedResults.Ok(LessonLine.Of(lesson, own.Row.Name));
        }).WithName("PlanLesson");

        api.MapPut("/lessons/{id:guid}", async Task<Results<Ok<LessonLine>, NotFound, ProblemHttpResult>> (
            Guid id, LessonPlanned sent, SchoolDb db, Owner owner, LedgerWriter ledger, OpenLessons openLessons, IClock clock) =>
        {
            if (await db.Lessons.Include(l => l.Class).FirstOrDefaultAsync(l => l.Id == id) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            if (WhyNot(sent) is { } why)
            {
                return Refused.Because(why);
            }

            var (zone, before) = (await ZoneOf(db, owner), (lesson.PlannedStart, lesson.PlannedEnd, lesson.DropIn, lesson.CancelledAt is not null));
            var cancelledAt = lesson.CancelledAt;
            Write(sent, lesson, zone);
            lesson.CancelledAt = sent.Cancelled ? cancelledAt ?? clock.GetCurrentInstant() : null;
            if (lesson.Stage != LessonStage.Planned && before != (lesson.PlannedStart, lesson.PlannedEnd, lesson.DropIn, lesson.CancelledAt is not null))
            {
                return Refused.Now("This lesson has begun: its title and link can be changed, not when it was to be.");
            }

            // Somebody put this one somewhere on purpose: the series leaves it there.
            lesson.Moved |= lesson.SeriesId is not null && before.PlannedStart != lesson.PlannedStart;
            await LessonNumbers.Renew(lesson.ClassId, db, openLessons);
            return TypedResults.Ok(LessonLine.Of(lesson, lesson.Class!.Name));
        }).WithName("ChangeLesson");
    }

    /// <summary>What is said of a length that no lesson has.</summary>
    public const string HowLong = "A lesson lasts from 5 to 600 minutes.";

    /// <summary>What is said of a link that a browser would not open.</summary>
    public const string WhatLink = "The link to the meeting begins with https:// or http://, and has at most 500 characters.";

    /// <summary>The time zone of the school.</summary>
    public static async Task<DateTimeZone> ZoneOf(SchoolDb db, Owner owner) =>
        DateTimeZoneProviders.Tzdb[await db.Users.Where(u => u.Id == owner.Id).Select(u => u.TimeZone).SingleAsync()];

    private static string? WhyNot(LessonPlanned sent) => sent switch
    {
        _ when SentText.Line(sent.Title, LongestTitle) is null => $"A lesson needs a title of at most {LongestTitle} letters.",
        { Minutes: < 5 or > 600 } => HowLong,
        { Day.Year: < 2000 or > 2100 } => "The day lies too far off.",
        _ when !SentText.Link(sent.MeetingLink).Right => WhatLink,
        _ => null,
    };

    private static void Write(LessonPlanned sent, Lesson lesson, DateTimeZone zone)
    {
        lesson.Title = sent.Title.Trim();
        var start = WeeklySeries.At(sent.Day, sent.Time, zone);
        // To the minute: who sends back the time that was shown does not move a lesson that began at 09:30:20.
        if (lesson.PlannedStart.ToUnixTimeSeconds() / 60 != start.ToUnixTimeSeconds() / 60
            || (lesson.PlannedEnd - lesson.PlannedStart).TotalMinutes != sent.Minutes)
        {
            (lesson.PlannedStart, lesson.PlannedEnd) = (start, start + Duration.FromMinutes(sent.Minutes));
        }

        lesson.DropIn = sent.DropIn;
        lesson.MeetingLink = SentText.Link(sent.MeetingLink).Address;
    }
}
