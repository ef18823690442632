using System.Collections.Concurrent;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using PoliteTally.Core.Board;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Web.Features.Board;

namespace PoliteTally.Web.Tests;

/// <summary>
/// Every operation of the API is sent every kind of wrong thing in every place. What comes back is an answer or a refusal that says why, never a
/// failure; and meanwhile taps of another lesson are stored as if nothing were.
/// </summary>
// An application a test: what one of them asks too often another could not ask any more.
public sealed class EveryOperationTests : IAsyncLifetime
{
    private readonly AppUnderTest app = new();

    // A zero in an address is refused by the web server itself.
    private static readonly string[] OddIds = ["null", "..%2f..%2fetc", "1e400", "00000000-0000-0000-0000-000000000000", new('9', 4000), "%F0%9F%8C%8A", "%ED%A0%80"];

    public ValueTask InitializeAsync() => app.InitializeAsync();

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private static async Task<ApiSamples> Samples(AppUnderTest app)
    {
        using var http = new HttpClient { BaseAddress = new Uri(app.Address) };
        return new ApiSamples(JsonDocument.Parse(await http.GetStringAsync("/openapi/v1.json")).RootElement);
    }

    /// <summary>A lesson in which every door stands open, and a neighbour that goes on tapping.</summary>
    private sealed record Scene(Classroom Room, Pupil Pupil, HttpClient Helper, HttpClient Meeting, Classroom Neighbour);

    private async Task<Scene> Set()
    {
        var room = await (await app.SignedIn()).Teach();
        var neighbour = await (await app.SignedIn("odhran")).Teach();
        var pupil = await Pupil.In(room, (await Pupil.Passes(room))["Juno"]);
        await room.Tap(new BoardPut(BoardItem.Statement, "Fog is a cloud."));
        var helper = (await Meeting.KeyFor(room, sweep: true, handLine: true)).Key;
        var feed = (await Meeting.KeyFor(room, feed: true)).Key;
        return new Scene(room, pupil, With(helper), With(feed), neighbour);

        HttpClient With(string key) => new() { BaseAddress = new Uri(app.Address), DefaultRequestHeaders = { Authorization = new AuthenticationHeaderValue("Bearer", key) } };
    }

    private static string Filled(string path, Scene scene) => path
        .Replace("/classes/{id}", $"/classes/{scene.Room.Class}").Replace("/lessons/{id}", $"/lessons/{scene.Room.Lesson}")
        .Replace("{code}", scene.Pupil.Code).Replace("{student}", $"{scene.Room.Students["Juno"]}").Replace("{position}", "0")
        .Replace("{id}", $"{Guid.NewGuid()}").Replace("{key}", $"{Guid.NewGuid()}").Replace("{session}", $"{Guid.NewGuid()}").Replace("{picture}", $"{Guid.NewGuid()}");

    private static HttpClient DoorOf(string path, Scene scene) => path switch
    {
        _ when path.StartsWith("/api/feed", StringComparison.Ordinal) => scene.Meeting,
        _ when path.StartsWith("/api/help", StringComparison.Ordinal) => scene.Helper,
        _ when path.StartsWith("/api/page", StringComparison.Ordinal) => scene.Pupil.Http,
        _ => scene.Room.Teacher.Http,
    };

    // What ends the session or the lesson of the test itself, or is limited to so few a minute that nothing would be learnt.
    private static bool IsLeftOut(string method, string path) =>
        (method, path) is ("DELETE", "/api/session") or ("POST", "/api/session") or ("POST", "/api/page/{code}/leave") or ("POST", "/api/page/{code}/enter");

    /// <summary>Sends requests while the neighbour taps; returns what was answered wrongly.</summary>
    private static async Task<IReadOnlyList<string>> Wrong(Scene scene, IEnumerable<(HttpClient Http, Func<HttpRequestMessage> Request)> requests)
    {
        var (wrong, answers) = (new ConcurrentBag<string>(), new ConcurrentDictionary<int, int>());
        using var done = new CancellationTokenSource();
        var taps = Task.Run(async () =>
        {
            var (sent, stored) = (0, 0);
            while (!done.IsCancellationRequested)
            {
                var result = await scene.Neighbour.Tap(Enumerable.Range(0, 5).Select(_ => (Act)new NodGiven(scene.Neighbour.Students["Eino"], "on time")));
                (sent, stored) = (sent + 5, stored + result.Accepted.Count);
                await Task.Delay(20);
            }

            return (sent, stored);
        });
        await Parallel.ForEachAsync(requests, new ParallelOptions { MaxDegreeOfParallelism = 8 }, async (one, _) =>
        {
            using var request = one.Request();
            using var answer = await one.Http.SendAsync(request, CancellationToken.None);
            var status = (int)answer.StatusCode;
            answers.AddOrUpdate(status, 1, (_, count) => count + 1);
            var isProblem = answer.Content.Headers.ContentType?.MediaType == "application/problem+json";
            if (status >= 500 || (status >= 400 && !isProblem))
            {
                var body = request.Content is StringContent text ? await text.ReadAsStringAsync(CancellationToken.None) : "";
                wrong.Add($"{status} {request.Method} {request.RequestUri} {(body.Length > 400 ? body[..400] : body)}");
            }
        });
        await done.CancelAsync();
        var (tapped, kept) = await taps;
        kept.ShouldBe(tapped);
        tapped.ShouldBePositive();
        // It is the operations that are tried, and not the door before them.
        (answers.GetValueOrDefault(401) + answers.GetValueOrDefault(403) + answers.GetValueOrDefault(429)).ShouldBeLessThan(answers.Values.Sum() / 10, JsonSerializer.Serialize(answers));
        return [.. wrong.Order().Take(20)];
    }

    private static StringContent Json(string body) => new(body, Encoding.UTF8, "application/json");

    [Fact]
    public async Task A_body_with_anything_wrong_in_it_is_refused_or_taken_and_harms_nobody()
    {
        var (scene, samples) = (await Set(), await Samples(app));
        var requests =
            from operation in samples.Operations
            where !IsLeftOut(operation.Method, operation.Path) && !operation.Path.EndsWith("/entries", StringComparison.Ordinal)
            let schema = ApiSamples.BodyOf(operation.Operation)
            where schema is not null
            from whole in samples.Whole(schema.Value).Take(1)
            from body in ApiSamples.Broken(whole)
            select (DoorOf(operation.Path, scene), (Func<HttpRequestMessage>)(() => new HttpRequestMessage(new HttpMethod(operation.Method), Filled(operation.Path, scene)) { Content = Json(body) }));
        (await Wrong(scene, requests)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("/api/lessons/{id}/entries")]
    [InlineData("/api/help/entries")]
    public async Task Every_kind_of_act_with_anything_wrong_in_it_is_refused_or_taken_and_harms_nobody(string path)
    {
        var (scene, samples) = (await Set(), await Samples(app));
        var schema = ApiSamples.BodyOf(samples.Operations.Single(o => o.Path == path).Operation)!.Value;
        var kinds = samples.Whole(schema).ToList();
        kinds.Count.ShouldBe(Store.ActJson.Kinds.Count);
        var requests =
            from whole in kinds
            // To end or settle the lesson would close the doors that are tried.
            where whole!.ToJsonString() is var text && !text.Contains("lessonEnded", StringComparison.Ordinal) && !text.Contains("lessonSettled", StringComparison.Ordinal)
            from body in ApiSamples.Broken(whole, all: false)
            select (DoorOf(path, scene), (Func<HttpRequestMessage>)(() => new HttpRequestMessage(HttpMethod.Post, Filled(path, scene)) { Content = Json(body) }));
        (await Wrong(scene, requests)).ShouldBeEmpty();
        (await scene.Room.Sheet()).Head.Stage.ShouldBe(Store.Model.LessonStage.Live);
        (await scene.Room.Teacher.Get<BoardView>($"/api/lessons/{scene.Room.Lesson}/board")).ShouldNotBeNull();
    }

    [Fact]
    public async Task An_event_with_anything_wrong_in_it_is_named_and_harms_nobody()
    {
        var scene = await Set();
        string[] kinds = ["joined", "left", "renamed", "hand-raised", "hand-lowered", "message", "reaction", "online"];
        var requests =
            from kind in kinds
            let whole = System.Text.Json.Nodes.JsonNode.Parse($$$"""
                [{"specversion":"1.0","id":"{{{Guid.NewGuid()}}}","source":"urn:test","type":"polite-tally.{{{kind}}}","time":"2026-11-26T09:31:07Z",
                "data":{"name":"Juno","number":"S1","email":"juno@pupils.skerrysound.example","device":"d","to":"Juno Q.","by":"student","text":"low water at four","private":false,"reaction":"clap","status":"away"}}]
                """)
            from body in ApiSamples.Broken(whole)
            select (scene.Meeting, (Func<HttpRequestMessage>)(() => new HttpRequestMessage(HttpMethod.Post, "/api/feed") { Content = Json(body) }));
        (await Wrong(scene, requests)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Odd_and_foreign_ids_in_an_address_are_not_there()
    {
        var (scene, samples) = (await Set(), await Samples(app));
        var requests =
            from operation in samples.Operations
            where operation.Path.Contains('{') && !IsLeftOut(operation.Method, operation.Path)
            from odd in OddIds
            let parts = operation.Path.Split('/')
            from place in Enumerable.Range(0, parts.Length).Where(i => parts[i].StartsWith('{'))
            let path = Filled(string.Join('/', parts.Select((part, i) => i == place ? odd : part)), scene)
            select (DoorOf(operation.Path, scene), (Func<HttpRequestMessage>)(() => new HttpRequestMessage(new HttpMethod(operation.Method), path)
            {
                Content = operation.Method is "POST" or "PUT" ? Json("{}") : null,
            }));
        (await Wrong(scene, requests)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Odd_words_in_a_query_are_refused()
    {
        var (scene, samples) = (await Set(), await Samples(app));
        var requests =
            from operation in samples.Operations
            where operation.Operation.TryGetProperty("parameters", out _)
            let names = operation.Operation.GetProperty("parameters").EnumerateArray().Where(p => p.GetProperty("in").GetString() == "query").Select(p => p.GetProperty("name").GetString()!).ToList()
            from name in names
            from odd in OddIds.Concat(["", "-1", "9999-12-31", "0001-01-01", "x"])
            select (DoorOf(operation.Path, scene), (Func<HttpRequestMessage>)(() => new HttpRequestMessage(
                new HttpMethod(operation.Method), $"{Filled(operation.Path, scene)}?{string.Join('&', names.Select(n => n == name ? $"{n}={odd}" : $"{n}=7"))}")));
        (await Wrong(scene, requests)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Files_that_are_none_are_refused_with_a_reason()
    {
        var (scene, samples) = (await Set(), await Samples(app));
        byte[][] files =
        [
            [], [0xFF, 0xFE, 0x00, 0xD8], Encoding.UTF8.GetBytes("PK\u0003\u0004 not a workbook"), "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:99991231T235959Z\nDURATION:P9999999999D\nRRULE:FREQ=DAILY\nEND:VEVENT\nEND:VCALENDAR"u8.ToArray(),
            "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:a\nSUMMARY:x\nDTSTART;TZID=Nowhere/\u0000:20270111T093000\nDURATION:PT\nEND:VEVENT\nEND:VCALENDAR"u8.ToArray(),
            "Name,Minutes,Joined\nJuno,1e308,99999-99-99\nEino,-5,0001-01-01 00:00\nZai,NaN,31.12.9999 24:00"u8.ToArray(), "{\"plan\":null}"u8.ToArray(),
        ];
        var requests =
            from operation in samples.Operations
            where operation.Method == "POST" && ApiSamples.BodyOf(operation.Operation) is null && (operation.Path.Contains("roster") || operation.Path.Contains("calendar")
                || operation.Path.Contains("/files") || operation.Path.Contains("pictures") || operation.Path.EndsWith("/file"))
            where operation.Path != "/api/calendar/link"
            from file in files
            select (DoorOf(operation.Path, scene), (Func<HttpRequestMessage>)(() => new HttpRequestMessage(HttpMethod.Post, Filled(operation.Path, scene))
            {
                Content = new MultipartFormDataContent
                {
                    { new ByteArrayContent(file), "file", "list.csv" }, { new StringContent("[null]"), "choices" }, { new StringContent("Nowhere/Land"), "zone" },
                    { new StringContent("{\"name\":99999}"), "mapping" }, { new StringContent("9999-12-31"), "until" },
                },
            }));
        (await Wrong(scene, requests)).ShouldBeEmpty();
    }
}
