using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Reports;
using PoliteTally.Core.Scoring;
using PoliteTally.Formats;
using PoliteTally.Formats.Documents;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Reports;

/// <summary>What programs of other schools take in: learning events, the lessons as a calendar, and everything of a class in one archive.</summary>
internal static class BundleEndpoints
{
    private static readonly ReportKind[] Bundled = [ReportKind.Class, ReportKind.Register, ReportKind.Fairness, ReportKind.Questions];
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    private sealed record Part(string Name, string What, string Type, byte[] Bytes);

    public static void MapBundle(this RouteGroupBuilder api)
    {
        Saved("statements.json", "application/json", async (own, span, db, owner, _) => LearningEvents.Write(EventsOf(await TermSheet.Of(own, db, span: span, figuresOnly: true), new ReportWriter(own, db, owner))))
            .WithName("SaveStatements");
        Saved("lessons.ics", "text/calendar; charset=utf-8", async (own, span, db, owner, clock) => CalendarOf(await TermSheet.Of(own, db, span: span, figuresOnly: true), clock))
            .WithName("SaveLessons");
        Saved("bundle.zip", "application/zip", Bundle).WithName("SaveBundle");

        RouteHandlerBuilder Saved(string name, string type, Func<SchoolClass, Span, SchoolDb, Owner, IClock, Task<byte[]>> write) => api.MapGet(
            $"/classes/{{id:guid}}/{name}", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
                Guid id, OwnClass own, string? from, string? to, SchoolDb db, Owner owner, IClock clock) => await Span.Asked(from, to, db, owner) is { } span
                    ? TypedResults.File(await write(own.Row, span, db, owner, clock), type, $"{SavedAs.PartOf(own.Row.Name)}-{name}")
                    : Refused.NoDay())
            .RequireRateLimiting(Limits.Reports);
    }

    private static async Task<byte[]> Bundle(SchoolClass own, Span span, SchoolDb db, Owner owner, IClock clock)
    {
        var (zone, writer) = (await LessonEndpoints.ZoneOf(db, owner), new ReportWriter(own, db, owner));
        var sheet = await TermSheet.Of(own, db, span: span);
        var documents = new List<(string Name, Document Written)>();
        foreach (var kind in Bundled)
        {
            documents.Add(($"{kind}".ToLowerInvariant(), (await writer.Of(new AskedReport(kind, null, null, span, Reader.Student, Hidden: false, zone)))!));
        }

        var parts = documents.AsParallel().AsOrdered().SelectMany(d => PartsOf(d.Name, d.Written)).ToList();
        var book = new GradeBook(sheet, zone);
        parts.AddRange(
        [
            new("gradebook.csv", "Grade book", "text/csv", book.Csv()), new("gradebook.zip", "Grade book, OneRoster 1.2", "application/zip", book.Bundle(owner.Id)),
            new("statements.json", "Learning events, xAPI 1.0.3", "application/json", LearningEvents.Write(EventsOf(sheet, writer))), new("lessons.ics", "Lessons with attendance", "text/calendar", CalendarOf(sheet, clock)),
        ]);
        var manifest = new
        {
            format = "polite-tally-bundle",
            version = 1,
            @class = own.Name,
            madeAt = clock.GetCurrentInstant().ToString(),
            files = parts.Select(p => new { name = p.Name, what = p.What, type = p.Type, bytes = p.Bytes.Length, sha256 = Convert.ToHexStringLower(SHA256.HashData(p.Bytes)) }),
        };
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var part in parts.Prepend(new Part("manifest.json", "", "", JsonSerializer.SerializeToUtf8Bytes(manifest, Json))))
            {
                await using var entry = zip.CreateEntry(part.Name).Open();
                await entry.WriteAsync(part.Bytes);
            }
        }

        return bytes.ToArray();
    }

    private static IEnumerable<Part> PartsOf(string name, Document document)
    {
        yield return new($"{name}.pdf", document.Title, "application/pdf", PdfFile.Write(document.Title, [document]));
        yield return new($"{name}.json", document.Title, "application/json", DocumentJson.Write(document));
        if (document.Sections.Any(s => s.Figures?.Rows.Count > 0))
        {
            yield return new($"{name}.xlsx", document.Title, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", FiguresFile.Workbook(document));
        }
    }

    private static byte[] CalendarOf(TermSheet sheet, IClock clock) => CalendarFile.Write(sheet.Name, sheet.Lessons.Select(l =>
    {
        var rows = sheet.Roster.Select(s => sheet.TallyOf(l.Id, s.Name.Id)).OfType<Tally>().ToList();
        var (there, spoke) = (rows.Count(t => t.Status is AttendanceStatus.Present or AttendanceStatus.Late), rows.Count(t => t.Turns() > 0));
        return new CalendarLesson(
            $"{l.Id}@polite-tally", $"{sheet.Name}: {l.Title}", l.PlannedStart, l.PlannedEnd, null, Cancelled: false, $"{there} of {rows.Count} there, {rows.Count(t => t.Status == AttendanceStatus.Late)} late; {spoke} heard.");
    }), clock.GetCurrentInstant());

    private static IEnumerable<LearningEvent> EventsOf(TermSheet sheet, ReportWriter writer) => writer.LessonsOf(sheet).SelectMany(open => EventsOf(open, sheet));

    private static IEnumerable<LearningEvent> EventsOf(OpenLesson open, TermSheet sheet)
    {
        var (state, lesson, policy) = (open.State, open.Lesson, open.Rules.Scheme.Attendance);
        foreach (var student in open.Roster)
        {
            var id = student.Name.Id;
            var attendance = state.AttendanceOf(id, open.Times, policy);
            LearningEvent Of(Guid of, LearningVerb verb, Instant at) => new(
                DerivedId.Of($"{verb} {id} {of}"), student.Name.Number ?? $"{id}", student.Name.Whole, verb, lesson.Id, lesson.Title, at, lesson.Id);
            if (attendance.WasThere)
            {
                yield return Of(lesson.Id, LearningVerb.Attended, open.Times.CountedFrom) with { For = attendance.Present };
            }

            foreach (var turn in state.HandLine.Turns.Where(t => t.Student == id && t.Entries.Count > 0 && Scheme.CreditOf(t.Outcome) > 0))
            {
                yield return Of(turn.Entries[^1], LearningVerb.Responded, turn.At);
            }

            // Private words and those that were hidden stay here.
            foreach (var message in state.Chat.Of(id).Where(m => m is { Private: false, Hidden: null } && Scheme.CreditOf(m.CountsAs) > 0))
            {
                yield return Of(message.Entry, message.CountsAs == ChatKind.Question ? LearningVerb.Asked : LearningVerb.Commented, message.At) with { Said = message.Text };
            }

            foreach (var asking in state.Questions.All.Where(a => !a.Question.Anonymous && a.Answers.ContainsKey(id)))
            {
                var given = asking.Answers[id];
                yield return Of(given.Entry, LearningVerb.Answered, given.At) with { About = asking.Id, Title = asking.Question.Text, Scaled = asking.MarksOf(id), Said = given.Answer.InWords(asking.Question) };
            }

            if (sheet.Of(lesson.Id, id)?.Score is { } score)
            {
                yield return Of(lesson.Id, LearningVerb.Scored, open.Times.CountedTo) with { Scaled = score / 100 };
            }
        }
    }
}
