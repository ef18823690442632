using System.Runtime.InteropServices;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace PoliteTally.Formats;

/// <summary>
/// Reads JSON as a table: the longest list of objects in it, a row each; what lies deeper is a column named by its path. If asked to, a list that nearly every one of
/// them has inside is taken apart: a row for each of its objects, with what stands around them.
/// </summary>
internal static partial class JsonTable
{
    // An escape of one half takes six characters, that of a whole letter outside the first plane twice as many.
    private const int HalfALetter = 6;

    private static readonly JsonDocumentOptions Options = new() { MaxDepth = 12 };

    /// <summary>The table; null if it is no JSON, or has no list of objects.</summary>
    /// <param name="text">The file.</param>
    /// <param name="takeApart">Whether lists inside are taken apart.</param>
    /// <exception cref="FormatProblem">It has too many rows or columns.</exception>
    public static Table? Of(FileText text, bool takeApart = false)
    {
        try
        {
            using var document = text.Json(Options);
            return TableIn(document, takeApart);
        }
        catch (InvalidOperationException)
        {
            // Half of a letter, where a program cut a message in the middle of a smiley.
            using var document = JsonDocument.Parse(Escapes().Replace(text.Whole, e => e.Length == HalfALetter && char.IsSurrogate((char)Convert.ToInt32(e.Value[2..], 16)) ? @"\ufffd" : e.Value), Options);
            return TableIn(document, takeApart);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static Table? TableIn(JsonDocument document, bool takeApart) =>
        Lists(document.RootElement).OrderByDescending(l => l.GetArrayLength()).Select(l => (JsonElement?)l).FirstOrDefault() is { } list ? TableOf(list, takeApart ? ListInside(list) : null) : null;

    private static IEnumerable<JsonElement> Lists(JsonElement element) => element.ValueKind switch
    {
        JsonValueKind.Array when IsOfObjects(element) => [element],
        JsonValueKind.Object => element.EnumerateObject().SelectMany(p => Lists(p.Value)),
        _ => [],
    };

    private static bool IsOfObjects(JsonElement element) => element.ValueKind == JsonValueKind.Array && element.GetArrayLength() > 0 && element.EnumerateArray().All(e => e.ValueKind == JsonValueKind.Object);

    // The property in which nearly all objects of a list have a list of their own, with most in it; null if there is none.
    private static string? ListInside(JsonElement list) =>
        list.EnumerateArray().SelectMany(e => e.EnumerateObject()).Where(p => IsOfObjects(p.Value) || (p.Value.ValueKind == JsonValueKind.Array && p.Value.GetArrayLength() == 0)).GroupBy(p => p.Name)
            .Where(p => p.Count() >= CellContent.Most * list.GetArrayLength() && p.Any(inside => inside.Value.GetArrayLength() > 0)).MaxBy(p => p.Sum(inside => inside.Value.GetArrayLength()))?.Key;

    private static Table TableOf(JsonElement list, string? apart)
    {
        var (top, within) = (new Place(""), new Place(apart ?? ""));
        var (headings, cells) = (new List<string>(), new List<string>());
        var rows = new TableRows(list.GetArrayLength());
        var number = 0;
        foreach (var element in list.EnumerateArray())
        {
            if (apart is null)
            {
                Add(element, null);
            }
            else if (element.TryGetProperty(apart, out var inside) && IsOfObjects(inside))
            {
                foreach (var one in inside.EnumerateArray())
                {
                    Add(element, one);
                }
            }
        }

        // A property that comes later is missing from the rows before it.
        foreach (ref var row in CollectionsMarshal.AsSpan(rows.All))
        {
            row = row.Cells.Count == headings.Count ? row : row with { Cells = (string[])[.. row.Cells, .. Enumerable.Repeat("", headings.Count - row.Cells.Count)] };
        }

        return new Table(headings, 0, rows.All, "JSON", HeadingsKnown: true);

        void Add(JsonElement element, JsonElement? inside)
        {
            ReadingBudget.Ask();
            if (number == Table.MostOfLesson)
            {
                throw new FormatProblem($"This file has more than {Table.MostOfLesson:N0} rows. Keep only those of this lesson and bring in that.");
            }

            CollectionsMarshal.AsSpan(cells).Fill("");
            Fill(element, top, cells, headings);
            if (inside is { } one)
            {
                Fill(one, within, cells, headings);
            }

            rows.Add(++number, CollectionsMarshal.AsSpan(cells));
        }
    }

    // The first of two values of one path is taken, as a reader of headings would.
    private static void Fill(JsonElement element, Place place, List<string> cells, List<string> headings)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                var at = 0;
                foreach (var property in element.EnumerateObject())
                {
                    Fill(property.Value, place.Inside(property, at++), cells, headings);
                }

                break;
            case JsonValueKind.String or JsonValueKind.Number or JsonValueKind.True or JsonValueKind.False:
                if (place.Column < 0)
                {
                    if (headings.Count == Table.MostColumns)
                    {
                        throw new FormatProblem($"Its objects have more than {Table.MostColumns} properties, which is more than can be read. Save only those that are wanted.");
                    }

                    place.Column = headings.Count;
                    headings.Add(place.Path);
                    cells.Add("");
                }

                if (cells[place.Column].Length == 0)
                {
                    cells[place.Column] = place.TextOf(element);
                }

                break;
        }
    }

    // A backslash with what it stands for; both halves of a letter together.
    [GeneratedRegex(@"\\(?:u[dD][89abAB][0-9a-fA-F]{2}\\u[dD][c-fC-F][0-9a-fA-F]{2}|u[0-9a-fA-F]{4}|.)")]
    private static partial Regex Escapes();

    /// <summary>A property, wherever it lies in the objects, and the column it stands for; -1 while it stands for none.</summary>
    private sealed class Place(string path)
    {
        // What is longer is said once.
        private const int Short = 40;
        private const int MostKept = 1024;

        // Only what is there: a file may have properties without end.
        private OrderedDictionary<string, Place>? _inside;
        private string?[]? _kept;

        public string Path => path;

        public int Column { get; set; } = -1;

        /// <summary>A property of it. Objects of one list have the same ones in the same order.</summary>
        public Place Inside(JsonProperty property, int at)
        {
            _inside ??= new OrderedDictionary<string, Place>(StringComparer.Ordinal);
            if (at < _inside.Count && _inside.GetAt(at) is var (likely, place) && property.NameEquals(likely))
            {
                return place;
            }

            var name = property.Name;
            return _inside.TryGetValue(name, out var known) ? known : _inside[name] = new Place(path.Length == 0 ? name : $"{path}.{name}");
        }

        /// <summary>The text of a value. The same names and times stand in many rows: one text for all of them.</summary>
        public string TextOf(JsonElement value)
        {
            var raw = JsonMarshal.GetRawUtf8Value(value);
            if (value.ValueKind != JsonValueKind.String || raw.Length > Short)
            {
                return Table.Clean(value.ValueKind == JsonValueKind.String ? value.GetString() : value.GetRawText());
            }

            var hash = new HashCode();
            hash.AddBytes(raw);
            ref var kept = ref (_kept ??= new string?[MostKept])[(uint)hash.ToHashCode() % MostKept];
            return kept is not null && value.ValueEquals(kept) ? kept : kept = Table.Clean(value.GetString());
        }
    }
}
