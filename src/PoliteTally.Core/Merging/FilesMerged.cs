using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Merging;

/// <summary>A file that counts.</summary>
/// <param name="Entry">The entry that brought it in.</param>
/// <param name="File">What it is.</param>
/// <param name="Clock">How its clock goes.</param>
public sealed record MergedFile(Entry Entry, FileBroughtIn File, FileClock Clock);

/// <summary>The files of a lesson, and which entries tell of an act that another entry counts for.</summary>
public sealed class FilesMerged : LessonPart
{
    private readonly Dictionary<Guid, Guid> _countsBy;
    private readonly Dictionary<Guid, GrowingList<Entry>> _support;
    private IReadOnlyList<MergedFile> _files;
    private IReadOnlyList<IReadOnlyList<MergedFile>> _unsure;
    private Lazy<IReadOnlyList<(Entry Counts, Entry Other)>> _near;

    internal FilesMerged() => (_countsBy, _support, _files, _unsure, _near) = ([], [], [], [], new Lazy<IReadOnlyList<(Entry, Entry)>>([]));

    private FilesMerged(FilesMerged from) => (_countsBy, _support, _files, _unsure, _near) = (new(from._countsBy), new(from._support), from._files, from._unsure, from._near);

    /// <summary>The files that count, in the order in which they were brought in.</summary>
    public IReadOnlyList<MergedFile> Files => _files;

    /// <summary>Files of which one goes right and nothing tells which, as in <see cref="ReckonedClocks.Unsure"/>.</summary>
    public IReadOnlyList<IReadOnlyList<MergedFile>> UnsureClocks => _unsure;

    /// <summary>How many entries stand behind others.</summary>
    public int Supporting => _countsBy.Count;

    /// <summary>Entries that may tell of one act and are not taken for one, with what would count first. Looked for when somebody asks.</summary>
    public IReadOnlyList<(Entry Counts, Entry Other)> Near => _near.Value;

    /// <summary>The entries that count for what others tell as well, each with those.</summary>
    public IEnumerable<(Guid Counts, IReadOnlyList<Entry> Others)> All => _support.Select(s => (s.Key, (IReadOnlyList<Entry>)s.Value));

    /// <summary>The entry that counts for the act that this one tells of as well; null if this one counts itself.</summary>
    public Guid? CountsBy(Guid entry) => _countsBy.TryGetValue(entry, out var counts) ? counts : null;

    /// <summary>What other entries tell of the act of this one, with their times as they are by the clock of the lesson.</summary>
    public IReadOnlyList<Entry> SupportOf(Guid entry) => _support.TryGetValue(entry, out var support) ? support : [];

    internal void Know(IReadOnlyList<MergedFile> files, IReadOnlyList<IReadOnlyList<MergedFile>> unsure) => (_files, _unsure) = (files, unsure);

    internal void MayBeOne(Func<IReadOnlyList<(Entry Counts, Entry Other)>> near) => _near = new(near);

    internal void Support(Guid counts, Entry other)
    {
        _countsBy[other.Id] = counts;
        _support[counts] = _support.TryGetValue(counts, out var before) ? before.With(other) : new GrowingList<Entry>([other]);
    }

    internal override LessonPart Copy() => new FilesMerged(this);
}
