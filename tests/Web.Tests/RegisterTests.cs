using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.StandIns;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Desk;
using PoliteTally.Web.Features.Register;
using PoliteTally.Web.Hosting;

namespace PoliteTally.Web.Tests;

/// <summary>Registers are handed in over a real line, to the stand-in for the desk of the school.</summary>
public sealed class RegisterTests : IAsyncLifetime
{
    private const string Token = "rule of twelfths";
    private readonly SettableTime _time = new();
    private WebApplication _desk = null!;
    private AppUnderTest _app = null!;

    public async ValueTask InitializeAsync()
    {
        _desk = RegisterDeskStandIn.Build(0, Token, deadline: null, away: TimeSpan.FromMinutes(5), _time, new HashSet<string> { "S1", "S2", "S3" });
        await _desk.StartAsync();
        _app = new AppUnderTest { Desk = new RegisterDeskAddress(new Uri(_desk.Urls.First() + "/"), Token) };
        await _app.InitializeAsync();
        _time.Now += TimeSpan.FromMinutes(6);
    }

    public async ValueTask DisposeAsync()
    {
        await _app.DisposeAsync();
        await _desk.DisposeAsync();
    }

    private async Task<Classroom> Settled() => await (await _app.SignedIn()).TeachAndSettle();

    private static Task<RegisterStands> HandIn(Classroom room, int after = 0, string why = "") =>
        room.Teacher.Post<RegisterStands>($"/api/lessons/{room.Lesson}/register", new HandInSent(HandInWay.Desk, why, after));

    private static Task<RegisterStands> Stands(Classroom room) => room.Teacher.Get<RegisterStands>($"/api/lessons/{room.Lesson}/register");

    private async Task<string?> AtTheDesk(Classroom room, int version)
    {
        using var client = new HttpClient();
        client.DefaultRequestHeaders.Authorization = new("Bearer", Token);
        using var answer = await client.GetAsync($"{_desk.Urls.First()}/registers/{room.Lesson}/{version}");
        return answer.IsSuccessStatusCode ? await answer.Content.ReadAsStringAsync() : null;
    }

    [Fact]
    public async Task It_is_handed_in_once_however_often_it_is_pressed()
    {
        var room = await Settled();
        (await Stands(room)).Ways.ShouldBe([HandInWay.Desk]);
        var stands = await HandIn(room);
        stands.HandIns.ShouldHaveSingleItem().State.ShouldBe(HandInState.Taken);
        (await HandIn(room)).HandIns.Count.ShouldBe(1);
        (await AtTheDesk(room, 1)).ShouldNotBeNull().ShouldSatisfyAllConditions(
            sheet => sheet.ShouldContain("\"code\":\"P\""), sheet => sheet.ShouldContain("\"code\":\"A\""), sheet => sheet.ShouldContain("Quillfeather"));
    }

    [Fact]
    public async Task What_was_put_right_later_is_amended_with_a_reason()
    {
        var room = await Settled();
        await HandIn(room);
        await room.Tap(new Struck((await room.Settling()).SettledBy!.Value));
        await room.Tap(new ExcuseRecorded(room.Students["Eino"], "ferry cancelled"));
        await room.Tap(new LessonSettled());
        (await Stands(room)).Changes.ShouldHaveSingleItem().ShouldBe("Eino Rautio: excused: ferry cancelled; it was absent");

        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/register", new HandInSent(HandInWay.Desk, " ", 1))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var stands = await HandIn(room, 1, "a note of the ferry came");
        stands.HandIns.Select(h => (h.Version, h.State, h.Why)).ShouldBe([(2, HandInState.Taken, "a note of the ferry came"), (1, HandInState.Taken, "")]);
        stands.Changes.ShouldBeEmpty();
        stands.Past.Select(p => p.Said).ShouldBe(
            ["Register confirmed, lesson settled", "handed in", "taken back: Register confirmed, lesson settled", "Eino Rautio, excused: ferry cancelled", "Register confirmed, lesson settled", "amended: a note of the ferry came"]);
        stands.Past[^1].Changes.ShouldHaveSingleItem().ShouldBe("Eino Rautio: excused: ferry cancelled; it was absent");
        stands.Past.ShouldAllBe(p => p.By.Length > 0);
        (await AtTheDesk(room, 2)).ShouldNotBeNull().ShouldContain("\"from\":\"A\",\"to\":\"E\"");
        // And nothing has changed since.
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/register", new HandInSent(HandInWay.Desk, "again", 2))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_desk_that_is_away_is_tried_again_over_a_restart()
    {
        var room = await Settled();
        _time.Now -= TimeSpan.FromMinutes(6);
        (await HandIn(room)).HandIns[0].ShouldSatisfyAllConditions(h => h.State.ShouldBe(HandInState.Waiting), h => h.Said.ShouldContain("away"));
        (await room.Teacher.Get<Desk>("/api/desk")).NotHandedIn.ShouldHaveSingleItem().Lesson.Id.ShouldBe(room.Lesson);
        // Nothing is sent twice meanwhile.
        (await room.Teacher.Post($"/api/lessons/{room.Lesson}/register", new HandInSent(HandInWay.Desk, "", 1))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        _time.Now += TimeSpan.FromMinutes(6);
        await LongAgo(room);
        await _app.Part<RegisterSender>().SendDue(CancellationToken.None);
        (await Stands(room)).HandIns[0].State.ShouldBe(HandInState.Taken);
        (await room.Teacher.Get<Desk>("/api/desk")).NotHandedIn.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(false, HandInState.Taken)]
    [InlineData(true, HandInState.Taken)]
    public async Task What_was_on_its_way_when_the_program_stopped_is_asked_for_and_not_repeated_blindly(bool arrived, HandInState then)
    {
        var room = await Settled();
        if (arrived)
        {
            await HandIn(room);
        }
        else
        {
            _time.Now -= TimeSpan.FromMinutes(6);
            await HandIn(room);
            _time.Now += TimeSpan.FromMinutes(6);
        }

        await LongAgo(room, HandInState.Going);
        var sender = _app.Part<RegisterSender>();
        await sender.SendDue(CancellationToken.None);
        (await Stands(room)).HandIns[0].State.ShouldBe(arrived ? HandInState.Taken : HandInState.Waiting);
        await LongAgo(room);
        await sender.SendDue(CancellationToken.None);
        (await Stands(room)).HandIns.ShouldHaveSingleItem().State.ShouldBe(then);
    }

    [Fact]
    public async Task A_number_that_the_desk_does_not_know_is_refused_with_its_reason()
    {
        var room = await Settled();
        await using (var db = _app.File.Open(Guid.Empty))
        {
            await db.Students.IgnoreQueryFilters().Where(s => s.Id == room.Students["Eino"]).ExecuteUpdateAsync(s => s.SetProperty(x => x.Number, "S9999"));
        }

        _app.Part<Store.OpenLessons>().Forget(_ => true);
        var stands = await HandIn(room);
        stands.HandIns[0].ShouldSatisfyAllConditions(h => h.State.ShouldBe(HandInState.Refused), h => h.Said.ShouldContain("does not know S9999"));
        (await room.Teacher.Get<Desk>("/api/desk")).NotHandedIn.ShouldHaveSingleItem().Said.ShouldContain("S9999");
    }

    [Fact]
    public async Task It_can_be_saved_as_a_file_alone_or_with_the_others_of_the_day()
    {
        var room = await Settled();
        var csv = await (await room.Teacher.Http.GetAsync($"/api/lessons/{room.Lesson}/register.csv")).Content.ReadAsStringAsync();
        csv.ShouldContain("Quillfeather,P,,");
        var day = Classroom.Now.InUtc().Date.ToString("uuuu-MM-dd", null);
        (await (await room.Teacher.Http.GetAsync($"/api/registers.csv?day={day}")).Content.ReadAsStringAsync()).ShouldContain("Quillfeather,P,,");
        foreach (var wrong in new[] { "yesterday", "", "9999-12-31", "0001-01-01" })
        {
            (await room.Teacher.Http.GetAsync($"/api/registers.csv?day={wrong}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }
    }

    [Fact]
    public async Task A_lesson_that_is_not_settled_is_not_handed_in()
    {
        var room = await (await _app.SignedIn()).Teach();
        var refused = await room.Teacher.Post($"/api/lessons/{room.Lesson}/register", new HandInSent(HandInWay.Desk, "", 0));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("Confirm the register first");
    }

    private async Task LongAgo(Classroom room, HandInState? state = null)
    {
        await using var db = _app.File.Open(Guid.Empty);
        var all = db.HandIns.IgnoreQueryFilters().Where(h => h.LessonId == room.Lesson);
        await all.ExecuteUpdateAsync(h => h.SetProperty(x => x.At, Classroom.Now - Duration.FromMinutes(1)));
        if (state is { } now)
        {
            await all.ExecuteUpdateAsync(h => h.SetProperty(x => x.State, now));
        }
    }

    private sealed class SettableTime : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 11, 23, 11, 0, 0, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }

    [Fact]
    public async Task The_registers_of_a_day_go_with_one_press_and_once()
    {
        var room = await Settled();
        var second = await room.Teacher.Teach();
        await second.Tap(new Marked(second.Students["Juno"], Mark.Here));
        await second.Tap(new LessonEnded());
        await second.Tap(new LessonSettled());
        var day = Classroom.Now.InUtc().Date.ToString("uuuu-MM-dd", null);
        (await room.Teacher.Get<Desk>("/api/desk")).Confirmed.ShouldBe(2);

        var handed = await Visitor.Read<List<RegisterOfDay>>(await room.Teacher.Post($"/api/registers?day={day}", new { }));
        handed.Select(h => (h.State, h.Lesson.Id)).ShouldBe([(HandInState.Taken, room.Lesson), (HandInState.Taken, second.Lesson)], ignoreOrder: true);
        (await AtTheDesk(room, 1)).ShouldNotBeNull();
        (await AtTheDesk(second, 1)).ShouldNotBeNull();
        (await Visitor.Read<List<RegisterOfDay>>(await room.Teacher.Post($"/api/registers?day={day}", new { }))).ShouldBeEmpty();
        (await room.Teacher.Get<Desk>("/api/desk")).Confirmed.ShouldBe(0);
        (await room.Teacher.Post("/api/registers?day=someday", new { })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }
}
