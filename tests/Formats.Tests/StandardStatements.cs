using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace PoliteTally.Formats.Tests;

/// <summary>A statement of the Experience API, as far as tests look at it.</summary>
public sealed record StandardStatement(string Id, string Actor, string Verb, string About, string Parent, decimal? Scaled, string? Response);

/// <summary>Reads statements by the rules of the standard (xAPI 1.0.3, part two), and refuses what breaks one of them.</summary>
public static partial class StandardStatements
{
    // 2.4: what a statement may hold, of what ours hold any of.
    private static readonly Dictionary<string, string[]> Known = new()
    {
        [""] = ["id", "actor", "verb", "object", "result", "context", "timestamp"],
        ["actor"] = ["objectType", "name", "account"],
        ["actor.account"] = ["homePage", "name"],
        ["verb"] = ["id", "display"],
        ["object"] = ["objectType", "id", "definition"],
        ["object.definition"] = ["name", "description", "type"],
        ["result"] = ["score", "success", "completion", "response", "duration"],
        ["result.score"] = ["scaled", "raw", "min", "max"],
        ["context"] = ["platform", "contextActivities", "language"],
        ["context.contextActivities"] = ["parent", "grouping", "category", "other"],
    };

    public static IReadOnlyList<StandardStatement> Read(byte[] json)
    {
        var statements = JsonDocument.Parse(json).RootElement.EnumerateArray().Select(Statement).ToList();
        return statements.Select(s => s.Id).Distinct().Count() == statements.Count ? statements : throw new FormatException("Two statements have one id.");
    }

    private static StandardStatement Statement(JsonElement one)
    {
        Names("", one);
        var id = Must(one, "id").GetString()!;
        Hold(Guid.TryParseExact(id, "D", out _), $"id {id} is no UUID");
        var (actor, verb, about) = (Must(one, "actor"), Must(one, "verb"), Must(one, "object"));
        // 2.4.2: an agent has exactly one way to be known by.
        Hold(Must(actor, "objectType").GetString() == "Agent", "the actor is no agent");
        Iri(Must(Must(actor, "account"), "homePage"));
        Hold(Must(Must(actor, "account"), "name").GetString()!.Length > 0, "an account has a name");
        Iri(Must(verb, "id"));
        Languages(Must(verb, "display"));
        Iri(Must(about, "id"));
        Languages(Must(Must(about, "definition"), "name"));
        Iri(Must(Must(about, "definition"), "type"));
        // 4.5.7 of the standard: ISO 8601 with a zone.
        var at = Must(one, "timestamp").GetString()!;
        Hold(at.EndsWith('Z') && DateTimeOffset.TryParse(at, CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind, out _), $"timestamp {at}");
        decimal? scaled = null;
        string? response = null;
        if (one.TryGetProperty("result", out var result))
        {
            if (result.TryGetProperty("score", out var score))
            {
                scaled = Must(score, "scaled").GetDecimal();
                Hold(scaled is >= -1 and <= 1, $"scaled {scaled}");
            }

            if (result.TryGetProperty("duration", out var length))
            {
                Hold(Iso8601().IsMatch(length.GetString()!), $"duration {length}");
            }

            response = result.TryGetProperty("response", out var said) ? said.GetString() : null;
        }

        var parent = Must(Must(Must(one, "context"), "contextActivities"), "parent")[0];
        Iri(Must(parent, "id"));
        return new StandardStatement(
            id, Must(actor, "name").GetString()!, Must(verb, "id").GetString()!.Split('/')[^1], Must(about, "id").GetString()!, Must(parent, "id").GetString()!, scaled, response);
    }

    private static void Names(string path, JsonElement one)
    {
        if (!Known.TryGetValue(path, out var known))
        {
            return;
        }

        foreach (var property in one.EnumerateObject())
        {
            Hold(known.Contains(property.Name), $"{path}.{property.Name} is not of the standard");
            Hold(property.Value.ValueKind != JsonValueKind.Null, $"{path}.{property.Name} is null");
            if (property.Value.ValueKind == JsonValueKind.Object)
            {
                Names(path.Length == 0 ? property.Name : $"{path}.{property.Name}", property.Value);
            }
        }
    }

    private static JsonElement Must(JsonElement one, string name) => one.TryGetProperty(name, out var value) ? value : throw new FormatException($"{name} is missing in {one}");

    private static void Iri(JsonElement one) => Hold(Uri.TryCreate(one.GetString(), UriKind.Absolute, out _), $"{one} is no IRI");

    // A language map: tags of RFC 5646 to words.
    private static void Languages(JsonElement map) => Hold(map.EnumerateObject().All(l => Tag().IsMatch(l.Name) && l.Value.ValueKind == JsonValueKind.String) && map.EnumerateObject().Any(), $"{map} is no language map");

    private static void Hold(bool right, string what)
    {
        if (!right)
        {
            throw new FormatException(what);
        }
    }

    [GeneratedRegex(@"^P(\d+D)?(T(\d+H)?(\d+M)?(\d+(\.\d{1,2})?S)?)?$", RegexOptions.CultureInvariant)]
    private static partial Regex Iso8601();

    [GeneratedRegex("^[a-z]{2,3}(-[A-Za-z0-9]+)*$", RegexOptions.CultureInvariant)]
    private static partial Regex Tag();
}
