using System.Text.Json;

namespace PoliteTally.Formats;

/// <summary>Reads JSON as a table: the longest list of objects in it, a row each; what lies deeper is a column named by its path.</summary>
internal static class JsonTable
{
    private const int Deepest = 12;

    /// <summary>The table; null if it is no JSON, or has no list of objects.</summary>
    /// <exception cref="FormatProblem">It has too many rows or columns.</exception>
    public static Table? Of(FileText text)
    {
        try
        {
            using var document = text.Json(new JsonDocumentOptions { MaxDepth = Deepest });
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

        var top = new Place("");
        var headings = new List<string>();
        var rows = new List<string[]>(list.GetArrayLength());
        foreach (var element in list.EnumerateArray())
        {
            var cells = new string?[headings.Count];
            Fill(element, top, ref cells, headings);
            rows.Add(cells!);
        }

        // A property that comes later is missing from the rows before it.
        return new Table(headings, 0, [.. rows.Select((cells, i) => new TableRow(i + 1, Whole(cells, headings.Count)))], "JSON", HeadingsKnown: true);
    }

    // The first of two values of one path is taken, as a reader of headings would.
    private static void Fill(JsonElement element, Place place, ref string?[] cells, List<string> headings)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                foreach (var property in element.EnumerateObject())
                {
                    Fill(property.Value, place.Inside(property.Name), ref cells, headings);
                }

                break;
            case JsonValueKind.String or JsonValueKind.Number:
                if (place.Column < 0)
                {
                    if (headings.Count == Table.MostColumns)
                    {
                        throw new FormatProblem($"Its objects have more than {Table.MostColumns} properties, which is more than can be read. Save only those of the messages.");
                    }

                    place.Column = headings.Count;
                    headings.Add(place.Path);
                }

                if (place.Column >= cells.Length)
                {
                    Array.Resize(ref cells, place.Column + 1);
                }

                cells[place.Column] ??= Table.Clean(element.ValueKind == JsonValueKind.String ? element.GetString() : element.GetRawText());
                break;
        }
    }

    private static string[] Whole(string?[] cells, int width)
    {
        if (cells.Length < width)
        {
            Array.Resize(ref cells, width);
        }

        for (var i = 0; i < width; i++)
        {
            cells[i] ??= "";
        }

        return cells!;
    }

    /// <summary>A property, wherever it lies in the objects, and the column it stands for; -1 while it stands for none.</summary>
    private sealed class Place(string path)
    {
        private readonly Dictionary<string, Place> _inside = new(StringComparer.Ordinal);

        public string Path => path;

        public int Column { get; set; } = -1;

        public Place Inside(string name) => _inside.TryGetValue(name, out var place) ? place : _inside[name] = new Place(path.Length == 0 ? name : $"{path}.{name}");
    }
}
