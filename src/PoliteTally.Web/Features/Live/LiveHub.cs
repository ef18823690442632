using System.Security.Claims;
using Microsoft.AspNetCore.SignalR;
using PoliteTally.Store;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Features.Live;

/// <summary>Tells windows what changed in the lesson they show. Entries come in by HTTP, never here.</summary>
public sealed class LiveHub(OpenLessons openLessons, LivePublisher publisher, OpenWindows windows) : Hub
{
    private Guid OwnerId => Guid.Parse(Context.User!.FindFirstValue(ClaimTypes.NameIdentifier)!);

    /// <summary>From now on this window hears of changes in the lesson.</summary>
    /// <exception cref="HubException">The teacher has no such lesson.</exception>
    public async Task Watch(Guid lesson)
    {
        await MustBeMine(lesson);
        publisher.Watched(lesson, OwnerId);
        windows.Hears(LivePublisher.SheetOf(lesson), Context, Clients.Caller);
    }

    /// <summary>From now on this window, which shows the class board, hears that something changed.</summary>
    /// <exception cref="HubException">The teacher has no such lesson.</exception>
    public async Task WatchBoard(Guid lesson)
    {
        await MustBeMine(lesson);
        windows.Hears(LivePublisher.BoardOf(lesson), Context, Clients.Caller);
    }

    /// <inheritdoc/>
    public override Task OnDisconnectedAsync(Exception? exception)
    {
        windows.Gone(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }

    private async Task MustBeMine(Guid lesson)
    {
        if (await openLessons.Find(OwnerId, lesson) is null)
        {
            throw new HubException("There is no such lesson.");
        }
    }
}
