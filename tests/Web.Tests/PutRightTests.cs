using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Tests;

/// <summary>What was noted wrongly is put right: while the lesson goes on, when it has ended, and when it is settled.</summary>
public sealed class PutRightTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static async Task<StudentEntryList> List(Classroom room, string student) =>
        await room.Teacher.Get<StudentEntryList>($"/api/lessons/{room.Lesson}/students/{room.Students[student]}/entries");

    [Fact]
    public async Task A_lesson_that_has_ended_is_resumed_and_goes_on_as_before()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new HandRaised(room.Students["Juno"]));
        await room.Tap(new LessonEnded());
        var over = (await room.Sheet()).Head;
        over.EndedAt.ShouldNotBeNull();
        (await room.Tap(new Struck(over.EndedBy.ShouldNotBeNull()))).Refused.ShouldBeEmpty();

        var on = (await room.Sheet()).Head;
        (on.Stage, on.EndedAt, on.EndedBy).ShouldBe((LessonStage.Live, null, null));
        on.Hands.ShouldHaveSingleItem();
        (await room.Tap(new NodGiven(room.Students["Juno"], "on time"))).Refused.ShouldBeEmpty();
        (await room.Tap(new LessonEnded())).Refused.ShouldBeEmpty();
        await room.Tap(new LessonSettled());
        (await room.Tap(new Struck((await room.Sheet()).Head.EndedBy!.Value))).Refused.ShouldHaveSingleItem().Why.ShouldContain("settled");
    }

    [Fact]
    public async Task When_a_lesson_is_over_people_are_where_they_were_at_its_end()
    {
        var room = await (await app.SignedIn()).Teach();
        using var meeting = await Meeting.Of(room);
        await meeting.Tell(meeting.Event("joined", new { name = "Juno Quillfeather", connection = "a" }));
        await room.Tap(new Marked(room.Students["Eino"], Mark.Here), new Marked(room.Students["Zainab"], Mark.Here));
        await room.Tap(new Marked(room.Students["Zainab"], Mark.Left));
        async Task<string> Here() => string.Join(' ', (await room.Sheet()).Rows.Where(r => r.Whereabouts == Whereabouts.Here).Select(r => r.Called).Order());
        (await Here()).ShouldBe("Eino Juno");

        // Everybody goes as the bell rings, a moment before the lesson is ended by hand.
        await meeting.Tell(meeting.Event("left", new { name = "Juno Quillfeather", connection = "a" }));
        (await Here()).ShouldBe("Eino");
        await room.Tap(new LessonEnded());
        (await Here()).ShouldBe("Eino Juno Zainab");
    }

    [Fact]
    public async Task Three_mistakes_are_put_right_from_the_lists_of_students_after_settling()
    {
        var room = await (await app.SignedIn()).Teach();
        var (juno, eino) = (room.Students["Juno"], room.Students["Eino"]);
        await room.Tap(new RollCallTaken([.. room.Students.Values]));
        await room.Tap(new TurnTaken(juno, TurnOutcome.Full, TurnOrigin.Invited), new AsideNoted(juno, "line bad again"), new Marked(eino, Mark.Left));
        await room.Tap(new LessonEnded(), new LessonSettled());
        var before = await Score(room, "Juno");

        // The turn was Eino's, and he never left.
        var wrong = (await List(room, "Juno")).Entries;
        wrong.Select(e => e.Text).ShouldBe(["here, in the roll call", "full turn", "an aside"]);
        wrong.Select(e => e.OfSeveral).ShouldBe([true, false, false]);
        (await room.Tap(new Struck(wrong[1].Id))).Refused.ShouldHaveSingleItem().Why.ShouldContain("Open it again");
        await room.Tap(new Struck((await List(room, "Juno")).SettledBy!.Value));
        await room.Tap(new Struck(wrong[1].Id));
        await room.Tap(new Struck((await List(room, "Eino")).Entries.Single(e => e.Text == "left").Id));
        await room.Tap([new SentEntry(Guid.CreateVersion7(), Classroom.Now - NodaTime.Duration.FromMinutes(1), new TurnTaken(eino, TurnOutcome.Full, TurnOrigin.Invited))]);
        await room.Tap(new LessonSettled());

        (await List(room, "Juno")).Entries[1].ShouldSatisfyAllConditions(e => e.Struck.ShouldBeTrue(), e => e.StruckBy.ShouldHaveSingleItem());
        (await List(room, "Eino")).Entries.Select(e => (e.Text, e.Struck)).ShouldBe(
            [("full turn", false), ("here, in the roll call", false), ("left", true)], ignoreOrder: true);
        (await Score(room, "Eino")).ShouldBe(before);
        (await room.Settling()).Register.Single(r => r.Called == "Eino").Status.ShouldBe(AttendanceStatus.Present);
    }

    [Fact]
    public async Task Nobody_reads_the_list_of_another_teachers_student()
    {
        var room = await (await app.SignedIn()).Teach();
        var other = await (await app.SignedIn("odhran")).Teach();
        foreach (var path in new[] { $"{room.Lesson}/students/{room.Students["Juno"]}", $"{other.Lesson}/students/{room.Students["Juno"]}" })
        {
            ((int)(await other.Teacher.Http.GetAsync($"/api/lessons/{path}/entries")).StatusCode).ShouldBe(404);
        }
    }

    private static async Task<decimal?> Score(Classroom room, string student) =>
        (await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students[student]}")).Shown;
}
