using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>
/// What is kept in memory of a lesson that is being worked on: its entries, its roster and its times. Only the writer
/// changes it, and only after the change is on the disk.
/// </summary>
public sealed class OpenLesson
{
    private readonly Lock _lock = new();
    private readonly List<(long Seq, Entry Entry)> _entries;
    private readonly Dictionary<Guid, Act> _known;
    private readonly HashSet<Guid> _rosterIds;
    private readonly Dictionary<Guid, OnSheet> _onSheet;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;
    private readonly Dictionary<string, NameMatch> _matches = new(StringComparer.Ordinal);
    private readonly IReadOnlyList<ConfirmedName> _confirmed;
    private readonly Dictionary<Guid, HashSet<Guid>> _cast;
    private LessonState? _state;
    private NameMatcher? _matcher;

    private OpenLesson(
        Lesson lesson, IReadOnlyList<OnSheet> roster, IReadOnlyDictionary<Guid, Guid> merged, IReadOnlyList<ConfirmedName> confirmed,
        List<(long Seq, Entry Entry)> entries, Dictionary<Guid, HashSet<Guid>> cast)
    {
        _cast = cast;
        Lesson = lesson;
        ClassName = lesson.Class!.Name;
        Rules = RulesJson.Of(lesson, lesson.Class);
        Plan = PlanJson.Of(lesson);
        Roster = roster;
        _onSheet = roster.ToDictionary(s => s.Name.Id);
        ShortNames = Core.Names.ShortNames.For([.. roster.Select(s => s.Name)]);
        _confirmed = confirmed;
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

    /// <summary>What is prepared for it.</summary>
    public Plan Plan { get; }

    /// <summary>The students of this lesson, by family name.</summary>
    public IReadOnlyList<OnSheet> Roster { get; }

    /// <summary>A student of this lesson; null if they are none.</summary>
    public OnSheet? OnSheetOf(Guid student) => _onSheet.GetValueOrDefault(student);

    /// <summary>What each of them is called in short, in this lesson.</summary>
    public IReadOnlyDictionary<Guid, string> ShortNames { get; }

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

    /// <summary>When its newest entry was noted; the beginning of time if there is none.</summary>
    internal Instant LastNoted
    {
        get
        {
            lock (_lock)
            {
                return _entries.Count == 0 ? Instant.FromUnixTimeMilliseconds(0) : _entries[^1].Entry.NotedAt;
            }
        }
    }

    /// <summary>When the lesson was meant to be, and when it was.</summary>
    public LessonTimes Times => TimesOf(Lesson);

    /// <summary>When a lesson was meant to be, and when it was.</summary>
    public static LessonTimes TimesOf(Lesson lesson) =>
        new(lesson.PlannedStart, lesson.PlannedEnd, lesson.ActualStart, lesson.ActualEnd, lesson.DropIn);

    /// <summary>Loads a lesson; null if this owner has none of this id.</summary>
    public static OpenLesson? Load(SchoolDb db, Guid lessonId)
    {
        var lesson = db.Lessons.AsNoTracking().Include(l => l.Class).FirstOrDefault(l => l.Id == lessonId);
        if (lesson is null)
        {
            return null;
        }

        var entries = db.Entries.AsNoTracking().Where(e => e.LessonId == lessonId).OrderBy(e => e.Seq).AsEnumerable()
            .Select(row => (row.Seq, EntryOf(row))).ToList();
        var merged = Rosters.Merged(db);
        var confirmed = db.KnownNames.AsNoTracking().Where(n => n.ClassId == lesson.ClassId).AsEnumerable()
            .Select(n => new ConfirmedName(n.Folded, n.StudentId is { } id ? merged.GetValueOrDefault(id, id) : null)).ToList();
        var cast = db.BallotsCast.AsNoTracking().Where(c => c.LessonId == lessonId).AsEnumerable()
            .GroupBy(c => c.AskingId, c => c.StudentId).ToDictionary(g => g.Key, g => g.ToHashSet());
        return new OpenLesson(lesson, Rosters.Of(db, lesson), merged, confirmed, entries, cast);
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

    /// <summary>Entries that were stored after a position, in the order in which they were.</summary>
    public IReadOnlyList<Entry> EntriesAfter(long position)
    {
        lock (_lock)
        {
            var first = _entries.FindLastIndex(e => e.Seq <= position) + 1;
            return [.. _entries.Skip(first).Select(e => e.Entry)];
        }
    }

    /// <summary>Whose a name in the meeting is, as far as it tells by itself. A name is looked at once, unless more is known of it later.</summary>
    public NameMatch MatchOf(ShownName shown)
    {
        lock (_lock)
        {
            var known = shown is { Number: null, Email: null } ? _matches.GetValueOrDefault(shown.Name) : null;
            return known ?? (_matches[shown.Name] = Matcher().Match(shown));
        }
    }

    /// <summary>Whose the names of one list are, looked at together: no two of them are sure to be the same student.</summary>
    public IReadOnlyList<NameMatch> MatchesOf(IReadOnlyList<ShownName> list)
    {
        lock (_lock)
        {
            return Matcher().Match(list);
        }
    }

    /// <summary>Records that were merged, each with the one it counts for.</summary>
    public IReadOnlyDictionary<Guid, Guid> Merged => _merged;

    /// <summary>The student that a record counts for.</summary>
    public Guid Whose(Guid student) => _merged.GetValueOrDefault(student, student);

    /// <summary>How many have answered a question, with or without a name.</summary>
    public int AnsweredIn(Asking asking)
    {
        if (!asking.Question.Anonymous || asking.IsCounted)
        {
            return asking.Question.Anonymous ? asking.BallotsCast : asking.Answers.Count;
        }

        lock (_lock)
        {
            return _cast.GetValueOrDefault(asking.Id)?.Count ?? 0;
        }
    }

    /// <summary>Whether a student has answered an anonymous question that is open; nobody knows what.</summary>
    public bool HasCast(Guid asking, Guid student)
    {
        lock (_lock)
        {
            return _cast.GetValueOrDefault(asking)?.Contains(student) ?? false;
        }
    }

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

    internal void Added(IReadOnlyList<(long Seq, Entry Entry)> stored, Lesson lesson, IReadOnlyList<(Guid Asking, Guid Student)> cast)
    {
        lock (_lock)
        {
            foreach (var (asking, student) in cast)
            {
                (_cast.TryGetValue(asking, out var those) ? those : _cast[asking] = []).Add(student);
            }

            _entries.AddRange(stored);
            foreach (var (_, entry) in stored)
            {
                _known[entry.Id] = entry.Act;
            }

            Lesson = lesson;
            _state = null;
            if (stored.Any(s => s.Entry is { Source: Source.Tapped, Act: NameMatched or Struck }))
            {
                _matcher = null;
                _matches.Clear();
            }
        }
    }

    private NameMatcher Matcher() => _matcher ??= new NameMatcher(Roster.Select(s => s.Name), _confirmed.Concat(ConfirmedHere()));

    // What the teacher said of names in this lesson counts for other ways of writing them, too.
    private IEnumerable<ConfirmedName> ConfirmedHere() => State().State.Names.Values
        .Where(n => n.Match is { Source: Source.Tapped })
        .Select(n => new ConfirmedName(NameFolding.Fold(n.Name), n.Match!.Student is { } id ? Whose(id) : null))
        .Where(n => n.Folded.Length > 0);

    /// <summary>An entry as it was stored.</summary>
    public static Entry EntryOf(EntryRow row) =>
        new(row.Id, row.HappenedAt, row.NotedAt, row.Source, row.By, ActJson.Read(row.Act));
}
