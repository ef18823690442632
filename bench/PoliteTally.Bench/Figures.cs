using System.Diagnostics;
using System.Globalization;

namespace PoliteTally.Bench;

/// <summary>Times and how they are printed.</summary>
internal static class Figures
{
    public static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToList();
        return sorted[sorted.Count / 2];
    }

    /// <summary>The median time of a few runs, in milliseconds, after two seconds of them to warm up: until then the code is not yet made quick.</summary>
    public static double Milliseconds(Action run, int times = 15)
    {
        for (var warm = Stopwatch.StartNew(); warm.ElapsedMilliseconds < 2000;)
        {
            run();
        }

        return Median(Enumerable.Range(0, times).Select(_ =>
        {
            var watch = Stopwatch.StartNew();
            run();
            return watch.Elapsed.TotalMilliseconds;
        }));
    }

    /// <summary>The median times of two things by turns, in milliseconds: a moment in which this machine is slow is no fault of either.</summary>
    public static (double First, double Second) ByTurns(Action first, Action second, int times = 61)
    {
        Milliseconds(first, 1);
        Milliseconds(second, 1);
        var rounds = Enumerable.Range(0, times).Select(_ => (First: Once(first), Second: Once(second))).ToList();
        return (Median(rounds.Select(r => r.First)), Median(rounds.Select(r => r.Second)));

        static double Once(Action run)
        {
            var watch = Stopwatch.StartNew();
            run();
            return watch.Elapsed.TotalMilliseconds;
        }
    }

    /// <summary>The bytes that one run asks for, of the middle of many.</summary>
    public static double Bytes(Action run, int times = 200)
    {
        run();
        var before = GC.GetAllocatedBytesForCurrentThread();
        for (var i = 0; i < times; i++)
        {
            run();
        }

        return (GC.GetAllocatedBytesForCurrentThread() - before) / (double)times;
    }

    public static void Row(string what, string measured, string beside, double ratio) =>
        Console.WriteLine($"| {what} | {measured} | {beside} | {ratio.ToString("0.00", CultureInfo.InvariantCulture)} |");

    public static string Of(double number, string unit, string format = "0.00") =>
        $"{number.ToString(format, CultureInfo.InvariantCulture)} {unit}";
}
