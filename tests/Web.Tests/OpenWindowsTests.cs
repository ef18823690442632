using Microsoft.Extensions.Logging.Abstractions;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Tests;

public sealed class OpenWindowsTests
{
    private readonly OpenWindows _windows = new(NullLogger<OpenWindows>.Instance);

    private FakeWindow Hearing(string of, bool stalls = false)
    {
        var window = new FakeWindow(stalls);
        _windows.Hears(of, window, window);
        return window;
    }

    [Fact]
    public async Task A_window_that_does_not_read_is_dropped_and_holds_nobody_back()
    {
        var (stalled, reading) = (Hearing("sheet", stalls: true), Hearing("sheet"));
        for (var i = 0; i < OpenWindows.LongestQueue + 3; i++)
        {
            _windows.Send("sheet", "patch");
            while (reading.Heard.Count <= i)
            {
                await Task.Yield();
            }
        }

        await stalled.Aborted.WaitAsync(TimeSpan.FromSeconds(20), TestContext.Current.CancellationToken);
        stalled.Heard.Count.ShouldBe(1);
        reading.Aborted.IsCompleted.ShouldBeFalse();
    }

    [Fact]
    public async Task One_message_that_does_not_get_through_is_enough()
    {
        var stalled = Hearing("sheet", stalls: true);
        _windows.Send("sheet", "patch");
        await stalled.Aborted.WaitAsync(OpenWindows.Patience * 4, TestContext.Current.CancellationToken);
    }

    /// <summary>A helper whose key was taken back is told that something changed, and of nothing after that.</summary>
    [Fact]
    public async Task The_last_word_is_the_last()
    {
        var (helper, other) = (Hearing("key"), Hearing("help"));
        _windows.Hears("help", helper, helper);
        _windows.SendLast("key", "changed");
        await helper.HearsMoreThan(0);
        _windows.Send("help", "changed");
        await other.HearsMoreThan(0);
        helper.Heard.ShouldHaveSingleItem();
        _windows.AnyHears("key").ShouldBeFalse();
    }

    [Fact]
    public void Whoever_is_gone_hears_nothing()
    {
        var (gone, other) = (Hearing("sheet"), Hearing("board"));
        _windows.Gone(gone.ConnectionId);
        _windows.AnyHears("sheet").ShouldBeFalse();
        _windows.AnyHears("board").ShouldBeTrue();
        _windows.Send("sheet", "patch");
        gone.Heard.ShouldBeEmpty();
        other.Heard.ShouldBeEmpty();
    }
}
