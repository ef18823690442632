using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Students by lessons, each with a score.</summary>
public sealed record ScoreSheet(Guid ClassId, string ClassName, IReadOnlyList<ScoredColumn> Lessons, IReadOnlyList<ScoredRow> Students);

/// <summary>A settled lesson of the sheet.</summary>
public sealed record ScoredColumn(Guid Id, int Number, string Title, Instant PlannedStart);

/// <summary>A student of the sheet, a cell a lesson in the order of the lessons.</summary>
/// <param name="Term">The score over the term, as shown; null with fewer lessons than a term needs.</param>
public sealed record ScoredRow(Guid Id, string Called, string Rest, int? Term, IReadOnlyList<ScoredCell?> Cells);

/// <summary>A score as shown, or the status by which there is none.</summary>
public sealed record ScoredCell(int? Score, AttendanceStatus Status, string Notes);

/// <summary>Why a score is what it is.</summary>
public sealed record Explanation(
    string Student, string Lesson, int? Shown, LessonScore Score, IReadOnlyList<ExplainedEntry> Entries);

/// <summary>An entry that a figure rests on.</summary>
public sealed record ExplainedEntry(Guid Id, Instant At, string Text, Source Source, string By);

/// <summary>Why a term score is what it is.</summary>
public sealed record TermExplanation(string Student, int? Shown, Figure? Total, int Scored, int Needed);

internal static class ScoreEndpoints
{
    public static void MapScores(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/scores", async (Guid id, OwnClass own, SchoolDb db) =>
        {
            var term = await TermSheet.Of(own.Row, db);
            return TypedResults.Ok(new ScoreSheet(
                id, term.Name, [.. term.Lessons.Select(l => new ScoredColumn(l.Id, l.Number, l.Title, l.PlannedStart))],
                [.. term.Roster.Select(s => new ScoredRow(
                    s.Name.Id, ShortNames.CalledName(s.Name), s.Name.Family, ShownOf(term.Score(s.Name.Id).Total),
                    [.. term.Lessons.Select(l => CellOf(term.Of(l.Id, s.Name.Id)))]))]));
        }).WithName("GetScores");

        api.MapGet("/classes/{id:guid}/scores/{student:guid}", async Task<Results<Ok<TermExplanation>, NotFound>> (
            OwnClass own, Guid student, SchoolDb db) =>
        {
            var term = await TermSheet.Of(own.Row, db);
            if (term.Roster.FirstOrDefault(s => s.Name.Id == student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var total = term.Score(student).Total;
            return TypedResults.Ok(new TermExplanation(
                found.Name.Whole, ShownOf(total), total, term.Scored(student),
                term.Scheme.LessonsForTerm));
        }).WithName("ExplainTerm");

        api.MapGet("/lessons/{id:guid}/scores/{student:guid}", Results<Ok<Explanation>, NotFound> (
            OwnLesson own, Guid student) =>
        {
            var open = own.Open;
            if (open.Roster.FirstOrDefault(s => s.Name.Id == student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var state = open.State;
            var did = state.ParticipationOf(student, open.Times, open.Rules.Scheme);
            var score = LessonScore.Of(did, open.Rules.Scheme);
            var used = LeavesOf(score).Concat(did.Attendance.Entries).ToHashSet();
            return TypedResults.Ok(new Explanation(
                found.Name.Whole, $"Lesson {open.Lesson.Number}, {open.Lesson.Title}",
                ShownOf(score.Total), score,
                [.. state.Entries.Where(e => used.Contains(e.Id)).Select(e => new ExplainedEntry(e.Id, e.HappenedAt, Wording.Of(e, state), e.Source, e.By))]));
        }).WithName("ExplainScore");
    }

    private static int? ShownOf(Figure? figure) => figure is null ? null : Words.Shown(figure.Value);

    private static ScoredCell? CellOf(Summary? summary) => summary is null
        ? null
        : new ScoredCell(summary.Score is { } score ? Words.Shown(score) : null, summary.Status, summary.Notes);

    private static IEnumerable<Guid> LeavesOf(LessonScore score) =>
        score.Strands.Select(s => s.Value).Append(score.Total).Where(f => f is not null).SelectMany(f => LeavesOf(f!));

    private static IEnumerable<Guid> LeavesOf(Figure figure) => figure.Entries.Concat(figure.Parts.SelectMany(LeavesOf));
}
