using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Merging;

/// <summary>
/// Brings what files tell to the clock of the lesson, and finds which entries tell of one act. A pure step between the entries and what is made of them, so no order in which files
/// are brought in changes anything, and a file that is taken out leaves no trace.
/// </summary>
internal static class Merge
{
    /// <summary>Whether an entry is a file, anything of one, or a word on whether two entries are one.</summary>
    public static bool Concerns(Entry entry) => entry is { Source: Source.File, Together: not null } || entry.Act is FileBroughtIn or ActsCompared;

    /// <summary>Entries that came with a file that does not count: it was taken out, or not all of it has come yet.</summary>
    /// <param name="entries">All entries.</param>
    /// <param name="struck">Whether an entry is struck out.</param>
    public static IEnumerable<Guid> WithoutFile(IReadOnlyCollection<Entry> entries, Func<Guid, bool> struck)
    {
        var files = entries.Where(e => e.Act is FileBroughtIn && !struck(e.Id)).Select(e => e.Id).ToHashSet();
        return entries.Where(e => e is { Source: Source.File, Together: { } file } && !files.Contains(file)).Select(e => e.Id);
    }

    /// <summary>
    /// The entries as they are folded: those of files with their times put right, in order. What stands behind what, and whose clock goes how, is kept in <see cref="FilesMerged"/>.
    /// </summary>
    /// <param name="lesson">The lesson, in which is known whose every name is.</param>
    /// <param name="entries">All of its entries, in order.</param>
    /// <param name="struck">Whether an entry is struck out.</param>
    /// <param name="struckByHand">Those that are struck out by themselves, not with their file.</param>
    public static Entry[] Into(LessonParts lesson, IReadOnlyCollection<Entry> entries, Func<Guid, bool> struck, IReadOnlySet<Guid> struckByHand)
    {
        var files = entries.Where(e => e.Act is FileBroughtIn && !struck(e.Id)).ToDictionary(e => e.Id);
        var versions = Versions.Among(files, RowsOf(files, entries));
        var gone = StruckInVersions(entries, struckByHand);
        Entry[] standing = [.. entries.Where(e => !struck(e.Id) && !gone.Contains(e.Id))];
        var traces = standing.Select(e => (e.Id, Trace: e.Act.TraceIn(lesson))).Where(t => t.Trace is not null).ToDictionary(t => t.Id, t => t.Trace!);
        var (clocks, unsure) = Clocks.Of(
            [.. versions.Rows.Select(v => new ClockedFile(v.Key, TracesOf(v.Value), ByHand(standing, versions, v.Key)))],
            TracesOf(standing.Where(e => !versions.FileOf.ContainsKey(e.Id))));
        var aligned = Ordered.ByTime(
        [
            .. standing.Select(e => versions.FileOf.TryGetValue(e.Id, out var file) && !e.Act.IsDecision && clocks[versions.Of(file)].Ahead is var ahead && ahead != Duration.Zero
                ? e with { HappenedAt = e.HappenedAt - ahead }
                : e),
        ]);
        var merged = lesson.Change<FilesMerged>();
        merged.Know([.. files.Values.OrderBy(f => f.NotedAt).Select(Merged)], [.. unsure.Select(of => of.Select(f => Merged(files[f])).ToList())]);
        var one = new OneAct(traces, versions.FileOf);
        var behind = one.In(aligned, versions.Repeats);
        merged.MayBeOne(() => [.. one.Near(aligned)]);
        foreach (var entry in aligned.Where(e => behind.ContainsKey(e.Id)))
        {
            merged.Support(behind[entry.Id], entry);
        }

        return aligned;

        MergedFile Merged(Entry file) => new(file, (FileBroughtIn)file.Act, clocks[versions.Of(file.Id)]);

        IReadOnlyList<TraceAt> TracesOf(IEnumerable<Entry> entries) =>
            [.. entries.Where(e => traces.ContainsKey(e.Id)).Select(e => new TraceAt(traces[e.Id], e.HappenedAt, e.Id))];
    }

    private static List<Entry> RowsOf(Dictionary<Guid, Entry> files, IEnumerable<Entry> entries) =>
        [.. entries.Where(e => e is { Source: Source.File, Together: { } file } && files.ContainsKey(file))];

    // A row that was struck out by hand is told by no version of its file any more, whichever of them still counts.
    private static HashSet<Guid> StruckInVersions(IReadOnlyCollection<Entry> entries, IReadOnlySet<Guid> struckByHand)
    {
        if (!entries.Any(e => e is { Source: Source.File, Together: not null } && struckByHand.Contains(e.Id)))
        {
            return [];
        }

        var all = entries.Where(e => e.Act is FileBroughtIn).ToDictionary(e => e.Id);
        var rows = RowsOf(all, entries);
        var versions = Versions.Among(all, rows);
        var struck = rows.Where(e => struckByHand.Contains(e.Id)).Select(e => versions.FirstOf(e.Id)).ToHashSet();
        return [.. rows.Where(e => struck.Contains(versions.FirstOf(e.Id))).Select(e => e.Id)];
    }

    // The last word on the clock of any of its versions.
    private static Duration? ByHand(Entry[] standing, Versions versions, Guid version) =>
        standing.Select(e => e.Act).OfType<ClockSet>().LastOrDefault(c => versions.Of(c.File) == version)?.Ahead;
}
