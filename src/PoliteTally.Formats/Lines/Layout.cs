namespace PoliteTally.Formats.Lines;

/// <summary>Where the time of a message stands.</summary>
internal enum TimeAt
{
    /// <summary>At the beginning of its line.</summary>
    First,

    /// <summary>Between who wrote it and the words.</summary>
    Middle,

    /// <summary>At the end of its line.</summary>
    Last,

    /// <summary>In a line of its own under who wrote it.</summary>
    Under,

    /// <summary>In a line of its own over who wrote it.</summary>
    Over,

    /// <summary>Behind the words, in the line under who wrote it.</summary>
    Below,
}

/// <summary>The beginning of a message: where its time stands, who wrote it and to whom, and the words that follow in the same line.</summary>
/// <param name="Lines">How many lines it takes.</param>
internal readonly record struct Head(Range Time, Range Who, Range Words, int Lines);

/// <summary>How the messages of a file lie in its lines.</summary>
/// <param name="At">Where the time stands.</param>
/// <param name="Sign">What stands between who and words; empty if the words stand in lines below, or the time stands between.</param>
internal sealed record Layout(TimeAt At, string Sign)
{
    // Two names and a few words between them.
    private const int LongestWho = 160;

    // What stands between a time and a name.
    private const string BehindTime = "\t])>:|,·-–—";

    /// <summary>The signs between a name and the words, the likeliest first; angles stand around a name.</summary>
    private static readonly IReadOnlyList<string> Signs = [":", "：", "\t", "<>", " - ", " – ", " — ", " | ", " >> ", " » ", "> ", ""];

    /// <summary>All layouts, the likeliest first.</summary>
    public static readonly IReadOnlyList<Layout> All =
    [
        .. from at in Enum.GetValues<TimeAt>()
           from sign in at is TimeAt.Middle or TimeAt.Under or TimeAt.Below ? [""] : Signs
           select new Layout(at, sign),
    ];

    /// <summary>The time that stands where the time of a message does; null if none does.</summary>
    /// <param name="lines">The lines.</param>
    /// <param name="at">Which of them.</param>
    public Range? TimeOf(StampedLines lines, int at) => At switch
    {
        TimeAt.Under => at + 1 < lines.Count && lines[at].Length() <= LongestWho && !lines.IsBlank(at) && lines.AtStart(at) is null ? Bare(lines, at + 1) : null,
        TimeAt.Over => Bare(lines, at),
        TimeAt.First => lines.AtStart(at) is { } first && Opened(lines.Text, lines[at].Start..first.Start).IsEmpty() ? first : null,
        TimeAt.Middle => lines.First(at),
        TimeAt.Below => at + 1 < lines.Count && lines[at].Length() <= LongestWho && !lines.IsBlank(at) && lines.Last(at) is null ? AtEnd(lines, at + 1) : null,
        _ => AtEnd(lines, at),
    };

    /// <summary>The time at the end of a line; null if there is none.</summary>
    internal static Range? AtEnd(StampedLines lines, int at) => lines.Last(at) is { } last && Closed(lines.Text, last.End..lines[at].End).IsEmpty() ? last : null;

    /// <summary>The message that begins in a line with its time where it should be; null if nobody is named.</summary>
    /// <param name="lines">The lines.</param>
    /// <param name="at">Which of them.</param>
    /// <param name="time">The time (<see cref="TimeOf"/>).</param>
    public Head? HeadOf(StampedLines lines, int at, Range time)
    {
        var text = lines.Text;
        return At switch
        {
            TimeAt.Under => new Head(time, text.Trimmed(lines[at]), default, 2),
            TimeAt.Over => at + 1 < lines.Count && !lines.IsBlank(at + 1) ? Parted(text, time, text.Trimmed(lines[at + 1]), 2) : null,
            TimeAt.First => Parted(text, time, Rest(text, time.End..lines[at].End), 1),
            TimeAt.Middle => Between(text, lines[at], time),
            TimeAt.Below => WordsBefore(lines, at + 1, time) is var words && !words.IsEmpty() ? new Head(time, text.Trimmed(lines[at]), words, 2) : null,
            _ => Parted(text, time, Opened(text, lines[at].Start..time.Start), 1),
        };
    }

    /// <summary>The words that a time at the end of a line ends.</summary>
    internal static Range WordsBefore(StampedLines lines, int at, Range time) => Opened(lines.Text, lines[at].Start..time.Start);

    /// <summary>What the place of a time looks like, so that one that is spoken of is told from one that begins a message: signs as they are, any number and any word alike.</summary>
    public int ShapeOf(StampedLines lines, int at, Range time)
    {
        var from = At switch
        {
            TimeAt.First => lines[at].Start.Value,
            TimeAt.Middle or TimeAt.Last => Opened(lines.Text, lines[at].Start..time.Start).End.Value,
            _ => time.Start.Value,
        };
        var (shape, last) = (new HashCode(), ' ');
        foreach (var letter in lines.Text.AsSpan(from..time.End.Value))
        {
            var kind = char.IsDigit(letter) ? '0' : char.IsLetter(letter) ? 'a' : letter;
            if (kind != last || kind is not ('0' or 'a'))
            {
                shape.Add(kind);
            }

            last = kind;
        }

        // "1.10 m at the quay" is no "9.33 | Juno".
        foreach (var letter in At == TimeAt.First ? lines.Text.AsSpan(time.End.Value..lines[at].End.Value) : default)
        {
            if (BehindTime.Contains(letter))
            {
                shape.Add(letter);
            }
            else if (letter != ' ')
            {
                break;
            }
        }

        return shape.ToHashCode();
    }

    /// <summary>The time that stands in a line alone; null if there is none, or something beside it.</summary>
    internal static Range? Bare(StampedLines lines, int at) => lines.AtStart(at) is { } time && Opened(lines.Text, lines[at].Start..time.Start).IsEmpty() && Closed(lines.Text, time.End..lines[at].End).IsEmpty() ? time : null;

    private static Head? Between(string text, Range line, Range time)
    {
        var before = text.AsSpan(line.Start.Value..time.Start.Value).TrimEnd();
        var bracketed = before is [.., '[' or '('];
        var (who, words) = (Opened(text, line.Start..time.Start), Rest(text, time.End..line.End));
        var parted = text.AsSpan(time.End..line.End).TrimStart() is [':' or '：', _, ..];
        // Without brackets or a sign a time is as well one that is spoken of.
        return !who.IsEmpty() && who.Length() <= LongestWho && !words.IsEmpty() && (bracketed || parted || before is [.., '-' or '–' or '—' or '|' or ',' or '·'])
            ? new Head(time, who, words, 1) : null;
    }

    private Head? Parted(string text, Range time, Range rest, int lines)
    {
        if (rest.IsEmpty())
        {
            return null;
        }

        if (Sign.Length == 0)
        {
            return rest.Length() <= LongestWho ? new Head(time, rest, default, lines) : null;
        }

        var span = text.AsSpan(rest);
        var from = rest.Start.Value;
        if (Sign == "<>")
        {
            return span.IndexOf('>') is > 1 and <= LongestWho and var angle && span[0] == '<' ? new Head(time, (from + 1 + (span[1] is '@' or '+' or '%' ? 1 : 0))..(from + angle), text.Trimmed((from + angle + 1)..rest.End), lines) : null;
        }

        return IndexOfSign(span) is > 0 and <= LongestWho and var cut
            ? new Head(time, text.Trimmed(from..(from + cut)), text.Trimmed((from + cut + Sign.Length)..rest.End), lines) : null;
    }

    // The sign within a time parts no name from its words.
    private int IndexOfSign(ReadOnlySpan<char> span)
    {
        var at = span.IndexOf(Sign, StringComparison.Ordinal);
        while (at > 0 && at + 1 < span.Length && char.IsDigit(span[at - 1]) && char.IsDigit(span[at + 1]))
        {
            at = span[(at + 1)..].IndexOf(Sign, StringComparison.Ordinal) is >= 0 and var next ? at + 1 + next : -1;
        }

        return at;
    }

    // What stands before a time, without the bracket or the dash between.
    private static Range Opened(string text, Range before) => text.Trimmed(before.Start..(before.Start.Value + text.AsSpan(before).TrimEnd(" \t\u00A0[(<,·|–—-@+").Length));

    // What stands behind a time, without the bracket.
    private static Range Closed(string text, Range behind) => text.Trimmed((behind.End.Value - text.AsSpan(behind).TrimStart(" \t\u00A0])>:·").Length)..behind.End);

    // What stands behind a time, without the bracket and one sign between.
    private static Range Rest(string text, Range behind)
    {
        var trimmed = text.Trimmed(behind);
        if (text.AsSpan(trimmed) is [']' or ')', ..])
        {
            trimmed = text.Trimmed((trimmed.Start.Value + 1)..trimmed.End);
        }

        return text.AsSpan(trimmed) is [':' or '-' or '–' or '—' or '|' or ',' or '·' or '>', not ('>' or '-'), ..] ? text.Trimmed((trimmed.Start.Value + 1)..trimmed.End) : trimmed;
    }
}

/// <summary>Ranges of a text that are known from its beginning.</summary>
internal static class RangeExtensions
{
    /// <summary>How long it is.</summary>
    public static int Length(this Range range) => range.End.Value - range.Start.Value;

    /// <summary>Whether there is nothing in it.</summary>
    public static bool IsEmpty(this Range range) => range.Length() <= 0;

    /// <summary>The range of a text without white space around it.</summary>
    public static Range Trimmed(this string text, Range range)
    {
        if (range.IsEmpty())
        {
            return range.Start..range.Start;
        }

        var whole = text.AsSpan(range);
        var from = range.Start.Value + whole.Length - whole.TrimStart().Length;
        return from..(from + whole.Trim().Length);
    }
}
