using PoliteTally.Formats.Tests.MadeUp;

namespace PoliteTally.Bench;

/// <summary>Of files in layouts drawn at random, how many are read as they were meant, by kind. Another seed draws others than the tests hold.</summary>
internal static class Layouts
{
    private const int LinesShown = 25;

    public static void Run(int seed)
    {
        var (lines, rows, lists, captions, answers) = (new MadeUpChats(seed), new MadeUpRows(seed), new MadeUpLists(seed), new MadeUpCaptions(seed), new MadeUpAnswers(seed));
        Row("chats in lines", 2000, lines.Draw, MadeUpReading.Of, c => (c.Layout, c.Text));
        Row("chats in tables and JSON", 1000, rows.Draw, MadeUpReading.Of, c => (c.Layout, c.Text));
        Row("attendance lists", 1000, lists.Draw, MadeUpReading.Of, l => (l.Layout, l.Text));
        Row("tables of answers", 1000, answers.Draw, MadeUpReading.Of, t => (t.Layout, t.Text));
        Row("captions", 500, captions.Draw, MadeUpReading.Of, c => (c.Layout, c.Text));
    }

    private static void Row<T>(string what, int files, Func<T> draw, Func<T, MadeUpClass, (Outcome Outcome, string Why)> read, Func<T, (string Layout, string Text)> file)
    {
        var of = new MadeUpClass();
        var became = Enumerable.Range(0, files).Select(_ => draw()).Select(drawn => (File: file(drawn), Became: read(drawn, of))).ToList();
        int Share(Outcome outcome) => became.Count(b => b.Became.Outcome == outcome);
        Figures.Row($"{files:N0} {what}", $"{Share(Outcome.Whole)} read whole, {Share(Outcome.Asked)} after a question", $"{Share(Outcome.Refused)} refused, {Share(Outcome.Wrong)} wrong", (Share(Outcome.Whole) + Share(Outcome.Asked)) / (double)files);
        foreach (var ((how, text), why) in became.Where(b => b.Became.Outcome is Outcome.Wrong or Outcome.Refused))
        {
            Console.Error.WriteLine($"{why.Outcome}: {how}\n  {why.Why}\n{string.Join('\n', text.Split('\n').Take(LinesShown).Select(l => $"    {l}"))}");
        }
    }
}
