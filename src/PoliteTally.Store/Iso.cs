using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime.Text;

namespace PoliteTally.Store;

/// <summary>Days and times in JSON, as ISO 8601 has them.</summary>
/// <param name="pattern">How one is written.</param>
/// <param name="what">What it is, with an example, for whoever wrote something else.</param>
public sealed class Iso<T>(IPattern<T> pattern, string what) : JsonConverter<T>
{
    public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String && pattern.Parse(reader.GetString()!) is { Success: true } read
            ? read.Value
            : throw new JsonException($"Expected {what}.");

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
        writer.WriteStringValue(pattern.Format(value));
}
