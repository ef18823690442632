using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Groups;

/// <summary>Some students who work together for a part of a lesson.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Members">Who is in it.</param>
public sealed record StudentGroup(Guid Id, string Name, IReadOnlyList<Guid> Members)
{
    /// <summary>The most groups that a class is split into: 60.</summary>
    public const int Most = 60;

    internal static string? WrongName(string name) =>
        CleanText.IsBlank(name) ? "A group needs a name."
        : TextLimits.TooLong(name, "name", TextLimits.LongestName);
}

/// <summary>What a member of a group did, as the teacher saw it in a sit-in.</summary>
public enum Contribution
{
    /// <summary>Took part: credit 1.</summary>
    Contributed,

    /// <summary>Took part a little: credit 0.5.</summary>
    Some,

    /// <summary>Did not take part: credit 0.</summary>
    Not,
}

/// <summary>Contributions in plain words.</summary>
public static class ContributionWords
{
    /// <summary>What a member did.</summary>
    public static string InWords(this Contribution contribution) => contribution switch
    {
        Contribution.Contributed => "contributed",
        Contribution.Some => "some",
        _ => "did not contribute",
    };
}
