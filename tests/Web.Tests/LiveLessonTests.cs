using System.Net;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Course;
using PoliteTally.Core.Fairness;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Signals;
using PoliteTally.Store;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Mail;

namespace PoliteTally.Web.Tests;

public sealed class LiveLessonTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private async Task<Classroom> Room(params string[] here)
    {
        var room = await (await app.SignedIn()).Teach();
        if (here.Length > 0)
        {
            await room.Tap(here.Select(name => new Marked(room.Students[name], Mark.Here)));
        }

        return room;
    }

    private static Task<DrawMade> Draw(Classroom room, Guid? id = null, DrawManner manner = DrawManner.LeastHeard) =>
        room.Teacher.Post<DrawMade>($"/api/lessons/{room.Lesson}/draw", new DrawWanted(id ?? Guid.CreateVersion7(), manner));

    [Fact]
    public async Task A_draw_calls_somebody_who_is_here_and_can_speak_and_says_why()
    {
        var room = await Room("Juno", "Eino");
        await room.Tap(new SpeakingPaused(room.Students["Eino"], Paused: true));
        var drawn = await Draw(room);
        (drawn.Student, drawn.Why, drawn.Odds).ShouldBe((room.Students["Juno"], "not heard yet today", 1));
        var turn = (await room.Sheet()).Head.Turn!;
        (turn.Student, turn.Origin, turn.Why).ShouldBe((room.Students["Juno"], TurnOrigin.Drawn, "not heard yet today"));
    }

    [Fact]
    public async Task A_draw_asked_for_again_is_the_same_draw()
    {
        var room = await Room("Juno", "Eino", "Zainab");
        var id = Guid.CreateVersion7();
        var first = await Draw(room, id);
        var again = await Draw(room, id);
        (again.Student, again.Position).ShouldBe((first.Student, first.Position));
    }

    [Fact]
    public async Task Once_round_everybody_comes_once_before_anybody_twice()
    {
        var room = await Room("Juno", "Eino", "Zainab");
        var drawn = new List<Guid>();
        for (var i = 0; i < 3; i++)
        {
            drawn.Add((await Draw(room, manner: DrawManner.OnceRound)).Student);
            await room.Tap(new TurnTaken(drawn[^1], TurnOutcome.Full, TurnOrigin.Drawn));
        }

        drawn.Distinct().Count().ShouldBe(3);
    }

    [Fact]
    public async Task With_nobody_here_there_is_nobody_to_draw()
    {
        var room = await Room();
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/draw", new DrawWanted(Guid.CreateVersion7(), DrawManner.LeastHeard)))
            .StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Groups_are_proposed_by_the_wishes_of_the_plan_and_nothing_is_stored_until_they_are_noted()
    {
        var room = await Room("Juno", "Eino", "Zainab");
        var (juno, eino) = (room.Students["Juno"], room.Students["Eino"]);
        var plan = await room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");
        await room.Teacher.Put<PlanStored>(
            $"/api/lessons/{room.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan { Apart = [new StudentSet(Guid.NewGuid(), [juno, eino])] }));
        for (var seed = 0; seed < 10; seed++)
        {
            var found = await Propose(new GroupsWanted([.. room.Students.Values], 2, null, seed));
            found.Groups.Count.ShouldBe(2);
            found.Groups.ShouldAllBe(g => !(g.Contains(juno) && g.Contains(eino)));
            found.Joined.ShouldBeEmpty();
        }

        (await Propose(new GroupsWanted([juno, eino], 1, null, 1))).Joined.ShouldHaveSingleItem();
        (await Propose(new GroupsWanted([.. room.Students.Values], null, 2, 1))).Groups.Count.ShouldBe(2);
        (await room.Sheet()).Head.Groups.ShouldBeEmpty();

        Task<GroupsProposed> Propose(GroupsWanted wanted) => room.Teacher.Post<GroupsProposed>($"/api/lessons/{room.Lesson}/groups/propose", wanted);
    }

    [Theory]
    [InlineData(0, null)]
    [InlineData(null, null)]
    [InlineData(2, 2)]
    [InlineData(61, null)]
    public async Task Groups_that_cannot_be_made_are_refused(int? count, int? size)
    {
        var room = await Room("Juno");
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/groups/propose", new GroupsWanted([room.Students["Juno"]], count, size, 1)))
            .StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Groups_of_an_earlier_lesson_are_remembered_and_their_pairs_counted()
    {
        var room = await Room("Juno", "Eino", "Zainab");
        await room.Tap(new GroupsMade([new StudentGroup(Guid.NewGuid(), "Gulls", [.. room.Students.Values])]), new GroupsDissolved());
        (await room.Teacher.Get<List<GroupsBefore>>($"/api/lessons/{room.Lesson}/groups/before")).ShouldHaveSingleItem().Groups[0].Name.ShouldBe("Gulls");
        await room.Tap(new LessonEnded());
        var next = await room.Teacher.Post<LessonLine>($"/api/classes/{room.Class}/lessons", new LessonNow("Spring and neap", 50));
        var before = await room.Teacher.Get<List<GroupsBefore>>($"/api/lessons/{next.Id}/groups/before");
        before.ShouldHaveSingleItem().LessonId.ShouldBe(room.Lesson);
        (await room.Teacher.Post<GroupsProposed>($"/api/lessons/{next.Id}/groups/propose", new GroupsWanted([.. room.Students.Values], 1, null, 1))).Repeats.ShouldBe(3);
    }

    [Fact]
    public async Task The_missing_get_a_message_with_the_way_in_once_and_every_attempt_is_noted()
    {
        var room = await Room("Juno");
        var juno = room.Students["Juno"];
        foreach (var (name, student) in room.Students)
        {
            (await room.Teacher.Put($"/api/classes/{room.Class}/students/{student}", new StudentRecord(
                null, name, name, null, $"{name}@pupils.skerrysound.example", $"home.{name}@skerrysound.example", "01632 960 117", null, true)))
                .IsSuccessStatusCode.ShouldBeTrue();
        }

        var view = await room.Teacher.Get<ReachingView>($"/api/lessons/{room.Lesson}/reaching");
        view.Missing.Select(m => m.Called).Order().ShouldBe(["Eino", "Zainab"]);
        view.Missing.ShouldAllBe(m => m.Addresses.Count == 2 && m.Phone == "01632 960 117");
        var one = new ReachOne(Guid.CreateVersion7(), room.Students["Eino"]);
        // Twice at the same time, from two windows, and once more because the answer got lost.
        var message = new ReachOut([one], view.Subject, view.Text);
        await Task.WhenAll(Enumerable.Range(0, 2).Select(_ => room.Teacher.Post<ReachingView>($"/api/lessons/{room.Lesson}/reaching", message)));
        view = await room.Teacher.Post<ReachingView>($"/api/lessons/{room.Lesson}/reaching", message);

        view.Missing.Single(m => m.Called == "Eino").Attempts.ShouldHaveSingleItem().Outcome.ShouldBe(ContactOutcome.Sent);
        var sent = (await room.Teacher.Get<List<OutboxLine>>("/api/outbox")).Where(m => m.To.StartsWith("Eino")).ShouldHaveSingleItem();
        sent.To.ShouldBe("Eino@pupils.skerrysound.example, home.Eino@skerrysound.example");
        sent.Text.ShouldContain("has begun");
        sent.Text.ShouldNotContain("{");

        await room.Tap(new ContactTried(room.Students["Eino"], ContactChannel.Phone, ContactOutcome.Reached, "the router"), new LessonEnded());
        var next = await room.Teacher.Post<LessonLine>($"/api/classes/{room.Class}/lessons", new LessonNow("Spring and neap", 50));
        var later = await room.Teacher.Get<ReachingView>($"/api/lessons/{next.Id}/reaching");
        later.Missing.Single(m => m.Called == "Eino").Earlier.ShouldHaveSingleItem().Outcome.ShouldBe(ContactOutcome.Reached);
        later.Missing.Single(m => m.Student == juno).Earlier.ShouldBeEmpty();
    }

    [Fact]
    public async Task After_the_lesson_whoever_was_missing_is_written_to_and_an_excuse_settles_it()
    {
        var room = await Room("Juno");
        await room.Tap(new LessonEnded());
        var view = await room.Teacher.Get<ReachingView>($"/api/lessons/{room.Lesson}/reaching");
        view.Missing.Select(m => m.Called).ShouldBe(["Eino", "Zainab"], ignoreOrder: true);
        view.Missing.ShouldAllBe(m => m.Stands.StartsWith("absent"));
        view.Text.ShouldContain("we missed you");

        // A settled lesson takes a call of the next day, and nothing that changes a figure.
        await room.Tap(new LessonSettled());
        (await room.Tap(new ContactTried(room.Students["Eino"], ContactChannel.Phone, ContactOutcome.Reached, "the router"))).Refused.ShouldBeEmpty();
        (await room.Tap(new ExcuseRecorded(room.Students["Eino"], "the router"))).Refused.ShouldHaveSingleItem().Why.ShouldContain("settled");
        var entry = (await room.Teacher.Get<ReachingView>($"/api/lessons/{room.Lesson}/reaching")).Missing.Single(m => m.Called == "Eino");
        entry.Attempts.ShouldHaveSingleItem().Note.ShouldBe("the router");
        Summaries.Check(app.File).ShouldBeEmpty();

        // An excuse that comes later opens the lesson again.
        await room.Tap(new Struck((await room.Settling()).SettledBy!.Value));
        await room.Tap(new ExcuseRecorded(room.Students["Zainab"], "dentist"));
        (await room.Teacher.Get<ReachingView>($"/api/lessons/{room.Lesson}/reaching")).Missing.Select(m => m.Called).ShouldBe(["Eino"]);
    }

    [Theory]
    [InlineData("", "text")]
    [InlineData("subject", "")]
    [InlineData("subject", "hello {stranger}")]
    public async Task A_message_that_says_nothing_does_not_go(string subject, string text)
    {
        var room = await Room();
        var sent = new ReachOut([new ReachOne(Guid.CreateVersion7(), room.Students["Juno"])], subject, text);
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/reaching", sent)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await room.Sheet()).Rows.ShouldAllBe(r => r.Contacts == 0);
    }

    [Fact]
    public async Task A_roll_call_can_be_looked_at_for_any_moment_and_as_a_file()
    {
        var room = await Room("Juno");
        var then = Classroom.Now;
        using var meeting = await Meeting.Of(room);
        // A moment after `then` that has been: in the future of a quick machine nobody is here yet.
        SpinWait.SpinUntil(() => Classroom.Now > then);
        await meeting.Tell(meeting.Event("joined", new { name = "Eino Rautio" }));
        string Told(RollCallView view) => string.Join(' ', view.Lines.Select(l => $"{l.Called}:{l.Whereabouts}"));
        Told(await room.Teacher.Get<RollCallView>($"/api/lessons/{room.Lesson}/roll-call?at={then.ToUnixTimeMilliseconds()}"))
            .ShouldBe("Juno:Here Eino:Missing Zainab:Missing");
        Told(await room.Teacher.Get<RollCallView>($"/api/lessons/{room.Lesson}/roll-call")).ShouldBe("Juno:Here Eino:Here Zainab:Missing");
        var file = await room.Teacher.Http.GetStringAsync($"/api/lessons/{room.Lesson}/roll-call.csv");
        file.ShouldContain("Time,Student number,Family name,Called,Status,How it is known");
        file.ShouldContain("S1,Quillfeather,Juno,here,");
        foreach (var wrong in new[] { "-1", $"{(Classroom.Now + Duration.FromHours(1)).ToUnixTimeMilliseconds()}", "99999999999999" })
        {
            (await room.Teacher.Http.GetAsync($"/api/lessons/{room.Lesson}/roll-call?at={wrong}")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, wrong);
        }
    }

    [Fact]
    public async Task Stages_and_points_of_a_changed_plan_are_in_the_lesson_at_once()
    {
        var room = await Room("Juno");
        var stages = new[] { new PlannedStage(Guid.NewGuid(), "Readings", Duration.FromMinutes(8)), new PlannedStage(Guid.NewGuid(), "In pairs", Duration.FromMinutes(15)) };
        var plan = await room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");
        await room.Teacher.Put<PlanStored>($"/api/lessons/{room.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan { Stages = stages }));
        (await room.Sheet()).Head.Plan.Stage!.Index.ShouldBe(0);
        await room.Tap(new StageMoved(stages[1].Id), new StageExtended(stages[1].Id, Duration.FromMinutes(5)));
        var on = (await room.Sheet()).Head.Plan.Stage!;
        (on.Index, on.Extended, on.To - on.From).ShouldBe((1, 5, Duration.FromMinutes(20)));
    }

    [Fact]
    public async Task Everything_tapped_can_be_struck_messagebut_the_course_of_the_lesson()
    {
        var room = await Room("Juno");
        await room.Tap(new RollCallTaken([room.Students["Juno"]]), new TimerStarted(Duration.FromSeconds(60), ""), new BoardPut(BoardItem.Timer), new GroupsDissolved());
        var entries = (await room.Sheet()).Head.LastEntries;
        entries.Where(e => !e.CanStrike).ShouldHaveSingleItem().Text.ShouldBe("Lesson started");
        await room.Tap(entries.Where(e => e.CanStrike).Select(e => new Struck(e.Id)));
        var sheet = await room.Sheet();
        (sheet.Head.Timers.Count, sheet.Head.Board.Count).ShouldBe((0, 0));
        sheet.Rows.ShouldAllBe(r => r.Whereabouts == Whereabouts.Missing);
    }

    [Theory]
    [InlineData("full", "F2", 200)]
    [InlineData("full", "x", 422)]
    [InlineData("full", "Escape", 422)]
    [InlineData("full", "", 422)]
    public async Task Keys_can_be_changed_but_for_those_that_pick_students(string name, string key, int status)
    {
        var teacher = await app.SignedIn("odhran");
        var keys = new LiveKeys(new Dictionary<string, string> { [name] = key });
        ((int)(await teacher.Put("/api/live-keys", keys)).StatusCode).ShouldBe(status);
        if (status == 200)
        {
            (await teacher.Get<LiveKeys>("/api/live-keys")).Changed[name].ShouldBe(key);
        }
    }

    [Fact]
    public async Task One_key_does_one_thing() => (await (await app.SignedIn()).Put(
        "/api/live-keys", new LiveKeys(new Dictionary<string, string> { ["full"] = "F2", ["pass"] = "F2" }))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

    [Fact]
    public async Task Only_the_demo_school_has_a_meeting_that_plays_itself()
    {
        var room = await Room();
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/play", new Features.Feed.PlaySpeed(20))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task What_the_lesson_knows_is_there_after_a_restart()
    {
        var room = await Room("Juno", "Eino");
        var group = Guid.NewGuid();
        await room.Tap(
            new GroupsMade([new StudentGroup(group, "Gulls", [room.Students["Juno"]])]), new GroupJoined(room.Students["Eino"], group), new SatIn(room.Students["Juno"], group, Contribution.Some),
            new TimerStarted(Duration.FromSeconds(600), "Read your glass"), new BoardPut(BoardItem.Timer), new AsideNoted(room.Students["Eino"], "line bad again"),
            new SignalRoundHeld("Fog is a cloud.", [room.Students["Juno"]], [room.Students["Eino"]]));
        var before = await room.Sheet();
        await app.Restart();
        var after = await (room with { Teacher = await app.SignedIn() }).Sheet();
        (after.Head with { Now = before.Head.Now }).ShouldBeEquivalentTo(before.Head);
        after.Rows.ShouldBeEquivalentTo(before.Rows);
    }
}
