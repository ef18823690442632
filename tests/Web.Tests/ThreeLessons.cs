using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Tests;

/// <summary>A class with a short term behind it.</summary>
internal static class ThreeLessons
{
    /// <summary>A class with three settled lessons: Juno speaks and writes, Eino writes, Zainab is absent.</summary>
    public static async Task<(Classroom Room, IReadOnlyList<Guid> Lessons)> Settled(AppUnderTest app)
    {
        var room = await (await app.SignedIn()).Teach();
        var lessons = new List<Guid>();
        for (var i = 0; i < 3; i++)
        {
            var lesson = i == 0 ? room : await room.Next();
            lessons.Add(lesson.Lesson);
            await lesson.Tap(
                new Marked(room.Students["Juno"], Mark.Here), new Marked(room.Students["Eino"], Mark.Here), new TurnTaken(room.Students["Juno"], TurnOutcome.Full, TurnOrigin.Hand),
                new ChatSaid(room.Students["Juno"], ChatKind.Idea, null), new ChatSaid(room.Students["Eino"], ChatKind.Idea, null));
            await lesson.Tap(new LessonEnded());
            await lesson.Tap(new LessonSettled());
        }

        return (room, lessons);
    }

    /// <summary>Its scheme.</summary>
    public static Task<SchemeView> Scheme(Classroom room) => room.Teacher.Get<SchemeView>($"/api/classes/{room.Class}/scheme");

    /// <summary>The scores of Juno and Eino, when nothing is due any more.</summary>
    public static async Task<string> Scores(Classroom room)
    {
        // What is due is reckoned beside everything else.
        while ((await Scheme(room)).Lessons.Any(l => l.Due))
        {
            await Task.Yield();
        }

        var sheet = await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores");
        return string.Join("; ", sheet.Students.Where(s => s.Called is "Juno" or "Eino").Select(s => $"{s.Called} {string.Join(' ', s.Cells.Select(c => c?.Score))}, term {s.Term}"));
    }
}
