using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Merging;

/// <summary>
/// Files that are versions of one another: they hold the same rows with the same times, so they have one clock, and a row that stands in several counts once.
/// </summary>
internal sealed class Versions
{
    /// <summary>How many equal rows make two files versions of one another, or all rows of the shorter one. 3.</summary>
    private const int Fewest = 3;

    private readonly Dictionary<Guid, Guid> _versionOf;

    private Versions(Dictionary<Guid, Guid> versionOf, Dictionary<Guid, Guid> repeats, Dictionary<Guid, List<Entry>> rows) =>
        (_versionOf, Repeats, Rows, FileOf) = (versionOf, repeats, rows, rows.Values.SelectMany(r => r).ToDictionary(e => e.Id, e => e.Together!.Value));

    /// <summary>Rows that another version has as well, each with the row that counts.</summary>
    public IReadOnlyDictionary<Guid, Guid> Repeats { get; }

    /// <summary>The row that counts of all equal ones; the entry itself if it is the only one.</summary>
    public Guid FirstOf(Guid entry) => Repeats.GetValueOrDefault(entry, entry);

    /// <summary>The rows of each file and its versions, by the first of them.</summary>
    public IReadOnlyDictionary<Guid, List<Entry>> Rows { get; }

    /// <summary>The file of each row.</summary>
    public IReadOnlyDictionary<Guid, Guid> FileOf { get; }

    /// <summary>The first version of a file, the file itself if there is no other; an empty id if it is none of the files.</summary>
    public Guid Of(Guid file) => _versionOf.GetValueOrDefault(file);

    /// <summary>Finds the versions among files.</summary>
    /// <param name="files">The files.</param>
    /// <param name="rows">All rows that came with them.</param>
    public static Versions Among(IReadOnlyDictionary<Guid, Entry> files, IReadOnlyList<Entry> rows)
    {
        var rowsOf = rows.ToLookup(e => e.Together!.Value);
        var versionOf = files.Keys.ToDictionary(f => f, f => f);
        var repeats = new Dictionary<Guid, Guid>();
        foreach (var kind in files.Values.OrderBy(f => f.Id).GroupBy(f => ((FileBroughtIn)f.Act).Kind))
        {
            // The n-th of equal rows of a file is the n-th of the other: two rows of 20 min are not one.
            var first = new Dictionary<(Instant, Act, int), (Guid Version, Guid Row)>();
            foreach (var file in kind.Select(f => f.Id))
            {
                var seen = new Dictionary<(Instant, Act), int>();
                var numbered = rowsOf[file].Where(e => !e.Act.IsDecision).Select(e =>
                    (Row: e.Id, Key: (e.HappenedAt, e.Act, seen[(e.HappenedAt, e.Act)] = seen.GetValueOrDefault((e.HappenedAt, e.Act)) + 1))).ToList();
                var shared = numbered.Where(r => first.ContainsKey(r.Key)).ToList();
                var version = shared.GroupBy(r => first[r.Key].Version).Where(g => g.Count() >= Math.Min(Fewest, numbered.Count)).MaxBy(g => g.Count())?.Key ?? file;
                versionOf[file] = version;
                foreach (var (row, key) in numbered)
                {
                    if (!first.TryAdd(key, (version, row)) && first[key].Version == version)
                    {
                        repeats[row] = first[key].Row;
                    }
                }
            }
        }

        return new Versions(versionOf, repeats, files.Keys.GroupBy(f => versionOf[f]).ToDictionary(g => g.Key, g => g.SelectMany(f => rowsOf[f]).ToList()));
    }
}
