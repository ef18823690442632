using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Bench;

/// <summary>Term scores of 1,000 students over 60 lessons from their summaries, beside only reading the rows.</summary>
internal static class Scoring
{
    private const int Students = 1000;
    private const int Lessons = 60;

    public static void Run()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        var file = new SchoolFile(folder.FullName);
        file.Migrate();
        var owner = Guid.CreateVersion7();
        Fill(file, owner);

        List<Row> rows = [];
        var read = Figures.Milliseconds(() => rows = Read(file, owner));
        var both = Figures.Milliseconds(() =>
        {
            foreach (var student in Read(file, owner).GroupBy(r => r.Student))
            {
                TermScore.Of([.. student.Where(r => r.Score is not null).Select(r => new ScoredLesson("a lesson", r.Score!.Value, 50))], Scheme.Default);
            }
        });
        Figures.Row(
            $"scoring {Students:N0} students × {Lessons} lessons from summaries", Figures.Of(both, "ms", "0"),
            $"reading the {rows.Count:N0} rows {Figures.Of(read, "ms", "0")}", both / read);
        folder.Delete(recursive: true);
    }

    private sealed record Row(Guid Student, decimal? Score);

    private static List<Row> Read(SchoolFile file, Guid owner)
    {
        using var db = file.Open(owner);
        return [.. db.Summaries.AsNoTracking().Select(s => new Row(s.StudentId, s.Score))];
    }

    private static void Fill(SchoolFile file, Guid owner)
    {
        using var db = file.Open(owner);
        var inClass = new SchoolClass { Id = Guid.CreateVersion7(), Name = "Weather and Tides" };
        var students = Enumerable.Range(0, Students).Select(i => new Student { Id = Guid.CreateVersion7(), Family = $"Sound{i}", Given = $"Student{i}" }).ToList();
        var start = Instant.FromUtc(2026, 9, 3, 9, 30);
        var lessons = Enumerable.Range(0, Lessons).Select(i => new Lesson
        {
            Id = Guid.CreateVersion7(),
            ClassId = inClass.Id,
            Number = i + 1,
            Title = "a lesson",
            PlannedStart = start + Duration.FromDays(i),
            PlannedEnd = start + Duration.FromDays(i) + Duration.FromMinutes(50),
            Stage = LessonStage.Settled,
        }).ToList();
        db.Add(inClass);
        db.AddRange(students);
        db.AddRange(lessons);
        db.SaveChanges();
        db.ChangeTracker.Clear();
        foreach (var lesson in lessons)
        {
            db.Summaries.AddRange(students.Select((s, i) => new Summary
            {
                LessonId = lesson.Id,
                StudentId = s.Id,
                Status = AttendanceStatus.Present,
                KnownBy = KnownBy.Measured,
                Notes = "",
                Score = i % 101,
                Ribbon = """{"Stretches":[[0,1]],"Spoke":[]}""",
            }));
            db.SaveChanges();
            db.ChangeTracker.Clear();
        }
    }
}
