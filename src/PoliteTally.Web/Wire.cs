using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.OpenApi;
using NodaTime;
using PoliteTally.Store;

namespace PoliteTally.Web;

/// <summary>How data goes over the wire: camel case, names for enums, instants as milliseconds since 1970 in UTC.</summary>
internal static class Wire
{
    public static void Configure(JsonSerializerOptions options)
    {
        ActJson.Configure(options);
        options.NumberHandling = JsonNumberHandling.Strict;
        options.Converters.Add(new Milliseconds());
    }

    public static void Describe(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Polite Tally";
            document.Info.Version = "1";
            // The address differs from start to start and is no part of the contract.
            document.Servers = [];
            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
            if (type == typeof(Instant) || type == typeof(Duration))
            {
                schema.Type = Microsoft.OpenApi.JsonSchemaType.Number;
                schema.Description = type == typeof(Instant) ? "Milliseconds since 1970 in UTC." : "Seconds.";
            }

            return Task.CompletedTask;
        });
    }

    private sealed class Milliseconds : JsonConverter<Instant>
    {
        public override Instant Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            var number = reader.GetDouble();
            // NodaTime's range; a number beyond it is no time that anybody could mean.
            return Math.Abs(number) < 2e14
                ? Instant.FromUnixTimeMilliseconds((long)number)
                : throw new JsonException("A time is out of range.");
        }

        public override void Write(Utf8JsonWriter writer, Instant value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.ToUnixTimeMilliseconds());
    }
}
