using System.Text.Json;
using System.Text.Json.Nodes;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Scoring;
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
    /// <param name="inClass">The class.</param>
    /// <param name="scheme">An older version of its scheme; null for the one it has.</param>
    public static ClassRules Of(SchoolClass inClass, Scheme? scheme = null)
    {
        var rules = Patched(ClassRules.Default, inClass.Rules);
        return scheme is null ? rules : rules with { Scheme = scheme };
    }

    /// <summary>The ground rules of a lesson, of a class whose rules are read already: a term has many lessons.</summary>
    public static ClassRules Of(Lesson lesson, ClassRules ofClass) => Patched(ofClass, lesson.Rules);

    /// <summary>The ground rules of a lesson of a class.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="inClass">Its class.</param>
    /// <param name="scheme">The scheme that it is scored by; null if it is that of its class.</param>
    public static ClassRules Of(Lesson lesson, SchoolClass inClass, Scheme? scheme = null) => Of(lesson, Of(inClass, scheme));

    /// <summary>A scheme as a version keeps it.</summary>
    public static string Written(Scheme scheme) => JsonSerializer.Serialize(scheme, Options);

    /// <summary>The scheme that a version keeps.</summary>
    public static Scheme SchemeOf(string written) => JsonSerializer.Deserialize<Scheme>(written, Options)!;

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
