using System.Text;
using System.Text.RegularExpressions;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>
/// Reads a chat that was saved as text: a message in a line, or in a block under a line with who and when. Which of these a file is shows by how many of its lines
/// have the form; what stands under a message without a time of its own goes on with it.
/// </summary>
internal static partial class ChatLines
{
    private static readonly string[] Headings = ["time", "name", "to", "text"];

    // So many lines are enough to tell the form of a file.
    private const int Looked = 400;

    // Of lines with something in them, at least so many hold a time.
    private const double Fewest = 0.2;

    private enum Form
    {
        TimeFirst,
        TimeAfterName,
        TimeAtTheEnd,
    }

    /// <summary>The messages of a text as a table of time, name, addressee and words; null if it has not the form of a chat.</summary>
    /// <param name="text">The text.</param>
    /// <param name="leftOut">How many lines tell something else, such as that somebody came.</param>
    public static Table? TableOf(string text, out int leftOut)
    {
        leftOut = 0;
        var looked = LinesOf(text).Where(l => !text.AsSpan(l).IsWhiteSpace()).Take(Looked).ToList();
        var (form, count) = Enum.GetValues<Form>().Select(f => (Form: f, Count: looked.Count(l => HeadOf(text, l, f) is not null))).MaxBy(f => f.Count);
        if (count < 2 || count < Fewest * looked.Count)
        {
            return null;
        }

        var speakers = new Speakers(text);
        var times = new Times(text);
        // In a block nobody is named with what they wrote in one line.
        var heads = looked.Select(l => HeadOf(text, l, form)).OfType<Head>().ToList();
        var inBlocks = form == Form.TimeAtTheEnd || heads.Count(h => speakers.InLine(h) is null) > heads.Count / 2;
        var rows = new TableRows(text.AsSpan().Count('\n') / (inBlocks ? 2 : 1));
        var (number, open) = (0, (Message?)null);
        var more = new StringBuilder();
        foreach (var line in LinesOf(text))
        {
            number++;
            ReadingBudget.Ask();
            if (HeadOf(text, line, form) is { } head)
            {
                Close();
                open = (inBlocks ? speakers.InBlock(head) : speakers.InLine(head)) is { } said ? new Message(number, times.Of(head), said) : null;
                leftOut += open is null ? 1 : 0;
            }
            // What goes on for longer than any message is cut in the end.
            else if (open is { } begun && begun.Said.Text.Length + more.Length <= TextLimits.LongestText && (begun.Said.Text.Length + more.Length > 0 || !text.AsSpan(line).IsWhiteSpace()))
            {
                var words = text.AsSpan(line).Trim();
                more.Append('\n').Append(words[..Math.Min(words.Length, TextLimits.LongestText)]);
            }
        }

        Close();
        return rows.All.Count == 0 ? null : new Table(Headings, 0, rows.All, "text", HeadingsKnown: true);

        void Close()
        {
            if (open is { } done)
            {
                if (rows.All.Count == Table.MostOfLesson)
                {
                    throw new FormatProblem($"This file has more than {Table.MostOfLesson:N0} messages. Keep only those of this lesson and bring in that.");
                }

                rows.Add(done.Row, [done.Time, done.Said.Name, done.Said.To, (more.Length == 0 ? done.Said.Text : $"{done.Said.Text}{more}").Trim()]);
            }

            open = null;
            more.Clear();
        }
    }

    // Where the lines are: a text of a hundred thousand of them is not cut up to be looked at.
    private static IEnumerable<Range> LinesOf(string text)
    {
        for (var from = 0; from <= text.Length;)
        {
            var end = text.IndexOf('\n', from) is >= 0 and var found ? found : text.Length;
            yield return Trimmed(text, from..end, "\r\u200E\u200F\uFEFF");
            from = end + 1;
        }
    }

    // Without white space around it, or without these letters.
    private static Range Trimmed(string text, Range range, ReadOnlySpan<char> letters = default)
    {
        var whole = text.AsSpan(range);
        var end = letters.IsEmpty ? whole.TrimStart() : whole.TrimStart(letters);
        var from = range.Start.Value + whole.Length - end.Length;
        return from..(from + (letters.IsEmpty ? end.TrimEnd() : end.TrimEnd(letters)).Length);
    }

    private static Head? HeadOf(string text, Range line, Form form)
    {
        var (from, length) = line.GetOffsetAndLength(text.Length);
        // No line of a chat begins with so much before its time; and no expression is let loose on a line of a megabyte.
        var start = text.AsSpan(from, Math.Min(length, 400));
        foreach (var head in (form switch { Form.TimeFirst => TimeFirst(), Form.TimeAfterName => TimeAfterName(), _ => TimeAtTheEnd() }).EnumerateMatches(start))
        {
            var rest = Trimmed(text, (from + head.Length)..line.End.Value);
            var time = default(Range);
            foreach (var found in WholeTime().EnumerateMatches(start[..head.Length]))
            {
                time = (from + found.Index)..(from + found.Index + found.Length);
            }

            return new Head(time, form == Form.TimeFirst ? null : NameBefore(text, from..time.Start.Value), rest);
        }

        return null;
    }

    // Without the bracket or the dash that stands between a name and the time.
    private static Range NameBefore(string text, Range before)
    {
        var name = Trimmed(text, before);
        return text.AsSpan(name) is [.., '[' or '(' or ',' or '·' or '|' or '–' or '—' or '-'] ? Trimmed(text, name.Start..(name.End.Value - 1)) : name;
    }

    /// <summary>The beginning of a message.</summary>
    /// <param name="Time">When it was written, as the text has it.</param>
    /// <param name="Named">Who wrote it, where that stands before the time.</param>
    /// <param name="Rest">What stands behind it.</param>
    private readonly record struct Head(Range Time, Range? Named, Range Rest);

    private readonly record struct Said(string Name, string To, string Text);

    private readonly record struct Message(int Row, string Time, Said Said);

    /// <summary>When something was written, as other readers of times know it. Many write in one second, so what was read last is kept.</summary>
    private sealed class Times(string text)
    {
        private (Range Place, string Time) _last = (default, "");

        public string Of(Head head)
        {
            var whole = text.AsSpan(head.Time);
            if (whole.IsEmpty || !whole.SequenceEqual(text.AsSpan(_last.Place)))
            {
                _last = (head.Time, Read(Digits.Plain(whole.ToString())));
            }

            return _last.Time;
        }

        // A time that names its zone is written whole, as ISO 8601 has it.
        private static string Read(ReadOnlySpan<char> whole)
        {
            var from = whole[..whole.IndexOf(':')].LastIndexOfAnyExceptInRange('0', '9') + 1;
            var date = whole[..from].TrimEnd().TrimEnd(",T");
            var clock = whole[from..];
            return date.Length == 0 ? clock.Trim().ToString() : string.Concat(date, clock[^1] == 'Z' || clock.ContainsAny('+', '-') ? "T" : " ", clock);
        }
    }

    /// <summary>Who speaks, and to whom. The same few write again and again, so what is known of one is kept.</summary>
    private sealed class Speakers(string text)
    {
        // Two names and a few words between them.
        private const int LongestWho = 500;

        private readonly Dictionary<string, (string Name, string To)?> _known = new(StringComparer.Ordinal);

        // "Ana to Everyone: hello", "From Ana to Everyone: hello", "Ana: hello", "<Ana> hello", "Ana" and a tab; null if nobody is named.
        public Said? InLine(Head head)
        {
            var rest = text.AsSpan(head.Rest);
            if (head.Named is { } named)
            {
                return Of(text.AsSpan(named)) is var (name, to) ? new Said(name, to, rest.ToString()) : null;
            }

            if (rest.StartsWith('<') && InAngles().Match(rest.ToString()) is { Success: true } angles)
            {
                return new Said(angles.Groups["name"].Value.Trim(), "", rest[angles.Length..].Trim().ToString());
            }

            var cut = rest.IndexOfAny(':', '：', '\t');
            return cut is > 0 and <= 160 && Of(rest[..cut].Trim()) is var (who, toWhom) ? new Said(who, toWhom, rest[(cut + 1)..].Trim(" \t:").ToString()) : null;
        }

        // Who it is stands alone in the line; what they wrote stands under it.
        public Said? InBlock(Head head) => Of(text.AsSpan(head.Named ?? head.Rest)) is var (name, to) ? new Said(name, to, "") : null;

        private (string Name, string To)? Of(ReadOnlySpan<char> who)
        {
            if (who.Length > LongestWho)
            {
                return null;
            }

            var known = _known.GetAlternateLookup<ReadOnlySpan<char>>();
            return known.TryGetValue(who, out var found) ? found : known[who] = NameAndAddressee(who.ToString());
        }

        private static (string Name, string To)? NameAndAddressee(string who)
        {
            var name = who.Trim().TrimEnd(':', '-', '–', '—', '|', ',').Trim();
            return name.Length == 0 ? null
                : Addressed().Match(name) is { Success: true } to ? (to.Groups["name"].Value.Trim(), to.Groups["to"].Value.Trim())
                : (name, "");
        }
    }

    private const string Time =
        @"(?:(?<date>\d{4}[-/]\d{1,2}[-/]\d{1,2}|\d{1,2}[./-]\d{1,2}[./-]\d{2,4})[,T]?\s*)?(?<clock>\d{1,2}:\d{2}(?::\d{2}(?:\.\d{1,7})?)?(?:\s?[AaPp]\.?[Mm]\.?)?(?:Z|[+-]\d{2}:\d{2})?)";

    [GeneratedRegex(Time)]
    private static partial Regex WholeTime();

    [GeneratedRegex(@"^\s*[\[(<]?\s*" + Time + @"\s*[\])>]?\s*(?:[-–—|,]\s+)?:?\s*")]
    private static partial Regex TimeFirst();

    [GeneratedRegex(@"^(?<name>[^\[(:]{1,120}?)\s*[\[(]\s*" + Time + @"\s*[\])]\s*:?\s+(?=\S)")]
    private static partial Regex TimeAfterName();

    [GeneratedRegex(@"^(?<name>\S.{0,120}?)\s*[\[(,·|–—-]?\s*" + Time + @"\s*[\])]?\s*:?\s*$")]
    private static partial Regex TimeAtTheEnd();

    [GeneratedRegex(@"^<(?<name>[^>]{1,120})>")]
    private static partial Regex InAngles();

    // In any language two short words stand around the name: from Ana to everyone, von Ana an alle.
    [GeneratedRegex(@"^(?:(?:from|von|de|da|från|fra|van|от|od)\s+)?(?<name>.+?)\s+(?:to|an|à|a|para|til|till|aan|do|→|->|»)\s+(?<to>.+)$", RegexOptions.IgnoreCase)]
    private static partial Regex Addressed();
}
