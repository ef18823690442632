using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Reports;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

/// <summary>Who was heard, and for how long, is the same in every report.</summary>
public sealed class HeardReportTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    [Fact]
    public async Task What_the_teacher_said_is_known_by_the_name_of_the_account_in_a_lesson_held_without_the_sheet()
    {
        var room = await (await app.SignedIn()).Teach();
        var (day, noon) = (Classroom.Now.InUtc().Date.PlusDays(-2), new LocalTime(12, 0));
        var planned = await room.Teacher.Post<Features.Lessons.LessonLine>($"/api/classes/{room.Class}/lessons/planned", new LessonPlanned("Fog and haar", day, noon, 50, false, null, false));
        var held = room with { Lesson = planned.Id };
        (await held.Tap(
        [
            new SentEntry(Guid.CreateVersion7(), planned.PlannedStart, new LessonStarted()), new SentEntry(Guid.CreateVersion7(), planned.PlannedEnd, new LessonEnded()),
        ])).Refused.ShouldBeEmpty();
        const string captions = "WEBVTT\n\n00:05:00.000 --> 00:08:00.000\n<v TAMSIN>The wind backs, and then?\n\n00:09:00.000 --> 00:10:00.000\n<v Juno Quillfeather>Then it rains.\n\n00:11:00.000 --> 00:12:00.000\n<v Somebody Else>Hello?\n";
        (await Visitor.Read<SettlingView>(await held.Teacher.Send($"/api/lessons/{held.Lesson}/files", captions))).Files.ShouldHaveSingleItem();
        (await held.Tap(new LessonSettled())).Refused.ShouldBeEmpty();
        ReportTests.Said(await ReportTests.Report(held, "fairness")).ShouldContain("You spoke for 3 min, 75 % of all that you and they said.");
    }

    [Fact]
    public async Task Turns_are_the_same_in_the_words_of_a_lesson_and_minute_by_minute()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new TurnTaken(room.Students["Juno"], TurnOutcome.Full, TurnOrigin.Hand), new TurnTaken(room.Students["Eino"], TurnOutcome.Pass, TurnOrigin.Hand));
        await room.Tap(new LessonEnded());
        var report = await ReportTests.Report(room, "lesson", $"?lesson={room.Lesson}");
        ReportTests.Said(report).ShouldContain("1 turn in all");
        var minutes = report.Sections.Select(s => s.Figures).OfType<Figures>().Single(f => f.Headings.Contains("Turns so far"));
        minutes.Rows[^1].Cells[minutes.Headings.ToList().IndexOf("Turns so far")].Number.ShouldBe(1);
    }
}
