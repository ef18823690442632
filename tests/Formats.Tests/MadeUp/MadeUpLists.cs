using System.Globalization;
using NodaTime;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>A stay as it was.</summary>
public sealed record TrueStay(string Name, Instant Joined, Instant Left);

/// <summary>An attendance list in a layout that was drawn at random, and what it says.</summary>
public sealed record MadeUpList(string Layout, string Text, IReadOnlyList<TrueStay> Stays);

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

    private readonly Random _random = new(seed);

    /// <summary>Draws the next one.</summary>
    public MadeUpList Draw()
    {
        var (time, separator, words, headless, title, quoted) = (Of(Times), Of<char>([',', ';', '\t']), Of(Headings), _random.Next(4) == 0, _random.Next(4) == 0, _random.Next(4) == 0);
        var students = MadeUpClass.Students.ToArray();
        _random.Shuffle(students);
        var stays = students.Take(_random.Next(5, 28)).Select(s => $"{s.Given} {s.Family}").Append(MadeUpClass.Teacher).Select(name =>
        {
            var joined = Cut(MadeUpChats.From + Duration.FromSeconds(_random.Next(-300, 600)), time.Seconds);
            return new TrueStay(name, joined, Cut(MadeUpChats.From + Duration.FromSeconds(_random.Next(1500, 3100)), time.Seconds));
        }).ToList();
        var (device, email, length) = (_random.Next(4) == 0, _random.Next(4) == 0, _random.Next(4) == 0);
        var columns = new List<(string Heading, Func<TrueStay, string> Cell)> { (words[0], s => s.Name), (words[1], s => time.Write(s.Joined)), (words[2], s => time.Write(s.Left)) };
        if (email)
        {
            columns.Add(("E-mail", s => $"{s.Name.Split(' ')[0].ToLowerInvariant()}@pupils.skerrysound.example"));
        }

        if (length)
        {
            columns.Add(("Duration", s => $"{(s.Left - s.Joined).TotalMinutes.ToString("0", CultureInfo.InvariantCulture)} min"));
        }

        if (device)
        {
            columns.Add(("Role", _ => "Attendee"));
        }

        var rows = stays.Select(s => string.Join(separator, columns.Select(c => Quoted(c.Cell(s), separator, quoted)))).ToList();
        var head = (title && !headless ? "Lesson 12, Fog and haar\n\n" : "") + (headless ? "" : string.Join(separator, columns.Select(c => c.Heading)) + "\n");
        return new MadeUpList($"{string.Join(' ', columns.Select(c => c.Heading))}, “{separator}”, {time.Told}{(headless ? ", no headings" : "")}{(title ? ", title" : "")}", head + string.Join('\n', rows) + "\n", stays);
    }

    private static Instant Cut(Instant at, bool seconds) => seconds ? at : Instant.FromUnixTimeSeconds(at.ToUnixTimeSeconds() / 60 * 60);

    private static string Quoted(string cell, char separator, bool always) => always || cell.Contains(separator) ? $"\"{cell}\"" : cell;

    private T Of<T>(IReadOnlyList<T> some) => some[_random.Next(some.Count)];

    private static string Told(Instant at, string pattern) => at.InUtc().LocalDateTime.ToString(pattern, CultureInfo.InvariantCulture);
}
