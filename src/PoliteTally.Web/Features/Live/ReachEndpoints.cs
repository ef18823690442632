using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Notes;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Mail;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>The missing, and what is known of them.</summary>
/// <param name="Subject">The subject of the message that can go to them.</param>
/// <param name="Text">Its text, with names in braces as in the word ahead.</param>
/// <param name="ToOutbox">Whether messages only lie in the outbox until somebody sends them.</param>
public sealed record ReachingView(long Position, string Subject, string Text, bool ToOutbox, IReadOnlyList<MissingStudent> Missing);

/// <summary>A missing student.</summary>
/// <param name="Stands">What the register says of them when the lesson is over; empty while it goes on.</param>
/// <param name="Addresses">The e-mail addresses that a message goes to; none, one or two.</param>
/// <param name="Phone">Their telephone number; null if it is not known.</param>
/// <param name="Online">Whether they were to be seen online last. May be out of date.</param>
/// <param name="Attempts">Attempts to reach them in this lesson, in order.</param>
/// <param name="Earlier">Lessons before in which somebody tried to reach them, the newest first.</param>
public sealed record MissingStudent(
    Guid Student, string Called, string Rest, string Stands, IReadOnlyList<string> Addresses, string? Phone, OnlineSeen? Online, IReadOnlyList<Attempt> Attempts, IReadOnlyList<EarlierNeed> Earlier);

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
    private static readonly IReadOnlyList<string> OfContacts = ActJson.NamesOf(typeof(ContactTried), typeof(Struck));
    private const string Subject = "{class}: we have begun";
    private const string SubjectAfter = "{class}: we missed you";
    private const string TextAfter = "Hello {name},\n\nwe missed you in “{title}” on {day} at {time}. Please write what kept you, so that it can be noted.\n\n{teacher}\n";
    private const string Text = "Hello {name},\n\nour lesson “{title}” has begun, and we miss you. You can still come in:\n\n{link}\n\nIf something keeps you, just write back.\n\n{teacher}\n";

    public static void MapReaching(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/reaching", async (OwnLesson own, SchoolDb db, IMail mail) =>
            TypedResults.Ok(await ViewOf(own.Open, db, mail))).WithName("GetReaching");

        api.MapPost("/lessons/{id:guid}/reaching", async Task<Results<Ok<ReachingView>, ProblemHttpResult>> (
            Guid id, OwnLesson own, ReachOut wanted, OpenLessons openLessons, MissingPost post, SchoolDb db, IMail mail, Owner owner, HttpContext http) =>
        {
            var open = own.Open;
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
                if (open.Roster.FirstOrDefault(s => s.Name.Id == one.Student) is not { } student || AddressesOf(student) is not { Count: > 0 } addresses)
                {
                    return Refused.Because("One of them has no e-mail address. Add it on the roster page, or note another way of reaching them.");
                }

                if (await post.SendOnce(one, student.Name, addresses, lesson, word, teacher, http.RequestAborted) is { } refused)
                {
                    return Refused.Now(refused);
                }
            }

            return TypedResults.Ok(await ViewOf((await openLessons.Find(owner.Id, id))!, db, mail));
        }).WithName("ReachOut").RequireRateLimiting(Limits.Files);
    }

    private static async Task<ReachingView> ViewOf(OpenLesson open, SchoolDb db, IMail mail)
    {
        var (position, state) = (open.Position, open.State);
        var isOver = open.Lesson.Stage is LessonStage.Ended or LessonStage.Settled;
        var view = LiveView.Of(open, state, position, feed: null, DoorTries.None, Instant.MinValue);
        var stands = isOver ? StandsOf(open, state) : [];
        var missing = view.Rows.Where(r => r.Contacts > 0 || (isOver ? stands.ContainsKey(r.Id) : r.Whereabouts is Whereabouts.Missing or Whereabouts.Left)).ToList();
        var earlier = await EarlierNeeds(open, db);
        var roster = open.Roster.ToDictionary(s => s.Name.Id);
        return new ReachingView(position, isOver ? SubjectAfter : Subject, isOver ? TextAfter : Text, mail.OnlyLiesReady,
        [
            // Who needs it again and again comes first.
            .. missing.OrderByDescending(r => isOver ? earlier[r.Id].Count() : 0).Select(r => new MissingStudent(
                r.Id, r.Called, r.Rest, stands.GetValueOrDefault(r.Id, ""), AddressesOf(roster[r.Id]), roster[r.Id].Phone, r.Online,
                [.. state.Notes.ContactsOf(r.Id).Select(c => new Attempt(c.Entry.HappenedAt, c.Try.Channel, c.Try.Outcome, c.Try.Note))],
                [.. earlier[r.Id]])),
        ]);
    }

    /// <summary>Who was missing without an excuse or went early, and how that is said.</summary>
    private static Dictionary<Guid, string> StandsOf(OpenLesson open, LessonState state) =>
        open.Roster.Select(s => (s.Name.Id, Was: state.AttendanceOf(s.Name.Id, open.Times, open.Rules.Scheme.Attendance)))
            .Where(s => s.Was.Status == AttendanceStatus.Absent || (s.Was.Flags & AttendanceFlags.LeftEarly) != 0)
            .ToDictionary(s => s.Id, s => s.Was.InWords());

    /// <summary>Where a message to a missing student goes: to both of their addresses, for one may be read by somebody at home.</summary>
    private static IReadOnlyList<string> AddressesOf(OnSheet student) =>
        [.. new[] { student.Name.Email, student.SecondEmail }.OfType<string>().Distinct(StringComparer.OrdinalIgnoreCase)];

    /// <summary>Who had to be reached in earlier lessons of the class, with the last outcome of each lesson.</summary>
    private static async Task<ILookup<Guid, EarlierNeed>> EarlierNeeds(OpenLesson open, SchoolDb db)
    {
        var lesson = open.Lesson;
        var rows = await db.Entries.AsNoTracking().Include(e => e.Lesson)
            .Where(e => e.Lesson!.ClassId == lesson.ClassId && e.LessonId != lesson.Id && e.Lesson.PlannedStart < lesson.PlannedStart
                && OfContacts.Contains(e.Kind))
            .ToListAsync();
        return rows.GroupBy(r => r.LessonId).Select(g => (g.First().Lesson!, State: LessonState.Fold(g.Select(OpenLesson.EntryOf), open.Merged)))
            .OrderByDescending(l => l.Item1.PlannedStart)
            .SelectMany(l => open.Roster.Select(s => s.Name.Id).Where(s => l.State.Notes.ContactsOf(s).Count > 0)
                .Select(s => (Student: s, Need: new EarlierNeed(l.Item1.Number, l.Item1.PlannedStart, l.State.Notes.ContactsOf(s)[^1].Try.Outcome))))
            .ToLookup(n => n.Student, n => n.Need);
    }
}
