using System.Collections.Concurrent;
using System.Security.Claims;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Threading.Channels;
using Microsoft.AspNetCore.SignalR;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Publishing;

/// <summary>Something to send, written once however many windows it goes to.</summary>
[JsonConverter(typeof(AsItIs))]
public sealed record Written(string Json)
{
    /// <summary>Writes something as it goes over the wire.</summary>
    public static Written Of<T>(T what) => new(JsonSerializer.Serialize(what, JsonFormat.Options));

    private sealed class AsItIs : JsonConverter<Written>
    {
        public override Written Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => new(JsonElement.ParseValue(ref reader).GetRawText());

        public override void Write(Utf8JsonWriter writer, Written value, JsonSerializerOptions options) => writer.WriteRawValue(value.Json, skipInputValidation: true);
    }
}

/// <summary>
/// The windows that hear of something, each on a line of its own. Nobody waits for a window: what it has not read yet queues up for it, and one
/// that does not read at all is dropped; it comes back by itself and asks for everything.
/// </summary>
public sealed class OpenWindows(ILogger<OpenWindows> log)
{
    /// <summary>The most messages that queue up for a window: 64.</summary>
    public const int LongestQueue = 64;

    /// <summary>How long one message to a window may take: 5 s.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<string, Window> _windows = new();
    private readonly ConcurrentDictionary<string, ConcurrentDictionary<string, Window>> _hearing = new();

    /// <summary>From now on a window hears of something.</summary>
    public void Hears(string of, HubCallerContext context, IClientProxy client)
    {
        var window = _windows.GetOrAdd(context.ConnectionId, _ => new Window(context, client, log));
        _hearing.GetOrAdd(of, _ => new())[context.ConnectionId] = window;
        if (context.ConnectionAborted.IsCancellationRequested)
        {
            Gone(context.ConnectionId);
        }
    }

    /// <summary>Whether any window hears of something.</summary>
    public bool AnyHears(string of) => _hearing.TryGetValue(of, out var windows) && !windows.IsEmpty;

    /// <summary>A window is gone.</summary>
    public void Gone(string connection)
    {
        if (!_windows.TryRemove(connection, out var window))
        {
            return;
        }

        window.Close();
        foreach (var (of, windows) in _hearing)
        {
            if (windows.TryRemove(connection, out _) && windows.IsEmpty)
            {
                // Whoever comes just now has it made anew.
                _hearing.TryRemove(new(of, windows));
                foreach (var (late, there) in windows)
                {
                    _hearing.GetOrAdd(of, _ => new())[late] = there;
                }
            }
        }
    }

    /// <summary>Drops windows by who opened them.</summary>
    public void Drop(Func<ClaimsPrincipal?, bool> whose)
    {
        foreach (var (_, window) in _windows)
        {
            if (whose(window.Who))
            {
                window.Drop();
            }
        }
    }

    /// <summary>Sends something to all windows that hear of it, and then nothing more of anything.</summary>
    public void SendLast(string of, string method)
    {
        foreach (var (connection, window) in _hearing.GetValueOrDefault(of)?.ToArray() ?? [])
        {
            window.Send(method, null);
            Gone(connection);
        }
    }

    /// <summary>Sends something to all windows that hear of it.</summary>
    public void Send(string of, string method, Written? what = null)
    {
        if (_hearing.TryGetValue(of, out var windows))
        {
            foreach (var (_, window) in windows)
            {
                window.Send(method, what);
            }
        }
    }

    /// <summary>Sends something to one window.</summary>
    public void SendTo(string connection, string method, Written? what = null)
    {
        if (_windows.TryGetValue(connection, out var window))
        {
            window.Send(method, what);
        }
    }

    private sealed class Window
    {
        private readonly HubCallerContext _context;
        private readonly ILogger _log;
        private readonly Channel<(string Method, Written? What)> _queue = Channel.CreateBounded<(string, Written?)>(
            new BoundedChannelOptions(LongestQueue) { SingleReader = true });

        public Window(HubCallerContext context, IClientProxy client, ILogger log)
        {
            (_context, _log) = (context, log);
            _ = Pump(client);
        }

        public void Send(string method, Written? what)
        {
            if (!_queue.Writer.TryWrite((method, what)))
            {
                Drop();
            }
        }

        public ClaimsPrincipal? Who => _context.User;

        public void Close() => _queue.Writer.TryComplete();

        private async Task Pump(IClientProxy client)
        {
            try
            {
                await foreach (var (method, what) in _queue.Reader.ReadAllAsync(_context.ConnectionAborted))
                {
                    await (what is null ? client.SendAsync(method) : client.SendAsync(method, what)).WaitAsync(Patience);
                }
            }
            catch (TimeoutException)
            {
                Drop();
            }
            catch (Exception failure)
            {
                if (failure is not OperationCanceledException)
                {
                    _log.LogWarning(failure, "A window is dropped; it comes back by itself.");
                }

                Close();
            }
        }

        public void Drop()
        {
            Close();
            _context.Abort();
        }
    }
}
