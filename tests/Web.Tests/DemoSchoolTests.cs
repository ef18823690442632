using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Demo;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Tests;

public sealed class DemoSchoolTests
{
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
        var teacher = await nobody.Users.SingleAsync();
        teacher.PasswordHash.ShouldBeNull();
        await using var db = file.Open(teacher.Id);
        var weather = await db.Lessons.Where(l => l.Class!.Name.StartsWith("Weather")).OrderBy(l => l.Number).ToListAsync();
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
        rows.Where(r => r.Student!.Given == "Anahit").Sum(r => r.FullTurns + r.PartialTurns).ShouldBeInRange(0, 2);
        double Share(Func<int, bool> lessons) => rows.Where(r => r.Student!.Given == "Cormac" && lessons(r.Lesson!.Number)).Sum(r => r.FullTurns)
            / (double)rows.Where(r => lessons(r.Lesson!.Number)).Sum(r => r.FullTurns + r.PartialTurns);
        Share(n => n <= 6).ShouldBeGreaterThan(0.15);
        Share(n => n > 6).ShouldBeLessThan(Share(n => n <= 6) / 2);
        File.ReadAllLines(Path.Combine(folder, "demo-files", "attendance-lesson-13.csv")).Length.ShouldBe(32);
        Summaries.Check(file).ShouldBeEmpty();
        Directory.Delete(folder, recursive: true);
    }

    private sealed class FixedClock(Instant now) : IClock
    {
        public Instant GetCurrentInstant() => now;
    }
}
