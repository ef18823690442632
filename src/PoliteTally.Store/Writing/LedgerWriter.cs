using System.Diagnostics;
using System.Threading.Channels;
using Microsoft.Extensions.Logging;
using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Store.Writing;

/// <summary>
/// The one writer of the ledger. It takes what waits, has it checked and appended in one transaction, answers only when that is on the disk, and
/// says which lessons changed. Each job stands alone: one that fails is refused, and no other with it.
/// </summary>
public sealed class LedgerWriter : IAsyncDisposable
{
    private const int MostJobsAtOnce = 256;
    private static readonly TimeSpan LastWait = TimeSpan.FromSeconds(20);

    private readonly OpenLessons _lessons;
    private readonly IClock _clock;
    private readonly ILogger<LedgerWriter> _log;
    private readonly GroupCommit _commit;
    private readonly Task _loop;
    private long _busySince;

    // Synchronous continuations: a tap that finds the writer idle is written on the thread that brought it, which saves
    // two changes of thread on the way to the disk and back.
    private readonly Channel<Job> _jobs = Channel.CreateBounded<Job>(new BoundedChannelOptions(4096)
    {
        SingleReader = true,
        AllowSynchronousContinuations = true,
    });

    public LedgerWriter(SchoolFile file, OpenLessons lessons, IClock clock, ILogger<LedgerWriter> log)
    {
        (_lessons, _clock, _log) = (lessons, clock, log);
        _commit = new GroupCommit(file, lessons, log);
        _loop = Task.Run(Run);
    }

    /// <summary>How long the writer has been at what it is doing now; zero if it waits for something to do, and without end if it has stopped.</summary>
    public TimeSpan BusyFor => _loop.IsCompleted
        ? TimeSpan.MaxValue
        : Interlocked.Read(ref _busySince) is > 0 and var since ? Stopwatch.GetElapsedTime(since) : TimeSpan.Zero;

    /// <summary>Appends entries to a lesson. Null if this owner has no such lesson.</summary>
    /// <exception cref="IOException">They could not be stored; nothing was kept of them.</exception>
    public Task<WriteResult?> Append(Guid owner, Guid lesson, Source source, string by, IReadOnlyList<NewEntry> entries) =>
        WhenOpen(owner, lesson, () => new EntriesJob(owner, lesson, source, by, entries, _clock));

    /// <summary>
    /// Takes an answer to an anonymous question, in place of the one of the same id if there is one. It is kept in memory until the question is
    /// closed, that the student answered apart from what was answered.
    /// </summary>
    /// <param name="owner">Whose lesson.</param>
    /// <param name="lesson">The lesson.</param>
    /// <param name="ballot">The answer.</param>
    /// <returns>Why it was refused; null if it was taken.</returns>
    public async Task<string?> Cast(Guid owner, Guid lesson, Ballot ballot) =>
        await WhenOpen(owner, lesson, () => new BallotJob(owner, lesson, ballot, _clock), "There is no such lesson.");

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        _jobs.Writer.TryComplete();
        // One that cannot go on does not keep the program from ending either.
        if (await Task.WhenAny(_loop, Task.Delay(LastWait)) == _loop)
        {
            _commit.Dispose();
        }
    }

    /// <summary>Does a job about a lesson when the lesson is open; what is read of it is not read by the writer, for whom all others wait.</summary>
    private async Task<T?> WhenOpen<T>(Guid owner, Guid lesson, Func<Job<Outcome<T>?>> make, T? none = default)
    {
        while (await _lessons.Find(owner, lesson) is not null)
        {
            var job = make();
            await _jobs.Writer.WriteAsync(job);
            if (await job.Done is { } outcome)
            {
                return outcome.Value;
            }
        }

        return none;
    }

    private async Task Run()
    {
        var waiting = new List<Job>();
        while (await _jobs.Reader.WaitToReadAsync())
        {
            waiting.Clear();
            while (waiting.Count < MostJobsAtOnce && _jobs.Reader.TryRead(out var job))
            {
                waiting.Add(job);
            }

            Interlocked.Exchange(ref _busySince, Stopwatch.GetTimestamp());
            try
            {
                _commit.Write(waiting);
            }
            catch (Exception failure)
            {
                // Nobody may be left waiting, and the next ones are served: the connection is made anew.
                _log.LogError(failure, "The writer stumbled over {Count} jobs and goes on.", waiting.Count);
                waiting.ForEach(job => job.Fail(failure));
                await Task.Delay(TimeSpan.FromMilliseconds(100));
            }

            Interlocked.Exchange(ref _busySince, 0);
            if (_jobs.Reader.Count > 0)
            {
                // The thread that brought the first of them has an answer to give; the rest go on elsewhere.
                await Task.Yield();
            }
        }
    }
}
