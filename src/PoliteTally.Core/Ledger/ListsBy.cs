using System.Runtime.InteropServices;

namespace PoliteTally.Core.Ledger;

/// <summary>A list for each key. A copy shares what is in the lists, and costs as much as there are keys.</summary>
internal sealed class ListsBy<TKey, T>
    where TKey : notnull
{
    private readonly Dictionary<TKey, GrowingList<T>> _lists;

    public ListsBy() => _lists = [];

    private ListsBy(Dictionary<TKey, GrowingList<T>> lists) => _lists = lists;

    /// <summary>The list of a key; empty if nothing was added for it.</summary>
    public IReadOnlyList<T> this[TKey key] => _lists.TryGetValue(key, out var list) ? list : [];

    public ListsBy<TKey, T> Copy() => new(new(_lists));

    public void Add(TKey key, T item)
    {
        ref var list = ref CollectionsMarshal.GetValueRefOrAddDefault(_lists, key, out _);
        list = list is null ? new GrowingList<T>([item]) : list.With(item);
    }
}
