using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Objections;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Why a score is what it is.</summary>
/// <param name="Sentence">It in one plain sentence.</param>
/// <param name="Version">The version of the scheme; null if that was never changed.</param>
/// <param name="WouldChange">What would have made it higher, what would have made most first.</param>
/// <param name="Corrections">What was put right by hand.</param>
/// <param name="Objections">What the student said is wrong in it.</param>
/// <param name="Criteria">By what the teacher judges in this lesson, each with the level that was marked.</param>
public sealed record Explanation(
    string Student, string Lesson, decimal? Shown, string Sentence, int? Version, LessonScore Score, IReadOnlyList<ExplainedEntry> Entries,
    IReadOnlyList<WouldChange> WouldChange, IReadOnlyCollection<Correction> Corrections, IReadOnlyList<JudgedCriterion> Criteria, IReadOnlyList<ObjectionLine> Objections);

/// <summary>A criterion, and how the student was judged by it.</summary>
/// <param name="Level">The id of the level; null if none was marked.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record JudgedCriterion(Criterion Criterion, Guid? Level, Guid? Entry);

/// <summary>An entry that a figure rests on.</summary>
public sealed record ExplainedEntry(Guid Id, Instant At, string Text, Source Source, string By);

/// <summary>Why a term score is what it is.</summary>
/// <param name="Scored">How many lessons it rests on: scored ones, or of one strand those with a chance in it.</param>
/// <param name="NeedsLook">Why it needs a look before it is given to anybody; of one strand nothing is said.</param>
/// <param name="Terms">The score in each term of the school in which the class has settled lessons; of one strand none.</param>
public sealed record TermExplanation(
    string Student, decimal? Shown, string? Band, Figure? Total, IReadOnlyList<string> LeftOut, int Scored, int Needed, IReadOnlyList<string> NeedsLook, IReadOnlyList<ScoreOfTerm> Terms);

/// <summary>A student's score in one term.</summary>
/// <param name="Shown">As shown; null with fewer scored lessons than it needs.</param>
public sealed record ScoreOfTerm(TaughtTerm Term, decimal? Shown, string? Band, int Scored);

internal static class ScoreEndpoints
{
    public static void MapScores(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/scores", async Task<Results<Ok<ScoreSheet>, ProblemHttpResult>> (
            Guid id, OwnClass own, string? from, string? to, string? strand, SchoolDb db, Owner owner) =>
        {
            if (await Span.Asked(from, to, db, owner) is not { } span)
            {
                return Refused.NoDay();
            }

            return StrandAsked(strand, out var alone)
                ? TypedResults.Ok(ScoreSheet.Of(await TermSheet.Of(own.Row, db, span: span), alone, await TaughtTerm.Of(id, db, owner)))
                : NoStrand();
        }).WithName("GetScores");

        Book("csv", "text/csv; charset=utf-8", (book, _) => book.Csv()).WithName("SaveGradeBook");
        Book("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", (book, _) => book.Workbook())
            .WithName("SaveGradeBookAsWorkbook").RequireRateLimiting(Limits.Files);
        Book("zip", "application/zip", (book, owner) => book.Bundle(owner.Id)).WithName("SaveGradeBundle").RequireRateLimiting(Limits.Files);

        RouteHandlerBuilder Book(string ending, string type, Func<GradeBook, Owner, byte[]> write) => api.MapGet(
            $"/classes/{{id:guid}}/gradebook.{ending}", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
                Guid id, OwnClass own, string? from, string? to, SchoolDb db, Owner owner) =>
                await Span.Asked(from, to, db, owner) is { } span
                    ? TypedResults.File(
                        write(new GradeBook(await TermSheet.Of(own.Row, db, span: span), await LessonEndpoints.ZoneOf(db, owner)), owner), type, $"{SavedAs.PartOf(own.Row.Name)}-scores.{ending}")
                    : Refused.NoDay());

        api.MapGet("/classes/{id:guid}/scores/{student:guid}", async Task<Results<Ok<TermExplanation>, NotFound, ProblemHttpResult>> (
            Guid id, OwnClass own, Guid student, string? from, string? to, string? strand, SchoolDb db, Owner owner) =>
        {
            if (await Span.Asked(from, to, db, owner) is not { } span)
            {
                return Refused.NoDay();
            }

            if (!StrandAsked(strand, out var alone))
            {
                return NoStrand();
            }

            var term = await TermSheet.Of(own.Row, db, student);
            if (term.Roster.FirstOrDefault(s => s.Name.Id == student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            if (alone is { } one)
            {
                var (figure, chances) = (term.ScoreOfStrand(one, student, span).Total, term.ChancesIn(one, student, span));
                return TypedResults.Ok(new TermExplanation(found.Name.Whole, term.Shown(figure), null, figure, [], chances, term.Scheme.LessonsForTerm, [], []));
            }

            var score = term.Score(student, span);
            return TypedResults.Ok(new TermExplanation(
                found.Name.Whole, term.Shown(score.Total), term.BandOf(score.Total), score.Total, [.. score.LeftOut.Select(l => l.Label)], term.Scored(student, span),
                term.Scheme.LessonsForTerm, term.NeedsLook(student, score, span),
                [
                    .. (await TaughtTerm.Of(id, db, owner)).Select(t => (Term: t, Score: term.Score(student, t.Span).Total))
                        .Select(t => new ScoreOfTerm(t.Term, term.Shown(t.Score), term.BandOf(t.Score), term.Scored(student, t.Term.Span))),
                ]));
        }).WithName("ExplainTerm");

        api.MapGet("/lessons/{id:guid}/scores/{student:guid}", async Task<Results<Ok<Explanation>, NotFound>> (
            Guid id, OwnLesson own, Guid student, SchoolDb db) =>
        {
            var open = own.Open;
            if (open.Roster.FirstOrDefault(s => s.Name.Id == student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var (state, scheme, records) = (open.State, open.Rules.Scheme, Rosters.RecordsOf(db, student));
            var did = state.ParticipationOf(student, open.Times, scheme);
            var (score, tally) = (LessonScore.Of(did, scheme), Tally.Of(did));
            var used = score.EntriesOf(did);
            return TypedResults.Ok(new Explanation(
                found.Name.Whole, TermSheet.LabelOf(open.Lesson), score.Total is { } total ? scheme.Shown(total.Value) : null, ScoreInWords.Of(score, tally, scheme), open.Lesson.ScoredBy, score,
                [.. state.Entries.Where(e => used.Contains(e.Id)).Select(e => new ExplainedEntry(e.Id, e.HappenedAt, Wording.Of(e, state), e.Source, e.By))],
                WouldChange.Of(tally, scheme), did.Corrections,
                [
                    .. from criterion in scheme.Criteria
                       let mark = did.Marks.FirstOrDefault(m => m.Criterion == criterion.Id)
                       select new JudgedCriterion(criterion, mark?.Level, mark?.Entry),
                ],
                await ObjectionEndpoints.Lines(db.Objections.Where(o => o.LessonId == id && records.Contains(o.StudentId)), db)));
        }).WithName("ExplainScore");
    }

    /// <summary>Reads the strand that is asked for alone.</summary>
    /// <returns>Whether there is such a strand, or none is asked for.</returns>
    private static bool StrandAsked(string? text, out Strand? strand)
    {
        strand = Enum.TryParse<Strand>(text, ignoreCase: true, out var named) && Enum.IsDefined(named) ? named : null;
        return strand is not null || string.IsNullOrEmpty(text);
    }

    private static ProblemHttpResult NoStrand() => Refused.Because($"There is no such strand. Ask for one of {string.Join(", ", Enum.GetNames<Strand>())}.");
}
