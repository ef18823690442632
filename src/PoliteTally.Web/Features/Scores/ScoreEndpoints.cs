using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Objections;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Students by lessons, each with a score.</summary>
/// <param name="Places">With how many places scores are shown.</param>
/// <param name="Bands">The bands of the scheme, the lowest first.</param>
public sealed record ScoreSheet(
    Guid ClassId, string ClassName, int Places, IReadOnlyList<Band> Bands, IReadOnlyList<ScoredColumn> Lessons, IReadOnlyList<ScoredRow> Students);

/// <summary>A settled lesson of the sheet.</summary>
/// <param name="Version">The version of the scheme that it is scored by; null if that was never changed.</param>
/// <param name="DropIn">Whether nobody had to come: then the time somebody was there says more than a score.</param>
public sealed record ScoredColumn(Guid Id, int Number, string Title, Instant PlannedStart, int? Version, bool DropIn);

/// <summary>A student of the sheet, a cell a lesson in the order of the lessons.</summary>
/// <param name="Term">The score over the term, as shown; null with fewer lessons than a term needs.</param>
/// <param name="Band">The name of the band it is in; null if there are none.</param>
/// <param name="NeedsLook">Why it needs a look before it is given to anybody, each in a few words.</param>
public sealed record ScoredRow(
    Guid Id, string Called, string Rest, string Tags, decimal? Term, string? Band, IReadOnlyList<string> NeedsLook, IReadOnlyList<ScoredCell?> Cells);

/// <summary>A score as shown, or the status by which there is none.</summary>
/// <param name="Minutes">How long the student was there, in whole minutes.</param>
/// <param name="RestsOnLittle">Whether it rests on less than half of the scheme.</param>
/// <param name="Corrected">What was put right by hand, with who did; null if nothing was.</param>
public sealed record ScoredCell(decimal? Score, AttendanceStatus Status, string Notes, int Minutes, bool RestsOnLittle, string? Corrected);

/// <summary>Why a score is what it is.</summary>
/// <param name="Sentence">It in one plain sentence.</param>
/// <param name="RestsOn">The weight of the strands that it rests on.</param>
/// <param name="Whole">The weight of all strands.</param>
/// <param name="Version">The version of the scheme; null if that was never changed.</param>
/// <param name="WouldChange">What would have made it higher, what would have made most first.</param>
/// <param name="Corrections">What was put right by hand.</param>
/// <param name="Objections">What the student said is wrong in it.</param>
/// <param name="Criteria">By what the teacher judges in this lesson, each with the level that was marked.</param>
public sealed record Explanation(
    string Student, string Lesson, decimal? Shown, string Sentence, decimal RestsOn, decimal Whole, int? Version, LessonScore Score, IReadOnlyList<ExplainedEntry> Entries,
    IReadOnlyList<WouldChange> WouldChange, IReadOnlyCollection<Correction> Corrections, IReadOnlyList<JudgedCriterion> Criteria, IReadOnlyList<ObjectionLine> Objections);

/// <summary>A criterion, and how the student was judged by it.</summary>
/// <param name="Level">The id of the level; null if none was marked.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record JudgedCriterion(Criterion Criterion, Guid? Level, Guid? Entry);

/// <summary>An entry that a figure rests on.</summary>
public sealed record ExplainedEntry(Guid Id, Instant At, string Text, Source Source, string By);

/// <summary>Why a term score is what it is.</summary>
/// <param name="NeedsLook">Why it needs a look before it is given to anybody.</param>
public sealed record TermExplanation(string Student, decimal? Shown, string? Band, Figure? Total, IReadOnlyList<string> LeftOut, int Scored, int Needed, IReadOnlyList<string> NeedsLook);

internal static class ScoreEndpoints
{
    public static void MapScores(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/scores", async (Guid id, OwnClass own, SchoolDb db) =>
        {
            var term = await TermSheet.Of(own.Row, db);
            return TypedResults.Ok(new ScoreSheet(
                id, term.Name, term.Scheme.Places, term.Scheme.Bands, [.. term.Lessons.Select(ColumnOf)], [.. term.Roster.Select(s => RowOf(s, term))]));
        }).WithName("GetScores");

        api.MapGet("/classes/{id:guid}/gradebook.csv", async (Guid id, OwnClass own, SchoolDb db, Owner owner) => TypedResults.File(
            new GradeBook(await TermSheet.Of(own.Row, db), await LessonEndpoints.ZoneOf(db, owner)).Csv(), "text/csv; charset=utf-8", $"{SavedAs.PartOf(own.Row.Name)}-scores.csv"))
            .WithName("SaveGradeBook");

        api.MapGet("/classes/{id:guid}/gradebook.xlsx", async (Guid id, OwnClass own, SchoolDb db, Owner owner) => TypedResults.File(
            new GradeBook(await TermSheet.Of(own.Row, db), await LessonEndpoints.ZoneOf(db, owner)).Workbook(),
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", $"{SavedAs.PartOf(own.Row.Name)}-scores.xlsx"))
            .WithName("SaveGradeBookAsWorkbook").RequireRateLimiting(Limits.Files);

        api.MapGet("/classes/{id:guid}/scores/{student:guid}", async Task<Results<Ok<TermExplanation>, NotFound>> (
            OwnClass own, Guid student, SchoolDb db) =>
        {
            var term = await TermSheet.Of(own.Row, db, student);
            if (term.Roster.FirstOrDefault(s => s.Name.Id == student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var score = term.Score(student);
            return TypedResults.Ok(new TermExplanation(
                found.Name.Whole, ShownOf(score.Total, term.Scheme), BandOf(score.Total, term.Scheme), score.Total, [.. score.LeftOut.Select(l => l.Label)], term.Scored(student),
                term.Scheme.LessonsForTerm, LookedAt(student, term)));
        }).WithName("ExplainTerm");

        api.MapGet("/lessons/{id:guid}/scores/{student:guid}", async Task<Results<Ok<Explanation>, NotFound>> (
            Guid id, OwnLesson own, Guid student, SchoolDb db) =>
        {
            var open = own.Open;
            if (open.Roster.FirstOrDefault(s => s.Name.Id == student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var (state, scheme) = (open.State, open.Rules.Scheme);
            var did = state.ParticipationOf(student, open.Times, scheme);
            var (score, tally) = (LessonScore.Of(did, scheme), Tally.Of(did));
            var used = score.Leaves().Concat(did.Attendance.Entries).ToHashSet();
            return TypedResults.Ok(new Explanation(
                found.Name.Whole, TermSheet.LabelOf(open.Lesson), ShownOf(score.Total, scheme), ScoreInWords.Of(score, tally, scheme), score.RestsOn, score.Whole, open.Lesson.ScoredBy, score,
                [.. state.Entries.Where(e => used.Contains(e.Id)).Select(e => new ExplainedEntry(e.Id, e.HappenedAt, Wording.Of(e, state), e.Source, e.By))],
                WouldChange.Of(tally, scheme), did.Corrections,
                [.. scheme.Criteria.Select(c => did.Marks.FirstOrDefault(m => m.Criterion == c.Id) is var mark ? new JudgedCriterion(c, mark?.Level, mark?.Entry) : null!)],
                await ObjectionEndpoints.Lines(db.Objections.Where(o => o.LessonId == id && o.StudentId == student), db)));
        }).WithName("ExplainScore");
    }

    /// <summary>How long somebody was there, in whole minutes.</summary>
    internal static int MinutesOf(Summary summary) => (int)Math.Round(summary.PresentSeconds / 60m, MidpointRounding.AwayFromZero);

    internal static ScoredColumn ColumnOf(Lesson lesson) => new(lesson.Id, lesson.Number, lesson.Title, lesson.PlannedStart, lesson.ScoredBy, lesson.DropIn);

    private static ScoredRow RowOf(OnSheet student, TermSheet term)
    {
        var total = term.Score(student.Name.Id).Total;
        return new ScoredRow(
            student.Name.Id, ShortNames.CalledName(student.Name), student.Name.Family, student.Tags, ShownOf(total, term.Scheme), BandOf(total, term.Scheme), LookedAt(student.Name.Id, term),
            [.. term.Lessons.Select(l => term.Of(l.Id, student.Name.Id) is { } summary ? CellOf(summary, term.TallyOf(l.Id, student.Name.Id)!, term.SchemeOf(l)) : null)]);
    }

    private static IReadOnlyList<string> LookedAt(Guid student, TermSheet term) => NeedsLook.Because(
        [
            .. term.Lessons.Where(l => term.Of(l.Id, student) is not null)
                .Select(l => (Row: term.Of(l.Id, student)!, Tally: term.TallyOf(l.Id, student)!)).Select(l => new LessonLooked(l.Row.Score, l.Row.RestsOn * 2 < l.Row.Whole, l.Tally)),
        ],
        term.Scheme);

    private static decimal? ShownOf(Figure? figure, Scheme scheme) => figure is null ? null : scheme.Shown(figure.Value);

    private static string? BandOf(Figure? figure, Scheme scheme) => figure is null ? null : scheme.BandOf(figure.Value)?.Name;

    private static ScoredCell CellOf(Summary summary, Tally did, Scheme scheme) => new(
        summary.Score is { } score ? scheme.Shown(score) : null, summary.Status, summary.Notes, MinutesOf(summary),
        summary is { Score: not null, Status: not AttendanceStatus.Absent } && summary.RestsOn * 2 < summary.Whole,
        did.Corrections.Count == 0 ? null : string.Join("; ", did.Corrections.Select(c => $"{c.Said} ({c.By})")));
}
