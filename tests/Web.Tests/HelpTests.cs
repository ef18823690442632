using System.Net;
using System.Net.Http.Json;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Help;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Tests;

/// <summary>A helper has a link for one lesson, with only the rights of the link, and it ends with the lesson.</summary>
public sealed class HelpTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private async Task<(Classroom Room, HttpClient Helper, string Key)> Helping(bool sweep = false, bool handLine = false)
    {
        var room = await (await app.SignedIn()).Teach();
        var made = await Meeting.KeyFor(room, sweep: sweep, handLine: handLine);
        made.Path.ShouldBe($"/help#{made.Key}");
        return (room, new Meeting(app.Address, made.Key).Http, made.Key);
    }

    private static async Task<HelpView> View(HttpClient helper) => await Visitor.Read<HelpView>(await helper.GetAsync("/api/help"));

    private static async Task<WriteResult> Note(HttpClient helper, params IEnumerable<Act> acts) => await Visitor.Read<WriteResult>(
        await helper.PostAsJsonAsync("/api/help/entries", new EntriesSent([.. acts.Select(a => new SentEntry(Guid.CreateVersion7(), Classroom.Now, a))]), Visitor.Json));

    [Fact]
    public async Task Who_keeps_the_line_raises_and_takes_down_hands_and_the_teacher_sees_who_did()
    {
        var (room, helper, _) = await Helping(handLine: true);
        var juno = room.Students["Juno"];
        (await Note(helper, new HandRaised(juno), new HandRaised(room.Students["Eino"]), new HandEnded(room.Students["Eino"], HandEnd.Withdrawn))).Refused.ShouldBeEmpty();
        var head = (await room.Sheet()).Head;
        head.Hands.ShouldHaveSingleItem().Student.ShouldBe(juno);
        head.LastEntries[0].Helper.ShouldBe("Odhran");
        var view = await View(helper);
        view.Hands!.ShouldHaveSingleItem().Student.ShouldBe(juno);
        view.Chat.ShouldBeNull();
    }

    [Fact]
    public async Task Who_sweeps_settles_messages_but_never_sees_what_was_to_the_teacher_alone()
    {
        var (room, helper, _) = await Helping(sweep: true);
        using var meeting = await Meeting.Of(room);
        await meeting.Tell(
            meeting.Event("message", new { name = "Juno Quillfeather", text = "does fog count as a cloud?" }),
            meeting.Event("message", new { name = "Zainab Usman", text = "please do not call me, my voice is gone", @private = true }));
        var view = await View(helper);
        view.Hands.ShouldBeNull();
        var line = view.Chat!.Messages.ShouldHaveSingleItem();
        (line.Who, line.Proposal).ShouldBe(("Juno", ChatKind.Question));
        (await Note(helper, new ChatSorted(line.Entry, ChatKind.Question))).Refused.ShouldBeEmpty();
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Chat.ShouldHaveSingleItem();

        var all = await room.Teacher.Get<ChatView>($"/api/lessons/{room.Lesson}/chat");
        var secret = all.Messages.Single(m => m.Private);
        (await Note(helper, new ChatHidden(secret.Entry))).Refused.ShouldHaveSingleItem().Why.ShouldContain("does not go so far");
    }

    [Fact]
    public async Task A_helper_does_nothing_beyond_the_link()
    {
        var (room, helper, _) = await Helping(sweep: true, handLine: true);
        var juno = room.Students["Juno"];
        var before = (await room.Sheet()).Head.Position;
        Act[] beyond =
        [
            new TurnTaken(juno, TurnOutcome.Full, TurnOrigin.Invited), new Called(juno, TurnOrigin.Hand), new Marked(juno, Mark.Here), new NodGiven(juno, "on time"),
            new AsideNoted(juno, "x"), new NameMatched("x", juno), new LessonEnded(), new BoardPut(BoardItem.Rubric), new GroupsDissolved(), new RollCallTaken([juno]),
        ];
        (await Note(helper, beyond)).Refused.Count.ShouldBe(beyond.Length);
        (await room.Sheet()).Head.Position.ShouldBe(before);
    }

    [Fact]
    public async Task Two_windows_a_helper_and_the_meeting_write_at_once_and_nothing_is_lost()
    {
        var (room, helper, _) = await Helping(handLine: true);
        using var meeting = await Meeting.Of(room);
        var before = (await room.Sheet()).Head.Position;
        const int Each = 25;
        var windows = Enumerable.Range(0, 2).Select(_ => Repeat(async () => (await room.Tap(new NodGiven(room.Students["Juno"], "on time"))).Accepted.Count));
        var others = new[]
        {
            Repeat(async () => (await Note(helper, new HandRaised(room.Students["Eino"]))).Accepted.Count),
            Repeat(async () => (await meeting.Tell(meeting.Event("message", new { name = "Zainab Usman", text = "low water at four" }))).Accepted),
        };
        (await Task.WhenAll([.. windows, .. others])).Sum().ShouldBe(4 * Each);
        var sheet = await room.Sheet();
        sheet.Rows.Single(r => r.Called == "Juno").Nods.Count.ShouldBe(2 * Each);
        sheet.Head.Hands.ShouldHaveSingleItem();
        // One entry says whose the name in the meeting is.
        (sheet.Head.Position - before).ShouldBe((4 * Each) + 1);

        static async Task<int> Repeat(Func<Task<int>> act)
        {
            var sum = 0;
            for (var i = 0; i < Each; i++)
            {
                sum += await act();
            }

            return sum;
        }
    }

    [Fact]
    public async Task A_helper_strikes_out_only_what_is_their_own()
    {
        var (room, helper, _) = await Helping(handLine: true);
        var teachers = (await room.Tap(new HandRaised(room.Students["Eino"]))).Accepted[0];
        var own = (await Note(helper, new HandRaised(room.Students["Juno"]))).Accepted[0];
        (await Note(helper, new Struck(teachers))).Refused.ShouldHaveSingleItem();
        (await Note(helper, new Struck(own, [teachers]))).Refused.ShouldHaveSingleItem();
        (await Note(helper, new Struck(own))).Refused.ShouldBeEmpty();
        (await room.Sheet()).Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(room.Students["Eino"]);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task The_link_ends_with_the_lesson_or_when_it_is_taken_back(bool ended)
    {
        var (room, helper, key) = await Helping(handLine: true);
        (await helper.GetAsync("/api/help")).StatusCode.ShouldBe(HttpStatusCode.OK);
        if (ended)
        {
            await room.Tap(new LessonEnded());
        }
        else
        {
            var line = (await room.Teacher.Get<List<KeyLine>>($"/api/lessons/{room.Lesson}/keys"))[0];
            await room.Teacher.Http.DeleteAsync($"/api/keys/{line.Id}");
        }

        var closed = await helper.GetAsync("/api/help");
        closed.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await closed.Content.ReadAsStringAsync()).ShouldContain("Thank you for helping");
        (await helper.PostAsJsonAsync("/api/help/entries", new EntriesSent([new SentEntry(Guid.CreateVersion7(), Classroom.Now, new HandRaised(room.Students["Juno"]))]), Visitor.Json))
            .StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        await using var window = Window();
        await window.StartAsync();
        await Should.ThrowAsync<HubException>(() => window.InvokeAsync("Watch", key));
    }

    [Fact]
    public async Task A_helper_s_window_hears_that_something_changed_and_nothing_else()
    {
        var (room, _, key) = await Helping(handLine: true);
        await using var window = Window();
        var heard = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        window.On("changed", () => heard.TrySetResult());
        await window.StartAsync();
        await window.InvokeAsync("Watch", key);
        await room.Tap(new HandRaised(room.Students["Juno"]));
        await heard.Task.WaitAsync(TimeSpan.FromSeconds(20));
    }

    [Theory]
    [InlineData("", false, true, false)]
    [InlineData("Odhran", false, false, false)]
    [InlineData("Odhran", true, true, false)]
    public async Task A_key_is_for_somebody_and_for_something(string name, bool feed, bool sweep, bool handLine)
    {
        var room = await (await app.SignedIn()).Teach();
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/keys", new KeyWanted(name, feed, sweep, handLine))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task With_a_helper_s_key_nothing_of_a_teacher_s_opens()
    {
        var (room, helper, _) = await Helping(sweep: true, handLine: true);
        foreach (var path in new[] { "live", "chat", "board", "reaching", "settling", "keys" })
        {
            (await helper.GetAsync($"/api/lessons/{room.Lesson}/{path}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, path);
        }
    }

    private HubConnection Window() => new HubConnectionBuilder().WithUrl($"{app.Address}/help/live").Build();

    [Fact]
    public async Task Whose_link_is_taken_back_hears_of_it_at_once()
    {
        var (room, helper, _) = await Helping(handLine: true);
        var window = new FakeWindow();
        var key = (await room.Teacher.Get<List<KeyLine>>($"/api/lessons/{room.Lesson}/keys")).ShouldHaveSingleItem();
        // As the hub does for whoever comes with the key.
        app.Part<Publishing.OpenWindows>().Hears(LessonKeys.WindowsOf(key.Id), window, window);
        (await room.Teacher.Http.DeleteAsync($"/api/keys/{key.Id}")).IsSuccessStatusCode.ShouldBeTrue();
        await window.HearsMoreThan(0);
        (await helper.GetAsync("/api/help")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }
}
