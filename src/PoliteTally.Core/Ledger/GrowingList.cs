using System.Collections;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// A list that is never changed, and is made longer cheaply: the longer one shares what the shorter one holds. What was handed out stays as it
/// is, so it may be read on one thread while another makes it longer.
/// </summary>
public sealed class GrowingList<T> : IReadOnlyList<T>
{
    private readonly Room _room;

    /// <summary>A list that takes over an array; nobody else may change it any more.</summary>
    public GrowingList(T[] items) => (_room, Count) = (new Room(items) { Used = items.Length }, items.Length);

    private GrowingList(Room room, int count) => (_room, Count) = (room, count);

    /// <inheritdoc/>
    public int Count { get; }

    /// <inheritdoc/>
    public T this[int index] => _room.Items.AsSpan(0, Count)[index];

    /// <summary>What is in it, in order.</summary>
    public ReadOnlySpan<T> AsSpan() => _room.Items.AsSpan(0, Count);

    /// <summary>The list with more behind its end.</summary>
    public GrowingList<T> With(ReadOnlySpan<T> more)
    {
        var count = Count + more.Length;
        // Only whoever comes first may write behind the end of a shared array; all others take a copy.
        if (count <= _room.Items.Length && Interlocked.CompareExchange(ref _room.Used, count, Count) == Count)
        {
            more.CopyTo(_room.Items.AsSpan(Count));
            return new GrowingList<T>(_room, count);
        }

        var items = new T[Math.Max(16, count + (count / 2))];
        AsSpan().CopyTo(items);
        more.CopyTo(items.AsSpan(Count));
        return new GrowingList<T>(new Room(items) { Used = count }, count);
    }

    /// <summary>The list with one more behind its end.</summary>
    public GrowingList<T> With(T one)
    {
        if (Count < _room.Items.Length && Interlocked.CompareExchange(ref _room.Used, Count + 1, Count) == Count)
        {
            _room.Items[Count] = one;
            return new GrowingList<T>(_room, Count + 1);
        }

        return With([one]);
    }

    /// <inheritdoc/>
    public IEnumerator<T> GetEnumerator()
    {
        for (var i = 0; i < Count; i++)
        {
            yield return _room.Items[i];
        }
    }

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private sealed class Room(T[] items)
    {
        /// <summary>How much of the array is taken.</summary>
        public int Used;

        public T[] Items { get; } = items;
    }
}
