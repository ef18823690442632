using Microsoft.AspNetCore.Http.HttpResults;
using PoliteTally.Core.Names;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Scores;

/// <summary>How the students of a class were judged by its criteria.</summary>
public sealed record JudgedSheet(IReadOnlyList<Criterion> Criteria, IReadOnlyList<JudgedStudent> Students);

/// <summary>A student.</summary>
/// <param name="Levels">The levels that were marked; over several lessons those that hold in each of them.</param>
public sealed record JudgedStudent(Guid Id, string Name, IReadOnlyList<Guid> Levels);

/// <summary>A level that is marked for students, in each of several settled lessons.</summary>
public sealed record JudgedSent(IReadOnlyList<Guid> Lessons, IReadOnlyList<Guid> Students, Guid Criterion, Guid Level);

/// <summary>What marking did.</summary>
/// <param name="Together">What its entries share, by which they are taken back.</param>
/// <param name="Lessons">In how many lessons it was marked.</param>
/// <param name="NotTaken">Why others did not take it, each reason once.</param>
public sealed record JudgedStored(Guid Together, int Lessons, IReadOnlyList<string> NotTaken);

/// <summary>Marks to be taken back.</summary>
public sealed record JudgedTakenBack(Guid Together);

internal static class JudgedEndpoints
{
    private const int MostLessons = 200;
    private const int MostStudents = 2000;

    public static void MapJudged(this RouteGroupBuilder api)
    {
        api.MapGet("/lessons/{id:guid}/judged", (OwnLesson own) => TypedResults.Ok(new JudgedSheet(
            own.Open.Rules.Scheme.Criteria,
            [.. own.Open.Roster.Select(s => new JudgedStudent(s.Name.Id, own.Open.ShortNames[s.Name.Id], [.. own.Open.State.Judged.MarksOf(s.Name.Id).Select(m => m.Level)]))])))
            .WithName("GetJudged");

        api.MapGet("/classes/{id:guid}/judged", async Task<Results<Ok<JudgedSheet>, ProblemHttpResult>> (
            Guid id, OwnClass own, string? from, string? to, SchoolDb db, Owner owner) =>
            await Span.Asked(from, to, db, owner) is { } span
                ? TypedResults.Ok(OverTerm(await TermSheet.Of(own.Row, db, span: span, figuresOnly: true)))
                : Refused.NoDay()).WithName("GetJudgedOfClass");

        api.MapPost("/classes/{id:guid}/judged", async Task<Results<Ok<JudgedStored>, ProblemHttpResult>> (
            Guid id, OwnClass own, JudgedSent sent, AcrossLessons across, SchoolDb db, HttpContext http) =>
        {
            if (sent.Lessons.Count is 0 or > MostLessons || sent.Students.Count is 0 or > MostStudents)
            {
                return Refused.Because($"Choose from 1 to {MostLessons} lessons and from 1 to {MostStudents:N0} students. Nothing was marked.");
            }

            var chosen = sent.Lessons.ToHashSet();
            var lessons = db.Lessons.Where(l => l.ClassId == id && l.Stage == Store.Model.LessonStage.Settled && chosen.Contains(l.Id)).OrderBy(l => l.PlannedStart).Select(l => l.Id).ToList();
            if (lessons.Count < chosen.Count)
            {
                return Refused.Because("Only settled lessons of this class can be marked together. Load the page again. Nothing was marked.");
            }

            var (together, taken, notTaken) = await across.Note(
                http.User.Identity?.Name ?? "", lessons, [.. sent.Students.Distinct().Select(s => new CriterionMarked(s, sent.Criterion, sent.Level))]);
            return TypedResults.Ok(new JudgedStored(together, taken, notTaken));
        }).WithName("MarkJudged");

        api.MapPost("/classes/{id:guid}/judged/take-back", async (Guid id, OwnClass own, JudgedTakenBack sent, AcrossLessons across, HttpContext http) =>
        {
            await across.TakeBack(http.User.Identity?.Name ?? "", id, typeof(CriterionMarked), sent.Together);
            return TypedResults.NoContent();
        }).WithName("TakeBackJudged");
    }

    private static JudgedSheet OverTerm(TermSheet term)
    {
        var names = ShortNames.For([.. term.Roster.Select(s => s.Name)]);
        return new JudgedSheet(term.Scheme.Criteria, [.. term.Roster.Select(s => new JudgedStudent(
            s.Name.Id, names[s.Name.Id],
            [.. term.TalliesOf(s.Name.Id).Select(t => t.Marks.Select(m => m.Level)).DefaultIfEmpty([]).Aggregate((all, next) => all.Intersect(next))]))]);
    }
}
