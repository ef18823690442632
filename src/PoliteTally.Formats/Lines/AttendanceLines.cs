using System.Text.RegularExpressions;

namespace PoliteTally.Formats.Lines;

/// <summary>
/// Reads a list of who was there that is no table: in each line, or in a few lines together, a name with times, a length, or what happened. What stands beside
/// many different names is no part of a name.
/// </summary>
internal static partial class AttendanceLines
{
    // Fewer are no list.
    private const int Fewest = 3;

    // So many of the lines that tell something have to tell the same kind of thing.
    private const double Mostly = 0.6;

    // Words that stand beside so many of the names belong to the program.
    private const double Often = 0.15;

    private const int FewWords = 4;
    private const int LongestName = 80;
    private const int LongestLine = 400;

    /// <summary>The list as a table with its headings; null if the text is none.</summary>
    /// <param name="text">The text.</param>
    public static Table? Of(string text)
    {
        var lines = new StampedLines(text);
        var start = In(lines, lines.Sample);
        return start is null || lines.Sample == lines.Count ? start : In(lines, lines.Count);
    }

    private static Table? In(StampedLines lines, int most)
    {
        var told = Told(lines, most);
        var words = told.SelectMany(t => Edges(t.Words).Select(e => (e, t.Words))).Distinct().CountBy(w => w.e, StringComparer.OrdinalIgnoreCase).Where(w => w.Value >= Math.Max(Fewest, Often * told.Count)).Select(w => w.Key)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var people = told.ConvertAll(t => Parted(t, words));
        // Whoever else came is known by that; one alone who left is told of in words that stand nowhere else.
        var known = people.Where(p => p.Event.Length > 0).Select(p => p.Name).ToHashSet(StringComparer.Ordinal);
        people = people.ConvertAll(p => p.Event.Length == 0 && LastSays(p.Name) is var (name, what) && known.Contains(name) ? p with { Name = name, Event = what } : p);
        return people.Count >= Fewest && people.DistinctBy(p => p.Name).Skip(Fewest - 1).Any() && people.Count(p => IsName(p.Name)) >= CellContent.Most * people.Count ? TableOf(people) : null;
    }

    /// <summary>What a line, or a few together, tell of somebody.</summary>
    private sealed record Line(int Row, string Words, List<string> Times, List<string> Lengths);

    private sealed record Person(int Row, string Name, string Event, List<string> Times, List<string> Lengths);

    private static Table? TableOf(List<Person> people)
    {
        List<Person> stays = [.. people.Where(p => p.Times.Count > 1)];
        List<Person> events = [.. people.Where(p => p.Times.Count == 1 && p.Event.Length > 0)];
        List<Person> lengths = [.. people.Where(p => p.Times.Count == 0 && p.Lengths.Count > 0)];
        var (headings, chosen) = new (string[] Headings, List<Person> Chosen)[] { (["name", "joined", "left"], stays), (["name", "event", "time"], events), (["name", "duration"], lengths) }.MaxBy(s => s.Chosen.Count);
        if (chosen.Count < Mostly * people.Count || (chosen == events && events.Count(e => AttendanceColumns.Says(e.Event) is (true, false) or (false, true)) * 2 < events.Count))
        {
            return null;
        }

        // Of whoever is told of otherwise what is missing is said; nobody is left out.
        var rows = new TableRows(people.Count);
        foreach (var one in people)
        {
            if (chosen == events)
            {
                rows.Add(one.Row, [one.Name, one.Event, one.Times.FirstOrDefault("")]);
            }
            else if (chosen == lengths)
            {
                rows.Add(one.Row, [one.Name, one.Lengths.FirstOrDefault("")]);
            }
            else if (one.Times.Count < 2)
            {
                var (leaves, time) = (AttendanceColumns.Says(one.Event) is (false, true), one.Times.FirstOrDefault(""));
                rows.Add(one.Row, [one.Name, leaves ? "" : time, leaves ? time : ""]);
            }
            else
            {
                // Whoever came again has two times more; a third alone is how long it was.
                for (var i = 0; i + 1 < one.Times.Count; i += 2)
                {
                    rows.Add(one.Row, [one.Name, one.Times[i], one.Times[i + 1]]);
                }
            }
        }

        return new Table(headings, 0, rows.All, "text", HeadingsKnown: true);
    }

    // A name in a line of its own goes with the lines of times under it.
    private static List<Line> Told(StampedLines lines, int most)
    {
        var (all, told, over) = (new List<Line>(), new List<Line>(), (Line?)null);
        for (var at = 0; at < most; at++)
        {
            ReadingBudget.Ask();
            if (!lines.IsBlank(at) && lines[at].Length() <= LongestLine)
            {
                all.Add(LineOf(lines.Text[lines[at]], at + 1, lines.Clock));
            }
        }

        // “Student” in a line of its own, again and again, is nobody's name.
        var again = all.Where(l => l.Times.Count + l.Lengths.Count == 0).CountBy(l => l.Words, StringComparer.Ordinal).Where(w => w.Value >= Math.Max(Fewest, Often * all.Count)).Select(w => w.Key).ToHashSet(StringComparer.Ordinal);
        foreach (var line in all)
        {
            var tells = line.Times.Count + line.Lengths.Count > 0;
            if (!tells)
            {
                over = line.Words.Length > 0 && !again.Contains(line.Words) ? line : over;
            }
            else if (over is not null && (line.Words.Length == 0 || (line.Words.Count(c => c == ' ') < FewWords && AttendanceColumns.Says(line.Words) is not (false, false))))
            {
                if (told is [.., var last] && last.Row == over.Row)
                {
                    last.Times.AddRange(line.Times);
                    last.Lengths.AddRange(line.Lengths);
                }
                else
                {
                    told.Add(line with { Row = over.Row, Words = over.Words });
                }
            }
            else if (line.Words.Length > 0)
            {
                told.Add(line);
                over = null;
            }
        }

        return told;
    }

    private static Line LineOf(string text, int row, Clock clock)
    {
        var times = Stamps.All(text, clock).ToList();
        var rest = text.ToCharArray();
        foreach (var (place, _) in times)
        {
            rest.AsSpan(place).Fill('\t');
        }

        var without = new string(rest);
        List<string> lengths = [.. Counted().Matches(without).Select(m => m.Value.Trim()).Where(m => TimeText.Length(m, NodaTime.Duration.FromMinutes(1)) is not null)];
        foreach (var length in lengths)
        {
            without = without.Replace(length, "\t", StringComparison.Ordinal);
        }

        var words = string.Join(' ', without.Split('\t').Select(Bare).Where(w => w.Any(char.IsLetter)));
        return new Line(row, words.Length > 2 * LongestName ? words[..(2 * LongestName)] : words, [.. times.Select(t => t.Time)], lengths);
    }

    // Without what parts one thing from another, and the number of a line.
    private static string Bare(string words) => Spaces().Replace(Number().Replace(words, ""), " ").Trim(' ', ',', ';', ':', '(', ')', '[', ']', '-', '–', '—', '|', '·', '•', '*', '→', '>', '/', '.', '"');

    // What a line ends with, and what it begins with: all but the name, wherever that ends.
    private static IEnumerable<string> Edges(string words)
    {
        ReadingBudget.Ask();
        var parts = words.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        for (var i = 1; i < parts.Length; i++)
        {
            yield return $"…{string.Join(' ', parts[i..])}";
            yield return $"{string.Join(' ', parts[..i])}…";
        }
    }

    private static Person Parted(Line line, HashSet<string> words)
    {
        var (name, beside) = (line.Words, new List<string>());
        if (Edges(name).Where(e => e[0] == '…' && words.Contains(e)).MaxBy(e => e.Length) is { } behind)
        {
            (name, beside) = (name[..^(behind.Length - 1)].Trim(), [behind[1..]]);
        }
        // What says of others that they came and went says it of somebody who only came.
        else if (LastSays(name) is var (who, what) && words.Any(w => w.Split(' ', '…').Contains(what, StringComparer.OrdinalIgnoreCase)))
        {
            (name, beside) = (who, [what]);
        }

        if (Edges(name).Where(e => e[^1] == '…' && words.Contains(e)).MaxBy(e => e.Length) is { } before)
        {
            name = name[(before.Length - 1)..].Trim();
            beside.Add(before[..^1]);
        }

        return new Person(line.Row, Bare(name), string.Join(' ', beside), line.Times, line.Lengths);
    }

    // The last word by itself, if it says that somebody came or went.
    private static (string Name, string What)? LastSays(string words) =>
        words.LastIndexOf(' ') is > 0 and var cut && AttendanceColumns.Says(words[(cut + 1)..]) is not (false, false) ? (words[..cut], words[(cut + 1)..]) : null;

    private static bool IsName(string name) => name.Length is > 1 and <= LongestName && name.Count(char.IsLetter) * 2 > name.Length && name.Count(c => c == ' ') <= 5;

    [GeneratedRegex(@"(?<![\p{L}\d.,])\d{1,4}(?:[.,]\d{1,2})?\s?\p{L}{1,10}\.?(?:,?\s(?:and\s|und\s|et\s)?\d{1,2}\s?\p{L}{1,10}\.?){0,2}(?![\p{L}\d])")]
    private static partial Regex Counted();

    [GeneratedRegex(@"^\s*\d{1,3}\s*[.)]\s+|(?<=\s|^)\d{1,4}(?=\s|$)")]
    private static partial Regex Number();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
