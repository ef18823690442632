using Microsoft.AspNetCore.Http.HttpResults;
using PoliteTally.Core.Reports;
using PoliteTally.Formats;
using PoliteTally.Formats.Documents;
using PoliteTally.Store;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>A part of a document for a meeting: a report, a note of the teacher, or both.</summary>
/// <param name="Kind">Which report; empty for a note alone.</param>
/// <param name="Note">What the teacher says before it.</param>
public sealed record MeetingPart(string Kind, Guid? Student, Guid? Lesson, string Note);

/// <summary>A document for a meeting, put together in an order.</summary>
/// <param name="Title">What it is called.</param>
/// <param name="From">The first of the days whose lessons it is about; empty for no beginning.</param>
/// <param name="To">The last of them.</param>
/// <param name="Hidden">Whether students are numbered instead of named.</param>
/// <param name="Letter">Whether it is for letter paper instead of A4.</param>
public sealed record MeetingSent(string Title, IReadOnlyList<MeetingPart> Parts, string? From, string? To, bool Hidden, bool Letter);

internal static class MeetingEndpoints
{
    private const int MostParts = 60;
    private const int LongestTitle = 120;
    private const int LongestNote = 4000;

    public static void MapMeeting(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/meeting", async Task<Results<Ok<Document>, ProblemHttpResult>> (
            Guid id, OwnClass own, MeetingSent sent, SchoolDb db, Owner owner) =>
            await Together(own, sent, db, owner) is var (document, problem) && document is not null ? TypedResults.Ok(document) : Refused.Because(problem))
            .WithName("GetMeeting").RequireRateLimiting(Limits.Reports);

        api.MapPost("/classes/{id:guid}/meeting/file.pdf", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
            Guid id, OwnClass own, MeetingSent sent, SchoolDb db, Owner owner) =>
            await Together(own, sent, db, owner) is var (document, problem) && document is not null
                ? TypedResults.File(PdfFile.Write(document.Title, [document], sent.Letter ? Paper.Letter : Paper.A4), "application/pdf", $"{SavedAs.PartOf(document.Title)}.pdf")
                : Refused.Because(problem))
            .WithName("SaveMeeting").RequireRateLimiting(Limits.Reports);

        // Apart from the document, for whoever keeps it.
        api.MapGet("/classes/{id:guid}/meeting/key.csv", (Guid id, OwnClass own, SchoolDb db) => TypedResults.File(
            SafeCsv.Write(
                ["In the document", "Student number", "Family name", "Given name"],
                new Named(Rosters.Ever(db, id), hidden: true).Numbered.Select((s, i) => (IReadOnlyList<string>)
                    [Named.NumberedAs(i), s.Name.Number ?? "", s.Name.Family, s.Name.Given])),
            "text/csv; charset=utf-8", $"{SavedAs.PartOf(own.Row.Name)}-key.csv")).WithName("SaveMeetingKey");
    }

    private static async Task<(Document? Document, string Problem)> Together(OwnClass own, MeetingSent sent, SchoolDb db, Owner owner)
    {
        if (SentText.Line(sent.Title, LongestTitle) is not { } title)
        {
            return (null, $"A document has a title of at most {LongestTitle} letters.");
        }

        if (sent.Parts is not { Count: > 0 and <= MostParts } parts || parts.Any(p => p is null || p.Note is null || p.Kind is null || p.Note.Length > LongestNote))
        {
            return (null, $"A document has from 1 to {MostParts} parts, each with a note of at most {LongestNote} letters.");
        }

        var (writer, sections, about) = (new ReportWriter(own.Row, db, owner), new List<Section>(), "");
        foreach (var (place, part) in parts.Index())
        {
            if (part.Note.Trim() is { Length: > 0 } note)
            {
                sections.Add(new Section(part.Kind.Length == 0 ? "Note" : "", [new(note)]));
            }

            if (part.Kind.Length == 0)
            {
                continue;
            }

            var (asked, problem) = await AskedReport.Of(part.Kind, new ReportQuery { Student = part.Student, Lesson = part.Lesson, From = sent.From, To = sent.To, Hidden = sent.Hidden }, leaves: true, db, owner);
            if (asked is null || await writer.Of(asked) is not { } report)
            {
                return (null, $"Part {place + 1}: {(problem.Length > 0 ? problem : "that is not of this class.")}");
            }

            about = about.Length == 0 || part.Kind != "lesson" ? report.About : about;
            sections.AddRange(report.Sections.Select((s, i) => i == 0 && s.Heading.Length == 0 ? s with { Heading = report.Title, Key = null } : s with { Key = null }));
        }

        return (new Document(title, about, sections), "");
    }
}
