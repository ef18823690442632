using System.Collections.Immutable;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>
/// A lesson that is being worked on, as it stood at one position of its ledger. It never changes, so whoever has it may read it as long as they
/// like; what comes later makes another one. <see cref="OpenLessons"/> has the newest.
/// </summary>
public sealed class OpenLesson
{
    /// <summary>The most entries a lesson takes: 250,000, some hundred times a busy one, and the largest files with it.</summary>
    public const int MostEntries = 250_000;

    private readonly GrowingList<(long Seq, Entry Entry)> _entries;
    private readonly ImmutableDictionary<Guid, ImmutableHashSet<Guid>> _cast;
    private readonly LessonNames _names;
    private readonly ActIndex _acts;
    private readonly Lock _folding = new();
    private readonly LessonState? _from;
    private readonly int _fromCount;
    private volatile LessonState? _state;

    private OpenLesson(
        LessonGround ground, GrowingList<(long Seq, Entry Entry)> entries, ImmutableDictionary<Guid, ImmutableHashSet<Guid>> cast, LessonNames? names,
        ActIndex acts, LessonState? from, int fromCount)
    {
        (Ground, _entries, _cast, _acts, _from, _fromCount) = (ground, entries, cast, acts, from, fromCount);
        _state = from is not null && fromCount == entries.Count ? from : null;
        _names = names ?? new LessonNames(this);
    }

    /// <summary>The row of the lesson, not tracked.</summary>
    public Lesson Lesson => Ground.Lesson;

    /// <summary>The name of the class.</summary>
    public string ClassName => Ground.ClassName;

    /// <summary>The ground rules of the lesson.</summary>
    public ClassRules Rules => Ground.Rules;

    /// <summary>What is prepared for it.</summary>
    public Plan Plan => Ground.Plan;

    /// <summary>The students of this lesson, by family name.</summary>
    public IReadOnlyList<OnSheet> Roster => Ground.Roster;

    /// <summary>What each of them is called in short, in this lesson.</summary>
    public IReadOnlyDictionary<Guid, string> ShortNames => Ground.ShortNames;

    /// <summary>Records that were merged, each with the one it counts for.</summary>
    public IReadOnlyDictionary<Guid, Guid> Merged => Ground.Merged;

    /// <summary>The position of the ledger: the number of its newest entry, 0 if there is none.</summary>
    public long Position => _entries.Count == 0 ? 0 : _entries[^1].Seq;

    /// <summary>How many entries there are.</summary>
    public int Count => _entries.Count;

    /// <summary>What the entries amount to.</summary>
    public LessonState State
    {
        get
        {
            if (_state is { } known)
            {
                return known;
            }

            lock (_folding)
            {
                return _state ??= _from?.With([.. _entries.From(_fromCount).Select(e => e.Entry)])
                    ?? LessonState.Fold(_entries.Select(e => e.Entry), Merged);
            }
        }
    }

    /// <summary>When the lesson was meant to be, and when it was.</summary>
    public LessonTimes Times => TimesOf(Lesson);

    internal LessonGround Ground { get; }

    /// <summary>When its newest entry was noted; the beginning of time if there is none.</summary>
    internal Instant LastNoted => _entries.Count == 0 ? Instant.FromUnixTimeMilliseconds(0) : _entries[^1].Entry.NotedAt;

    /// <summary>When a lesson was meant to be, and when it was.</summary>
    public static LessonTimes TimesOf(Lesson lesson) =>
        new(lesson.PlannedStart, lesson.PlannedEnd, lesson.ActualStart, lesson.ActualEnd, lesson.DropIn);

    /// <summary>Reads a lesson as it is at one moment; null if the owner of the context has none of this id.</summary>
    /// <param name="db">A context of its owner.</param>
    /// <param name="lessonId">The lesson.</param>
    /// <param name="shortForms">What names are called for short; null for the table that ships with the application.</param>
    public static OpenLesson? Load(SchoolDb db, Guid lessonId, ShortForms? shortForms = null)
    {
        using var moment = Moment.Of(db);
        if (LessonGround.Load(db, lessonId, shortForms ?? ShortForms.Shipped) is not { } ground)
        {
            return null;
        }

        var entries = StoredEntry.In(db.Entries.Where(e => e.LessonId == lessonId).OrderBy(e => e.Seq)).Select(row => (row.Seq, row.Entry())).ToArray();
        return new OpenLesson(ground, new(entries), ImmutableDictionary<Guid, ImmutableHashSet<Guid>>.Empty, names: null, new ActIndex(), from: null, fromCount: 0);
    }

    /// <summary>Reads lessons that are over, as they are at one moment, for whoever looks at many; each is folded already. Those that are not the owner's are not among them.</summary>
    /// <param name="db">A context of their owner.</param>
    /// <param name="ids">The lessons.</param>
    public static IReadOnlyDictionary<Guid, OpenLesson> Load(SchoolDb db, IReadOnlyList<Guid> ids)
    {
        using var moment = Moment.Of(db);
        var entries = StoredEntry.In(db.Entries.Where(e => ids.Contains(e.LessonId)).OrderBy(e => e.LessonId).ThenBy(e => e.Seq)).ToLookup(e => e.LessonId);
        var grounds = LessonGround.Load(db, ids, ShortForms.Shipped);
        try
        {
            return grounds.AsParallel().Select(Folded).ToDictionary(open => open.Lesson.Id);
        }
        catch (AggregateException several) when (several.InnerException is UnreadableDocument)
        {
            throw several.InnerException;
        }

        OpenLesson Folded(LessonGround ground)
        {
            var open = new OpenLesson(
                ground, new([.. entries[ground.Lesson.Id].Select(row => (row.Seq, row.Entry()))]), ImmutableDictionary<Guid, ImmutableHashSet<Guid>>.Empty, names: null, new ActIndex(), from: null, fromCount: 0);
            _ = open.State;
            return open;
        }
    }

    /// <summary>An entry as it was stored.</summary>
    /// <exception cref="UnreadableDocument">What is stored is no act.</exception>
    public static Entry EntryOf(EntryRow row) => StoredEntry.Of(row).Entry();

    /// <summary>A student of this lesson; null if they are none.</summary>
    public OnSheet? OnSheetOf(Guid student) => Ground.OnSheetOf(student);

    /// <summary>The student that a record counts for.</summary>
    public Guid Whose(Guid student) => Merged.GetValueOrDefault(student, student);

    /// <summary>What the entries amounted to at an earlier position.</summary>
    public LessonState StateAt(long position) => LessonState.Fold(_entries.TakeWhile(e => e.Seq <= position).Select(e => e.Entry), Merged);

    /// <summary>Entries that were stored after a position, in the order in which they were.</summary>
    public IReadOnlyList<Entry> EntriesAfter(long position)
    {
        var after = _entries.Count;
        while (after > 0 && _entries[after - 1].Seq > position)
        {
            after--;
        }

        return [.. _entries.From(after).Select(e => e.Entry)];
    }

    /// <summary>Whose a name in the meeting is, as far as it tells by itself.</summary>
    /// <param name="shown">The name.</param>
    /// <param name="several">Whether another of the name is shown beside it; what the lesson has seen is known.</param>
    public NameMatch MatchOf(ShownName shown, bool several = false) => _names.Of(shown, several);

    /// <summary>Whose the names of one list are, looked at together: no two of them are sure to be the same student.</summary>
    public IReadOnlyList<NameMatch> MatchesOf(IReadOnlyList<ShownName> list) => _names.Of(list);

    /// <summary>How many have answered a question, with or without a name.</summary>
    public int AnsweredIn(Asking asking) => asking.Question.Anonymous
        ? asking.IsCounted ? asking.BallotsCast : _cast.GetValueOrDefault(asking.Id)?.Count ?? 0
        : asking.Answers.Count;

    /// <summary>Whether a student has answered an anonymous question that is open; nobody knows what.</summary>
    public bool HasCast(Guid asking, Guid student) => _cast.GetValueOrDefault(asking)?.Contains(student) ?? false;

    /// <summary>The act of an entry; null if there is none. Only the writer asks, of the newest.</summary>
    internal Act? ActOf(Guid entry) => _acts.In(_entries).GetValueOrDefault(entry);

    /// <summary>The lesson with more entries, and perhaps another row.</summary>
    /// <param name="stored">Entries that are on the disk now.</param>
    /// <param name="lesson">The row of the lesson as it is now.</param>
    /// <param name="state">What all entries amount to, if that was reckoned; else null.</param>
    internal OpenLesson With(IReadOnlyList<(long Seq, Entry Entry)> stored, Lesson lesson, LessonState? state)
    {
        var entries = stored.Count == 0 ? _entries : _entries.With([.. stored]);
        var (from, count) = state is not null ? (state, entries.Count) : _state is { } known ? (known, _entries.Count) : (_from, _fromCount);
        var speaksOfNames = stored.Any(s => s.Entry is { Source: Source.Tapped, Act: NameMatched or Struck });
        return new OpenLesson(ReferenceEquals(lesson, Lesson) ? Ground : Ground.With(lesson), entries, _cast, speaksOfNames ? null : _names, _acts, from, count);
    }

    /// <summary>The lesson with who has answered an anonymous question; with null, with that forgotten.</summary>
    internal OpenLesson WithCast(Guid asking, ImmutableHashSet<Guid>? students) => new(
        Ground, _entries, students is null ? _cast.Remove(asking) : _cast.SetItem(asking, students), _names, _acts, _state ?? _from, _state is null ? _fromCount : _entries.Count);

    /// <summary>The same ledger on new ground: its roster, rules, plan or row changed.</summary>
    internal OpenLesson On(LessonGround ground)
    {
        var sameStudents = ground.Merged.Count == Merged.Count && !ground.Merged.Except(Merged).Any();
        return new OpenLesson(ground, _entries, _cast, names: null, _acts, sameStudents ? _state : null, sameStudents && _state is not null ? _entries.Count : 0);
    }

    /// <summary>Acts by the ids of their entries, brought up to date when asked for. One thread uses it.</summary>
    private sealed class ActIndex
    {
        private readonly Dictionary<Guid, Act> _acts = [];
        private int _upTo;

        public Dictionary<Guid, Act> In(GrowingList<(long Seq, Entry Entry)> entries)
        {
            for (; _upTo < entries.Count; _upTo++)
            {
                _acts[entries[_upTo].Entry.Id] = entries[_upTo].Entry.Act;
            }

            return _acts;
        }
    }
}
