using System.Text;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Formats.Lines;

/// <summary>A chat in lines, as it was read.</summary>
/// <param name="Table">Time, name, addressee and words of each message.</param>
/// <param name="LeftOut">How many lines tell something else, such as that somebody came.</param>
/// <param name="Untils">Until when each lasted; null of those that do not say.</param>
/// <param name="Sure">How sure it is that the names are names, from 0 to 1: 1 if all of them may be somebody of the class.</param>
internal sealed record ReadLines(Table Table, IReadOnlyList<string?> Untils, int LeftOut, double Sure);

/// <summary>
/// Reads a chat that was saved as text. No layout is known beforehand: every place where a time can stand is tried with every sign that can stand between a name
/// and the words, and the one that finds most names is how the file is written. A name of the class is surest, then what comes again and again.
/// </summary>
internal static class ChatLines
{
    /// <summary>What the table of such a chat says of how it was read.</summary>
    public const string ReadAs = "text";

    private static readonly string[] Headings = ["time", "name", "to", "text"];

    // Of lines with something in them, at least so many begin a message.
    private const double Fewest = 0.2;

    private const int ShortestRule = 3;

    private const int HoursAway = 3;

    // What a name counts with no words beside it.
    private const double OfNothing = 0.3;

    // Whom something goes to is no longer.
    private const int ShortWords = 40;

    // A time looks like those that begin messages if at least every so manieth of them looks like that.
    private const int Seldom = 5;

    /// <summary>The messages of a text; null if it has not the form of a chat.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static ReadLines? Of(string text, Func<string, bool> isNameHere)
    {
        var lines = TurnedLines.Of(new StampedLines(text), isNameHere);
        var best = Layout.All.Select(l => Seen(l, lines, isNameHere)).OfType<Sight>().OrderByDescending(s => s.Score).FirstOrDefault();
        return best is not { Score: > 0 } || best.Heads < 2 || best.Heads < Fewest * best.Filled ? null : Read(lines, best);
    }

    /// <summary>What some lines of a file say if they are written in a layout.</summary>
    private sealed record Sight(Layout Layout, Addressing Addressing, HashSet<int> Shapes, int Heads, int Filled, double Score);

    private static Sight? Seen(Layout layout, StampedLines lines, Func<string, bool> isNameHere)
    {
        var hasWordsBeside = layout.Sign.Length > 0 || layout.At is TimeAt.Middle or TimeAt.Below;
        var (heads, filled) = (new List<(Head Head, int Shape, bool IsOverWords)>(), 0);
        for (var at = 0; at < lines.Sample; at++)
        {
            ReadingBudget.Ask();
            filled += lines.IsBlank(at) ? 0 : 1;
            if (layout.TimeOf(lines, at) is { } time && layout.HeadOf(lines, at, time) is { } head)
            {
                heads.Add((head, layout.ShapeOf(lines, at, time), !hasWordsBeside && IsOverWords(at + head.Lines)));
                // Whatever takes two lines is one message.
                at += head.Lines - 1;
                filled += head.Lines - 1;
            }
        }

        if (heads.Count == 0)
        {
            return null;
        }

        var usual = heads.CountBy(h => h.Shape).Where(s => s.Value * Seldom >= heads.Count).Select(s => s.Key).ToHashSet();
        heads.RemoveAll(h => !usual.Contains(h.Shape));
        var addressing = new Addressing(heads.ConvertAll(h => lines.Text[h.Head.Who]), isNameHere);
        var names = heads.ConvertAll(h => addressing.Of(lines.Text.AsSpan(h.Head.Who))?.Name ?? "");
        // Under most of them stand words then, or they are no heads.
        if (!hasWordsBeside && heads.Count(h => h.IsOverWords) * 2 < heads.Count)
        {
            return null;
        }

        // "Ana, 09:30, 10:20" says when she left, and no words.
        if (hasWordsBeside && heads.Count(h => SaysNothing(h.Head) || lines.BeginsWithTime(h.Head.Words)) * 2 > heads.Count)
        {
            return null;
        }

        // What stands over each of them alike is nobody: “Student”, over “joined 9:28, left 10:05”.
        if (layout.At == TimeAt.Below && names.Distinct().Take(2).Count() < 2)
        {
            return null;
        }

        var score = NameEvidence.Of(names, addressing.IsHere).Zip(heads, (worth, head) => worth * (SaysNothing(head.Head) ? OfNothing : 1)).Sum();
        return new Sight(layout, addressing, usual, heads.Count, filled, score);

        bool IsOverWords(int below)
        {
            below += below < lines.Count && lines.IsBlank(below) ? 1 : 0;
            return below < lines.Count && !lines.IsBlank(below) && layout.TimeOf(lines, below) is null;
        }

        // "Ana > everyone" has no words either: the sign stands before whom it goes to.
        bool SaysNothing(Head head) => hasWordsBeside && (!HasLetters(lines.Text.AsSpan(head.Words)) || (head.Words.Length() < ShortWords && Addressing.IsEverybody(lines.Text[head.Words])));
    }

    /// <summary>Whether words say something that could count; smileys alone do not.</summary>
    public static bool HasLetters(ReadOnlySpan<char> words)
    {
        foreach (var letter in words)
        {
            if (char.IsLetterOrDigit(letter))
            {
                return true;
            }
        }

        return false;
    }

    private static ReadLines? Read(StampedLines lines, Sight how)
    {
        var (text, layout) = (lines.Text, how.Layout);
        var rows = new TableRows(lines.Count / (layout.Sign.Length > 0 ? 1 : 2));
        var times = new Times(text, lines.Clock);
        var untils = new List<string?>();
        var (open, more, leftOut, day) = ((Message?)null, new StringBuilder(), 0, "");
        var (goesOn, last) = (false, "");
        for (var at = 0; at < lines.Count; at++)
        {
            ReadingBudget.Ask();
            if (goesOn)
            {
                // Under a time alone stand words, whatever follows.
                more.Append(lines.Text.AsSpan(lines[at]).Trim());
                goesOn = false;
            }
            else if (layout.TimeOf(lines, at) is { } time && how.Shapes.Contains(layout.ShapeOf(lines, at, time)) && layout.HeadOf(lines, at, time) is var head
                && !(head is null && open is { } before && IsSpokenOf(times.Of(time).Time, before.Time)))
            {
                var next = head is { } found && how.Addressing.Of(text.AsSpan(found.Who)) is var (name, to)
                    && times.Of(time) is var (clock, until)
                    ? new Message(at + 1, OnDay(clock), name, to, text[found.Words], until) : (Message?)null;
                if (next is { } begins && more.Length > 0)
                {
                    TakeOffInitials(more, begins.Name);
                }

                Close();
                open = next;
                leftOut += open is null ? 1 : 0;
                at += head is { Lines: 2 } ? 1 : 0;
                // Under a name and its time stand words, though a time may stand under them, too.
                goesOn = layout.At == TimeAt.Under && at + 1 < lines.Count && !lines.IsBlank(at + 1) && layout.TimeOf(lines, at + 1) is not null && !how.Addressing.IsHere(text[lines[at + 1]].Trim());
            }
            // A time alone, or behind words as all others are, and later than the last: the same person goes on.
            else if (open is { } said && said.Text.Length + more.Length > 0 && (layout.At == TimeAt.Below ? Layout.AtEnd(lines, at) : at + 1 < lines.Count && !lines.IsBlank(at + 1) ? Layout.Bare(lines, at) : null) is { } alone
                && times.Of(alone).Time is var then && IsLater(then, said.Time))
            {
                Close();
                open = said with { Row = at + 1, Time = OnDay(then), Text = layout.At == TimeAt.Below ? text[Layout.WordsBefore(lines, at, alone)] : "" };
                goesOn = layout.At != TimeAt.Below;
            }
            // Under a name alone a day is what somebody wrote.
            else if ((open is not { Text.Length: 0 } || more.Length > 0 ? Stamps.DayIn(text.AsSpan(lines[at]).Trim()) : null) is { } told)
            {
                day = told;
            }
            // What goes on for longer than any message is cut in the end.
            else if (open is { } begun && begun.Text.Length + more.Length <= TextLimits.LongestText && (begun.Text.Length + more.Length > 0 || !lines.IsBlank(at)) && !IsQuoted(text.AsSpan(lines[at]), begun.Text.Length + more.Length > 0))
            {
                var words = text.AsSpan(lines[at]).Trim();
                more.Append('\n').Append(words[..Math.Min(words.Length, TextLimits.LongestText)]);
            }
        }

        Close();
        return rows.All.Count == 0 ? null : new ReadLines(new Table(Headings, 0, rows.All, ReadAs, HeadingsKnown: true), untils, leftOut, how.Score / how.Heads);

        string OnDay(string clock) => day.Length > 0 && TimeText.IsClock(clock.Split(' ')[0]) ? $"{day} {clock}" : clock;

        void Close()
        {
            if (open is { } done)
            {
                if (rows.All.Count == Table.MostOfLesson)
                {
                    throw new FormatProblem($"This file has more than {Table.MostOfLesson:N0} messages. Keep only those of this lesson and bring in that.");
                }

                // Nobody is called what stands between two times: the last person goes on.
                if (layout is { At: TimeAt.Over, Sign: "" } && done.Text.Length + more.Length == 0 && last.Length > 0 && !how.Addressing.IsHere(done.Name))
                {
                    done = done with { Name = last, Text = done.Name };
                }

                last = done.Name;
                untils.Add(done.Until);
                rows.Add(done.Row, [done.Time, done.Name, done.To, (more.Length == 0 ? done.Text : $"{done.Text}{more}").Trim()]);
            }

            open = null;
            more.Clear();
        }
    }

    // Hours away from the message before, and nobody behind it: “1.10 m at the quay”.
    private static bool IsSpokenOf(string time, string before) =>
        TicksFrom(before, time) is { } apart && Math.Abs(apart) > HoursAway * NodaTime.NodaConstants.TicksPerHour;

    // Of two times of day, within an hour.
    private static bool IsLater(string time, string before) => TicksFrom(before, time.Split(' ')[0]) is >= 0 and < NodaTime.NodaConstants.TicksPerHour;

    // How far a time of day is behind that of a message, which may have its day; null if one of them is none.
    private static long? TicksFrom(string before, string clock) =>
        TimeText.TimeOfDay(clock)?.TickOfDay - TimeText.TimeOfDay(before.Split(' ').FirstOrDefault(TimeText.IsClock, ""))?.TickOfDay;

    // Where a picture of somebody is missing, some programs write the letters that their names begin with over the name.
    private static void TakeOffInitials(StringBuilder more, string name)
    {
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var initials = words.Length < 2 ? "" : $"{words[0][0]}{words[1][0]}";
        var before = more.ToString().TrimEnd();
        if (initials.Length > 0 && before.EndsWith($"\n{initials}", StringComparison.OrdinalIgnoreCase))
        {
            more.Clear().Append(before.AsSpan(0, before.Length - initials.Length - 1).TrimEnd());
        }
    }

    // Words of somebody else, a day or a line between messages.
    private static bool IsQuoted(ReadOnlySpan<char> line, bool hasWords) => line.TrimStart() is ['>' or '┃' or '│' or '▎', ..] || (hasWords && Stamps.IsDay(line)) || IsRule(line.Trim());

    // A line that is drawn between messages.
    private static bool IsRule(ReadOnlySpan<char> line) => line.Length >= ShortestRule && !line.ContainsAnyExcept(line[0], ' ') && line[0] is '-' or '–' or '—' or '=' or '_' or '*' or '~' or '·' or '•';

    private readonly record struct Message(int Row, string Time, string Name, string To, string Text, string? Until);

    /// <summary>When something was written, as other readers of times know it. Many write in one second, so what was read last is kept.</summary>
    private sealed class Times(string text, Clock clock)
    {
        private (Range Place, (string Time, string? Until) Told) _last = (default, ("", null));

        public (string Time, string? Until) Of(Range time)
        {
            var whole = text.AsSpan(time);
            if (!whole.SequenceEqual(text.AsSpan(_last.Place)))
            {
                _last = (time, Stamps.Plain(whole.ToString(), clock));
            }

            return _last.Told;
        }
    }
}
