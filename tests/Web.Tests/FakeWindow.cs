using System.Collections.Concurrent;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.SignalR;

namespace PoliteTally.Web.Tests;

/// <summary>A window as the hub knows it, and what was sent to it. One that stalls takes nothing any more.</summary>
internal sealed class FakeWindow(bool stalls = false) : HubCallerContext, IClientProxy
{
    private readonly TaskCompletionSource _aborted = new();

    public ConcurrentQueue<string> Heard { get; } = new();

    /// <summary>Waits until it has heard more than so much; at most 20 s.</summary>
    public async Task HearsMoreThan(int heard)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while (Heard.Count <= heard)
        {
            await Task.Delay(5, patience.Token);
        }
    }

    /// <summary>Ends when the server drops the window.</summary>
    public Task Aborted => _aborted.Task;

    public override string ConnectionId { get; } = Guid.NewGuid().ToString();

    public override string? UserIdentifier => null;

    public override System.Security.Claims.ClaimsPrincipal? User => null;

    public override IDictionary<object, object?> Items { get; } = new Dictionary<object, object?>();

    public override IFeatureCollection Features { get; } = new FeatureCollection();

    public override CancellationToken ConnectionAborted => CancellationToken.None;

    public override void Abort() => _aborted.TrySetResult();

    public Task SendCoreAsync(string method, object?[] args, CancellationToken cancellationToken = default)
    {
        Heard.Enqueue(method);
        return stalls ? new TaskCompletionSource().Task : Task.CompletedTask;
    }
}
