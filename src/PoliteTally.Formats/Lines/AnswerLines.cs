using System.Text.RegularExpressions;
using NodaTime;

namespace PoliteTally.Formats.Lines;

/// <summary>Reads answers that were written down as text: the question in a line, and under it a line for each who answered.</summary>
internal static partial class AnswerLines
{
    /// <summary>How such a text was read, in words.</summary>
    public const string ReadAs = "text";

    private const int Fewest = 3;
    private const int LongestName = 80;
    private const int LongestList = 4000;

    // Of the lines with something in them so many name somebody of the class; the others are what was asked.
    private const double Mostly = 0.6;

    // Of one question each is named once; in a chat people write again.
    private const double Again = 1.5;

    private static readonly string[] Signs = [": ", " – ", " — ", " - ", " = ", " → ", " -> "];

    /// <summary>Rows of one cell for what was asked, and of two for who answered what; null if the text is not written so.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    public static List<TableRow>? Of(FileText text, Func<string, bool> isNameHere)
    {
        if (ByOption(text.Start, isNameHere) is { } options)
        {
            return text.HasMore ? ByOption(text.Whole, isNameHere) : options;
        }

        foreach (var sign in Signs)
        {
            var start = Cut(text.Start, sign, isNameHere);
            if (Is(start, sign))
            {
                return text.HasMore ? Cut(text.Whole, sign, isNameHere) : start;
            }
        }

        return null;
    }

    /// <summary>The table of rows in which nothing is asked.</summary>
    public static Table TableOf(List<TableRow> rows) => new(["Name", "Answer"], 0, rows.FindAll(r => r.Cells.Count > 1), ReadAs, HeadingsKnown: true);

    // “East (3): Juno, Eino, Zainab” says who chose what.
    private static List<TableRow>? ByOption(string text, Func<string, bool> isNameHere)
    {
        var (rows, options, others) = (new List<TableRow>(), 0, 0);
        foreach (var range in text.AsSpan().Split('\n'))
        {
            ReadingBudget.Ask();
            var line = text.AsSpan()[range].Trim();
            var at = line.IndexOf(": ", StringComparison.Ordinal);
            if (line.Length == 0)
            {
                continue;
            }

            var names = at is > 0 and <= LongestName && line.Length <= LongestList ? line[(at + 1)..].ToString().Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries) : [];
            var option = at > 0 && names.Length > 0 ? Counted().Replace(line[..at].ToString(), "") : "";
            if (option.Length > 0 && names.Length > 0 && names.Count(isNameHere) >= Mostly * names.Length)
            {
                options++;
                rows.AddRange(names.Select((n, i) => new TableRow(rows.Count + i + 1, new[] { n, option })));
            }
            else
            {
                others++;
                rows.Add(new TableRow(rows.Count + 1, new[] { line.ToString() }));
            }

            if (others > options + Fewest)
            {
                return null;
            }
        }

        // One line of names alone says who was there, and whoever is named with what they wrote is in a chat.
        return options > 1 && others <= options && rows.Exists(r => r.Cells.Count == 1 && AnswersColumns.IsQuestion(r.Cells[0])) ? rows : null;
    }

    private static List<TableRow> Cut(string text, string sign, Func<string, bool> isNameHere)
    {
        var (rows, number) = (new List<TableRow>(), 0);
        foreach (var range in text.AsSpan().Split('\n'))
        {
            number++;
            ReadingBudget.Ask();
            var line = text.AsSpan()[range].Trim();
            if (line.Length == 0)
            {
                continue;
            }

            var at = line.IndexOf(sign, StringComparison.Ordinal);
            var name = at is > 1 and <= LongestName ? line[..at].Trim("-•*· ").ToString() : "";
            rows.Add(new TableRow(number, name.Length > 0 && !name.Any(char.IsDigit) && isNameHere(name) ? new[] { name, line[(at + sign.Length)..].Trim().ToString() } : new[] { line.ToString() }));
        }

        return rows;
    }

    private static bool Is(List<TableRow> rows, string sign)
    {
        var answers = rows.FindAll(r => r.Cells.Count > 1);
        if (answers.Count < Fewest || answers.Count < Mostly * rows.Count || answers.Count(a => TimeText.Length(a.Cells[1], Duration.FromMinutes(1)) is not null && a.Cells[1].Any(char.IsLetter)) * 2 > answers.Count
            // What was said at a time is a message.
            || answers.Count(a => Clock().IsMatch(a.Cells[1])) * 2 > answers.Count)
        {
            return false;
        }

        var (part, seen) = (0, new HashSet<(int, string)>());
        foreach (var row in rows)
        {
            // What somebody else wrote asks nothing, unless that is its form.
            part += row.Cells.Count == 1 && (row.Cells[0].TrimEnd().EndsWith('?') || !row.Cells[0].Contains(sign, StringComparison.Ordinal)) ? 1 : 0;
            if (row.Cells.Count > 1)
            {
                seen.Add((part, row.Cells[0]));
            }
        }

        return answers.Count < Again * seen.Count;
    }

    [GeneratedRegex(@"(?<!\d)\d{1,2}[:.]\d{2}(?!\d)")]
    private static partial Regex Clock();

    [GeneratedRegex(@"\s*[(\[]\s*\d{1,4}(?:\s*%)?\s*[)\]]\s*$")]
    private static partial Regex Counted();
}
