using System.Runtime.InteropServices;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace PoliteTally.Formats;

/// <summary>
/// Reads JSON as a table: the longest list of objects or of rows in it, else the objects that stand under names, a row each; what lies deeper is a column named by its path. If asked to, a list that nearly every one of
/// them has inside is taken apart: a row for each of its objects, with what stands around them.
/// </summary>
internal static partial class JsonTable
{
    // An escape of one half takes six characters, that of a whole letter outside the first plane twice as many.
    private const int HalfALetter = 6;

    // One or two objects may be anything.
    private const int FewNames = 3;

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
        Lists(document.RootElement).OrderByDescending(l => l.GetArrayLength()).Select(l => (JsonElement?)l).FirstOrDefault() is { } list ? TableOf(list, takeApart && IsOfObjects(list) ? ListInside(list) : null)
        : ByName(document.RootElement) is { } named ? TableOf(named, null)
        : null;

    // An object for each name, all of the same kind; null if there is none.
    private static JsonElement? ByName(JsonElement element) => element.ValueKind != JsonValueKind.Object ? null
        : element.EnumerateObject().Skip(FewNames - 1).Any() && element.EnumerateObject().All(p => p.Value.ValueKind == JsonValueKind.Object) ? element
        : element.EnumerateObject().Select(p => ByName(p.Value)).FirstOrDefault(found => found is not null);

    private static IEnumerable<JsonElement> Lists(JsonElement element) => element.ValueKind switch
    {
        JsonValueKind.Array when IsOfObjects(element) || IsOfRows(element) => [element],
        JsonValueKind.Object => element.EnumerateObject().SelectMany(p => Lists(p.Value)),
        _ => [],
    };

    private static bool IsOfRows(JsonElement element) => element.GetArrayLength() > 1 && element.EnumerateArray().All(e => e.ValueKind == JsonValueKind.Array && e.GetArrayLength() > 1 && e.EnumerateArray().All(c => c.ValueKind is not (JsonValueKind.Array or JsonValueKind.Object)));

    private static bool IsOfObjects(JsonElement element) => element.ValueKind == JsonValueKind.Array && element.GetArrayLength() > 0 && element.EnumerateArray().All(e => e.ValueKind == JsonValueKind.Object);

    // The property in which nearly all objects of a list have a list of their own, with most in it; null if there is none.
    private static string? ListInside(JsonElement list) =>
        list.EnumerateArray().SelectMany(e => e.EnumerateObject()).Where(p => IsOfObjects(p.Value) || (p.Value.ValueKind == JsonValueKind.Array && p.Value.GetArrayLength() == 0)).GroupBy(p => p.Name)
            .Where(p => p.Count() >= CellContent.Most * list.GetArrayLength() && p.Any(inside => inside.Value.GetArrayLength() > 0)).MaxBy(p => p.Sum(inside => inside.Value.GetArrayLength()))?.Key;

    private static Table TableOf(JsonElement list, string? apart)
    {
        var (top, within) = (new Place(""), new Place(apart ?? ""));
        var (headings, cells) = (new List<string>(), new List<string>());
        var rows = new TableRows(0);
        var number = 0;
        if (list.ValueKind == JsonValueKind.Object)
        {
            var name = new Place("name");
            foreach (var one in list.EnumerateObject())
            {
                Add(one.Value, null, (name, one.Name));
            }
        }
        else
        {
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
        }

        // A property that comes later is missing from the rows before it.
        foreach (ref var row in CollectionsMarshal.AsSpan(rows.All))
        {
            row = row.Cells.Count == headings.Count ? row : row with { Cells = (string[])[.. row.Cells, .. Enumerable.Repeat("", headings.Count - row.Cells.Count)] };
        }

        return new Table(headings, 0, rows.All, "JSON", HeadingsKnown: true);

        void Add(JsonElement element, JsonElement? inside, (Place Place, string Name)? of = null)
        {
            ReadingBudget.Ask();
            if (number == Table.MostOfLesson)
            {
                throw new FormatProblem($"This file has more than {Table.MostOfLesson:N0} rows. Keep only those of this lesson and bring in that.");
            }

            CollectionsMarshal.AsSpan(cells).Fill("");
            if (of is { } whose)
            {
                Put(whose.Place, Table.Clean(whose.Name), cells, headings);
            }

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
                if (place.Column < 0 || cells[place.Column].Length == 0)
                {
                    Put(place, place.TextOf(element), cells, headings);
                }

                break;
            case JsonValueKind.Array when place.Path.Length == 0:
                var cell = 0;
                foreach (var value in element.EnumerateArray())
                {
                    Fill(value, place.At(cell++), cells, headings);
                }

                break;
        }
    }

    private static void Put(Place place, string text, List<string> cells, List<string> headings)
    {
        if (place.Column < 0)
        {
            if (headings.Count == Table.MostColumns)
            {
                throw TooWide();
            }

            place.Column = headings.Count;
            headings.Add(place.Path);
            cells.Add("");
        }

        cells[place.Column] = text;
    }

    private static FormatProblem TooWide() => new($"Its objects have more than {Table.MostColumns} properties, which is more than can be read. Save only those that are wanted.");

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

        /// <summary>A place in a row.</summary>
        public Place At(int index)
        {
            _inside ??= new OrderedDictionary<string, Place>(StringComparer.Ordinal);
            if (index >= Table.MostColumns)
            {
                throw TooWide();
            }

            while (_inside.Count <= index)
            {
                _inside[$"{_inside.Count}"] = new Place($"Column {_inside.Count + 1}");
            }

            return _inside.GetAt(index).Value;
        }

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
