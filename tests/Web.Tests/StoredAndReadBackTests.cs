using System.Text;
using System.Text.Json.Nodes;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Notes;

namespace PoliteTally.Web.Tests;

/// <summary>
/// Whole documents as the program itself hands them out, each sent back with every member missing, wrong, huge, nested or odd: nothing fails, whatever is stored can be
/// read again, and the class beside it is as it was.
/// </summary>
public sealed class StoredAndReadBackTests : IAsyncLifetime
{
    private readonly AppUnderTest _app = new();

    public ValueTask InitializeAsync() => _app.InitializeAsync();

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    private static readonly string[] Wrong =
    [
        "null", "true", "false", "0", "-1", "1", "0.1", "1e308", "-1e308", "1e-308", "99999999999999999999", "253402300799999", "-62135596800000", "\"\"", "\" \"", "\"\\u0000\"", "\"\\ud800\"", "\"\\ufdd0\"", "\"\\u202e\"",
        "\"٣:٤٥\"", "\"9999-12-31\"", "\"0001-01-01\"", "\"24:00\"", "\"not one of these\"", "{}", "[]", "[null]", "[[]]", "[{}]", "{\"id\":null}", "[\"x\",\"x\"]", "\"00000000-0000-0000-0000-000000000000\"",
    ];

    /// <summary>A document, where it is sent, and what is read to see that it can be.</summary>
    private sealed record Document(string Name, HttpMethod Method, string Path, JsonNode Whole, string ReadBack);

    private static async Task<JsonNode> Got(Visitor teacher, string path) => JsonNode.Parse(await teacher.Http.GetStringAsync(path))!;

    private static async Task<IReadOnlyList<Document>> Documents(Visitor teacher, Classroom room)
    {
        var rules = (await Got(teacher, $"/api/classes/{room.Class}/rules"))["rules"]!;
        rules["scheme"]!["bands"] = JsonNode.Parse("""[{"from":0,"name":"begins"},{"from":60,"name":"takes part"}]""");
        rules["scheme"]!["criteria"] = JsonNode.Parse($$$"""[{"id":"{{{Guid.NewGuid()}}}","name":"listens","levels":[{"id":"{{{Guid.NewGuid()}}}","name":"always","worth":1},{"id":"{{{Guid.NewGuid()}}}","name":"at times","worth":0.5}]}]""");
        var plan = (await Got(teacher, $"/api/lessons/{room.Lesson}/plan"))["plan"]!;
        plan["stages"] = JsonNode.Parse($$$"""[{"id":"{{{Guid.NewGuid()}}}","name":"wind","minutes":10,"directions":"look out"}]""");
        plan["points"] = JsonNode.Parse($$$"""[{"id":"{{{Guid.NewGuid()}}}","text":"where it comes from"}]""");
        plan["apart"] = JsonNode.Parse($$$"""[{"id":"{{{Guid.NewGuid()}}}","students":["{{{room.Students["Juno"]}}}","{{{room.Students["Eino"]}}}"]}]""");
        return
        [
            new("rules of a class", HttpMethod.Put, $"/api/classes/{room.Class}/rules", new JsonObject { ["rules"] = rules.DeepClone(), ["why"] = "tried" }, $"/api/classes/{room.Class}/rules"),
            new("rules of a lesson", HttpMethod.Put, $"/api/lessons/{room.Lesson}/rules", new JsonObject { ["rules"] = rules.DeepClone(), ["why"] = "tried" }, $"/api/lessons/{room.Lesson}/rules"),
            new("scheme", HttpMethod.Post, $"/api/classes/{room.Class}/scheme", new JsonObject { ["scheme"] = rules["scheme"]!.DeepClone(), ["why"] = "tried", ["after"] = 1, ["lessons"] = new JsonArray() }, $"/api/classes/{room.Class}/scheme"),
            new("plan", HttpMethod.Put, $"/api/lessons/{room.Lesson}/plan", new JsonObject { ["version"] = 0, ["origin"] = plan.DeepClone(), ["plan"] = plan.DeepClone() }, $"/api/lessons/{room.Lesson}/plan"),
            new("term", HttpMethod.Post, "/api/terms", JsonNode.Parse("""{"name":"This term","firstDay":"2026-11-02","lastDay":"2026-12-18","daysOff":[{"name":"Sheep gathering","firstDay":"2026-11-26","lastDay":"2026-11-27"}]}""")!, "/api/terms"),
            new("keys", HttpMethod.Put, "/api/live-keys", JsonNode.Parse("""{"changed":{"nod":"5"}}""")!, "/api/live-keys"),
            new("shelf", HttpMethod.Post, "/api/shelf", JsonNode.Parse($$$"""{"question":{"id":"{{{Guid.NewGuid()}}}","kind":"singleChoice","purpose":"quiz","text":"What is fog?","options":[{"id":"{{{Guid.NewGuid()}}}","text":"a cloud","right":true,"picture":null,"pictureText":""}]}}""")!, "/api/shelf"),
        ];
    }

    /// <summary>The document with one place missing, or with something else in it.</summary>
    private static IEnumerable<string> Bodies(JsonNode whole)
    {
        yield return whole.ToJsonString();
        foreach (var place in ApiSamples.Places(whole, []))
        {
            yield return Changed(null);
            foreach (var wrong in Wrong)
            {
                yield return Changed(wrong);
            }

            string Changed(string? instead)
            {
                var copy = whole.DeepClone();
                var parent = place[..^1].Aggregate(copy, (node, key) => key is string name ? node[name]! : node[(int)key]!);
                if (parent is JsonArray list)
                {
                    list[(int)place[^1]] = "here";
                }
                else
                {
                    parent[(string)place[^1]] = "here";
                    if (instead is null)
                    {
                        ((JsonObject)parent).Remove((string)place[^1]);
                    }
                }

                return copy.ToJsonString().Replace("\"here\"", instead ?? "null", StringComparison.Ordinal);
            }
        }
    }

    [Fact]
    public async Task Whatever_is_stored_of_a_document_can_be_read_again_and_the_class_beside_it_is_served()
    {
        var teacher = await _app.SignedIn();
        var neighbour = await (await _app.SignedIn("odhran")).Teach();
        var (room, beside) = (await teacher.Teach(), await teacher.Teach());
        await room.Tap(new Marked(room.Students["Juno"], Mark.Here));
        var (sent, stored) = (0, 0);
        foreach (var document in await Documents(teacher, room))
        {
            List<string> wrong = [];
            await Parallel.ForEachAsync(Bodies(document.Whole), new ParallelOptions { MaxDegreeOfParallelism = 4 }, async (body, stop) =>
            {
                using var request = new HttpRequestMessage(document.Method, document.Path) { Content = new StringContent(body, Encoding.UTF8, "application/json") };
                using var answer = await teacher.Http.SendAsync(request, stop);
                Interlocked.Increment(ref sent);
                var isStored = answer.IsSuccessStatusCode;
                Interlocked.Add(ref stored, isStored ? 1 : 0);
                var readBack = isStored ? await teacher.Http.GetAsync(document.ReadBack, stop) : null;
                if ((int)answer.StatusCode >= 500 || readBack is { IsSuccessStatusCode: false })
                {
                    lock (wrong)
                    {
                        wrong.Add($"{document.Name}: {(int)answer.StatusCode}, read back {(int?)readBack?.StatusCode}: {body}");
                    }
                }
            });
            wrong.Take(5).ShouldBeEmpty();
            await Everything.IsServed(teacher, room);
            await Everything.IsServed(teacher, beside);
        }

        await Everything.IsServed(await _app.SignedIn("odhran"), neighbour);
        sent.ShouldBeGreaterThan(10_000);
        stored.ShouldBeInRange(100, sent - 100);
        // And other taps are stored as if nothing were.
        (await room.Tap(new NodGiven(room.Students["Eino"], "on time"))).Refused.ShouldBeEmpty();
    }
}
