using System.Net;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PoliteTally.Core.Board;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Page;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.StudentPage;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Tests;

/// <summary>Ways in to a student page, and out of it: passes, names, sessions, and what each of them opens.</summary>
public sealed class StudentDoorTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private async Task<(Classroom Room, Dictionary<string, string> Passes)> Taught()
    {
        var room = await (await app.SignedIn()).Teach();
        return (room, await Pupil.Passes(room));
    }

    [Fact]
    public async Task With_a_name_one_waits_until_the_teacher_says_who_it_is()
    {
        var (room, _) = await Taught();
        using var somebody = await Pupil.Before(room);
        (await somebody.Enter(null, "Juno Quillfeather")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await StudentPageTests.SetRules(room, rules => rules with { PageByName = true });
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
        await StudentPageTests.SetRules(room, rules => rules with { PageByName = true });
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
        var asking = await StudentPageTests.Open(room, StudentPageTests.Choice());
        await eino.Do(PageDoing.Answer, asking, StudentPageTests.Chose(StudentPageTests.Backs));
        await room.Teacher.Post<Renewed>($"/api/classes/{room.Class}/students/{room.Students["Eino"]}/merge", new MergeInto(room.Students["Zainab"]));

        var own = (await eino.See()).Own;
        own.Called.ShouldBe("Zainab");
        own.Questions.ShouldHaveSingleItem().Answer!.Options.ShouldBe([StudentPageTests.Backs]);
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
        await StudentPageTests.SetRules(room, r => r with { PageByName = true });
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
        await StudentPageTests.SetRules(room, r => r with { PageByName = true });
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
