using System.Diagnostics;

namespace PoliteTally.Bench;

/// <summary>A lesson going on, and a teacher who taps.</summary>
internal sealed class TappedLesson(Uri address, string headers, string lesson, string student)
{
    public string Id => lesson;

    public string Student => student;

    public static async Task<TappedLesson> Make(RunningProgram program)
    {
        var id = (await program.Post("/api/classes", new { name = "Weather and Tides" })).GetProperty("id").GetString();
        await program.Send($"/api/classes/{id}/roster", "Given name,Family name\n" + string.Concat(Enumerable.Range(1, 28).Select(i => $"Student{i},Sound{i}\n")));
        var lesson = (await program.Post($"/api/classes/{id}/lessons", new { title = "Why the wind backs", minutes = 50 })).GetProperty("id").GetString()!;
        var page = await program.Get($"/api/classes/{id}");
        return new TappedLesson(program.Address, program.Headers, lesson, page.GetProperty("students")[0].GetProperty("id").GetString()!);
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
