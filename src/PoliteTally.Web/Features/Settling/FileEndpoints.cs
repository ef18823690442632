using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>A file, looked at, with whom its names would be taken for. Nothing of it is stored.</summary>
/// <param name="Kind">What it tells; null if it has to be said.</param>
/// <param name="CouldBe">What it could be.</param>
/// <param name="Readings">Its first rows as each of those, if it could be of several kinds.</param>
/// <param name="Rows">How many rows or messages it has.</param>
/// <param name="LeftOut">How many of its lines tell nothing that could count.</param>
/// <param name="NamesZone">Whether its times name their zone.</param>
/// <param name="TimeZone">The zone of times that do not.</param>
/// <param name="First">Its first rows, as they were read.</param>
/// <param name="Wrong">The first rows that cannot be taken, with what is wrong with them.</param>
/// <param name="WrongRows">How many there are.</param>
/// <param name="Problems">What is wrong with it as a whole.</param>
/// <param name="Unclear">What is asked of its columns.</param>
/// <param name="Doubts">What else is asked before it is brought in.</param>
/// <param name="Remarks">What is worth a look.</param>
/// <param name="Questions">Of a table of answers its questions, with what they are taken for.</param>
/// <param name="KnownQuestions">The questions that they could be.</param>
/// <param name="Like">What the class knows of its layout, if it is read like that.</param>
/// <param name="Lines">The lines at its beginning, in which may be marked by hand what is what; empty if it is no text.</param>
public sealed record FileLook(
    FileKind? Kind, IReadOnlyList<FileKind> CouldBe, IReadOnlyList<FileReading> Readings, IReadOnlyList<Column> Columns, int Rows, int LeftOut, Instant? From, Instant? To, bool NamesZone, string TimeZone,
    IReadOnlyList<FileRow> First, IReadOnlyList<FileRow> Wrong, int WrongRows, IReadOnlyList<string> Problems, IReadOnlyList<string> Unclear, IReadOnlyList<string> Doubts,
    IReadOnlyList<string> Remarks, IReadOnlyList<NameLook> Names, IReadOnlyList<Person> People, bool BroughtInBefore, IReadOnlyList<FileQuestion> Questions,
    IReadOnlyList<KnownQuestion> KnownQuestions, KnownLayoutLine? Like, IReadOnlyList<string> Lines);

/// <summary>A name in a file.</summary>
/// <param name="Beside">What the file gives beside it, where it tells two of one name apart.</param>
public sealed record NameLook(string Name, string Beside, Certainty Certainty, MatchedBy By, Guid? Student);

internal static class FileEndpoints
{
    // What is sent to be looked at; all of it counts.
    private const int RowsShown = 40;
    private const int NamesShown = 500;

    // Each time something is made safe on the disk costs as much as a few thousand rows.
    private const int PartsAtOnce = 4;

    // Few are of a class by chance.
    private const int NamesToTell = 4;

    public static void MapFiles(this RouteGroupBuilder api)
    {
        api.MapPost("/lessons/{id:guid}/files/look", async (OwnLesson own, HttpRequest request, SchoolDb db, Owner owner) =>
        {
            var open = own.Open;
            var read = await ReadFile.Of(await SentFile.From(request), open, db, owner);
            return TypedResults.Ok(LookAt(read, open));
        }).WithName("LookAtFile").RequireRateLimiting(Limits.Files);

        // A mail or an archive is taken apart; each file in it is sent again by itself.
        api.MapPost("/lessons/{id:guid}/files/open", async (OwnLesson own, HttpRequest request, SchoolDb db, IClock clock) =>
            TypedResults.Ok(await OpenedMail.Of(await SentFile.From(request), own.Open.Lesson, db, clock.GetCurrentInstant()))).WithName("OpenFile").RequireRateLimiting(Limits.Files);

        api.MapGet("/lessons/{id:guid}/files/coming", (OwnLesson own, ComingFiles coming, ReadingLine line) => TypedResults.Ok<IReadOnlyList<ComingFile>>(
            [.. coming.Of(own.Open.Lesson.Id), .. line.WaitingFor($"{own.Open.Lesson.Id}").Select(w => new ComingFile(w.Name, 0, 0, w.Before))])).WithName("SeeComingFiles");

        api.MapPost("/lessons/{id:guid}/files", async Task<Results<Ok<SettlingView>, ProblemHttpResult>> (
            Guid id, OwnLesson own, HttpRequest request, LedgerWriter ledger, OpenLessons openLessons, ComingFiles coming, SchoolDb db, Owner owner, IClock clock) =>
        {
            var open = own.Open;
            if (WhyNoFiles(open) is { } notNow)
            {
                return notNow;
            }

            var sent = await SentFile.From(request);
            var read = await ReadFile.Of(sent, open, db, owner);
            var look = LookAt(read, open);
            List<string> unsettled =
            [
                .. read.Kind is null ? ["Say what this file is."] : Array.Empty<string>(), .. look.Problems, .. look.Unclear,
                .. sent.Decided["sure"] == "true" ? [] : look.Doubts,
            ];
            if (unsettled.Count > 0)
            {
                return TypedResults.Problem(string.Join(" ", unsettled), statusCode: StatusCodes.Status422UnprocessableEntity);
            }

            if (SentFile.StillWrong(read.Rows.Select(r => (r.Row, r.Problems)), sent.LeaveOut) is { } wrong)
            {
                return wrong;
            }

            var entries = read.Entries(sent.Name, MatchesOf(read, open), clock.GetCurrentInstant());
            if (open.Count + entries.Count > OpenLesson.MostEntries)
            {
                return Refused.Now($"This file has {entries.Count:N0} rows to be kept, and the lesson has {open.Count:N0} entries already: {OpenLesson.MostEntries:N0} are the most. Keep only the rows of this lesson. Nothing was stored.");
            }

            using var onItsWay = coming.Begin(id, sent.Name, entries.Count);
            // A few parts at a time go onto the disk together, so that nobody who notes something waits for all of it; the last entry makes it count.
            foreach (var parts in entries.SkipLast(1).Chunk(Struck.Most).Chunk(PartsAtOnce).Append([[entries[^1]]]))
            {
                // Whoever stops it has nothing of it: what is there already counts for nothing without the last.
                request.HttpContext.RequestAborted.ThrowIfCancellationRequested();
                var stored = await Task.WhenAll(parts.Select(part => ledger.Append(owner.Id, id, Source.File, sent.Name, part)));
                if (stored.SelectMany(s => s!.Refused).FirstOrDefault() is { } refused)
                {
                    return TypedResults.Problem($"One of its rows does not fit this lesson: {refused.Why} Nothing of it counts.", statusCode: StatusCodes.Status422UnprocessableEntity);
                }

                onItsWay.Stored(parts.Sum(part => part.Length));
            }

            await KnownLayouts.Remember(read.As ?? sent, read.Layout, open.Lesson.ClassId, db, clock.GetCurrentInstant());
            var after = (await openLessons.Find(owner.Id, id))!;
            List<NewEntry> strikes = [.. StrikesFor(read, after.State).Select(e => new NewEntry(Guid.CreateVersion7(), clock.GetCurrentInstant(), new Struck(e)))];
            if (strikes.Count > 0)
            {
                await ledger.Append(owner.Id, id, Source.Tapped, request.HttpContext.User.Identity?.Name ?? "", strikes);
                after = (await openLessons.Find(owner.Id, id))!;
            }

            return TypedResults.Ok(await SettlingViews.Of(after, db, owner, clock.GetCurrentInstant()));
        }).WithName("BringInFile").RequireRateLimiting(Limits.Files);
    }

    private static FileLook LookAt(ReadFile read, OpenLesson open)
    {
        var times = read.Rows.SelectMany(r => new[] { r.At, r.Until }).Where(t => t is not null).Select(t => t!.Value).ToList();
        var matches = MatchesOf(read, open);
        var unknown = matches.Count(m => m.Certainty == Certainty.Unknown);
        var names = open.ShortNames;
        return new FileLook(
            read.Kind, read.CouldBe, read.Readings, read.Columns, read.Rows.Count, read.LeftOut, times.Count == 0 ? null : times.Min(), times.Count == 0 ? null : times.Max(), read.NamesZone, read.Zone.Id,
            [.. read.Rows.Take(RowsShown)], [.. read.Rows.Where(r => r.Problems.Count > 0).Take(RowsShown)], read.Rows.Count(r => r.Problems.Count > 0), read.Problems, read.Unclear,
            matches.Count >= NamesToTell && unknown * 2 > matches.Count
                ? [$"{unknown} of its {matches.Count} names are like nobody's in this class. Is it a file of another class?"]
                : [],
            read.Remarks, [.. matches.Take(NamesShown).Select(m => new NameLook(m.Shown.Name, m.Shown.Beside, m.Certainty, m.By, m.Student))],
            [.. open.Roster.Select(s => new Person(s.Name.Id, names[s.Name.Id], s.Name.Whole))],
            open.State.Files.Files.Any(f => f.File.Fingerprint == read.Fingerprint), read.Questions, read.KnownQuestions, read.Like, read.Lines);
    }

    private static IReadOnlyList<NameMatch> MatchesOf(ReadFile read, OpenLesson open) => open.MatchesOf([.. read.People.Distinct()]);

    // Of a file that was read in another way before only this reading counts; one that was taken out is put back by bringing it in.
    private static IEnumerable<Guid> StrikesFor(ReadFile read, Core.Lessons.LessonState state) =>
        state.Files.Files.Where(f => f.File.Fingerprint == read.Fingerprint && f.Entry.Id != read.Id).Select(f => f.Entry.Id).Concat(state.StrikesOn()[read.Id]);

    private static ProblemHttpResult? WhyNoFiles(OpenLesson open) => open.Lesson.Stage switch
    {
        LessonStage.Ended => null,
        LessonStage.Settled => Refused.Now("This lesson is settled. Open it again first."),
        _ => Refused.Now("End the lesson first; then bring in its files."),
    };
}
