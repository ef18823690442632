using System.Net;
using System.Net.Http.Json;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>The application behind a web server on the same machine, which speaks HTTPS and passes requests on.</summary>
public sealed class SchoolAddressTests : IAsyncLifetime
{
    private const string School = "tally.skerrysound.example";

    private readonly AppUnderTest _app = new() { SchoolAddress = new Uri($"https://{School}/") };

    public ValueTask InitializeAsync() => _app.InitializeAsync();

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    private async Task<HttpResponseMessage> Ask(string address, string host, string path = "/api/session", object? body = null, params (string Name, string Value)[] headers)
    {
        using var http = new HttpClient { BaseAddress = new Uri(address) };
        var request = new HttpRequestMessage(body is null ? HttpMethod.Get : HttpMethod.Post, path) { Content = body is null ? null : JsonContent.Create(body, options: Visitor.Json) };
        request.Headers.Host = host;
        foreach (var (name, value) in headers)
        {
            request.Headers.Add(name, value);
        }

        return await http.SendAsync(request);
    }

    [Theory]
    [InlineData(School, true)]
    [InlineData("127.0.0.1", true)]
    [InlineData("tally.elsewhere.example", false)]
    public async Task It_answers_to_its_own_names_only(string host, bool answers)
    {
        (await Ask(_app.Address, host)).StatusCode.ShouldBe(answers ? HttpStatusCode.OK : HttpStatusCode.BadRequest);
        (await Ask(_app.Address, "127.0.0.1", headers: ("X-Forwarded-Host", host))).StatusCode.ShouldBe(answers ? HttpStatusCode.OK : HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Without_an_address_only_this_machine_is_answered_and_nobody_is_believed()
    {
        var app = new AppUnderTest();
        await app.InitializeAsync();
        (await Ask(app.Address, School)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var room = await (await app.SignedIn()).Teach();
        var (code, passes) = (await Pupil.CodeOf(room), await Pupil.Passes(room));
        var entered = await Ask(app.Address, "127.0.0.1", $"/api/page/{code}/enter", new PageEntry(passes["Juno"], null, Remember: false), ("X-Forwarded-Proto", "https"));
        entered.Headers.GetValues("Set-Cookie").ShouldHaveSingleItem().ShouldNotContain("secure");
        await app.DisposeAsync();
    }

    [Fact]
    public async Task The_way_in_names_the_address_wherever_the_teacher_came_from_and_the_cookie_of_a_student_goes_by_https_only()
    {
        var room = await (await _app.SignedIn()).Teach();
        var passes = await Pupil.Passes(room);
        var way = await room.Teacher.Get<WayIn>($"/api/lessons/{room.Lesson}/way-in");
        way.Address.ShouldBe($"https://{School}/p/{way.Code}");
        way.Sentence.ShouldContain(way.Address);

        var entered = await Ask(
            _app.Address, School, $"/api/page/{way.Code}/enter", new PageEntry(passes["Juno"], null, Remember: false),
            ("X-Forwarded-Proto", "https"), ("X-Forwarded-For", "203.0.113.7"));
        entered.StatusCode.ShouldBe(HttpStatusCode.OK);
        entered.Headers.GetValues("Set-Cookie").Single(c => c.StartsWith(PageSessions.Cookie, StringComparison.Ordinal)).ShouldContain("secure");
    }

    [Fact]
    public async Task Whoever_guesses_is_refused_by_their_own_address_not_by_that_of_the_web_server()
    {
        var room = await (await _app.SignedIn()).Teach();
        var code = await Pupil.CodeOf(room);
        var passes = await Pupil.Passes(room);
        Task<HttpResponseMessage> From(string address, string pass) => Ask(
            _app.Address, School, $"/api/page/{code}/enter", new PageEntry(pass, null, Remember: false), ("X-Forwarded-For", address));
        await Task.WhenAll(Enumerable.Range(0, GuessWatch.RefusedFrom).Select(_ => From("203.0.113.7", "baba-baba-baba")));
        (await From("203.0.113.7", passes["Juno"])).StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        (await From("203.0.113.8", passes["Juno"])).StatusCode.ShouldBe(HttpStatusCode.OK);
    }
}
