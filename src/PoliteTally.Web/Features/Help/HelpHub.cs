using Microsoft.AspNetCore.SignalR;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Help;

/// <summary>Tells a helper's window that something changed, and nothing more: what it may see it asks for with its key.</summary>
public sealed class HelpHub(LedgerWriter ledger, LessonKeys keys) : Hub
{
    /// <summary>From now on this window hears of changes.</summary>
    /// <exception cref="HubException">The key opens nothing.</exception>
    public async Task Watch(string key)
    {
        if (await HelpEndpoints.Open(key, keys, ledger) is not ({ } holder, _))
        {
            throw new HubException("This link opens nothing any more.");
        }

        await Groups.AddToGroupAsync(Context.ConnectionId, holder.Lesson.ToString());
    }
}
