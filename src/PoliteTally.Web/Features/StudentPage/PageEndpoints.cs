using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Signals;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>How one can come in by the code of a lesson.</summary>
/// <param name="ByName">Whether a name is enough to knock; else it takes a pass.</param>
public sealed record PageDoor(bool ByName);

/// <summary>Somebody who wants to come in.</summary>
/// <param name="Pass">Their personal pass; null for none.</param>
/// <param name="Name">Their name, where the class allows it; null for whoever has a pass.</param>
/// <param name="Remember">Whether the device is to remember them.</param>
public sealed record PageEntry(string? Pass, string? Name, bool Remember);

/// <summary>What can be done on a student page.</summary>
public enum PageDoing
{
    RaiseHand,
    LowerHand,
    SayReady,
    Answer,
    CannotAnswer,
    Write,
    Signal,
    HandOn,
}

/// <summary>Something done on a student page. Who did it is known by their session and nothing else.</summary>
/// <param name="Id">Made where it was done, so that sending it twice is harmless. Of an anonymous answer it is the id by which alone it can be changed.</param>
/// <param name="Doing">What.</param>
/// <param name="Asking">The question; null for what is about none.</param>
/// <param name="Answer">The answer, if it is one.</param>
/// <param name="Text">A message, or a signal.</param>
/// <param name="Kind">What the message is.</param>
/// <param name="To">The student to hand on to.</param>
public sealed record PageAct(
    Guid Id, PageDoing Doing, Guid? Asking = null, Answer? Answer = null, string? Text = null, ChatKind? Kind = null, Guid? To = null);

internal static class PageEndpoints
{
    private const int LargestBody = 20_000;
    private const string Over = "This lesson is over.";

    public static void MapPage(this RouteGroupBuilder api)
    {
        var page = api.MapGroup("/page/{code}").RequireRateLimiting(Limits.Page).WithMetadata(new RequestSizeLimitAttribute(LargestBody));

        page.MapGet("/door", async Task<Results<Ok<PageDoor>, ProblemHttpResult>> (
            string code, HttpContext http, PageSessions sessions, GuessWatch watch) =>
            await Found(code, http, sessions, watch) switch
            {
                ({ } open, null) => TypedResults.Ok(new PageDoor(IsByName(open))),
                var (_, wrong) => wrong!,
            }).WithName("GetPageDoor");

        page.MapPost("/enter", async Task<Results<Ok<PageView>, ProblemHttpResult>> (
            string code, PageEntry entry, HttpContext http, PageSessions sessions, GuessWatch watch, KnockWatch knocks, Passes passes, SchoolFile file, LedgerWriter ledger,
            OpenLessons openLessons, IClock clock) =>
        {
            var (found, wrong) = await Found(code, http, sessions, watch);
            if (found is not { } open)
            {
                return wrong!;
            }

            var address = CallerNetwork.Of(http);
            if (entry.Pass is { Length: > 0 } pass)
            {
                if (await StudentWith(pass, open, passes, file) is not { } student)
                {
                    watch.Wrong(address, open.Lesson.Id);
                    openLessons.Touch(open.Lesson.Id);
                    await Task.Delay(watch.WaitOf(address), http.RequestAborted);
                    return TypedResults.Problem(
                        "This pass does not open this lesson. Look at your slip once more, or ask your teacher.", statusCode: StatusCodes.Status401Unauthorized);
                }

                watch.Right(address, student);
                var session = await sessions.Begin(http, open, student, entry.Remember);
                return TypedResults.Ok(ViewOf(new PageGuest(session, open, student, "", false), clock));
            }

            var name = CleanText.Of(entry.Name ?? "");
            if (!IsByName(open) || CleanText.IsBlank(name))
            {
                return Refused.Because(IsByName(open) ? "Write your name, or your pass." : "Write the pass from your slip.");
            }

            if (!knocks.Takes(open.Lesson.Id, address, open.Roster.Count))
            {
                openLessons.Touch(open.Lesson.Id);
                return TypedResults.Problem(
                    "So many have knocked here that nobody else is taken just now. Come in with your pass, or ask your teacher.",
                    statusCode: StatusCodes.Status429TooManyRequests);
            }

            var waiting = await sessions.Begin(http, open, null, remember: false);
            var result = await ledger.Append(
                open.Lesson.OwnerId, open.Lesson.Id, Source.Page, name, [new NewEntry(Guid.CreateVersion7(), clock.GetCurrentInstant(), new PageKnocked(waiting, name))]);
            return result is { Refused: [] }
                ? TypedResults.Ok(ViewOf(new PageGuest(waiting, open, null, name, false), clock))
                : Refused.Because(result?.Refused[0].Why ?? Over);
        }).WithName("EnterPage");

        page.MapGet("", async Task<Results<Ok<PageView>, ProblemHttpResult>> (string code, HttpContext http, PageSessions sessions, IClock clock) =>
            await sessions.GuestOf(http, code) is { } guest
                ? TypedResults.Ok(ViewOf(guest, clock))
                : NotIn()).WithName("GetPage");

        page.MapPost("/acts", async Task<Results<Ok<PageOwn>, ProblemHttpResult>> (
            string code, PageAct act, HttpContext http, PageSessions sessions, LedgerWriter ledger, OpenLessons openLessons, IClock clock) =>
        {
            if (await sessions.GuestOf(http, code) is not { } guest)
            {
                return NotIn();
            }

            if (guest.Student is not { } student)
            {
                return Refused.Now("Wait until your teacher has let you in.");
            }

            var lesson = guest.OpenLesson.Lesson;
            if (lesson.Stage != LessonStage.Live)
            {
                return Refused.Now(lesson.Stage == LessonStage.Planned ? "The lesson has not begun yet." : Over);
            }

            // Null while they may not hand on at all: the rules of the ledger say why.
            if (act is { Doing: PageDoing.HandOn, To: { } to } && PageOwn.Of(guest).MayHandOnTo?.All(c => c.Student != to) == true)
            {
                return Refused.Now("They are not here any more, or cannot speak today. Choose somebody else.");
            }

            var why = act.Doing == PageDoing.Answer && act.Asking is { } asking && act.Answer is { } answer
                    && guest.OpenLesson.State.Questions.Of(asking)?.Question.Anonymous == true
                ? await ledger.Cast(lesson.OwnerId, lesson.Id, new Ballot { Id = act.Id, Asking = asking, Student = student, Answer = answer })
                : ActOf(act, student, guest.OpenLesson.Rules) is { } named
                    ? (await ledger.Append(lesson.OwnerId, lesson.Id, Source.Page, "", [new NewEntry(act.Id, clock.GetCurrentInstant(), named)]))?.Refused is [var refused, ..] ? refused.Why : null
                    : "The page sent something that is not understood. Load it again.";
            return why is null ? TypedResults.Ok(PageOwn.Of(guest with { OpenLesson = (await openLessons.Find(lesson.OwnerId, lesson.Id))! })) : Refused.Now(why);
        }).WithName("AddPageAct").DisableValidation();

        page.MapPost("/leave", async Task<NoContent> (string code, HttpContext http, PageSessions sessions, PagePublisher publisher) =>
        {
            if (await sessions.End(http) is { } session)
            {
                publisher.End(session);
            }

            return TypedResults.NoContent();
        }).WithName("LeavePage");

        page.MapPageScores();
        page.MapGet("/pictures/{picture:guid}", async Task<Results<PhysicalFileHttpResult, NotFound>> (
            string code, Guid picture, HttpContext http, PageSessions sessions, SchoolFile file, PictureFolder folder) =>
        {
            if (await sessions.GuestOf(http, code) is not { Student: { } student } guest
                || !guest.OpenLesson.State.Questions.All.Any(a => a.GoesTo(student, guest.OpenLesson.State.Groups) && a.Question.Options.Any(o => o.Picture == picture)))
            {
                return TypedResults.NotFound();
            }

            await using var db = file.Open(guest.OpenLesson.Lesson.OwnerId);
            return PictureEndpoints.Served(await db.Pictures.FirstOrDefaultAsync(p => p.Id == picture), folder, http) is { } served ? served : TypedResults.NotFound();
        }).WithName("GetPagePicture");
    }

    /// <summary>What is said to a browser without a session that opens the page.</summary>
    internal static ProblemHttpResult NotIn() => TypedResults.Problem("This page is closed here. Come in again with your pass.", statusCode: StatusCodes.Status401Unauthorized);

    /// <summary>Whether a name is enough to knock. When a lesson is over, there is nothing left to be let in to.</summary>
    private static bool IsByName(OpenLesson open) => open.Rules.PageByName && PageSessions.IsOn(open.Lesson.Stage);

    /// <summary>What an act on the page is in the ledger; null if it is not complete, or a signal that the class has not agreed on.</summary>
    private static Act? ActOf(PageAct act, Guid student, ClassRules rules) => act switch
    {
        { Doing: PageDoing.RaiseHand } => new HandRaised(student),
        { Doing: PageDoing.SayReady } => new HandRaised(student, Ready: true),
        { Doing: PageDoing.LowerHand } => new HandEnded(student, HandEnd.Withdrawn),
        { Doing: PageDoing.Answer, Asking: { } asking, Answer: { } answer } => new AnswerGiven(student, asking, answer),
        { Doing: PageDoing.CannotAnswer, Asking: { } asking } => new CannotAnswer(student, asking),
        { Doing: PageDoing.Write, Text: { } text, Kind: { } kind } => new StudentWrote(student, kind, CleanText.Of(text)),
        { Doing: PageDoing.Signal, Text: { } signal } when rules.Signals.Any(s => s.Meaning == signal) => new SignalGiven(student, signal),
        { Doing: PageDoing.HandOn, To: { } to } => new Called(to, TurnOrigin.HandedOn, By: student),
        _ => null,
    };

    private static PageView ViewOf(PageGuest guest, IClock clock)
    {
        var (now, state) = (clock.GetCurrentInstant(), guest.OpenLesson.State);
        return new PageView(now, guest.Student is null ? null : PageLesson.Of(guest.OpenLesson, state, now), PageOwn.Of(guest));
    }

    /// <summary>The lesson of a code that can still be entered: after it is over, where students see their scores; else what was wrong.</summary>
    private static async Task<(OpenLesson? OpenLesson, ProblemHttpResult? Wrong)> Found(string code, HttpContext http, PageSessions sessions, GuessWatch watch)
    {
        var address = CallerNetwork.Of(http);
        if (watch.RefusedFor(address) is var wait && wait > Duration.Zero)
        {
            http.Response.Headers.RetryAfter = Math.Ceiling(wait.TotalSeconds).ToString(CultureInfo.InvariantCulture);
            return (null, TypedResults.Problem(
                $"Too many wrong tries from here. Try again in {Math.Ceiling(wait.TotalMinutes):0} min, or ask your teacher.",
                statusCode: StatusCodes.Status429TooManyRequests));
        }

        if (await sessions.Find(code) is not { } open)
        {
            watch.Wrong(address, null);
            await Task.Delay(watch.WaitOf(address), http.RequestAborted);
            return (null, TypedResults.Problem(
                "No lesson has this code. Look at it once more, or ask your teacher.", statusCode: StatusCodes.Status404NotFound));
        }

        return (PageSessions.IsOn(open.Lesson.Stage) || open.Rules.PageShowsScores) && open.Lesson.CancelledAt is null
            ? (open, null)
            : (null, TypedResults.Problem(Over, statusCode: StatusCodes.Status410Gone));
    }

    private static async Task<Guid?> StudentWith(string pass, OpenLesson open, Passes passes, SchoolFile file)
    {
        var fingerprint = passes.FingerprintOf(pass);
        await using var db = file.Open(open.Lesson.OwnerId);
        return await db.Students.AsNoTracking().FirstOrDefaultAsync(s => s.PassHash == fingerprint) is { } student
            && open.OnSheetOf(open.Whose(student.Id)) is { } known ? known.Name.Id : null;
    }

}
