using System.Collections.Concurrent;
using NodaTime;

namespace PoliteTally.Web.Features.Door;

/// <summary>When something happened at a place (an address, a lesson), as far as it was within a while. Places where nothing did are forgotten.</summary>
internal sealed class RecentTimes(IClock clock, Duration window)
{
    private const int MostPlaces = 10_000;

    private readonly ConcurrentDictionary<string, List<Instant>> _times = new();

    /// <summary>When it happened at a place of late, the oldest first.</summary>
    public IReadOnlyList<Instant> At(string place)
    {
        if (!_times.TryGetValue(place, out var times))
        {
            return [];
        }

        lock (times)
        {
            Forget(times);
            return [.. times];
        }
    }

    /// <summary>It happens, unless it did so often of late already.</summary>
    /// <returns>Whether it was counted.</returns>
    public bool Add(string place, int most = int.MaxValue)
    {
        if (_times.Count > MostPlaces)
        {
            foreach (var old in _times.Keys.Where(p => At(p).Count == 0))
            {
                _times.TryRemove(old, out _);
            }
        }

        var times = _times.GetOrAdd(place, _ => []);
        lock (times)
        {
            Forget(times);
            if (times.Count >= most)
            {
                return false;
            }

            times.Add(clock.GetCurrentInstant());
            return true;
        }
    }

    /// <summary>The oldest of them count no more.</summary>
    public void TakeOff(string place, int oldest)
    {
        if (_times.TryGetValue(place, out var times))
        {
            lock (times)
            {
                times.RemoveRange(0, Math.Min(oldest, times.Count));
            }
        }
    }

    private void Forget(List<Instant> times) => times.RemoveAll(at => at < clock.GetCurrentInstant() - window);
}
