using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Questions;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Accounts;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Plans;

namespace PoliteTally.Web.Tests;

public sealed class AccessTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly string[] Open = ["/api/session"];

    private JsonDocument? _description;

    private async Task<JsonElement> Description()
    {
        using var http = new HttpClient { BaseAddress = new Uri(app.Address) };
        _description ??= JsonDocument.Parse(await http.GetStringAsync("/openapi/v1.json"));
        return _description.RootElement;
    }

    /// <summary>Every path that the description of the API names, so that a new one cannot be forgotten here.</summary>
    private async Task<IEnumerable<(string Method, string Path)>> Paths() => [.. (await Description()).GetProperty("paths").EnumerateObject()
        .SelectMany(p => p.Value.EnumerateObject().Select(m => (m.Name.ToUpperInvariant(), p.Name)))];

    // Whoever has a student's session is walked through the API in the tests of the student page.
    private static bool IsStudentPage(string path) => path.StartsWith("/api/page/", StringComparison.Ordinal);

    private static string Filled(string path, Classroom room, Things things) => path
        .Replace("/classes/{id}", $"/classes/{room.Class}").Replace("/lessons/{id}", $"/lessons/{room.Lesson}")
        .Replace("/terms/{id}", $"/terms/{things.Term}").Replace("/series/{id}", $"/series/{things.Series}")
        .Replace("/shelf/{id}", $"/shelf/{things.Kept}").Replace("/pictures/{id}", $"/pictures/{things.Picture}")
        .Replace("/students/{id}/past", $"/students/{room.Students["Juno"]}/past").Replace("/objections/{id}", $"/objections/{things.Objection}")
        .Replace("{session}", $"{things.Key}").Replace("{round}", $"{things.Key}").Replace("{kind}", "student").Replace("{place}", "1")
        .Replace("/keys/{key}", $"/keys/{things.Key}")
        .Replace("{student}", $"{room.Students["Juno"]}").Replace("{position}", "0");

    /// <summary>One of each of the other things that a teacher has.</summary>
    private sealed record Things(Guid Term, Guid Series, Guid Kept, Guid Picture, Guid Key, Guid Objection);

    private async Task<Things> ThingsOf(Classroom room)
    {
        var day = new LocalDate(2027, 1, 11);
        var term = await room.Teacher.Post<TermLine>("/api/terms", new TermSent("Spring", day, day.PlusDays(60), []));
        var series = await room.Teacher.Post<SeriesChanged>(
            $"/api/classes/{room.Class}/series", new SeriesSent("Tides", [1], 1, new LocalTime(9, 30), 50, day, day.PlusDays(7), false, null, []));
        var kept = await room.Teacher.Post<ShelfLine>("/api/shelf", new ShelfSent(new Question { Id = Guid.NewGuid(), Kind = QuestionKind.ShortText }));
        var picture = await Visitor.Read<PictureKept>(await room.Teacher.Send("/api/pictures", Pictures.Png(8, 8)));
        return new Things(term.Id, series.Id, kept.Id, picture.Id, (await Meeting.KeyFor(room, feed: true)).Line.Id, await ObjectionIn(room));
    }

    private async Task<Guid> ObjectionIn(Classroom room)
    {
        await using var all = app.File.Open(Guid.Empty);
        var owner = (await all.Lessons.IgnoreQueryFilters().SingleAsync(l => l.Id == room.Lesson)).OwnerId;
        await using var db = app.File.Open(owner);
        var made = db.Objections.Add(new Objection { Id = Guid.NewGuid(), LessonId = room.Lesson, StudentId = room.Students["Juno"], About = "", Text = "I spoke twice", MadeAt = Classroom.Now });
        await db.SaveChangesAsync();
        return made.Entity.Id;
    }

    private async Task<HttpRequestMessage> Request(string method, string described, string path)
    {
        var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (method is "POST" or "PUT")
        {
            request.Content = await BodyOf(method, described) is { } body
                ? new StringContent(body, Encoding.UTF8, "application/json")
                : new MultipartFormDataContent { { new ByteArrayContent("Name\nJuno Quillfeather"u8.ToArray()), "file", "list.csv" } };
        }

        return request;
    }

    /// <summary>The smallest body that the description of the API allows; null where it describes none, as for files.</summary>
    private async Task<string?> BodyOf(string method, string path)
    {
        var description = await Description();
        var operation = description.GetProperty("paths").GetProperty(path).GetProperty(method.ToLowerInvariant());
        return operation.TryGetProperty("requestBody", out var body)
            ? (Smallest(body.GetProperty("content").GetProperty("application/json").GetProperty("schema"), description) ?? new JsonArray()).ToJsonString()
            : null;
    }

    private static JsonNode? Smallest(JsonElement schema, JsonElement root)
    {
        if (schema.TryGetProperty("$ref", out var reference))
        {
            var name = reference.GetString()!.Split('/')[^1];
            return name switch
            {
                "LocalDate" => "2027-01-11",
                "LocalTime" => "09:30",
                _ => Smallest(root.GetProperty("components").GetProperty("schemas").GetProperty(name), root),
            };
        }

        if (schema.TryGetProperty("enum", out var values))
        {
            return values[0].GetString();
        }

        var kind = schema.TryGetProperty("type", out var type) ? type.ValueKind == JsonValueKind.Array ? "null" : type.GetString() : "null";
        switch (kind)
        {
            case "object":
                var made = new JsonObject();
                foreach (var name in schema.TryGetProperty("required", out var required) ? required.EnumerateArray().Select(r => r.GetString()!) : [])
                {
                    made[name] = name == "act" ? JsonNode.Parse("""{"type":"lessonEnded"}""") : Smallest(schema.GetProperty("properties").GetProperty(name), root);
                }

                return made;
            case "array":
                return schema.GetProperty("items").TryGetProperty("$ref", out var item) && item.GetString()!.EndsWith("SentEntry", StringComparison.Ordinal)
                    ? new JsonArray(Smallest(schema.GetProperty("items"), root))
                    : [];
            case "string":
                return schema.TryGetProperty("format", out var format) && format.GetString() == "uuid" ? Guid.NewGuid().ToString() : "x";
            case "boolean":
                return false;
            case "number" or "integer":
                return 50;
            default:
                return null;
        }
    }

    [Fact]
    public async Task Another_teacher_s_id_answers_404_everywhere()
    {
        var room = await (await app.SignedIn()).Teach();
        var things = await ThingsOf(room);
        var other = await app.SignedIn("odhran");
        foreach (var (method, path) in (await Paths()).Where(p => p.Path.Contains('{') && !IsStudentPage(p.Path)))
        {
            var response = await other.Http.SendAsync(await Request(method, path, Filled(path, room, things)));
            response.StatusCode.ShouldBe(HttpStatusCode.NotFound, $"{method} {path}");
        }

        (await room.Sheet()).Head.Stage.ShouldBe(Store.Model.LessonStage.Live);
    }

    [Fact]
    public async Task Without_signing_in_nothing_is_open_but_the_door()
    {
        var room = await (await app.SignedIn()).Teach();
        var things = await ThingsOf(room);
        var visitor = app.Visitor();
        await visitor.Enter();
        foreach (var (method, path) in (await Paths()).Where(p => !Open.Contains(p.Path) && !IsStudentPage(p.Path) && !p.Path.StartsWith("/api/accounts") && p.Path != "/api/session/demo"))
        {
            var response = await visitor.Http.SendAsync(await Request(method, path, Filled(path, room, things)));
            response.StatusCode.ShouldBe(HttpStatusCode.Unauthorized, $"{method} {path}");
        }
    }

    [Theory]
    [InlineData("same-origin", null, true)]
    [InlineData("same-origin", "https://elsewhere.example", true)]   // behind a web server that passes requests on under another name
    [InlineData("none", null, true)]                                 // typed by the user
    [InlineData("same-site", null, false)]
    [InlineData("cross-site", null, false)]
    [InlineData("anything", null, false)]
    [InlineData(null, "here", true)]
    [InlineData(null, "https://elsewhere.example", false)]
    [InlineData(null, "http://127.0.0.1:1", false)]
    [InlineData(null, "null", false)]
    [InlineData(null, "not an address", false)]
    [InlineData(null, null, true)]                                   // no browser
    public async Task No_page_of_another_site_changes_anything_in_the_name_of_whoever_is_signed_in(string? site, string? origin, bool taken)
    {
        var (teacher, name) = (await app.SignedIn(), $"Island Botany {Guid.NewGuid()}");
        using var ask = new HttpRequestMessage(HttpMethod.Post, "/api/classes") { Content = JsonContent.Create(new NewClass(name)) };
        foreach (var (header, value) in new[] { ("Sec-Fetch-Site", site), ("Origin", origin == "here" ? app.Address : origin) }.Where(h => h.Item2 is not null))
        {
            ask.Headers.TryAddWithoutValidation(header, value);
        }

        (await teacher.Http.SendAsync(ask, TestContext.Current.CancellationToken)).StatusCode.ShouldBe(taken ? HttpStatusCode.OK : HttpStatusCode.Forbidden);
        (await teacher.Get<List<ClassLine>>("/api/classes")).Any(c => c.Name == name).ShouldBe(taken);
    }

    [Theory]
    [InlineData("GET", "/api/nothing-here", "", 404)]
    [InlineData("GET", "/api/classes/00000000-0000-0000-0000-000000000001", "", 404)]
    [InlineData("GET", "/api/classes/not-an-id", "", 404)]
    [InlineData("GET", "/api/lessons/00000000-0000-0000-0000-000000000001/live", "", 404)]
    [InlineData("PATCH", "/api/classes", "{}", 405)]
    [InlineData("POST", "/api/classes", "{\"name\":", 400)]
    [InlineData("POST", "/api/classes", "[1,2]", 400)]
    [InlineData("POST", "/api/classes", "{\"name\":\"\"}", 422)]
    [InlineData("POST", "/api/classes", "", 400)]
    public async Task Whatever_is_wrong_is_said_as_a_problem_document(string method, string path, string body, int status)
    {
        var teacher = await app.SignedIn();
        var request = new HttpRequestMessage(new HttpMethod(method), path);
        if (method != "GET")
        {
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        }

        var response = await teacher.Http.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        ((int)response.StatusCode).ShouldBe(status, text);
        response.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json");
        text.ShouldNotContain("   at ");
        text.ShouldNotContain("Exception");
    }

    [Theory]
    [InlineData("""{"entries":[{"id":"01900000-0000-7000-8000-000000000000","happenedAt":1e300,"act":{"type":"lessonEnded"}}]}""")]
    [InlineData("""{"entries":[{"id":"01900000-0000-7000-8000-000000000000","happenedAt":1,"act":{"type":"danced"}}]}""")]
    [InlineData("""{"entries":[{"id":"x","happenedAt":1,"act":{"type":"lessonEnded"}}]}""")]
    [InlineData("""{"entries":[{"id":"01900000-0000-7000-8000-000000000000","happenedAt":1,"act":{"type":"marked","student":"01900000-0000-7000-8000-000000000000","mark":7}}]}""")]
    [InlineData("""{"entries":[{"id":"01900000-0000-7000-8000-000000000000","happenedAt":1,"act":{"type":"nodGiven","student":"01900000-0000-7000-8000-000000000000"}}]}""")]
    [InlineData("""{"entries":[{"id":"01900000-0000-7000-8000-000000000000","happenedAt":1,"act":{"type":"nodGiven","student":"01900000-0000-7000-8000-000000000000","reason":null}}]}""")]
    [InlineData("""{"entries":[null]}""")]
    [InlineData("""{"entries":[]}""")]
    [InlineData("""{}""")]
    [InlineData("""{"entries":[{"id":"01900000-0000-7000-8000-000000000000","happenedAt":1,"act":{"type":"joined","name":"Juno","device":""}}]}""")]
    public async Task Entries_that_are_none_are_refused_whole(string body)
    {
        var room = await (await app.SignedIn()).Teach();
        var before = (await room.Sheet()).Head.Position;
        var response = await room.Teacher.Http.PostAsync(
            $"/api/lessons/{room.Lesson}/entries", new StringContent(body, Encoding.UTF8, "application/json"));

        ((int)response.StatusCode).ShouldBeOneOf(400, 422);
        response.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json");
        (await room.Sheet()).Head.Position.ShouldBe(before);
    }

    [Fact]
    public async Task Only_the_first_visitor_makes_an_account_unasked()
    {
        var visitor = app.Visitor();
        (await visitor.Enter()).AwaitsFirstAccount.ShouldBeFalse();
        (await visitor.Post("/api/accounts", new NewAccount("x@skerrysound.example", "a long password", "X", "Y", "Atlantic/Faroe")))
            .StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await visitor.Post("/api/session/demo", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Pages_carry_a_strict_content_security_policy()
    {
        using var http = new HttpClient { BaseAddress = new Uri(app.Address) };
        var policy = (await http.GetAsync("/api/session")).Headers.GetValues("Content-Security-Policy").Single();
        policy.ShouldContain("default-src 'self'");
        policy.ShouldContain("frame-ancestors 'none'");
        policy.ShouldNotContain("unsafe");
    }

    [Fact]
    public async Task Another_host_name_is_not_answered()
    {
        using var http = new HttpClient { BaseAddress = new Uri(app.Address) };
        http.DefaultRequestHeaders.Host = "polite-tally.example";
        (await http.GetAsync("/api/session")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }
}

/// <summary>By itself: whoever guesses is shut out for a while, and with them every test that shares the application.</summary>
public sealed class GuessingTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    [Fact]
    public async Task Guessing_a_password_is_slowed_down()
    {
        var visitor = app.Visitor();
        await visitor.Enter();
        var statuses = new List<HttpStatusCode>();
        for (var i = 0; i < 40; i++)
        {
            statuses.Add((await visitor.Post("/api/session", new SignIn("nobody@skerrysound.example", $"guess {i}"))).StatusCode);
        }

        statuses[0].ShouldBe(HttpStatusCode.Unauthorized);
        statuses[^1].ShouldBe(HttpStatusCode.TooManyRequests);
    }
}
