using System.Collections.Concurrent;
using System.Text.Json;
using System.Threading.Channels;
using Microsoft.AspNetCore.SignalR;
using NodaTime;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Live;

/// <summary>
/// Sends patches to the windows that watch a lesson. Changes that come in quick succession go out together, so that a
/// busy lesson costs a bounded number of folds a second.
/// </summary>
public sealed class LivePublisher(LedgerWriter ledger, IHubContext<LiveHub> hub, IClock clock, ILogger<LivePublisher> log) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(20);

    private readonly ConcurrentDictionary<Guid, Guid> _ownerOf = new();
    private readonly ConcurrentDictionary<string, Guid> _watching = new();
    private readonly Dictionary<Guid, LiveView> _sent = [];
    private readonly Channel<Guid> _changed = Channel.CreateUnbounded<Guid>(new UnboundedChannelOptions { SingleReader = true });

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

    /// <summary>What changed in a lesson since an earlier position.</summary>
    public static LivePatch Since(long after, Room room, Instant now)
    {
        var (position, state) = room.State();
        var then = LiveView.Of(room, room.StateAt(after), after, now);
        return Between(then, LiveView.Of(room, state, position, now));
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        ledger.Changed += lesson => _changed.Writer.TryWrite(lesson);
        var dirty = new HashSet<Guid>();
        while (await _changed.Reader.WaitToReadAsync(stoppingToken))
        {
            dirty.Clear();
            while (_changed.Reader.TryRead(out var lesson))
            {
                dirty.Add(lesson);
            }

            foreach (var lesson in dirty.Where(_ownerOf.ContainsKey))
            {
                await Publish(lesson, stoppingToken);
            }

            foreach (var unwatched in _sent.Keys.Where(l => !_ownerOf.ContainsKey(l)).ToList())
            {
                _sent.Remove(unwatched);
            }

            await Task.Delay(Pause, stoppingToken);
        }
    }

    private async Task Publish(Guid lesson, CancellationToken stopping)
    {
        try
        {
            if (!_ownerOf.TryGetValue(lesson, out var owner) || ledger.RoomOf(owner, lesson) is not { } room)
            {
                return;
            }

            var (position, state) = room.State();
            var view = LiveView.Of(room, state, position, clock.GetCurrentInstant());
            // Without a view sent before, every row counts as changed: rows are whole, so a window may take them at any time.
            var before = _sent.GetValueOrDefault(lesson) ?? view with { Rows = [], Head = view.Head with { Position = 0 } };
            _sent[lesson] = view;
            await hub.Clients.Group(lesson.ToString()).SendAsync("patch", Between(before, view), stopping);
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            // A window that missed a patch sees the gap at the next one and asks; the ledger itself is safe.
            log.LogError(failure, "A change of lesson {Lesson} could not be published.", lesson);
        }
    }

    private static LivePatch Between(LiveView then, LiveView now)
    {
        var before = then.Rows.ToDictionary(r => r.Id, r => JsonSerializer.Serialize(r, JsonSerializerOptions.Web));
        return new LivePatch(
            then.Head.Position, now.Head, [.. now.Rows.Select(r => r.Id)],
            [.. now.Rows.Where(r => before.GetValueOrDefault(r.Id) != JsonSerializer.Serialize(r, JsonSerializerOptions.Web))]);
    }
}
