using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Reports;
using PoliteTally.Formats.Documents;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>A part of a report in other words.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Text">The words; empty to have those of the program again.</param>
public sealed record ReportEdit(string Part, string Text);

internal static class ReportEndpoints
{
    private const int LongestEdit = 4000;
    private const string Sheet = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    public static void MapReports(this RouteGroupBuilder api)
    {
        api.MapGet("/classes/{id:guid}/reports/{kind}", (Guid id, string kind, OwnClass own, [AsParameters] ReportQuery query, SchoolDb db, Owner owner) =>
            Written(kind, query, leaves: false, own, db, owner, TypedResults.Ok)).WithName("GetReport");

        File("pdf", "application/pdf", (document, paper) => PdfFile.Write(document.Title, [document], paper)).WithName("SaveReportAsPdf");
        File("xlsx", Sheet, (document, _) => FiguresFile.Workbook(document)).WithName("SaveReportAsWorkbook");
        File("csv", "text/csv; charset=utf-8", (document, _) => FiguresFile.Csv(document)).WithName("SaveReportAsCsv");
        File("json", "application/json", (document, _) => DocumentJson.Write(document)).WithName("SaveReportAsJson");

        RouteHandlerBuilder File(string ending, string type, Func<Document, Paper, byte[]> write) => api.MapGet(
            $"/classes/{{id:guid}}/reports/{{kind}}/file.{ending}", (Guid id, string kind, OwnClass own, [AsParameters] ReportQuery query, string? paper, SchoolDb db, Owner owner) =>
                Written(kind, query, leaves: true, own, db, owner, document => TypedResults.File(
                    write(document, string.Equals(paper, "letter", StringComparison.OrdinalIgnoreCase) ? Paper.Letter : Paper.A4), type, $"{SavedAs.PartOf(document.Title)}.{ending}")))
            .RequireRateLimiting(Limits.Reports);

        Drawn("svg", "image/svg+xml", DrawingFile.Svg).WithName("SaveReportDrawingAsSvg");
        Drawn("png", "image/png", DrawingFile.Png).WithName("SaveReportDrawingAsPng");

        // Drawings go by the place of their section.
        RouteHandlerBuilder Drawn(string ending, string type, Func<Drawing, byte[]> write) => api.MapGet(
            $"/classes/{{id:guid}}/reports/{{kind}}/drawings/{{place:int}}.{ending}", (Guid id, string kind, int place, OwnClass own, [AsParameters] ReportQuery query, SchoolDb db, Owner owner) =>
                Written<IResult>(kind, query, leaves: true, own, db, owner, document => document.Sections.ElementAtOrDefault(place)?.Drawing is { } drawing
                    ? TypedResults.File(write(drawing), type, $"{SavedAs.PartOf(document.Title)}-{place + 1}.{ending}")
                    : TypedResults.NotFound()))
            .RequireRateLimiting(Limits.Reports);

        api.MapPut("/classes/{id:guid}/reports/{kind}/text", async Task<Results<Ok<Document>, NotFound, ProblemHttpResult>> (
            Guid id, string kind, OwnClass own, [AsParameters] ReportQuery query, ReportEdit edit, SchoolDb db, Owner owner, IClock clock) =>
        {
            var (asked, problem) = await AskedReport.Of(kind, query, leaves: false, db, owner);
            if (asked is null)
            {
                return Refused.Because(problem);
            }

            if (edit.Text is null || edit.Text.Length > LongestEdit)
            {
                return Refused.Because($"A text has at most {LongestEdit} letters. Nothing was stored; make it shorter.");
            }

            var writer = new ReportWriter(own.Row, db, owner, asked.Only);
            if (await writer.Plain(asked) is not { } plain || plain.Sections.FirstOrDefault(s => s.Key is not null && s.Key == edit.Part) is not { } section)
            {
                return TypedResults.NotFound();
            }

            // Two windows that edit at once come one after the other.
            await using var transaction = await db.Database.BeginTransactionAsync();
            var key = asked.Key;
            var row = await db.ReportTexts.FirstOrDefaultAsync(t => t.ClassId == id && t.Report == key && t.Part == edit.Part);
            var text = edit.Text.Trim();
            if (text.Length == 0 || text == ReportWriter.TextOf(section))
            {
                db.ReportTexts.RemoveRange(row is null ? [] : [row]);
            }
            else if (row is null)
            {
                db.ReportTexts.Add(new ReportText { Id = Guid.CreateVersion7(), ClassId = id, Report = key, Part = edit.Part, Text = text, Instead = ReportWriter.TextOf(section), At = clock.GetCurrentInstant() });
            }
            else
            {
                (row.Text, row.Instead, row.At) = (text, ReportWriter.TextOf(section), clock.GetCurrentInstant());
            }

            await db.SaveChangesAsync();
            await transaction.CommitAsync();
            return TypedResults.Ok((await writer.Of(asked))!);
        }).WithName("EditReport");
    }

    private static async Task<Results<T, NotFound, ProblemHttpResult>> Written<T>(
        string kind, ReportQuery query, bool leaves, OwnClass own, SchoolDb db, Owner owner, Func<Document, T> answer)
        where T : IResult
    {
        var (asked, problem) = await AskedReport.Of(kind, query, leaves, db, owner);
        return asked is null ? Refused.Because(problem)
            : await new ReportWriter(own.Row, db, owner, asked.Only).Of(asked) is { } document ? answer(document)
            : TypedResults.NotFound();
    }
}
