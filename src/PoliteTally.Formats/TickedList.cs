using System.Buffers;

namespace PoliteTally.Formats;

/// <summary>A list of names with a box or a tick beside most of them: whoever has none was not there.</summary>
internal static class TickedList
{
    private const int Fewest = 3;

    // So many lines have a mark; a list in which few have one says something else with that.
    private const double Mostly = 0.5;

    private const int Looked = 400;

    private static readonly string[] Yes = ["[x]", "[X]", "[✓]", "[✔]", "(x)", "(X)", "☑", "☒", "✓", "✔", "✅"];
    private static readonly string[] No = ["[ ]", "[]", "( )", "☐", "✗", "✘", "❌"];
    private static readonly SearchValues<char> Before = SearchValues.Create(" \t-–•*+");

    /// <summary>Whether a text is such a list.</summary>
    public static bool IsOne(string text)
    {
        var (marked, all) = (0, 0);
        foreach (var line in text.AsSpan().EnumerateLines())
        {
            all += line.IsWhiteSpace() ? 0 : 1;
            marked += MarkOf(line).Mark is null ? 0 : 1;
            if (all == Looked)
            {
                break;
            }
        }

        return marked >= Fewest && marked >= Mostly * all;
    }

    /// <summary>Whether somebody in a line has a tick; the line is without the mark then.</summary>
    public static bool IsTicked(ref ReadOnlySpan<char> line)
    {
        var (mark, rest) = MarkOf(line);
        line = line[rest];
        return mark is not null && Yes.Contains(mark);
    }

    // At the beginning of a line, behind a bullet, or at its end.
    private static (string? Mark, Range Name) MarkOf(ReadOnlySpan<char> line)
    {
        var start = line.IndexOfAnyExcept(Before);
        foreach (var mark in start < 0 ? [] : Yes.Concat(No))
        {
            if (line[start..].StartsWith(mark, StringComparison.Ordinal))
            {
                return (mark, (start + mark.Length)..);
            }

            if (line.TrimEnd().EndsWith(mark, StringComparison.Ordinal))
            {
                return (mark, ..(line.TrimEnd().Length - mark.Length));
            }
        }

        return (null, ..);
    }
}
