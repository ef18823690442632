using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Store;

namespace PoliteTally.Web;

/// <summary>
/// Reckons settled lessons anew that are due, one after the other and beside everything else: at the start what a sudden stop left, and then whatever it is told of.
/// </summary>
internal sealed class Reckoner(SchoolFile file, ILogger<Reckoner> log) : BackgroundService
{
    private readonly Channel<Guid> _owners = Channel.CreateUnbounded<Guid>(new UnboundedChannelOptions { SingleReader = true });

    /// <summary>Says that an owner has lessons that are due.</summary>
    public void Wake(Guid owner) => _owners.Writer.TryWrite(owner);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Quietly(async () =>
        {
            await using var all = file.Open(Guid.Empty);
            foreach (var owner in await all.Lessons.IgnoreQueryFilters().Where(Summaries.IsDue).Select(l => l.OwnerId).Distinct().ToListAsync(stoppingToken))
            {
                Wake(owner);
            }
        });
        await foreach (var owner in _owners.Reader.ReadAllAsync(stoppingToken))
        {
            await Quietly(async () =>
            {
                await using var db = file.Open(owner);
                await Summaries.RenewDue(db);
            });
        }
    }

    private async Task Quietly(Func<Task> work)
    {
        try
        {
            await work();
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            log.LogError(failure, "Settled lessons could not be reckoned anew; it is tried again when the next one is due, and at the next start.");
        }
    }
}
