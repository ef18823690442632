using System.Collections.Concurrent;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.Feed;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Features.Live;

/// <summary>
/// Sends patches to the windows that watch a lesson, each lesson for itself. Changes that come in quick succession go out together, so that a
/// busy lesson costs a bounded share of the machine. Class boards and helpers hear only that something changed.
/// </summary>
public sealed class LivePublisher(
    OpenLessons openLessons, FeedLimits feeds, GuessWatch guesses, KnockWatch knocks, OpenWindows windows, IClock clock, ILogger<LivePublisher> log) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(20);

    // Kept when nobody watches any more: a window may come at that very moment, and whose a lesson is stays as it is.
    private readonly ConcurrentDictionary<Guid, Guid> _ownerOf = new();
    private readonly ConcurrentDictionary<Guid, WindowRows> _sent = new();

    /// <summary>What windows hear of that show the sheet of a lesson.</summary>
    public static string SheetOf(Guid lesson) => $"sheet {lesson}";

    /// <summary>What windows hear of that show the class board of a lesson.</summary>
    public static string BoardOf(Guid lesson) => $"board {lesson}";

    /// <summary>What helpers of a lesson hear of.</summary>
    public static string HelpOf(Guid lesson) => $"help {lesson}";

    /// <summary>A window is to show the sheet of a lesson.</summary>
    public void Watched(Guid lesson, Guid owner) => _ownerOf[lesson] = owner;

    /// <summary>A lesson as it stands.</summary>
    public LiveView ViewOf(OpenLesson open) =>
        LiveView.Of(open, open.State, open.Position, feeds.Of(open.Lesson.Id), TriesAt(open.Lesson.Id), clock.GetCurrentInstant());

    /// <summary>What changed in a lesson since an earlier position.</summary>
    public LivePatch Since(long after, OpenLesson open)
    {
        var then = LiveView.Of(open, open.StateAt(after), after, feeds.Of(open.Lesson.Id), TriesAt(open.Lesson.Id), clock.GetCurrentInstant());
        var view = ViewOf(open);
        return Between(after, WindowRows.Of(then, open, before: null), WindowRows.Of(view, open, before: null), view);
    }

    /// <inheritdoc/>
    protected override Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Half as much rest as work at least: what taps need to be stored comes first.
        _ = new ChangedLessons(openLessons, Publish, took => took / 2 > Pause ? took / 2 : Pause, stoppingToken);
        return Task.CompletedTask;
    }

    private DoorTries TriesAt(Guid lesson) => new(guesses.In(lesson), knocks.Refused(lesson));

    private async Task Publish(Guid lesson)
    {
        try
        {
            windows.Send(BoardOf(lesson), "changed");
            windows.Send(HelpOf(lesson), "changed");
            if (!windows.AnyHears(SheetOf(lesson)))
            {
                _sent.TryRemove(lesson, out _);
                return;
            }

            if (!_ownerOf.TryGetValue(lesson, out var owner) || await openLessons.Find(owner, lesson) is not { } open)
            {
                return;
            }

            // Without a view sent before, every row counts as changed: rows are whole, so a window may take them at any time.
            var before = _sent.GetValueOrDefault(lesson);
            var view = LiveView.Of(
                open, open.State, open.Position, feeds.Of(lesson), TriesAt(lesson), clock.GetCurrentInstant(), before?.Unchanged(open) ?? []);
            var now = WindowRows.Of(view, open, before);
            _sent[lesson] = now;
            windows.Send(SheetOf(lesson), "patch", Written.Of(Between(before?.Position ?? 0, before, now, view)));
        }
        catch (Exception failure)
        {
            // What was sent last is not relied on any more: the next patch has every row. The ledger itself is safe.
            _sent.TryRemove(lesson, out _);
            log.LogError(failure, "A change of lesson {Lesson} could not be published.", lesson);
        }
    }

    private static LivePatch Between(long from, WindowRows? then, WindowRows now, LiveView view) => new(
        from, view.Head, [.. view.Rows.Select(r => r.Id)],
        [.. view.Rows.Where(r => then?.WrittenOf(r.Id) != now.WrittenOf(r.Id))]);
}
