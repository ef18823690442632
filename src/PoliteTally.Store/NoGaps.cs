using System.Collections;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace PoliteTally.Store;

/// <summary>
/// Refuses lists with nothing in some of their places. That a property may not be null is looked at by the reader of JSON itself; of the items of
/// lists it knows nothing.
/// </summary>
internal static class NoGaps
{
    public static void In(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
        {
            return;
        }

        var lists = type.Properties
            .Where(p => p.Get is not null && p.AttributeProvider is PropertyInfo property && HasNoGaps(property))
            .Select(p => (p.Name, Get: p.Get!)).ToList();
        if (lists.Count > 0)
        {
            type.OnDeserialized = read =>
            {
                foreach (var (name, get) in lists)
                {
                    if (get(read) is IEnumerable list && list.Cast<object?>().Contains(null))
                    {
                        throw new JsonException($"An item of {name} is missing.");
                    }
                }
            };
        }
    }

    private static bool HasNoGaps(PropertyInfo property) =>
        property.PropertyType != typeof(string) && typeof(IEnumerable).IsAssignableFrom(property.PropertyType)
        && new NullabilityInfoContext().Create(property) is var list
        && (list.ElementType ?? (list.GenericTypeArguments is [var item] ? item : null)) is { ReadState: NullabilityState.NotNull, Type.IsValueType: false };
}
