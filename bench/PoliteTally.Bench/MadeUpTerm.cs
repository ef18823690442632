using System.Text.Json;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Bench;

/// <summary>A class with a term of settled lessons behind it, all made up.</summary>
internal static class MadeUpTerm
{
    public static readonly Instant First = Instant.FromUtc(2026, 9, 3, 9, 30);

    /// <summary>Makes one.</summary>
    public static SchoolClass In(SchoolFile file, Guid owner, int many, int often)
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
