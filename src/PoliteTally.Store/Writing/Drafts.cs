using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Store.Model;

namespace PoliteTally.Store.Writing;

/// <summary>What one transaction adds, lesson by lesson. It counts when the transaction is on the disk, and is thrown away if it fails.</summary>
internal sealed class Drafts(OpenLessons lessons, BallotBoxes boxes, EntryInsert insert, SqliteConnection connection, SqliteTransaction transaction)
{
    private readonly Dictionary<Guid, Draft> _drafts = [];

    public IReadOnlyCollection<Draft> All => _drafts.Values;

    /// <summary>The draft of a lesson; null if this owner has no such lesson open.</summary>
    public Draft? Of(Guid owner, Guid lesson)
    {
        if (_drafts.TryGetValue(lesson, out var known))
        {
            return known.Lesson.OwnerId == owner ? known : null;
        }

        return lessons.Now(owner, lesson) is ({ } open, var generation)
            ? _drafts[lesson] = new Draft(open, generation, boxes.Of(lesson), insert, connection, transaction)
            : null;
    }
}

/// <summary>A lesson with what one transaction adds to it.</summary>
internal sealed class Draft(
    OpenLesson before, long generation, BallotBox box, EntryInsert insert, SqliteConnection connection, SqliteTransaction transaction)
{
    private readonly Dictionary<Guid, Act> _added = [];
    private LessonState? _state;
    private int _inState;

    /// <summary>The lesson as it was.</summary>
    public OpenLesson Before { get; } = before;

    /// <summary>The generation of what it stands on.</summary>
    public long Generation { get; } = generation;

    /// <summary>The row of the lesson, as it is now.</summary>
    public Lesson Lesson { get; set; } = before.Lesson;

    /// <summary>Answers to the anonymous questions that are open.</summary>
    public BallotBox Box { get; } = box;

    /// <summary>Whether there is something new to show.</summary>
    public bool IsChanged => Stored.Count > 0 || Box.IsChanged;

    /// <summary>The class knows more of a name than before, or less.</summary>
    public bool NamesRemembered { get; set; }

    /// <summary>When the newest entry was noted.</summary>
    public Instant LastNoted { get; private set; } = before.LastNoted;

    /// <summary>Entries that were stored, in order.</summary>
    public List<(long Seq, Entry Entry)> Stored { get; } = [];

    /// <summary>What all entries amount to, as far as that was asked for; null if it was not, or if more came since.</summary>
    public LessonState? KnownState => _inState == Stored.Count ? _state : null;

    /// <summary>The act of an entry of this lesson; null if there is none.</summary>
    public Act? ActOf(Guid entry) => _added.GetValueOrDefault(entry) ?? Before.ActOf(entry);

    /// <summary>What a strike is about in the end, through strikes of strikes.</summary>
    public IReadOnlyCollection<Act> About(Struck struck)
    {
        var (about, seen) = (new List<Act>(), new HashSet<Guid>());
        var open = new Queue<Guid>(struck.Entries);
        while (open.TryDequeue(out var entry))
        {
            if (!seen.Add(entry))
            {
                continue;
            }

            if (ActOf(entry) is Struck further)
            {
                foreach (var one in further.Entries)
                {
                    open.Enqueue(one);
                }
            }
            else if (ActOf(entry) is { } act)
            {
                about.Add(act);
            }
        }

        return about;
    }

    /// <summary>What the entries amount to so far.</summary>
    public LessonState State()
    {
        _state ??= Before.State;
        if (_inState < Stored.Count)
        {
            _state = _state.With([.. Stored.Skip(_inState).Select(s => s.Entry)]);
            _inState = Stored.Count;
        }

        return _state;
    }

    /// <summary>Stores an entry.</summary>
    /// <returns>False if one of this id is stored already.</returns>
    public bool Store(Entry entry)
    {
        if (insert.Store(Lesson.OwnerId, Lesson.Id, entry) is not { } seq)
        {
            return false;
        }

        _added[entry.Id] = entry.Act;
        LastNoted = entry.NotedAt;
        Stored.Add((seq, entry));
        return true;
    }

    /// <summary>The moment at which an entry is noted that comes at a moment.</summary>
    /// <remarks>
    /// Each entry of a lesson is noted later than the one before it, so that what happened in one and the same millisecond keeps the order in which
    /// it arrived, whoever folds it.
    /// </remarks>
    public Instant NotedAt(Instant now) => Instant.Max(EntryTaking.OnTheDisk(now), LastNoted + Duration.FromMilliseconds(1));

    /// <summary>A context that is part of the transaction.</summary>
    public SchoolDb Database()
    {
        var db = new SchoolDb(new DbContextOptionsBuilder<SchoolDb>().UseSqlite(connection).Options, new Owner { Id = Lesson.OwnerId });
        db.Database.UseTransaction(transaction);
        return db;
    }
}
