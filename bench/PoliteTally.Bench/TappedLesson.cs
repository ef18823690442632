using System.Diagnostics;

namespace PoliteTally.Bench;

/// <summary>A lesson going on, and a teacher who taps.</summary>
internal sealed class TappedLesson(Uri address, string headers, string lesson, string student)
{
    public string Id => lesson;

    public string Student => student;

    public static async Task<TappedLesson> Make(RunningProgram program)
    {
        var lesson = await LiveLoad.Teach(program, await LiveLoad.Class(program, 28));
        return new TappedLesson(program.Address, program.Headers, lesson.Id, lesson.Students[0]);
    }

    /// <summary>One entry as a window sends it.</summary>
    public static string Body(string student) =>
        $$$"""{"entries":[{"id":"{{{Guid.CreateVersion7()}}}","happenedAt":{{{DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()}}},"act":{"type":"nodGiven","student":"{{{student}}}","reason":"on time"}}]}""";

    /// <summary>Taps from several windows for a while; the time of each acknowledgement in milliseconds.</summary>
    public async Task<IReadOnlyList<double>> Tap(int clients, TimeSpan time)
    {
        var until = Stopwatch.StartNew();
        var taps = await Task.WhenAll(Enumerable.Range(0, clients).Select(_ => Task.Factory.StartNew(
            () => TapUntil(() => until.Elapsed < time), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default)));
        return [.. taps.SelectMany(t => t)];
    }

    private List<double> TapUntil(Func<bool> more)
    {
        var times = new List<double>();
        using var line = new Line(address);
        while (more())
        {
            times.Add(line.Ask(Line.Request(address, "POST", $"/api/lessons/{lesson}/entries", headers + Line.Json, Body(student)), 200));
            if (!line.Answer.Contains("\"refused\":[]", StringComparison.Ordinal))
            {
                throw new InvalidOperationException(line.Answer);
            }
        }

        return times;
    }
}
