using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>An attendance list, looked at, with whom its names would be taken for.</summary>
public sealed record AttendanceLook(
    AttendancePreview List, string TimeZone, IReadOnlyList<NameLook> Names, IReadOnlyList<Person> People, bool BroughtInBefore);

/// <summary>A name in an attendance list.</summary>
/// <param name="Beside">What the list gives beside it, where it tells two of one name apart.</param>
public sealed record NameLook(string Name, string Beside, Certainty Certainty, MatchedBy By, Guid? Student);

/// <summary>The teacher's word on a name: a student, not a student, or (neither) asked again.</summary>
public sealed record NameDecisionSent(string Name, Guid? Student, bool NotAStudent, string Beside = "");

internal static class SettlingEndpoints
{
    public static void MapSettling(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/settling", async (OwnLesson own, SchoolDb db, IClock clock) =>
            TypedResults.Ok(await ViewOf(own.Open, db, clock)))
            .WithName("GetSettling");

        api.MapPost("/lessons/{id:guid}/attendance/preview", async (Guid id, OwnLesson own, HttpRequest request, SchoolDb db, Owner owner) =>
        {
            var open = own.Open;
            var sent = await SentFile.From(request);
            var (list, zone) = await Read(sent, open, db, owner);
            var fingerprint = FingerprintOf(sent);
            var matches = open.MatchesOf([.. AttendanceEntries.PeopleOf(list, name => open.MatchOf(name)).Distinct()]);
            var names = open.ShortNames;
            return TypedResults.Ok(new AttendanceLook(
                list, zone.Id, [.. matches.Select(m => new NameLook(m.Shown.Name, m.Shown.Beside, m.Certainty, m.By, m.Student))],
                [.. open.Roster.Select(s => new Person(s.Name.Id, names[s.Name.Id], s.Name.Whole))],
                await db.BroughtIn.AnyAsync(f => f.LessonId == id && f.Fingerprint == fingerprint && f.TakenOutAt == null)));
        }).WithName("PreviewAttendance").RequireRateLimiting(Limits.Files);

        api.MapPost("/lessons/{id:guid}/attendance", async Task<Results<Ok<SettlingView>, ProblemHttpResult>> (
            Guid id, OwnLesson own, HttpRequest request, LedgerWriter ledger, FilesOfLesson files, OpenLessons openLessons, SchoolDb db, Owner owner, IClock clock) =>
        {
            var open = own.Open;
            if (WhyNoFiles(open) is { } notNow)
            {
                return notNow;
            }

            var sent = await SentFile.From(request);
            var (list, _) = await Read(sent, open, db, owner);
            if (list.Problems.Concat(list.Unclear).ToList() is { Count: > 0 } unsettled)
            {
                return TypedResults.Problem(string.Join(" ", unsettled), statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            if (SentFile.StillWrong(list.Rows.Select(l => (l.Row, l.Problems)), sent.LeaveOut) is { } wrong)
            {
                return wrong;
            }

            var now = clock.GetCurrentInstant();
            var people = AttendanceEntries.PeopleOf(list, name => open.MatchOf(name));
            var sightings = AttendanceEntries.Of(id, list, people, open.Times.CountedTo);
            var sure = AttendanceEntries.Sure(id, open.MatchesOf([.. people.Distinct()]), now).ToList();
            // Of whom somebody has said something already, nothing is said again.
            var unsaid = sure.Where(e => e.Act is NameMatched named && open.State.Names.DecisionOn(named.Name, named.Beside) is null);
            var result = (await ledger.Append(owner.Id, id, Source.File, sent.Name, [.. sightings, .. unsaid]))!;
            if (result.Refused.Count > 0)
            {
                return TypedResults.Problem(
                    $"{result.Refused.Count} of its entries do not fit this lesson: {result.Refused[0].Why} The others were kept.",
                    statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            var fingerprint = FingerprintOf(sent);
            var file = await db.BroughtIn.FirstOrDefaultAsync(f => f.LessonId == id && f.Fingerprint == fingerprint);
            if (file is null)
            {
                db.BroughtIn.Add(file = new BroughtIn
                {
                    Id = Guid.CreateVersion7(),
                    LessonId = id,
                    FileName = sent.Name,
                    Fingerprint = fingerprint,
                    Entries = sightings.Count,
                    NotedAt = now,
                });
            }

            // The same file may have been read in another way before.
            file.EntryIds = [.. file.EntryIds.Union(sightings.Concat(sure).Select(e => e.Id))];
            return await files.Count(file, takenOut: null, request.HttpContext.User.Identity?.Name ?? "") is { } refused
                ? refused
                : TypedResults.Ok(await ViewOf((await openLessons.Find(owner.Id, id))!, db, clock));
        }).WithName("BringInAttendance").RequireRateLimiting(Limits.Files);

        api.MapDelete("/lessons/{id:guid}/files/{file:guid}", (Guid id, Guid file, OwnLesson own, FilesOfLesson files, OpenLessons openLessons, SchoolDb db, Owner owner, HttpContext http, IClock clock) =>
            Counted(id, file, own, clock.GetCurrentInstant(), files, openLessons, db, owner, http, clock)).WithName("TakeOutFile");

        api.MapPost("/lessons/{id:guid}/files/{file:guid}", (Guid id, Guid file, OwnLesson own, FilesOfLesson files, OpenLessons openLessons, SchoolDb db, Owner owner, HttpContext http, IClock clock) =>
            Counted(id, file, own, takenOut: null, files, openLessons, db, owner, http, clock)).WithName("PutBackFile");

        api.MapPut("/lessons/{id:guid}/names", async Task<Results<Ok<SettlingView>, NotFound, ProblemHttpResult>> (
            Guid id, OwnLesson own, NameDecisionSent word, LedgerWriter ledger, OpenLessons openLessons, SchoolDb db, Owner owner, HttpContext http, IClock clock) =>
        {
            var open = own.Open;
            var decision = new NameMatched(word.Name ?? "", word.Student) { Beside = word.Beside ?? "" };
            var names = open.State.Names;
            if (!names.All.ContainsKey(names.WhoIs(decision)))
            {
                return TypedResults.NotFound();
            }

            var now = clock.GetCurrentInstant();
            var decides = word.Student is not null || word.NotAStudent;
            IReadOnlyList<NewEntry> entries = decides
                ? [new NewEntry(Guid.CreateVersion7(), now, decision)]
                : [.. WordsOn(names.WhoIs(decision), open.State).Select(e => new NewEntry(Guid.CreateVersion7(), now, new Struck(e)))];
            if (entries.Count > 0)
            {
                var result = (await ledger.Append(owner.Id, id, Source.Tapped, http.User.Identity?.Name ?? "", entries))!;
                if (result.Refused.Count > 0)
                {
                    return TypedResults.Problem(result.Refused[0].Why, statusCode: StatusCodes.Status409Conflict);
                }
            }

            return TypedResults.Ok(await ViewOf((await openLessons.Find(owner.Id, id))!, db, clock));
        }).WithName("DecideName");
    }

    private static async Task<Results<Ok<SettlingView>, NotFound, ProblemHttpResult>> Counted(
        Guid id, Guid file, OwnLesson own, Instant? takenOut, FilesOfLesson files, OpenLessons openLessons, SchoolDb db, Owner owner, HttpContext http, IClock clock)
    {
        if (await db.BroughtIn.FirstOrDefaultAsync(f => f.LessonId == id && f.Id == file) is not { } row)
        {
            return TypedResults.NotFound();
        }

        return (WhyNoFiles(own.Open) ?? await files.Count(row, takenOut, http.User.Identity?.Name ?? "")) is { } refused
            ? refused
            : TypedResults.Ok(await ViewOf((await openLessons.Find(owner.Id, id))!, db, clock));
    }

    private static ProblemHttpResult? WhyNoFiles(OpenLesson open) => open.Lesson.Stage switch
    {
        LessonStage.Ended => null,
        LessonStage.Settled => Refused.Now("This lesson is settled. Open it again first."),
        _ => Refused.Now("End the lesson first; then bring in its list."),
    };

    private static async Task<SettlingView> ViewOf(OpenLesson open, SchoolDb db, IClock clock)
    {
        var files = await db.BroughtIn.AsNoTracking().Where(f => f.LessonId == open.Lesson.Id).OrderBy(f => f.NotedAt).ToListAsync();
        return SettlingViews.Of(open, files, clock.GetCurrentInstant());
    }

    private static async Task<(AttendancePreview List, DateTimeZone Zone)> Read(SentFile sent, OpenLesson open, SchoolDb db, Owner owner)
    {
        var zone = sent.Zone is null
            ? await LessonEndpoints.ZoneOf(db, owner)
            : DateTimeZoneProviders.Tzdb.GetZoneOrNull(sent.Zone)
                ?? throw new FormatProblem($"“{sent.Zone}” is not a time zone. Choose one from the list.");
        return (AttendanceFile.Read(sent.Bytes, sent.Mapping, zone, open.Lesson.PlannedStart, open.Lesson.PlannedEnd), zone);
    }

    private static IEnumerable<Guid> WordsOn(string who, LessonState state) =>
        state.Entries.Where(e => e.Act is NameMatched matched && state.Names.WhoIs(matched) == who && !state.IsStruck(e.Id)).Select(e => e.Id);

    private static string FingerprintOf(SentFile sent) => Convert.ToHexString(SHA256.HashData(sent.Bytes));
}
