using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Data.Sqlite;

namespace PoliteTally.Bench;

/// <summary>
/// What student pages ask of the program: 500 students answer within five seconds, each on a page that is open; beside it the same 500 within a
/// minute. Then 2,000 pages that only stand open. <c>dotnet run -c Release --project bench/PoliteTally.Bench -- students</c>
/// </summary>
internal static class StudentLoad
{
    private const int Students = 500;

    public static async Task Run()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-students");
        await using (var program = await RunningProgram.Start(folder.FullName))
        {
            var pages = new List<Page>();
            var lesson = await Fill(program, Students, pages);
            await using var teacher = new HubConnectionBuilder().WithUrl(new Uri(program.Address, "/live"), options => options.Cookies = program.Cookies).Build();
            var inStep = new Dictionary<int, TimeSpan>();
            var whole = Stopwatch.StartNew();
            teacher.On<JsonElement>("patch", patch =>
            {
                var last = patch.GetProperty("head").GetProperty("askings").EnumerateArray().LastOrDefault();
                if (last.ValueKind == JsonValueKind.Object)
                {
                    inStep.TryAdd(last.GetProperty("answered").GetInt32(), whole.Elapsed);
                }
            });
            await teacher.StartAsync();
            await teacher.InvokeAsync("Watch", Guid.Parse(lesson));

            var slow = await Answer(program, lesson, pages, TimeSpan.FromSeconds(60));
            inStep.Clear();
            var fast = await Answer(program, lesson, pages, TimeSpan.FromSeconds(5));
            var done = whole.Elapsed;
            while (!inStep.ContainsKey(Students))
            {
                await Task.Delay(10);
            }

            Figures.Row(
                $"an answer acknowledged, {Students} students within 5 s, 95th", Figures.Of(Percentile(fast), "ms", "0"), $"within 60 s {Figures.Of(Percentile(slow), "ms", "0")}", Percentile(fast) / Percentile(slow));
            Figures.Row(
                "the teacher's view in step, after the last of them", Figures.Of(Math.Max(0, (inStep[Students] - done).TotalMilliseconds), "ms", "0"), "limit 500 ms",
                Math.Max(0, (inStep[Students] - done).TotalMilliseconds) / 500);
            var kept = Count(folder.FullName);
            Figures.Row("answers in the file", Figures.Of(kept, "", "0"), $"answers acknowledged {fast.Count + slow.Count}", kept / (double)(fast.Count + slow.Count));
            Figures.Row("memory of the program", Figures.Of(program.Memory, "MB", "0"), "limit 400 MB", program.Memory / 400);

            for (var more = 0; more < 3; more++)
            {
                await Fill(program, Students, pages);
            }

            await Task.Delay(TimeSpan.FromSeconds(30));
            var (before, watch) = (program.Processor, Stopwatch.StartNew());
            await Task.Delay(TimeSpan.FromSeconds(60));
            var share = (program.Processor - before) / watch.Elapsed;
            Figures.Row($"processor, {pages.Count:N0} pages idle", Figures.Of(share * 100, "% of a core", "0.0"), "limit 5 %", share / 0.05);
            foreach (var page in pages)
            {
                await page.Hub.DisposeAsync();
            }
        }

        SqliteConnection.ClearAllPools();
        folder.Delete(recursive: true);
    }

    private static async Task<string> Fill(RunningProgram program, int students, List<Page> pages)
    {
        var inClass = (await program.Post("/api/classes", new { name = "Weather and Tides" })).GetProperty("id").GetString()!;
        await program.Send($"/api/classes/{inClass}/roster", "Given name,Family name\n" + string.Concat(Enumerable.Range(1, students).Select(i => $"Student{i},Class{pages.Count}\n")));
        var lesson = (await program.Post($"/api/classes/{inClass}/lessons", new { title = "Why the wind backs", minutes = 50 })).GetProperty("id").GetString()!;
        var sheet = await program.Get($"/api/lessons/{lesson}/live");
        var ids = sheet.GetProperty("rows").EnumerateArray().Select(r => r.GetProperty("id").GetString()!).ToList();
        var code = (await program.Get($"/api/lessons/{lesson}/way-in")).GetProperty("code").GetString()!;
        foreach (var slip in (await program.Post($"/api/classes/{inClass}/passes", new { students = ids })).EnumerateArray())
        {
            var cookies = new CookieContainer();
            var http = new HttpClient(new SocketsHttpHandler { CookieContainer = cookies }) { BaseAddress = program.Address };
            using var entered = await http.PostAsJsonAsync($"/api/page/{code}/enter", new { pass = slip.GetProperty("pass").GetString(), name = (string?)null, remember = false });
            entered.EnsureSuccessStatusCode();
            var hub = new HubConnectionBuilder().WithUrl(new Uri(program.Address, "/page/live"), options => options.Cookies = cookies)
                .WithKeepAliveInterval(TimeSpan.FromSeconds(45)).WithServerTimeout(TimeSpan.FromSeconds(120)).Build();
            await hub.StartAsync();
            await hub.InvokeAsync("Watch", code);
            pages.Add(new Page(http, hub, code));
        }

        return lesson;
    }

    /// <summary>Opens a question, and every student answers it at some moment of the given time; how long each waited for it to be on the disk.</summary>
    private static async Task<List<double>> Answer(RunningProgram program, string lesson, IReadOnlyList<Page> pages, TimeSpan within)
    {
        var (asking, backs, veers) = (Guid.CreateVersion7(), Guid.NewGuid(), Guid.NewGuid());
        var question = new { id = Guid.NewGuid(), kind = "singleChoice", text = "From west to south-west, the wind…", options = new[] { new { id = backs, text = "backs" }, new { id = veers, text = "veers" } } };
        await program.Post($"/api/lessons/{lesson}/entries", new
        {
            entries = new[] { new { id = asking, happenedAt = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds(), act = new { type = "questionOpened", question, group = (Guid?)null, copyOf = (Guid?)null, longerFor = Array.Empty<Guid>(), longerSeconds = 0 } } },
        });
        var random = new Random(5);
        var waits = pages.Select(_ => random.NextDouble() * within).ToList();
        return [.. await Task.WhenAll(pages.Select(async (page, i) =>
        {
            await Task.Delay(waits[i]);
            var watch = Stopwatch.StartNew();
            using var answer = await page.Http.PostAsJsonAsync($"/api/page/{page.Code}/acts", new { id = Guid.CreateVersion7(), doing = "answer", asking, answer = new { options = new[] { i % 3 == 0 ? veers : backs } } });
            answer.EnsureSuccessStatusCode();
            return watch.Elapsed.TotalMilliseconds;
        }))];
    }

    private static double Percentile(List<double> times) => times.Order().ElementAt((int)(times.Count * 0.95));

    private static long Count(string folder)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "polite-tally.db")}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = """SELECT COUNT(*) FROM "Entries" WHERE "Act" LIKE '{"type":"answerGiven"%'""";
        return (long)command.ExecuteScalar()!;
    }

    private sealed record Page(HttpClient Http, HubConnection Hub, string Code);
}
