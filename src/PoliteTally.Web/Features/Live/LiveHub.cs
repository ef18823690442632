using System.Security.Claims;
using Microsoft.AspNetCore.SignalR;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Live;

/// <summary>Tells windows what changed in the lesson they show. Entries come in by HTTP, never here.</summary>
public sealed class LiveHub(LedgerWriter ledger, LivePublisher publisher) : Hub
{
    private Guid OwnerId => Guid.Parse(Context.User!.FindFirstValue(ClaimTypes.NameIdentifier)!);

    /// <summary>From now on this window hears of changes in the lesson.</summary>
    /// <exception cref="HubException">The teacher has no such lesson.</exception>
    public async Task Watch(Guid lesson)
    {
        if (ledger.Find(OwnerId, lesson) is null)
        {
            throw new HubException("There is no such lesson.");
        }

        await Groups.AddToGroupAsync(Context.ConnectionId, lesson.ToString());
        publisher.Watched(lesson, OwnerId, Context.ConnectionId);
    }

    /// <summary>From now on this window, which shows the class board, hears that something changed.</summary>
    /// <exception cref="HubException">The teacher has no such lesson.</exception>
    public async Task WatchBoard(Guid lesson)
    {
        if (ledger.Find(OwnerId, lesson) is null)
        {
            throw new HubException("There is no such lesson.");
        }

        await Groups.AddToGroupAsync(Context.ConnectionId, LivePublisher.BoardOf(lesson));
    }

    /// <inheritdoc/>
    public override Task OnDisconnectedAsync(Exception? exception)
    {
        publisher.Gone(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }
}
