using System.Globalization;
using NodaTime;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>A stay as it was.</summary>
public sealed record TrueStay(string Name, Instant Joined, Instant Left);

/// <summary>An attendance list in a layout that was drawn at random, and what it says, as <see cref="Stay"/> and <see cref="Length"/> put it.</summary>
/// <param name="From">When its lesson began.</param>
public sealed record MadeUpList(string Layout, string Text, Instant From, IReadOnlyList<string> Rows)
{
    public static string Stay(string name, Instant? joined, Instant? left) => $"{name} {joined} {left}";

    public static string Length(string name, Duration? length) => $"{name} {length?.TotalMinutes:0}";
}

/// <summary>Writes attendance lists in layouts drawn at random: headings of many words or none, a title above, what else stands beside.</summary>
public sealed class MadeUpLists(int seed)
{
    private static readonly string[][] Headings =
    [
        ["Name", "Joined", "Left"], ["Participant", "Join time", "Leave time"], ["Full name", "First seen", "Last seen"], ["Teilnehmer", "Beitritt", "Austritt"], ["Student", "In", "Out"], ["Nom", "Arrivée", "Départ"],
    ];

    private static readonly (string Told, Func<Instant, string> Write, bool Seconds)[] Times =
    [
        ("09:28", t => Told(t, "HH:mm"), false), ("09:28:05", t => Told(t, "HH:mm:ss"), true), ("9:28 AM", t => Told(t, "h:mm tt"), false), ("9:28:05 AM", t => Told(t, "h:mm:ss tt"), true), ("2026-11-02 09:28:05", t => Told(t, "uuuu-MM-dd HH:mm:ss"), true),
        ("02/11/2026 09:28", t => Told(t, "dd/MM/uuuu HH:mm"), false), ("11/2/2026, 9:28:05 AM", t => Told(t, "M/d/uuuu, h:mm:ss tt"), true), ("2.11.2026 9:28", t => Told(t, "d.M.uuuu H:mm"), false), ("iso", t => Told(t, "uuuu-MM-dd'T'HH:mm:ss'Z'"), true),
    ];

    // In the middle of the day, across midnight, and in the hours in which clocks go back and forward.
    private static readonly (string Told, Instant At)[] Lessons =
    [
        ("", MadeUpChats.From), ("", MadeUpChats.From), ("", MadeUpChats.From), (", across midnight", Instant.FromUtc(2026, 11, 2, 23, 30)), (", clocks go back", Instant.FromUtc(2026, 10, 25, 0, 30)), (", clocks go forward", Instant.FromUtc(2027, 3, 28, 0, 30)),
    ];

    private static readonly (string Told, Func<Duration, string> Write)[] Lengths =
    [
        ("47", d => $"{d.TotalMinutes:0}"), ("47 min", d => $"{d.TotalMinutes:0} min"), ("0h 47m", d => $"{d.Hours}h {d.Minutes}m"), ("00:47:00", d => $"{d.Hours:00}:{d.Minutes:00}:00"), ("0 hours 47 minutes", d => $"{d.Hours} hours {d.Minutes} minutes"),
        ("0 Std. 47 Min.", d => $"{d.Hours} Std. {d.Minutes} Min."), ("47 minutter", d => $"{d.TotalMinutes:0} minutter"), ("0 heures et 47 minutes", d => $"{d.Hours} heures et {d.Minutes} minutes"), ("0 t 47 min", d => $"{d.Hours} t {d.Minutes} min"), ("PT0H47M", d => $"PT{d.Hours}H{d.Minutes}M"),
    ];

    private static readonly string[][] Comings = [["Joined", "Left"], ["Join", "Leave"], ["has joined", "has left"], ["beigetreten", "verlassen"], ["entró", "salió"], ["tiltrådte", "forlod"]];

    private readonly Random _random = new(seed);

    /// <summary>Draws the next one.</summary>
    public MadeUpList Draw()
    {
        var (time, separator, words, headless, title, quoted) = (_random.Of(Times), _random.Of<char>([',', ';', '\t']), _random.Of(Headings), _random.Next(4) == 0, _random.Next(4) == 0, _random.Next(4) == 0);
        var (when, from) = _random.Of(Lessons);
        var (shape, length, comings) = (_random.Next(8), _random.Of(Lengths), _random.Of(Comings));
        var students = MadeUpClass.Students.ToArray();
        _random.Shuffle(students);
        var stays = students.Take(_random.Next(5, 28)).Select(s => $"{s.Given} {s.Family}").Append(MadeUpClass.Teacher).Select(name =>
        {
            var joined = Cut(from + Duration.FromSeconds(_random.Next(-300, 600)), time.Seconds);
            return new TrueStay(name, joined, Cut(from + Duration.FromSeconds(_random.Next(1500, 3100)), time.Seconds));
        }).ToList();
        List<(string Heading, Func<TrueStay, string> Cell)> columns = shape == 0 ? [(words[0], s => s.Name), ("Duration", s => length.Write(Whole(s)))]
            : [(words[0], s => s.Name), (words[1], s => time.Write(s.Joined)), (words[2], s => time.Write(s.Left))];
        if (_random.Next(4) == 0)
        {
            columns.Add(("E-mail", s => $"{s.Name.Split(' ')[0].ToLowerInvariant()}@pupils.skerrysound.example"));
        }

        if (shape > 0 && _random.Next(4) == 0)
        {
            columns.Add(("Duration", s => length.Write(Whole(s))));
        }

        if (_random.Next(4) == 0)
        {
            columns.Add(("Role", _ => "Attendee"));
        }

        // Only a list with headings can have others above and below.
        headless &= shape > 0;
        var (above, below) = headless ? ("", "") : (title ? _random.Of(["Lesson 12, Fog and haar\n\n", Line("Lesson", "Fog and haar") + Line("People", $"{stays.Count}") + "\n", "Summary\n" + Line("Meeting", "Fog and haar") + Line("Attended", $"{stays.Count}") + "\nParticipants\n"]) : "",
            _random.Next(4) == 0 ? _random.Of(["\n" + Line("Total", $"{stays.Count}"), "\nReactions\n" + Line("Name", "Hands", "Hearts") + Line(stays[0].Name, "2", "1") + Line(stays[1].Name, "0", "4")]) : "");
        if (shape == 1)
        {
            var events = stays.SelectMany(s => new[] { (s.Name, At: s.Joined, Comes: true), (s.Name, At: s.Left, Comes: false) }).OrderBy(e => e.At).ToList();
            return new MadeUpList(
                $"events, {words[0]}, {comings[0]}, “{separator}”, {time.Told}{(above.Length > 0 ? ", above" : "")}{(below.Length > 0 ? ", below" : "")}{when}",
                above + Line("Time", words[0], "Event") + string.Concat(events.Select(e => Line(time.Write(e.At), e.Name, comings[e.Comes ? 0 : 1]))) + below, from,
                [.. events.Select(e => MadeUpList.Stay(e.Name, e.Comes ? e.At : null, e.Comes ? null : e.At))]);
        }

        return new MadeUpList(
            $"{string.Join(' ', columns.Select(c => c.Heading))}, “{separator}”, {(shape == 0 ? length.Told : time.Told)}{(headless ? ", no headings" : "")}{(above.Length > 0 ? ", above" : "")}{(below.Length > 0 ? ", below" : "")}{when}",
            above + (headless ? "" : Line([.. columns.Select(c => c.Heading)])) + string.Concat(stays.Select(s => Line([.. columns.Select(c => c.Cell(s))]))) + below, from,
            [.. stays.Select(s => shape == 0 ? MadeUpList.Length(s.Name, Whole(s)) : MadeUpList.Stay(s.Name, s.Joined, s.Left))]);

        string Line(params string[] cells) => string.Join(separator, cells.Select(c => Quoted(c, separator, quoted))) + "\n";

        static Duration Whole(TrueStay stay) => Duration.FromMinutes(Math.Round((stay.Left - stay.Joined).TotalMinutes));
    }

    private static Instant Cut(Instant at, bool seconds) => seconds ? at : Instant.FromUnixTimeSeconds(at.ToUnixTimeSeconds() / 60 * 60);

    private static string Quoted(string cell, char separator, bool always) => always || cell.Contains(separator) ? $"\"{cell}\"" : cell;

    private static string Told(Instant at, string pattern) => at.InZone(pattern.EndsWith("'Z'", StringComparison.Ordinal) ? DateTimeZone.Utc : MadeUpReading.Zone).LocalDateTime.ToString(pattern, CultureInfo.InvariantCulture);
}
