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

    [Fact]
    public void A_hundred_captions()
    {
        var captions = new MadeUpCaptions(31);
        Holds([.. Enumerable.Range(0, 100).Select(_ => captions.Draw())], c => c.Layout, MadeUpReading.Of);
    }

    [Fact]
    public void Two_hundred_attendance_lists()
    {
        var lists = new MadeUpLists(31);
        Holds([.. Enumerable.Range(0, 200).Select(_ => lists.Draw())], l => l.Layout, MadeUpReading.Of);
    }

    [Fact]
    public void Two_hundred_tables_of_answers()
    {
        var tables = new MadeUpAnswers(31);
        Holds([.. Enumerable.Range(0, 200).Select(_ => tables.Draw())], t => t.Layout, MadeUpReading.Of);
    }

    private void Holds(IReadOnlyList<MadeUpChat> chats) => Holds(chats, c => c.Layout, MadeUpReading.Of);

    private void Holds<T>(IReadOnlyList<T> files, Func<T, string> layout, Func<T, MadeUpClass, (Outcome Outcome, string Why)> read)
    {
        var of = new MadeUpClass();
        var became = files.Select(f => (Layout: layout(f), Became: read(f, of))).ToList();
        foreach (var (how, what) in became.Where(b => b.Became.Outcome is not Outcome.Whole))
        {
            output.WriteLine($"{what.Outcome}: {how}\n  {what.Why}");
        }

        became.Where(b => b.Became.Outcome == Outcome.Wrong).Select(b => b.Layout).ShouldBeEmpty();
        became.Count(b => b.Became.Outcome is Outcome.Whole or Outcome.Asked).ShouldBeGreaterThanOrEqualTo(files.Count * 97 / 100);
    }
}
