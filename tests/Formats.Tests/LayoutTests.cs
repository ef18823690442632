using PoliteTally.Formats.Tests.MadeUp;

namespace PoliteTally.Formats.Tests;

/// <summary>Files in layouts that nobody has seen before are read as they were meant, or asked about; never otherwise.</summary>
public sealed class LayoutTests(ITestOutputHelper output)
{
    [Fact]
    public void Five_hundred_chats_in_lines()
    {
        var chats = new MadeUpChats(31);
        Holds([.. Enumerable.Range(0, 500).Select(_ => chats.Draw())]);
    }

    [Fact]
    public void Three_hundred_chats_in_rows()
    {
        var chats = new MadeUpRows(31);
        Holds([.. Enumerable.Range(0, 300).Select(_ => chats.Draw())]);
    }

    private void Holds(IReadOnlyList<MadeUpChat> chats)
    {
        var of = new MadeUpClass();
        var read = chats.Select(chat => (Chat: chat, Became: MadeUpReading.Of(chat, of))).ToList();
        foreach (var (chat, became) in read.Where(r => r.Became.Outcome is not Outcome.Whole))
        {
            output.WriteLine($"{became.Outcome}: {chat.Layout}\n  {became.Why}");
        }

        read.Where(r => r.Became.Outcome == Outcome.Wrong).Select(r => r.Chat.Layout).ShouldBeEmpty();
        read.Count(r => r.Became.Outcome is Outcome.Whole or Outcome.Asked).ShouldBeGreaterThanOrEqualTo(chats.Count * 97 / 100);
    }
}
