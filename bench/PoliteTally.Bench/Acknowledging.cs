using System.Diagnostics;
using System.Net.Sockets;
using System.Text;
using Microsoft.Data.Sqlite;

namespace PoliteTally.Bench;

/// <summary>
/// Acknowledged entries over HTTP, the program in a process of its own, beside a bare loop with one transaction of
/// <c>synchronous=FULL</c> a row. One entry a request: what a tap is.
/// </summary>
internal static class Acknowledging
{
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(5);

    public static async Task Run()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        var (bareEach, barePerSecond) = Bare(folder.FullName);
        await using (var program = await RunningProgram.Start(folder.FullName))
        {
            var lesson = await Lesson.Make(program);
            // Until the program is compiled as it will stay.
            await lesson.Tap(4, TimeSpan.FromSeconds(8));

            var alone = await lesson.Tap(1, Long);
            Figures.Row(
                "one tap alone, median acknowledgement", Figures.Of(Figures.Median(alone), "ms"),
                $"bare commit {Figures.Of(bareEach, "ms")}", Figures.Median(alone) / bareEach);
            foreach (var clients in (int[])[1, 8, 32])
            {
                var taps = await lesson.Tap(clients, Long);
                var perSecond = taps.Count / Long.TotalSeconds;
                Figures.Row(
                    $"acknowledged entries a second, {clients} {(clients == 1 ? "client" : "clients")}", Figures.Of(perSecond, "/s", "0"),
                    $"bare loop {Figures.Of(barePerSecond, "/s", "0")}", perSecond / barePerSecond);
            }
        }

        folder.Delete(recursive: true);
    }

    private static (double Each, double PerSecond) Bare(string folder)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "bare.db")};Pooling=False");
        connection.Open();
        Execute(connection, "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; CREATE TABLE Entries (Seq INTEGER PRIMARY KEY, Id TEXT UNIQUE, Act TEXT)");
        using var insert = connection.CreateCommand();
        insert.CommandText = "INSERT INTO Entries (Id, Act) VALUES ($id, $act)";
        insert.Parameters.AddWithValue("$id", "");
        insert.Parameters.AddWithValue("$act", """{"type":"nodGiven","student":"01900000-0000-7000-8000-000000000000","reason":"on time"}""");
        var each = new List<double>();
        var whole = Stopwatch.StartNew();
        while (whole.Elapsed < Long)
        {
            var watch = Stopwatch.StartNew();
            using var transaction = connection.BeginTransaction();
            insert.Transaction = transaction;
            insert.Parameters[0].Value = Guid.CreateVersion7();
            insert.ExecuteNonQuery();
            transaction.Commit();
            each.Add(watch.Elapsed.TotalMilliseconds);
        }

        return (Figures.Median(each), each.Count / whole.Elapsed.TotalSeconds);
    }

    private static void Execute(SqliteConnection connection, string text)
    {
        using var command = connection.CreateCommand();
        command.CommandText = text;
        command.ExecuteNonQuery();
    }

    /// <summary>A lesson going on, and a teacher who taps.</summary>
    private sealed class Lesson(Uri address, string headers, string lesson, string student)
    {
        public static async Task<Lesson> Make(RunningProgram program)
        {
            var id = (await program.Post("/api/classes", new { name = "Weather and Tides" })).GetProperty("id").GetString();
            await program.Send($"/api/classes/{id}/roster", "Given name,Family name\n" + string.Concat(Enumerable.Range(1, 28).Select(i => $"Student{i},Sound{i}\n")));
            var lesson = (await program.Post($"/api/classes/{id}/lessons", new { title = "Why the wind backs", minutes = 50 })).GetProperty("id").GetString()!;
            var page = await program.Get($"/api/classes/{id}");
            return new Lesson(program.Address, program.Headers, lesson, page.GetProperty("students")[0].GetProperty("id").GetString()!);
        }

        /// <summary>Taps from several windows for a while; the time of each acknowledgement in milliseconds.</summary>
        public async Task<IReadOnlyList<double>> Tap(int clients, TimeSpan time)
        {
            var until = Stopwatch.StartNew();
            var taps = await Task.WhenAll(Enumerable.Range(0, clients).Select(_ => Task.Factory.StartNew(
                () => TapUntil(() => until.Elapsed < time), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default)));
            return [.. taps.SelectMany(t => t)];
        }

        // A plain socket: what is measured is the program, and both share the machine.
        private List<double> TapUntil(Func<bool> more)
        {
            var times = new List<double>();
            using var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
            socket.Connect(address.Host, address.Port);
            var answer = new byte[16_384];
            while (more())
            {
                var body = $$$"""{"entries":[{"id":"{{{Guid.CreateVersion7()}}}","happenedAt":{{{DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()}}},"act":{"type":"nodGiven","student":"{{{student}}}","reason":"on time"}}]}""";
                var request = Encoding.ASCII.GetBytes(
                    $"POST /api/lessons/{lesson}/entries HTTP/1.1\r\nHost: {address.Authority}\r\n{headers}Content-Type: application/json\r\nContent-Length: {body.Length}\r\n\r\n{body}");
                var watch = Stopwatch.StartNew();
                socket.Send(request);
                var got = 0;
                // The answer comes in chunks; the last of them is empty.
                while (got < 5 || !answer.AsSpan(0, got).EndsWith("0\r\n\r\n"u8))
                {
                    var part = socket.Receive(answer, got, answer.Length - got, SocketFlags.None);
                    got += part > 0 ? part : throw new IOException("The program hung up.");
                }

                times.Add(watch.Elapsed.TotalMilliseconds);
                if (!answer.AsSpan(0, 15).SequenceEqual("HTTP/1.1 200 OK"u8) || answer.AsSpan(0, got).IndexOf("\"refused\":[]"u8) < 0)
                {
                    throw new InvalidOperationException(Encoding.UTF8.GetString(answer, 0, got));
                }
            }

            return times;
        }
    }
}
