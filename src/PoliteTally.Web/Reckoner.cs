using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Store;

namespace PoliteTally.Web;

/// <summary>
/// Reckons settled lessons anew that are due, one after the other and beside everything else: at the start what a sudden stop left, and then whatever it is told of.
/// </summary>
internal sealed class Reckoner(SchoolFile file, ILogger<Reckoner> log) : BackgroundService
{
    private readonly OnItsOwn _each = new(log, "Reckoning anew, of lesson or owner,");
    private readonly Channel<Guid> _owners = Channel.CreateUnbounded<Guid>(new UnboundedChannelOptions { SingleReader = true });

    /// <summary>Says that an owner has lessons that are due.</summary>
    public void Wake(Guid owner) => _owners.Writer.TryWrite(owner);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await _each.Do(Guid.Empty, async () =>
        {
            await using var all = file.Open(Guid.Empty);
            await Documents.Mend(all);
            foreach (var owner in await all.Lessons.IgnoreQueryFilters().Where(Summaries.IsDue).Select(l => l.OwnerId).Distinct().ToListAsync(stoppingToken))
            {
                Wake(owner);
            }
        }, stoppingToken);
        await foreach (var owner in _owners.Reader.ReadAllAsync(stoppingToken))
        {
            await _each.Do(owner, () => RenewAllOf(owner, stoppingToken), stoppingToken);
        }
    }

    private async Task RenewAllOf(Guid owner, CancellationToken stopping)
    {
        List<Guid> due;
        await using (var db = file.Open(owner))
        {
            due = await Summaries.DueOf(db).ToListAsync(stopping);
        }

        foreach (var lesson in due)
        {
            await _each.Do(lesson, async () =>
            {
                await using var db = file.Open(owner);
                await Summaries.RenewDue(db, lesson);
            }, stopping);
        }
    }
}
