using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Demo;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Hosting;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Feed;

/// <summary>How fast the meeting of a demo lesson is to be played: 1 for real time, up to 20.</summary>
public sealed record PlaySpeed(int Speed);

internal static class PlayEndpoints
{
    private const string Meeting = "meeting";
    private const string Students = "students";

    public static void MapPlay(this RouteGroupBuilder api)
    {
        api.MapPost("/lessons/{id:guid}/play", async Task<Results<NoContent, NotFound, ProblemHttpResult>> (
            Guid id, PlaySpeed wanted, StandInPrograms standIns, SchoolDb db, Owner owner, IClock clock) =>
        {
            if (await db.Lessons.FirstOrDefaultAsync(l => l.Id == id) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            if (await WhyNot(lesson, db, owner) is { } why)
            {
                return why;
            }

            if (wanted.Speed is < 1 or > 20)
            {
                return Refused.Because("A meeting is played in real time (1) or up to 20 times faster.");
            }

            var (key, row) = LessonKeys.Make(id, "Played meeting", KeyRights.Feed, clock.GetCurrentInstant());
            db.LessonKeys.Add(row);
            await db.SaveChangesAsync();
            standIns.Start(
                id, Meeting,
                ["--from", InstantPattern.General.Format(lesson.ActualStart ?? lesson.PlannedStart), "--speed", wanted.Speed.ToString(CultureInfo.InvariantCulture)], key);
            return TypedResults.NoContent();
        }).WithName("PlayMeeting").RequireRateLimiting(Limits.Files);

        api.MapDelete("/lessons/{id:guid}/play", (Guid id, StandInPrograms standIns, SchoolDb db) => Stop(id, Meeting, standIns, db)).WithName("StopMeeting");

        api.MapPost("/lessons/{id:guid}/play/students", async Task<Results<NoContent, NotFound, ProblemHttpResult>> (
            Guid id, StandInPrograms standIns, SchoolDb db, Owner owner, OpenLessons openLessons) =>
        {
            if (await db.Lessons.FirstOrDefaultAsync(l => l.Id == id) is not { } lesson)
            {
                return TypedResults.NotFound();
            }

            if (await WhyNot(lesson, db, owner) is { } why)
            {
                return why;
            }

            standIns.Start(id, Students, ["--code", (await LessonCodes.Of(id, db, openLessons))!]);
            return TypedResults.NoContent();
        }).WithName("PlayStudents").RequireRateLimiting(Limits.Files);

        api.MapDelete("/lessons/{id:guid}/play/students", (Guid id, StandInPrograms standIns, SchoolDb db) => Stop(id, Students, standIns, db))
            .WithName("StopStudents");
    }

    private static async Task<ProblemHttpResult?> WhyNot(Lesson lesson, SchoolDb db, Owner owner)
    {
        if (!await db.Users.AnyAsync(u => u.Id == owner.Id && u.Email == DemoSchool.Email) || !StandInPrograms.IsThere)
        {
            return Refused.Because("Only the demo school has stand-ins. A real meeting is connected with a feed token, and real students come in with their passes.");
        }

        return lesson.Stage == LessonStage.Live ? null : Refused.Now("Start the lesson first; then others can take part in it.");
    }

    private static async Task<Results<NoContent, NotFound>> Stop(Guid lesson, string kind, StandInPrograms standIns, SchoolDb db)
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == lesson))
        {
            return TypedResults.NotFound();
        }

        standIns.Stop(lesson, kind);
        return TypedResults.NoContent();
    }
}
