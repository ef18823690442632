using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>An entry as it is read from the file: without its kind, which the database would read off the act of each.</summary>
/// <param name="LessonId">Its lesson.</param>
/// <param name="Seq">Its number.</param>
/// <param name="Act">The act as JSON.</param>
internal sealed record StoredEntry(Guid LessonId, long Seq, Guid Id, Instant HappenedAt, Instant NotedAt, Source Source, string By, string Act, Guid? Together)
{
    /// <summary>The entries of a query, in its order.</summary>
    public static IEnumerable<StoredEntry> In(IQueryable<EntryRow> rows) =>
        rows.AsNoTracking().Select(e => new StoredEntry(e.LessonId, e.Seq, e.Id, e.HappenedAt, e.NotedAt, e.Source, e.By, e.Act, e.Together)).AsEnumerable();

    /// <summary>As it lies in a row.</summary>
    public static StoredEntry Of(EntryRow row) => new(row.LessonId, row.Seq, row.Id, row.HappenedAt, row.NotedAt, row.Source, row.By, row.Act, row.Together);

    /// <summary>The entry.</summary>
    /// <exception cref="UnreadableDocument">What is stored is no act.</exception>
    public Entry Entry() => new(
        Id, HappenedAt, NotedAt, Source, By,
        Documents.WhyUnreadable(() => ActJson.Read(Act), out var act) is null ? act! : throw new UnreadableDocument(
            $"Entry {Seq} of this lesson cannot be read, so the lesson cannot be shown. Nothing was changed. Put the file back from the last copy in which it can be read."),
        Together);
}
