using PoliteTally.Core.Ledger;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Board;

/// <summary>Something was put up on the class board.</summary>
/// <param name="Item">What.</param>
/// <param name="Text">Its words, where they do not follow from the lesson: the statement of a signal round.</param>
public sealed record BoardPut(BoardItem Item, string? Text = null) : Act
{
    /// <inheritdoc/>
    public override string InWords => $"on the board: {Item.InWords()}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => Text;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Text, "text", TextLimits.LongestText);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        lesson.Change<BoardNow>().Put(Item, new OnBoard(Text, entry.HappenedAt, entry.Id));
        if (Item == BoardItem.Statement)
        {
            lesson.Change<SignalsShown>().Begin();
        }
    }
}

/// <summary>Something was taken down from the class board.</summary>
public sealed record BoardTaken(BoardItem Item) : Act
{
    /// <inheritdoc/>
    public override string InWords => $"off the board: {Item.InWords()}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        lesson.Change<BoardNow>().Take(Item);
        if (Item == BoardItem.Statement)
        {
            lesson.Change<SignalsShown>().End();
        }
    }
}
