namespace PoliteTally.Core.Ledger;

/// <summary>What has to be known of a lesson to check an entry for it.</summary>
/// <param name="Times">Planned and actual times.</param>
/// <param name="Roster">The ids of the students of its class.</param>
/// <param name="Settled">Whether it is settled.</param>
/// <param name="ActOf">The act of an entry stored so far; null if there is no such entry.</param>
/// <param name="Parts">What those entries amount to; answers may be missing that came a moment before.</param>
/// <param name="Cancelled">Whether it was cancelled.</param>
/// <param name="SignalsAnyTime">Whether students may signal outside of signal rounds.</param>
/// <param name="StudentsHandOn">Whether a student whose turn it is may hand on to another.</param>
/// <param name="SchemeVersions">How many versions the scheme of the class has.</param>
/// <param name="Levels">The levels of the criteria that the lesson is judged by; null if there are none.</param>
public sealed record LessonFacts(
    LessonTimes Times,
    IReadOnlySet<Guid> Roster,
    bool Settled,
    Func<Guid, Act?> ActOf,
    Func<LessonParts> Parts,
    bool Cancelled = false,
    bool SignalsAnyTime = false,
    bool StudentsHandOn = false,
    int SchemeVersions = 0,
    IReadOnlySet<(Guid Criterion, Guid Level)>? Levels = null)
{
    /// <summary>What a trade keeps of the lesson.</summary>
    internal T See<T>()
        where T : LessonPart => Parts().See<T>();

    /// <summary>Why students cannot be named in an entry; null if all of them are on the roster.</summary>
    internal string? NotOnRoster(params IEnumerable<Guid> students) =>
        students.All(Roster.Contains) ? null : "This student is not on the roster of this class.";
}
