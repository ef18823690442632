using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Questions;
using PoliteTally.Demo;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Plans;

namespace PoliteTally.Web.Tests;

public sealed class DemoSchoolTests
{
    /// <summary>Every column in which JSON is found: one that somebody adds is read back before it is stored, like the others.</summary>
    private static async Task<List<(Type Table, string Column)>> ColumnsWithJson(SchoolDb db)
    {
        await db.Database.OpenConnectionAsync(TestContext.Current.CancellationToken);
        List<(Type, string)> found = [];
        foreach (var column in db.Model.GetEntityTypes().SelectMany(t => t.GetProperties()).Where(p => p.ClrType == typeof(string)))
        {
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.CommandText = $"""SELECT COUNT(*) FROM "{column.DeclaringType.ContainingEntityType.GetTableName()}" WHERE "{column.Name}" LIKE '{"{"}%' OR "{column.Name}" LIKE '[%'""";
            if ((long)(await command.ExecuteScalarAsync(TestContext.Current.CancellationToken))! > 0)
            {
                found.Add((column.DeclaringType.ClrType, column.Name));
            }
        }

        found.Count.ShouldBeGreaterThan(8);
        return found;
    }

    [Theory]
    [InlineData("2026-11-24T02:10:00Z")]
    [InlineData("2026-03-29T00:20:00Z")] // the night of a change of daylight saving time
    [InlineData("2026-11-23T09:45:00Z")]
    public async Task The_story_can_be_found_in_the_data(string today)
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-demo").FullName;
        var file = new SchoolFile(folder);
        file.Migrate();
        DemoSchool.LoadInto(file, folder, new FixedClock(NodaTime.Text.InstantPattern.General.Parse(today).Value));

        await using var nobody = file.Open(Guid.Empty);
        (await ColumnsWithJson(nobody)).ShouldBeSubsetOf(Documents.Columns);
        var teacher = await nobody.Users.SingleAsync();
        teacher.PasswordHash.ShouldBeNull();
        await using var db = file.Open(teacher.Id);
        var weather = await db.Lessons.Include(l => l.Class).Include(l => l.Plan).Where(l => l.Class!.Name.StartsWith("Weather")).OrderBy(l => l.Number).ToListAsync();
        weather.Select(l => l.Stage).ShouldBe([
            .. Enumerable.Repeat(LessonStage.Settled, 12), LessonStage.Ended, LessonStage.Live, LessonStage.Planned, LessonStage.Planned,
        ]);
        (await db.Lessons.CountAsync(l => l.Class!.Name.StartsWith("Island") && l.Stage == LessonStage.Settled)).ShouldBe(6);
        (await db.Lessons.CountAsync(l => l.DropIn)).ShouldBe(4);

        var rows = await db.Summaries.Include(s => s.Student).Include(s => s.Lesson).Where(s => s.Lesson!.Class!.Name.StartsWith("Weather")).ToListAsync();
        string Status(string given, int lesson) => rows.Single(r => r.Student!.Given == given && r.Lesson!.Number == lesson).Status.ToString();
        Status("Zainab", 6).ShouldBe("Excused");
        Status("Zainab", 4).ShouldBe("Late");
        Status("Wojtek", 8).ShouldBe("Absent");
        Status("Eino", 9).ShouldBe("Present");
        rows.Where(r => r.Student!.Given == "Anahit").Sum(Turns).ShouldBeInRange(0, 2);
        double Share(Func<int, bool> lessons) => rows.Where(r => r.Student!.Given == "Cormac" && lessons(r.Lesson!.Number)).Sum(r => Summaries.TallyOf(r).FullTurns)
            / (double)rows.Where(r => lessons(r.Lesson!.Number)).Sum(Turns);
        Share(n => n <= 6).ShouldBeGreaterThan(0.15);
        Share(n => n > 6).ShouldBeLessThan(Share(n => n <= 6) / 2);
        File.ReadAllLines(Path.Combine(folder, "demo-files", "attendance-lesson-13.csv")).Length.ShouldBe(32);
        Summaries.Check(file).ShouldBeEmpty();
        (await db.Lessons.Where(l => l.Stage == LessonStage.Settled).AllAsync(l => l.LookBackKept)).ShouldBeTrue();
        // What somebody changed by hand is found.
        var kept = await db.LookBack.AsNoTracking().FirstAsync();
        await db.LookBack.Where(k => k.LessonId == kept.LessonId && k.StudentId == kept.StudentId).ExecuteUpdateAsync(set => set.SetProperty(k => k.Known, "[]"));
        Summaries.Check(file).ShouldHaveSingleItem().ShouldContain("not what its ledger says");
        // The scheme was changed once, two cases were put right, and in two lessons a rubric was marked.
        (await db.SchemeVersions.CountAsync()).ShouldBe(4); // of three classes, one of which has two
        rows.GroupBy(r => r.Lesson!.ScoredBy).ToDictionary(g => g.Key ?? 0, g => g.Select(r => r.LessonId).Distinct().Count()).ShouldBe(new Dictionary<int, int> { [1] = 6, [2] = 6 });
        rows.Count(r => Summaries.TallyOf(r).Corrections.Count > 0).ShouldBe(2);
        rows.Where(r => Summaries.TallyOf(r).Marks.Count > 0).Select(r => r.LessonId).Distinct().Count().ShouldBe(2);

        static int Turns(Summary row) => Summaries.TallyOf(row) is var did ? did.FullTurns + did.PartialTurns : 0;

        // What stands beside turns: groups sat in on, a message hidden by a helper, and somebody reached.
        LessonState State(int lesson) => OpenLesson.Load(db, weather[lesson - 1].Id)!.State;
        State(11).Groups.Last.Count.ShouldBe(7);
        rows.Where(r => r.Lesson!.Number == 11).Count(r => State(11).Groups.SitInsOf(r.StudentId).Count > 0).ShouldBe(12);
        State(9).Chat.Messages.Single(m => m.Hidden is not null).Kind.ShouldBe(ChatKind.OffTask);
        var wojtek = rows.First(r => r.Student!.Given == "Wojtek").StudentId;
        State(9).Notes.ContactsOf(wojtek).Select(c => c.Try.Outcome).ShouldBe([ContactOutcome.NoAnswer, ContactOutcome.Reached]);
        var live = State(14);
        (live.Course.StageMoves.Count, live.Chat.Messages.Count(m => m.Waits), live.Names.All.Values.Count(n => n.Match is null)).ShouldBe((2, 6, 1));

        // One lesson is ready, with a question of every kind; the next is not.
        PlanViews.ReadyNotes(weather[14], db).ShouldAllBe(n => !n.Needed);
        PlanJson.Of(weather[14]).Questions.Select(q => q.Kind).Order().ShouldBe(Enum.GetValues<QuestionKind>());
        PlanViews.ReadyNotes(weather[15], db).Count(n => n.Needed).ShouldBeGreaterThan(1);
        PlanJson.Of(weather[9]).Questions.Count(q => q.Purpose == QuestionPurpose.Quiz).ShouldBe(6);
        PlanJson.Of(weather[4]).Questions.ShouldHaveSingleItem().Anonymous.ShouldBeTrue();
        (await db.Lessons.Include(l => l.Plan).Where(l => l.Prepared).ToListAsync()).ShouldAllBe(l => PlanJson.Of(l).Problems().Count == 0);
        var pictures = PlanJson.Of(weather[14]).Questions.SelectMany(q => q.Options).Select(o => o.Picture).OfType<Guid>().ToList();
        (await db.Pictures.CountAsync(p => pictures.Contains(p.Id))).ShouldBe(4);
        RulesJson.Of(weather[0].Class!).WordAhead.On.ShouldBeTrue();

        // The files from which the next weeks can be prepared.
        var files = Path.Combine(folder, "demo-files");
        RosterFile.Read(await File.ReadAllBytesAsync(Path.Combine(files, "school-rosters.zip")), null).Classes.Select(c => c.Students).ShouldBe([24, 28]);
        var titles = CalendarFile.Read(await File.ReadAllBytesAsync(Path.Combine(files, "school-calendar.ics")), DateTimeZoneProviders.Tzdb["Atlantic/Faroe"], null);
        titles.Select(t => (t.Title, t.Dates.Count)).ShouldBe([("Island Botany", 6), ("Staff meeting", 0), ("Weather and Tides", 12)]);
        titles[2].Dates.ShouldAllBe(d => d.Start.InZone(DateTimeZoneProviders.Tzdb["Atlantic/Faroe"]).Minute == 30);
        Directory.Delete(folder, recursive: true);
    }

    private sealed class FixedClock(Instant now) : IClock
    {
        public Instant GetCurrentInstant() => now;
    }
}
