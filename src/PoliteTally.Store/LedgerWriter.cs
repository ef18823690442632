using System.Collections.Concurrent;
using System.Threading.Channels;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Questions;
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
    private const int MostOpen = 500;

    private readonly SchoolFile _file;
    private readonly IClock _clock;
    // Synchronous continuations: a tap that finds the writer idle is written on the thread that brought it, which saves
    // two changes of thread on the way to the disk and back.
    private readonly Channel<Job> _jobs = Channel.CreateBounded<Job>(new BoundedChannelOptions(4096)
    {
        SingleReader = true,
        AllowSynchronousContinuations = true,
    });

    private readonly ConcurrentDictionary<Guid, OpenLesson> _open = new();
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
        var job = new EntriesJob(owner, lesson, source, by, entries, new(TaskCreationOptions.RunContinuationsAsynchronously));
        await _jobs.Writer.WriteAsync(job);
        return await job.Answer.Task;
    }

    /// <summary>
    /// Stores an answer to an anonymous question, in place of the one of the same id if there is one. That the student answered is kept apart
    /// from what was answered, and neither with a time.
    /// </summary>
    /// <param name="ballot">A random id that the student's browser made and alone knows.</param>
    /// <returns>Why it was refused; null if it is on the disk.</returns>
    public async Task<string?> Cast(Guid owner, Guid lesson, Guid asking, Guid student, Guid ballot, Answer answer)
    {
        var job = new BallotJob(owner, lesson, asking, student, ballot, answer, new(TaskCreationOptions.RunContinuationsAsynchronously));
        await _jobs.Writer.WriteAsync(job);
        return await job.Answer.Task;
    }

    /// <summary>A lesson as it stands; null if this owner has no such lesson.</summary>
    public OpenLesson? Find(Guid owner, Guid lesson)
    {
        if (!_open.TryGetValue(lesson, out var open))
        {
            using var db = _file.Open(owner);
            if (OpenLesson.Load(db, lesson) is not { } loaded)
            {
                return null;
            }

            // Whoever loaded first wins, so that there is one a lesson.
            open = _open.GetOrAdd(lesson, loaded);
        }

        return open.Lesson.OwnerId == owner ? open : null;
    }

    /// <summary>Says that there is something new to show of a lesson though its ledger is as it was.</summary>
    public void Touch(Guid lesson) => Changed?.Invoke(lesson);

    /// <summary>Forgets lessons, so that they are read anew: their roster or plan changed.</summary>
    public void Forget(Func<Lesson, bool> which)
    {
        foreach (var (id, open) in _open)
        {
            if (which(open.Lesson) && _open.TryRemove(id, out _))
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
        var answers = new List<Action>();
        try
        {
            using (var transaction = connection.BeginTransaction())
            {
                insert.In(transaction);
                foreach (var job in waiting)
                {
                    var on = WorkOn(job, work);
                    answers.Add(job switch
                    {
                        EntriesJob sent => TakeAll(sent, on, insert, connection, transaction),
                        BallotJob cast => Answered(cast, on is null ? "There is no such lesson." : TakeBallot(cast, on, connection, transaction)),
                        _ => throw new InvalidOperationException("A job of an unknown kind."),
                    });
                }

                transaction.Commit();
            }
        }
        catch (Exception failure)
        {
            // Whatever went wrong, the writer goes on: nobody else may be left waiting for it.
            foreach (var job in waiting)
            {
                job.Fail(new IOException("The entries could not be stored; nothing was kept of them.", failure));
            }

            return;
        }

        foreach (var on in work.Values)
        {
            on.OpenLesson.Added(on.Stored, on.Lesson, on.Cast);
            if (_open.TryGetValue(on.Lesson.Id, out var open) && open != on.OpenLesson)
            {
                // Forgotten and loaded anew between the insert and the commit: what was loaded lacks these entries.
                _open.TryRemove(on.Lesson.Id, out _);
            }
        }

        foreach (var answer in answers)
        {
            answer();
        }

        if (work.Values.Any(w => w.BallotsCounted))
        {
            // What the log of the file still holds of them, in the order in which they came, goes with them.
            using var checkpoint = connection.CreateCommand();
            checkpoint.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            checkpoint.ExecuteNonQuery();
        }

        foreach (var on in work.Values.Where(w => w.Stored.Count > 0 || w.Cast.Count > 0))
        {
            Changed?.Invoke(on.Lesson.Id);
        }

        foreach (var on in work.Values.Where(w => w.NamesRemembered))
        {
            Forget(other => other.ClassId == on.Lesson.ClassId && other.Id != on.Lesson.Id);
        }

        if (_open.Count > MostOpen)
        {
            foreach (var (id, _) in _open.Where(r => r.Value.Lesson.Stage != LessonStage.Live))
            {
                _open.TryRemove(id, out _);
            }
        }
    }

    private Work? WorkOn(Job job, Dictionary<Guid, Work> work)
    {
        if (work.TryGetValue(job.Lesson, out var known))
        {
            return known.Lesson.OwnerId == job.Owner ? known : null;
        }

        if (Find(job.Owner, job.Lesson) is not { } open)
        {
            return null;
        }

        return work[job.Lesson] = new Work(open);
    }

    private Action TakeAll(EntriesJob job, Work? on, InsertEntry insert, SqliteConnection connection, SqliteTransaction transaction)
    {
        var (accepted, refused) = (new List<Guid>(), new List<Refusal>());
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

        return () => job.Answer.TrySetResult(on is null ? null : new WriteResult(on.OpenLesson.Position, accepted, refused));
    }

    private static Action Answered(BallotJob job, string? why) => () => job.Answer.TrySetResult(why);

    private string? TakeBallot(BallotJob cast, Work on, SqliteConnection connection, SqliteTransaction transaction)
    {
        var state = on.State();
        var (asking, student) = (state.AskingOf(cast.Asking), state.Whose(cast.Student));
        var why = asking switch
        {
            null => "This question was not asked in this lesson.",
            { Question.Anonymous: false } => "Answers to this question carry a name.",
            _ when !on.OpenLesson.RosterIds.Contains(cast.Student) => "You are not on the roster of this class.",
            _ => EntryRules.OutOfTime(asking, student, _clock.GetCurrentInstant()) ?? AnswerRules.WhyRefused(asking.Question, cast.Content),
        };
        if (why is not null)
        {
            return why;
        }

        var answer = ActJson.Write(AnswerRules.Kept(asking!.Question, cast.Content));
        using var db = Within(cast.Owner, connection, transaction);
        var before = db.Ballots.FirstOrDefault(b => b.AskingId == cast.Asking && b.Id == cast.Ballot);
        if (on.OpenLesson.HasCast(cast.Asking, student) || on.Cast.Contains((cast.Asking, student)))
        {
            if (before is null)
            {
                return "You have answered this already, on another device or in another window. Nobody can tell which answer is yours, so it stays.";
            }

            before.Answer = answer;
        }
        else if (before is not null)
        {
            return "This answer was not taken. Answer once more.";
        }
        else
        {
            db.Ballots.Add(new Ballot { AskingId = cast.Asking, Id = cast.Ballot, LessonId = cast.Lesson, Answer = answer });
            db.BallotsCast.Add(new BallotCast { AskingId = cast.Asking, StudentId = student, LessonId = cast.Lesson });
            on.Cast.Add((cast.Asking, student));
        }

        db.SaveChanges();
        return null;
    }

    /// <summary>
    /// Answers to anonymous questions that were closed just now go into the ledger together, in an order that says nothing, and their rows go
    /// away; of a question that too few answered only how many did.
    /// </summary>
    private static void CountBallots(Entry closing, Guid owner, Work on, InsertEntry insert, SqliteConnection connection, SqliteTransaction transaction)
    {
        var closed = on.State().Askings.Where(a => a.Question.Anonymous && !a.IsOpen && !a.IsCounted).ToList();
        if (closed.Count == 0)
        {
            return;
        }

        using var db = Within(owner, connection, transaction);
        foreach (var asking in closed)
        {
            var answers = db.Ballots.AsNoTracking().Where(b => b.AskingId == asking.Id).Select(b => b.Answer).AsEnumerable().Select(ActJson.ReadAnswer)
                .OrderBy(a => a.Written, StringComparer.Ordinal).ToList();
            var took = asking.Question.CountsTakingPart ? db.BallotsCast.Where(c => c.AskingId == asking.Id).Select(c => c.StudentId).ToList() : [];
            var counted = new BallotsCounted(asking.Id, answers.Count, answers.Count < Asking.FewestAnonymous ? [] : answers, [.. took.Order()]);
            var entry = new Entry(
                Guid.CreateVersion7(), closing.HappenedAt, on.LastNoted + Duration.FromMilliseconds(1), Source.Page, "", counted);
            on.Add(insert.Store(owner, on.Lesson.Id, entry)!.Value, entry);
            db.Ballots.Where(b => b.AskingId == asking.Id).ExecuteDelete();
            db.BallotsCast.Where(c => c.AskingId == asking.Id).ExecuteDelete();
        }

        on.BallotsCounted = true;
    }

    private string? Take(
        NewEntry sent, EntriesJob job, Work on, InsertEntry insert, SqliteConnection connection, SqliteTransaction transaction)
    {
        if (on.ActOf(sent.Id) is not null)
        {
            return null;
        }

        // Each entry of a lesson is noted later than the one before it, so that what happened in one and the same millisecond keeps the
        // order in which it arrived, whoever folds it.
        var now = Instant.Max(OnTheDisk(_clock.GetCurrentInstant()), on.LastNoted + Duration.FromMilliseconds(1));
        var entry = new Entry(sent.Id, OnTheDisk(sent.HappenedAt), now, job.Source, job.By, sent.Act);
        var facts = new LessonFacts(
            OpenLesson.TimesOf(on.Lesson), on.OpenLesson.RosterIds, on.Lesson.Stage == LessonStage.Settled, on.ActOf,
            on.State, on.Lesson.CancelledAt is not null);
        if (EntryRules.WhyRefused(entry, facts, now) is { } why)
        {
            return why;
        }

        if (entry.Act is AnswerGiven given)
        {
            var kept = AnswerRules.Kept(on.State().AskingOf(given.Asking)!.Question, given.Answer);
            entry = entry with { Act = given with { Answer = kept } };
        }

        if (insert.Store(job.Owner, job.Lesson, entry) is not { } seq)
        {
            return "This entry is in another lesson already.";
        }

        on.Add(seq, entry);
        if (entry.Act is QuestionClosed or LessonEnded)
        {
            CountBallots(entry, job.Owner, on, insert, connection, transaction);
        }

        if (job.Source == Source.Tapped && NameDecided(entry.Act, on) is { } name)
        {
            Remember(name, job.Owner, on, now, connection, transaction);
            on.NamesRemembered = true;
        }

        if (ChangesCourse(entry.Act, on))
        {
            on.Lesson = FollowCourse(job.Owner, on, connection, transaction);
        }

        return null;
    }

    // The file keeps milliseconds; what is reckoned from memory must be what will be read back.
    private static Instant OnTheDisk(Instant at) => Instant.FromUnixTimeMilliseconds(at.ToUnixTimeMilliseconds());

    private static string? NameDecided(Act act, Work on) => act switch
    {
        NameMatched matched => matched.Name,
        Struck struck => on.ActOf(struck.Entry) is { } target ? NameDecided(target, on) : null,
        _ => null,
    };

    /// <summary>
    /// The class remembers what the teacher said of a name, with the entry that says so; if it was taken back, it forgets what it
    /// had from this lesson.
    /// </summary>
    private static void Remember(string name, Guid owner, Work on, Instant now, SqliteConnection connection, SqliteTransaction transaction)
    {
        var folded = NameFolding.Fold(name);
        if (folded.Length == 0)
        {
            return;
        }

        using var db = Within(owner, connection, transaction);
        var (lesson, word) = (on.Lesson, on.State().Names.GetValueOrDefault(name)?.Match);
        var origin = $"lesson {lesson.Number}, {lesson.Title}";
        var known = db.KnownNames.FirstOrDefault(n => n.ClassId == lesson.ClassId && n.Folded == folded);
        if (word is { Source: Source.Tapped })
        {
            if (known is null)
            {
                db.KnownNames.Add(known = new KnownName { ClassId = lesson.ClassId, Folded = folded, Shown = name });
            }

            (known.Shown, known.StudentId, known.Origin, known.NotedAt) = (name, word.Student, origin, now);
        }
        else if (known?.Origin == origin)
        {
            db.KnownNames.Remove(known);
        }

        db.SaveChanges();
    }

    private static SchoolDb Within(Guid owner, SqliteConnection connection, SqliteTransaction transaction)
    {
        var db = new SchoolDb(new DbContextOptionsBuilder<SchoolDb>().UseSqlite(connection).Options, new Owner { Id = owner });
        db.Database.UseTransaction(transaction);
        return db;
    }

    private static bool ChangesCourse(Act act, Work on) => act switch
    {
        LessonStarted or LessonEnded or LessonSettled => true,
        Struck struck => on.ActOf(struck.Entry) is { } target && ChangesCourse(target, on),
        _ => false,
    };

    /// <summary>Writes down beside the ledger what it says of the lesson's course, and the summaries of a settled one.</summary>
    private static Lesson FollowCourse(Guid owner, Work on, SqliteConnection connection, SqliteTransaction transaction)
    {
        using var db = Within(owner, connection, transaction);
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
            db.Summaries.AddRange(Summaries.Of(state, lesson, on.OpenLesson.Rules, on.OpenLesson.Roster.Select(s => s.Name.Id)));
        }

        db.SaveChanges();
        db.Entry(lesson).State = EntityState.Detached;
        return lesson;
    }

    private abstract record Job(Guid Owner, Guid Lesson)
    {
        public abstract void Fail(Exception failure);
    }

    private sealed record EntriesJob(
        Guid Owner, Guid Lesson, Source Source, string By, IReadOnlyList<NewEntry> Entries, TaskCompletionSource<WriteResult?> Answer) : Job(Owner, Lesson)
    {
        public override void Fail(Exception failure) => Answer.TrySetException(failure);
    }

    private sealed record BallotJob(
        Guid Owner, Guid Lesson, Guid Asking, Guid Student, Guid Ballot, Answer Content, TaskCompletionSource<string?> Answer) : Job(Owner, Lesson)
    {
        public override void Fail(Exception failure) => Answer.TrySetException(failure);
    }

    /// <summary>An open lesson with what this transaction adds to it.</summary>
    private sealed class Work(OpenLesson open)
    {
        private readonly Dictionary<Guid, Act> _added = [];
        private LessonState? _state;

        public OpenLesson OpenLesson { get; } = open;

        public Lesson Lesson { get; set; } = open.Lesson;

        /// <summary>Who answered which anonymous question.</summary>
        public List<(Guid Asking, Guid Student)> Cast { get; } = [];

        /// <summary>Answers to an anonymous question were counted.</summary>
        public bool BallotsCounted { get; set; }

        /// <summary>The class knows more of a name than before, or less.</summary>
        public bool NamesRemembered { get; set; }

        public Instant LastNoted { get; private set; } = open.LastNoted;

        public List<(long Seq, Entry Entry)> Stored { get; } = [];

        public Act? ActOf(Guid entry) => _added.GetValueOrDefault(entry) ?? OpenLesson.ActOf(entry);

        /// <summary>
        /// What the entries amount to so far. Answers that students gave since it was last asked for may be missing: no rule looks at those of
        /// others, and a class that answers at once would have its lesson folded anew for each of them.
        /// </summary>
        public LessonState State() => _state ??= Stored.Count == 0 ? OpenLesson.State().State : OpenLesson.StateWith(Stored.Select(s => s.Entry));

        public void Add(long seq, Entry entry)
        {
            _added[entry.Id] = entry.Act;
            _state = entry is { Source: Source.Page, Act: AnswerGiven } ? _state : null;
            LastNoted = entry.NotedAt;
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
