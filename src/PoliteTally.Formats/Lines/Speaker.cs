using System.Text.RegularExpressions;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats.Lines;

/// <summary>How captions say who speaks.</summary>
internal enum Mark
{
    /// <summary>&lt;v Ana P&gt; words.</summary>
    Voice,

    /// <summary>Ana P: words.</summary>
    Colon,

    /// <summary>[Ana P] words.</summary>
    Square,

    /// <summary>(Ana P) words.</summary>
    Round,

    /// <summary>Ana P – words.</summary>
    Dash,

    /// <summary>Ana P, and the words in the next line.</summary>
    Alone,
}

/// <summary>Finds who speaks in a line of captions.</summary>
internal static partial class Speaker
{
    // No name is longer, and where a line has none, not all of it is searched for one.
    private const int Searched = 90;

    /// <summary>The mark that names most in some lines of captions.</summary>
    /// <param name="lines">The lines, each with whether the words of its caption go on below it.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static Mark MarkOf(IReadOnlyList<(string Line, bool GoesOn)> lines, Func<string, bool> isNameHere) =>
        // A voice says of itself what it is.
        lines.Any(l => Of(l.Line, Mark.Voice, l.GoesOn, out _).Length > 0) ? Mark.Voice
        : Enum.GetValues<Mark>().MaxBy(mark => NameEvidence.Of([.. lines.Select(l => CleanText.Of(Of(l.Line, mark, l.GoesOn, out _).ToString())).Where(n => n.Length > 0)], isNameHere).Sum());

    /// <summary>Who speaks in a line; empty if it does not say who.</summary>
    /// <param name="line">The line.</param>
    /// <param name="mark">How the file says it.</param>
    /// <param name="goesOn">Whether this is the first line of a caption that has more.</param>
    /// <param name="said">The words; the whole line if nobody is named.</param>
    public static ReadOnlySpan<char> Of(ReadOnlySpan<char> line, Mark mark, bool goesOn, out ReadOnlySpan<char> said)
    {
        said = line;
        var start = line[..Math.Min(line.Length, Searched + (mark == Mark.Voice ? 200 : 0))];
        var (name, end) = mark switch
        {
            Mark.Voice => Voice().IsMatch(start) && start.IndexOf('>') is var close && start[..close].IndexOfAny(' ', '\t') is var space ? ((space + 1)..close, close + 1) : default,
            Mark.Colon => Label().IsMatch(start) && start.IndexOf(':') is var colon ? (0..colon, colon + 1) : default,
            Mark.Square => Within(start, '[', ']'),
            Mark.Round => Within(start, '(', ')'),
            Mark.Dash => start.IndexOf(" - ") is > 0 and var dash ? (0..dash, dash + 3) : start.IndexOf(" – ") is > 0 and var longer ? (0..longer, longer + 3) : start.IndexOf(" — ") is > 0 and var longest ? (0..longest, longest + 3) : default,
            _ => goesOn && line.Length <= Searched ? (0..line.Length, line.Length) : default,
        };
        if (end == 0)
        {
            return [];
        }

        said = line[end..].TrimStart(" \t:-–—");
        // "- Ana P:", ">> Ana P:", "[Ana P]:", "Ana P:" in a line of its own.
        var bare = start[name].Trim().TrimStart("->– \t").TrimEnd(": \t");
        return bare is ['[', .., ']'] or ['(', .., ')'] ? bare[1..^1].Trim() : bare;
    }

    private static (Range Name, int End) Within(ReadOnlySpan<char> start, char open, char close) =>
        start.TrimStart("->– \t") is var inside && inside.Length > 2 && inside[0] == open && inside.IndexOf(close) is > 1 and var end && start.Length - inside.Length is var before
            ? ((before + 1)..(before + end), before + end + 1) : default;

    [GeneratedRegex(@"^<v(?:\.[^\s>]{1,60})?[ \t]+[^>]{1,200}>")]
    private static partial Regex Voice();

    // A name has a few words and no end of a sentence; "Well: I think" is taken for one all the same, and is then nobody's.
    [GeneratedRegex(@"^(?:[-–>]+\s*)?[^\s:.!?][^:!?]{0,60}?\s*:\s+\S")]
    private static partial Regex Label();
}
