using System.Text.Json;
using System.Text.Json.Nodes;

namespace PoliteTally.Formats;

/// <summary>A place that two windows changed in different ways.</summary>
/// <param name="Path">The names on the way to it, from the outside in; of an item in a list its number, from 1.</param>
/// <param name="Mine">What the later window wrote, which stands.</param>
/// <param name="Theirs">What the other had written.</param>
public sealed record MergeConflict(IReadOnlyList<string> Path, string Mine, string Theirs);

/// <summary>
/// Merges two changed versions of a document with the one that both began from. Items of lists are told apart by their
/// <c>id</c>. Where both changed the same place, the later one stands and the other is handed back, so that nothing is lost.
/// </summary>
public static class JsonMerge
{
    /// <summary>Merges; neither document is changed.</summary>
    public static (JsonNode? Merged, IReadOnlyList<MergeConflict> Conflicts) Of(JsonNode? origin, JsonNode? mine, JsonNode? theirs)
    {
        var conflicts = new List<MergeConflict>();
        return (Merge(Plain(origin), Plain(mine), Plain(theirs), [], conflicts), conflicts);
    }

    // Of two members of one name the last counts, as readers of JSON have it; the tree of the library takes no such object.
    private static JsonNode? Plain(JsonNode? node)
    {
        if (node is null)
        {
            return null;
        }

        using var read = JsonDocument.Parse(node.ToJsonString());
        return Plain(read.RootElement);
    }

    private static JsonNode? Plain(JsonElement element)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                var made = new JsonObject();
                foreach (var member in element.EnumerateObject())
                {
                    made[member.Name] = Plain(member.Value);
                }

                return made;
            case JsonValueKind.Array:
                return new JsonArray([.. element.EnumerateArray().Select(Plain)]);
            default:
                return element.ValueKind == JsonValueKind.Null ? null : JsonValue.Create(element.Clone());
        }
    }

    private static JsonNode? Merge(JsonNode? origin, JsonNode? mine, JsonNode? theirs, IReadOnlyList<string> path, List<MergeConflict> conflicts)
    {
        if (JsonNode.DeepEquals(mine, theirs) || JsonNode.DeepEquals(theirs, origin))
        {
            return mine?.DeepClone();
        }

        if (JsonNode.DeepEquals(mine, origin))
        {
            return theirs?.DeepClone();
        }

        if (mine is JsonObject myObject && theirs is JsonObject theirObject)
        {
            return Merge(origin as JsonObject ?? [], myObject, theirObject, path, conflicts);
        }

        if (mine is JsonArray myList && theirs is JsonArray theirList && HasIds(myList) && HasIds(theirList))
        {
            return Merge(origin as JsonArray ?? [], myList, theirList, path, conflicts);
        }

        conflicts.Add(new MergeConflict(path, Text(mine), Text(theirs)));
        return mine?.DeepClone();
    }

    private static JsonObject Merge(JsonObject origin, JsonObject mine, JsonObject theirs, IReadOnlyList<string> path, List<MergeConflict> conflicts)
    {
        var merged = new JsonObject();
        foreach (var name in mine.Select(p => p.Key).Union(theirs.Select(p => p.Key)))
        {
            merged[name] = Merge(origin[name], mine[name], theirs[name], [.. path, name], conflicts);
        }

        return merged;
    }

    private static JsonArray Merge(JsonArray origin, JsonArray mine, JsonArray theirs, IReadOnlyList<string> path, List<MergeConflict> conflicts)
    {
        var (before, here, there) = (ById(origin), ById(mine), ById(theirs));
        // The order of whoever moved something; what the other added goes behind its neighbour of that list.
        var order = here.Keys.Where(before.ContainsKey).SequenceEqual(before.Keys.Where(here.ContainsKey)) ? there.Keys.ToList() : [.. here.Keys];
        Insert(order, [.. here.Keys]);
        Insert(order, [.. there.Keys]);
        var merged = new JsonArray();
        foreach (var (id, number) in order.Select((id, index) => (id, index + 1)))
        {
            var (old, my, their) = (before.GetValueOrDefault(id), here.GetValueOrDefault(id), there.GetValueOrDefault(id));
            // Taken out by one and left alone by the other: out. Taken out by one and changed by the other: kept.
            var takenOut = old is not null && ((my is null && JsonNode.DeepEquals(their, old)) || (their is null && JsonNode.DeepEquals(my, old)) || (my is null && their is null));
            if (!takenOut)
            {
                merged.Add(my is null || their is null
                    ? (my ?? their)!.DeepClone()
                    : Merge(old, my, their, [.. path, number.ToString(System.Globalization.CultureInfo.InvariantCulture)], conflicts));
            }
        }

        return merged;
    }

    private static void Insert(List<string> order, List<string> more)
    {
        for (var i = 0; i < more.Count; i++)
        {
            if (!order.Contains(more[i]))
            {
                order.Insert(i == 0 ? 0 : order.IndexOf(more[i - 1]) + 1, more[i]);
            }
        }
    }

    private static bool HasIds(JsonArray list) => list.All(i => i is JsonObject item && item["id"] is JsonValue) && list.Select(i => i!["id"]!.ToString()).Distinct().Count() == list.Count;

    private static Dictionary<string, JsonNode> ById(JsonArray list) =>
        list.OfType<JsonObject>().Where(i => i["id"] is not null).GroupBy(i => i["id"]!.ToString()).ToDictionary(g => g.Key, g => (JsonNode)g.First());

    private static string Text(JsonNode? node) => node is JsonValue value ? value.ToString() : node?.ToJsonString() ?? "";
}
