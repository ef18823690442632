using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Page;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>
/// Sends student pages what changed for them: the lesson to all of them at once, and to each student only what is theirs, if it changed. It also
/// notes who has a page open.
/// </summary>
public sealed class PagePublisher(
    LedgerWriter ledger, OpenLessons openLessons, SchoolFile file, OpenWindows windows, IClock clock, TimeProvider timers, IHostApplicationLifetime life,
    ILogger<PagePublisher> log) : BackgroundService
{
    /// <summary>How long a page may be away before its student counts as gone from it.</summary>
    internal static readonly TimeSpan Grace = TimeSpan.FromSeconds(20);

    /// <summary>How long after a start a page that was open before it may take to come back.</summary>
    internal static readonly TimeSpan GraceAfterStart = Grace * 3;

    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);

    private readonly ConcurrentDictionary<string, Watching> _watching = new();
    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<string, Watching>> _in = new();
    private readonly ConcurrentDictionary<Guid, Shown> _sent = new();
    private readonly OnItsOwn _each = new(log, "Closing the student pages of lesson");

    /// <summary>The sessions whose page is open in a lesson.</summary>
    public IReadOnlySet<Guid> SessionsIn(Guid lesson) => PagesIn(lesson).Select(w => w.Session).ToHashSet();

    /// <summary>A page watches a lesson. Somebody who waits to be let in hears of nothing but that.</summary>
    public async Task Watched(PageGuest guest, HubCallerContext context, IClientProxy client)
    {
        var lesson = guest.OpenLesson.Lesson;
        var page = new Watching(lesson.OwnerId, lesson.Id, guest.Session, guest.Student, context, client);
        Put(page);
        windows.Hears(PageOf(context.ConnectionId), context, client);
        if (guest.Student is { } student)
        {
            await ComeIn(page, student, guest.OpenLesson);
        }
    }

    /// <summary>A page is gone. If its student has no other, and does not come back in a while, that is noted.</summary>
    public void Gone(string connection)
    {
        windows.Gone(connection);
        if (_watching.TryRemove(connection, out var gone))
        {
            _in.GetValueOrDefault(gone.Lesson)?.TryRemove(connection, out _);
            if (gone.Student is { } student)
            {
                _ = CloseIfGone(gone, student, clock.GetCurrentInstant());
            }
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
        // As much rest as work at least: the teacher's sheet comes first.
        _ = new ChangedLessons(openLessons, Publish, took => took > Pause ? took : Pause, stoppingToken);
        await CloseLeftOpen(stoppingToken);
    }

    private static string LessonOf(Guid lesson) => $"pages {lesson}";

    private static string PageOf(string connection) => $"page {connection}";

    private IEnumerable<Watching> PagesIn(Guid lesson) => _in.GetValueOrDefault(lesson)?.Values ?? [];

    private void Put(Watching page)
    {
        _watching[page.Context.ConnectionId] = page;
        _in.GetOrAdd(page.Lesson, _ => new())[page.Context.ConnectionId] = page;
    }

    private async Task Publish(Guid lesson)
    {
        try
        {
            var pages = PagesIn(lesson).ToList();
            if (pages.Count == 0 || await openLessons.Find(pages[0].Owner, lesson) is not { } open)
            {
                _sent.TryRemove(lesson, out _);
                return;
            }

            var before = _sent.GetOrAdd(lesson, _ => new Shown());
            var seen = PageLesson.Of(open, open.State, clock.GetCurrentInstant());
            // Compared at one and the same time: the clock alone is no change.
            var shared = Written.Of(seen with { Board = seen.Board with { Now = Instant.FromUnixTimeMilliseconds(0) } }).Json;
            if (shared != before.Lesson)
            {
                before.Lesson = shared;
                windows.Send(LessonOf(lesson), "lesson", Written.Of(seen));
            }

            foreach (var session in pages.GroupBy(p => p.Session))
            {
                await PublishOwn([.. session], before, open);
            }
        }
        catch (Exception failure)
        {
            // What was sent last is not relied on any more.
            _sent.TryRemove(lesson, out _);
            log.LogError(failure, "A change of lesson {Lesson} could not be sent to its student pages.", lesson);
        }
    }

    /// <summary>What concerns one student, to all windows of one session.</summary>
    private async Task PublishOwn(IReadOnlyList<Watching> pages, Shown before, OpenLesson open)
    {
        var (session, student) = (pages[0].Session, pages[0].Student);
        if (PageSessions.GuestOf(session, student, open) is not { } guest)
        {
            return;
        }

        var own = Written.Of(PageOwn.Of(guest));
        if (before.Own.GetValueOrDefault(session) != own.Json)
        {
            before.Own[session] = own.Json;
            foreach (var page in pages)
            {
                windows.SendTo(page.Context.ConnectionId, "own", own);
            }
        }

        if (student is null && guest.Student is { } admitted)
        {
            foreach (var page in pages)
            {
                // A page that is gone meanwhile stays gone.
                if (_watching.TryUpdate(page.Context.ConnectionId, page with { Student = admitted }, page))
                {
                    Put(page with { Student = admitted });
                    await ComeIn(page, admitted, open);
                    windows.SendTo(page.Context.ConnectionId, "lesson", Written.Of(PageLesson.Of(open, open.State, clock.GetCurrentInstant())));
                }
            }
        }
    }

    /// <summary>A student's page is open: it hears of the lesson, and the first of their windows is noted.</summary>
    private async Task ComeIn(Watching page, Guid student, OpenLesson open)
    {
        windows.Hears(LessonOf(page.Lesson), page.Context, page.Client);
        if (PageSessions.IsOn(open.Lesson.Stage) && open.State.Page.OpenBy(student) is null)
        {
            await Note(page.Owner, page.Lesson, new PageOpened(student), clock.GetCurrentInstant());
        }
    }

    private async Task CloseIfGone(Watching gone, Guid student, Instant at)
    {
        try
        {
            await Task.Delay(Grace, timers, life.ApplicationStopping);
            await _each.Do(gone.Lesson, async () =>
            {
                while (!IsOpen(gone.Lesson, student) && await openLessons.Find(gone.Owner, gone.Lesson) is { } open
                    && open.State.Page.OpenBy(student) is not null && !await TryNote(gone.Owner, gone.Lesson, new PageClosed(student), at))
                {
                    await Task.Delay(Grace, timers, life.ApplicationStopping);
                }
            }, life.ApplicationStopping);
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
            await _each.Do(lesson.Id, () => CloseLeftOpen(lesson.OwnerId, lesson.Id), stopping);
        }
    }

    private async Task CloseLeftOpen(Guid owner, Guid lesson)
    {
        if (await openLessons.Find(owner, lesson) is not { } open)
        {
            return;
        }

        var state = open.State;
        foreach (var student in open.Roster.Select(s => s.Name.Id).Where(s => state.Page.OpenBy(s) is not null && !IsOpen(lesson, s)))
        {
            var last = state.Entries.Last(e => e is { Source: Source.Page, Act: StudentAct act } && state.Whose(act.Student) == student);
            await TryNote(owner, lesson, new PageClosed(student), last.HappenedAt);
        }
    }

    private bool IsOpen(Guid lesson, Guid student) => PagesIn(lesson).Any(w => w.Student == student);

    /// <summary>Notes an act; false if the disk does not take it just now.</summary>
    private async Task<bool> TryNote(Guid owner, Guid lesson, Act act, Instant at)
    {
        try
        {
            await Note(owner, lesson, act, at);
            return true;
        }
        catch (IOException failure)
        {
            log.LogWarning(failure, "That a page was closed could not be noted; it is tried again.");
            return false;
        }
    }

    private Task<WriteResult?> Note(Guid owner, Guid lesson, Act act, Instant at) =>
        ledger.Append(owner, lesson, Source.Page, "", [new NewEntry(Guid.CreateVersion7(), at, act)]);

    private sealed record Watching(Guid Owner, Guid Lesson, Guid Session, Guid? Student, HubCallerContext Context, IClientProxy Client);

    private sealed class Shown
    {
        public string Lesson { get; set; } = "";

        public Dictionary<Guid, string> Own { get; } = [];
    }
}
