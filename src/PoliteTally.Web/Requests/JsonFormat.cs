using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.OpenApi;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Store;

namespace PoliteTally.Web.Requests;

/// <summary>How data goes over the wire: camel case, names for enums, instants as milliseconds since 1970 in UTC.</summary>
internal static class JsonFormat
{
    /// <summary>For what is written or read by hand.</summary>
    public static readonly JsonSerializerOptions Options = Made();

    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true };

    public static void Configure(JsonSerializerOptions options)
    {
        ActJson.Configure(options);
        options.NumberHandling = JsonNumberHandling.Strict;
        // What is not known here was meant by whoever sent it: it is refused and not passed over.
        options.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        options.Converters.Add(new Milliseconds());
        options.Converters.Add(new Iso<LocalTime>(LocalTimePattern.CreateWithInvariantCulture("HH:mm"), "a time such as 09:30"));
    }

    /// <summary>The JSON schema of a file, for docs; lengths are whole numbers of the unit that they are written in.</summary>
    /// <param name="title">What such a file is.</param>
    /// <param name="options">How it is written.</param>
    public static string Schema<T>(string title, JsonSerializerOptions options)
    {
        var schema = options.GetJsonSchemaAsNode(typeof(T), new JsonSchemaExporterOptions
        {
            TreatNullObliviousAsNonNullable = true,
            TransformSchemaNode = (context, node) => WholeLengths.UnitOf(context.PropertyInfo) is not { } unit ? node : new JsonObject
            {
                ["description"] = unit,
                ["type"] = context.PropertyInfo!.IsGetNullable ? new JsonArray("integer", "null") : "integer",
            },
        }).AsObject();
        var titled = new JsonObject { ["$schema"] = "https://json-schema.org/draft/2020-12/schema", ["title"] = title };
        foreach (var (name, value) in schema)
        {
            titled[name] = value?.DeepClone();
        }

        return titled.ToJsonString(Indented);
    }

    private static JsonSerializerOptions Made()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web);
        Configure(options);
        return options;
    }

    public static void Describe(OpenApiOptions options)
    {
        // Lengths are described where they stand: in which unit they are is a matter of the place.
        options.CreateSchemaReferenceId = type => type.Type == typeof(Duration) ? null : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Polite Tally";
            document.Info.Version = "1";
            // The address differs from start to start and is no part of the contract.
            document.Servers = [];
            return Task.CompletedTask;
        });
        options.AddOperationTransformer((operation, context, _) =>
        {
            // The handler takes the thing itself, see Own; whoever calls still says which.
            if (context.Description.RelativePath!.Contains("{id:", StringComparison.Ordinal) && operation.Parameters?.Any(p => p.Name == "id") is not true)
            {
                operation.Parameters = [new Microsoft.OpenApi.OpenApiParameter
                {
                    Name = "id",
                    In = Microsoft.OpenApi.ParameterLocation.Path,
                    Required = true,
                    Schema = new Microsoft.OpenApi.OpenApiSchema { Type = Microsoft.OpenApi.JsonSchemaType.String, Format = "uuid" },
                }, .. operation.Parameters ?? []];
            }

            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
            if (WholeLengths.UnitOf(context.JsonPropertyInfo) is { } unit)
            {
                (schema.Type, schema.Format, schema.Description) = (Microsoft.OpenApi.JsonSchemaType.Integer, "int32", unit);
            }

            else if (type == typeof(Instant) || type == typeof(Duration))
            {
                schema.Type = Microsoft.OpenApi.JsonSchemaType.Number;
                schema.Description = type == typeof(Instant) ? "Milliseconds since 1970 in UTC." : "Seconds.";
            }

            else if (type.IsEnum && schema.Enum is { } values)
            {
                // Left to itself the description of an enumeration has null in it wherever it is met, if it may be null where it is met first.
                schema.Enum = [.. values.Where(v => v is not null)];
            }

            else if (type == typeof(LocalDate) || type == typeof(LocalTime))
            {
                schema.Type = Microsoft.OpenApi.JsonSchemaType.String;
                schema.Description = type == typeof(LocalDate) ? "A day such as 2026-11-26." : "A time such as 09:30.";
            }

            else if (type == typeof(IReadOnlyList<LocalDate>))
            {
                // Left to itself the description says nothing of what is in the list.
                schema.Items = new Microsoft.OpenApi.OpenApiSchema { Type = Microsoft.OpenApi.JsonSchemaType.String };
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
