using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>What all who draw files write with.</summary>
internal static class Writing
{
    private static readonly JsonSerializerOptions AsItStands = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>One of some.</summary>
    public static T Of<T>(this Random random, IReadOnlyList<T> some) => some[random.Next(some.Count)];

    /// <summary>A cell as a table has it: in quotation marks if it must be.</summary>
    public static string Quoted(string cell, char separator) => cell.Contains(separator) || cell.Contains('"') ? $"\"{cell.Replace("\"", "\"\"")}\"" : cell;

    /// <summary>Puts a value at a path, such as “user.name”.</summary>
    public static JsonObject Put(this JsonObject into, string path, JsonNode value)
    {
        var (at, parts) = (into, path.Split('.'));
        foreach (var part in parts[..^1])
        {
            at = (JsonObject)(at[part] ??= new JsonObject());
        }

        at[parts[^1]] = value;
        return into;
    }

    /// <summary>JSON with its letters as they are.</summary>
    public static string Json(JsonNode root) => root.ToJsonString(AsItStands);
}
