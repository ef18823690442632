namespace PoliteTally.Bench;

/// <summary>
/// Acknowledged entries over HTTP, the program in a process of its own, beside a bare loop with one transaction of
/// <c>synchronous=FULL</c> a row. One entry a request: what a tap is.
/// </summary>
internal static class Acknowledging
{
    private const int Rounds = 3000;
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(5);

    public static async Task Run()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        using (var bare = new BareFile(folder.FullName))
        {
            await using var program = await RunningProgram.Start(folder.FullName);
            var lesson = await TappedLesson.Make(program);
            // Until the program is compiled as it will stay.
            await lesson.Tap(4, TimeSpan.FromSeconds(5));
            await lesson.Tap(1, TimeSpan.FromSeconds(15));

            var loop = bare.Commit(Long);
            var alone = Figures.Median(await lesson.Tap(1, Long));
            Figures.Row(
                "one tap alone, median acknowledgement", Figures.Of(alone, "ms"),
                $"bare commit, one on the other's heels {Figures.Of(Figures.Median(loop), "ms")}", alone / Figures.Median(loop));
            foreach (var clients in (int[])[1, 8, 32])
            {
                // A lesson of its own each: one holds 100,000 entries.
                lesson = await TappedLesson.Make(program);
                var perSecond = (await lesson.Tap(clients, Long)).Count / Long.TotalSeconds;
                Figures.Row(
                    $"acknowledged entries a second, {clients} {(clients == 1 ? "client" : "clients")}", Figures.Of(perSecond, "/s", "0"),
                    $"bare loop {Figures.Of(loop.Count / Long.TotalSeconds, "/s", "0")}", perSecond / (loop.Count / Long.TotalSeconds));
            }

            Stations(program, lesson, bare);
        }

        folder.Delete(recursive: true);
    }

    /// <summary>
    /// Where the time of a tap goes: requests that turn back at one station after the other on its way, by turns on one connection, so that what a
    /// station takes is the difference to the one before. A bare commit takes its turn with them: a disk that was idle for a millisecond is slower
    /// than one that is kept busy.
    /// </summary>
    private static void Stations(RunningProgram program, TappedLesson lesson, BareFile bare)
    {
        using var line = new Line(program.Address);
        var path = $"/api/lessons/{lesson.Id}/entries";
        double Post(string body, int status) => line.Ask(Line.Request(program.Address, "POST", path, program.Headers + Line.Json, body), status);
        (string Name, Func<double> Once)[] stations =
        [
            ("there and back through the web server", () => line.Ask(Line.Request(program.Address, "GET", "/health", "", ""), 200)),
            ("who it is: cookie, session", () => line.Ask(Line.Request(program.Address, "PUT", path, program.Headers, ""), 405)),
            ("limit, JSON read", () => Post("""{"entries":[]}""", 422)),
            ("writer and rules, nothing stored", () => Post(TappedLesson.Body(Guid.Empty.ToString()), 200)),
            ("stored, folded in, announced", () => Post(TappedLesson.Body(lesson.Student), 200)),
        ];
        var times = stations.Select(_ => new List<double>()).ToArray();
        var commits = new List<double>();
        for (var round = 0; round < Rounds; round++)
        {
            for (var at = 0; at < stations.Length; at++)
            {
                times[at].Add(stations[at].Once());
            }

            commits.Add(bare.Commit());
        }

        var (commit, before) = (Figures.Median(commits), 0.0);
        for (var at = 0; at < stations.Length; at++)
        {
            var median = Figures.Median(times[at]);
            Figures.Row(
                $"a tap as far as: {stations[at].Name}", Figures.Of(median, "ms"),
                $"{Figures.Of(median - before, "ms")} of it here; bare commit by turns {Figures.Of(commit, "ms")}", median / commit);
            before = median;
        }
    }
}
