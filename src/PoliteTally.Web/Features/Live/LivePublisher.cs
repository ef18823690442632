using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Feed;
using PoliteTally.Web.Features.Help;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Features.Live;

/// <summary>
/// Sends patches to the windows that watch a lesson. Changes that come in quick succession go out together, so that a
/// busy lesson costs a bounded share of the machine. Class boards and helpers hear only that something changed.
/// </summary>
public sealed class LivePublisher(
    LedgerWriter ledger, FeedDesk feeds, GuessWatch guesses, IHubContext<LiveHub> hub, IHubContext<HelpHub> helpers, IClock clock, ILogger<LivePublisher> log) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(20);

    private readonly ConcurrentDictionary<Guid, Guid> _ownerOf = new();
    private readonly ConcurrentDictionary<string, Guid> _watching = new();
    private readonly Dictionary<Guid, Sent> _sent = [];
    private readonly ChangedLessons _changed = new(ledger);

    /// <summary>The group of windows that show the class board of a lesson.</summary>
    public static string BoardOf(Guid lesson) => $"board {lesson}";

    /// <summary>A window watches a lesson.</summary>
    public void Watched(Guid lesson, Guid owner, string connection)
    {
        _ownerOf[lesson] = owner;
        _watching[connection] = lesson;
    }

    /// <summary>A window is gone.</summary>
    public void Gone(string connection)
    {
        if (_watching.TryRemove(connection, out var lesson) && !_watching.Values.Contains(lesson))
        {
            _ownerOf.TryRemove(lesson, out _);
        }
    }

    /// <summary>A lesson as it stands.</summary>
    public LiveView ViewOf(OpenLesson open)
    {
        var (position, state) = open.State();
        return LiveView.Of(open, state, position, feeds.Of(open.Lesson.Id), guesses.In(open.Lesson.Id), clock.GetCurrentInstant());
    }

    /// <summary>What changed in a lesson since an earlier position.</summary>
    public LivePatch Since(long after, OpenLesson open)
    {
        var then = LiveView.Of(open, open.StateAt(after), after, feeds.Of(open.Lesson.Id), guesses.In(open.Lesson.Id), clock.GetCurrentInstant());
        var view = ViewOf(open);
        return Between(after, Sent.Of(then, open, before: null), Sent.Of(view, open, before: null), view);
    }

    /// <inheritdoc/>
    protected override Task ExecuteAsync(CancellationToken stoppingToken) => _changed.Each(
        async lessons =>
        {
            foreach (var lesson in lessons)
            {
                await Publish(lesson, stoppingToken);
            }

            foreach (var unwatched in _sent.Keys.Where(l => !_ownerOf.ContainsKey(l)).ToList())
            {
                _sent.Remove(unwatched);
            }
        },
        // Half as much rest as work at least: what taps need to be stored comes first.
        took => took / 2 > Pause ? took / 2 : Pause,
        stoppingToken);

    private async Task Publish(Guid lesson, CancellationToken stopping)
    {
        try
        {
            await hub.Clients.Group(BoardOf(lesson)).SendAsync("changed", stopping);
            await helpers.Clients.Group(lesson.ToString()).SendAsync("changed", stopping);
            if (!_ownerOf.TryGetValue(lesson, out var owner) || ledger.Find(owner, lesson) is not { } open)
            {
                return;
            }

            // Without a view sent before, every row counts as changed: rows are whole, so a window may take them at any time.
            var before = _sent.GetValueOrDefault(lesson);
            var (position, state) = open.State();
            var view = LiveView.Of(
                open, state, position, feeds.Of(lesson), guesses.In(lesson), clock.GetCurrentInstant(), before?.Unchanged(open, state, position) ?? []);
            var now = Sent.Of(view, open, before);
            _sent[lesson] = now;
            var patch = Between(before?.Position ?? 0, before, now, view);
            await hub.Clients.Group(lesson.ToString()).SendAsync("patch", patch, stopping);
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            // A window that missed a patch sees the gap at the next one and asks; the ledger itself is safe.
            log.LogError(failure, "A change of lesson {Lesson} could not be published.", lesson);
        }
    }

    private static LivePatch Between(long from, Sent? then, Sent now, LiveView view) => new(
        from, view.Head, [.. view.Rows.Select(r => r.Id)],
        [.. view.Rows.Where(r => then?.Rows.GetValueOrDefault(r.Id).Written != now.Rows[r.Id].Written)]);

    /// <summary>What was sent last: the position, and each row with how it was written.</summary>
    private sealed record Sent(long Position, OpenLesson OpenLesson, Lesson Lesson, Dictionary<Guid, (LiveRow Row, string Written)> Rows)
    {
        public static Sent Of(LiveView view, OpenLesson open, Sent? before) => new(view.Head.Position, open, open.Lesson, view.Rows.ToDictionary(r => r.Id, r =>
            before?.Rows.GetValueOrDefault(r.Id) is { Row: { } same } known && ReferenceEquals(same, r) ? known : (r, JsonSerializer.Serialize(r, Wire.Options))));

        /// <summary>
        /// Rows that the entries since then leave as they were: a tap or an event is about one student, and in a class of 500 that spares the
        /// reckoning of all the others. Whatever is about more than one makes all rows anew.
        /// </summary>
        public Dictionary<Guid, LiveRow> Unchanged(OpenLesson now, LessonState state, long position)
        {
            if (now != OpenLesson || now.Lesson != Lesson || position < Position)
            {
                return [];
            }

            var touched = new HashSet<Guid>();
            foreach (var entry in now.EntriesAfter(Position))
            {
                switch (entry.Act)
                {
                    case StudentAct act:
                        touched.Add(state.Whose(act.Student));
                        break;
                    case NameAct act and not (NameMatched or Renamed or Seen):
                        if (state.StudentOf(state.Names[act.Name]) is { } student)
                        {
                            touched.Add(student);
                        }

                        break;
                    case ChatAct act when state.MessageOf(act.Message)?.Student is { } writer:
                        touched.Add(writer);
                        break;
                    case AnswersMarked marked:
                        touched.UnionWith(marked.Students.Select(state.Whose));
                        break;
                    case QuestionOpened or RightRevealed or WordsMerged or ResultsPut or PageKnocked:
                        break;
                    case StageMoved or StageExtended or TimerStarted or TimerStopped or BoardPut or BoardTaken or ReminderTicked or GroupsMade or GroupRenamed or GroupsDissolved:
                        break;
                    default:
                        return [];
                }
            }

            return Rows.Where(r => !touched.Contains(r.Key)).ToDictionary(r => r.Key, r => r.Value.Row);
        }
    }
}
