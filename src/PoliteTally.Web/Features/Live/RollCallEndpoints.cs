using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>Who was where at one moment of a lesson.</summary>
public sealed record RollCallView(Instant At, IReadOnlyList<RollCallLine> Lines);

/// <summary>A student at that moment, and in words how that is known.</summary>
public sealed record RollCallLine(Guid Student, string Called, string Rest, string? Number, Whereabouts Whereabouts, string Words);

internal static class RollCallEndpoints
{
    public static void MapRollCall(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/roll-call", async Task<Results<Ok<RollCallView>, ProblemHttpResult>> (
            OwnLesson own, long? at, IClock clock) =>
        {
            var open = own.Open;
            return ViewAt(at, open, clock) is { } view ? TypedResults.Ok(view) : WrongMoment();
        }).WithName("GetRollCall");

        api.MapGet("/lessons/{id:guid}/roll-call.csv", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
            OwnLesson own, long? at, SchoolDb db, Owner owner, IClock clock) =>
        {
            var open = own.Open;
            if (ViewAt(at, open, clock) is not { } view)
            {
                return WrongMoment();
            }

            var moment = view.At.InZone(await LessonEndpoints.ZoneOf(db, owner)).LocalDateTime;
            var time = moment.ToString("uuuu-MM-dd HH:mm:ss", System.Globalization.CultureInfo.InvariantCulture);
            var rows = view.Lines.Select(l => (IReadOnlyList<string>)[time, l.Number ?? "", l.Rest, l.Called, WordOf(l.Whereabouts), l.Words]);
            return TypedResults.File(
                SafeCsv.Write(["Time", "Student number", "Family name", "Called", "Status", "How it is known"], rows), "text/csv",
                $"roll-call-lesson-{open.Lesson.Number}-{moment.ToString("HHmm", System.Globalization.CultureInfo.InvariantCulture)}.csv");
        }).WithName("GetRollCallFile");
    }

    /// <summary>What could be known at that moment: entries that happened until then, the lesson as far as it had come.</summary>
    private static RollCallView? ViewAt(long? asked, OpenLesson open, IClock clock)
    {
        var now = clock.GetCurrentInstant();
        var moment = asked is { } given ? given is >= 0 and <= 4102444800000 ? Instant.FromUnixTimeMilliseconds(given) : (Instant?)null : now;
        if (moment is not { } at || at > now)
        {
            return null;
        }

        var entries = open.State.Entries;
        // Whose a name is counts for the past, too; everything else only from when it happened.
        var state = LessonState.Fold(entries.Where(e => e.HappenedAt <= at || e.Act is NameMatched or Struck), open.Merged);
        // A lesson that has not got further than this moment: a stretch that goes on is open, and counts up to here.
        var times = open.Times with { ActualEnd = null, PlannedEnd = Instant.Max(open.Times.PlannedStart, Instant.Min(open.Times.PlannedEnd, at)) };
        return new RollCallView(at,
        [
            .. open.Roster.Select(s =>
            {
                var attendance = state.AttendanceOf(s.Name.Id, times, open.Rules.Scheme.Attendance);
                return new RollCallLine(
                    s.Name.Id, ShortNames.CalledName(s.Name), s.Name.Family, s.Name.Number,
                    LiveRow.WhereaboutsOf(attendance, LessonStage.Live), attendance.InWords());
            }),
        ]);
    }

    private static ProblemHttpResult WrongMoment() => Refused.Because("A roll call shows a moment that has been: milliseconds since 1970, not in the future.");

    private static string WordOf(Whereabouts whereabouts) => whereabouts switch
    {
        Whereabouts.Left => "gone",
        _ => whereabouts.ToString().ToLowerInvariant(),
    };
}
