using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>A student's own scores in a class, and nobody else's.</summary>
/// <param name="Places">With how many places they are shown.</param>
/// <param name="Term">The score over the term, as shown; null with fewer scored lessons than that needs.</param>
/// <param name="Band">The band it is in; null if there are none.</param>
/// <param name="Lessons">Their settled lessons, the newest first.</param>
public sealed record PageScores(string ClassName, int Places, decimal? Term, string? Band, int Scored, int Needed, IReadOnlyList<PageScore> Lessons);

/// <summary>A student's own score in a lesson.</summary>
/// <param name="Score">As shown; null if the lesson does not count for them.</param>
/// <param name="Minutes">How long they were there, in whole minutes, of a lesson that nobody has to come to: it tells that instead of a score. Null else.</param>
/// <param name="Parts">What it is made of, in a child's words.</param>
/// <param name="Objections">What they said is wrong in it.</param>
public sealed record PageScore(
    Guid Lesson, int Number, string Title, Instant PlannedStart, decimal? Score, int? Minutes, IReadOnlyList<ToldPart> Parts, IReadOnlyList<PageObjection> Objections);

/// <summary>What a student said is wrong.</summary>
/// <param name="About">The entry that it is about; empty if it is about the whole lesson.</param>
/// <param name="Answer">What the teacher answered; empty while it waits.</param>
public sealed record PageObjection(Guid Id, string About, string Text, Instant MadeAt, string Answer);

/// <summary>Something that was noted of a student, and that their score rests on.</summary>
public sealed record PageNoted(Guid Id, Instant At, string Text);

/// <summary>A student says that something is wrong.</summary>
/// <param name="Id">Made where it was written, so that sending it twice is harmless.</param>
/// <param name="Entry">The entry that is wrong; null if something is missing, or it is about the whole lesson.</param>
public sealed record PageObjected(Guid Id, Guid? Entry, string Text);

internal static class PageScoreEndpoints
{
    private const int LongestObjection = 500;
    private const int MostWaiting = 5;

    public static void MapPageScores(this RouteGroupBuilder page)
    {
        page.MapGet("/scores", async Task<Results<Ok<PageScores>, ProblemHttpResult>> (string code, HttpContext http, PageSessions sessions, SchoolFile file) =>
            await Reader(code, http, sessions) switch
            {
                ({ } guest, null) => TypedResults.Ok(await ScoresOf(guest, file)),
                var (_, wrong) => wrong!,
            }).WithName("GetPageScores");

        page.MapGet("/scores/{lesson:guid}", async Task<Results<Ok<IReadOnlyList<PageNoted>>, NotFound, ProblemHttpResult>> (
            string code, Guid lesson, HttpContext http, PageSessions sessions, OpenLessons openLessons) =>
        {
            var (guest, wrong) = await Reader(code, http, sessions);
            return guest is null ? wrong!
                : await Settled(lesson, guest, openLessons) is { } open ? TypedResults.Ok(NotedOf(guest.Student!.Value, open)) : TypedResults.NotFound();
        }).WithName("GetPageNoted");

        page.MapPost("/scores/{lesson:guid}/objections", async Task<Results<Ok<PageScores>, NotFound, ProblemHttpResult>> (
            string code, Guid lesson, PageObjected sent, HttpContext http, PageSessions sessions, OpenLessons openLessons, SchoolFile file, IClock clock) =>
        {
            var (guest, wrong) = await Reader(code, http, sessions);
            if (guest is null)
            {
                return wrong!;
            }

            if (await Settled(lesson, guest, openLessons) is not { } open)
            {
                return TypedResults.NotFound();
            }

            var student = guest.Student!.Value;
            var about = NotedOf(student, open).FirstOrDefault(n => n.Id == sent.Entry);
            var text = CleanText.Of(sent.Text ?? "");
            if (CleanText.IsBlank(text) || text.Length > LongestObjection)
            {
                return Refused.Because(CleanText.IsBlank(text) ? "Write what is wrong." : $"Write at most {LongestObjection} letters.");
            }

            if (sent.Entry is not null && about is null)
            {
                return Refused.Now("That does not stand there any more. Load the page again.");
            }

            await using var db = file.Open(open.Lesson.OwnerId);
            if (!await db.Objections.AnyAsync(o => o.Id == sent.Id))
            {
                var records = Rosters.RecordsOf(db, student);
                if (await db.Objections.CountAsync(o => records.Contains(o.StudentId) && o.AnsweredAt == null && o.Lesson!.ClassId == open.Lesson.ClassId) >= MostWaiting)
                {
                    return Refused.Now($"Your teacher has {MostWaiting} of your questions already. Wait for an answer.");
                }

                db.Objections.Add(new Objection
                {
                    Id = sent.Id,
                    LessonId = lesson,
                    StudentId = student,
                    EntryId = sent.Entry,
                    About = about?.Text ?? "",
                    Text = text,
                    MadeAt = clock.GetCurrentInstant(),
                });
                try
                {
                    await db.SaveChangesAsync();
                }
                catch (DbUpdateException failure) when (failure.InnerException is SqliteException { SqliteErrorCode: 19 })
                {
                    // The same has just come another way, or the id is somebody else's: to send it anew is right in either case.
                    return Refused.Now("That did not go out. Try once more.");
                }
            }

            return TypedResults.Ok(await ScoresOf(guest, file));
        }).WithName("ObjectOnPage");
    }

    /// <summary>Who came, if they may read scores there; else what was wrong.</summary>
    private static async Task<(PageGuest? Guest, ProblemHttpResult? Wrong)> Reader(string code, HttpContext http, PageSessions sessions) =>
        await sessions.GuestOf(http, code) is not { } guest ? (null, PageEndpoints.NotIn())
        : guest.SeesScores ? (guest, null)
        : (null, TypedResults.Problem(
            guest.ByPass ? "Your teacher does not show scores here." : "Come in with your pass to see your scores.", statusCode: StatusCodes.Status403Forbidden));

    /// <summary>A settled lesson of the class that the student came to; null if it is none.</summary>
    private static async Task<OpenLesson?> Settled(Guid lesson, PageGuest guest, OpenLessons openLessons) =>
        await openLessons.Find(guest.OpenLesson.Lesson.OwnerId, lesson) is { Lesson.Stage: LessonStage.Settled } open
            && open.Lesson.ClassId == guest.OpenLesson.Lesson.ClassId && open.OnSheetOf(guest.Student!.Value) is not null
            ? open
            : null;

    private static async Task<PageScores> ScoresOf(PageGuest guest, SchoolFile file)
    {
        var (student, lesson) = (guest.Student!.Value, guest.OpenLesson.Lesson);
        await using var db = file.Open(lesson.OwnerId);
        var row = await db.Classes.AsNoTracking().SingleAsync(c => c.Id == lesson.ClassId);
        var term = await TermSheet.Of(row, db, student);
        var records = Rosters.RecordsOf(db, student);
        var objections = (await db.Objections.AsNoTracking().Where(o => records.Contains(o.StudentId) && o.Lesson!.ClassId == row.Id).OrderBy(o => o.MadeAt).ToListAsync())
            .ToLookup(o => o.LessonId, o => new PageObjection(o.Id, o.About, o.Text, o.MadeAt, o.Answer));
        var total = term.Score(student).Total;
        return new PageScores(
            row.Name, term.Scheme.Places, term.Shown(total), term.BandOf(total), term.Scored(student),
            term.Scheme.LessonsForTerm, [.. term.Lessons.Where(l => term.Of(l.Id, student) is not null).Reverse().Select(l => ScoreOf(l, student, term, [.. objections[l.Id]]))]);
    }

    private static PageScore ScoreOf(Lesson lesson, Guid student, TermSheet term, IReadOnlyList<PageObjection> objections)
    {
        var (summary, did, scheme) = (term.Of(lesson.Id, student)!, term.TallyOf(lesson.Id, student)!, term.SchemeOf(lesson));
        return new PageScore(
            lesson.Id, lesson.Number, lesson.Title, lesson.PlannedStart,
            lesson.DropIn || summary.Score is not { } score ? null : scheme.Shown(score),
            lesson.DropIn ? ScoreSheet.MinutesOf(summary) : null,
            lesson.DropIn ? [] : ScoreToStudent.Of(LessonScore.Of(did.ToScore(scheme), scheme), did, scheme), objections);
    }

    private static IReadOnlyList<PageNoted> NotedOf(Guid student, OpenLesson open)
    {
        var (state, scheme) = (open.State, open.Rules.Scheme);
        var did = state.ParticipationOf(student, open.Times, scheme);
        var used = LessonScore.Of(did, scheme).EntriesOf(did);
        return [.. state.Entries.Where(e => used.Contains(e.Id)).OrderBy(e => e.HappenedAt).Select(e => new PageNoted(e.Id, e.HappenedAt, TextOf(student, e, state)))];
    }

    // The reason of an excuse is between the home and the teacher, whoever looks at a student's screen.
    private static string TextOf(Guid student, Entry entry, LessonState state) => entry.Act is ExcuseRecorded ? "excused" : Wording.For(student, entry, state);
}
