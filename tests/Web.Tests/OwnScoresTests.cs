using System.Net;
using System.Net.Http.Json;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Desk;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Objections;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>A student reads their own scores, says what is wrong, and is answered.</summary>
public sealed class OwnScoresTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    /// <summary>A settled lesson in which Juno spoke and Eino, who was late with a reason, did not; both on their pages.</summary>
    private async Task<(Classroom Room, Pupil Juno, Pupil Eino)> Settled(bool shows = true, string teacher = "tamsin")
    {
        var room = await (await app.SignedIn(teacher)).Teach();
        var passes = await Pupil.Passes(room);
        await Shows(room, shows);
        await room.Tap(new RollCallTaken([.. room.Students.Values]));
        await room.Tap(new TurnTaken(room.Students["Juno"], TurnOutcome.Full, TurnOrigin.Invited), new ExcuseRecorded(room.Students["Eino"], "at the dentist"));
        var (juno, eino) = (await Pupil.In(room, passes["Juno"]), await Pupil.In(room, passes["Eino"]));
        await room.Tap(new LessonEnded(), new LessonSettled());
        return (room, juno, eino);
    }

    private static async Task Shows(Classroom room, bool shows)
    {
        var rules = (await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules")).Rules;
        (await room.Teacher.Http.PutAsJsonAsync($"/api/classes/{room.Class}/rules", new RulesSent(rules with { PageShowsScores = shows }), Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static async Task<PageScores> Read(Pupil pupil) => (await pupil.Http.GetFromJsonAsync<PageScores>($"/api/page/{pupil.Code}/scores", Visitor.Json))!;

    private static async Task<List<PageNoted>> Noted(Pupil pupil, Classroom room) =>
        (await pupil.Http.GetFromJsonAsync<List<PageNoted>>($"/api/page/{pupil.Code}/scores/{room.Lesson}", Visitor.Json))!;

    private static Task<HttpResponseMessage> Object(Pupil pupil, Guid lesson, string text, Guid? entry = null, Guid? id = null) =>
        pupil.Http.PostAsJsonAsync($"/api/page/{pupil.Code}/scores/{lesson}/objections", new PageObjected(id ?? Guid.CreateVersion7(), entry, text), Visitor.Json);

    private static async Task<List<ObjectionLine>> Waiting(Classroom room) =>
        [.. (await room.Teacher.Get<Desk>("/api/desk")).Objections.Where(o => o.Lesson.Id == room.Lesson)];

    [Fact]
    public async Task A_student_reads_the_score_that_the_teacher_sees_and_what_it_rests_on()
    {
        var (room, juno, _) = await Settled();
        (await juno.See()).Own.SeesScores.ShouldBeTrue();
        var own = (await Read(juno)).Lessons.ShouldHaveSingleItem();
        var seen = await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students["Juno"]}");
        own.Score.ShouldBe(seen.Shown);
        own.Parts.Where(p => p.Strand is not null).Select(p => (p.Strand!.Value, p.Share)).ShouldBe(seen.Score.Strands.Where(s => s.Weight > 0).Select(s => (s.Strand, s.Value?.Value)));
        own.Parts[1].Said.ShouldBe("You spoke once.");
        (await Noted(juno, room)).Select(n => n.Text).ShouldBe(["here, in the roll call", "full turn"]);
    }

    [Fact]
    public async Task Nobody_reads_anothers_and_no_reason_of_an_excuse_stands_on_a_page()
    {
        var (room, juno, eino) = await Settled();
        var all = await eino.Http.GetStringAsync($"/api/page/{eino.Code}/scores") + await eino.Http.GetStringAsync($"/api/page/{eino.Code}/scores/{room.Lesson}");
        all.ShouldNotContain("dentist");
        all.ShouldNotContain("You spoke");
        (await Noted(juno, room)).ShouldContain(n => n.Text == "full turn");
        (await Noted(eino, room)).ShouldNotContain(n => n.Text == "full turn");
    }

    [Fact]
    public async Task Without_a_pass_or_where_the_class_does_not_show_them_there_are_none()
    {
        var (room, juno, _) = await Settled(shows: false);
        (await juno.See()).Own.SeesScores.ShouldBeFalse();
        (await juno.Http.GetAsync($"/api/page/{juno.Code}/scores")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await Object(juno, room.Lesson, "I spoke twice")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await Shows(room, true);
        (await Read(juno)).Lessons.Count.ShouldBe(1);
        using var stranger = await Pupil.Before(room);
        (await stranger.Http.GetAsync($"/api/page/{stranger.Code}/scores")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task After_the_lesson_a_pass_still_opens_the_page_of_a_class_that_shows_scores_and_a_name_does_not()
    {
        var (room, _, _) = await Settled();
        var passes = await Pupil.Passes(room);
        using var late = await Pupil.In(room, passes["Zainab"]);
        (await Read(late)).Lessons.Count.ShouldBe(1);
        (await late.Refused(PageDoing.RaiseHand)).ShouldContain("over");
        using var named = await Pupil.Before(room);
        (await named.Enter(null, "Zainab")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await Shows(room, false);
        (await named.Enter(passes["Eino"])).StatusCode.ShouldBe(HttpStatusCode.Gone);
    }

    [Fact]
    public async Task What_a_student_says_is_wrong_reaches_the_desk_with_its_entry_and_is_answered()
    {
        var (room, juno, eino) = await Settled();
        var turn = (await Noted(juno, room)).Single(n => n.Text == "full turn");
        var id = Guid.CreateVersion7();
        (await Object(juno, room.Lesson, "  I spoke twice ", turn.Id, id)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await Object(juno, room.Lesson, "I spoke twice", turn.Id, id)).StatusCode.ShouldBe(HttpStatusCode.OK);

        var waits = (await Waiting(room)).ShouldHaveSingleItem();
        (waits.Called, waits.About, waits.Text, waits.Entry, waits.Lesson.Id).ShouldBe(("Juno", "full turn", "I spoke twice", (Guid?)turn.Id, room.Lesson));
        var answered = await room.Teacher.Post<ObjectionLine>($"/api/objections/{id}/answer", new ObjectionAnswer("You are right, I had noted one."));
        answered.AnsweredAt.ShouldNotBeNull();
        (await Waiting(room)).ShouldBeEmpty();

        (await Read(juno)).Lessons[0].Objections.ShouldHaveSingleItem().Answer.ShouldBe("You are right, I had noted one.");
        (await Read(eino)).Lessons[0].Objections.ShouldBeEmpty();
        (await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students["Juno"]}")).Objections.ShouldHaveSingleItem().AnsweredBy.ShouldNotBeEmpty();

        // Another window that still shows it as waiting does not write over the answer.
        var late = await room.Teacher.Http.PostAsJsonAsync($"/api/objections/{id}/answer", new ObjectionAnswer("No."), Visitor.Json);
        (late.StatusCode, (await late.Content.ReadAsStringAsync()).Contains("has answered it already", StringComparison.Ordinal)).ShouldBe((HttpStatusCode.Conflict, true));

        await room.Teacher.Post<ObjectionLine>($"/api/objections/{id}/take-back", new { });
        (await Waiting(room)).Count.ShouldBe(1);
        (await Read(juno)).Lessons[0].Objections[0].Answer.ShouldBeEmpty();
    }

    [Fact]
    public async Task Sent_many_times_at_once_it_is_one()
    {
        var (room, juno, _) = await Settled();
        var id = Guid.CreateVersion7();
        var all = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Object(juno, room.Lesson, "I spoke twice", null, id)));
        all.ShouldAllBe(r => r.StatusCode == HttpStatusCode.OK || r.StatusCode == HttpStatusCode.Conflict);
        (await Waiting(room)).ShouldHaveSingleItem();
    }

    [Fact]
    public async Task When_two_records_become_one_its_objections_are_the_ones_of_both()
    {
        var (room, juno, eino) = await Settled();
        await Object(juno, room.Lesson, "I spoke twice");
        await room.Teacher.Post<Renewed>($"/api/classes/{room.Class}/students/{room.Students["Juno"]}/merge", new MergeInto(room.Students["Eino"]));
        (await Waiting(room)).ShouldHaveSingleItem().Student.ShouldBe(room.Students["Eino"]);
        (await Read(eino)).Lessons[0].Objections.ShouldHaveSingleItem();
        (await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students["Eino"]}")).Objections.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task What_cannot_be_taken_is_refused_with_a_sentence_and_nothing_is_stored()
    {
        var (room, juno, eino) = await Settled();
        var other = await Settled(teacher: "odhran");
        var foreign = (await Noted(eino, room)).First(n => n.Text != "here, in the roll call").Id;
        var id = Guid.CreateVersion7();
        (await Object(other.Juno, other.Room.Lesson, "an id that is taken", null, id)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await Object(juno, room.Lesson, "by somebody else", null, id)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        foreach (var (lesson, text, entry, status) in new (Guid, string, Guid?, HttpStatusCode)[]
        {
            (room.Lesson, "   ", null, HttpStatusCode.UnprocessableEntity),
            (room.Lesson, new string('a', 501), null, HttpStatusCode.UnprocessableEntity),
            (room.Lesson, "not mine", foreign, HttpStatusCode.Conflict),
            (other.Room.Lesson, "not my class", null, HttpStatusCode.NotFound),
        })
        {
            (await Object(juno, lesson, text, entry)).StatusCode.ShouldBe(status, text);
        }

        (await Waiting(room)).ShouldBeEmpty();
        for (var i = 0; i < 5; i++)
        {
            (await Object(juno, room.Lesson, $"thing {i}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        (await (await Object(juno, room.Lesson, "one more")).Content.ReadAsStringAsync()).ShouldContain("Wait for an answer");
        var waiting = (await Waiting(room));
        waiting.Count.ShouldBe(5);
        (await room.Teacher.Http.PostAsJsonAsync($"/api/objections/{waiting[0].Id}/answer", new ObjectionAnswer(" "), Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await other.Room.Teacher.Http.PostAsJsonAsync($"/api/objections/{waiting[0].Id}/answer", new ObjectionAnswer("mine now"), Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
