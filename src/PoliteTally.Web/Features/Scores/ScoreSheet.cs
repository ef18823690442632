using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Names;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Students by lessons, each with a score.</summary>
/// <param name="Places">With how many places scores are shown.</param>
/// <param name="Bands">The bands of the scheme, the lowest first; none where a strand is looked at.</param>
/// <param name="Terms">The terms of the school in which the class has settled lessons.</param>
public sealed record ScoreSheet(
    Guid ClassId, string ClassName, int Places, IReadOnlyList<Band> Bands, IReadOnlyList<ScoredColumn> Lessons, IReadOnlyList<ScoredRow> Students, IReadOnlyList<TaughtTerm> Terms)
{
    /// <summary>The sheet.</summary>
    /// <param name="term">The lessons.</param>
    /// <param name="strand">The strand that is looked at alone, from 0 to 100; null for scores.</param>
    /// <param name="terms">The terms of the school.</param>
    internal static ScoreSheet Of(TermSheet term, Strand? strand, IReadOnlyList<TaughtTerm> terms) => new(
        term.ClassId, term.Name, term.Scheme.Places, strand is null ? term.Scheme.Bands : [], [.. term.Lessons.Select(ColumnOf)],
        [.. term.Roster.Select(s => strand is { } alone ? RowOf(s, term, alone) : RowOf(s, term))], terms);

    internal static ScoredColumn ColumnOf(Lesson lesson) => new(lesson.Id, lesson.Number, lesson.Title, lesson.PlannedStart, lesson.ScoredBy, lesson.DropIn);

    /// <summary>How long somebody was there, in whole minutes.</summary>
    internal static int MinutesOf(Summary summary) => (int)Math.Round(summary.PresentSeconds / 60m, MidpointRounding.AwayFromZero);

    private static ScoredRow RowOf(OnSheet student, TermSheet term)
    {
        var (id, score) = (student.Name.Id, term.Score(student.Name.Id));
        return new ScoredRow(
            id, ShortNames.CalledName(student.Name), student.Name.Family, student.Tags, term.Shown(score.Total), term.BandOf(score.Total), term.NeedsLook(id, score),
            [.. term.Lessons.Select(l => term.Of(l.Id, id) is { } summary ? CellOf(summary, term.TallyOf(l.Id, id)!, term.SchemeOf(l), summary.Score) : null)]);
    }

    private static ScoredRow RowOf(OnSheet student, TermSheet term, Strand strand)
    {
        var id = student.Name.Id;
        return new ScoredRow(
            id, ShortNames.CalledName(student.Name), student.Name.Family, student.Tags, term.Shown(term.ScoreOfStrand(strand, id).Total), null, [],
            [.. term.Lessons.Select(l => term.Of(l.Id, id) is { } summary ? CellOf(summary, term.TallyOf(l.Id, id)!, term.SchemeOf(l), term.StrandOf(strand, l, id) * 100) : null)]);
    }

    private static ScoredCell CellOf(Summary summary, Tally did, Scheme scheme, decimal? value) => new(
        value is { } score ? scheme.Shown(score) : null, summary.Status, summary.Notes, MinutesOf(summary),
        summary is { RestsOnLittle: true, Status: not AttendanceStatus.Absent },
        did.Corrections.Count == 0 ? null : string.Join("; ", did.Corrections.Select(c => $"{c.Said} ({c.By})")));
}

/// <summary>A settled lesson of the sheet.</summary>
/// <param name="Version">The version of the scheme that it is scored by; null if that was never changed.</param>
/// <param name="DropIn">Whether nobody had to come: then the time somebody was there says more than a score.</param>
public sealed record ScoredColumn(Guid Id, int Number, string Title, Instant PlannedStart, int? Version, bool DropIn);

/// <summary>A student of the sheet, a cell a lesson in the order of the lessons.</summary>
/// <param name="Term">The score over all lessons of the sheet, as shown; null with fewer lessons than that needs.</param>
/// <param name="Band">The name of the band it is in; null if there are none.</param>
/// <param name="NeedsLook">Why it needs a look before it is given to anybody, each in a few words.</param>
public sealed record ScoredRow(
    Guid Id, string Called, string Rest, string Tags, decimal? Term, string? Band, IReadOnlyList<string> NeedsLook, IReadOnlyList<ScoredCell?> Cells);

/// <summary>A score as shown, or the status by which there is none.</summary>
/// <param name="Minutes">How long the student was there, in whole minutes.</param>
/// <param name="RestsOnLittle">Whether it rests on less than half of the scheme.</param>
/// <param name="Corrected">What was put right by hand, with who did; null if nothing was.</param>
public sealed record ScoredCell(decimal? Score, AttendanceStatus Status, string Notes, int Minutes, bool RestsOnLittle, string? Corrected);
