namespace PoliteTally.Core.Ledger;

/// <summary>Earlier entries are struck out; striking out a strike puts them back, all of them together.</summary>
/// <param name="Entry">The id of the entry that no longer counts.</param>
/// <param name="Others">The ids of entries that no longer count either, for one press noted them together; null if there are none.</param>
public sealed record Struck(Guid Entry, IReadOnlyList<Guid>? Others = null) : Act
{
    /// <summary>The most entries that one strike is about: 500, as many as are sent at once.</summary>
    public const int Most = 500;

    /// <summary>All entries that it strikes out.</summary>
    public IEnumerable<Guid> Entries => Others is null ? [Entry] : Others.Prepend(Entry);

    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => "an entry struck out";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson)
    {
        if (Others is { Count: >= Most })
        {
            return $"At most {Most} entries are struck out at once.";
        }

        var acts = Entries.Select(lesson.ActOf).ToList();
        return acts.Contains(null) ? "The entry to strike out is not in this lesson."
            : Entries.All(lesson.See<StrikesMade>().Have) ? "This entry is struck out already."
            : acts.Select(a => a!.WhyNotStruckOut(lesson)).FirstOrDefault(why => why is not null);
    }

    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) => !Entries.All(among.Contains);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // Which entries count is known before any of them is taken.
    }
}
