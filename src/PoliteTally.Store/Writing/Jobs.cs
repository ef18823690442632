using Microsoft.Data.Sqlite;
using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Store.Writing;

/// <summary>An entry as it is sent in.</summary>
/// <param name="Together">As in <see cref="Entry"/>.</param>
public sealed record NewEntry(Guid Id, Instant HappenedAt, Act Act, Guid? Together = null);

/// <summary>An entry that was not stored, and why.</summary>
public sealed record Refusal(Guid Id, string Why);

/// <summary>What became of entries. When this is handed out, what was accepted is on the disk.</summary>
/// <param name="Position">The position of the lesson's ledger after them.</param>
/// <param name="Accepted">Stored now or before.</param>
/// <param name="Refused">Not stored.</param>
public sealed record WriteResult(long Position, IReadOnlyList<Guid> Accepted, IReadOnlyList<Refusal> Refused);

/// <summary>Something for the writer to do. It is answered once what it wrote is on the disk.</summary>
internal abstract class Job
{
    /// <summary>Does it, as part of the transaction; what it comes to is handed out by <see cref="Answer"/>.</summary>
    public abstract void Do(Drafts drafts);

    /// <summary>The transaction is on the disk.</summary>
    public abstract void Answer();

    /// <summary>Nothing of it was kept.</summary>
    public abstract void Fail(Exception why);

    /// <summary>It failed, alone and with nothing kept: whether it leaves out what is to blame when it is done again.</summary>
    public virtual bool LeavesOut(Exception why) => false;
}

/// <summary>A job that comes to something.</summary>
internal abstract class Job<T> : Job
{
    private readonly TaskCompletionSource<T> _done = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>What it came to, when that is on the disk.</summary>
    public Task<T> Done => _done.Task;

    /// <summary>Set by <see cref="Job.Do"/>.</summary>
    protected Func<T>? Outcome { get; set; }

    public override void Answer() => _done.TrySetResult(Outcome!());

    public override void Fail(Exception why) => _done.TrySetException(new IOException("The entries could not be stored; nothing was kept of them.", why));
}

/// <summary>What became of a job about a lesson: null if the lesson is to be opened first, for it was let go of meanwhile.</summary>
internal sealed record Outcome<T>(T Value);

/// <summary>Entries for a lesson.</summary>
internal sealed class EntriesJob(Guid owner, Guid lesson, Source source, string by, IReadOnlyList<NewEntry> entries, IClock clock) : Job<Outcome<WriteResult>?>
{
    private const string NotUnderstood = "This entry could not be taken as it is, and nothing of it was kept.";

    private readonly HashSet<NewEntry> _leftOut = [];
    private NewEntry? _now;

    public override void Do(Drafts drafts)
    {
        if (drafts.Of(owner, lesson) is not { } draft)
        {
            Outcome = () => null;
            return;
        }

        var (accepted, refused) = (new List<Guid>(), new List<Refusal>());
        foreach (var sent in entries)
        {
            _now = sent;
            if ((_leftOut.Contains(sent) ? NotUnderstood : EntryTaking.Take(sent, source, by, draft, clock.GetCurrentInstant())) is { } why)
            {
                refused.Add(new Refusal(sent.Id, why));
            }
            else
            {
                accepted.Add(sent.Id);
            }
        }

        _now = null;
        Outcome = () => new(new WriteResult(draft.Stored is [.., var last] ? last.Seq : draft.Before.Position, accepted, refused));
    }

    // A disk that fails is no fault of an entry; whatever else an entry brings about takes no other with it.
    public override bool LeavesOut(Exception why) => why is not (SqliteException or IOException) && _now is { } entry && _leftOut.Add(entry);
}

/// <summary>An answer without a name.</summary>
internal sealed class BallotJob(Guid owner, Guid lesson, Ballot ballot, IClock clock) : Job<Outcome<string?>?>
{
    public override void Do(Drafts drafts)
    {
        var draft = drafts.Of(owner, lesson);
        var why = draft is null ? null : Ballots.Take(draft, ballot, clock.GetCurrentInstant());
        Outcome = () => draft is null ? null : new(why);
    }
}
