using System.Text.Json;
using System.Text.Json.Nodes;
using PoliteTally.Core.GroundRules;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>
/// How ground rules lie in the file: a class keeps what differs from the defaults, a lesson what differs from its class, as
/// a JSON merge patch (RFC 7396). So what nobody changed follows whatever it comes from.
/// </summary>
public static class RulesJson
{
    private static readonly JsonSerializerOptions Options = ActJson.Configure(new JsonSerializerOptions());

    /// <summary>The ground rules of a class.</summary>
    public static ClassRules Of(SchoolClass inClass) => Patched(ClassRules.Default, inClass.Rules);

    /// <summary>The ground rules of a lesson of a class.</summary>
    public static ClassRules Of(Lesson lesson, SchoolClass inClass) => Patched(Of(inClass), lesson.Rules);

    /// <summary>What of the rules differs from others, to be kept.</summary>
    public static string Difference(ClassRules from, ClassRules rules) =>
        (Difference(Written(from), Written(rules)) ?? []).ToJsonString(Options);

    private static JsonObject Written(ClassRules rules) => JsonSerializer.SerializeToNode(rules, Options)!.AsObject();

    private static ClassRules Patched(ClassRules rules, string patch)
    {
        if (patch == "{}")
        {
            return rules;
        }

        var written = Written(rules);
        Patch(written, JsonNode.Parse(patch)!.AsObject());
        return written.Deserialize<ClassRules>(Options)!;
    }

    private static JsonObject? Difference(JsonObject from, JsonObject to)
    {
        var difference = new JsonObject();
        foreach (var (name, value) in to)
        {
            if (JsonNode.DeepEquals(from[name], value))
            {
                continue;
            }

            difference[name] = from[name] is JsonObject before && value is JsonObject after
                ? Difference(before, after)
                : value?.DeepClone();
        }

        return difference.Count == 0 ? null : difference;
    }

    private static void Patch(JsonObject target, JsonObject patch)
    {
        foreach (var (name, value) in patch)
        {
            if (value is JsonObject inner && target[name] is JsonObject within)
            {
                Patch(within, inner);
            }
            else
            {
                target[name] = value?.DeepClone();
            }
        }
    }
}
