using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;

namespace PoliteTally.Store;

/// <summary>How acts are written as JSON, in the file and between browser and server. The kinds stand here once.</summary>
public static class ActJson
{
    /// <summary>Every kind of act and its name in JSON. A name, once given, stays: it is in people's files.</summary>
    public static readonly IReadOnlyDictionary<string, Type> Kinds = new Dictionary<string, Type>
    {
        ["lessonStarted"] = typeof(LessonStarted),
        ["lessonEnded"] = typeof(LessonEnded),
        ["lessonSettled"] = typeof(LessonSettled),
        ["struck"] = typeof(Struck),
        ["marked"] = typeof(Marked),
        ["statusDeclared"] = typeof(StatusDeclared),
        ["excuseRecorded"] = typeof(ExcuseRecorded),
        ["handRaised"] = typeof(HandRaised),
        ["handEnded"] = typeof(HandEnded),
        ["called"] = typeof(Called),
        ["turnTaken"] = typeof(TurnTaken),
        ["chatSaid"] = typeof(ChatSaid),
        ["nodGiven"] = typeof(NodGiven),
        ["reminderTicked"] = typeof(ReminderTicked),
        ["joined"] = typeof(Joined),
        ["left"] = typeof(Left),
        ["seen"] = typeof(Seen),
        ["attended"] = typeof(Attended),
        ["nameMatched"] = typeof(NameMatched),
    };

    private static readonly JsonSerializerOptions Options = Configure(new JsonSerializerOptions());

    /// <summary>Adds the ways of this project to options: camel case, names for enums, types for acts.</summary>
    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.AllowOutOfOrderMetadataProperties = true;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.Converters.Add(new Seconds());
        options.TypeInfoResolver = new DefaultJsonTypeInfoResolver().WithAddedModifier(AddKinds);
        return options;
    }

    /// <summary>Writes an act.</summary>
    public static string Write(Act act) => JsonSerializer.Serialize(act, Options);

    /// <summary>Reads an act.</summary>
    /// <exception cref="JsonException">The text is not an act.</exception>
    public static Act Read(string json) =>
        JsonSerializer.Deserialize<Act>(json, Options) ?? throw new JsonException("An act is missing.");

    private static void AddKinds(JsonTypeInfo type)
    {
        if (type.Type == typeof(Act))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "type" };
            foreach (var (name, kind) in Kinds)
            {
                type.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(kind, name));
            }
        }

        // What follows from the rest is not written beside it: it would be one more thing to disagree.
        if (typeof(Act).IsAssignableFrom(type.Type) || type.Type == typeof(Plan) || type.Type == typeof(Question))
        {
            foreach (var derived in type.Properties.Where(p => p.Set is null && p.AssociatedParameter is null).ToList())
            {
                type.Properties.Remove(derived);
            }
        }
    }

    private sealed class Seconds : JsonConverter<Duration>
    {
        public override Duration Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            Duration.FromSeconds(reader.GetDouble());

        public override void Write(Utf8JsonWriter writer, Duration value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.TotalSeconds);
    }
}
