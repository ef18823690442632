using System.Collections.Concurrent;
using NodaTime;

namespace PoliteTally.Web.Features.Door;

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

    private readonly RecentTimes _knocks = new(clock, Window);
    private readonly ConcurrentDictionary<Guid, Instant> _refused = new();

    /// <summary>Whether a knock is taken; if so, it is counted.</summary>
    public bool Takes(Guid lesson, string address, int students)
    {
        var most = Math.Max(Fewest, ForEach * students);
        if (_knocks.Add(lesson.ToString(), most) && _knocks.Add($"{lesson} {address}", most))
        {
            return true;
        }

        _refused[lesson] = clock.GetCurrentInstant();
        return false;
    }

    /// <summary>Whether knocks at a lesson were refused of late.</summary>
    public bool Refused(Guid lesson) => _refused.TryGetValue(lesson, out var last) && last > clock.GetCurrentInstant() - Window;
}
