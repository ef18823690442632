using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Formats.Documents;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>A round of reports that is to be made.</summary>
/// <param name="Id">Made where it was asked for, so that asking twice makes one.</param>
/// <param name="Students">Whose; everybody's of the class now if there are none.</param>
/// <param name="By">How they leave: mail or zip.</param>
/// <param name="Reader">For whom they are: student or guardian.</param>
/// <param name="Letter">Whether they are for letter paper instead of A4.</param>
public sealed record RoundSent(Guid Id, IReadOnlyList<Guid> Students, RoundBy By, string? Reader, string? From, string? To, bool Letter);

/// <summary>A report that went to somebody, or did not.</summary>
/// <param name="Problem">Why it did not go; empty if it did.</param>
public sealed record SentLine(Guid Student, string Name, string To, string About, Instant At, string Problem);

internal static class RoundEndpoints
{
    private const int MostStudents = 2000;
    private const int MostShown = 500;

    public static void MapRounds(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/rounds", async Task<Results<Ok<RoundView>, ProblemHttpResult>> (
            Guid id, OwnClass own, RoundSent sent, ReportRounds rounds, SchoolDb db, Owner owner) =>
        {
            if (sent.Id == Guid.Empty || !Enum.IsDefined(sent.By) || sent.Students is null || sent.Students.Count > MostStudents)
            {
                return Refused.Because($"A round has an id, goes by mail or zip, and is of at most {MostStudents} students. Nothing was sent.");
            }

            var roster = Rosters.Of(db, id).Select(s => s.Name.Id).ToList();
            List<Guid> students = sent.Students.Count == 0 ? roster : [.. sent.Students.Distinct()];
            if (students.Count == 0 || students.Except(Rosters.Ever(db, id).Select(s => s.Name.Id)).Any())
            {
                return Refused.Because(students.Count == 0 ? "There is nobody in this class. Nothing was sent." : "One of these students is not of this class. Nothing was sent.");
            }

            var (report, problem) = await AskedReport.Of("student", new ReportQuery { Student = students[0], From = sent.From, To = sent.To, Reader = sent.Reader }, leaves: true, db, owner);
            return report is null ? Refused.Because(problem)
                : TypedResults.Ok(rounds.Begin(new ReportRounds.Asked(sent.Id, owner.Id, own.Row, students, sent.By, report, sent.Letter ? Paper.Letter : Paper.A4)));
        }).WithName("BeginRound").RequireRateLimiting(Limits.Reports);

        api.MapGet("/classes/{id:guid}/rounds/{round:guid}", Results<Ok<RoundView>, NotFound> (Guid id, OwnClass own, Guid round, ReportRounds rounds, Owner owner) =>
            rounds.Of(owner.Id, id, round) is { } view ? TypedResults.Ok(view) : TypedResults.NotFound()).WithName("GetRound");

        api.MapGet("/classes/{id:guid}/rounds/{round:guid}/reports.zip", Results<FileContentHttpResult, NotFound> (Guid id, OwnClass own, Guid round, ReportRounds rounds, Owner owner) =>
            rounds.FileOf(owner.Id, id, round) is { } bytes ? TypedResults.File(bytes, "application/zip", $"{SavedAs.PartOf(own.Row.Name)}-reports.zip") : TypedResults.NotFound()).WithName("FetchRound");

        api.MapGet("/classes/{id:guid}/sent", async (Guid id, OwnClass own, SchoolDb db) =>
        {
            var names = Rosters.Ever(db, id).ToDictionary(s => s.Name.Id, s => s.Name.Whole);
            var rows = await db.SentReports.AsNoTracking().Where(s => s.ClassId == id).OrderByDescending(s => s.At).Take(MostShown).ToListAsync();
            return TypedResults.Ok<IReadOnlyList<SentLine>>([.. rows.Select(s => new SentLine(s.StudentId, names.GetValueOrDefault(s.StudentId, "a former student"), s.To, s.About, s.At, s.Problem))]);
        }).WithName("GetSentReports");
    }
}
