using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Names;
using PoliteTally.Core.Text;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>A class over its term.</summary>
public sealed record ClassReport(
    Guid ClassId, string ClassName, IReadOnlyList<ScoredColumn> Lessons, IReadOnlyList<ReportRow> Students, ReportTotals Totals);

/// <summary>The whole class in a few numbers.</summary>
/// <param name="HeardShare">Share of the students present at any lesson who have spoken at least once, 0 to 1; null with none present.</param>
public sealed record ReportTotals(int Settled, int Present, int Late, int Absent, int Excused, int Turns, decimal? HeardShare, string? MostHeard, decimal? MostHeardShare);

/// <summary>A student of the report.</summary>
/// <param name="Answered">Questions that they answered, of <paramref name="Asked"/> that counted for them.</param>
/// <param name="Marks">Marks they got, of <paramref name="MarksPossible"/>.</param>
/// <param name="GroupSeen">How often they were seen in a group.</param>
/// <param name="GroupCredits">What they contributed there, added up.</param>
public sealed record ReportRow(
    Guid Id, string Called, string Rest, int Present, int Late, int Absent, int Excused, decimal Turns, int FullTurns, int PartialTurns,
    int Answered, int Asked, decimal Marks, decimal MarksPossible, int Chat, int GroupSeen, decimal GroupCredits, int Nods, int? Term, IReadOnlyList<ReportCell?> Cells);

/// <summary>A lesson of a student: the ribbon in fractions of the lesson.</summary>
public sealed record ReportCell(AttendanceStatus Status, string Notes, int? Score, IReadOnlyList<decimal[]> Stretches, IReadOnlyList<decimal> Spoke);

internal static class ClassReportEndpoints
{
    public static void MapClassReport(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/report", async (Guid id, OwnClass own, SchoolDb db) =>
            TypedResults.Ok(Of(id, await TermSheet.Of(own.Row, db)))).WithName("GetClassReport");

        api.MapGet("/classes/{id:guid}/report.csv", async (Guid id, OwnClass own, SchoolDb db, Owner owner) =>
        {
            var term = await TermSheet.Of(own.Row, db);
            var zone = await LessonEndpoints.ZoneOf(db, owner);
            return TypedResults.File(Csv(Of(id, term), term, zone), "text/csv; charset=utf-8", $"{SavedAs.PartOf(term.Name)}-report.csv");
        }).WithName("GetClassReportCsv");
    }

    private static ClassReport Of(Guid id, TermSheet term)
    {
        var rows = term.Roster.Select(s => RowOf(s, term)).ToList();
        var turns = rows.Sum(r => r.FullTurns + r.PartialTurns);
        var present = rows.Where(r => r.Present + r.Late > 0).ToList();
        var most = rows.MaxBy(r => r.FullTurns + r.PartialTurns);
        return new ClassReport(
            id, term.Name, [.. term.Lessons.Select(ScoreSheet.ColumnOf)], rows,
            new ReportTotals(
                term.Lessons.Count, rows.Sum(r => r.Present), rows.Sum(r => r.Late), rows.Sum(r => r.Absent), rows.Sum(r => r.Excused),
                turns, present.Count == 0 ? null : (decimal)present.Count(r => r.Turns > 0) / present.Count,
                turns == 0 ? null : $"{most!.Called} {most.Rest}", turns == 0 ? null : (decimal)(most!.FullTurns + most.PartialTurns) / turns));
    }

    private static ReportRow RowOf(OnSheet student, TermSheet term)
    {
        var id = student.Name.Id;
        var summaries = term.Lessons.Select(l => term.Of(l.Id, id)).ToList();
        var (known, did) = (summaries.OfType<Summary>().ToList(), term.TalliesOf(id));
        var (full, partial) = (did.Sum(t => t.FullTurns), did.Sum(t => t.PartialTurns));
        return new ReportRow(
            id, ShortNames.CalledName(student.Name), student.Name.Family,
            Count(AttendanceStatus.Present), Count(AttendanceStatus.Late), Count(AttendanceStatus.Absent), Count(AttendanceStatus.Excused),
            full + (partial * 0.5m), full, partial, did.Sum(t => t.Answered), did.Sum(t => t.Asked), did.Sum(t => t.MarksGot), did.Sum(t => t.MarksPossible),
            did.Sum(t => t.Contributions()), did.Sum(t => t.SitIns), did.Sum(t => t.GroupCredits), did.Sum(t => t.Nods),
            term.Score(id).Total is { } total ? Words.Shown(total.Value) : null, [.. summaries.Select(CellOf)]);

        int Count(AttendanceStatus status) => known.Count(s => s.Status == status);
    }

    private static ReportCell? CellOf(Summary? summary)
    {
        if (summary is null)
        {
            return null;
        }

        var ribbon = Summaries.RibbonOf(summary);
        return new ReportCell(
            summary.Status, summary.Notes, summary.Score is { } score ? Words.Shown(score) : null, ribbon.Stretches, ribbon.Spoke);
    }

    private static byte[] Csv(ClassReport report, TermSheet term, DateTimeZone zone)
    {
        string[] fixedHeadings = ["Student number", "Family name", "Given name", "Called", "Present", "Late", "Absent", "Excused", "Turns", "Answered", "Asked", "Marks", "Marks possible", "Chat", "Seen in groups", "Group credits", "Nods", "Term score"];
        var numbers = term.Roster.ToDictionary(s => s.Name.Id, s => s.Name);
        return SafeCsv.Write(
            [.. fixedHeadings, .. report.Lessons.Select(l => $"Lesson {l.Number}, {l.PlannedStart.InZone(zone).ToString("uuuu-MM-dd", CultureInfo.InvariantCulture)}")],
            report.Students.Select(row => (IReadOnlyList<string>)
            [
                numbers[row.Id].Number ?? "", numbers[row.Id].Family, numbers[row.Id].Given, row.Called,
                Text(row.Present), Text(row.Late), Text(row.Absent), Text(row.Excused), Words.Plain(row.Turns), Text(row.Answered), Text(row.Asked), Words.Plain(row.Marks), Words.Plain(row.MarksPossible),
                Text(row.Chat), Text(row.GroupSeen), Words.Plain(row.GroupCredits), Text(row.Nods),
                row.Term is { } score ? Text(score) : "not enough yet",
                .. row.Cells.Select(c => c is null ? "" : c.Score is { } shown ? Text(shown) : c.Status.InWords()),
            ]));

        static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
    }
}
