using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>A student on the sheet of a lesson.</summary>
public sealed record OnSheet(RosterName Name, char Key, string Tags);

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
    private LessonState? _state;

    private Room(Lesson lesson, string className, IReadOnlyList<OnSheet> roster, List<(long Seq, Entry Entry)> entries)
    {
        Lesson = lesson;
        ClassName = className;
        Roster = roster;
        _entries = entries;
        _rosterIds = [.. roster.Select(s => s.Name.Id)];
        _known = entries.ToDictionary(e => e.Entry.Id, e => e.Entry.Act);
    }

    /// <summary>The row of the lesson, not tracked.</summary>
    public Lesson Lesson { get; private set; }

    /// <summary>The name of the class.</summary>
    public string ClassName { get; }

    /// <summary>The students, by what they are called.</summary>
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
        return new Room(lesson, lesson.Class!.Name, LoadRoster(db, lesson.ClassId), entries);
    }

    /// <summary>The students of a class, by what they are called.</summary>
    public static IReadOnlyList<OnSheet> LoadRoster(SchoolDb db, Guid classId) =>
        [.. db.Enrolments.AsNoTracking().Where(e => e.ClassId == classId).Include(e => e.Student).AsEnumerable()
            .Select(e => new OnSheet(NameOf(e.Student!), e.Key, e.Student!.Tags))
            .OrderBy(s => NameFolding.Fold(s.Name.Family), StringComparer.Ordinal)
            .ThenBy(s => NameFolding.Fold(s.Name.Given), StringComparer.Ordinal)];

    /// <summary>A student as far as names go.</summary>
    public static RosterName NameOf(Student student) =>
        new(student.Id, student.Given, student.Family, student.Preferred, student.Number, student.Email);

    /// <summary>What the entries amount to, with the position they were read at.</summary>
    public (long Position, LessonState State) State()
    {
        lock (_lock)
        {
            return (_entries.Count == 0 ? 0 : _entries[^1].Seq, _state ??= LessonState.Fold(_entries.Select(e => e.Entry)));
        }
    }

    /// <summary>What the entries amounted to at an earlier position.</summary>
    public LessonState StateAt(long position)
    {
        lock (_lock)
        {
            return LessonState.Fold(_entries.TakeWhile(e => e.Seq <= position).Select(e => e.Entry));
        }
    }

    internal IReadOnlySet<Guid> RosterIds => _rosterIds;

    internal Act? ActOf(Guid entry) => _known.GetValueOrDefault(entry);

    /// <summary>What the entries would amount to with more of them.</summary>
    internal LessonState StateWith(IEnumerable<Entry> more)
    {
        lock (_lock)
        {
            return LessonState.Fold(_entries.Select(e => e.Entry).Concat(more));
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
