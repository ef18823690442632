using System.Collections;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// A list that is never changed, and is made longer cheaply: the longer one shares what the shorter one holds. What was handed out stays as it
/// is, so it may be read on one thread while another makes it longer.
/// </summary>
public sealed class GrowingList<T> : IReadOnlyList<T>
{
    private readonly Backing _backing;

    /// <summary>A list that takes over an array; nobody else may change it any more.</summary>
    public GrowingList(T[] items) => (_backing, Count) = (new Backing(items) { Used = items.Length }, items.Length);

    private GrowingList(Backing backing, int count) => (_backing, Count) = (backing, count);

    /// <inheritdoc/>
    public int Count { get; }

    /// <inheritdoc/>
    public T this[int index] => _backing.Items.AsSpan(0, Count)[index];

    /// <summary>What is in it, in order.</summary>
    public ReadOnlySpan<T> AsSpan() => _backing.Items.AsSpan(0, Count);

    /// <summary>The list with more behind its end.</summary>
    public GrowingList<T> With(ReadOnlySpan<T> more)
    {
        var count = Count + more.Length;
        // Only whoever comes first may write behind the end of a shared array; all others take a copy.
        if (count <= _backing.Items.Length && Interlocked.CompareExchange(ref _backing.Used, count, Count) == Count)
        {
            more.CopyTo(_backing.Items.AsSpan(Count));
            return new GrowingList<T>(_backing, count);
        }

        var items = new T[Math.Max(16, count + (count / 2))];
        AsSpan().CopyTo(items);
        more.CopyTo(items.AsSpan(Count));
        return new GrowingList<T>(new Backing(items) { Used = count }, count);
    }

    /// <summary>The list with one more behind its end.</summary>
    public GrowingList<T> With(T one)
    {
        if (Count < _backing.Items.Length && Interlocked.CompareExchange(ref _backing.Used, Count + 1, Count) == Count)
        {
            _backing.Items[Count] = one;
            return new GrowingList<T>(_backing, Count + 1);
        }

        return With([one]);
    }

    /// <inheritdoc/>
    public IEnumerator<T> GetEnumerator()
    {
        for (var i = 0; i < Count; i++)
        {
            yield return _backing.Items[i];
        }
    }

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private sealed class Backing(T[] items)
    {
        /// <summary>How much of the array is taken.</summary>
        public int Used;

        public T[] Items { get; } = items;
    }
}
