using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;
using PoliteTally.Formats.Lines;

namespace PoliteTally.Formats;

/// <summary>A stretch in which somebody spoke.</summary>
/// <param name="Row">The line it begins in, from 1.</param>
/// <param name="Said">What they said; null unless it is to be kept.</param>
public sealed record Speech(int Row, string Name, Instant From, Duration Length, string? Said);

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

    // No recording of a lesson is longer.
    private static readonly Duration LongestCounted = Duration.FromHours(6);

    // Of a line with a time and no end, nobody knows how long it took; it is no longer than this.
    private static readonly Duration LongestLine = Duration.FromSeconds(20);

    // So many lines show how captions say who speaks, and so much of each.
    private const int Looked = 400;
    private const int LongestLooked = 400;
    private const int LinesLooked = 10_000;

    /// <summary>Whether a text has the arrows between two times that captions have.</summary>
    public static bool IsOne(string text) => Arrow().IsMatch(text.Length > 4000 ? text[..4000] : text);

    /// <summary>Reads captions.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="zone">The zone of times by the clock that do not name theirs.</param>
    /// <param name="began">When the lesson began: times from the start of a recording count from here.</param>
    /// <param name="isNameHere">Whether somebody of the class may be called so.</param>
    /// <param name="keepsWords">Whether what was said is kept, too.</param>
    /// <exception cref="FormatProblem">The file has no captions.</exception>
    public static CaptionsPreview Read(byte[] bytes, DateTimeZone zone, Instant began, Func<string, bool> isNameHere, bool keepsWords = false)
    {
        FileSize.Check(bytes.Length, "Save only the captions of this lesson and bring in those.");
        if (Archive.IsOne(bytes))
        {
            throw new FormatProblem("This is a workbook, and no captions. Save them as WebVTT (.vtt) or as text.");
        }

        using var budget = ReadingBudget.Begin();
        using var room = ReadingRoom.For(bytes.Length);
        var file = FileText.Of(bytes);
        var text = file.Whole;
        var (cues, leftOut, fromStart) = IsOne(text) ? Cues(text, keepsWords, isNameHere)
            : CaptionsTable.Of(file, zone, began, isNameHere) is { } table ? ([.. table.Rows.Select(r => new Cue(r.Row, r.Name, r.From, r.To, r.Words))], table.LeftOut, table.FromStart)
            : Lines(text, zone, began, isNameHere);
        var rows = Joined(cues, fromStart ? began : Instant.FromUnixTimeSeconds(0), keepsWords);
        return new CaptionsPreview(
            fromStart, rows, leftOut,
            rows.Count > 0 ? [] : ["No caption says who spoke. Ask the program for captions with names, such as WebVTT with voices."]);
    }

    private static (List<Cue> Cues, int LeftOut, bool FromStart) Cues(string text, bool keepsWords, Func<string, bool> isNameHere)
    {
        var (cues, leftOut, row, begins) = (new List<Cue>(), 0, 0, false);
        // The same few speak again and again: one text for each of them.
        var names = new Dictionary<string, string>(StringComparer.Ordinal).GetAlternateLookup<ReadOnlySpan<char>>();
        var (mark, speakers) = SpeakersOf(text, isNameHere);
        // The caption that is being read, from its times to the next empty line.
        (int Row, Duration From, Duration To, int Before, string Unnamed)? open = null;
        foreach (var range in text.AsSpan().Split('\n'))
        {
            row++;
            ReadingBudget.Ask();
            var line = text.AsSpan()[range].Trim();
            var isFirst = begins;
            begins = false;
            if (HasArrow(line))
            {
                Close();
                if (cues.Count >= MostCues)
                {
                    throw new FormatProblem($"This file has more than {Words.Count(MostCues, "caption")}, more than a lesson can have.");
                }

                var (from, to) = TimesOf(line);
                open = (row, from, to, cues.Count, "");
                begins = true;
            }
            else if (line.Length == 0)
            {
                Close();
            }
            else if (open is { } caption)
            {
                if (NameOf(Speaker.Of(line, mark, mark == Mark.Alone && isFirst && GoesOn(text, range.End.Value), out var said)) is { Length: > 0 } speaker && (isFirst || speakers.Contains(speaker) || isNameHere(speaker)))
                {
                    cues.Add(new Cue(caption.Row, speaker, caption.From, caption.To, keepsWords ? said.ToString() : ""));
                }
                else if (keepsWords && cues.Count > caption.Before)
                {
                    cues[^1] = cues[^1] with { Said = Longer(cues[^1].Said, line) };
                }
                else if (keepsWords)
                {
                    open = caption with { Unnamed = Longer(caption.Unnamed, line) };
                }
            }
        }

        Close();
        return (cues, leftOut, FromStart: true);

        void Close()
        {
            if (open is { } caption && cues.Count == caption.Before)
            {
                // Who goes on speaking is not always named again.
                if (cues is [.., var previous] && caption.From - previous.To <= Pause)
                {
                    cues.Add(new Cue(caption.Row, previous.Name, caption.From, caption.To, caption.Unnamed));
                }
                else
                {
                    leftOut++;
                }
            }

            open = null;
        }

        // Empty if it is too long for one.
        string NameOf(ReadOnlySpan<char> speaker) => names.TryGetValue(speaker, out var known) ? known
            : names[speaker] = CleanText.Of(speaker.ToString()) is { Length: <= TextLimits.LongestName } name ? name : "";

        // No entry takes more, so nothing is put behind what is long enough.
        static string Longer(string before, ReadOnlySpan<char> line) =>
            before.Length > TextLimits.LongestText ? before : before.Length == 0 ? line.ToString() : $"{before} {line}";
    }

    // A transcript that has the form of a chat: each speaks until the next begins.
    private static (List<Cue> Cues, int LeftOut, bool FromStart) Lines(string text, DateTimeZone zone, Instant began, Func<string, bool> isNameHere)
    {
        var (table, untils, leftOut, _) = ChatLines.Of(text, isNameHere) ?? throw new FormatProblem("No captions are found in this file. They have a time and a name in each line, or are WebVTT.");
        var fromStart = CountsFromStart(table, began.InZone(zone).LocalDateTime, Duration.FromHours(1));
        var times = fromStart
            ? [.. table.Rows.Select(r => TimeText.Length(r.Cells[0], Duration.FromSeconds(1)) is { } length ? Instant.FromUnixTimeSeconds(0) + length : (Instant?)null)]
            : TimeText.Read([.. table.Rows.Select(r => r.Cells[0])], began, zone).Times;
        var known = table.Rows.Zip(times, untils).Where(r => r.Second is not null).Select(r => (Row: r.First, At: r.Second!.Value - Instant.FromUnixTimeSeconds(0), Until: r.Third)).ToList();
        return
        (
            [.. known.Select((r, i) => new Cue(r.Row.Number, r.Row.Cells[1], r.At, End(i), r.Row.Cells[3]))],
            leftOut + table.Rows.Count - known.Count, fromStart
        );

        // What it says of itself, else where the next begins.
        Duration End(int i) => fromStart && known[i].Until is { } until && TimeText.Length(until.Split('.', ',')[0], Duration.FromSeconds(1)) is { } said && said > known[i].At ? said
            : known[i].At + (i + 1 < known.Count ? Duration.Min(LongestLine, Duration.Max(Duration.Zero, known[i + 1].At - known[i].At)) : Duration.FromSeconds(5));
    }

    /// <summary>
    /// Whether the times of a chat or a transcript count from a start: they begin near nought and go on from there, no clock was near that, and as times of day they do not
    /// lie about the lesson, as 09:28 does, which could be nine minutes and a half.
    /// </summary>
    internal static bool CountsFromStart(Table table, LocalDateTime near, Duration lasts)
    {
        var times = table.Rows.Select(r => r.Cells[0]).ToList();
        var lengths = times.ConvertAll(t => TimeText.IsClock(t) ? TimeText.Length(t, Duration.FromSeconds(1)) : null);
        var (soonest, latest) = (near.TimeOfDay.PlusHours(-1), near.TimeOfDay.PlusSeconds((long)lasts.TotalSeconds).PlusHours(1));
        return near.TimeOfDay > new LocalTime(2, 0) && times.Count > 0 && lengths.TrueForAll(l => l < LongestCounted) && lengths[0] < Duration.FromMinutes(15)
            && lengths.Zip(lengths.Skip(1)).Count(l => l.First <= l.Second) >= CellContent.Most * (lengths.Count - 1)
            && times.Count(t => TimeText.TimeOfDay(t) is { } time && (soonest < latest ? time > soonest && time < latest : time > soonest || time < latest)) * 2 < times.Count;
    }

    private static List<Speech> Joined(List<Cue> cues, Instant zero, bool keepsWords)
    {
        var speeches = new List<Speech>();
        // Nearly every file has them in this order already.
        var isInOrder = cues.Zip(cues.Skip(1)).All(pair => pair.First.From <= pair.Second.From);
        foreach (var cue in (isInOrder ? cues : [.. cues.OrderBy(c => c.From)]).Where(c => c.To > c.From))
        {
            var (from, to) = (zero + cue.From, zero + cue.To);
            var said = keepsWords ? Tags().Replace(cue.Said, "").Trim() : null;
            if (speeches is [.., var last] && last.Name == cue.Name && from - (last.From + last.Length) <= Pause)
            {
                speeches[^1] = last with { Length = Duration.Max(last.Length, to - last.From), Said = said is null ? null : Kept($"{last.Said} {said}") };
            }
            else
            {
                speeches.Add(new Speech(cue.Row, cue.Name, from, to - from, said is null ? null : Kept(said)));
            }
        }

        return speeches;

        static string Kept(string words) => Words.Cut(CleanText.Of(words), TextLimits.LongestText);
    }

    // How it says who speaks, and who does in the first lines of captions; "look: it falls" in the second line of one is nobody.
    private static (Mark Mark, HashSet<string> Speakers) SpeakersOf(string text, Func<string, bool> isNameHere)
    {
        var (first, lines, begins) = (new List<(string Line, bool GoesOn)>(), 0, false);
        foreach (var range in text.AsSpan().Split('\n'))
        {
            var line = text.AsSpan()[range].Trim();
            if (begins && line.Length > 0)
            {
                first.Add((line[..Math.Min(line.Length, LongestLooked)].ToString(), GoesOn(text, range.End.Value)));
            }

            begins = HasArrow(line);
            if (first.Count == Looked || ++lines == LinesLooked)
            {
                break;
            }
        }

        var mark = Speaker.MarkOf(first, isNameHere);
        return (mark, [.. first.Select(l => CleanText.Of(Speaker.Of(l.Line, mark, l.GoesOn, out _).ToString()))]);
    }

    // Whether the line after the end of one has something in it.
    private static bool GoesOn(string text, int end) =>
        end < text.Length && text.AsSpan(end + 1) is var rest && (rest.IndexOf('\n') is >= 0 and var next ? rest[..next] : rest) is var line && !line.IsWhiteSpace() && !HasArrow(line);

    private static bool HasArrow(ReadOnlySpan<char> line) => line.Contains("-->", StringComparison.Ordinal) && Arrow().IsMatch(line);

    // The time before the arrow and the one after it. In a large file there are many: they are cut out of the line by hand.
    private static (Duration From, Duration To) TimesOf(ReadOnlySpan<char> line)
    {
        foreach (var match in Arrow().EnumerateMatches(line))
        {
            var times = line.Slice(match.Index, match.Length);
            var arrow = times.IndexOf("-->", StringComparison.Ordinal);
            return (TimeOf(times[..arrow].Trim()), TimeOf(times[(arrow + 3)..].Trim()));
        }

        return default;
    }

    // "1:02:03.5" or "02:03,500": with each colon what stands before it is worth sixty times as much.
    private static Duration TimeOf(ReadOnlySpan<char> text)
    {
        var comma = text.IndexOfAny('.', ',');
        long seconds = 0;
        foreach (var part in text[..comma].Split(':'))
        {
            seconds = (seconds * 60) + int.Parse(text[..comma][part], CultureInfo.InvariantCulture);
        }

        var fraction = text[(comma + 1)..];
        return Duration.FromMilliseconds((seconds * 1000) + (int.Parse(fraction, CultureInfo.InvariantCulture) * (fraction.Length switch { 1 => 100, 2 => 10, _ => 1 })));
    }

    private readonly record struct Cue(int Row, string Name, Duration From, Duration To, string Said);

    [GeneratedRegex(@"(?:[0-9]{1,3}:)?[0-9]{1,2}:[0-9]{2}[.,][0-9]{1,3}[ \t]+-->[ \t]+(?:[0-9]{1,3}:)?[0-9]{1,2}:[0-9]{2}[.,][0-9]{1,3}")]
    private static partial Regex Arrow();

    [GeneratedRegex(@"<[^>]{0,200}>")]
    private static partial Regex Tags();
}
