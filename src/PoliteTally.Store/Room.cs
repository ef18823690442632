using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>
/// What is kept in memory of a lesson that is being worked on: its entries, its roster and its times. Only the writer
/// changes it, and only after the change is on the disk.
/// </summary>
public sealed class Room
{
    private readonly Lock _lock = new();
    private readonly List<(long Seq, Entry Entry)> _entries;
    private readonly Dictionary<Guid, Act> _known;
    private readonly HashSet<Guid> _rosterIds;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;
    private LessonState? _state;

    private Room(
        Lesson lesson, IReadOnlyList<OnSheet> roster, IReadOnlyDictionary<Guid, Guid> merged, List<(long Seq, Entry Entry)> entries)
    {
        Lesson = lesson;
        ClassName = lesson.Class!.Name;
        Rules = RulesJson.Of(lesson, lesson.Class);
        Roster = roster;
        _merged = merged;
        _entries = entries;
        _rosterIds = [.. roster.Select(s => s.Name.Id)];
        // An entry about a record that was merged into one of the roster is about somebody of the roster.
        _rosterIds.UnionWith(merged.Where(m => _rosterIds.Contains(m.Value)).Select(m => m.Key));
        _known = entries.ToDictionary(e => e.Entry.Id, e => e.Entry.Act);
    }

    /// <summary>The row of the lesson, not tracked.</summary>
    public Lesson Lesson { get; private set; }

    /// <summary>The name of the class.</summary>
    public string ClassName { get; }

    /// <summary>The ground rules of the lesson.</summary>
    public ClassRules Rules { get; }

    /// <summary>The students of this lesson, by family name.</summary>
    public IReadOnlyList<OnSheet> Roster { get; }

    /// <summary>The position of the ledger: the number of its newest entry, 0 if there is none.</summary>
    public long Position
    {
        get
        {
            lock (_lock)
            {
                return _entries.Count == 0 ? 0 : _entries[^1].Seq;
            }
        }
    }

    /// <summary>When the lesson was meant to be, and when it was.</summary>
    public LessonTimes Times => TimesOf(Lesson);

    /// <summary>When a lesson was meant to be, and when it was.</summary>
    public static LessonTimes TimesOf(Lesson lesson) =>
        new(lesson.PlannedStart, lesson.PlannedEnd, lesson.ActualStart, lesson.ActualEnd, lesson.DropIn);

    /// <summary>Loads a lesson; null if this owner has none of this id.</summary>
    public static Room? Load(SchoolDb db, Guid lessonId)
    {
        var lesson = db.Lessons.AsNoTracking().Include(l => l.Class).FirstOrDefault(l => l.Id == lessonId);
        if (lesson is null)
        {
            return null;
        }

        var entries = db.Entries.AsNoTracking().Where(e => e.LessonId == lessonId).OrderBy(e => e.Seq).AsEnumerable()
            .Select(row => (row.Seq, EntryOf(row))).ToList();
        return new Room(lesson, Rosters.Of(db, lesson), Rosters.Merged(db), entries);
    }

    /// <summary>What the entries amount to, with the position they were read at.</summary>
    public (long Position, LessonState State) State()
    {
        lock (_lock)
        {
            return (_entries.Count == 0 ? 0 : _entries[^1].Seq, _state ??= LessonState.Fold(_entries.Select(e => e.Entry), _merged));
        }
    }

    /// <summary>What the entries amounted to at an earlier position.</summary>
    public LessonState StateAt(long position)
    {
        lock (_lock)
        {
            return LessonState.Fold(_entries.TakeWhile(e => e.Seq <= position).Select(e => e.Entry), _merged);
        }
    }

    /// <summary>The student that a record counts for.</summary>
    public Guid Whose(Guid student) => _merged.GetValueOrDefault(student, student);

    internal IReadOnlySet<Guid> RosterIds => _rosterIds;

    internal Act? ActOf(Guid entry) => _known.GetValueOrDefault(entry);

    /// <summary>What the entries would amount to with more of them.</summary>
    internal LessonState StateWith(IEnumerable<Entry> more)
    {
        lock (_lock)
        {
            return LessonState.Fold(_entries.Select(e => e.Entry).Concat(more), _merged);
        }
    }

    internal void Added(IReadOnlyList<(long Seq, Entry Entry)> stored, Lesson lesson)
    {
        lock (_lock)
        {
            _entries.AddRange(stored);
            foreach (var (_, entry) in stored)
            {
                _known[entry.Id] = entry.Act;
            }

            Lesson = lesson;
            _state = null;
        }
    }

    private static Entry EntryOf(EntryRow row) =>
        new(row.Id, row.HappenedAt, row.NotedAt, row.Source, row.By, ActJson.Read(row.Act));
}
