using System.Runtime;

namespace PoliteTally.Formats;

/// <summary>
/// Room for what is read from a large file, set aside before. All of it is kept until the file was shown, so a collector that runs meanwhile looks through it again
/// and again for nothing, and everybody else waits. One file at a time has such room; another is read without, and so is what needs more than was set aside. Whoever reads a file
/// for somebody keeps the room until that is answered: what is looked through while all of it is there is what takes long.
/// </summary>
public sealed class ReadingRoom : IDisposable
{
    /// <summary>From how many bytes on a file is large: 500,000. Smaller ones are read in a moment, before a collector would run.</summary>
    public const int Large = 500_000;

    // Rows take up to ten times the room that they have in the file.
    private const int Times = 12;

    private static int _isTaken;

    private ReadingRoom()
    {
    }

    /// <summary>Sets room aside; null if the file is small or another one has it.</summary>
    /// <param name="bytes">The size of the file in bytes.</param>
    public static ReadingRoom? For(long bytes)
    {
        if (bytes < Large || Interlocked.CompareExchange(ref _isTaken, 1, 0) != 0)
        {
            return null;
        }

        try
        {
            GC.TryStartNoGCRegion(Times * bytes, disallowFullBlockingGC: true);
        }
        catch (Exception none) when (none is InvalidOperationException or ArgumentOutOfRangeException)
        {
            // Somebody else asked for it, or this machine has not so much: it is read all the same.
        }

        return new ReadingRoom();
    }

    /// <summary>Gives it back.</summary>
    public void Dispose()
    {
        try
        {
            if (GCSettings.LatencyMode == GCLatencyMode.NoGCRegion)
            {
                GC.EndNoGCRegion();
            }
        }
        catch (InvalidOperationException)
        {
            // It was used up just now, and given back by that.
        }
        finally
        {
            Interlocked.Exchange(ref _isTaken, 0);
        }
    }
}
