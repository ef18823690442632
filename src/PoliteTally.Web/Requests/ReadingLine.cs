using PoliteTally.Formats;

namespace PoliteTally.Web.Requests;

/// <summary>A large file that waits for its turn to be read.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Before">How many are before it.</param>
public sealed record WaitingFile(string Name, int Before);

/// <summary>
/// Large files are read one at a time, in the order in which they came: whoever taps meanwhile has the other core, and there is room for one of them and not for all that
/// anybody may send at once. When nobody waits any more, the room is given back.
/// </summary>
internal sealed class ReadingLine
{
    private readonly Lock _lock = new();
    private readonly LinkedList<Turn> _line = new();

    /// <summary>The large files that wait before something of this id can be told of them, such as a lesson.</summary>
    public IReadOnlyList<WaitingFile> WaitingFor(string of)
    {
        lock (_lock)
        {
            return [.. _line.Select((turn, before) => (turn, before)).Where(t => t.before > 0 && string.Equals(t.turn.Of, of, StringComparison.OrdinalIgnoreCase)).Select(t => new WaitingFile(t.turn.Name, t.before))];
        }
    }

    /// <summary>Waits for the turn of a file; it ends with the answer to its request. A small one has it at once.</summary>
    public async Task Wait(HttpContext http, long bytes, string name)
    {
        if (bytes < ReadingRoom.Large)
        {
            return;
        }

        var turn = new Turn(http.Request.RouteValues["id"] as string ?? "", name);
        lock (_lock)
        {
            _line.AddLast(turn);
            if (_line.Count == 1)
            {
                turn.Begin();
            }
        }

        http.Response.OnCompleted(() =>
        {
            End(turn);
            return Task.CompletedTask;
        });
        await turn.Begins.WaitAsync(http.RequestAborted);
        turn.Room = ReadingRoom.For(bytes);
    }

    private void End(Turn turn)
    {
        turn.Room?.Dispose();
        lock (_lock)
        {
            var wasFirst = _line.First?.Value == turn;
            _line.Remove(turn);
            if (wasFirst)
            {
                _line.First?.Value.Begin();
            }

            if (_line.Count > 0)
            {
                return;
            }
        }

        // Nobody looks at it any more. Left to itself the program would keep it for the next one, which may come in a year.
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
    }

    private sealed class Turn(string of, string name)
    {
        private readonly TaskCompletionSource _begins = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public string Of => of;

        public string Name => name;

        public Task Begins => _begins.Task;

        /// <summary>The room for what is read, until the answer has gone out.</summary>
        public ReadingRoom? Room { get; set; }

        public void Begin() => _begins.TrySetResult();
    }
}
