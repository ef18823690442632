using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>
/// Sends student pages what changed for them: the lesson to all of them at once, and to each student only what is theirs, if it changed. It also
/// notes who has a page open.
/// </summary>
public sealed class PagePublisher(
    LedgerWriter ledger, SchoolFile file, IHubContext<PageHub> hub, IClock clock, TimeProvider timers, IHostApplicationLifetime life, ILogger<PagePublisher> log)
    : BackgroundService
{
    /// <summary>How long a page may be away before its student counts as gone from it.</summary>
    internal static readonly TimeSpan Grace = TimeSpan.FromSeconds(20);

    /// <summary>How long after a start a page that was open before it may take to come back.</summary>
    internal static readonly TimeSpan GraceAfterStart = Grace * 3;

    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);

    private readonly ConcurrentDictionary<string, Watching> _watching = new();
    private readonly Dictionary<Guid, Sent> _sent = [];
    private readonly ChangedLessons _changed = new(ledger);

    /// <summary>The sessions whose page is open in a lesson.</summary>
    public IReadOnlySet<Guid> SessionsIn(Guid lesson) => _watching.Values.Where(w => w.Lesson == lesson).Select(w => w.Session).ToHashSet();

    /// <summary>A page watches a lesson.</summary>
    public async Task Watched(PageGuest guest, HubCallerContext context)
    {
        var lesson = guest.OpenLesson.Lesson;
        _watching[context.ConnectionId] = new Watching(lesson.OwnerId, lesson.Id, guest.Session, guest.Student, context);
        await hub.Groups.AddToGroupAsync(context.ConnectionId, LessonGroup(lesson.Id));
        await hub.Groups.AddToGroupAsync(context.ConnectionId, SessionGroup(lesson.Id, guest.Session));
        if (guest.Student is { } student && PageSessions.IsOn(lesson.Stage) && guest.OpenLesson.State().State.Of(student).PageOpenBy is null)
        {
            await Note(lesson.OwnerId, lesson.Id, new PageOpened(student), clock.GetCurrentInstant());
        }
    }

    /// <summary>A page is gone. If its student has no other, and does not come back in a while, that is noted.</summary>
    public void Gone(string connection)
    {
        if (_watching.TryRemove(connection, out var gone) && gone.Student is { } student)
        {
            _ = CloseIfGone(gone, student, clock.GetCurrentInstant());
        }
    }

    /// <summary>Closes the pages of sessions that were ended.</summary>
    public void End(params IReadOnlyList<Guid> sessions)
    {
        foreach (var page in _watching.Values.Where(w => sessions.Contains(w.Session)))
        {
            page.Context.Abort();
        }
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        _ = CloseLeftOpen(stoppingToken);
        await _changed.Each(
            async lessons =>
            {
                var watched = _watching.Values.ToLookup(w => w.Lesson);
                foreach (var lesson in lessons.Where(watched.Contains))
                {
                    await Publish(lesson, [.. watched[lesson]], stoppingToken);
                }

                foreach (var unwatched in _sent.Keys.Where(l => !watched.Contains(l)).ToList())
                {
                    _sent.Remove(unwatched);
                }
            },
            // As much rest as work at least: the teacher's sheet comes first.
            took => took > Pause ? took : Pause,
            stoppingToken);
    }

    private static string LessonGroup(Guid lesson) => $"lesson {lesson}";

    private static string SessionGroup(Guid lesson, Guid session) => $"session {lesson} {session}";

    private async Task Publish(Guid lesson, IReadOnlyList<Watching> pages, CancellationToken stopping)
    {
        try
        {
            if (ledger.Find(pages[0].Owner, lesson) is not { } open)
            {
                return;
            }

            var state = open.State().State;
            var before = _sent.GetValueOrDefault(lesson) ?? (_sent[lesson] = new Sent());
            var seen = PageLesson.Of(open, state, clock.GetCurrentInstant());
            // Compared at one and the same time: the clock alone is no change.
            var shared = JsonSerializer.Serialize(seen with { Board = seen.Board with { Now = Instant.FromUnixTimeMilliseconds(0) } }, Wire.Options);
            if (shared != before.Lesson)
            {
                before.Lesson = shared;
                await hub.Clients.Group(LessonGroup(lesson)).SendAsync("lesson", seen, stopping);
            }

            foreach (var session in pages.GroupBy(p => p.Session))
            {
                var student = session.First().Student;
                if (PageSessions.GuestOf(session.Key, student, open) is not { } guest)
                {
                    continue;
                }

                var own = PageOwn.Of(guest, state);
                var written = JsonSerializer.Serialize(own, Wire.Options);
                if (before.Own.GetValueOrDefault(session.Key) != written)
                {
                    before.Own[session.Key] = written;
                    await hub.Clients.Group(SessionGroup(lesson, session.Key)).SendAsync("own", own, stopping);
                }

                if (student is null && guest.Student is { } admitted)
                {
                    await LetIn(session, admitted, open, state);
                }
            }
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            log.LogError(failure, "A change of lesson {Lesson} could not be sent to its student pages.", lesson);
        }
    }

    private async Task LetIn(IEnumerable<Watching> pages, Guid student, OpenLesson open, LessonState state)
    {
        foreach (var page in pages)
        {
            _watching.TryUpdate(page.Context.ConnectionId, page with { Student = student }, page);
        }

        if (state.Of(student).PageOpenBy is null)
        {
            await Note(open.Lesson.OwnerId, open.Lesson.Id, new PageOpened(student), clock.GetCurrentInstant());
        }
    }

    private async Task CloseIfGone(Watching gone, Guid student, Instant at)
    {
        try
        {
            await Task.Delay(Grace, timers, life.ApplicationStopping);
            if (!IsOpen(gone.Lesson, student) && ledger.Find(gone.Owner, gone.Lesson) is { } open && open.State().State.Of(student).PageOpenBy is not null)
            {
                await Note(gone.Owner, gone.Lesson, new PageClosed(student), at);
            }
        }
        catch (OperationCanceledException)
        {
            // The application ends: who does not come back to the next one is noted there.
        }
    }

    /// <summary>After a restart: whoever had a page open and has not come back is gone since they were last heard of.</summary>
    private async Task CloseLeftOpen(CancellationToken stopping)
    {
        await using var all = file.Open(Guid.Empty);
        var running = await all.Lessons.IgnoreQueryFilters().Where(l => l.Stage == LessonStage.Live).Select(l => new { l.OwnerId, l.Id }).ToListAsync(stopping);
        await Task.Delay(GraceAfterStart, timers, stopping);
        foreach (var lesson in running)
        {
            if (ledger.Find(lesson.OwnerId, lesson.Id) is not { } open)
            {
                continue;
            }

            var state = open.State().State;
            foreach (var student in open.Roster.Select(s => s.Name.Id).Where(s => state.Of(s).PageOpenBy is not null && !IsOpen(lesson.Id, s)))
            {
                var last = state.Entries.Last(e => e is { Source: Source.Page, Act: StudentAct act } && state.Whose(act.Student) == student);
                await Note(lesson.OwnerId, lesson.Id, new PageClosed(student), last.HappenedAt);
            }
        }
    }

    private bool IsOpen(Guid lesson, Guid student) => _watching.Values.Any(w => w.Lesson == lesson && w.Student == student);

    private Task<WriteResult?> Note(Guid owner, Guid lesson, Act act, Instant at) =>
        ledger.Append(owner, lesson, Source.Page, "", [new NewEntry(Guid.CreateVersion7(), at, act)]);

    private sealed record Watching(Guid Owner, Guid Lesson, Guid Session, Guid? Student, HubCallerContext Context);

    private sealed class Sent
    {
        public string Lesson { get; set; } = "";

        public Dictionary<Guid, string> Own { get; } = [];
    }
}
