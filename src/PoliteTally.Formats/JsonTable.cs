using System.Text.Json;

namespace PoliteTally.Formats;

/// <summary>Reads JSON as a table: the longest list of objects in it, a row each; what lies deeper is a column named by its path.</summary>
internal static class JsonTable
{
    private const int Deepest = 12;

    /// <summary>The table; null if it is no JSON, or has no list of objects.</summary>
    /// <exception cref="FormatProblem">It has too many rows or columns.</exception>
    public static Table? Of(string json)
    {
        try
        {
            using var document = JsonDocument.Parse(json, new JsonDocumentOptions { MaxDepth = Deepest });
            return Lists(document.RootElement).OrderByDescending(l => l.GetArrayLength()).Select(l => (JsonElement?)l).FirstOrDefault() is { } list ? TableOf(list) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static IEnumerable<JsonElement> Lists(JsonElement element) => element.ValueKind switch
    {
        JsonValueKind.Array when element.EnumerateArray().All(e => e.ValueKind == JsonValueKind.Object) && element.GetArrayLength() > 0 => [element],
        JsonValueKind.Object => element.EnumerateObject().SelectMany(p => Lists(p.Value)),
        _ => [],
    };

    private static Table TableOf(JsonElement list)
    {
        if (list.GetArrayLength() > Table.MostOfLesson)
        {
            throw new FormatProblem($"This file has more than {Table.MostOfLesson:N0} messages. Keep only those of this lesson and bring in that.");
        }

        var rows = list.EnumerateArray().Select(e => Values(e, "").GroupBy(v => v.Path).ToDictionary(g => g.Key, g => g.First().Value)).ToList();
        var headings = rows.SelectMany(r => r.Keys).Distinct().ToList();
        return headings.Count > Table.MostColumns
            ? throw new FormatProblem($"Its objects have {headings.Count} properties; at most {Table.MostColumns} can be read.")
            : new Table(headings, 0, [.. rows.Select((r, i) => new TableRow(i + 1, [.. headings.Select(h => Table.Clean(r.GetValueOrDefault(h)))]))], "JSON", HeadingsKnown: true);
    }

    private static IEnumerable<(string Path, string Value)> Values(JsonElement element, string path) => element.ValueKind switch
    {
        JsonValueKind.Object => element.EnumerateObject().SelectMany(p => Values(p.Value, path.Length == 0 ? p.Name : $"{path}.{p.Name}")),
        JsonValueKind.String => [(path, element.GetString()!)],
        JsonValueKind.Number => [(path, element.GetRawText())],
        _ => [],
    };
}
