namespace PoliteTally.Core.Ledger;

/// <summary>Which entries of a lesson are struck out.</summary>
public sealed class StrikesMade : LessonPart
{
    private readonly HashSet<Guid> _struck;

    internal StrikesMade() => _struck = [];

    private StrikesMade(StrikesMade from) => _struck = [.. from._struck];

    /// <summary>How many entries are struck out.</summary>
    public int Count => _struck.Count;

    /// <summary>Whether an entry is struck out.</summary>
    public bool Have(Guid entry) => _struck.Contains(entry);

    internal bool HaveAnyOf(IEnumerable<Guid> entries) => _struck.Overlaps(entries);

    internal void Take(ReadOnlySpan<Entry> more) => _struck.UnionWith(Strikes.In(more));

    internal void Take(IEnumerable<Guid> withoutFile) => _struck.UnionWith(withoutFile);

    internal override LessonPart Copy() => new StrikesMade(this);
}
