using System.Net;
using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Store;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Features.Questions;
using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

/// <summary>Tables of answers and lists of people, from the file to the figures, over HTTP.</summary>
public sealed class AnswerFileTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private const string Heading = "Your name,Which way does it back?,What is normal pressure?,What was hard?";

    private static readonly string Table = $"{Heading}\nJuno Q,against the clock,1013,the tides\neino rautio,with the clock,1000 hPa,nothing\n";

    private static readonly Question Backing = new()
    {
        Id = Guid.NewGuid(),
        Kind = QuestionKind.SingleChoice,
        Purpose = QuestionPurpose.Quiz,
        Text = "Which way does it back?",
        Options = [new(Guid.NewGuid(), "against the clock", Right: true), new(Guid.NewGuid(), "with the clock")],
    };

    private static readonly Question Pressure = new() { Id = Guid.NewGuid(), Kind = QuestionKind.Number, Purpose = QuestionPurpose.Quiz, Text = "What is normal pressure?", Target = 1013 };

    private async Task<Classroom> Ended(params Act[] before)
    {
        var room = await (await app.SignedIn()).Teach();
        var plan = await room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");
        await room.Teacher.Put<PlanStored>($"/api/lessons/{room.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan { Questions = [Backing, Pressure] }));
        await room.Tap([.. before, new LessonEnded()]);
        return room;
    }

    private static Task<HttpResponseMessage> Look(Classroom room, string text, params (string, string)[] decided) => room.Teacher.Send($"/api/lessons/{room.Lesson}/files/look", text, decided);

    private static Task<HttpResponseMessage> Bring(Classroom room, string text, params (string, string)[] decided) => room.Teacher.Send($"/api/lessons/{room.Lesson}/files", text, decided);

    private static async Task<IReadOnlyList<AskingView>> Questions(Classroom room) => (await room.Teacher.Get<QuestionsView>($"/api/lessons/{room.Lesson}/questions")).Askings;

    [Fact]
    public async Task Questions_are_laid_beside_those_of_the_plan_and_what_is_like_none_is_asked()
    {
        var room = await Ended();
        var look = await Visitor.Read<FileLook>(await Look(room, Table));
        look.Kind.ShouldBe(FileKind.Answers);
        look.Questions.Select(q => (q.As, q.Kind)).ShouldBe([(Backing.Id, QuestionKind.SingleChoice), (Pressure.Id, QuestionKind.Number), (null, QuestionKind.ShortText)]);
        look.Unclear.Single().ShouldContain("“What was hard?” is like no question of the plan");

        var refused = await Bring(room, Table);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Questions(room)).ShouldBeEmpty();

        var choice = $$"""[{"place":0,"as":"{{Backing.Id}}"},{"place":1,"as":"{{Pressure.Id}}"},{"place":2,"leave":true}]""";
        var view = await Visitor.Read<SettlingView>(await Bring(room, Table, ("questions", choice)));
        view.Files.ShouldHaveSingleItem().Kind.ShouldBe(FileKind.Answers);
        var asked = await Questions(room);
        asked.Select(a => a.Question.Text).ShouldBe([Backing.Text, Pressure.Text], ignoreOrder: true);
        MarksOf("Juno", Pressure).ShouldBe(1);
        MarksOf("Eino", Pressure).ShouldBe(0);

        // Taken out, it leaves nothing.
        await room.Tap(new Struck(view.Files[0].Id));
        (await Questions(room)).ShouldBeEmpty();
        Summaries.Check(app.File).ShouldBeEmpty();

        decimal? MarksOf(string who, Question question) => asked.Single(a => a.Question.Id == question.Id).Students.Single(s => s.Student == room.Students[who]).Marks;
    }

    [Fact]
    public async Task A_question_of_its_own_has_the_key_that_is_chosen()
    {
        var room = await Ended();
        var text = "Your name,Is the sound deep?\nJuno Q,yes\nEino Rautio,no\n";
        await Bring(room, text, ("questions", """[{"place":0,"right":["yes"]}]"""));
        var asked = (await Questions(room)).ShouldHaveSingleItem();
        (asked.Question.Kind, asked.Question.Purpose).ShouldBe((QuestionKind.TrueFalse, QuestionPurpose.Quiz));
        asked.Students.Where(s => s.Answer is not null).Select(s => s.Marks).ShouldBe([1m, 0m], ignoreOrder: true);
        // Said otherwise, the file takes the place of what it was.
        await Bring(room, text, ("questions", """[{"place":0,"right":["no"]}]"""));
        (await Questions(room)).ShouldHaveSingleItem().Question.Options.Single(o => o.Right).Text.ShouldBe("no");
    }

    [Fact]
    public async Task What_was_answered_on_the_page_and_in_the_form_is_one_answer_and_a_difference_is_asked()
    {
        var opened = new QuestionOpened(Backing, null, null, [], Duration.Zero);
        var room = await Ended(opened);
        var asking = (await Questions(room)).Single().Asking;
        await room.Tap(new AnswerGiven(room.Students["Zainab"], asking, new Answer { Options = [Backing.Options[1].Id] }));
        var view = await Visitor.Read<SettlingView>(await Bring(room, "Your name,Which way does it back?\nZainab Usman,against the clock\nJuno Q,with the clock\n"));
        view.Files.ShouldHaveSingleItem().Known.ShouldBe(1);
        var asked = (await Questions(room)).ShouldHaveSingleItem();
        // What the teacher entered is above a file, and is not asked again.
        asked.Students.Single(s => s.Student == room.Students["Zainab"]).Answer.ShouldBe("with the clock");
        asked.Students.Single(s => s.Student == room.Students["Juno"]).Answer.ShouldBe("with the clock");
        view.Questions.ShouldNotContain(q => q.Asks == Core.Settling.Asks.WhichAnswer);
    }

    [Fact]
    public async Task Answers_without_names_are_kept_without_names()
    {
        var room = await Ended();
        var text = "How sure are you?\n4\n5\n4\n3\n5\n";
        var look = await Visitor.Read<FileLook>(await Look(room, text, ("kind", "\"answers\"")));
        look.Questions.Single().Anonymous.ShouldBeTrue();
        look.Names.ShouldBeEmpty();
        await Bring(room, text, ("kind", "\"answers\""), ("questions", """[{"place":0}]"""));
        (await Questions(room)).Single().Answered.ShouldBe(5);
        var few = await Bring(room, "How glad are you?\n4\n5\n", ("kind", "\"answers\""), ("questions", """[{"place":0}]"""));
        few.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await Questions(room)).Single(a => a.Answered == 2).Results.Counts.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_list_of_people_is_a_roll_call_of_the_moment_that_is_said()
    {
        var room = await Ended();
        var look = await Visitor.Read<FileLook>(await Look(room, "Juno Q\nEino Rautio\n"));
        (look.Kind, look.Unclear.Count).ShouldBe((FileKind.People, 1));
        var at = Classroom.Now.ToUnixTimeMilliseconds();
        var view = await Visitor.Read<SettlingView>(await Bring(room, "Juno Q\nEino Rautio\n", ("at", $"{at}")));
        view.Files.ShouldHaveSingleItem().From.ShouldBe(Instant.FromUnixTimeMilliseconds(at));
        view.Names.Select(n => n.Student).ShouldBe([room.Students["Juno"], room.Students["Eino"]], ignoreOrder: true);
    }

    [Fact]
    public async Task What_could_be_two_things_is_shown_as_both()
    {
        var room = await Ended();
        var look = await Visitor.Read<FileLook>(await Look(room, "Name,Minutes,Word\nJuno Quillfeather,47,tide\nEino Rautio,50,ebb\n"));
        look.Kind.ShouldBeNull();
        look.Readings.Select(r => (r.Kind, r.Rows)).ShouldBe(look.CouldBe.Select(kind => (kind, 2)));
        look.Readings.Select(r => $"{r.First[0].Name} {r.First[0].Text ?? $"{r.First[0].Seconds} s"}").ShouldBe(["Juno Quillfeather 47 · tide", "Juno Quillfeather 2820 s"]);
        // Said which of them, nothing is compared any more.
        var said = await Visitor.Read<FileLook>(await Look(room, "Name,Minutes,Word\nJuno Quillfeather,47,tide\nEino Rautio,50,ebb\n", ("kind", "\"attendance\"")));
        (said.Kind, said.Readings.Count).ShouldBe((FileKind.Attendance, 0));
    }

    [Fact]
    public async Task Of_names_read_from_a_picture_only_whole_ones_are_taken_without_asking()
    {
        var room = await Ended();
        var at = (await room.Settling()).CountedFrom.ToUnixTimeMilliseconds();
        var view = await Visitor.Read<SettlingView>(await Bring(room, "Juno Q\nEino Rautio\n", ("at", $"{at}"), ("picture", "true"), ("kind", "\"people\"")));
        view.Names.Where(n => n.Decided).Select(n => n.Name).ShouldBe(["Eino Rautio"]);
        view.Questions.Single(q => q.Asks == Core.Settling.Asks.WhoseName).About.ShouldBe("Juno Q");
        (view.Register.Single(r => r.Called == "Eino").Status, view.Register.Single(r => r.Called == "Juno").Status)
            .ShouldBe((Core.Attendance.AttendanceStatus.Present, Core.Attendance.AttendanceStatus.Absent));
    }

    [Theory]
    [InlineData("[{\"place\":99}]")]
    [InlineData("{}")]
    [InlineData("[null]")]
    [InlineData("[{\"place\":0,\"as\":\"6f1c1f3a-0000-4000-8000-000000000000\"}]")]
    public async Task What_is_chosen_for_questions_may_be_anything(string chosen)
    {
        var room = await Ended();
        ((int)(await Bring(room, Table, ("questions", chosen))).StatusCode).ShouldBeInRange(200, 499);
    }
}
