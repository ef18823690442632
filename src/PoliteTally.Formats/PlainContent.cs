using System.Buffers;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace PoliteTally.Formats;

/// <summary>
/// Takes off what programs put around tables and lines, so that every reader sees the same: the tags of HTML, the elements of XML, ids in place of names in JSON, objects a line each, the rules
/// that are drawn around a table of text, quotation marks around each line, and the signs before what is quoted in a mail.
/// </summary>
public static partial class PlainContent
{
    // So much shows what a file is.
    private const int Looked = 20_000;

    private const int LinesLooked = 2_000;

    // So many lines of a mail that holds a chat are quoted; so many blocks have the same labels.
    private const double Mostly = 0.6;

    // A caption takes about so many lines.
    private const int LinesOfCaption = 3;

    // Blocks of labels and values are rows if there are so many, with so many labels; or two of them, with as many labels that are all the same.
    private const int FewRecords = 3;
    private const int FewLabels = 2;
    private const int MostLabels = 12;
    private const int LinesAbove = 5;

    private const string DialogueStart = "Dialogue:";
    private const string FormatStart = "Format:";

    private static readonly SearchValues<char> OfRules = SearchValues.Create("|+-=: ");

    /// <summary>What is in a file without what stands around it; the same bytes if nothing does.</summary>
    /// <param name="bytes">The file.</param>
    /// <exception cref="FormatProblem">It is broken or too large to be taken apart.</exception>
    public static byte[] Of(byte[] bytes)
    {
        if (bytes.Length <= FileSize.Largest && OfficeText.Plain(bytes) is { } written)
        {
            return Of(written);
        }

        // Pictures and workbooks are told by others.
        if (bytes.Length == 0 || bytes.Length > FileSize.Largest || bytes.AsSpan(0, Math.Min(bytes.Length, Looked)).TrimStart("\uFEFF \t\r\n"u8) is not { Length: > 0 } start)
        {
            return bytes;
        }

        using var budget = ReadingBudget.Begin();
        return start[0] switch
        {
            (byte)'<' => TaggedText.Plain(bytes),
            (byte)'{' => FileText.Of(bytes) is var text && JsonReferences.Resolved(text) is { } resolved ? resolved : OneALine(bytes, text),
            _ when start.IndexOf((byte)'|') >= 0 || start.IndexOf((byte)'>') >= 0 || start.IndexOf((byte)':') >= 0 || (start[0] is >= (byte)'0' and <= (byte)'9') => OfLines(bytes),
            _ => bytes,
        };
    }

    /// <summary>A cell as it stands in a table of text: with quotation marks around it where it would be cut or read otherwise.</summary>
    internal static string Cell(string text) => text.AsSpan().ContainsAny('"', '\t') ? $"\"{text.Replace("\"", "\"\"")}\"" : text;

    // Objects with one in each line are a list of them.
    private static byte[] OneALine(byte[] bytes, FileText text)
    {
        var lines = text.Start.Split('\n', 3, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        return lines is [[.., '}'], ['{', ..], ..] && IsObject(lines[0]) ? Listed(text) : bytes;

        static byte[] Listed(FileText text)
        {
            var list = new StringBuilder("[");
            foreach (var line in text.Whole.AsSpan().EnumerateLines())
            {
                ReadingBudget.Ask();
                if (!line.IsWhiteSpace())
                {
                    list.Append(list.Length > 1 ? "," : "").Append(line);
                }
            }

            return Encoding.UTF8.GetBytes(list.Append(']').ToString());
        }

        static bool IsObject(string line)
        {
            try
            {
                using var document = JsonDocument.Parse(line);
                return true;
            }
            catch (JsonException)
            {
                return false;
            }
        }
    }

    private static byte[] OfLines(byte[] bytes)
    {
        var text = FileText.Of(bytes);
        var lines = text.Start.Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0).Take(LinesLooked).ToList();
        return lines.Count(l => IsOneCell(l)) > Mostly * lines.Count ? Of(Each(text, line => IsOneCell(line) ? line[1..^1].ToString().Replace("\"\"", "\"", StringComparison.Ordinal) : line))
            : lines.Count(l => Emphasised().IsMatch(l)) > Mostly * lines.Count ? Of(Each(text, line => WithoutEmphasis(line.ToString())))
            : lines.Count(l => CountedStart().IsMatch(l)) > Mostly * lines.Count ? Each(text, line => CountedStart().Replace(line.ToString(), Moment))
            : lines.Count(l => BeforeTime().IsMatch(l)) > Mostly * lines.Count ? Of(Each(text, line => BeforeTime().Replace(line.ToString(), "${bracket}")))
            : Dialogue(lines, text) is { } spoken ? spoken
            : lines.Count(l => IsQuoted(l)) > Mostly * lines.Count ? Each(text, line => IsQuoted(line) ? line[1..].Trim() : null)
            : Labelled(lines) is { } labels ? Encoding.UTF8.GetBytes(OfRecords(text.Whole, labels))
            // Captions whose two times stand beside one another; an arrow between them says so.
            : lines.Count(l => Stretch().IsMatch(l)) * LinesOfCaption > lines.Count ? Each(text, line => Stretch().IsMatch(line) ? line.ToString().Replace(",", " --> ", StringComparison.Ordinal) : line)
            : FixedWidth.Of(text) is { } table ? Encoding.UTF8.GetBytes(table)
            : lines.Exists(l => IsRule(l)) ? Each(text, line => IsRule(line) ? null : line is ['|', .., '|'] ? line[1..^1] : line)
            : bytes;

        // A spreadsheet keeps a line with a comma in it so.
        static bool IsOneCell(ReadOnlySpan<char> line) => line is ['"', _, .., '"'] && line[1..^1].ToString().Replace("\"\"", "", StringComparison.Ordinal) is var within && !within.Contains('"') && within.Contains(' ');

        // Two signs stand before who speaks.
        static bool IsQuoted(ReadOnlySpan<char> line) => line is ['>', not '>', ..];

        // Drawn between the rows of a table, or under its headings.
        static bool IsRule(ReadOnlySpan<char> line) => line.Length > 2 && !line.ContainsAnyExcept(OfRules) && line.Contains('-') && line.ContainsAny('|', '+');
    }

    // Where what stands out ends without a sign, a bar parts it from the rest.
    private static string WithoutEmphasis(string line)
    {
        var (plain, at) = (new StringBuilder(), 0);
        while (Emphasised().Match(line, at) is { Success: true } found)
        {
            ReadingBudget.Ask();
            plain.Append(found.Groups["words"].Value).Append(found.Groups["sign"] is { Success: true } sign ? sign.Value is "(" or "[" ? $" {sign.Value}" : sign.Value : " | ");
            at += found.Length;
        }

        return plain.Append(line.AsSpan(at)).ToString();
    }

    // Seconds or milliseconds since 1970, as a time.
    private static string Moment(Match counted) => TimeText.Since1970(counted.Groups["number"].Value).ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);

    // Lines of "Dialogue: …" under a line "Format: …" that says what stands between their commas, the words last.
    private static byte[]? Dialogue(List<string> lines, FileText text)
    {
        if (lines.Count(l => l.StartsWith(DialogueStart, StringComparison.Ordinal)) < FewRecords || lines.FindLast(l => l.StartsWith(FormatStart, StringComparison.Ordinal)) is not { } format)
        {
            return null;
        }

        var fields = format[FormatStart.Length..].Split(',', StringSplitOptions.TrimEntries);
        List<int> kept = [.. new[] { "Start", "End", "Name", "Text" }.Select(f => Array.IndexOf(fields, f))];
        if (kept.Contains(-1))
        {
            return null;
        }

        var table = new StringBuilder("Start\tEnd\tName\tText\n");
        foreach (var line in text.Whole.AsSpan().EnumerateLines())
        {
            ReadingBudget.Ask();
            if (line.StartsWith(DialogueStart, StringComparison.Ordinal) && line[DialogueStart.Length..].ToString().Split(',', fields.Length) is var cells && cells.Length == fields.Length)
            {
                table.AppendJoin('\t', kept.Select(f => Cell(cells[f].Trim()))).Append('\n');
            }
        }

        return Encoding.UTF8.GetBytes(table.ToString());
    }

    private delegate ReadOnlySpan<char> Becomes(ReadOnlySpan<char> line);

    // Every line as it becomes. Of which nothing is left, that line goes; lines that were empty stay.
    private static byte[] Each(FileText text, Becomes becomes)
    {
        var plain = new StringBuilder();
        foreach (var line in text.Whole.AsSpan().EnumerateLines())
        {
            ReadingBudget.Ask();
            var after = becomes(line.Trim());
            if (after.Length > 0 || line.IsWhiteSpace())
            {
                plain.Append(after).Append('\n');
            }
        }

        return Encoding.UTF8.GetBytes(plain.ToString());
    }

    // Blocks of “label: value” with the same labels in the same order are rows of a table. The labels; null if there are none.
    private static List<string>? Labelled(List<string> lines)
    {
        var labels = lines.ConvertAll(l => Label().Match(l) is { Success: true } label ? label.Groups["label"].Value : "");
        // A line above may be a label as well: “messages:”.
        return Enumerable.Range(0, Math.Min(LinesAbove, labels.Count)).Select(first => From(labels, first)).FirstOrDefault(record => record is not null);
    }

    private static List<string>? From(List<string> labels, int first)
    {
        var again = labels[first].Length == 0 ? -1 : labels.IndexOf(labels[first], first + 1);
        if (again < first + FewLabels || again - first > MostLabels)
        {
            return null;
        }

        var record = labels.GetRange(first, again - first);
        var (whole, starts) = (0, labels.Count(l => l == labels[first]));
        for (var at = first; at + record.Count <= labels.Count; at++)
        {
            whole += labels[at] == labels[first] && labels.GetRange(at, record.Count).SequenceEqual(record) ? 1 : 0;
        }

        return (starts >= FewRecords || (starts == whole && record.Count >= FewRecords)) && whole >= Mostly * starts
            // Whoever writes in turn is no label.
            && whole * record.Count >= Mostly * labels.Count(l => l.Length > 0) && !record.Contains("") && record.Distinct().Count() == record.Count ? record : null;
    }

    private static string OfRecords(string text, List<string> labels)
    {
        var rows = new List<string[]>();
        foreach (var line in text.AsSpan().EnumerateLines())
        {
            ReadingBudget.Ask();
            if (Label().Match(line.Trim().ToString()) is { Success: true } label && labels.IndexOf(label.Groups["label"].Value) is >= 0 and var place)
            {
                if (place == 0 || rows.Count == 0)
                {
                    rows.Add([.. Enumerable.Repeat("", labels.Count)]);
                }

                rows[^1][place] = label.Groups["value"].Value.Trim() is ['"', .. var quoted, '"'] ? quoted : label.Groups["value"].Value.Trim();
            }
        }

        return string.Join('\n', rows.Prepend([.. labels]).Select(r => string.Join('\t', r.Select(Cell))));
    }

    [GeneratedRegex(@"^(?:-\s+)?(?<label>\p{L}[\p{L} _-]{0,24}):(?:\s+(?<value>.*))?$", RegexOptions.ExplicitCapture)]
    private static partial Regex Label();

    // “**Juno**”, “_09:33_”, “`09:33`” at the beginning of a line: how Markdown makes words stand out.
    [GeneratedRegex(@"\G(?:[*+-]\s+)?(?<mark>\*\*|__|\*|_|`)(?<words>[^\s*_`](?:[^*_`]*[^\s*_`])?)\k<mark>(?![\p{L}\d])\s*(?<sign>[:([–—-])?", RegexOptions.ExplicitCapture)]
    private static partial Regex Emphasised();

    // The number of a line before its time, or the sign that a time counts from the start.
    [GeneratedRegex(@"^(?:\d{1,5}[.)\]:]? +(?=[\[(]?\d{1,2}[:.]\d{2}(?!\d))|(?<bracket>[\[(]?)\+(?=\d{1,3}:\d{2}))", RegexOptions.ExplicitCapture)]
    private static partial Regex BeforeTime();

    // Of this century, at the beginning of a line.
    [GeneratedRegex(@"^(?:\[|\()?(?<number>1\d{9}(?:\d{3})?)(?:\.\d{1,6})?(?:\]|\))?(?=[\s:|,;-])", RegexOptions.ExplicitCapture)]
    private static partial Regex CountedStart();

    [GeneratedRegex(@"^\d{1,2}:\d{2}:\d{2}\.\d{1,3},\d{1,2}:\d{2}:\d{2}\.\d{1,3}$")]
    private static partial Regex Stretch();
}
