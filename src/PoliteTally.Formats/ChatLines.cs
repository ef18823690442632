using System.Text.RegularExpressions;
using PoliteTally.Core.Ledger;

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
        var lines = text.Split('\n').Select(l => l.TrimEnd('\r').Trim('\u200E', '\u200F', '\uFEFF')).ToList();
        var looked = lines.Where(l => !string.IsNullOrWhiteSpace(l)).Take(Looked).ToList();
        leftOut = 0;
        var (form, count) = Enum.GetValues<Form>().Select(f => (Form: f, Count: looked.Count(l => HeadOf(l, f) is not null))).MaxBy(f => f.Count);
        if (count < 2 || count < Fewest * looked.Count)
        {
            return null;
        }

        // In a block nobody is named with what they wrote in one line.
        var heads = looked.Select(l => HeadOf(l, form)).OfType<Head>().ToList();
        var inBlocks = form == Form.TimeAtTheEnd || heads.Count(h => SpeakerOf(h.Rest, NameAndAddressee) is null) > heads.Count / 2;
        var rows = new List<TableRow>();
        // The same few write again and again.
        var known = new Dictionary<string, (string Name, string To)?>(StringComparer.Ordinal);
        Message? open = null;
        for (var i = 0; i < lines.Count; i++)
        {
            if (HeadOf(lines[i], form) is { } head)
            {
                Close();
                var speaker = inBlocks ? Known(head.Rest) is var (name, to) ? (name, to, "") : null : SpeakerOf(head.Rest, Known);
                open = new Message(i + 1, head.Time, speaker);
                leftOut += speaker is null ? 1 : 0;
            }
            // What goes on for longer than any message is cut in the end.
            else if (open is { Text.Length: <= TextLimits.LongestText } && (!string.IsNullOrWhiteSpace(lines[i]) || open.Text.Length > 0))
            {
                open.Text += $"\n{lines[i].Trim()}";
            }
        }

        Close();
        return rows.Count == 0 ? null : new Table(Headings, 0, rows, "text", HeadingsKnown: true);

        void Close()
        {
            if (open is { Name.Length: > 0 } done)
            {
                rows.Add(new TableRow(done.Row, [done.Time, done.Name, done.To, done.Text.Trim()]));
            }

            open = null;
        }

        (string Name, string To)? Known(string who) => known.TryGetValue(who, out var found) ? found : known[who] = NameAndAddressee(who);
    }

    private static Head? HeadOf(string line, Form form)
    {
        // No line of a chat begins with so much before its time; and no expression is let loose on a line of a megabyte.
        var match = (form switch { Form.TimeFirst => TimeFirst(), Form.TimeAfterName => TimeAfterName(), _ => TimeAtTheEnd() }).Match(line.Length > 400 ? line[..400] : line);
        if (!match.Success)
        {
            return null;
        }

        // A time that names its zone is written whole, as ISO 8601 has it.
        var (date, clock) = (match.Groups["date"].Value, match.Groups["clock"].Value);
        var time = $"{date}{(clock[^1] == 'Z' || clock.Contains('+') || clock.Contains('-') ? "T" : " ")}{clock}".Trim();
        return form switch
        {
            Form.TimeFirst => new Head(time, line[match.Length..].Trim()),
            Form.TimeAfterName => new Head(time, $"{match.Groups["name"].Value.Trim()}: {line[match.Length..].Trim()}"),
            _ => new Head(time, match.Groups["name"].Value.Trim()),
        };
    }

    // "Ana to Everyone: hello", "From Ana to Everyone: hello", "Ana: hello", "<Ana> hello", "Ana" and a tab; null if nobody is named.
    private static (string Name, string To, string Text)? SpeakerOf(string rest, Func<string, (string Name, string To)?> nameAndAddressee)
    {
        if (rest.StartsWith('<') && InAngles().Match(rest) is { Success: true } angles)
        {
            return (angles.Groups["name"].Value.Trim(), "", rest[angles.Length..].Trim());
        }

        var cut = rest.IndexOfAny([':', '：', '\t']);
        return cut is <= 0 or > 160 ? null
            : nameAndAddressee(rest[..cut].Trim()) is var (name, to) && name.Length > 0 ? (name, to, rest[(cut + 1)..].Trim(' ', '\t', ':')) : null;
    }

    private static (string Name, string To)? NameAndAddressee(string who)
    {
        var name = who.Trim().TrimEnd(':', '-', '–', '—', '|', ',').Trim();
        return name.Length == 0 ? null
            : Addressed().Match(name) is { Success: true } to ? (to.Groups["name"].Value.Trim(), to.Groups["to"].Value.Trim())
            : (name, "");
    }

    private sealed record Head(string Time, string Rest);

    private sealed class Message(int row, string time, (string Name, string To, string Text)? speaker)
    {
        public int Row { get; } = row;

        public string Time { get; } = time;

        public string Name { get; } = speaker?.Name ?? "";

        public string To { get; } = speaker?.To ?? "";

        public string Text { get; set; } = speaker?.Text ?? "";
    }

    private const string Time =
        @"(?:(?<date>\d{4}[-/]\d{1,2}[-/]\d{1,2}|\d{1,2}[./-]\d{1,2}[./-]\d{2,4})[,T]?\s*)?(?<clock>\d{1,2}:\d{2}(?::\d{2}(?:\.\d{1,7})?)?(?:\s?[AaPp]\.?[Mm]\.?)?(?:Z|[+-]\d{2}:\d{2})?)";

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
