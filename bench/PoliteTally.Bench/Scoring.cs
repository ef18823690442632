using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Bench;

/// <summary>Scores over a term, another scheme tried on all of it, and one of them explained; each beside only reading the rows.</summary>
internal static class Scoring
{
    private static readonly Instant First = Instant.FromUtc(2026, 9, 3, 9, 30);

    public static void Run()
    {
        var large = Of(1000, 60);
        var half = Of(1000, 30);
        Figures.Row("the same before and after, twice the lessons", Figures.Of(large, "ms", "0"), $"half of them {Figures.Of(half, "ms", "0")}", large / half);
        Of(30, 60);
    }

    /// <returns>How long before and after takes, in milliseconds.</returns>
    private static double Of(int students, int lessons)
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        var file = new SchoolFile(folder.FullName);
        file.Migrate();
        var owner = Guid.CreateVersion7();
        var inClass = Fill(file, owner, students, lessons);
        var (what, beside) = ($"{students:N0} students × {lessons} lessons", $"reading the {students * lessons:N0} rows");

        var read = Figures.Milliseconds(() => Read(file, owner));
        var scored = Figures.Milliseconds(() =>
        {
            foreach (var student in Read(file, owner).GroupBy(r => r.Student))
            {
                TermScore.Of([.. student.Where(r => r.Score is not null).Select(r => new ScoredLesson("a lesson", r.Score!.Value, 50))], Scheme.Default);
            }
        });
        Figures.Row($"scores from summaries, {what}", Figures.Of(scored, "ms", "0"), $"{beside} {Figures.Of(read, "ms", "0")}", scored / read);

        var tried = Scheme.Default with { SpeakingTarget = 2 };
        var compared = Figures.Milliseconds(
            () =>
            {
                using var db = file.Open(owner);
                var term = TermSheet.Of(inClass, db, figuresOnly: true).GetAwaiter().GetResult();
                BeforeAfter.Of(Trial.Of(term, inClass, tried, [.. term.Lessons.Select(l => l.Id)], db), Scheme.Default, tried);
            },
            times: 7);
        Figures.Row($"before and after, {what}", Figures.Of(compared, "ms", "0"), $"{beside} {Figures.Of(read, "ms", "0")}", compared / read);

        var why = Figures.Milliseconds(() =>
        {
            using var db = file.Open(owner);
            var one = db.Students.Select(s => s.Id).First();
            TermSheet.Of(inClass, db, one).GetAwaiter().GetResult().Score(one);
        });
        Figures.Row($"why of a term score, {what}", Figures.Of(why, "ms", "0.0"), $"{beside} {Figures.Of(read, "ms", "0")}", why / read);
        folder.Delete(recursive: true);
        return compared;
    }

    private sealed record Row(Guid Student, decimal? Score);

    private static List<Row> Read(SchoolFile file, Guid owner)
    {
        using var db = file.Open(owner);
        return [.. db.Summaries.AsNoTracking().Select(s => new Row(s.StudentId, s.Score))];
    }

    private static SchoolClass Fill(SchoolFile file, Guid owner, int many, int often)
    {
        using var db = file.Open(owner);
        var inClass = new SchoolClass { Id = Guid.CreateVersion7(), Name = "Weather and Tides" };
        var students = Enumerable.Range(0, many).Select(i => new Student { Id = Guid.CreateVersion7(), Family = $"Sound{i}", Given = $"Student{i}" }).ToList();
        var lessons = Enumerable.Range(0, often).Select(i => new Lesson
        {
            Id = Guid.CreateVersion7(),
            ClassId = inClass.Id,
            Number = i + 1,
            Title = "a lesson",
            PlannedStart = First + Duration.FromDays(i),
            PlannedEnd = First + Duration.FromDays(i) + Duration.FromMinutes(50),
            Stage = LessonStage.Settled,
        }).ToList();
        db.Add(inClass);
        db.AddRange(students);
        db.AddRange(students.Select((s, i) => new Enrolment
        {
            ClassId = inClass.Id,
            StudentId = s.Id,
            Key = (char)('a' + (i % 26)),
            Stays = [new Stay { From = First - Duration.FromDays(7) }],
        }));
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
                Tally = JsonSerializer.Serialize(
                    new { measuredShare = 1, lineWasOpen = true, fullTurns = (i + lesson.Number) % 3, chatIdeas = i % 4, asked = 4, answered = 1 + (i % 4), marksGot = i % 4, marksPossible = 4 }),
                Score = i % 101,
                RestsOn = 9,
                Whole = 10,
                Ribbon = """{"Stretches":[[0,1]],"Spoke":[]}""",
            }));
            db.SaveChanges();
            db.ChangeTracker.Clear();
        }

        return inClass;
    }
}
