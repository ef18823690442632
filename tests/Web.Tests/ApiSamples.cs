using System.Text.Json;
using System.Text.Json.Nodes;

namespace PoliteTally.Web.Tests;

/// <summary>Bodies made from the description of the API: whole ones, and each of them with one thing wrong.</summary>
internal sealed class ApiSamples(JsonElement description)
{
    private const int Deepest = 6;
    private const string Surrogate = "half-a-pair-of-surrogates";

    private static readonly string[] Wrong =
    [
        "null", "true", "-1", "1e308", "99999999999999999999", "\"\"", "\"\\u0000\"", "\"\\ud800\"", "\"not one of these\"", "{}", "[]", "[null]", "[[[[[[[[[[]]]]]]]]]]",
        "{\"more\":{\"more\":{\"more\":null}}}", "\"9999-12-31\"", "\"00000000-0000-0000-0000-000000000000\"", $"\"{new string('x', 5000)}\"",
    ];

    /// <summary>Every operation that the description names, so that a new one cannot be forgotten.</summary>
    public IEnumerable<(string Method, string Path, JsonElement Operation)> Operations => description.GetProperty("paths").EnumerateObject()
        .SelectMany(p => p.Value.EnumerateObject().Select(m => (m.Name.ToUpperInvariant(), p.Name, m.Value)));

    /// <summary>What an operation takes; null if that is nothing, or a file.</summary>
    public static JsonElement? BodyOf(JsonElement operation) =>
        operation.TryGetProperty("requestBody", out var body) && body.GetProperty("content").TryGetProperty("application/json", out var json)
            ? json.GetProperty("schema") : null;

    /// <summary>Bodies with every member in its place, one for each kind of what comes in kinds.</summary>
    public IEnumerable<JsonNode?> Whole(JsonElement schema, int depth = 0)
    {
        if (schema.TryGetProperty("$ref", out var reference))
        {
            var name = reference.GetString()!.Split('/')[^1];
            return name switch
            {
                "LocalDate" => ["2027-01-11"],
                "LocalTime" => ["09:30"],
                "JsonElement" => [new JsonArray()],
                _ => Whole(description.GetProperty("components").GetProperty("schemas").GetProperty(name), depth),
            };
        }

        foreach (var several in new[] { "anyOf", "oneOf" })
        {
            if (schema.TryGetProperty(several, out var kinds))
            {
                return kinds.EnumerateArray().Where(k => !IsNull(k)).SelectMany(k => Whole(k, depth)).ToList();
            }
        }

        if (schema.TryGetProperty("enum", out var values))
        {
            return [JsonNode.Parse(values.EnumerateArray().First(v => v.ValueKind != JsonValueKind.Null).GetRawText())];
        }

        return KindOf(schema) switch
        {
            "object" => Objects(schema, depth),
            "array" => depth > Deepest ? [new JsonArray()] : Whole(schema.GetProperty("items"), depth + 1).Select(item => (JsonNode?)new JsonArray(item?.DeepClone())).ToList(),
            "string" => [schema.TryGetProperty("format", out var format) && format.GetString() == "uuid" ? Guid.NewGuid().ToString() : "x"],
            "boolean" => [false],
            "number" or "integer" => [50],
            _ => [null],
        };
    }

    /// <summary>A body with one thing wrong in it, for every place and every wrong thing.</summary>
    /// <param name="whole">The body.</param>
    /// <param name="all">Whether every wrong thing is put in every place; else each place has half of them, its neighbour the other half.</param>
    public static IEnumerable<string> Broken(JsonNode? whole, bool all = true)
    {
        foreach (var wrong in Wrong)
        {
            yield return wrong;
        }

        yield return "";
        yield return "{";
        var number = 0;
        foreach (var place in Places(whole, []))
        {
            number++;
            foreach (var wrong in Wrong.Where((_, i) => all || i == 0 || (i + number) % 2 == 0))
            {
                yield return Changed(whole, place, (parent, key) => Set(parent, key, wrong));
            }

            yield return Changed(whole, place, (parent, key) => _ = parent is JsonObject o && o.Remove((string)key));
            yield return Changed(whole, place, (parent, _) => _ = parent is JsonObject o && o.TryAdd("foreign", 1));
        }
    }

    private static bool IsNull(JsonElement schema) => schema.TryGetProperty("type", out var type) && type.ValueKind == JsonValueKind.String && type.GetString() == "null";

    private static string KindOf(JsonElement schema) => !schema.TryGetProperty("type", out var type) ? "null"
        : type.ValueKind == JsonValueKind.Array ? type.EnumerateArray().Select(t => t.GetString()!).First(t => t != "null") : type.GetString()!;

    private IEnumerable<JsonNode?> Objects(JsonElement schema, int depth)
    {
        var made = new JsonObject();
        JsonNode? first = null;
        List<JsonNode?> others = [];
        string several = "";
        foreach (var property in schema.TryGetProperty("properties", out var properties) && depth <= Deepest ? properties.EnumerateObject().ToList() : [])
        {
            var kinds = Whole(property.Value, depth + 1).ToList();
            first = kinds.FirstOrDefault();
            made[property.Name] = first?.DeepClone();
            if (kinds.Count > 1)
            {
                (several, others) = (property.Name, kinds);
            }
        }

        yield return made;
        foreach (var other in others.Skip(1))
        {
            var clone = made.DeepClone();
            clone[several] = other?.DeepClone();
            yield return clone;
        }
    }

    /// <summary>Every place in a document, by the names and numbers on the way to it.</summary>
    public static IEnumerable<object[]> Places(JsonNode? node, object[] at)
    {
        IEnumerable<(object Key, JsonNode? Child)> children = node switch
        {
            JsonObject o => o.Select(p => ((object)p.Key, p.Value)),
            JsonArray a => a.Select((item, i) => ((object)i, item)),
            _ => [],
        };
        return children.SelectMany(c => Places(c.Child, [.. at, c.Key]).Prepend([.. at, c.Key]));
    }

    private static string Changed(JsonNode? whole, object[] place, Action<JsonNode, object> change)
    {
        var copy = whole!.DeepClone();
        var parent = place[..^1].Aggregate(copy, (node, key) => key is string name ? node[name]! : node[(int)key]!);
        change(parent, place[^1]);
        return copy.ToJsonString().Replace(Surrogate, "\\ud800", StringComparison.Ordinal);
    }

    private static void Set(JsonNode parent, object key, string json)
    {
        // The library does not hold half of a pair of surrogates; the text gets it at the end.
        var value = json.Contains("\\ud800", StringComparison.Ordinal) ? JsonValue.Create(Surrogate) : JsonNode.Parse(json);
        if (key is string name)
        {
            parent[name] = value;
        }
        else
        {
            parent[(int)key] = value;
        }
    }
}
