using System.Collections.Concurrent;
using NodaTime;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>
/// Bounds how often somebody may knock with no more than a name: each knock is an entry of the lesson, and a line before the teacher. The bound
/// grows with the class, for a whole school may come from one address.
/// </summary>
public sealed class KnockWatch(IClock clock)
{
    /// <summary>The fewest knocks that are taken in a while, however small the class: 40.</summary>
    public const int Fewest = 40;

    /// <summary>Knocks that are taken in a while for each student of the roster: 2.</summary>
    public const int ForEach = 2;

    /// <summary>How long a while is: 10 min.</summary>
    public static readonly Duration Window = Duration.FromMinutes(10);

    private const int MostPlaces = 10_000;

    private readonly ConcurrentDictionary<string, List<Instant>> _knocks = new();
    private readonly ConcurrentDictionary<Guid, Instant> _refused = new();

    /// <summary>Whether a knock is taken; if so, it is counted.</summary>
    public bool Takes(Guid lesson, string address, int students)
    {
        var most = Math.Max(Fewest, ForEach * students);
        if (Count(lesson.ToString(), most) && Count($"{lesson} {address}", most))
        {
            return true;
        }

        _refused[lesson] = clock.GetCurrentInstant();
        return false;
    }

    /// <summary>Whether knocks at a lesson were refused of late.</summary>
    public bool Refused(Guid lesson) => _refused.TryGetValue(lesson, out var last) && last > clock.GetCurrentInstant() - Window;

    private bool Count(string place, int most)
    {
        var now = clock.GetCurrentInstant();
        if (_knocks.Count > MostPlaces)
        {
            ForgetOld(now);
        }

        var knocks = _knocks.GetOrAdd(place, _ => []);
        lock (knocks)
        {
            knocks.RemoveAll(at => at <= now - Window);
            if (knocks.Count >= most)
            {
                return false;
            }

            knocks.Add(now);
            return true;
        }
    }

    private void ForgetOld(Instant now)
    {
        foreach (var (place, knocks) in _knocks)
        {
            lock (knocks)
            {
                if (knocks.TrueForAll(at => at <= now - Window))
                {
                    _knocks.TryRemove(place, out _);
                }
            }
        }
    }
}
