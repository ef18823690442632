using System.Text;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Formats.Lines;

/// <summary>Turns the lines of a chat round where what belongs to a message stands far from it, so that each message has its time and its name where it begins.</summary>
internal static class TurnedLines
{
    // A name behind its time, and a colon.
    private static readonly Layout Behind = new(TimeAt.First, ":");

    /// <summary>The lines, turned round if they are written so.</summary>
    /// <param name="lines">The lines of a file.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static StampedLines Of(StampedLines lines, Func<string, bool> isNameHere) => WithNames(WithTimesOver(lines), isNameHere);

    // A time that ends each message stands over it then. A text that begins with something else and ends with a time in a line of its own is written so.
    private static StampedLines WithTimesOver(StampedLines lines)
    {
        var filled = Enumerable.Range(0, lines.Count).Where(at => !lines.IsBlank(at));
        // The last line of most chats says that they are none of these, and nothing else is looked at.
        if (Enumerable.Range(1, lines.Count).Select(behind => lines.Count - behind).FirstOrDefault(at => !lines.IsBlank(at), -1) is not (>= 0 and var last) || !IsBare(last)
            || lines.First(filled.First()) is not null || filled.Take(lines.Sample).Count(IsBare) < 2)
        {
            return lines;
        }

        var (turned, open) = (new StringBuilder(), new List<int>());
        foreach (var at in filled)
        {
            ReadingBudget.Ask();
            if (!IsBare(at))
            {
                open.Add(at);
                continue;
            }

            foreach (var line in open.Prepend(at))
            {
                turned.Append(lines.Text.AsSpan(lines[line])).Append('\n');
            }

            open.Clear();
        }

        return new StampedLines(turned.ToString());

        bool IsBare(int at) => Layout.Bare(lines, at) is not null;
    }

    // Where a name stands over all that somebody wrote, each line with its time, the name stands in each line then.
    private static StampedLines WithNames(StampedLines lines, Func<string, bool> isNameHere)
    {
        var (named, timed, others) = (0, 0, 0);
        for (var at = 0; at < lines.Sample && others <= named + 1; at++)
        {
            ReadingBudget.Ask();
            if (!lines.IsBlank(at))
            {
                (named, timed, others) = NameOver(at) is not null ? (named + 1, timed, others) : WordsOf(at) is not null ? (named, timed + 1, others) : (named, timed, others + 1);
            }
        }

        if (named < 2 || timed < named || others > named)
        {
            return lines;
        }

        var (turned, name) = (new StringBuilder(), "");
        for (var at = 0; at < lines.Count; at++)
        {
            ReadingBudget.Ask();
            if (NameOver(at) is { } over)
            {
                name = over;
            }
            else
            {
                turned.Append(name.Length > 0 && WordsOf(at) is { } words ? $"{lines.Text[lines.AtStart(at)!.Value]} {name}: {lines.Text[words]}" : lines.Text.AsSpan(lines[at]));
            }

            turned.Append('\n');
        }

        return new StampedLines(turned.ToString());

        // A name of the class alone, over a time and words.
        string? NameOver(int at) => lines[at].Length() <= TextLimits.LongestName && at + 1 < lines.Count && lines.First(at) is null && WordsOf(at + 1) is not null && lines.Text[lines[at]].Trim().TrimEnd(':') is var who && isNameHere(who) ? who : null;

        // What stands behind a time, if that is not who wrote it.
        Range? WordsOf(int at)
        {
            if (Behind.TimeOf(lines, at) is not { } time || (Behind.HeadOf(lines, at, time) is { } head && isNameHere(lines.Text[head.Who])))
            {
                return null;
            }

            var words = lines.Text.Trimmed(time.End..lines[at].End);
            words = lines.Text.Trimmed((words.End.Value - lines.Text.AsSpan(words).TrimStart("])>:|·–—-").Length)..words.End);
            return words.IsEmpty() ? null : words;
        }
    }
}
