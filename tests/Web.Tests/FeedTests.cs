using System.Net;
using System.Text;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Feed;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Tests;

public sealed class FeedTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private async Task<(Classroom Room, Meeting Meeting)> Connected()
    {
        var room = await (await app.SignedIn()).Teach();
        return (room, await Meeting.Of(room));
    }

    private static LiveRow Row(LiveView sheet, string called) => sheet.Rows.Single(r => r.Called == called);

    [Fact]
    public async Task Who_joins_is_here_and_who_leaves_is_gone()
    {
        var (room, meeting) = await Connected();
        (await meeting.Tell(meeting.Event("joined", new { name = "Juno Quillfeather", device = "laptop" }), meeting.Event("joined", new { name = "Juno Quillfeather", device = "phone" })))
            .ShouldBe(new FeedAnswer(2, []), new SameAnswer());
        Row(await room.Sheet(), "Juno").Whereabouts.ShouldBe(Whereabouts.Here);
        await meeting.Tell(meeting.Event("left", new { name = "Juno Quillfeather", device = "phone" }));
        Row(await room.Sheet(), "Juno").Whereabouts.ShouldBe(Whereabouts.Here);
        await meeting.Tell(meeting.Event("left", new { name = "Juno Quillfeather", device = "laptop" }));
        Row(await room.Sheet(), "Juno").Whereabouts.ShouldBe(Whereabouts.Left);
    }

    [Fact]
    public async Task An_event_sent_again_counts_once_and_the_order_does_not_matter()
    {
        var (room, meeting) = await Connected();
        var now = Classroom.Now;
        object[] events =
        [
            meeting.Event("message", new { name = "Juno Quillfeather", text = "why does it veer?" }, now),
            meeting.Event("joined", new { name = "Juno Quillfeather" }, now - Duration.FromSeconds(20)),
            meeting.Event("hand-raised", new { name = "Eino Rautio" }, now - Duration.FromSeconds(5)),
            meeting.Event("hand-raised", new { name = "Juno Quillfeather" }, now - Duration.FromSeconds(9)),
        ];
        await meeting.Tell(events);
        var position = (await room.Sheet()).Head.Position;
        (await meeting.Tell(events.Reverse())).Accepted.ShouldBe(4);
        var sheet = await room.Sheet();
        sheet.Head.Position.ShouldBe(position);
        sheet.Head.Hands.Select(h => h.Student).ShouldBe([room.Students["Juno"], room.Students["Eino"]]);
        sheet.Head.ChatWaiting.ShouldBe(1);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Two_of_one_name_are_two_at_the_door_and_neither_is_sure_by_the_name(bool atOnce)
    {
        var (room, meeting) = await Connected();
        object[] both =
        [
            meeting.Event("joined", new { name = "Juno Quillfeather", email = "north@skerrysound.example" }),
            meeting.Event("joined", new { name = "Juno Quillfeather", email = "south@skerrysound.example" }),
        ];
        foreach (var batch in atOnce ? [both] : both.Chunk(1))
        {
            (await meeting.Tell(batch)).Refused.ShouldBeEmpty();
        }

        // One who came alone was known by the name; the second of it is nobody's until somebody says so.
        var door = (await room.Sheet()).Head.Door;
        door.Select(d => d.Beside).ShouldBe(atOnce ? ["north@skerrysound.example", "south@skerrysound.example"] : ["south@skerrysound.example"]);
        door[^1].Proposals.ShouldBe([room.Students["Juno"]]);
        await room.Tap(new NameMatched("Juno Quillfeather", room.Students["Zainab"]) { Beside = "south@skerrysound.example" });
        Row(await room.Sheet(), "Zainab").Whereabouts.ShouldBe(Whereabouts.Here);
    }

    [Fact]
    public async Task A_name_that_is_nobody_s_waits_at_the_door_with_its_hand_until_one_press_says_whose_it_is()
    {
        var (room, meeting) = await Connected();
        await meeting.Tell(meeting.Event("joined", new { name = "galaxy tab 7" }), meeting.Event("hand-raised", new { name = "galaxy tab 7" }));
        var before = await room.Sheet();
        before.Head.Door.ShouldHaveSingleItem().Name.ShouldBe("galaxy tab 7");
        before.Head.Hands.ShouldHaveSingleItem().Stranger.ShouldBe("galaxy tab 7");

        var word = await room.Tap(new NameMatched("galaxy tab 7", room.Students["Eino"]));
        var after = await room.Sheet();
        after.Head.Door.ShouldBeEmpty();
        after.Head.Hands.ShouldHaveSingleItem().ShouldBe(before.Head.Hands[0] with { Student = room.Students["Eino"], Stranger = null });
        Row(after, "Eino").Whereabouts.ShouldBe(Whereabouts.Here);
        (await room.Teacher.Get<List<KnownNameLine>>($"/api/classes/{room.Class}/names")).ShouldHaveSingleItem().Student.ShouldBe(room.Students["Eino"]);

        // Taken back: at the door again, and forgotten.
        await room.Tap(new Struck(word.Accepted[0]));
        (await room.Sheet()).Head.Door.ShouldHaveSingleItem();
        (await room.Teacher.Get<List<KnownNameLine>>($"/api/classes/{room.Class}/names")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("Juno Quillfeather", "Juno", 0)]
    // Likely somebody: worth a question.
    [InlineData("Quillfeather", null, 1)]
    // A list of contacts holds the whole school, and none of them has knocked.
    [InlineData("galaxy tab 7", null, 0)]
    public async Task Who_is_only_to_be_seen_online_is_known_by_a_sure_name_and_knocks_only_if_they_may_be_of_the_class(string name, string? whose, int atTheDoor)
    {
        var (room, meeting) = await Connected();
        await meeting.Tell(meeting.Event("online", new { name, status = "online" }));
        var sheet = await room.Sheet();
        sheet.Rows.Where(r => r.Online is not null).Select(r => r.Called).ShouldBe(whose is null ? [] : [whose]);
        sheet.Head.Door.Count.ShouldBe(atTheDoor);
        // In the meeting, everybody who is not known knocks.
        await meeting.Tell(meeting.Event("joined", new { name }));
        (await room.Sheet()).Head.Door.Count.ShouldBe(whose is null ? 1 : 0);
    }

    [Fact]
    public async Task What_is_said_of_a_name_in_one_lesson_is_known_at_once_in_another_of_the_class()
    {
        var (monday, meeting) = await Connected();
        await meeting.Tell(meeting.Event("joined", new { name = "the Keeper" }));
        await monday.Tap(new LessonEnded());
        var second = await monday.Teacher.Post<LessonLine>($"/api/classes/{monday.Class}/lessons", new LessonNow("Springs and neaps", 50));
        var tuesday = monday with { Lesson = second.Id };
        using var elsewhere = await Meeting.Of(tuesday);
        await elsewhere.Tell(elsewhere.Event("joined", new { name = "the Keeper" }));
        (await tuesday.Sheet()).Head.Door.ShouldHaveSingleItem();

        await monday.Tap(new NameMatched("the Keeper", monday.Students["Eino"]));
        (await tuesday.Settling()).Names.ShouldHaveSingleItem().Student.ShouldBe(monday.Students["Eino"]);
        await elsewhere.Tell(elsewhere.Event("hand-raised", new { name = "the Keeper" }));
        (await tuesday.Sheet()).Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(monday.Students["Eino"]);
    }

    [Fact]
    public async Task A_device_without_an_owner_is_asked_about_again_in_each_lesson_with_last_time_s_answer_first()
    {
        var (monday, meeting) = await Connected();
        await meeting.Tell(meeting.Event("joined", new { name = "galaxy tab 7" }));
        await monday.Tap(new LessonEnded());
        var second = await monday.Teacher.Post<LessonLine>($"/api/classes/{monday.Class}/lessons", new LessonNow("Springs and neaps", 50));
        var tuesday = monday with { Lesson = second.Id };
        using var elsewhere = await Meeting.Of(tuesday);
        await elsewhere.Tell(elsewhere.Event("joined", new { name = "galaxy tab 7" }));
        (await tuesday.Sheet()).Head.Door.ShouldHaveSingleItem();

        await monday.Tap(new NameMatched("galaxy tab 7", monday.Students["Eino"]));
        (await tuesday.Settling()).Names.ShouldHaveSingleItem().Certainty.ShouldBe(Core.Names.Certainty.Likely);
        await elsewhere.Tell(elsewhere.Event("hand-raised", new { name = "galaxy tab 7" }));
        var door = (await tuesday.Sheet()).Head.Door.ShouldHaveSingleItem();
        (door.Name, door.Proposals[0]).ShouldBe(("galaxy tab 7", monday.Students["Eino"]));
    }

    [Fact]
    public async Task Not_a_student_and_asked_later_are_remembered_too()
    {
        var (room, meeting) = await Connected();
        await meeting.Tell(meeting.Event("joined", new { name = "harbour-office-3" }), meeting.Event("joined", new { name = "Mum (Barney)" }));
        await room.Tap(new AskedLater("harbour-office-3"));
        (await room.Sheet()).Head.Door.Select(d => (d.Name, d.Later is not null)).ShouldBe([("Mum (Barney)", false), ("harbour-office-3", true)]);
        await room.Tap(new NameMatched("harbour-office-3", null));
        (await room.Sheet()).Head.Door.ShouldHaveSingleItem().Name.ShouldBe("Mum (Barney)");
        await meeting.Tell(meeting.Event("joined", new { name = "HARBOUR-office-3" }));
        (await room.Sheet()).Head.Door.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task A_match_taken_for_sure_and_struck_out_is_not_said_again()
    {
        var (room, meeting) = await Connected();
        await meeting.Tell(meeting.Event("joined", new { name = "Juno Q", number = "S1" }));
        var entry = await EntryOf(room, "Juno Q");
        await room.Tap(new Struck(entry));
        await meeting.Tell(meeting.Event("hand-raised", new { name = "Juno Q", number = "S1" }));
        (await room.Sheet()).Head.Door.ShouldHaveSingleItem().Name.ShouldBe("Juno Q");
    }

    [Fact]
    public async Task Ready_in_the_chat_joins_the_line_if_the_class_wishes_it()
    {
        var (room, meeting) = await Connected();
        await meeting.Tell(meeting.Event("hand-raised", new { name = "Eino Rautio" }), meeting.Event("message", new { name = "Juno Quillfeather", text = "Ready!" }));
        (await room.Sheet()).Head.Hands.Select(h => (h.Student, h.Ready)).ShouldBe([(room.Students["Eino"], false), (room.Students["Juno"], true)]);

        var rules = await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(rules.Rules with { ReadyJoinsLine = false }));
        await meeting.Tell(meeting.Event("message", new { name = "Zainab Usman", text = "ready" }));
        (await room.Sheet()).Head.Hands.Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_hand_that_the_program_lowers_stays_in_line()
    {
        var (room, meeting) = await Connected();
        await meeting.Tell(meeting.Event("hand-raised", new { name = "Juno Quillfeather" }));
        await meeting.Tell(meeting.Event("hand-lowered", new { name = "Juno Quillfeather" }));
        (await room.Sheet()).Head.Hands.ShouldHaveSingleItem().Lapsed.ShouldBeTrue();
        await meeting.Tell(meeting.Event("hand-lowered", new { name = "Juno Quillfeather", by = "student" }));
        (await room.Sheet()).Head.Hands.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("joined", """{"name":"Juno"}""", "2019-01-01T00:00:00Z", "outside the lesson")]
    [InlineData("joined", """{"name":"Juno"}""", "2099-01-01T00:00:00Z", "future")]
    [InlineData("danced", """{"name":"Juno"}""", null, "not a kind")]
    public async Task What_cannot_be_is_refused_by_name_and_the_rest_is_kept(string type, string data, string? time, string why)
    {
        var (room, meeting) = await Connected();
        var bad = $$"""{"specversion":"1.0","id":"bad","source":"urn:test","type":"polite-tally.{{type}}",{{(time is null ? "" : $"\"time\":\"{time}\",")}}"data":{{data}}}""";
        var good = """{"specversion":"1.0","id":"good","source":"urn:test","type":"polite-tally.joined","data":{"name":"Eino Rautio"}}""";
        var answer = await Visitor.Read<FeedAnswer>(await meeting.Http.PostAsync("/api/feed", new StringContent($"[{bad},{good}]", Encoding.UTF8, "application/cloudevents-batch+json")));
        answer.Accepted.ShouldBe(1);
        answer.Refused.ShouldHaveSingleItem().Id.ShouldBe("bad");
        answer.Refused[0].Why.ShouldContain(why);
        var head = (await room.Sheet()).Head;
        head.Feed.ShouldNotBeNull().Refused.ShouldBe(1);
        head.Feed!.Why!.ShouldContain(why);
    }

    [Fact]
    public async Task Texts_are_taken_as_texts()
    {
        var (room, meeting) = await Connected();
        var answer = await meeting.Tell(
            meeting.Event("message", new { name = "<img src=x onerror=alert(1)>", text = "<script>alert(1)</script>\u202E\u0007" }),
            meeting.Event("message", new { name = "Juno Quillfeather", text = new string('x', 2001) }, id: "huge"));
        answer.Refused.ShouldHaveSingleItem().ShouldBe(new Formats.EventProblem("huge", "The message is too long: at most 2000 characters."));
        var chat = await room.Teacher.Get<ChatView>($"/api/lessons/{room.Lesson}/chat");
        var line = chat.Messages.ShouldHaveSingleItem();
        (line.Who, line.Text).ShouldBe(("<img src=x onerror=alert(1)>", "<script>alert(1)</script>"));
    }

    [Fact]
    public async Task A_wrong_key_a_key_taken_back_and_a_helper_s_key_open_nothing()
    {
        var (room, meeting) = await Connected();
        using var guess = new Meeting(app.Address, "guess");
        (await guess.Send(guess.Event("joined", new { name = "x" }))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        using var helper = new Meeting(app.Address, (await Meeting.KeyFor(room, sweep: true)).Key);
        (await helper.Send(helper.Event("joined", new { name = "x" }))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        var line = (await room.Teacher.Get<List<KeyLine>>($"/api/lessons/{room.Lesson}/keys")).Single(k => k.Feed);
        (await room.Teacher.Http.DeleteAsync($"/api/keys/{line.Id}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await meeting.Send(meeting.Event("joined", new { name = "x" }))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await room.Sheet()).Head.Door.ShouldBeEmpty();
    }

    [Fact]
    public async Task The_file_keeps_no_key()
    {
        var room = await (await app.SignedIn()).Teach();
        var made = await Meeting.KeyFor(room, feed: true);
        await using var db = app.File.Open(Guid.Empty);
        var row = await db.LessonKeys.IgnoreQueryFilters().SingleAsync(k => k.Id == made.Line.Id);
        row.KeyHash.ShouldNotContain(made.Key);
        row.KeyHash.Length.ShouldBe(64);
        Convert.FromBase64String(made.Key.Replace('-', '+').Replace('_', '/') + "=").Length.ShouldBe(32);
    }

    [Fact]
    public async Task A_settled_lesson_takes_nothing_from_a_feed()
    {
        var (room, meeting) = await Connected();
        await room.Tap(new LessonEnded());
        (await meeting.Tell(meeting.Event("left", new { name = "Juno Quillfeather" }))).Accepted.ShouldBe(1); // the line was down when it happened
        await room.Tap(new LessonSettled());
        (await meeting.Tell(meeting.Event("left", new { name = "Eino Rautio" }))).Refused.ShouldHaveSingleItem().Why.ShouldContain("settled");
    }

    private async Task<Guid> EntryOf(Classroom room, string name)
    {
        await using var db = app.File.Open(Guid.Empty);
        return (await db.Entries.IgnoreQueryFilters().Where(e => e.LessonId == room.Lesson && e.Act.Contains("nameMatched")).ToListAsync()).Single(e => e.Act.Contains(name)).Id;
    }

    private sealed class SameAnswer : IEqualityComparer<FeedAnswer>
    {
        public bool Equals(FeedAnswer? x, FeedAnswer? y) => x!.Accepted == y!.Accepted && x.Refused.SequenceEqual(y.Refused);

        public int GetHashCode(FeedAnswer answer) => answer.Accepted;
    }
}

/// <summary>By itself: a feed gone mad uses up what it may send.</summary>
public sealed class MadFeedTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    [Fact]
    public async Task A_feed_gone_mad_is_slowed_down_and_told_and_the_lesson_goes_on()
    {
        var room = await (await app.SignedIn()).Teach();
        using var meeting = await Meeting.Of(room);
        HttpResponseMessage? refused = null;
        for (var batch = 0; refused is null && batch < 40; batch++)
        {
            var answer = await meeting.Send(Enumerable.Range(0, 500).Select(i => meeting.Event("reaction", new { name = "Juno Quillfeather", reaction = "clap" })));
            refused = answer.StatusCode == HttpStatusCode.TooManyRequests ? answer : null;
        }

        refused.ShouldNotBeNull().Headers.RetryAfter.ShouldNotBeNull();
        (await refused.Content.ReadAsStringAsync()).ShouldContain("200 events a second");
        (await room.Tap(new HandRaised(room.Students["Eino"]))).Accepted.ShouldHaveSingleItem();
        (await room.Sheet()).Head.Feed!.Why!.ShouldContain("200 events a second");
    }

    [Fact]
    public async Task A_batch_too_large_is_refused_whole()
    {
        var room = await (await app.SignedIn()).Teach();
        using var meeting = await Meeting.Of(room);
        var response = await meeting.Http.PostAsync("/api/feed", new StringContent($"[\"{new string('x', 1_100_000)}\"]", Encoding.UTF8, "application/json"));
        response.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await meeting.Send(Enumerable.Range(0, 501).Select(_ => meeting.Event("joined", new { name = "x" })))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await room.Sheet()).Head.Door.ShouldBeEmpty();
    }
}
