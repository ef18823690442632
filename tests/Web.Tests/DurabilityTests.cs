using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using Microsoft.Data.Sqlite;
using PoliteTally.Core.Notes;
using PoliteTally.Web.Features.Accounts;

namespace PoliteTally.Web.Tests;

public sealed class DurabilityTests
{
    private const int Rounds = 12;
    private const int Windows = 6;

    /// <summary>
    /// The program is killed (SIGKILL) at a random moment while entries come in and started again: what was acknowledged
    /// is there exactly once, and what was not can be sent again.
    /// </summary>
    [Fact]
    public async Task Nothing_acknowledged_is_ever_lost()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-kill");
        var random = new Random();
        Classroom? room = null;
        var acknowledged = new ConcurrentDictionary<Guid, bool>();
        List<SentAgain> open = [];
        for (var round = 0; round < Rounds; round++)
        {
            using var program = await RunningProgram.Start(folder.FullName);
            room = await Enter(program.Address, room);
            // First what the last round left unanswered, as a browser would; part of it may have been stored.
            foreach (var entry in open)
            {
                (await room.Tap([entry.Entry])).Refused.ShouldBeEmpty();
                acknowledged[entry.Entry.Id] = true;
            }

            var unanswered = new ConcurrentBag<SentAgain>();
            var tapping = Enumerable.Range(0, Windows).Select(_ => TapUntilGone(room, acknowledged, unanswered)).ToList();
            await Task.Delay(random.Next(20, 400));
            program.Kill();
            await Task.WhenAll(tapping);
            open = [.. unanswered];

            var stored = Stored(folder.FullName);
            acknowledged.Keys.ShouldAllBe(id => stored.GetValueOrDefault(id) == 1, $"round {round}");
            stored.Values.ShouldAllBe(times => times == 1);
        }

        acknowledged.Count.ShouldBeGreaterThan(Rounds);
        folder.Delete(recursive: true);
    }

    private sealed record SentAgain(Features.Live.SentEntry Entry);

    private static async Task TapUntilGone(
        Classroom room, ConcurrentDictionary<Guid, bool> acknowledged, ConcurrentBag<SentAgain> unanswered)
    {
        while (true)
        {
            var entry = new Features.Live.SentEntry(Guid.CreateVersion7(), Classroom.Now, new NodGiven(room.Students["Juno"], "kept going"));
            try
            {
                (await room.Tap([entry])).Accepted.ShouldHaveSingleItem();
                acknowledged[entry.Id] = true;
            }
            catch (HttpRequestException)
            {
                unanswered.Add(new SentAgain(entry));
                return;
            }
        }
    }

    private static async Task<Classroom> Enter(string address, Classroom? before)
    {
        var visitor = new Visitor(address);
        if ((await visitor.Enter()).AwaitsFirstAccount)
        {
            (await visitor.Post("/api/accounts", new NewAccount("tamsin@skerrysound.example", "rule of twelfths", "Tamsin Vale", "Skerry Sound", "Atlantic/Faroe")))
                .StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }
        else
        {
            (await visitor.Post("/api/session", new SignIn("tamsin@skerrysound.example", "rule of twelfths"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        await visitor.Enter();
        return before is null ? await visitor.Teach() : before with { Teacher = visitor };
    }

    private static Dictionary<Guid, int> Stored(string folder)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "polite-tally.db")};Pooling=False");
        connection.Open();
        using var check = connection.CreateCommand();
        check.CommandText = "PRAGMA integrity_check";
        check.ExecuteScalar().ShouldBe("ok");
        using var command = connection.CreateCommand();
        command.CommandText = """SELECT "Id", COUNT(*) FROM "Entries" GROUP BY "Id" """;
        using var reader = command.ExecuteReader();
        var stored = new Dictionary<Guid, int>();
        while (reader.Read())
        {
            stored[reader.GetGuid(0)] = reader.GetInt32(1);
        }

        return stored;
    }
}

/// <summary>The built program as a process of its own.</summary>
internal sealed class RunningProgram : IDisposable
{
    private readonly Process _process;

    private RunningProgram(Process process, string address) => (_process, Address) = (process, address);

    public string Address { get; }

    public static async Task<RunningProgram> Start(string dataFolder)
    {
        var program = Path.Combine(AppContext.BaseDirectory, "PoliteTally.Web.dll");
        var process = Process.Start(new ProcessStartInfo("dotnet", [program, "--data", dataFolder, "--port", "0", "--empty"])
        {
            RedirectStandardOutput = true,
        })!;
        while (await process.StandardOutput.ReadLineAsync() is { } line)
        {
            if (line.StartsWith("Polite Tally is ready at ", StringComparison.Ordinal))
            {
                return new RunningProgram(process, line["Polite Tally is ready at ".Length..]);
            }
        }

        throw new InvalidOperationException("The program did not start.");
    }

    /// <summary>SIGKILL, and not a moment to say goodbye.</summary>
    public void Kill()
    {
        _process.Kill();
        _process.WaitForExit();
    }

    public void Dispose()
    {
        if (!_process.HasExited)
        {
            Kill();
        }

        _process.Dispose();
    }
}
