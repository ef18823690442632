using System.Diagnostics;
using System.Threading.Channels;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Live;

/// <summary>Lessons that changed, a batch at a time: what changes while a batch goes out goes out together with the next.</summary>
internal sealed class ChangedLessons
{
    private readonly Channel<Guid> _changed = Channel.CreateUnbounded<Guid>(new UnboundedChannelOptions { SingleReader = true });

    public ChangedLessons(LedgerWriter ledger) => ledger.Changed += lesson => _changed.Writer.TryWrite(lesson);

    /// <summary>Sends batches until the application ends.</summary>
    /// <param name="send">Sends one batch.</param>
    /// <param name="rest">How long to rest after a batch that took so long, so that a busy lesson costs a bounded share of the machine.</param>
    /// <param name="stopping">Ends it.</param>
    public async Task Each(Func<IReadOnlySet<Guid>, Task> send, Func<TimeSpan, TimeSpan> rest, CancellationToken stopping)
    {
        var batch = new HashSet<Guid>();
        while (await _changed.Reader.WaitToReadAsync(stopping))
        {
            batch.Clear();
            while (_changed.Reader.TryRead(out var lesson))
            {
                batch.Add(lesson);
            }

            var took = Stopwatch.StartNew();
            await send(batch);
            await Task.Delay(rest(took.Elapsed), stopping);
        }
    }
}
