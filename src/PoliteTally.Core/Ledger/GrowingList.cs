using System.Collections;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// A list that is never changed, and is made longer cheaply: the longer one shares what the shorter one holds. Two ways on from one list cost a few hundred places, however
/// long it is. What was handed out stays as it is, so it may be read on one thread while another makes it longer.
/// </summary>
/// <remarks>Its items lie in full blocks, which are shared by all, and behind them in a block that is not full yet.</remarks>
public sealed class GrowingList<T> : IReadOnlyList<T>
{
    private const int Shift = 8;
    private const int BlockSize = 1 << Shift;
    private const int Smallest = 4;

    private static readonly Shared<T[]> NoBlocks = new([], 0);

    // Full blocks; the list may be longer, others know how much of it is theirs.
    private readonly Shared<T[]> _full;
    private readonly Shared<T> _last;

    /// <summary>A list of items.</summary>
    public GrowingList(ReadOnlySpan<T> items)
    {
        Count = items.Length;
        var full = Count == 0 ? 0 : (Count - 1) >> Shift;
        var blocks = full == 0 ? [] : new T[full][];
        for (var i = 0; i < full; i++)
        {
            blocks[i] = items.Slice(i << Shift, BlockSize).ToArray();
        }

        var rest = items[(full << Shift)..].ToArray();
        (_full, _last) = (full == 0 ? NoBlocks : new Shared<T[]>(blocks, full), new Shared<T>(rest, rest.Length));
    }

    private GrowingList(Shared<T[]> full, Shared<T> last, int count) => (_full, _last, Count) = (full, last, count);

    /// <inheritdoc/>
    public int Count { get; }

    // Of a list that has any, the last block is never empty.
    private int Full => Count == 0 ? 0 : (Count - 1) >> Shift;

    /// <inheritdoc/>
    public T this[int index]
    {
        get
        {
            ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual((uint)index, (uint)Count, nameof(index));
            var block = index >> Shift;
            return (block < Full ? _full.Items[block] : _last.Items)[index & (BlockSize - 1)];
        }
    }

    /// <summary>The items from a place on.</summary>
    public T[] From(int index)
    {
        var items = new T[Count - index];
        for (var at = index; at < Count;)
        {
            var (block, within) = (at >> Shift, at & (BlockSize - 1));
            var source = block < Full ? _full.Items[block].AsSpan(within) : _last.Items.AsSpan(within, Count - at);
            source.CopyTo(items.AsSpan(at - index));
            at += source.Length;
        }

        return items;
    }

    /// <summary>The list with more behind its end.</summary>
    public GrowingList<T> With(ReadOnlySpan<T> more)
    {
        if (Count == 0)
        {
            return new GrowingList<T>(more);
        }

        var longer = this;
        foreach (var one in more)
        {
            longer = longer.With(one);
        }

        return longer;
    }

    /// <summary>The list with one more behind its end.</summary>
    public GrowingList<T> With(T one)
    {
        var inLast = Count - (Full << Shift);
        return inLast < BlockSize
            ? new GrowingList<T>(_full, _last.With(inLast, one, BlockSize), Count + 1)
            : new GrowingList<T>(_full.With(Full, _last.Items, int.MaxValue), new Shared<T>(new T[Smallest], 0).With(0, one, BlockSize), Count + 1);
    }

    /// <inheritdoc/>
    public IEnumerator<T> GetEnumerator()
    {
        for (var at = 0; at < Count;)
        {
            var block = at >> Shift < Full ? _full.Items[at >> Shift] : _last.Items;
            for (var end = Math.Min(Count, at + BlockSize); at < end; at++)
            {
                yield return block[at & (BlockSize - 1)];
            }
        }
    }

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    /// <summary>An array of which several lists have the beginning, each as much as it knows to be its own.</summary>
    private sealed class Shared<TItem>(TItem[] items, int used)
    {
        private int _used = used;

        public TItem[] Items { get; } = items;

        /// <summary>The first of them and one more: only whoever comes first may write behind the end, all others take a copy.</summary>
        public Shared<TItem> With(int count, TItem one, int most)
        {
            if (count < Items.Length && Interlocked.CompareExchange(ref _used, count + 1, count) == count)
            {
                Items[count] = one;
                return this;
            }

            var copy = new TItem[Math.Min(most, Math.Max(Smallest, count < Items.Length ? count + Smallest : 2 * count))];
            Items.AsSpan(0, count).CopyTo(copy);
            copy[count] = one;
            return new Shared<TItem>(copy, count + 1);
        }
    }
}
