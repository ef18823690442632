using System.Collections;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace PoliteTally.Store;

/// <summary>
/// Refuses lists and dictionaries with nothing in some of their places. That a property may not be null is looked at by the reader of JSON itself; of the
/// items of lists, and of what stands under a key, it knows nothing.
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
                    if ((get(read) is IDictionary byKey ? byKey.Values : get(read) as IEnumerable)?.Cast<object?>().Contains(null) == true)
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
        && (list.ElementType ?? (list.GenericTypeArguments is [.., var item] ? item : null)) is { ReadState: NullabilityState.NotNull, Type.IsValueType: false };
}
