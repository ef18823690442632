using System.Net;
using System.Text;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;
using PoliteTally.Web.Features.Board;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Features.Questions;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

public sealed class StudentPageTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    internal static readonly Guid Backs = Guid.NewGuid(), Veers = Guid.NewGuid();

    private async Task<(Classroom Room, Dictionary<string, string> Passes)> Taught()
    {
        var room = await (await app.SignedIn()).Teach();
        return (room, await Pupil.Passes(room));
    }

    internal static Question Choice(QuestionPurpose purpose = QuestionPurpose.Quiz) => new()
    {
        Id = Guid.NewGuid(),
        Kind = QuestionKind.SingleChoice,
        Purpose = purpose,
        Text = "From west to south-west, the wind…",
        Options = [new(Backs, "backs", purpose == QuestionPurpose.Quiz), new(Veers, "veers")],
    };

    internal static async Task<Guid> Open(Classroom room, Question question, Guid? group = null)
    {
        var result = await room.Tap(new QuestionOpened(question, group, null, [], Duration.Zero));
        result.Refused.ShouldBeEmpty();
        return result.Accepted[0];
    }

    internal static Answer Chose(Guid option) => new() { Options = [option] };

    internal static async Task SetRules(Classroom room, Func<Core.GroundRules.ClassRules, Core.GroundRules.ClassRules> change)
    {
        var rules = await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(change(rules.Rules)));
    }

    [Fact]
    public async Task A_student_comes_in_with_a_pass_and_what_they_do_is_on_the_sheet()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"].ToUpperInvariant().Replace('-', ' '));
        (await juno.Do(PageDoing.RaiseHand)).Hand.ShouldBe(new PageHand(1, 1, false, false));
        var asking = await Open(room, Choice());
        (await juno.See()).Own.Questions.ShouldHaveSingleItem().Text.ShouldStartWith("From west");
        (await juno.Do(PageDoing.Answer, asking, Chose(Backs))).Questions[0].Answer!.Options.ShouldBe([Backs]);

        var sheet = await room.Sheet();
        sheet.Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(room.Students["Juno"]);
        var row = sheet.Rows.Single(r => r.Called == "Juno");
        (row.Questions.Count, row.Whereabouts).ShouldBe((1, Whereabouts.Here));
        sheet.Head.Askings.ShouldHaveSingleItem().Answered.ShouldBe(1);

        (await juno.Do(PageDoing.LowerHand)).Hand.ShouldBeNull();
        (await room.Sheet()).Head.Hands.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_a_student_sees_of_a_question_does_not_hold_its_key()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        await Open(room, Choice());
        var ranking = new Question
        {
            Id = Guid.NewGuid(),
            Kind = QuestionKind.Ranking,
            Purpose = QuestionPurpose.Quiz,
            Text = "Lowest first",
            Options = [.. "ABCDEF".Select((c, i) => new QuestionOption(new Guid($"00000000-0000-4000-8000-{9 - i:D12}"), c.ToString()))],
        };
        await Open(room, ranking);
        await Open(room, new Question { Id = Guid.NewGuid(), Kind = QuestionKind.ShortText, Purpose = QuestionPurpose.Quiz, Text = "Sea fog?", AcceptedAnswers = ["SECRET haar"] });
        await Open(room, new Question { Id = Guid.NewGuid(), Kind = QuestionKind.Number, Purpose = QuestionPurpose.Quiz, Text = "hPa?", Target = 1013.77m });
        var seen = await juno.Http.GetStringAsync($"/api/page/{juno.Code}");
        seen.ShouldNotContain("SECRET");
        seen.ShouldNotContain("1013.77");
        (await juno.See()).Own.Questions.ShouldAllBe(q => q.Right == null && q.RightWords == null && q.Marks == null);
        // The order of a ranking is its answer.
        (await juno.See()).Own.Questions.Single(q => q.Kind == QuestionKind.Ranking).Options.Select(o => o.Text).ShouldBe(["F", "E", "D", "C", "B", "A"]);
    }

    [Fact]
    public async Task What_was_right_is_shown_when_the_teacher_shows_it()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        var asking = await Open(room, Choice());
        await juno.Do(PageDoing.Answer, asking, Chose(Veers));
        (await room.Tap(new RightRevealed(asking))).Refused.ShouldHaveSingleItem().Why.ShouldContain("Close");
        await room.Tap(new QuestionClosed(asking));
        (await juno.See()).Own.Questions[0].Right.ShouldBeNull();
        await room.Tap(new RightRevealed(asking));
        var told = (await juno.See()).Own.Questions[0];
        told.Right.ShouldBe([Backs]);
        told.Marks.ShouldBe(0);
    }

    [Fact]
    public async Task Late_foreign_and_wrong_answers_are_refused_in_kind_words_and_nothing_is_stored()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.In(room, passes["Eino"]);
        var group = new StudentGroup(Guid.NewGuid(), "Gulls", [room.Students["Juno"]]);
        await room.Tap(new GroupsMade([group, new StudentGroup(Guid.NewGuid(), "Terns", [room.Students["Eino"]])]));
        var toGulls = await Open(room, Choice(), group.Id);
        var toAll = await Open(room, Choice());
        (await eino.See()).Own.Questions.ShouldHaveSingleItem().Asking.ShouldBe(toAll);
        (await eino.Refused(PageDoing.Answer, toGulls, Chose(Backs))).ShouldContain("another group");
        (await juno.Refused(PageDoing.Answer, toAll, Chose(Guid.NewGuid()))).ShouldContain("not one of the choices");
        (await juno.Refused(PageDoing.Answer, Guid.NewGuid(), Chose(Backs))).ShouldContain("not asked");
        (await juno.Refused(PageDoing.Answer, toAll, null)).ShouldContain("not understood");
        await room.Tap(new QuestionClosed(toAll));
        (await juno.Refused(PageDoing.Answer, toAll, Chose(Backs))).ShouldContain("too late");
        (await room.Teacher.Get<QuestionsView>($"/api/lessons/{room.Lesson}/questions")).Askings.ShouldAllBe(a => a.Answered == 0);
    }

    [Fact]
    public async Task Sent_again_it_is_one_and_sent_by_another_it_is_nobodys()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.In(room, passes["Eino"]);
        var asking = await Open(room, Choice());
        var id = Guid.CreateVersion7();
        await juno.Do(PageDoing.Answer, asking, Chose(Backs), id: id);
        var position = (await room.Sheet()).Head.Position;
        await juno.Do(PageDoing.Answer, asking, Chose(Veers), id: id);
        await eino.Do(PageDoing.Answer, asking, Chose(Veers), id: id);
        (await room.Sheet()).Head.Position.ShouldBe(position);
        (await eino.See()).Own.Questions[0].Answered.ShouldBeFalse();
        // A student named in the request is nobody: who it is, is known by the session.
        var forged = await eino.Http.PostAsync($"/api/page/{eino.Code}/acts", new StringContent(
            $$$"""{"id":"{{{Guid.NewGuid()}}}","doing":"answer","student":"{{{room.Students["Zainab"]}}}","asking":"{{{asking}}}","answer":{"options":["{{{Veers}}}"]}}""", Encoding.UTF8, "application/json"));
        forged.StatusCode.ShouldBeOneOf(HttpStatusCode.OK, HttpStatusCode.BadRequest, HttpStatusCode.Forbidden);
        var view = (await room.Teacher.Get<QuestionsView>($"/api/lessons/{room.Lesson}/questions")).Askings[0];
        view.Students.Where(s => s.Answer is not null).Select(s => s.Student).ShouldNotContain(room.Students["Zainab"]);
    }

    [Theory]
    [InlineData("<script>alert(1)</script>")]
    [InlineData("a\u0000b\u202Ec")]
    public async Task Words_of_students_come_clean_and_as_text(string written)
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        var own = await juno.Do(PageDoing.Write, text: written, kind: ChatKind.Idea);
        own.Wrote.ShouldHaveSingleItem().Text.ShouldBe(CleanText.Of(written));
        (await juno.Refused(PageDoing.Write, text: string.Concat(Enumerable.Repeat("🌊", 600)), kind: ChatKind.Idea)).ShouldContain("500");
        (await juno.Refused(PageDoing.Write, text: "  ", kind: ChatKind.Idea)).ShouldContain("Write something");
        (await juno.Refused(PageDoing.Write, text: "x", kind: ChatKind.OffTask)).ShouldContain("an answer or an idea");
        var huge = await juno.Send(new PageAct(Guid.NewGuid(), PageDoing.Write, Text: string.Concat(Enumerable.Repeat("🌊", 10_000)), Kind: ChatKind.Idea));
        huge.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await juno.See()).Own.Wrote.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_message_stays_between_two_until_the_teacher_shows_it()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.In(room, passes["Eino"]);
        var message = (await juno.Do(PageDoing.Write, text: "why does it back?", kind: ChatKind.Question)).Wrote[0].Message;
        (await eino.See()).Lesson!.Said.ShouldBeEmpty();
        var line = (await room.Teacher.Get<ChatView>($"/api/lessons/{room.Lesson}/chat")).Messages.ShouldHaveSingleItem();
        (line.FromPage, line.Private, line.Proposal).ShouldBe((true, true, ChatKind.Question));
        await room.Tap(new MessageShown(message), new ChatSorted(message, ChatKind.Question));
        (await eino.See()).Lesson!.Said.ShouldHaveSingleItem().ShouldBe(new PageMessage(message, "Juno", ChatKind.Question, "why does it back?"));
        (await juno.See()).Own.Wrote[0].Shown.ShouldBeTrue();
        await room.Tap(new MessageShown(message, WithoutName: true), new BoardPut(BoardItem.Messages));
        (await eino.See()).Lesson!.Said.ShouldHaveSingleItem().Who.ShouldBeNull();
        (await room.Teacher.Http.GetStringAsync($"/api/lessons/{room.Lesson}/board")).ShouldNotContain("Juno");
        await room.Tap(new ChatHidden(message));
        (await eino.See()).Lesson!.Said.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_message_tells_in_which_stage_it_was_written()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        var plan = await room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");
        var stages = new[] { new PlannedStage(Guid.NewGuid(), "Readings", Duration.FromMinutes(8)), new PlannedStage(Guid.NewGuid(), "In pairs", Duration.FromMinutes(15)) };
        await room.Teacher.Put<PlanStored>($"/api/lessons/{room.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan { Stages = stages }));
        await juno.Do(PageDoing.Write, text: "why does it back?", kind: ChatKind.Question);
        await room.Tap(new StageMoved(stages[1].Id));
        await juno.Do(PageDoing.Write, text: "and here?", kind: ChatKind.Question);
        (await room.Teacher.Get<ChatView>($"/api/lessons/{room.Lesson}/chat")).Messages.Select(m => m.Stage).ShouldBe(["Readings", "In pairs"]);
    }

    [Fact]
    public async Task A_signal_is_taken_at_any_time_if_the_class_allows_it_and_stands_on_the_row()
    {
        var (room, passes) = await Taught();
        var rules = await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(rules.Rules with { SignalsAnyTime = true }));
        using var juno = await Pupil.In(room, passes["Juno"]);
        (await juno.See()).Lesson!.Signals.ShouldBe(["yes", "no", "not sure"]);
        await juno.Do(PageDoing.Signal, text: "not sure");
        var row = (await room.Sheet()).Rows.Single(r => r.Called == "Juno");
        (row.Signal!.What, row.Whereabouts).ShouldBe(("not sure", Whereabouts.Here));
        (await room.Sheet()).Head.Signals.ShouldBeEmpty("it belongs to no round");
    }

    [Fact]
    public async Task Whoever_has_the_word_hands_on_to_somebody_who_is_here_if_the_class_allows_it()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.In(room, passes["Eino"]);
        await room.Tap(new Marked(room.Students["Eino"], Mark.Here), new Called(room.Students["Juno"], TurnOrigin.Invited));
        (await juno.See()).Own.MayHandOnTo.ShouldBeNull("the class leaves it to the teacher");
        (await Why(await juno.HandOn(room.Students["Eino"]))).ShouldContain("only the teacher");

        await SetRules(room, rules => rules with { StudentsHandOn = true });
        (await juno.See()).Own.MayHandOnTo!.ShouldHaveSingleItem().ShouldBe(new PageClassmate(room.Students["Eino"], "Eino"));
        (await eino.See()).Own.MayHandOnTo.ShouldBeNull("it is not his turn");
        (await Why(await eino.HandOn(room.Students["Juno"]))).ShouldContain("not your turn");

        (await Why(await juno.HandOn(room.Students["Zainab"]))).ShouldContain("not here any more");
        (await juno.HandOn(room.Students["Eino"])).EnsureSuccessStatusCode();
        var sheet = await room.Sheet();
        (sheet.Head.Turn!.Student, sheet.Head.Turn.Origin).ShouldBe((room.Students["Eino"], TurnOrigin.HandedOn));
        sheet.Rows.Single(r => r.Called == "Juno").Speaking.ShouldHaveSingleItem().Credit.ShouldBe(1);
        (await Why(await juno.HandOn(room.Students["Eino"]))).ShouldContain("not your turn");

        static Task<string> Why(HttpResponseMessage response) => response.Content.ReadAsStringAsync();
    }

    [Fact]
    public async Task A_signal_is_taken_while_a_statement_is_up()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        (await juno.Refused(PageDoing.Signal, text: "yes")).ShouldContain("No signal round");
        await room.Tap(new BoardPut(BoardItem.Statement, "Backing is anticlockwise."));
        (await juno.See()).Lesson!.Signals.ShouldBe(["yes", "no", "not sure"]);
        (await juno.Refused(PageDoing.Signal, text: "SECRET message to the sheet")).ShouldContain("not understood");
        (await juno.Do(PageDoing.Signal, text: "yes")).Signal.ShouldBe("yes");
        (await room.Sheet()).Head.Signals.ShouldHaveSingleItem().ShouldBe(new SignalSeen(room.Students["Juno"], "yes"));
    }

    [Fact]
    public async Task Whoever_cannot_answer_says_so_and_the_teacher_may_answer_for_them()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        var asking = await Open(room, Choice());
        (await juno.Do(PageDoing.CannotAnswer, asking)).Questions[0].Cannot.ShouldBeTrue();
        (await room.Sheet()).Head.Askings[0].Cannot.ShouldBe(1);
        await room.Tap(new QuestionClosed(asking), new AnswerGiven(room.Students["Juno"], asking, Chose(Backs)));
        var told = (await room.Teacher.Get<QuestionsView>($"/api/lessons/{room.Lesson}/questions")).Askings[0].Students.Single(s => s.Student == room.Students["Juno"]);
        (told.Answer, told.ByTeacher, told.Marks, told.Cannot).ShouldBe(("backs", true, 1m, false));
    }
}
