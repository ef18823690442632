using System.Collections;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// A list that may be changed by whoever made it, and is copied cheaply: the copy shares the blocks in which the items lie, and takes one of them for itself when it changes
/// something in it. Once it is copied, the one it was copied from must not be changed any more.
/// </summary>
public sealed class SharedList<T> : IReadOnlyList<T>
{
    private const int Shift = 7;
    private const int BlockSize = 1 << Shift;
    private const int Smallest = 4;

    private readonly List<T[]> _blocks;

    // Blocks before this were made by others, but for those that were taken since.
    private readonly int _shared;
    private HashSet<int>? _taken;

    /// <summary>An empty list.</summary>
    public SharedList() => _blocks = [];

    private SharedList(SharedList<T> from) => (_blocks, Count, _shared) = ([.. from._blocks], from.Count, from._blocks.Count);

    /// <inheritdoc/>
    public int Count { get; private set; }

    /// <inheritdoc cref="IReadOnlyList{T}.this"/>
    public T this[int index]
    {
        get
        {
            ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual((uint)index, (uint)Count, nameof(index));
            return _blocks[index >> Shift][index & (BlockSize - 1)];
        }

        set
        {
            ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual((uint)index, (uint)Count, nameof(index));
            Mine(index >> Shift, index & (BlockSize - 1))[index & (BlockSize - 1)] = value;
        }
    }

    /// <summary>A copy that can be changed.</summary>
    public SharedList<T> Copy() => new(this);

    /// <summary>Puts an item behind the others.</summary>
    public void Add(T item)
    {
        var (block, within) = (Count >> Shift, Count & (BlockSize - 1));
        if (block == _blocks.Count)
        {
            _blocks.Add(new T[Smallest]);
        }

        Mine(block, within)[within] = item;
        Count++;
    }

    /// <inheritdoc/>
    public IEnumerator<T> GetEnumerator()
    {
        for (var at = 0; at < Count; at++)
        {
            yield return _blocks[at >> Shift][at & (BlockSize - 1)];
        }
    }

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    /// <summary>A block that may be changed, with room for a place in it.</summary>
    private T[] Mine(int block, int within)
    {
        var items = _blocks[block];
        var isMine = block >= _shared || _taken?.Contains(block) == true;
        if (isMine && within < items.Length)
        {
            return items;
        }

        var mine = new T[within < items.Length ? items.Length : Math.Min(BlockSize, Math.Max(Smallest, 2 * items.Length))];
        items.CopyTo(mine.AsSpan());
        (_taken ??= []).Add(block);
        return _blocks[block] = mine;
    }
}
