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

    public static void Row(string what, string measured, string beside, double ratio) =>
        Console.WriteLine($"| {what} | {measured} | {beside} | {ratio.ToString("0.00", CultureInfo.InvariantCulture)} |");

    public static string Of(double number, string unit, string format = "0.00") =>
        $"{number.ToString(format, CultureInfo.InvariantCulture)} {unit}";
}
