using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Reports;
using PoliteTally.Formats.Documents;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Reports;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Bench;

/// <summary>Reports written, set as PDF, replayed and looked through; each beside the reading that it cannot do without.</summary>
internal static class Reporting
{
    private const int Entries = 20_000;

    public static void Run()
    {
        Replayed();
        Written(30, 60, pdf: true);
        Written(1000, 60, pdf: false);
        LookedThrough();
    }

    private static void Written(int students, int lessons, bool pdf)
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        var file = new SchoolFile(folder.FullName);
        file.Migrate();
        var owner = Owned(file);
        var inClass = MadeUpTerm.In(file, owner.Id, students, lessons);
        var asked = new AskedReport(ReportKind.Class, null, null, Span.All, Reader.Student, false, DateTimeZone.Utc);
        TermSheet Read()
        {
            using var db = file.Open(owner.Id);
            return TermSheet.Of(inClass, db).GetAwaiter().GetResult();
        }

        var read = Figures.Milliseconds(() => Read(), times: 7);
        var written = Figures.Milliseconds(
            () =>
            {
                using var db = file.Open(owner.Id);
                new ReportWriter(inClass, db, owner).Of(asked).GetAwaiter().GetResult();
            },
            times: 7);
        Figures.Row($"class in words, {students:N0} students × {lessons} lessons", Figures.Of(written, "ms", "0"), $"reading its {students * lessons:N0} rows {Figures.Of(read, "ms", "0")}", written / read);
        if (pdf)
        {
            using var db = file.Open(owner.Id);
            var (writer, ids) = (new ReportWriter(inClass, db, owner), db.Students.Select(s => s.Id).ToList());
            var words = Figures.Milliseconds(() => All(), times: 3);
            var most = 0L;
            var set = Figures.Milliseconds(
                () =>
                {
                    foreach (var document in All())
                    {
                        PdfFile.Write(document.Title, [document]);
                        most = Math.Max(most, Environment.WorkingSet);
                    }
                },
                times: 3);
            Figures.Row($"{students} reports on a student as PDF, {lessons} lessons each", $"{Figures.Of(set, "ms", "0")}, {most / 1_000_000} MB in use", $"their words alone {Figures.Of(words, "ms", "0")}", set / words);

            List<Document> All() => [.. ids.Select(id => writer.Of(asked with { Kind = ReportKind.Student, Student = id }).GetAwaiter().GetResult()!)];
        }

        folder.Delete(recursive: true);
    }

    private static void Replayed()
    {
        var (start, students) = (MadeUpTerm.First, Enumerable.Range(0, 500).Select(_ => Guid.CreateVersion7()).ToList());
        var state = LessonState.Fold(EntriesOf(start, students, Entries));
        var fold = Figures.Milliseconds(() => LessonState.Fold(state.Entries));
        var (replay, random) = (new Replay(state), new Random(1));
        var any = Figures.Milliseconds(() => replay.At(start + Duration.FromMilliseconds(random.Next(Entries * 150))), times: 101);
        Figures.Row($"any minute of a lesson of {Entries:N0} entries", Figures.Of(any, "ms", "0.0"), $"folding all of it {Figures.Of(fold, "ms", "0.0")}", any / fold);
        var first = Figures.Milliseconds(() => new Replay(state).At(start + Duration.FromMilliseconds(Entries * 150)));
        Figures.Row("the same, the first time", Figures.Of(first, "ms", "0.0"), $"folding all of it {Figures.Of(fold, "ms", "0.0")}", first / fold);
    }

    private static void LookedThrough()
    {
        const int lessons = 60;
        const int each = 3_334;
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        var file = new SchoolFile(folder.FullName);
        file.Migrate();
        var owner = Owned(file);
        MadeUpTerm.In(file, owner.Id, 30, lessons);
        using var db = file.Open(owner.Id);
        var students = db.Students.Select(s => s.Id).ToList();
        foreach (var lesson in db.Lessons.ToList())
        {
            db.Entries.AddRange(EntriesOf(lesson.PlannedStart, students, each).Select(e => new EntryRow
            {
                Id = e.Id,
                LessonId = lesson.Id,
                HappenedAt = e.HappenedAt,
                NotedAt = e.NotedAt,
                Source = e.Source,
                By = "",
                Act = ActJson.Write(e.Act),
            }));
            db.SaveChanges();
            db.ChangeTracker.Clear();
        }

        var student = db.Students.First();
        var read = Figures.Milliseconds(() => _ = db.Entries.Select(e => e.Act).AsEnumerable().Count(a => a.Contains("neap", StringComparison.Ordinal)), times: 5);
        Summaries.RenewDue(db).GetAwaiter().GetResult();
        var found = Figures.Milliseconds(() => _ = LookBackEndpoints.Lines(student, Span.All, db).GetAwaiter().GetResult().Count(l => l.Text.Contains("neap", StringComparison.Ordinal)), times: 15);
        Figures.Row($"a word in all that is known of a student, of {lessons * each:N0} entries", Figures.Of(found, "ms", "0"), $"reading the acts as text {Figures.Of(read, "ms", "0")}", found / read);
        folder.Delete(recursive: true);
    }

    private static Owner Owned(SchoolFile file)
    {
        var owner = new Owner { Id = Guid.CreateVersion7() };
        using var db = file.Open(owner.Id);
        db.Users.Add(new Teacher { Id = owner.Id, UserName = "tamsin@skerrysound.example", DisplayName = "Tamsin Vale", School = "Skerry Sound Online School", TimeZone = "Etc/UTC" });
        db.SaveChanges();
        return owner;
    }

    private static List<Entry> EntriesOf(Instant start, List<Guid> students, int many) =>
    [
        .. Enumerable.Range(0, many).Select(i =>
        {
            var student = students[i % students.Count];
            Act act = (i % 4) switch
            {
                0 => new HandRaised(student),
                1 => new Called(student, TurnOrigin.Hand),
                2 => new TurnTaken(student, TurnOutcome.Full, TurnOrigin.Invited),
                _ => new ChatSaid(student, ChatKind.Question, "is neap tide the one at half moon?"),
            };
            var at = start + Duration.FromMilliseconds(i * 150L);
            return new Entry(Guid.CreateVersion7(), at, at, Source.Tapped, "", act);
        }),
    ];
}
