using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Hosting;
using QRCoder;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>The way to the student page of a lesson.</summary>
/// <param name="Code">Its code, as it is shown.</param>
/// <param name="Address">Its address.</param>
/// <param name="Sentence">A sentence for the chat of the meeting, ready to be copied.</param>
/// <param name="Pages">Browsers in which it was entered and that can still see it.</param>
public sealed record WayIn(string Code, string Address, string Sentence, IReadOnlyList<OpenPage> Pages);

/// <summary>A browser with a student's page.</summary>
/// <param name="Name">For somebody who came with a name, that name; else empty.</param>
public sealed record OpenPage(Guid Session, Guid? Student, string Name, string Device, Instant Since);

internal static class WayInEndpoints
{
    // Who is remembered on a device from an earlier lesson is listed once the page is open there.
    private static readonly Duration BeforeTheLesson = Duration.FromHours(1);

    public static void MapWayIn(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/way-in", async Task<Results<Ok<WayIn>, NotFound>> (
            Guid id, SchoolDb db, OpenLessons openLessons, Owner owner, PagePublisher publisher, Settings settings, HttpRequest request) =>
            await LessonCodes.Of(id, db, openLessons) is { } code && await openLessons.Find(owner.Id, id) is { } open
                ? TypedResults.Ok(await Of(code, open, db, publisher, settings, request))
                : TypedResults.NotFound()).WithName("GetWayIn");

        // Black on white whatever the screen looks like: readers of such codes need it.
        api.MapGet("/lessons/{id:guid}/way-in.svg", async Task<Results<ContentHttpResult, NotFound>> (
            Guid id, SchoolDb db, OpenLessons openLessons, Settings settings, HttpRequest request) =>
        {
            if (await LessonCodes.Of(id, db, openLessons) is not { } code)
            {
                return TypedResults.NotFound();
            }

            using var data = QRCodeGenerator.GenerateQrCode(AddressOf(code, settings, request), QRCodeGenerator.ECCLevel.M);
            using var svg = new SvgQRCode(data);
            return TypedResults.Content(svg.GetGraphic(4), "image/svg+xml");
        }).WithName("GetWayInPicture");

        api.MapDelete("/lessons/{id:guid}/pages/{session:guid}", async Task<Results<Ok<WayIn>, NotFound>> (
            Guid id, Guid session, SchoolDb db, OpenLessons openLessons, Owner owner, PagePublisher publisher, Settings settings, HttpRequest request, IClock clock) =>
        {
            if (await db.PageSessions.FirstOrDefaultAsync(s => s.Id == session) is not { } row
                || await LessonCodes.Of(id, db, openLessons) is not { } code || await openLessons.Find(owner.Id, id) is not { } open)
            {
                return TypedResults.NotFound();
            }

            row.EndedAt ??= clock.GetCurrentInstant();
            await db.SaveChangesAsync();
            publisher.End(session);
            return TypedResults.Ok(await Of(code, open, db, publisher, settings, request));
        }).WithName("EndPage");
    }

    private static async Task<WayIn> Of(string code, OpenLesson open, SchoolDb db, PagePublisher publisher, Settings settings, HttpRequest request)
    {
        var (shown, address) = (Syllables.Show(code), AddressOf(code, settings, request));
        var pages = publisher.SessionsIn(open.Lesson.Id);
        var from = open.Lesson.PlannedStart - BeforeTheLesson;
        var sessions = await db.PageSessions.AsNoTracking()
            .Where(s => s.EndedAt == null && (s.LessonId == open.Lesson.Id || s.StudentId != null) && (s.MadeAt >= from || pages.Contains(s.Id)))
            .OrderBy(s => s.MadeAt).ToListAsync();
        return new WayIn(
            shown, address, $"The page for this lesson: {address} (code {shown}). Come in with your pass.",
            [
                .. sessions.Select(s => (Session: s, Guest: PageSessions.GuestOf(s.Id, s.StudentId, open))).Where(s => s.Guest is not null)
                    .Select(s => new OpenPage(s.Session.Id, s.Guest!.Student, s.Guest.Name, s.Session.Device, s.Session.MadeAt)),
            ]);
    }

    // A teacher on this machine may have come by an address that students cannot reach.
    private static string AddressOf(string code, Settings settings, HttpRequest request) =>
        new Uri(settings.Address ?? new Uri($"{request.Scheme}://{request.Host}"), $"/p/{Syllables.Show(code)}").ToString();
}
