using System.Collections.Concurrent;
using System.Threading.Channels;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>An entry as it is sent in.</summary>
public sealed record NewEntry(Guid Id, Instant HappenedAt, Act Act);

/// <summary>An entry that was not stored, and why.</summary>
public sealed record Refusal(Guid Id, string Why);

/// <summary>What became of entries. When this is handed out, what was accepted is on the disk.</summary>
/// <param name="Position">The position of the lesson's ledger after them.</param>
/// <param name="Accepted">Stored now or before.</param>
/// <param name="Refused">Not stored.</param>
public sealed record WriteResult(long Position, IReadOnlyList<Guid> Accepted, IReadOnlyList<Refusal> Refused);

/// <summary>
/// The one writer of the ledger. It takes what waits, checks it, appends it in one transaction, answers only then, and
/// says that the lesson changed.
/// </summary>
public sealed class LedgerWriter : IAsyncDisposable
{
    private const int MostJobsAtOnce = 256;
    private const int MostRooms = 500;

    private readonly SchoolFile _file;
    private readonly IClock _clock;
    // Synchronous continuations: a tap that finds the writer idle is written on the thread that brought it, which saves
    // two changes of thread on the way to the disk and back.
    private readonly Channel<Job> _jobs = Channel.CreateBounded<Job>(new BoundedChannelOptions(4096)
    {
        SingleReader = true,
        AllowSynchronousContinuations = true,
    });

    private readonly ConcurrentDictionary<Guid, Room> _rooms = new();
    private readonly Task _loop;

    public LedgerWriter(SchoolFile file, IClock clock)
    {
        _file = file;
        _clock = clock;
        _loop = Task.Run(Run);
    }

    /// <summary>A lesson has new entries on the disk, or its roster, rules or plan changed.</summary>
    public event Action<Guid>? Changed;

    /// <summary>Appends entries to a lesson. Null if this owner has no such lesson.</summary>
    public async Task<WriteResult?> Append(
        Guid owner, Guid lesson, Source source, string by, IReadOnlyList<NewEntry> entries)
    {
        var job = new Job(owner, lesson, source, by, entries, new(TaskCreationOptions.RunContinuationsAsynchronously));
        await _jobs.Writer.WriteAsync(job);
        return await job.Answer.Task;
    }

    /// <summary>A lesson as it stands; null if this owner has no such lesson.</summary>
    public Room? RoomOf(Guid owner, Guid lesson)
    {
        if (!_rooms.TryGetValue(lesson, out var room))
        {
            using var db = _file.Open(owner);
            if (Room.Load(db, lesson) is not { } loaded)
            {
                return null;
            }

            // Whoever loaded first wins, so that there is one room a lesson.
            room = _rooms.GetOrAdd(lesson, loaded);
        }

        return room.Lesson.OwnerId == owner ? room : null;
    }

    /// <summary>Forgets lessons, so that they are read anew: their roster or plan changed.</summary>
    public void Forget(Func<Lesson, bool> which)
    {
        foreach (var (id, room) in _rooms)
        {
            if (which(room.Lesson) && _rooms.TryRemove(id, out _))
            {
                Changed?.Invoke(id);
            }
        }
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        _jobs.Writer.TryComplete();
        await _loop;
    }

    private async Task Run()
    {
        using var connection = new SqliteConnection(_file.Open(Guid.Empty).Database.GetConnectionString());
        connection.Open();
        using (var pragmas = connection.CreateCommand())
        {
            pragmas.CommandText = SchoolFile.Pragmas;
            pragmas.ExecuteNonQuery();
        }

        using var insert = new InsertEntry(connection);
        var waiting = new List<Job>();
        while (await _jobs.Reader.WaitToReadAsync())
        {
            waiting.Clear();
            while (waiting.Count < MostJobsAtOnce && _jobs.Reader.TryRead(out var job))
            {
                waiting.Add(job);
            }

            Write(waiting, connection, insert);
            if (_jobs.Reader.Count > 0)
            {
                // The thread that brought the first of them has an answer to give; the rest go on elsewhere.
                await Task.Yield();
            }
        }
    }

    private void Write(List<Job> waiting, SqliteConnection connection, InsertEntry insert)
    {
        var work = new Dictionary<Guid, Work>();
        var answers = new List<(Job Job, Work? Work, List<Guid> Accepted, List<Refusal> Refused)>();
        try
        {
            using (var transaction = connection.BeginTransaction())
            {
                insert.In(transaction);
                foreach (var job in waiting)
                {
                    var on = WorkOn(job, work);
                    var (accepted, refused) = (new List<Guid>(), new List<Refusal>());
                    answers.Add((job, on, accepted, refused));
                    foreach (var sent in on is null ? [] : job.Entries)
                    {
                        if (Take(sent, job, on!, insert, connection, transaction) is { } why)
                        {
                            refused.Add(new Refusal(sent.Id, why));
                        }
                        else
                        {
                            accepted.Add(sent.Id);
                        }
                    }
                }

                transaction.Commit();
            }
        }
        catch (Exception failure)
        {
            // Whatever went wrong, the writer goes on: nobody else may be left waiting for it.
            foreach (var job in waiting)
            {
                job.Answer.TrySetException(new IOException("The entries could not be stored; nothing was kept of them.", failure));
            }

            return;
        }

        foreach (var on in work.Values)
        {
            on.Room.Added(on.Stored, on.Lesson);
            if (_rooms.TryGetValue(on.Lesson.Id, out var room) && room != on.Room)
            {
                // Forgotten and loaded anew between the insert and the commit: what was loaded lacks these entries.
                _rooms.TryRemove(on.Lesson.Id, out _);
            }
        }

        foreach (var (job, on, accepted, refused) in answers)
        {
            job.Answer.TrySetResult(on is null ? null : new WriteResult(on.Room.Position, accepted, refused));
        }

        foreach (var on in work.Values.Where(w => w.Stored.Count > 0))
        {
            Changed?.Invoke(on.Lesson.Id);
        }

        if (_rooms.Count > MostRooms)
        {
            foreach (var (id, _) in _rooms.Where(r => r.Value.Lesson.Stage != LessonStage.Live))
            {
                _rooms.TryRemove(id, out _);
            }
        }
    }

    private Work? WorkOn(Job job, Dictionary<Guid, Work> work)
    {
        if (work.TryGetValue(job.Lesson, out var known))
        {
            return known.Lesson.OwnerId == job.Owner ? known : null;
        }

        if (RoomOf(job.Owner, job.Lesson) is not { } room)
        {
            return null;
        }

        return work[job.Lesson] = new Work(room);
    }

    private string? Take(
        NewEntry sent, Job job, Work on, InsertEntry insert, SqliteConnection connection, SqliteTransaction transaction)
    {
        if (on.ActOf(sent.Id) is not null)
        {
            return null;
        }

        var now = OnTheDisk(_clock.GetCurrentInstant());
        var entry = new Entry(sent.Id, OnTheDisk(sent.HappenedAt), now, job.Source, job.By, sent.Act);
        var facts = new LessonFacts(
            Room.TimesOf(on.Lesson), on.Room.RosterIds, on.Lesson.Stage == LessonStage.Settled, on.ActOf,
            id => on.State().IsStruck(id), on.Lesson.CancelledAt is not null);
        if (EntryRules.WhyRefused(entry, facts, now) is { } why)
        {
            return why;
        }

        if (insert.Store(job.Owner, job.Lesson, entry) is not { } seq)
        {
            return "This entry is in another lesson already.";
        }

        on.Add(seq, entry);
        if (ChangesCourse(entry.Act, on))
        {
            on.Lesson = FollowCourse(job.Owner, on, connection, transaction);
        }

        return null;
    }

    // The file keeps milliseconds; what is reckoned from memory must be what will be read back.
    private static Instant OnTheDisk(Instant at) => Instant.FromUnixTimeMilliseconds(at.ToUnixTimeMilliseconds());

    private static bool ChangesCourse(Act act, Work on) => act switch
    {
        LessonStarted or LessonEnded or LessonSettled => true,
        Struck struck => on.ActOf(struck.Entry) is { } target && ChangesCourse(target, on),
        _ => false,
    };

    /// <summary>Writes down beside the ledger what it says of the lesson's course, and the summaries of a settled one.</summary>
    private static Lesson FollowCourse(Guid owner, Work on, SqliteConnection connection, SqliteTransaction transaction)
    {
        var options = new DbContextOptionsBuilder<SchoolDb>().UseSqlite(connection).Options;
        using var db = new SchoolDb(options, new Owner { Id = owner });
        db.Database.UseTransaction(transaction);
        var lesson = db.Lessons.Include(l => l.Class).Single(l => l.Id == on.Lesson.Id);
        var state = on.State();
        lesson.ActualStart = state.StartedAt;
        lesson.ActualEnd = state.EndedAt;
        lesson.Stage = state switch
        {
            { SettledBy: not null } => LessonStage.Settled,
            { EndedAt: not null } => LessonStage.Ended,
            { StartedAt: not null } => LessonStage.Live,
            _ => LessonStage.Planned,
        };
        db.Summaries.Where(s => s.LessonId == lesson.Id).ExecuteDelete();
        if (lesson.Stage == LessonStage.Settled)
        {
            lesson.RosterClosedAt ??= state.Entries.First(e => e.Id == state.SettledBy).NotedAt;
            db.Summaries.AddRange(Summaries.Of(state, lesson, on.Room.Rules, on.Room.Roster.Select(s => s.Name.Id)));
        }

        db.SaveChanges();
        db.Entry(lesson).State = EntityState.Detached;
        return lesson;
    }

    private sealed record Job(
        Guid Owner, Guid Lesson, Source Source, string By, IReadOnlyList<NewEntry> Entries,
        TaskCompletionSource<WriteResult?> Answer);

    /// <summary>A room with what this transaction adds to it.</summary>
    private sealed class Work(Room room)
    {
        private readonly Dictionary<Guid, Act> _added = [];

        public Room Room { get; } = room;

        public Lesson Lesson { get; set; } = room.Lesson;

        public List<(long Seq, Entry Entry)> Stored { get; } = [];

        public Act? ActOf(Guid entry) => _added.GetValueOrDefault(entry) ?? Room.ActOf(entry);

        public LessonState State() => Room.StateWith(Stored.Select(s => s.Entry));

        public void Add(long seq, Entry entry)
        {
            _added[entry.Id] = entry.Act;
            Stored.Add((seq, entry));
        }
    }

    /// <summary>
    /// The one statement on the way of every tap, prepared once. Its names are those of <see cref="EntryRow"/>; a test of
    /// the web floor reads what it writes through the model.
    /// </summary>
    private sealed class InsertEntry : IDisposable
    {
        private readonly SqliteCommand _command;

        public InsertEntry(SqliteConnection connection)
        {
            _command = connection.CreateCommand();
            _command.CommandText = """
                INSERT INTO "Entries" ("Id", "OwnerId", "LessonId", "HappenedAt", "NotedAt", "Source", "By", "Act")
                VALUES ($id, $owner, $lesson, $happened, $noted, $source, $by, $act)
                ON CONFLICT ("Id") DO NOTHING
                RETURNING "Seq"
                """;
            foreach (var name in (string[])["$id", "$owner", "$lesson", "$happened", "$noted", "$source", "$by", "$act"])
            {
                _command.Parameters.Add(new SqliteParameter { ParameterName = name });
            }
        }

        public void In(SqliteTransaction transaction) => _command.Transaction = transaction;

        /// <summary>The number of the stored entry; null if one of this id is stored already.</summary>
        public long? Store(Guid owner, Guid lesson, Entry entry)
        {
            object[] values =
            [
                entry.Id, owner, lesson, entry.HappenedAt.ToUnixTimeMilliseconds(), entry.NotedAt.ToUnixTimeMilliseconds(),
                (int)entry.Source, entry.By, ActJson.Write(entry.Act),
            ];
            for (var i = 0; i < values.Length; i++)
            {
                _command.Parameters[i].Value = values[i];
            }

            return (long?)_command.ExecuteScalar();
        }

        public void Dispose() => _command.Dispose();
    }
}
