using System.Net;
using System.Net.Http.Headers;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Web.Features.Accounts;

namespace PoliteTally.Web.Tests;

/// <summary>Whoever came in stays in for as long as was said, with a clock that is moved over days and over every time that who they are is read anew.</summary>
public sealed class SignedInForDaysTests : IAsyncLifetime
{
    // Longer than the half hour after which who a teacher is is read anew, and no part of a day.
    private static readonly TimeSpan Step = TimeSpan.FromHours(7);

    private readonly MovedTime _time = new();
    private readonly AppUnderTest _app;

    public SignedInForDaysTests() => _app = new AppUnderTest { Time = _time };

    public ValueTask InitializeAsync() => _app.InitializeAsync();

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    private static async Task<HttpStatusCode> Asked(HttpClient http, string path)
    {
        using var answer = await http.GetAsync(path, TestContext.Current.CancellationToken);
        return answer.StatusCode;
    }

    private static Task<HttpStatusCode> Asked(Visitor teacher) => Asked(teacher.Http, "/api/classes");

    [Fact]
    public async Task A_teacher_who_comes_by_now_and_then_is_never_signed_out_and_one_who_stays_away_is()
    {
        var teacher = await _app.SignedIn();
        for (var gone = TimeSpan.Zero; gone < SignedInSessions.Lasts * 2; gone += Step)
        {
            (await Asked(teacher)).ShouldBe(HttpStatusCode.OK, $"after {gone}");
            _time.Ahead += Step;
        }

        _time.Ahead += SignedInSessions.Lasts;
        (await Asked(teacher)).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_lesson_is_taught_through_with_a_tap_every_few_minutes()
    {
        var room = await (await _app.SignedIn()).Teach();
        for (var minute = 0; minute < 120; minute += 7)
        {
            _time.Ahead += TimeSpan.FromMinutes(7);
            (await Asked(room.Teacher.Http, $"/api/lessons/{room.Lesson}/live")).ShouldBe(HttpStatusCode.OK, $"minute {minute}");
        }
    }

    [Fact]
    public async Task When_the_password_is_another_whoever_came_in_with_the_old_one_is_out_and_who_comes_in_anew_goes_on()
    {
        var elsewhere = await _app.SignedIn();
        await using (var db = _app.File.Open(Guid.Empty))
        {
            // As changing a password does.
            await db.Users.ExecuteUpdateAsync(set => set.SetProperty(u => u.SecurityStamp, "another"), TestContext.Current.CancellationToken);
        }

        var here = _app.Visitor();
        await here.Enter();
        (await here.Post("/api/session", new SignIn("tamsin@skerrysound.example", "rule of twelfths"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await here.Enter();
        for (var renewal = 0; renewal < 4; renewal++)
        {
            _time.Ahead += Step;
            (await Asked(here)).ShouldBe(HttpStatusCode.OK, $"renewal {renewal}");
            (await Asked(elsewhere)).ShouldBe(HttpStatusCode.Unauthorized);
        }
    }

    [Fact]
    public async Task A_student_whose_device_remembers_them_and_a_helper_of_a_lesson_are_still_in_after_days()
    {
        var room = await (await _app.SignedIn()).Teach();
        using var juno = await Pupil.Before(room);
        await juno.Enter((await Pupil.Passes(room))["Juno"], remember: true);
        using var helper = new HttpClient { BaseAddress = new Uri(_app.Address) };
        helper.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", (await Meeting.KeyFor(room, sweep: true)).Key);
        for (var day = 0; day < 28; day++)
        {
            _time.Ahead += TimeSpan.FromDays(1);
            (await Asked(juno.Http, $"/api/page/{juno.Code}")).ShouldBe(HttpStatusCode.OK, $"day {day}");
            (await Asked(helper, "/api/help")).ShouldBe(HttpStatusCode.OK, $"day {day}");
        }
    }

    /// <summary>The time of this machine, moved ahead; what is waited for takes as long as ever.</summary>
    private sealed class MovedTime : TimeProvider
    {
        public TimeSpan Ahead { get; set; }

        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + Ahead;
    }
}
