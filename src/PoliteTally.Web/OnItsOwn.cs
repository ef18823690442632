using System.Collections.Concurrent;

namespace PoliteTally.Web;

/// <summary>
/// What goes on beside the requests, for each lesson, message or owner on its own: one that fails is said once, with its id, and keeps no other waiting. It is said
/// again when it has gone well in between. Nothing gets through but being stopped: a loop that ended would end the program with it.
/// </summary>
/// <param name="log">Where it is said.</param>
/// <param name="what">What is done, as in "The word ahead of lesson".</param>
internal sealed class OnItsOwn(ILogger log, string what)
{
    private readonly ConcurrentDictionary<Guid, bool> _failed = new();

    /// <summary>Does something for one, whatever comes of it.</summary>
    public async Task Do(Guid id, Func<Task> work, CancellationToken stopping)
    {
        try
        {
            await work();
            _failed.TryRemove(id, out _);
        }
        catch (Exception failure) when (!stopping.IsCancellationRequested)
        {
            if (_failed.TryAdd(id, true))
            {
                log.LogError(failure, "{What} {Id} could not be looked after; all others are.", what, id);
            }
        }
    }

    /// <summary>Does something again and again, with a pause in between, until it is stopped.</summary>
    public async Task Every(TimeSpan pause, TimeProvider timers, Func<Task> work, CancellationToken stopping)
    {
        using var timer = new PeriodicTimer(pause, timers);
        do
        {
            await Do(Guid.Empty, work, stopping);
        }
        while (await timer.WaitForNextTickAsync(stopping));
    }
}
