using Microsoft.AspNetCore.SignalR;
using PoliteTally.Store;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Features.Help;

/// <summary>Tells helpers that something changed; what they may see they fetch with their key.</summary>
public sealed class HelpHub(LessonKeys keys, OpenLessons openLessons, OpenWindows windows) : Hub
{
    /// <summary>From now on this window hears of changes.</summary>
    /// <exception cref="HubException">The key opens nothing.</exception>
    public async Task Watch(string key)
    {
        if (await HelpEndpoints.Open(key, keys, openLessons) is not ({ } holder, _))
        {
            throw new HubException("This link opens nothing any more.");
        }

        windows.Hears(LivePublisher.HelpOf(holder.Lesson), Context, Clients.Caller);
        windows.Hears(LessonKeys.WindowsOf(holder.Key), Context, Clients.Caller);
    }

    /// <inheritdoc/>
    public override Task OnDisconnectedAsync(Exception? exception)
    {
        windows.Gone(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }
}
