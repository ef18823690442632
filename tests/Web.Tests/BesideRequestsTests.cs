using System.Text.RegularExpressions;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace PoliteTally.Web.Tests;

/// <summary>Everything that goes on beside the requests stands in docs/ways.md, with what becomes of it and the test that guards it.</summary>
public sealed partial class BesideRequestsTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    [Fact]
    public void What_runs_is_what_stands_there()
    {
        var text = File.ReadAllText(Path.Combine(DocsFolder(), "ways.md"));
        var table = text[text.IndexOf("## What goes on beside the requests", StringComparison.Ordinal)..text.IndexOf("## What becomes of broken things", StringComparison.Ordinal)];
        var rows = Row().Matches(table).Select(m => (Part: m.Groups["part"].Value, Test: m.Groups["test"].Value)).ToList();
        var running = app.Parts<IHostedService>().Select(s => s.GetType()).Where(t => t.Namespace!.StartsWith("PoliteTally", StringComparison.Ordinal)).Select(t => t.Name).ToList();
        running.Count.ShouldBeGreaterThan(4);
        running.Except(rows.Select(r => r.Part)).ShouldBeEmpty();
        // The others run without being services of the host.
        var types = typeof(Application).Assembly.GetTypes().Concat(typeof(Store.OpenLesson).Assembly.GetTypes()).Select(t => t.Name).ToHashSet();
        rows.ShouldAllBe(r => types.Contains(r.Part));
        var tests = typeof(BesideRequestsTests).Assembly.GetTypes().Select(t => t.Name).ToHashSet();
        rows.ShouldAllBe(r => tests.Contains(r.Test));
    }

    private sealed class Fails : BackgroundService
    {
        protected override Task ExecuteAsync(CancellationToken stoppingToken) => Task.FromException(new InvalidOperationException("A part that fails."));
    }

    /// <summary>The host stops when a part fails; the program then ends with something other than 0, so that whoever watches over it starts it anew.</summary>
    [Fact]
    public async Task A_part_that_failed_is_known_at_the_end()
    {
        Application.APartFailed(app.Parts<IHostedService>()).ShouldBeFalse();
        using var failed = new Fails();
        await Should.ThrowAsync<InvalidOperationException>(async () =>
        {
            await failed.StartAsync(TestContext.Current.CancellationToken);
            await failed.ExecuteTask!;
        });
        Application.APartFailed([failed]).ShouldBeTrue();
    }

    /// <summary>One that fails is written down once, however often it is tried, and holds no other up.</summary>
    [Fact]
    public async Task What_fails_again_and_again_is_said_once_and_again_after_it_went_well()
    {
        var said = new List<string>();
        var each = new OnItsOwn(new Listed(said), "The word ahead of lesson");
        var (bad, good) = (Guid.NewGuid(), 0);
        var fails = true;
        for (var i = 0; i < 6; i++)
        {
            fails = i != 3;
            await each.Do(bad, () => fails ? throw new TaskCanceledException("A time-out is no reason to end.") : Task.CompletedTask, CancellationToken.None);
            await each.Do(Guid.NewGuid(), () => Task.FromResult(good++), CancellationToken.None);
        }

        good.ShouldBe(6);
        said.Count.ShouldBe(2);
        said.ShouldAllBe(line => line.Contains(bad.ToString(), StringComparison.Ordinal));
        using var stopping = new CancellationTokenSource();
        await stopping.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => each.Do(bad, () => Task.FromCanceled(stopping.Token), stopping.Token));
    }

    private sealed class Listed(List<string> said) : ILogger
    {
        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => true;

        public void Log<TState>(LogLevel logLevel, EventId eventId, TState state, Exception? exception, Func<TState, Exception?, string> formatter) => said.Add(formatter(state, exception));
    }

    private static string DocsFolder()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); ; folder = folder.Parent!)
        {
            if (Directory.Exists(Path.Combine(folder.FullName, "docs", "decisions")))
            {
                return Path.Combine(folder.FullName, "docs");
            }
        }
    }

    [GeneratedRegex(@"^\| `(?<part>\w+)` \|.*\| `(?<test>\w+)` \|$", RegexOptions.Multiline)]
    private static partial Regex Row();
}
