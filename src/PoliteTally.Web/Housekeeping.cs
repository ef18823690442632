using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web;

/// <summary>Looks after the program: tidies up once a day, and ends it if the writer cannot go on, so that whoever watches over it starts it anew.</summary>
public sealed class Housekeeping(LedgerWriter ledger, PageSessions sessions, IHostApplicationLifetime life, TimeProvider timers, ILogger<Housekeeping> log)
    : BackgroundService
{
    /// <summary>How long the writer may be at one batch before it is said not to be well: 15 s, three times as long as it waits for a lock.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);

    /// <summary>How long until the program ends itself: a minute.</summary>
    private static readonly TimeSpan LastPatience = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan Look = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan Day = TimeSpan.FromDays(1);

    /// <summary>Whether what is sent is being stored.</summary>
    public bool IsWell => ledger.BusyFor < Patience;

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var tidied = timers.GetUtcNow() - Day;
        using var timer = new PeriodicTimer(Look, timers);
        do
        {
            if (ledger.BusyFor > LastPatience)
            {
                log.LogCritical("Nothing has been stored for {Seconds} s, and it does not come right by itself. The program ends; start it again.", (int)LastPatience.TotalSeconds);
                Environment.ExitCode = 1;
                life.StopApplication();
                return;
            }

            if (timers.GetUtcNow() - tidied >= Day)
            {
                tidied = timers.GetUtcNow();
                await TidyUp();
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    private async Task TidyUp()
    {
        try
        {
            await sessions.TidyUp();
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            log.LogWarning(failure, "It could not be tidied up; it is tried again tomorrow.");
        }
    }
}
