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

    /// <summary>The ground rules of a class. While what is stored cannot be read, the usual ones count (<see cref="CannotBeRead"/>).</summary>
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

    /// <summary>Whether what is stored of the ground rules of a class cannot be read.</summary>
    public static bool CannotBeRead(SchoolClass inClass) => Documents.WhyUnreadable(() => Read(ClassRules.Default, inClass.Rules)) is not null;

    /// <summary>A scheme as a version keeps it.</summary>
    public static string Written(Scheme scheme) => JsonSerializer.Serialize(scheme, Options);

    /// <summary>The scheme that a version keeps; the usual one if what is stored cannot be read.</summary>
    public static Scheme SchemeOf(string written) => Documents.ReadOr(Scheme.Default, () => ReadScheme(written));

    /// <summary>Reads a scheme.</summary>
    /// <exception cref="JsonException">The text is no scheme.</exception>
    internal static Scheme ReadScheme(string written) => JsonSerializer.Deserialize<Scheme>(written, Options) ?? throw new JsonException("It is empty.");

    /// <summary>Reads rules as what they change of others.</summary>
    /// <exception cref="JsonException">With this change the others are no rules.</exception>
    internal static ClassRules Read(ClassRules onto, string patch)
    {
        var written = Written(onto);
        Patch(written, JsonNode.Parse(patch) as JsonObject ?? throw new JsonException("It is no object."));
        return written.Deserialize<ClassRules>(Options) ?? throw new JsonException("It is empty.");
    }

    /// <summary>What of the rules differs from others, to be kept.</summary>
    public static string Difference(ClassRules from, ClassRules rules) =>
        (Difference(Written(from), Written(rules)) ?? []).ToJsonString(Options);

    private static JsonObject Written(ClassRules rules) => JsonSerializer.SerializeToNode(rules, Options)!.AsObject();

    private static ClassRules Patched(ClassRules rules, string patch) => patch == "{}" ? rules : Documents.ReadOr(rules, () => Read(rules, patch));

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

        foreach (var (name, _) in from)
        {
            if (!to.ContainsKey(name))
            {
                difference[name] = null;
            }
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
            else if (value is null)
            {
                target.Remove(name);
            }
            else
            {
                target[name] = value.DeepClone();
            }
        }
    }
}
