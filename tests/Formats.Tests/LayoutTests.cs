using PoliteTally.Formats.Tests.MadeUp;

namespace PoliteTally.Formats.Tests;

/// <summary>Files in layouts that nobody has seen before are read as they were meant, or asked about; never otherwise.</summary>
public sealed class LayoutTests(ITestOutputHelper output)
{
    [Fact]
    public void Five_hundred_chats()
    {
        var (chats, of) = (new MadeUpChats(31), new MadeUpClass());
        var read = Enumerable.Range(0, 500).Select(_ => chats.Draw()).Select(chat => (Chat: chat, Became: MadeUpReading.Of(chat, of))).ToList();
        foreach (var (chat, became) in read.Where(r => r.Became.Outcome is not Outcome.Whole))
        {
            output.WriteLine($"{became.Outcome}: {chat.Layout}\n  {became.Why}");
        }

        read.Where(r => r.Became.Outcome == Outcome.Wrong).Select(r => r.Chat.Layout).ShouldBeEmpty();
        read.Count(r => r.Became.Outcome is Outcome.Whole or Outcome.Asked).ShouldBeGreaterThanOrEqualTo(485);
    }
}
