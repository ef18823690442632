using System.Diagnostics.CodeAnalysis;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// A dictionary that may be changed by whoever made it, and is copied cheaply: what was put in before a copy lies in layers that both share, each at least twice as large as
/// the next, and what is put in later hides what is below. Once it is copied, the one it was copied from must not be changed any more.
/// </summary>
public sealed class SharedIndex<TKey, TValue>
    where TKey : notnull
{
    private readonly Dictionary<TKey, TValue>[] _layers;
    private readonly Dictionary<TKey, TValue> _own = [];

    /// <summary>An empty one.</summary>
    public SharedIndex() => _layers = [];

    private SharedIndex(SharedIndex<TKey, TValue> from) => _layers = from._own.Count == 0 ? from._layers : With(from._layers, from._own);

    /// <summary>A value, by its key.</summary>
    public TValue this[TKey key]
    {
        set => _own[key] = value;
    }

    /// <summary>A copy that can be changed.</summary>
    public SharedIndex<TKey, TValue> Copy() => new(this);

    /// <summary>Whether there is a value of a key.</summary>
    public bool Has(TKey key) => TryGet(key, out _);

    /// <summary>The value of a key.</summary>
    /// <returns>Whether there is one.</returns>
    public bool TryGet(TKey key, [MaybeNullWhen(false)] out TValue value)
    {
        if (_own.TryGetValue(key, out value))
        {
            return true;
        }

        for (var i = _layers.Length - 1; i >= 0; i--)
        {
            if (_layers[i].TryGetValue(key, out value))
            {
                return true;
            }
        }

        return false;
    }

    // Layers that are not twice as large as what lies on them become one with it, so that there are few, and each entry is moved seldom.
    private static Dictionary<TKey, TValue>[] With(Dictionary<TKey, TValue>[] layers, Dictionary<TKey, TValue> top)
    {
        var keep = layers.Length;
        while (keep > 0 && layers[keep - 1].Count < 2 * top.Count)
        {
            var merged = new Dictionary<TKey, TValue>(layers[--keep]);
            foreach (var (key, value) in top)
            {
                merged[key] = value;
            }

            top = merged;
        }

        return [.. layers.AsSpan(0, keep), top];
    }
}
