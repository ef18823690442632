using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;

namespace PoliteTally.Store;

/// <summary>
/// Lengths that somebody chose are whole minutes or seconds in JSON, under a name that says which. The names stand here once; they are in people's
/// files and stay.
/// </summary>
public static class WholeLengths
{
    private static readonly Duration Minute = Duration.FromMinutes(1);
    private static readonly Duration Second = Duration.FromSeconds(1);

    private static readonly Dictionary<(Type Type, string Member), (string Name, Duration Unit)> Names = new()
    {
        [(typeof(PlannedStage), nameof(PlannedStage.Length))] = ("minutes", Minute),
        [(typeof(StageExtended), nameof(StageExtended.By))] = ("minutes", Minute),
        [(typeof(WordAhead), nameof(WordAhead.Ahead))] = ("minutesBefore", Minute),
        [(typeof(RegisterRules), nameof(RegisterRules.DueBy))] = ("dueByMinutes", Minute),
        [(typeof(ClassRules), nameof(ClassRules.SpeechFrom))] = ("speechSeconds", Second),
        [(typeof(TimerStarted), nameof(TimerStarted.Length))] = ("seconds", Second),
        [(typeof(Question), nameof(Question.TimeLimit))] = ("timeLimitSeconds", Second),
        [(typeof(QuestionOpened), nameof(QuestionOpened.Longer))] = ("longerSeconds", Second),
    };

    /// <summary>The unit of a member, in words; null if it is no such length.</summary>
    public static string? UnitOf(JsonPropertyInfo? member) => member?.CustomConverter switch
    {
        Whole { Unit: var unit } => Said(unit),
        PerhapsWhole { Unit: var unit } => Said(unit),
        _ => null,
    };

    internal static void In(JsonTypeInfo type)
    {
        foreach (var member in type.Properties)
        {
            if (member.AttributeProvider is System.Reflection.PropertyInfo property && Names.TryGetValue((type.Type, property.Name), out var length))
            {
                (member.Name, member.CustomConverter) = (length.Name, member.PropertyType == typeof(Duration) ? new Whole(length.Unit) : new PerhapsWhole(length.Unit));
            }
        }
    }

    private static string Said(Duration unit) => unit == Minute ? "Minutes." : "Seconds.";

    private sealed class Whole(Duration unit) : JsonConverter<Duration>
    {
        public Duration Unit => unit;

        public override Duration Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TryGetInt32(out var count) && Math.Abs((long)count) < 10_000_000 ? unit * count : throw new JsonException("A length is a whole number of sensible size.");

        public override void Write(Utf8JsonWriter writer, Duration value, JsonSerializerOptions options) => writer.WriteNumberValue((long)(value / unit));
    }

    private sealed class PerhapsWhole(Duration unit) : JsonConverter<Duration?>
    {
        private readonly Whole _whole = new(unit);

        public Duration Unit => unit;

        public override Duration? Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.Null ? null : _whole.Read(ref reader, typeof(Duration), options);

        public override void Write(Utf8JsonWriter writer, Duration? value, JsonSerializerOptions options)
        {
            if (value is { } length)
            {
                _whole.Write(writer, length, options);
            }
            else
            {
                writer.WriteNullValue();
            }
        }
    }
}
