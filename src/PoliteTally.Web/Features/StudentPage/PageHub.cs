using Microsoft.AspNetCore.SignalR;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>Tells student pages what changed. What a student does comes by HTTP, never here.</summary>
public sealed class PageHub(PageSessions sessions, PagePublisher publisher) : Hub
{
    /// <summary>How long a line is silent at most, on either side.</summary>
    public static readonly TimeSpan SignOfLife = TimeSpan.FromSeconds(45);

    /// <summary>After how long without a sign of life the other side is taken for gone.</summary>
    public static readonly TimeSpan GivenUp = TimeSpan.FromSeconds(120);

    /// <summary>From now on this page hears of changes in the lesson of the code, and of what concerns its student.</summary>
    /// <exception cref="HubException">The browser has no session that opens the lesson.</exception>
    public async Task Watch(string code)
    {
        if (Context.GetHttpContext() is not { } http || await sessions.GuestOf(http, code) is not { } guest)
        {
            throw new HubException("This page is closed here.");
        }

        await publisher.Watched(guest, Context, Clients.Caller);
    }

    /// <inheritdoc/>
    public override Task OnDisconnectedAsync(Exception? exception)
    {
        publisher.Gone(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }
}
