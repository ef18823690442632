using System.Diagnostics;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace PoliteTally.Bench;

/// <summary>
/// What taps of a lesson feel of others: a lesson flooded with bad requests with a window beside it that does not read, a roster of 2,000 brought in,
/// and 60 settled lessons of 1,000 scored by another scheme. Beside each, the same taps with nothing else going on.
/// </summary>
internal static class Neighbours
{
    private const int TapsASecond = 20;
    private const int Settled = 60;
    private const int Many = 1000;
    private const int EntriesAtOnce = 500;
    private const int BadASecond = 200;
    private const int Floods = 4;
    private const int Turns = 4;
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(24);
    private static readonly int[] Megabytes = [5, 10, 15, 20];

    /// <summary>A saved chat of so many megabytes, in as many rows as are read of one.</summary>
    private static string Chat(int megabytes)
    {
        const int rows = 90_000;
        var words = new string('x', (megabytes * 950_000 / rows) - 40);
        return "Time,From,Message\n" + string.Concat(Enumerable.Range(0, rows).Select(i => $"09:{i / 60 % 60:00}:{i % 60:00},Student{i % 400} Sound,{i} {words}\n"));
    }

    public static async Task Run()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-load");
        await using (var program = await RunningProgram.Start(folder.FullName))
        {
            var lesson = await LiveLoad.Teach(program, await LiveLoad.Class(program, 28));
            await using var window = await LiveLoad.Window.Watch(program, lesson.Id);
            // Until the program is compiled as it will stay.
            await Taps(Long);

            var flooded = await LiveLoad.Teach(program, await LiveLoad.Class(program, 500));
            (List<double> Stored, List<double> Seen) quiet = ([], []), beside = ([], []);
            var sent = 0;
            // By turns, so that a moment in which this machine is slow is no fault of either.
            for (var turn = 0; turn < Turns; turn++)
            {
                Add(quiet, await Taps(Long / Turns));
                using var ending = new CancellationTokenSource();
                using var stalled = await Stalled(program, flooded.Id);
                var flood = Enumerable.Range(0, Floods).Select(i => Flood(program, flooded, ending.Token)).ToList();
                Add(beside, await Taps(Long / Turns));
                await ending.CancelAsync();
                sent += (await Task.WhenAll(flood)).Sum();
            }

            Compare($"beside a lesson with {sent / Long.TotalSeconds:0} bad requests a second and a window that does not read", beside);

            var rosters = Enumerable.Range(0, 4).Select(run => "Student number,Family name,Given name,E-mail,Tags\n"
                + string.Concat(Enumerable.Range(1, 2000).Select(i => $"R{run}S{i:0000},Sound{i},Student{i},r{run}student{i}@pupils.skerrysound.example,Harbour\n"))).ToList();
            Compare("while rosters of 2,000 rows are brought in", await During(async () =>
            {
                foreach (var roster in rosters)
                {
                    var id = (await program.Post("/api/classes", new { name = "All of it" })).GetProperty("id").GetString();
                    await program.Send($"/api/classes/{id}/roster", roster);
                }
            }));

            var (files, before) = (Megabytes.Select(Chat).ToList(), program.Memory);
            Compare($"while {Megabytes.Length} chats of {Megabytes[0]} to {Megabytes[^1]} MB are looked at at once", await During(() => Task.WhenAll(files.Select(file => program.Send($"/api/lessons/{flooded.Id}/files/look", file)))));
            await Task.Delay(TimeSpan.FromSeconds(2));
            Figures.Row("memory of the program 2 s after that", Figures.Of(program.Memory, "MB", "0"), $"before {Figures.Of(before, "MB", "0")}", program.Memory / before);

            var past = await LiveLoad.Class(program, Many);
            for (var i = 0; i < Settled; i++)
            {
                await Settle(program, await LiveLoad.Teach(program, past));
            }

            Compare($"while {Settled} settled lessons of {Many:N0} are scored by another scheme", await During(() => ScoreAnew(program, past)));

            Task<(List<double> Stored, List<double> Seen)> Taps(TimeSpan time) => LiveLoad.Taps(program, lesson, window, time, TapsASecond);

            async Task<(List<double> Stored, List<double> Seen)> During(Func<Task> work)
            {
                var (stored, seen) = (new List<double>(), new List<double>());
                var going = work();
                while (!going.IsCompleted)
                {
                    Add((stored, seen), await Taps(TimeSpan.FromMilliseconds(400)));
                }

                await going;
                return (stored, seen);
            }

            static void Add((List<double> Stored, List<double> Seen) to, (List<double> Stored, List<double> Seen) more)
            {
                to.Stored.AddRange(more.Stored);
                to.Seen.AddRange(more.Seen);
            }

            void Compare(string when, (List<double> Stored, List<double> Seen) taps)
            {
                LiveLoad.Row($"a tap acknowledged {when}, 95th of {taps.Stored.Count}", LiveLoad.Percentile(taps.Stored), "nothing else", LiveLoad.Percentile(quiet.Stored));
                LiveLoad.Row("the same tap in a second window, 95th", LiveLoad.Percentile(taps.Seen), "nothing else", LiveLoad.Percentile(quiet.Seen));
            }
        }

        SqliteConnection.ClearAllPools();
        folder.Delete(recursive: true);
    }

    /// <summary>Requests with something wrong in them, one after the other, and taps among them so that there is much to show.</summary>
    private static async Task<int> Flood(RunningProgram program, LiveLoad.Lesson lesson, CancellationToken ending)
    {
        var (sent, whole) = (0, Stopwatch.StartNew());
        while (!ending.IsCancellationRequested)
        {
            // As a page or a program gone mad would: not as fast as two cores can make them, for then it is the cores that are measured.
            var next = TimeSpan.FromSeconds(sent * (double)Floods / BadASecond) - whole.Elapsed;
            if (next > TimeSpan.Zero)
            {
                await Task.Delay(next, CancellationToken.None);
            }

            object act = (sent++ % 8) switch
            {
                0 => new { type = "groupsMade", groups = new object?[] { null } },
                1 => new { type = "handRaised", student = Guid.NewGuid() },
                2 => new { type = "answerGiven", student = lesson.Students[0], asking = Guid.NewGuid(), answer = new { words = new string?[] { null } } },
                3 => new { type = "noSuchAct" },
                4 => new { type = "struck", entry = Guid.NewGuid() },
                5 => new { type = "asideNoted", student = lesson.Students[0], text = new string('x', 9000) },
                6 => new { type = "attended", name = "Juno", length = 1e300 },
                _ => new { type = "nodGiven", student = lesson.Students[sent % lesson.Students.Count], reason = "on time" },
            };
            await program.Try($"/api/lessons/{lesson.Id}/entries", new { entries = new[] { new { id = Guid.CreateVersion7(), happenedAt = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds(), act } } });
        }

        return sent;
    }

    /// <summary>A window that asks to hear of everything and reads nothing.</summary>
    private static async Task<ClientWebSocket> Stalled(RunningProgram program, string lesson)
    {
        var socket = new ClientWebSocket { Options = { Cookies = program.Cookies } };
        await socket.ConnectAsync(new UriBuilder(new Uri(program.Address, "/live")) { Scheme = "ws" }.Uri, CancellationToken.None);
        foreach (var message in new[] { """{"protocol":"json","version":1}""", $$"""{"type":1,"invocationId":"1","target":"Watch","arguments":["{{lesson}}"]}""" })
        {
            await socket.SendAsync(Encoding.UTF8.GetBytes(message + "\u001e"), WebSocketMessageType.Text, endOfMessage: true, CancellationToken.None);
        }

        return socket;
    }

    private static async Task Settle(RunningProgram program, LiveLoad.Lesson lesson)
    {
        IEnumerable<object> acts =
        [
            .. lesson.Students.Select(s => new { type = "marked", student = s, mark = "here" }),
            .. lesson.Students.Select(s => new { type = "turnTaken", student = s, outcome = "full", origin = "invited" }),
            .. lesson.Students.Select(s => new { type = "chatSaid", student = s, kind = "question", text = "is neap tide at half moon?" }),
        ];
        await Note(acts);
        await Note([new { type = "lessonEnded" }]);
        await Note([new { type = "lessonSettled" }]);

        async Task Note(IEnumerable<object> some)
        {
            foreach (var part in some.Chunk(EntriesAtOnce))
            {
                await program.Post($"/api/lessons/{lesson.Id}/entries", new
                {
                    entries = part.Select(act => new { id = Guid.CreateVersion7(), happenedAt = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds(), act }).ToArray(),
                });
            }
        }
    }

    /// <summary>Stores another scheme for all settled lessons of a class, and waits until all of them are scored by it.</summary>
    private static async Task ScoreAnew(RunningProgram program, string past)
    {
        var view = await program.Get($"/api/classes/{past}/scheme");
        var scheme = JsonNode.Parse(view.GetProperty("scheme").GetRawText())!;
        scheme["chatTarget"] = 3;
        var lessons = view.GetProperty("lessons").EnumerateArray().Select(l => l.GetProperty("id").GetString()).ToArray();
        await program.Post($"/api/classes/{past}/scheme", new { scheme, why = "to see what others feel of it", after = view.GetProperty("version").GetInt32(), lessons });
        while ((await program.Get($"/api/classes/{past}/scheme")).GetProperty("lessons").EnumerateArray().Any(l => l.GetProperty("due").GetBoolean()))
        {
            await Task.Delay(500);
        }
    }
}
