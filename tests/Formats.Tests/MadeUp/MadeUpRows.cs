using System.Globalization;
using System.Text.Json.Nodes;
using NodaTime;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>Writes chats as rows in layouts drawn at random: tables with headings of many words, or of none, their columns in any order and others between; JSON with sender and words at any depth.</summary>
public sealed class MadeUpRows(int seed)
{
    private static readonly string[][] Headings =
    [
        ["Time", "From", "To", "Message"], ["sent", "author", "recipient", "body"], ["Uhrzeit", "Von", "An", "Nachricht"], ["Heure", "De", "À", "Texte"], ["Kello", "Kuka", "Kenelle", "Mitä"], ["When", "Who", "For", "Said"],
        ["A", "B", "C", "D"], ["Zeitpunkt", "Teilnehmer", "Empfänger", "Inhalt"], ["ts", "participant", "audience", "line"], ["Tími", "Navn", "Til", "Boð"],
    ];

    private static readonly (string Told, Func<Instant, string> Write)[] Times =
    [
        ("09:41:22", t => Told(t, "HH:mm:ss")), ("2026-11-02 09:41:22", t => Told(t, "uuuu-MM-dd HH:mm:ss")), ("iso", t => Told(t, "uuuu-MM-dd'T'HH:mm:ss'Z'")), ("02/11/2026 09:41:22", t => Told(t, "dd/MM/uuuu HH:mm:ss")),
        ("9:41:22 AM", t => Told(t, "h:mm:ss tt")), ("seconds", t => t.ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture)), ("milliseconds", t => t.ToUnixTimeMilliseconds().ToString(CultureInfo.InvariantCulture)),
        ("2 Nov 2026 09:41:22", t => Told(t, "d MMM uuuu HH:mm:ss")), ("09.41.22", t => Told(t, "HH.mm.ss")),
    ];

    // Paths of sender, words and time; the last of each is a name that says nothing.
    private static readonly string[] Senders = ["sender", "from.name", "from.user.displayName", "author.profile.title", "meta.x"];
    private static readonly string[] Bodies = ["text", "body", "body.content", "message.text", "payload.y"];
    private static readonly string[] Moments = ["time", "sentAt", "meta.created", "when.at", "z"];
    private static readonly string[] Lists = ["", "messages", "meeting.chat", "data.items"];

    private readonly Random _random = new(seed);

    /// <summary>Draws the next one.</summary>
    public MadeUpChat Draw()
    {
        var students = MadeUpClass.Students.ToArray();
        _random.Shuffle(students);
        var names = students.Take(_random.Next(3, 20)).Select(s => $"{s.Given} {s.Family}").Append(MadeUpClass.Teacher).ToList();
        var (messages, at, hasTo) = (new List<TrueMessage>(), MadeUpChats.From + Duration.FromSeconds(_random.Next(300)), _random.Next(2) == 0);
        for (var i = _random.Next(8, 50); i > 0; i--)
        {
            at += Duration.FromSeconds(_random.Next(2, 90));
            var name = _random.Of(names);
            messages.Add(new TrueMessage(at, name, _random.Of(MadeUpChats.Sentences), hasTo && name != MadeUpClass.Teacher && _random.Next(6) == 0));
        }

        return _random.Next(3) == 0 ? Json(messages, hasTo) : Table(messages, hasTo);
    }

    private MadeUpChat Table(List<TrueMessage> messages, bool hasTo)
    {
        var (time, separator, headless, words) = (_random.Of(Times), _random.Of<char>([',', ';', '\t', '|']), _random.Next(4) == 0, _random.Of(Headings));
        var columns = new List<(string Heading, Func<TrueMessage, int, string> Cell)> { (words[0], (m, _) => time.Write(m.At)), (words[1], (m, _) => m.Name), (words[3], (m, _) => m.Text) };
        if (hasTo)
        {
            columns.Add((words[2], (m, _) => m.Private ? MadeUpClass.Teacher : "Everyone"));
        }

        if (_random.Next(3) == 0)
        {
            columns.Add(("Id", (_, i) => (4000 + i).ToString(CultureInfo.InvariantCulture)));
        }

        if (_random.Next(3) == 0)
        {
            columns.Add(("Type", (_, _) => "chat"));
        }

        var shown = columns.ToArray();
        if (_random.Next(2) == 0)
        {
            _random.Shuffle(shown);
        }

        var rows = messages.Select((m, i) => string.Join(separator, shown.Select(c => Writing.Quoted(c.Cell(m, i), separator))));
        return new MadeUpChat(
            $"table of {string.Join(' ', shown.Select(c => c.Heading))}, “{separator}”, {time.Told}{(headless ? ", no headings" : "")}",
            string.Join('\n', headless ? rows : rows.Prepend(string.Join(separator, shown.Select(c => c.Heading)))) + "\n", messages);
    }

    private MadeUpChat Json(List<TrueMessage> messages, bool hasTo)
    {
        var (time, sender, body, moment, place) = (_random.Of(Times[..7]), _random.Of(Senders), _random.Of(Bodies), _random.Of(Moments), _random.Of(Lists));
        var (counts, ids) = (_random.Next(2) == 0, _random.Next(2) == 0);
        var list = new JsonArray([.. messages.Select((m, i) =>
        {
            var one = new JsonObject();
            if (ids)
            {
                one["id"] = $"m{4000 + i}";
            }

            one.Put(moment, time.Told.EndsWith("seconds", StringComparison.Ordinal) && counts ? long.Parse(time.Write(m.At), CultureInfo.InvariantCulture) : time.Write(m.At));
            one.Put(body, m.Text);
            one.Put(sender, m.Name);
            if (hasTo)
            {
                one["to"] = m.Private ? MadeUpClass.Teacher : "Everyone";
            }

            if (counts)
            {
                one["reactions"] = new JsonObject { ["count"] = i % 3 };
            }

            return (JsonNode)one;
        })]);
        var root = new JsonObject { ["meeting"] = new JsonObject { ["title"] = "Fog and haar" } };
        root.Put(place.Length == 0 ? "x" : place, list);
        return new MadeUpChat($"JSON at “{place}”: {moment} {sender} {body}, {time.Told}", Writing.Json(place.Length == 0 ? list : root), messages);
    }

    private static string Told(Instant at, string pattern) => at.InUtc().LocalDateTime.ToString(pattern, CultureInfo.InvariantCulture);
}
