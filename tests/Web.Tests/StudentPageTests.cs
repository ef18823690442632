using System.Net;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Page;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Text;
using PoliteTally.Web.Features.Board;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Features.Questions;
using PoliteTally.Web.Features.StudentPage;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Tests;

public sealed class StudentPageTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly Guid Backs = Guid.NewGuid(), Veers = Guid.NewGuid();

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

    private static Answer Chose(Guid option) => new() { Options = [option] };

    private static async Task SetRules(Classroom room, Func<Core.GroundRules.ClassRules, Core.GroundRules.ClassRules> change)
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

    [Fact]
    public async Task With_a_name_one_waits_until_the_teacher_says_who_it_is()
    {
        var (room, _) = await Taught();
        using var somebody = await Pupil.Before(room);
        (await somebody.Enter(null, "Juno Quillfeather")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await SetRules(room, rules => rules with { PageByName = true });
        var view = await Visitor.Read<PageView>(await somebody.Enter(null, "Juno\u202E Q"));
        (view.Own.Standing, view.Own.Called).ShouldBe((PageStanding.Waiting, "Juno Q"));
        (await somebody.Refused(PageDoing.RaiseHand)).ShouldContain("let you in");
        // Even a name that the meeting has matched to a student opens nothing by itself.
        using var meeting = await Meeting.Of(room);
        await meeting.Tell(meeting.Event("joined", new { name = "Juno Q" }));
        await room.Tap(new NameMatched("Juno Q", room.Students["Juno"]));
        (await somebody.See()).Own.Standing.ShouldBe(PageStanding.Waiting);

        var caller = (await room.Sheet()).Head.Callers.ShouldHaveSingleItem();
        // Sure is only who gives a name that leaves no doubt, and no two who give one name.
        (caller.Sure, caller.Proposals).ShouldSatisfyAllConditions(c => c.Proposals.ShouldBe([room.Students["Juno"]]));
        using var eino = await Pupil.Before(room);
        await eino.Enter(null, "Eino Rautio");
        (await room.Sheet()).Head.Callers.Single(c => c.Name == "Eino Rautio").Sure.ShouldBe(room.Students["Eino"]);
        using var other = await Pupil.Before(room);
        await other.Enter(null, "Eino Rautio");
        var twice = (await room.Sheet()).Head.Callers.Where(c => c.Name == "Eino Rautio").ToList();
        twice.Count.ShouldBe(2);
        twice.ShouldAllBe(c => c.Sure == null);
        await room.Tap(twice.Select(c => (Act)new PageAdmitted(c.Session, null)));
        await room.Tap(new PageAdmitted(caller.Session, room.Students["Juno"]));
        (await somebody.See()).Own.Standing.ShouldBe(PageStanding.In);
        (await somebody.Do(PageDoing.RaiseHand)).Hand.ShouldNotBeNull();
        (await room.Sheet()).Head.Callers.ShouldBeEmpty();
    }

    [Fact]
    public async Task Who_is_turned_away_stays_out()
    {
        var (room, _) = await Taught();
        await SetRules(room, rules => rules with { PageByName = true });
        using var somebody = await Pupil.Before(room);
        await Visitor.Read<PageView>(await somebody.Enter(null, "harbour-office-3"));
        await room.Tap(new PageAdmitted((await room.Sheet()).Head.Callers[0].Session, null));
        (await somebody.See()).Own.Standing.ShouldBe(PageStanding.TurnedAway);
        (await somebody.Refused(PageDoing.RaiseHand)).ShouldContain("let you in");
    }

    [Fact]
    public async Task With_the_code_alone_no_name_and_no_word_of_the_lesson_is_to_be_had()
    {
        var (room, _) = await Taught();
        using var somebody = await Pupil.Before(room);
        (await somebody.Http.GetStringAsync($"/api/page/{somebody.Code}/door")).ShouldBe("""{"byName":false}""");
        (await somebody.Http.GetAsync($"/api/page/{somebody.Code}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_session_that_was_ended_opens_nothing_and_neither_does_the_pass_of_another_class()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        var way = await room.Teacher.Get<WayIn>($"/api/lessons/{room.Lesson}/way-in");
        var page = way.Pages[^1];
        page.Student.ShouldBe(room.Students["Juno"]);
        (await room.Teacher.Http.DeleteAsync($"/api/lessons/{room.Lesson}/pages/{page.Session}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await juno.Http.GetAsync($"/api/page/{juno.Code}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await juno.Send(new PageAct(Guid.NewGuid(), PageDoing.RaiseHand))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        // The pass of a student of another teacher.
        var others = await Pupil.Passes(await (await app.SignedIn("odhran")).Teach());
        using var foreign = await Pupil.Before(room);
        (await foreign.Enter(others["Juno"])).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task With_a_new_pass_whoever_came_in_with_the_old_one_is_out()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.In(room, passes["Eino"]);
        await room.Teacher.Post<List<PassSlip>>($"/api/classes/{room.Class}/passes", new PassesWanted([room.Students["Juno"]]));
        (await juno.Http.GetAsync($"/api/page/{juno.Code}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await eino.Do(PageDoing.RaiseHand)).Hand.ShouldNotBeNull();
        (await room.Teacher.Http.DeleteAsync($"/api/classes/{room.Class}/students/{room.Students["Eino"]}/pass")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await eino.Http.GetAsync($"/api/page/{eino.Code}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_lesson_that_is_over_takes_nothing_more()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.Before(room);
        await room.Tap(new LessonEnded());
        (await juno.Refused(PageDoing.RaiseHand)).ShouldContain("over");
        (await eino.Enter(passes["Eino"])).StatusCode.ShouldBe(HttpStatusCode.Gone);
        (await juno.See()).Lesson!.Stage.ShouldBe(Store.Model.LessonStage.Ended);
    }

    [Fact]
    public async Task Whoever_guesses_passes_is_told_on_to_the_teacher()
    {
        var (room, _) = await Taught();
        using var guesser = await Pupil.Before(room);
        for (var i = 0; i < GuessWatch.ToldFrom; i++)
        {
            (await guesser.Enter($"bobo-bobo-bobo{(char)('a' + i)}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        }

        (await room.Sheet()).Head.Tries.Wrong.ShouldBe(GuessWatch.ToldFrom);
    }

    [Fact]
    public async Task Two_devices_are_one_student_and_both_hear_of_it()
    {
        var (room, passes) = await Taught();
        using var laptop = await Pupil.In(room, passes["Juno"]);
        using var phone = await Pupil.In(room, passes["Juno"]);
        var heard = new TaskCompletionSource<PageOwn>();
        await using var hub = new HubConnectionBuilder().WithUrl($"{room.Teacher.Http.BaseAddress}page/live", options => options.Cookies = phone.Cookies)
            .AddJsonProtocol(json => JsonFormat.Configure(json.PayloadSerializerOptions)).Build();
        hub.On<PageOwn>("own", own =>
        {
            if (own.Hand is not null)
            {
                heard.TrySetResult(own);
            }
        });
        await hub.StartAsync();
        await hub.InvokeAsync("Watch", phone.Code);
        await laptop.Do(PageDoing.RaiseHand);
        await laptop.Do(PageDoing.RaiseHand);
        (await heard.Task.WaitAsync(TimeSpan.FromSeconds(10))).Hand.ShouldBe(new PageHand(1, 1, false, false));
        (await room.Sheet()).Head.Hands.Count.ShouldBe(1);
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Page.ShouldBeTrue();
    }

    [Fact]
    public async Task Fifty_windows_of_one_student_are_one_student_and_each_of_them_hears()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        var heard = new CountdownEvent(50);
        var windows = new List<HubConnection>();
        for (var i = 0; i < 50; i++)
        {
            var hub = new HubConnectionBuilder().WithUrl($"{room.Teacher.Http.BaseAddress}page/live", options => options.Cookies = juno.Cookies)
                .AddJsonProtocol(json => JsonFormat.Configure(json.PayloadSerializerOptions)).Build();
            var first = true;
            hub.On<PageOwn>("own", own =>
            {
                if (own.Hand is not null && first)
                {
                    first = false;
                    heard.Signal();
                }
            });
            await hub.StartAsync();
            await hub.InvokeAsync("Watch", juno.Code);
            windows.Add(hub);
        }

        await juno.Do(PageDoing.RaiseHand);
        heard.Wait(TimeSpan.FromSeconds(20)).ShouldBeTrue();
        await using (var db = app.File.Open(Guid.Empty))
        {
            var opened = db.Entries.IgnoreQueryFilters().Where(e => e.LessonId == room.Lesson).AsEnumerable().Count(e => e.Act.Contains("pageOpened"));
            opened.ShouldBe(1);
        }

        foreach (var window in windows)
        {
            await window.DisposeAsync();
        }
    }

    [Fact]
    public async Task When_two_records_of_a_student_become_one_a_page_that_is_open_goes_on_with_it()
    {
        var (room, passes) = await Taught();
        using var eino = await Pupil.In(room, passes["Eino"]);
        var asking = await Open(room, Choice());
        await eino.Do(PageDoing.Answer, asking, Chose(Backs));
        await room.Teacher.Post<Renewed>($"/api/classes/{room.Class}/students/{room.Students["Eino"]}/merge", new MergeInto(room.Students["Zainab"]));

        var own = (await eino.See()).Own;
        own.Called.ShouldBe("Zainab");
        own.Questions.ShouldHaveSingleItem().Answer!.Options.ShouldBe([Backs]);
        (await eino.Do(PageDoing.RaiseHand)).Hand.ShouldBe(new PageHand(1, 1, false, false));
        var sheet = await room.Sheet();
        sheet.Rows.Select(r => r.Called).ShouldBe(["Juno", "Zainab"], ignoreOrder: true);
        sheet.Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(room.Students["Zainab"]);
    }

    [Fact]
    public async Task A_page_without_a_session_hears_nothing()
    {
        var (room, _) = await Taught();
        using var somebody = await Pupil.Before(room);
        await using var hub = new HubConnectionBuilder().WithUrl($"{room.Teacher.Http.BaseAddress}page/live", options => options.Cookies = somebody.Cookies).Build();
        await hub.StartAsync();
        (await Should.ThrowAsync<Exception>(() => hub.InvokeAsync("Watch", somebody.Code))).Message.ShouldContain("closed");
    }

    [Fact]
    public async Task With_a_students_session_every_endpoint_but_those_of_the_page_is_closed()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var description = JsonDocument.Parse(await juno.Http.GetStringAsync("/openapi/v1.json"));
        string[] open = ["/api/session", "/api/session/demo", "/api/accounts"];
        var walked = 0;
        foreach (var path in description.RootElement.GetProperty("paths").EnumerateObject().Where(p => !open.Contains(p.Name) && !p.Name.StartsWith("/api/page", StringComparison.Ordinal)))
        {
            foreach (var method in path.Value.EnumerateObject())
            {
                var address = path.Name.Replace("/lessons/{id}", $"/lessons/{room.Lesson}").Replace("/classes/{id}", $"/classes/{room.Class}").Replace("{student}", $"{room.Students["Eino"]}");
                address = System.Text.RegularExpressions.Regex.Replace(address, @"\{[^}]+\}", Guid.NewGuid().ToString());
                var request = new HttpRequestMessage(new HttpMethod(method.Name.ToUpperInvariant()), address);
                if (method.Name is "post" or "put")
                {
                    request.Content = new StringContent("{}", Encoding.UTF8, "application/json");
                }

                var response = await juno.Http.SendAsync(request);
                response.IsSuccessStatusCode.ShouldBeFalse($"{method.Name} {address}");
                walked++;
            }
        }

        walked.ShouldBeGreaterThan(60);
    }

    [Fact]
    public async Task Whoever_only_typed_a_name_sees_nothing_but_that_they_wait_or_were_not_let_in()
    {
        var (room, passes) = await Taught();
        await SetRules(room, r => r with { PageByName = true });
        using var juno = await Pupil.In(room, passes["Juno"]);
        await juno.Do(PageDoing.RaiseHand);
        await room.Tap(new BoardPut(BoardItem.HandLine), new BoardPut(BoardItem.Turn), new Called(room.Students["Juno"], Core.Hands.TurnOrigin.Hand));
        using var stranger = await Pupil.Before(room);
        await Visitor.Read<PageView>(await stranger.Enter(null, "harbour-office-3"));
        foreach (var standing in new[] { PageStanding.Waiting, PageStanding.TurnedAway })
        {
            var text = await stranger.Http.GetStringAsync($"/api/page/{stranger.Code}");
            text.ShouldNotContain("Juno");
            text.ShouldNotContain("Why the wind backs");
            (await stranger.See()).Own.Standing.ShouldBe(standing);
            await room.Tap(new PageAdmitted((await room.Sheet()).Head.Callers is [var caller, ..] ? caller.Session : Guid.Empty, null));
        }
    }

    [Fact]
    public async Task Knocking_by_name_has_a_limit_and_the_teacher_is_told_once()
    {
        var (room, _) = await Taught();
        await SetRules(room, r => r with { PageByName = true });
        var answers = new List<HttpStatusCode>();
        for (var i = 0; i < 150; i++)
        {
            using var stranger = await Pupil.Before(room);
            answers.Add((await stranger.Enter(null, $"stranger {i}")).StatusCode);
        }

        answers.Count(a => a == HttpStatusCode.OK).ShouldBeLessThanOrEqualTo(40);
        answers[^1].ShouldBe(HttpStatusCode.TooManyRequests);
        (await room.Sheet()).Head.Callers.Count.ShouldBeLessThanOrEqualTo(40);
    }

    [Fact]
    public async Task Sessions_that_open_nothing_any_more_are_tidied_up_and_a_made_up_cookie_is_not_known()
    {
        var (room, passes) = await Taught();
        using var juno = await Pupil.In(room, passes["Juno"]);
        using var eino = await Pupil.In(room, passes["Eino"]);
        await juno.See();
        var sessions = app.Part<PageSessions>();
        sessions.Knows(juno.Cookies.GetAllCookies().Single(c => c.Name == PageSessions.Cookie).Value).ShouldBeTrue();
        sessions.Knows("made up").ShouldBeFalse();
        await juno.Http.PostAsync($"/api/page/{juno.Code}/leave", null, TestContext.Current.CancellationToken);
        await using var db = app.File.Open(Guid.Empty);
        await db.PageSessions.IgnoreQueryFilters().Where(s => s.EndedAt != null)
            .ExecuteUpdateAsync(set => set.SetProperty(s => s.EndedAt, Classroom.Now - NodaTime.Duration.FromDays(8)), TestContext.Current.CancellationToken);
        await sessions.TidyUp();
        (await db.PageSessions.IgnoreQueryFilters().CountAsync(s => s.EndedAt != null, TestContext.Current.CancellationToken)).ShouldBe(0);
        (await eino.See()).Own.Standing.ShouldBe(PageStanding.In);
    }
}
