using NodaTime;
using PoliteTally.Web.Features.Door;

namespace PoliteTally.Web.Features.Accounts;

/// <summary>
/// Bounds how often a password may be guessed: for an address of mail from one network, and from all of them together. Whether there is such an account makes no difference,
/// so that nobody learns it here; and a stranger from elsewhere keeps no teacher out by a few wrong tries.
/// </summary>
public sealed class SignInWatch(IClock clock)
{
    /// <summary>Wrong tries from one network after which none is taken for <see cref="Window"/>: 8.</summary>
    public const int FromOne = 8;

    /// <summary>Wrong tries from everywhere: 80.</summary>
    public const int FromAll = 80;

    /// <summary>For how long a wrong try counts: 5 min.</summary>
    public static readonly Duration Window = Duration.FromMinutes(5);

    private readonly RecentTimes _wrong = new(clock, Window);

    /// <summary>Whether a try is taken.</summary>
    public bool Takes(string email, string network) => _wrong.At(Key(email, network)).Count < FromOne && _wrong.At(Key(email, "")).Count < FromAll;

    /// <summary>A try was wrong.</summary>
    public void Wrong(string email, string network)
    {
        _wrong.Add(Key(email, network));
        _wrong.Add(Key(email, ""));
    }

    private static string Key(string email, string network) => $"{email.Trim().ToUpperInvariant()}\n{network}";
}
