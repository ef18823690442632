using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Live;

/// <summary>The missing, and what is known of them.</summary>
/// <param name="Subject">The subject of the message that can go to them.</param>
/// <param name="Text">Its text, with names in braces as in the word ahead.</param>
public sealed record ReachingView(long Position, string Subject, string Text, IReadOnlyList<MissingStudent> Missing);

/// <summary>A missing student.</summary>
/// <param name="HasAddress">Whether there is an e-mail address to write to.</param>
/// <param name="Online">Whether they were to be seen online last. May be out of date.</param>
/// <param name="Attempts">Attempts to reach them in this lesson, in order.</param>
/// <param name="Earlier">Lessons before in which somebody tried to reach them, the newest first.</param>
public sealed record MissingStudent(
    Guid Student, string Called, string Rest, bool HasAddress, OnlineSeen? Online, IReadOnlyList<Attempt> Attempts, IReadOnlyList<EarlierNeed> Earlier);

/// <summary>An attempt to reach somebody.</summary>
public sealed record Attempt(Instant At, ContactChannel Channel, ContactOutcome Outcome, string Note);

/// <summary>A lesson in which somebody had to be reached, and what came of it in the end.</summary>
public sealed record EarlierNeed(int Number, Instant Start, ContactOutcome Outcome);

/// <summary>A message to missing students.</summary>
/// <param name="Messages">Whom, each with the id of the entry that will note it, so that sending again sends nothing twice.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Text">Its text, with names in braces as in the word ahead.</param>
public sealed record ReachOut(IReadOnlyList<ReachOne> Messages, string Subject, string Text);

/// <summary>One student to write to.</summary>
public sealed record ReachOne(Guid Id, Guid Student);

internal static class ReachEndpoints
{
    private const int MostAtOnce = 100;
    private const string Subject = "{class}: we have begun";
    private const string Text = "Hello {name},\n\nour lesson “{title}” has begun, and we miss you. You can still come in:\n\n{link}\n\nIf something keeps you, just write back.\n\n{teacher}\n";

    public static void MapReaching(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/reaching", async Task<Results<Ok<ReachingView>, NotFound>> (
            Guid id, OpenLessons openLessons, SchoolDb db, Owner owner) =>
            await openLessons.Find(owner.Id, id) is { } open ? TypedResults.Ok(await ViewOf(open, db)) : TypedResults.NotFound()).WithName("GetReaching");

        api.MapPost("/lessons/{id:guid}/reaching", async Task<Results<Ok<ReachingView>, NotFound, ProblemHttpResult>> (
            Guid id, ReachOut wanted, OpenLessons openLessons, MissingPost post, SchoolDb db, Owner owner, HttpContext http) =>
        {
            if (await openLessons.Find(owner.Id, id) is not { } open)
            {
                return TypedResults.NotFound();
            }

            var word = new Core.GroundRules.WordAhead { Subject = wanted.Subject ?? "", Text = wanted.Text ?? "" };
            if (word.Problems().FirstOrDefault() is { } wrong)
            {
                return Refused.Because(wrong.Replace("Word ahead: ", "", StringComparison.Ordinal));
            }

            if (wanted.Messages is null or { Count: 0 or > MostAtOnce })
            {
                return Refused.Because($"Choose from 1 to {MostAtOnce} students to write to.");
            }

            var teacher = await db.Users.SingleAsync(u => u.Id == owner.Id);
            var lesson = await db.Lessons.AsNoTracking().Include(l => l.Class).SingleAsync(l => l.Id == id);
            foreach (var one in wanted.Messages)
            {
                if (open.Roster.FirstOrDefault(s => s.Name.Id == one.Student) is not { Name.Email: not null } student)
                {
                    return Refused.Because("One of them has no e-mail address. Add it on the roster page, or note another way of reaching them.");
                }

                if (await post.SendOnce(one, student.Name, lesson, word, teacher, http.RequestAborted) is { } refused)
                {
                    return Refused.Now(refused);
                }
            }

            return TypedResults.Ok(await ViewOf((await openLessons.Find(owner.Id, id))!, db));
        }).WithName("ReachOut").RequireRateLimiting(Limits.Files);
    }

    private static async Task<ReachingView> ViewOf(OpenLesson open, SchoolDb db)
    {
        var (position, state) = (open.Position, open.State);
        var view = LiveView.Of(open, state, position, feed: null, DoorTries.None, Instant.MinValue);
        var missing = view.Rows.Where(r => r.Whereabouts is Whereabouts.Missing or Whereabouts.Left || r.Contacts > 0).ToList();
        var earlier = await EarlierNeeds(open, db);
        var addresses = open.Roster.Where(s => s.Name.Email is not null).Select(s => s.Name.Id).ToHashSet();
        return new ReachingView(position, Subject, Text,
        [
            .. missing.Select(r => new MissingStudent(
                r.Id, r.Called, r.Rest, addresses.Contains(r.Id), r.Online,
                [.. state.Of(r.Id).Contacts.Select(c => new Attempt(c.Entry.HappenedAt, c.Try.Channel, c.Try.Outcome, c.Try.Note))],
                [.. earlier[r.Id]])),
        ]);
    }

    /// <summary>Who had to be reached in earlier lessons of the class, with the last outcome of each lesson.</summary>
    private static async Task<ILookup<Guid, EarlierNeed>> EarlierNeeds(OpenLesson open, SchoolDb db)
    {
        var lesson = open.Lesson;
        var rows = await db.Entries.AsNoTracking().Include(e => e.Lesson)
            .Where(e => e.Lesson!.ClassId == lesson.ClassId && e.LessonId != lesson.Id && e.Lesson.PlannedStart < lesson.PlannedStart
                && (e.Act.StartsWith("{\"type\":\"contactTried\"") || e.Act.StartsWith("{\"type\":\"struck\"")))
            .ToListAsync();
        return rows.GroupBy(r => r.LessonId).Select(g => (g.First().Lesson!, State: LessonState.Fold(g.Select(OpenLesson.EntryOf), open.Merged)))
            .OrderByDescending(l => l.Item1.PlannedStart)
            .SelectMany(l => open.Roster.Select(s => s.Name.Id).Where(s => l.State.Of(s).Contacts.Count > 0)
                .Select(s => (Student: s, Need: new EarlierNeed(l.Item1.Number, l.Item1.PlannedStart, l.State.Of(s).Contacts[^1].Try.Outcome))))
            .ToLookup(n => n.Student, n => n.Need);
    }
}
