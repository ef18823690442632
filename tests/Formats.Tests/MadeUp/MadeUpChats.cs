using System.Globalization;
using System.Text;
using NodaTime;

namespace PoliteTally.Formats.Tests.MadeUp;

/// <summary>A message as it was written.</summary>
public sealed record TrueMessage(Instant At, string Name, string Text, bool Private);

/// <summary>A saved chat in a layout that was drawn at random, and what it says.</summary>
/// <param name="Layout">How it is written, in words.</param>
/// <param name="Text">The file.</param>
/// <param name="Messages">What it says.</param>
public sealed record MadeUpChat(string Layout, string Text, IReadOnlyList<TrueMessage> Messages);

/// <summary>Writes chats of one lesson in layouts drawn at random: how time, name, addressee and words stand in the lines. The same seed draws the same.</summary>
public sealed class MadeUpChats(int seed)
{
    /// <summary>When the lesson begins: 09:30 of a day in November, in a zone that is then at UTC.</summary>
    public static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);

    internal static readonly string[] Sentences =
    [
        "why does the wind back here?", "because a low passes north of us, I think", "yes", "look: it backs", "see you at 10:30", "is it 3 - 4 degrees?", "done :)", "what I think:", "1.10 m at the quay",
        "https://tides.skerrysound.example/moon:new", "from me to you, the tide tables", "me too - really", "Ana said so", "I agree with Juno: it does", "no idea at all today", "to be sure, ask the harbour", "spring tide > neap tide",
        "can everyone hear me", "page 12, second map", "høyvatn klokka ti", "潮が満ちる", "it is (nearly) full moon", "what time is it there, 9:15?", "a [very] long sound", "isobars; close together", "may I go now please?", "the wind goes to the north", "q2: b",
    ];

    // How a time is written, and whether it has seconds.
    private static readonly (string Told, Func<LocalTime, string> Write, bool Seconds)[] Clocks =
    [
        ("09:41:22", t => Told(t, "HH:mm:ss"), true), ("09:41", t => Told(t, "HH:mm"), false), ("9:41:22", t => Told(t, "H:mm:ss"), true), ("09:41:22.123", t => Told(t, "HH:mm:ss") + ".123", true),
        ("9:41:22 AM", t => Told(t, "h:mm:ss tt"), true), ("9:41 am", t => Told(t, "h:mm tt").ToLowerInvariant(), false), ("9:41 a.m.", t => Told(t, "h:mm") + (t.Hour < 12 ? " a.m." : " p.m."), false),
        ("上午9:41", t => (t.Hour < 12 ? "上午" : "下午") + Told(t, "h:mm"), false), ("09.41.22", t => Told(t, "HH.mm.ss"), true), ("9.41", t => Told(t, "H.mm"), false), ("klo 9.41", t => "klo " + Told(t, "H.mm"), false),
        ("kl. 09:41", t => "kl. " + Told(t, "HH:mm"), false), ("09:41 Uhr", t => Told(t, "HH:mm") + " Uhr", false), ("9h41", t => Told(t, "H'h'mm"), false),
    ];

    private static readonly (string Told, Func<string, string> Write)[] Days =
    [
        ("no day", t => t), ("no day", t => t), ("no day", t => t), ("2026-11-02 ", t => "2026-11-02 " + t), ("02/11/2026, ", t => "02/11/2026, " + t), ("11/2/26, ", t => "11/2/26, " + t), ("2.11.2026 ", t => "2.11.2026 " + t),
        ("2 November 2026 ", t => "2 November 2026 " + t), ("Mon, 2 Nov 2026 ", t => "Mon, 2 Nov 2026 " + t), ("Nov 2, 2026, ", t => "Nov 2, 2026, " + t), ("day behind", t => t + " 2026-11-02"),
    ];

    private static readonly (string Told, string Open, string Close)[] Brackets = [("bare", "", ""), ("bare", "", ""), ("[]", "[", "]"), ("()", "(", ")")];

    // How who and to whom are written; null where the layout cannot say that something was private.
    private static readonly (string Told, Func<string, string> ToAll, Func<string, string>? ToTeacher)[] Addresses =
    [
        ("name", n => n, null), ("name", n => n, null), ("name", n => n, n => $"{n} (privately)"), ("name", n => n, n => $"{n} (to {MadeUpClass.Teacher} only)"), ("name", n => n, n => $"{n} to {MadeUpClass.Teacher}"),
        ("to everyone", n => $"{n} to Everyone", n => $"{n} to {MadeUpClass.Teacher}"), ("from to", n => $"From {n} to Everyone", n => $"From {n} to {MadeUpClass.Teacher}"), ("from to", n => $"From {n} to Everyone (in meeting)", n => $"From {n} to {MadeUpClass.Teacher} (direct message)"),
        ("von an", n => $"Von {n} an Alle", n => $"Von {n} an {MadeUpClass.Teacher}"), ("de para", n => $"De {n} para Todos", n => $"De {n} para {MadeUpClass.Teacher}"), ("> everyone", n => $"{n} > everyone", n => $"{n} > {MadeUpClass.Teacher}"),
        ("→ all", n => $"{n} → all", n => $"{n} → {MadeUpClass.Teacher}"), ("(to everyone)", n => $"{n} (to everyone)", n => $"{n} (to {MadeUpClass.Teacher})"), ("till alla", n => $"{n} till alla", n => $"{n} till {MadeUpClass.Teacher}"),
    ];

    private static readonly string[] Places = ["first", "first", "first", "middle", "last, words below", "last, words before", "under", "over", "over, name and words"];
    private static readonly string[] Joiners = [" ", " ", " - ", " | ", ": ", "  ", ", "];
    private static readonly string[] Signs = [": ", ": ", ":", " : ", " - ", " – ", "> ", " > ", " >> ", "<>", " | ", "\n", "\n  ", "\n"];

    private readonly Random _random = new(seed);

    /// <summary>Draws the next one.</summary>
    public MadeUpChat Draw()
    {
        var (clock, day, bracket, place) = (_random.Of(Clocks), _random.Of(Days), _random.Of(Brackets), _random.Of(Places));
        var (joiner, sign, blank) = (_random.Of(Joiners), _random.Of(Signs), _random.Next(2) == 0);
        // Angles stand around a name, and nothing else; an arrow beside an arrow says nothing.
        var address = sign == "<>" || (sign.Contains('>') && place is not ("middle" or "under")) ? Addresses[_random.Next(2)] : _random.Of(Addresses);
        var (edited, deleted, long_, quoted, title, joins) = (Seldom(), Seldom(), Seldom(), Seldom(), Seldom(), Seldom());
        var nameOf = _random.Of<Func<(string Given, string Family), string>>([s => $"{s.Given} {s.Family}", s => $"{s.Given} {s.Family}", s => $"{s.Given} {s.Family[0]}.", s => $"{s.Family}, {s.Given}"]);
        var students = MadeUpClass.Students.ToArray();
        _random.Shuffle(students);
        var names = students.Take(_random.Next(3, 20)).Select(nameOf).Append(MadeUpClass.Teacher).Distinct().ToList();
        var inLine = place is "first" or "middle" or "last, words before" or "over, name and words" && !sign.StartsWith('\n') | place == "middle";
        var (text, messages, at) = (new StringBuilder(), new List<TrueMessage>(), From + Duration.FromSeconds(_random.Next(300)));
        if (title)
        {
            text.Append("Chat of lesson 12, Fog and haar\n\n");
        }

        for (var i = _random.Next(8, 50); i > 0; i--)
        {
            at += Duration.FromSeconds(_random.Next(2, 90));
            var local = at.InUtc().TimeOfDay;
            var shown = clock.Seconds ? new LocalTime(local.Hour, local.Minute, local.Second) : new LocalTime(local.Hour, local.Minute);
            var stamp = bracket.Open + day.Write(clock.Write(shown)) + bracket.Close;
            var (name, words) = (_random.Of(names), _random.Of(Sentences));
            if (joins && _random.Next(8) == 0)
            {
                text.Append(Written("joined the meeting", n => n));
                continue;
            }

            if (deleted && _random.Next(8) == 0)
            {
                text.Append(Written("This message was deleted", address.ToAll));
                continue;
            }

            var toTeacher = address.ToTeacher is not null && name != MadeUpClass.Teacher && _random.Next(6) == 0;
            var mark = edited && _random.Next(5) == 0 ? " (edited)" : "";
            var more = long_ && place != "last, words before" && _random.Next(4) == 0 ? _random.Of(Sentences) : null;
            var quote = quoted && inLine && place != "last, words before" && _random.Next(4) == 0 ? "\n> " + _random.Of(Sentences) : "";
            text.Append(Written($"{words}{(more is null ? "" : "\n" + more)}{mark}{quote}", toTeacher ? address.ToTeacher! : address.ToAll));
            messages.Add(new TrueMessage(From.InUtc().Date.At(shown).InUtc().ToInstant(), name, more is null ? words : $"{words} {more}", toTeacher));

            string Written(string said, Func<string, string> who) => Line(place, stamp, joiner, sign, who(name), said) + (blank && !inLine ? "\n\n" : "\n");
        }

        return new MadeUpChat($"{clock.Told}, {day.Told}, {bracket.Told}, {place}, “{joiner}”, “{sign.Replace("\n", "⏎")}”, {address.Told}{(edited ? ", edited" : "")}{(deleted ? ", deleted" : "")}{(joins ? ", joins" : "")}", text.ToString(), messages);
    }

    private static string Line(string place, string stamp, string joiner, string sign, string who, string words) => place switch
    {
        "first" => $"{stamp}{joiner}{Beside(sign, who, words)}",
        "middle" when stamp[0] is '[' or '(' => $"{who} {stamp}: {words}",
        "middle" => $"{who} - {stamp} - {words}",
        "last, words below" => $"{who}{(stamp[0] is '[' or '(' ? " " : "  ")}{stamp}\n{words}",
        "last, words before" when !sign.StartsWith('\n') => $"{Beside(sign, who, words)} {(stamp[0] is '[' or '(' ? "" : "- ")}{stamp}",
        "last, words before" => $"{who}: {words} {(stamp[0] is '[' or '(' ? "" : "- ")}{stamp}",
        "under" => $"{who}\n{stamp}\n{words}",
        "over" => $"{stamp}\n{who}\n{words}",
        _ => $"{stamp}\n{Beside(sign, who, words)}",
    };

    private static string Beside(string sign, string who, string words) => sign == "<>" ? $"<{who}> {words}" : $"{who}{sign}{words}";

    private bool Seldom() => _random.Next(4) == 0;

    private static string Told(LocalTime time, string pattern) => time.ToString(pattern, CultureInfo.InvariantCulture);
}
