using Microsoft.AspNetCore.SignalR;

namespace PoliteTally.Web.Publishing;

/// <summary>
/// What is refused over a line is told to whoever asked, and is nothing to write down: anybody can be refused as often as they like. What really fails is written down, and
/// told without its inside.
/// </summary>
internal sealed class RefusedWatch(ILogger<RefusedWatch> log) : IHubFilter
{
    /// <summary>The category in which SignalR itself writes down both, each with a trace.</summary>
    public const string WrittenDownAs = "Microsoft.AspNetCore.SignalR.Internal.DefaultHubDispatcher";

    /// <inheritdoc/>
    public async ValueTask<object?> InvokeMethodAsync(HubInvocationContext invocationContext, Func<HubInvocationContext, ValueTask<object?>> next)
    {
        try
        {
            return await next(invocationContext);
        }
        catch (Exception failure) when (failure is not (HubException or OperationCanceledException))
        {
            log.LogError(failure, "{Hub}.{Method} failed.", invocationContext.Hub.GetType().Name, invocationContext.HubMethodName);
            throw new HubException("Something went wrong on our side. Try again.");
        }
    }
}
