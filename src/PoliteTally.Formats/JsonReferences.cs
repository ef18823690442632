using System.Runtime.InteropServices;
using System.Text.Json;

namespace PoliteTally.Formats;

/// <summary>
/// Where a program names people or questions once and says later only which of them it means, by an id, the name stands in place of the id. What has but ids and names is left out then, so that
/// the longest list is not that of the names.
/// </summary>
internal static class JsonReferences
{
    private const int Fewest = 2;
    private const int MostBeside = 4;
    private const int MostNames = 5_000;

    private static readonly JsonDocumentOptions Options = new() { MaxDepth = 64 };

    private static readonly HashSet<string> Ids = ["id", "key", "uid", "code", "userid", "personid", "studentid", "participantid", "questionid", "speakerid", "memberid", "ref"];
    private static readonly string[] Names = ["name", "displayname", "fullname", "screenname", "text", "title", "question", "prompt", "label", "caption"];

    // A number may be anything; one under such a word is somebody, or a question.
    private static readonly HashSet<string> OfSomebody =
        ["person", "user", "student", "participant", "sender", "from", "author", "speaker", "member", "attendee", "pupil", "who", "by", "question", "item", "poll"];

    /// <summary>JSON with names in place of ids; null if it has none that are meant so, or is no JSON.</summary>
    /// <param name="text">The file.</param>
    public static byte[]? Resolved(FileText text)
    {
        try
        {
            using var document = text.Json(Options);
            // Where many objects have the same properties, those are no names.
            var registers = Registers(document.RootElement).Where(r => r.Names.Count is >= Fewest and <= MostNames).GroupBy(r => string.Join('\n', r.Names.Keys), StringComparer.Ordinal)
                .Where(g => !g.Skip(1).Any()).Select(g => g.First()).ToList();
            if (registers.Count == 0)
            {
                return null;
            }

            var used = new Used(registers);
            used.Look(document.RootElement, "");
            return used.Chosen() is { Count: > 0 } chosen ? Written(document.RootElement, chosen) : null;
        }
        catch (Exception none) when (none is JsonException or InvalidOperationException)
        {
            return null;
        }
    }

    /// <summary>Who or what is called how.</summary>
    /// <param name="At">Where that stands.</param>
    /// <param name="Names">The name of each id, as it is written.</param>
    /// <param name="IsBare">Whether nothing else is said there.</param>
    /// <param name="MayNameProperties">Whether other objects may have properties called by its ids.</param>
    private sealed record Register(JsonElement At, IReadOnlyDictionary<string, string> Names, bool IsBare, bool MayNameProperties);

    private static IEnumerable<Register> Registers(JsonElement element)
    {
        ReadingBudget.Ask();
        return element.ValueKind switch
        {
            JsonValueKind.Array when OfList(element) is { } list => [list],
            JsonValueKind.Object => (OfKeys(element) is { } keys ? new[] { keys } : []).Concat(element.EnumerateObject().SelectMany(p => Registers(p.Value))),
            _ => [],
        };
    }

    // [{"id": 1, "name": "Juno"}, …]
    private static Register? OfList(JsonElement list)
    {
        var (names, bare) = (new Dictionary<string, string>(StringComparer.Ordinal), true);
        foreach (var one in list.EnumerateArray())
        {
            if (one.ValueKind != JsonValueKind.Object || IdOf(one) is not { } id || NameOf(one) is not { } name || !names.TryAdd(id, name))
            {
                return null;
            }

            bare &= IsBare(one);
        }

        return new Register(list, names, bare, MayNameProperties: bare);
    }

    // {"u1": {"name": "Juno"}, …} or {"u1": "Juno", …}
    private static Register? OfKeys(JsonElement element)
    {
        var (names, bare) = (new Dictionary<string, string>(StringComparer.Ordinal), true);
        foreach (var one in element.EnumerateObject())
        {
            var name = one.Value.ValueKind switch
            {
                JsonValueKind.Object => NameOf(one.Value),
                JsonValueKind.String when one.Name.Any(char.IsDigit) && one.Value.GetString() is { } said && said.Any(char.IsLetter) => said,
                _ => null,
            };
            if (name is null || !names.TryAdd(one.Name, name))
            {
                return null;
            }

            bare &= one.Value.ValueKind == JsonValueKind.String || IsBare(one.Value);
        }

        // {"q1": "A"} is what somebody answered, where others have a q1, too.
        return new Register(element, names, bare, MayNameProperties: bare && !element.EnumerateObject().Any(p => p.Value.ValueKind == JsonValueKind.String));
    }

    private static bool IsBare(JsonElement one) =>
        one.EnumerateObject().Count() <= MostBeside && one.EnumerateObject().All(p => p.Value.ValueKind is not (JsonValueKind.Object or JsonValueKind.Array) && !(p.Value.ValueKind == JsonValueKind.String && p.Value.GetString()!.Contains(':')));

    private static string? IdOf(JsonElement one) => one.EnumerateObject().Where(p => Ids.Contains(Columns.Fold(p.Name))).Select(p => ValueOf(p.Value)).FirstOrDefault();

    private static string? NameOf(JsonElement one) =>
        one.EnumerateObject().Where(p => p.Value.ValueKind == JsonValueKind.String && p.Value.GetString()!.Any(char.IsLetter)).Select(p => (Place: Array.IndexOf(Names, Columns.Fold(p.Name)), p.Value))
            .Where(p => p.Place >= 0).OrderBy(p => p.Place).Select(p => p.Value.GetString()).FirstOrDefault();

    private static string? ValueOf(JsonElement value) => value.ValueKind switch
    {
        JsonValueKind.String => value.GetString(),
        JsonValueKind.Number => value.GetRawText(),
        _ => null,
    };

    /// <summary>Under which properties there is nothing but ids.</summary>
    private sealed class Used(List<Register> registers)
    {
        private readonly HashSet<string> _keys = new(StringComparer.Ordinal);

        // By property, what stands under it; null once something is no id.
        private readonly Dictionary<string, HashSet<string>?> _values = new(StringComparer.Ordinal);
        private readonly HashSet<string> _numbers = new(StringComparer.Ordinal);

        public void Look(JsonElement element, string name)
        {
            ReadingBudget.Ask();
            switch (element.ValueKind)
            {
                case JsonValueKind.Object or JsonValueKind.Array when registers.Exists(r => r.IsBare && Same(r.At, element)):
                    break;
                case JsonValueKind.Object:
                    foreach (var property in element.EnumerateObject())
                    {
                        if (registers.Exists(r => r.Names.ContainsKey(property.Name)))
                        {
                            _keys.Add(property.Name);
                        }

                        Look(property.Value, property.Name);
                    }

                    break;
                case JsonValueKind.Array:
                    foreach (var one in element.EnumerateArray())
                    {
                        Look(one, name);
                    }

                    break;
                case JsonValueKind.String or JsonValueKind.Number:
                    Note(name, ValueOf(element)!, element.ValueKind == JsonValueKind.Number);
                    break;
            }
        }

        /// <summary>The registers that are meant anywhere, each with the properties under which it is; an empty name stands for the names of properties.</summary>
        public List<(Register Register, HashSet<string> Under)> Chosen()
        {
            var chosen = new List<(Register, HashSet<string>)>();
            foreach (var register in registers)
            {
                var under = _values.Where(v => v.Key != "id" && v.Value is { Count: > 0 } values && values.All(register.Names.ContainsKey) && (IsOfSomebody(v.Key) || (values.Count >= Fewest && !_numbers.Contains(v.Key))))
                    .Select(v => v.Key).ToHashSet(StringComparer.Ordinal);
                if (register.MayNameProperties && _keys.Count(register.Names.ContainsKey) >= Fewest)
                {
                    under.Add("");
                }

                if (under.Count > 0)
                {
                    chosen.Add((register, under));
                }
            }

            return chosen;
        }

        private void Note(string name, string value, bool isNumber)
        {
            if (!_values.TryGetValue(name, out var seen))
            {
                _values[name] = seen = new HashSet<string>(StringComparer.Ordinal);
            }

            if (seen is null || !registers.Exists(r => r.Names.ContainsKey(value)))
            {
                _values[name] = null;
                return;
            }

            seen.Add(value);
            if (isNumber)
            {
                _numbers.Add(name);
            }
        }

        private static bool IsOfSomebody(string name) => Columns.Fold(name) is var folded && (OfSomebody.Contains(folded) || (folded.EndsWith("id", StringComparison.Ordinal) && OfSomebody.Contains(folded[..^2])));
    }

    private static bool Same(JsonElement a, JsonElement b) => a.ValueKind == b.ValueKind && JsonMarshal.GetRawUtf8Value(a) is var one && JsonMarshal.GetRawUtf8Value(b) is var other
        && one.Length == other.Length && one.Overlaps(other, out var apart) && apart == 0;

    private static byte[] Written(JsonElement root, List<(Register Register, HashSet<string> Under)> chosen)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream))
        {
            Write(root, "");

            void Write(JsonElement element, string name)
            {
                ReadingBudget.Ask();
                switch (element.ValueKind)
                {
                    case JsonValueKind.Object:
                        writer.WriteStartObject();
                        foreach (var property in element.EnumerateObject().Where(p => !IsLeftOut(p.Value)))
                        {
                            writer.WritePropertyName(chosen.Where(c => c.Under.Contains("")).Select(c => c.Register.Names.GetValueOrDefault(property.Name)).FirstOrDefault(n => n is not null) ?? property.Name);
                            Write(property.Value, property.Name);
                        }

                        writer.WriteEndObject();
                        break;
                    case JsonValueKind.Array:
                        writer.WriteStartArray();
                        foreach (var one in element.EnumerateArray().Where(e => !IsLeftOut(e)))
                        {
                            Write(one, name);
                        }

                        writer.WriteEndArray();
                        break;
                    case JsonValueKind.String or JsonValueKind.Number when chosen.Where(c => c.Under.Contains(name)).Select(c => c.Register.Names.GetValueOrDefault(ValueOf(element)!)).FirstOrDefault(n => n is not null) is { } known:
                        writer.WriteStringValue(known);
                        break;
                    default:
                        element.WriteTo(writer);
                        break;
                }
            }
        }

        return stream.ToArray();

        bool IsLeftOut(JsonElement element) => element.ValueKind is JsonValueKind.Object or JsonValueKind.Array && chosen.Exists(c => c.Register.IsBare && Same(c.Register.At, element));
    }
}
