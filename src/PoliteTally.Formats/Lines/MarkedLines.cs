using System.Text;
using System.Text.RegularExpressions;
using PoliteTally.Core.Merging;

namespace PoliteTally.Formats.Lines;

/// <summary>What a marked part of a line is.</summary>
public enum MarkedField
{
    /// <summary>A moment.</summary>
    Time,

    /// <summary>Who.</summary>
    Name,

    /// <summary>What was written.</summary>
    Words,

    /// <summary>When somebody came.</summary>
    Joined,

    /// <summary>When somebody left.</summary>
    Left,

    /// <summary>How long somebody was there.</summary>
    Minutes,

    /// <summary>What was answered.</summary>
    Answer,
}

/// <summary>A line, or a few under one another, in which somebody marked what is what: by its example all lines of its layout are read.</summary>
/// <param name="Lines">The lines.</param>
/// <param name="Parts">What is marked in them.</param>
public sealed record MarkedExample(IReadOnlyList<string> Lines, IReadOnlyList<MarkedPart> Parts)
{
    /// <summary>The same example without whom and what it was about, to be kept: letters in marked parts other than times are an x each.</summary>
    public MarkedExample Blanked() => this with
    {
        Lines = [.. Lines.Select((line, i) => Parts.Where(p => p.Line == i && p.Field is MarkedField.Name or MarkedField.Words or MarkedField.Answer)
            .Aggregate(line, (text, part) => $"{text[..part.From]}{new string('x', part.To - part.From)}{text[part.To..]}"))],
    };
}

/// <summary>A part of a line that somebody marked.</summary>
/// <param name="Field">What it is.</param>
/// <param name="Line">The line of the example, from 0.</param>
/// <param name="From">Where it begins in the line, from 0.</param>
/// <param name="To">Where it ends, not part of it.</param>
public sealed record MarkedPart(MarkedField Field, int Line, int From, int To);

/// <summary>Reads lines by an example: of one of them, or of a few under one another, somebody marked what is what, and all others are cut the same way.</summary>
public static class MarkedLines
{
    /// <summary>How many lines at the beginning of a file can be marked: 40.</summary>
    public const int Shown = 40;

    /// <summary>The most letters of a line that can be marked: 400.</summary>
    public const int LongestLine = 400;

    // Further apart do no two parts of one entry stand.
    private const int MostLinesOfOne = 4;

    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(2);

    private static readonly Dictionary<MarkedField, string> Headings = new()
    {
        [MarkedField.Time] = "Time",
        [MarkedField.Name] = "Name",
        [MarkedField.Words] = "Message",
        [MarkedField.Joined] = "Joined",
        [MarkedField.Left] = "Left",
        [MarkedField.Minutes] = "Minutes",
        [MarkedField.Answer] = "Answer",
    };

    /// <summary>The lines at the beginning of a file that can be marked; none if it is no text.</summary>
    /// <param name="bytes">The file, as <see cref="PlainContent.Of"/> leaves it.</param>
    public static IReadOnlyList<string> Of(byte[] bytes)
    {
        try
        {
            return Archive.IsOne(bytes) ? [] : [.. FileText.Of(bytes).Start.Split('\n', Shown + 1).Take(Shown).Select(l => l.TrimEnd('\r')).Select(l => l.Length > LongestLine ? l[..LongestLine] : l)];
        }
        catch (FormatProblem)
        {
            return [];
        }
    }

    /// <summary>Cuts all lines as the marked ones are, into a table of the kind that the marks make.</summary>
    /// <param name="bytes">The file, as <see cref="PlainContent.Of"/> leaves it.</param>
    /// <param name="example">What was marked.</param>
    /// <returns>The table, and what it tells.</returns>
    /// <exception cref="FormatProblem">The marks tell too little, or do not fit the file.</exception>
    public static (byte[] Table, FileKind Kind) Cut(byte[] bytes, MarkedExample example)
    {
        using var budget = ReadingBudget.Begin();
        if (example is not { Lines: [_, ..], Parts: [_, ..] marks } || example.Lines.Any(l => l is null or { Length: > LongestLine }) || marks.Any(m => m is null || !Enum.IsDefined(m.Field)))
        {
            throw new FormatProblem("What was marked is not understood. Mark it again.");
        }

        var kind = KindOf(marks);
        var parts = marks.OrderBy(m => m.Line).ThenBy(m => m.From).ToList();
        var text = FileText.Of(bytes).Whole.ReplaceLineEndings("\n");
        var pattern = PatternOf(example.Lines, parts);
        var rows = new List<string[]>();
        try
        {
            var end = 0;
            foreach (Match match in pattern.Matches(text))
            {
                ReadingBudget.Ask();
                Continue(text[end..match.Index]);
                rows.Add([.. parts.Select((_, i) => match.Groups[i + 1].Value.Trim())]);
                end = match.Index + match.Length;
            }

            Continue(text[end..]);
        }
        catch (RegexMatchTimeoutException)
        {
            throw new FormatProblem("The lines of this file cannot be cut by these marks in a reasonable time. Mark other parts.");
        }

        return (Encoding.UTF8.GetBytes(string.Join('\n', rows.Prepend([.. parts.Select(p => Headings[p.Field])]).Select(row => string.Join('\t', row.Select(Cell))))), kind);

        // What stands in lines that are cut otherwise belongs to the message before.
        void Continue(string between)
        {
            if (rows.Count > 0 && parts[^1].Field == MarkedField.Words && between.Trim() is { Length: > 0 } more)
            {
                rows[^1][^1] += $"\n{more}";
            }
        }
    }

    private static FileKind KindOf(IReadOnlyList<MarkedPart> marks)
    {
        var fields = marks.Select(m => m.Field).ToHashSet();
        if (fields.Count < marks.Count)
        {
            throw new FormatProblem("One thing is marked twice. Mark each once, in lines that belong together.");
        }

        if (!fields.Contains(MarkedField.Name))
        {
            throw new FormatProblem("The name is not marked. Mark the name in one of the lines.");
        }

        return fields.Contains(MarkedField.Words)
            ? fields.Contains(MarkedField.Time) ? FileKind.Chat : throw new FormatProblem("A message without its time cannot be brought in. Mark the time in the same line.")
            : fields.Contains(MarkedField.Answer) ? FileKind.Answers
            : fields.Overlaps([MarkedField.Joined, MarkedField.Left, MarkedField.Minutes]) ? FileKind.Attendance
            : FileKind.People;
    }

    private static Regex PatternOf(IReadOnlyList<string> lines, List<MarkedPart> parts)
    {
        var (first, last) = (parts[0].Line, parts[^1].Line);
        if (first < 0 || last >= lines.Count || lines.Count > MostLinesOfOne || parts.Exists(p => p.From < 0 || p.To <= p.From || p.To > lines[p.Line].Length))
        {
            throw new FormatProblem($"The marks do not lie in one line, or in {MostLinesOfOne} lines under one another. Mark them again.");
        }

        var pattern = new StringBuilder("^");
        var (line, at) = (first, 0);
        foreach (var part in parts)
        {
            if (part.Line == line && part.From < at)
            {
                throw new FormatProblem("Two marks lie over each other. Mark them again.");
            }

            for (; line < part.Line; line++, at = 0)
            {
                pattern.Append(Between(lines[line][at..])).Append("[^\\S\\n]*\\n");
            }

            pattern.Append(Between(lines[line][at..part.From])).Append('(').Append(ValueOf(part.Field, lines[line][part.From..part.To])).Append(')');
            at = part.To;
        }

        // What stands behind matters by how it begins: a mark that ends in the middle of words takes all of them else.
        var rest = lines[line][at..];
        var edge = new string([.. rest.TakeWhile(c => !char.IsLetterOrDigit(c))]);
        pattern.Append(Between(edge)).Append(edge.Trim().Length > 0 ? ".*?$" : "[^\\S\\n]*$");
        return new Regex(pattern.ToString(), RegexOptions.Multiline | RegexOptions.NonBacktracking | RegexOptions.CultureInvariant, Longest);
    }

    // Times are told by their own form, so that none of their parts is taken for something else; of names and words only what stands around them is known.
    private static string ValueOf(MarkedField field, string marked) => field switch
    {
        MarkedField.Words => ".*?",
        MarkedField.Name or MarkedField.Answer => ".+?",
        _ => FormOf(marked),
    };

    private static string FormOf(string marked) => Regex.Replace(Regex.Escape(marked), @"\d+|\p{L}+|(?:\\ )+", run => char.IsDigit(run.Value[0]) ? @"\d+" : run.Value[0] == '\\' ? @"[^\S\n]*" : @"\p{L}+", RegexOptions.None, Longest);

    // Numbers and spaces between may be others in the next line.
    private static string Between(string text) =>
        Regex.Replace(Regex.Escape(text.Replace('\t', ' ').Replace('\u00A0', ' ')), @"\d+|(?:\\ )+", run => char.IsDigit(run.Value[0]) ? @"\d+" : @"[^\S\n]+", RegexOptions.None, Longest);

    private static string Cell(string text) => $"\"{text.Replace("\"", "\"\"")}\"";
}
