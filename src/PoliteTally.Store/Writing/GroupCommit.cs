using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Logging;

namespace PoliteTally.Store.Writing;

/// <summary>Writes jobs that wait together in one transaction, which costs about as much as one of them alone. One thread uses it.</summary>
internal sealed class GroupCommit(SchoolFile file, OpenLessons lessons, ILogger log) : IDisposable
{
    private readonly BallotBoxes _boxes = new();
    private SqliteConnection? _connection;
    private EntryInsert? _insert;

    /// <summary>Writes jobs and answers each. If they cannot be written together, each is written by itself.</summary>
    public void Write(IReadOnlyList<Job> jobs)
    {
        if (Together(jobs) is not { } failure)
        {
            return;
        }

        if (jobs is [var only])
        {
            log.LogError(failure, "A job could not be written; nothing was kept of it.");
            if (only.LeavesOut(failure))
            {
                Write(jobs);
            }
            else
            {
                only.Fail(failure);
            }

            return;
        }

        // One of them is to blame, or the disk: the others have a transaction of their own each.
        foreach (var job in jobs)
        {
            Write([job]);
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _insert?.Dispose();
        _connection?.Dispose();
    }

    /// <summary>Writes jobs in one transaction.</summary>
    /// <returns>What went wrong, with nothing stored and nobody answered; null if all is on the disk.</returns>
    private Exception? Together(IReadOnlyList<Job> jobs)
    {
        Drafts drafts;
        try
        {
            var (connection, insert) = Connected();
            using var transaction = connection.BeginTransaction();
            insert.In(transaction);
            drafts = new Drafts(lessons, _boxes, insert, connection, transaction);
            foreach (var job in jobs)
            {
                job.Do(drafts);
            }

            transaction.Commit();
        }
        catch (Exception failure)
        {
            // Whatever state it is in, the next one begins anew.
            Disconnect();
            return failure;
        }

        foreach (var draft in drafts.All)
        {
            Tell(draft);
        }

        foreach (var job in jobs)
        {
            job.Answer();
        }

        foreach (var draft in drafts.All)
        {
            Announce(draft);
        }

        lessons.MakeRoom();
        return null;
    }

    private (SqliteConnection Connection, EntryInsert Insert) Connected()
    {
        if (_connection is null)
        {
            _connection = file.Connect();
            _insert = new EntryInsert(_connection);
        }

        return (_connection, _insert!);
    }

    private void Disconnect()
    {
        try
        {
            Dispose();
        }
        catch (SqliteException failure)
        {
            log.LogWarning(failure, "A broken connection could not be closed.");
        }

        (_connection, _insert) = (null, null);
    }

    /// <summary>What is on the disk counts from here on. If memory cannot follow, the lesson is read from the disk.</summary>
    private void Tell(Draft draft)
    {
        try
        {
            _boxes.Put(draft.Lesson.Id, draft.Box);
            if (!draft.IsChanged)
            {
                return;
            }

            var next = draft.Before.With(draft.Stored, draft.Lesson, draft.KnownState);
            foreach (var asking in draft.Box.Changed)
            {
                next = next.WithCast(asking, draft.Box.Open.GetValueOrDefault(asking)?.Students);
            }

            lessons.Put(next, draft.Generation);
        }
        catch (Exception failure)
        {
            log.LogError(failure, "What was stored of lesson {Lesson} is read anew.", draft.Lesson.Id);
            lessons.Drop(draft.Lesson.OwnerId, draft.Lesson.Id);
        }
    }

    private void Announce(Draft draft)
    {
        try
        {
            if (draft.IsChanged)
            {
                lessons.Touch(draft.Lesson.Id);
            }

            if (draft.NamesRemembered)
            {
                lessons.Forget(other => other.ClassId == draft.Lesson.ClassId && other.Id != draft.Lesson.Id);
            }
        }
        catch (Exception failure)
        {
            log.LogError(failure, "A change of lesson {Lesson} could not be announced.", draft.Lesson.Id);
        }
    }
}
