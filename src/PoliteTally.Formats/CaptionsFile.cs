using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>A stretch in which somebody spoke. What they said is not kept.</summary>
/// <param name="Row">The line it begins in, from 1.</param>
public sealed record Speech(int Row, string Name, Instant From, Duration Length);

/// <summary>Captions as they would be brought in.</summary>
/// <param name="FromStart">Whether their times count from the start of a recording, and not by the clock.</param>
/// <param name="Rows">Stretches of speech, in order.</param>
/// <param name="LeftOut">How many captions nobody is named in.</param>
/// <param name="Problems">What is wrong with them as a whole.</param>
public sealed record CaptionsPreview(bool FromStart, IReadOnlyList<Speech> Rows, int LeftOut, IReadOnlyList<string> Problems);

/// <summary>Reads captions and transcripts: WebVTT, SubRip, and text with times. They become stretches of speech: who, from when, how long.</summary>
public static partial class CaptionsFile
{
    /// <summary>The most captions that are read: 100,000.</summary>
    public const int MostCues = 100_000;

    // One person goes on over a pause like this; a caption that names nobody within it is theirs.
    private static readonly Duration Pause = Duration.FromSeconds(3);

    // Of a line with a time and no end, nobody knows how long it took; it is no longer than this.
    private static readonly Duration LongestLine = Duration.FromSeconds(20);

    /// <summary>Whether a text has the arrows between two times that captions have.</summary>
    public static bool IsOne(string text) => Arrow().IsMatch(text.Length > 4000 ? text[..4000] : text);

    /// <summary>Reads captions.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="zone">The zone of times by the clock that do not name theirs.</param>
    /// <param name="began">When the lesson began: times from the start of a recording count from here.</param>
    /// <exception cref="FormatProblem">The file has no captions.</exception>
    public static CaptionsPreview Read(byte[] bytes, DateTimeZone zone, Instant began)
    {
        FileSize.Check(bytes.Length, "Save only the captions of this lesson and bring in those.");
        if (Archive.IsOne(bytes))
        {
            throw new FormatProblem("This is a workbook, and no captions. Save them as WebVTT (.vtt) or as text.");
        }

        var text = Table.TextOf(bytes).Text;
        var (cues, leftOut, fromStart) = IsOne(text) ? Cues(text) : Lines(text, zone, began);
        var rows = Joined(cues, fromStart ? began : Instant.FromUnixTimeSeconds(0));
        return new CaptionsPreview(
            fromStart, rows, leftOut,
            rows.Count > 0 ? [] : ["No caption says who spoke. Ask the program for captions with names, such as WebVTT with voices."]);
    }

    private static (List<Cue> Cues, int LeftOut, bool FromStart) Cues(string text)
    {
        var (cues, leftOut) = (new List<Cue>(), 0);
        var lines = text.Split('\n');
        string? last = null;
        for (var i = 0; i < lines.Length; i++)
        {
            if (Arrow().Match(lines[i]) is not { Success: true } arrow)
            {
                continue;
            }

            if (cues.Count >= MostCues)
            {
                throw new FormatProblem($"This file has more than {MostCues.ToString("N0", CultureInfo.InvariantCulture)} captions, more than a lesson can have.");
            }

            var (row, from, to) = (i + 1, TimeOf(arrow.Groups["from"].Value), TimeOf(arrow.Groups["to"].Value));
            var before = cues.Count;
            while (i + 1 < lines.Length && lines[i + 1].Trim() is { Length: > 0 } line && !Arrow().IsMatch(line))
            {
                i++;
                if (SpeakerOf(line) is { } name)
                {
                    last = name;
                    cues.Add(new Cue(row, name, from, to));
                }
            }

            // Who goes on speaking is not always named again.
            if (cues.Count == before && last is not null && cues is [.., var previous] && from - previous.To <= Pause)
            {
                cues.Add(new Cue(row, last, from, to));
            }
            else
            {
                leftOut += cues.Count == before ? 1 : 0;
            }
        }

        return (cues, leftOut, FromStart: true);
    }

    // A transcript that has the form of a chat: each speaks until the next begins.
    private static (List<Cue> Cues, int LeftOut, bool FromStart) Lines(string text, DateTimeZone zone, Instant began)
    {
        var table = ChatLines.TableOf(text, out var leftOut) ?? throw new FormatProblem("No captions are found in this file. They have a time and a name in each line, or are WebVTT.");
        var fromStart = CountsFromStart(table, began.InZone(zone).LocalDateTime);
        var times = fromStart
            ? [.. table.Rows.Select(r => TimeText.Length(r.Cells[0], Duration.FromSeconds(1)) is { } length ? Instant.FromUnixTimeSeconds(0) + length : (Instant?)null)]
            : TimeText.Read([.. table.Rows.Select(r => r.Cells[0])], began.InZone(zone).LocalDateTime, zone).Times;
        var known = table.Rows.Zip(times).Where(r => r.Second is not null).Select(r => (Row: r.First, At: r.Second!.Value - Instant.FromUnixTimeSeconds(0))).ToList();
        return
        (
            [.. known.Select((r, i) => new Cue(r.Row.Number, r.Row.Cells[1], r.At, r.At + (i + 1 < known.Count ? Duration.Min(LongestLine, Duration.Max(Duration.Zero, known[i + 1].At - r.At)) : Duration.FromSeconds(5))))],
            leftOut + table.Rows.Count - known.Count, fromStart
        );
    }

    /// <summary>Whether the times of a chat or a transcript count from a start: they begin near nought, and no clock was near that.</summary>
    internal static bool CountsFromStart(Table table, LocalDateTime near)
    {
        var times = table.Rows.Select(r => r.Cells[0]).ToList();
        return near.TimeOfDay > new LocalTime(2, 0) && times.TrueForAll(t => TimeText.IsClock(t) && TimeText.Length(t, Duration.FromSeconds(1)) < Duration.FromHours(6))
            && times.Count > 0 && TimeText.Length(times[0], Duration.FromSeconds(1)) < Duration.FromMinutes(15);
    }

    private static List<Speech> Joined(IEnumerable<Cue> cues, Instant zero)
    {
        var speeches = new List<Speech>();
        foreach (var cue in cues.Where(c => c.To > c.From).OrderBy(c => c.From))
        {
            var (from, to) = (zero + cue.From, zero + cue.To);
            if (speeches is [.., var last] && last.Name == cue.Name && from - (last.From + last.Length) <= Pause)
            {
                speeches[^1] = last with { Length = Duration.Max(last.Length, to - last.From) };
            }
            else
            {
                speeches.Add(new Speech(cue.Row, cue.Name, from, to - from));
            }
        }

        return speeches;
    }

    private static string? SpeakerOf(string line)
    {
        var name = Voice().Match(line) is { Success: true } voice ? voice.Groups["name"].Value : Label().Match(line) is { Success: true } label ? label.Groups["name"].Value : "";
        return CleanText.Of(name) is { Length: > 0 and <= TextLimits.LongestName } clean ? clean : null;
    }

    private static Duration TimeOf(string text)
    {
        var parts = text.Replace(',', '.').Split(':');
        return Duration.FromSeconds(parts.Aggregate(0.0, (sum, part) => (sum * 60) + double.Parse(part, CultureInfo.InvariantCulture)));
    }

    private sealed record Cue(int Row, string Name, Duration From, Duration To);

    [GeneratedRegex(@"(?<from>(?:\d{1,3}:)?\d{1,2}:\d{2}[.,]\d{1,3})[ \t]+-->[ \t]+(?<to>(?:\d{1,3}:)?\d{1,2}:\d{2}[.,]\d{1,3})")]
    private static partial Regex Arrow();

    [GeneratedRegex(@"^\s*<v(?:\.[^\s>]{1,60})?[ \t]+(?<name>[^>]{1,200})>")]
    private static partial Regex Voice();

    // A name has a few words and no end of a sentence; "Well: I think" is taken for one all the same, and is then nobody's.
    [GeneratedRegex(@"^\s*(?:[-–>]\s*)?(?<name>[^\s:.!?][^:!?]{0,60}?)\s*:\s+\S")]
    private static partial Regex Label();
}
