using NodaTime;

namespace PoliteTally.Web.Features.Door;

/// <summary>
/// Slows down whoever guesses passes and codes, and then refuses them for a while. A school may come from one address: whoever enters rightly
/// makes good for wrong tries of others from there, once in a while, so that nobody who has a pass can guess for ever.
/// </summary>
public sealed class GuessWatch(IClock clock)
{
    /// <summary>Wrong tries from one address after which each next one is slowed down. 8.</summary>
    public const int SlowFrom = 8;

    /// <summary>Wrong tries from one address after which none is taken for <see cref="Window"/>. 40.</summary>
    public const int RefusedFrom = 40;

    /// <summary>Wrong tries in one lesson after which its teacher is told. 8.</summary>
    public const int ToldFrom = 8;

    /// <summary>How many wrong tries a right one makes good for. 4.</summary>
    public const int MadeGood = 4;

    /// <summary>For how long a wrong try counts. 10 min.</summary>
    public static readonly Duration Window = Duration.FromMinutes(10);

    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(2);

    private readonly RecentTimes _wrong = new(clock, Window);
    private readonly RecentTimes _right = new(clock, Window);

    /// <summary>How much longer nothing is taken from an address; zero if it is.</summary>
    public Duration RefusedFor(string address)
    {
        var wrong = _wrong.At(address);
        return wrong.Count < RefusedFrom ? Duration.Zero : wrong[^RefusedFrom] + Window - clock.GetCurrentInstant();
    }

    /// <summary>How long a try from an address has to wait.</summary>
    public TimeSpan WaitOf(string address)
    {
        var over = _wrong.At(address).Count - SlowFrom;
        return over < 0 ? TimeSpan.Zero : TimeSpan.FromMilliseconds(Math.Min(LongestWait.TotalMilliseconds, 100 * Math.Pow(2, over)));
    }

    /// <summary>Wrong tries in a lesson that its teacher is to be told of; 0 while they are few.</summary>
    public int In(Guid lesson) => _wrong.At(lesson.ToString()) is { Count: >= ToldFrom } wrong ? wrong.Count : 0;

    /// <summary>A try was wrong.</summary>
    public void Wrong(string address, Guid? lesson)
    {
        _wrong.Add(address);
        if (lesson is { } id)
        {
            _wrong.Add(id.ToString());
        }
    }

    /// <summary>A student entered rightly.</summary>
    public void Right(string address, Guid student)
    {
        if (_right.Add($"{address} {student}", most: 1))
        {
            _wrong.TakeOff(address, MadeGood);
        }
    }
}
