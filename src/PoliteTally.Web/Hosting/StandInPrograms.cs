using System.Collections.Concurrent;
using System.Diagnostics;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace PoliteTally.Web.Hosting;

/// <summary>
/// In the demo school, a meeting that plays itself and students who take part by themselves: a program of its own (PoliteTally.StandIns) that speaks
/// to the application as any other would. This only starts and ends it, one of a kind a lesson.
/// </summary>
public sealed class StandInPrograms(IServer server) : IDisposable
{
    private readonly ConcurrentDictionary<(Guid Lesson, string Kind), Process> _running = new();

    /// <summary>Starts a stand-in, in place of one of its kind that ran before.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="kind">What it stands in for: <c>meeting</c> or <c>students</c>.</param>
    /// <param name="options">What it is told.</param>
    /// <param name="token">A secret that it needs; null for none. It goes by the environment, since what a program is started with stands in every list of processes.</param>
    public void Start(Guid lesson, string kind, IEnumerable<string> options, string? token = null)
    {
        Stop(lesson, kind);
        var address = server.Features.Get<IServerAddressesFeature>()!.Addresses.First();
        var start = new ProcessStartInfo("dotnet", [Program(), kind, "--url", address, .. options]) { RedirectStandardOutput = true };
        if (token is not null)
        {
            start.Environment["POLITE_TALLY_FEED_TOKEN"] = token;
        }

        var process = Process.Start(start)!;
        process.BeginOutputReadLine();
        _running[(lesson, kind)] = process;
    }

    /// <summary>Ends a stand-in.</summary>
    public void Stop(Guid lesson, string kind)
    {
        if (_running.TryRemove((lesson, kind), out var process))
        {
            if (!process.HasExited)
            {
                process.Kill();
            }

            process.Dispose();
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var (lesson, kind) in _running.Keys)
        {
            Stop(lesson, kind);
        }
    }

    /// <summary>Whether the program is there: it ships with the application, but the application does without it.</summary>
    public static bool IsThere => File.Exists(Program());

    // In the project when run from its build folder, else beside the program.
    private static string Program()
    {
        const string Name = "PoliteTally.StandIns.dll";
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            var built = Path.Combine(folder.FullName, "src", "PoliteTally.StandIns", "bin", "Release", "net10.0", Name);
            if (File.Exists(built))
            {
                return built;
            }
        }

        return Path.Combine(AppContext.BaseDirectory, Name);
    }
}
