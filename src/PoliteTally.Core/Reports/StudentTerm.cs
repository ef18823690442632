using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Reports;

/// <summary>A settled lesson of a student.</summary>
/// <param name="Id">The id of the lesson.</param>
/// <param name="Number">Its number in the class.</param>
/// <param name="Title">What it was about.</param>
/// <param name="Day">Its day at the school.</param>
/// <param name="DropIn">Whether nobody had to come.</param>
/// <param name="Score">The score, 0 to 100, unrounded; null if it does not count.</param>
/// <param name="Did">What was done, counted.</param>
/// <param name="There">How long the student was there.</param>
/// <param name="Stretches">When the student was there, as fractions of the lesson.</param>
/// <param name="Spoke">When the student spoke, as fractions of the lesson.</param>
/// <param name="Notes">What stands beside the status in the register.</param>
public sealed record LessonOfStudent(
    Guid Id, int Number, string Title, LocalDate Day, bool DropIn, decimal? Score, Tally Did, Duration There,
    IReadOnlyList<decimal[]> Stretches, IReadOnlyList<decimal> Spoke, string Notes)
{
    /// <summary>Whether the student was there at all.</summary>
    public bool Came => Did.Status is AttendanceStatus.Present or AttendanceStatus.Late;
}

/// <summary>A student over the settled lessons of some days.</summary>
/// <param name="Id">The id of the student.</param>
/// <param name="Called">What they are called.</param>
/// <param name="Whole">Their whole name.</param>
/// <param name="Lessons">The lessons that have a row of theirs, in their order.</param>
/// <param name="Score">The score over these lessons.</param>
/// <param name="Scheme">The scheme of the class as it is now.</param>
public sealed record StudentTerm(Guid Id, string Called, string Whole, IReadOnlyList<LessonOfStudent> Lessons, TermScore Score, Scheme Scheme)
{
    /// <summary>How many lessons are the last ones, beside those before: 3.</summary>
    public const int Last = 3;

    /// <summary>Lessons in which they were there.</summary>
    public IReadOnlyList<LessonOfStudent> Came { get; } = [.. Lessons.Where(l => l.Came)];

    /// <summary>Lessons in which they had a turn.</summary>
    public int SpokeIn => Lessons.Count(l => l.Did.Turns() > 0);

    /// <summary>How many lessons have a status.</summary>
    public int Count(AttendanceStatus status) => Lessons.Count(l => l.Did.Status == status);

    /// <summary>Something added up over all lessons.</summary>
    public int Sum(Func<Tally, int> of) => Lessons.Sum(l => of(l.Did));

    /// <summary>Something added up over all lessons.</summary>
    public decimal Sum(Func<Tally, decimal> of) => Lessons.Sum(l => of(l.Did));

    /// <summary>The mean of the last three scored lessons and of those before them, unrounded; null with fewer than five.</summary>
    public (decimal Lately, decimal Before)? Moved
    {
        get
        {
            var scores = Lessons.Select(l => l.Score).OfType<decimal>().ToList();
            return scores.Count < Last + 2 ? null : (scores[^Last..].Average(), scores[..^Last].Average());
        }
    }
}
