using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Board;

/// <summary>What is up on the class board, as the entries of a lesson tell it.</summary>
public sealed class BoardNow : LessonPart
{
    private readonly SortedDictionary<BoardItem, OnBoard> _items;

    internal BoardNow() => _items = [];

    private BoardNow(BoardNow from) => _items = new(from._items);

    /// <summary>What is up.</summary>
    public IReadOnlyDictionary<BoardItem, OnBoard> Items => _items;

    internal void Put(BoardItem item, OnBoard what) => _items[item] = what;

    internal void Take(BoardItem item) => _items.Remove(item);

    internal override LessonPart Copy() => new BoardNow(this);
}

/// <summary>Something that is up on the class board.</summary>
/// <param name="Text">Its words, where they do not follow from the lesson.</param>
/// <param name="Since">When it was put up.</param>
/// <param name="Entry">The entry that put it up.</param>
public sealed record OnBoard(string? Text, Instant Since, Guid Entry);
