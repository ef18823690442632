using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Data.Sqlite;

namespace PoliteTally.Bench;

/// <summary>
/// What a lesson must bear: 500 students with 20 events a second from the feed while a teacher taps and two windows watch; and 100 lessons of 30
/// at once. Beside each, the same taps with nothing else going on. <c>dotnet run -c Release --project bench/PoliteTally.Bench -- load [minutes]</c>
/// </summary>
internal static class LiveLoad
{
    private const int EventsASecond = 20;
    private const int InABatch = 5;

    public static async Task Run(double minutes)
    {
        await OneLargeLesson(TimeSpan.FromMinutes(minutes));
        await ManyLessons(100, 30, TimeSpan.FromMinutes(Math.Min(1, minutes)));
    }

    private static async Task OneLargeLesson(TimeSpan time)
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-load");
        await using (var program = await RunningProgram.Start(folder.FullName))
        {
            var lesson = await Teach(program, await Class(program, 500));
            await using var window = await Window.Watch(program, lesson.Id);
            var quiet = await Taps(program, lesson, window, TimeSpan.FromSeconds(20), every: 4);
            var before = program.Memory;
            var token = (await program.Post($"/api/lessons/{lesson.Id}/keys", new { name = "Load", feed = true, sweep = false, handLine = false })).GetProperty("key").GetString()!;
            using var ending = new CancellationTokenSource(time);
            var feed = Feed(program.Address, token, ending.Token);
            var busy = await Taps(program, lesson, window, time, every: 4);
            var sent = await feed;
            Row("one tap acknowledged, 500 students, 20 events a second, 95th", Percentile(busy.Stored), "without the feed", Percentile(quiet.Stored));
            Row("the same tap in another window, 95th", Percentile(busy.Seen), "without the feed", Percentile(quiet.Seen));
            Figures.Row(
                $"memory of the program after {time.TotalMinutes:0.#} min and {sent:N0} events", Figures.Of(program.Memory, "MB", "0"), $"before {Figures.Of(before, "MB", "0")}", program.Memory / before);
            var kept = Count(folder.FullName, """SELECT COUNT(*) FROM "Entries" WHERE "Source" = 2 AND "Act" NOT LIKE '{"type":"nameMatched"%'""");
            Figures.Row("events in the file", Figures.Of(kept, "", "0"), $"events acknowledged {sent:0}", kept / (double)sent);
        }

        SqliteConnection.ClearAllPools();
        folder.Delete(recursive: true);
    }

    private static async Task ManyLessons(int lessons, int students, TimeSpan time)
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-load");
        await using (var program = await RunningProgram.Start(folder.FullName))
        {
            var all = new List<Lesson>();
            var windows = new List<Window>();
            for (var i = 0; i < lessons; i++)
            {
                all.Add(await Teach(program, await Class(program, students)));
                windows.Add(await Window.Watch(program, all[^1].Id));
            }

            var alone = await Taps(program, all[0], windows[0], TimeSpan.FromSeconds(15), every: 4);
            var taps = await Task.WhenAll(all.Select((l, i) => Taps(program, l, windows[i], time, every: 1)));
            Row($"one tap acknowledged, {lessons} lessons of {students} with a tap a second each, 95th", Percentile(taps.SelectMany(t => t.Stored)), "one lesson alone", Percentile(alone.Stored));
            Row("the same tap in another window, 95th", Percentile(taps.SelectMany(t => t.Seen)), "one lesson alone", Percentile(alone.Seen));
            Figures.Row("memory of the program", Figures.Of(program.Memory, "MB", "0"), "lessons", program.Memory / lessons);
            foreach (var window in windows)
            {
                await window.DisposeAsync();
            }
        }

        SqliteConnection.ClearAllPools();
        folder.Delete(recursive: true);
    }

    internal static void Row(string what, double measured, string beside, double other) =>
        Figures.Row(what, Figures.Of(measured, "ms", "0.0"), $"{beside} {Figures.Of(other, "ms", "0.0")}", measured / other);

    internal static double Percentile(IEnumerable<double> times)
    {
        var sorted = times.Order().ToList();
        return sorted[(int)(sorted.Count * 0.95)];
    }

    private static long Count(string folder, string query)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "polite-tally.db")}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = query;
        return (long)command.ExecuteScalar()!;
    }

    internal static async Task<string> Class(RunningProgram program, int students)
    {
        var made = (await program.Post("/api/classes", new { name = "Weather and Tides" })).GetProperty("id").GetString()!;
        await program.Send($"/api/classes/{made}/roster", "Given name,Family name\n" + string.Concat(Enumerable.Range(1, students).Select(i => $"Student{i},Sound{i}\n")));
        return made;
    }

    internal static async Task<Lesson> Teach(RunningProgram program, string inClass)
    {
        var id = (await program.Post($"/api/classes/{inClass}/lessons", new { title = "Why the wind backs", minutes = 50 })).GetProperty("id").GetString()!;
        var sheet = await program.Get($"/api/lessons/{id}/live");
        return new Lesson(id, [.. sheet.GetProperty("rows").EnumerateArray().Select(r => r.GetProperty("id").GetString()!)]);
    }

    /// <summary>Taps one after the other, so many a second; how long each took to be on the disk, and to be in the other window.</summary>
    internal static async Task<(List<double> Stored, List<double> Seen)> Taps(RunningProgram program, Lesson lesson, Window window, TimeSpan time, int every)
    {
        var (stored, seen) = (new List<double>(), new List<double>());
        var whole = Stopwatch.StartNew();
        for (var i = 0; whole.Elapsed < time; i++)
        {
            var watch = Stopwatch.StartNew();
            var answer = await program.Post($"/api/lessons/{lesson.Id}/entries", new
            {
                entries = new[] { new { id = Guid.CreateVersion7(), happenedAt = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds(), act = new { type = "nodGiven", student = lesson.Students[i * 7 % lesson.Students.Count], reason = "on time" } } },
            });
            stored.Add(watch.Elapsed.TotalMilliseconds);
            await window.Saw(answer.GetProperty("position").GetInt64());
            seen.Add(watch.Elapsed.TotalMilliseconds);
            var next = TimeSpan.FromSeconds((i + 1.0) / every) - whole.Elapsed;
            if (next > TimeSpan.Zero)
            {
                await Task.Delay(next);
            }
        }

        return (stored, seen);
    }

    /// <summary>20 events a second of every kind, as a meeting of 500 would tell them; how many were acknowledged.</summary>
    private static async Task<long> Feed(Uri address, string token, CancellationToken ending)
    {
        using var http = new HttpClient { BaseAddress = address };
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        var random = new Random(7);
        long accepted = 0;
        var whole = Stopwatch.StartNew();
        for (var batch = 0; !ending.IsCancellationRequested; batch++)
        {
            var events = Enumerable.Range(0, InABatch).Select(i => Event((batch * InABatch) + i)).ToList();
            using var response = await http.PostAsJsonAsync("/api/feed", events, CancellationToken.None);
            response.EnsureSuccessStatusCode();
            accepted += JsonDocument.Parse(await response.Content.ReadAsStringAsync(CancellationToken.None)).RootElement.GetProperty("accepted").GetInt64();
            var next = TimeSpan.FromSeconds((batch + 1.0) * InABatch / EventsASecond) - whole.Elapsed;
            if (next > TimeSpan.Zero)
            {
                await Task.Delay(next, CancellationToken.None);
            }
        }

        return accepted;

        object Event(int number)
        {
            var student = number < 500 ? number + 1 : random.Next(1, 501);
            var name = $"Student{student} Sound{student}";
            var kind = number < 500 ? "joined" : random.Next(10) switch { 0 => "left", 1 => "joined", 2 or 3 => "hand-raised", 4 or 5 => "hand-lowered", 6 => "reaction", _ => "message" };
            return new
            {
                specversion = "1.0",
                id = number.ToString(CultureInfo.InvariantCulture),
                source = "urn:load",
                type = $"polite-tally.{kind}",
                time = DateTimeOffset.UtcNow.ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", CultureInfo.InvariantCulture),
                data = new { name, device = "laptop", text = $"reading {number} at ours, falling", reaction = "clap" },
            };
        }
    }

    internal sealed record Lesson(string Id, IReadOnlyList<string> Students);

    /// <summary>A second window: it hears patches and knows how far they have come.</summary>
    internal sealed class Window(HubConnection hub) : IAsyncDisposable
    {
        private readonly Lock _lock = new();
        private long _position;
        private (long Position, TaskCompletionSource Seen)? _waiting;

        public static async Task<Window> Watch(RunningProgram program, string lesson)
        {
            var hub = new HubConnectionBuilder().WithUrl(new Uri(program.Address, "/live"), options => options.Cookies = program.Cookies).Build();
            var window = new Window(hub);
            hub.On<JsonElement>("patch", window.Heard);
            await hub.StartAsync();
            await hub.InvokeAsync("Watch", Guid.Parse(lesson));
            return window;
        }

        public Task Saw(long position)
        {
            lock (_lock)
            {
                if (_position >= position)
                {
                    return Task.CompletedTask;
                }

                _waiting = (position, new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously));
                return _waiting.Value.Seen.Task;
            }
        }

        public ValueTask DisposeAsync() => hub.DisposeAsync();

        private void Heard(JsonElement patch)
        {
            lock (_lock)
            {
                _position = patch.GetProperty("head").GetProperty("position").GetInt64();
                if (_waiting is { } waiting && _position >= waiting.Position)
                {
                    _waiting = null;
                    waiting.Seen.SetResult();
                }
            }
        }
    }
}
