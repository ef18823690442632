using System.Runtime.InteropServices;

namespace PoliteTally.Formats;

/// <summary>
/// What reading one file may cost: so much time of a processor, so much room, and no more once nobody waits for it. Readers ask within their loops, so that no file keeps
/// the program busy for others, whatever stands in it.
/// </summary>
/// <remarks>One thread reads a file from beginning to end, so the budget lies with the thread: whoever reads for somebody else who reads shares theirs.</remarks>
public sealed class ReadingBudget : IDisposable
{
    /// <summary>The most time of a processor: 2 s.</summary>
    public static readonly TimeSpan Processor = TimeSpan.FromSeconds(2);

    /// <summary>The most room that is asked for while reading, in bytes: 500,000,000.</summary>
    public const long Room = 500_000_000;

    // The clock is asked once in so many times.
    private const int Seldom = 64;
    private const int ThreadClock = 3;

    [ThreadStatic]
    private static ReadingBudget? _current;

    private readonly CancellationToken _stop;
    private readonly long _began = Spent();
    private readonly long _allocated = GC.GetAllocatedBytesForCurrentThread();
    private int _asked;

    private ReadingBudget(CancellationToken stop) => _stop = stop;

    /// <summary>Begins to count; null if somebody counts already on this thread.</summary>
    /// <param name="stop">Says that nobody waits for the file any more.</param>
    public static ReadingBudget? Begin(CancellationToken stop = default) => _current is null ? _current = new ReadingBudget(stop) : null;

    /// <inheritdoc/>
    public void Dispose() => _current = null;

    /// <summary>Asks whether there is something left. Quick enough for every row.</summary>
    /// <exception cref="FormatProblem">There is not.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits any more.</exception>
    internal static void Ask()
    {
        if (_current is { } budget && ++budget._asked % Seldom == 0)
        {
            budget.Check();
        }
    }

    /// <summary>As <see cref="Ask"/>, for what takes long by itself.</summary>
    internal static void AskNow() => _current?.Check();

    private void Check()
    {
        _stop.ThrowIfCancellationRequested();
        if (Spent() - _began > Processor.TotalNanoseconds || GC.GetAllocatedBytesForCurrentThread() - _allocated > Room)
        {
            throw new FormatProblem("This file takes far more work to read than any of a class or a lesson. Nothing was stored; keep only what belongs to it and bring in that.");
        }
    }

    // Nanoseconds that this thread has had a processor; waiting for one is nobody's fault.
    private static long Spent() => GetTime(ThreadClock, out var time) == 0 ? (time.Seconds * 1_000_000_000) + time.Nanoseconds : 0;

    [DllImport("libc", EntryPoint = "clock_gettime")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int GetTime(int clock, out Time time);

    [StructLayout(LayoutKind.Sequential)]
    private struct Time
    {
        public long Seconds;
        public long Nanoseconds;
    }
}
