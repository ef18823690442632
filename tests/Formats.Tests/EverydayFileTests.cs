using System.Globalization;
using System.Text;
using NodaTime;
using PoliteTally.Core.Merging;
using PoliteTally.Formats.Tests.MadeUp;

namespace PoliteTally.Formats.Tests;

/// <summary>Files as people copy, print and write them down: what a person could read is read, and never otherwise than it is meant.</summary>
public sealed class EverydayFileTests
{
    private static readonly Instant From = MadeUpChats.From;
    private static readonly Instant To = MadeUpReading.To;
    private static readonly MadeUpClass Class = new();
    private static readonly string[] Names = [.. MadeUpClass.Students.Take(9).Select(s => $"{s.Given} {s.Family}")];

    private static readonly (LocalTime At, string Name, string Text)[] Said =
    [
        .. new[] { "Why does the haar come in from the sea?", "because the water is cold", "two: the moon and the sun", "is it 12 hours, high to high?", "good morning :)", "9.5 metres at the pier", "thanks", "half past ten" }
            .SelectMany((text, i) => new[] { (From.InZone(MadeUpReading.Zone).TimeOfDay.PlusMinutes((i * 4) + 1), i == 2 ? MadeUpClass.Teacher : Names[i], text), (From.InZone(MadeUpReading.Zone).TimeOfDay.PlusMinutes((i * 4) + 3), Names[(i * 5) % 9], $"{text} again") }),
    ];

    private static readonly (string Name, LocalTime In, LocalTime Out)[] Stays = [.. Names.Select((n, i) => (n, new LocalTime(9, 28 + i, 7), new LocalTime(10, 10 + i, 12)))];

    private static string Told(LocalTime time, string pattern = "HH:mm") => time.ToString(pattern, CultureInfo.InvariantCulture);

    private static byte[] Bytes(string text) => PlainContent.Of(Encoding.UTF8.GetBytes(text));

    private static void IsTakenFor(FileKind kind, byte[] bytes) => MadeUpReading.KindsOf(bytes, Class).ShouldBe([kind]);

    private static readonly Dictionary<string, Func<string>> Chats = new()
    {
        ["from and to, words below"] = () => Each(m => $"From {m.Name} to Everyone: {Told(m.At, "h:mm tt")}\n  {m.Text}\n"),
        ["quoted in a mail"] = () => $"Hi Tamsin, here is the chat:\n\n{Each(m => $"> {Told(m.At)} {m.Name}: {m.Text}\n")}\nBest, Juno\n",
        ["dots and fm"] = () => Each(m => $"{m.Name} · {Told(m.At, "H.mm")} fm\n{m.Text}\n\n"),
        ["a page, in blocks"] = () => $"<html><head><title>Chat</title></head><body>{Each(m => $"<div class=m><b>{m.Name}</b> <span>{Told(m.At)}</span><p>{m.Text}</p></div>\n")}</body></html>",
        ["a page, as a table"] = () => $"<!DOCTYPE html><table><tr><th>When</th><th>Who</th><th>What</th></tr>{Each(m => $"<tr><td>{Told(m.At)}</td><td>{m.Name}</td><td>{m.Text.Replace("'", "&#39;")}</td></tr>")}</table>",
        ["a table in Markdown"] = () => $"| time | name | message |\n|---|:-:|---|\n{Each(m => $"| {Told(m.At)} | {m.Name} | {m.Text} |\n")}",
        ["a table that is drawn"] = () => $"+-------+------+\n| time | name | message |\n+-------+------+\n{Each(m => $"| {Told(m.At)} | {m.Name} | {m.Text} |\n")}+-------+------+\n",
        ["columns under one another"] = () => $"{"Message",-50}{"Sender",-28}Time\n{Each(m => $"{m.Text,-50}{m.Name,-28}{Told(m.At)}\n")}",
        ["objects a line each"] = () => Each(m => $"{{\"ts\":\"2026-11-02T{Told(m.At)}:00Z\",\"user\":{{\"displayName\":\"{m.Name}\"}},\"body\":{{\"content\":\"{m.Text}\"}}}}\n"),
        ["rows in JSON"] = () => $"{{\"log\":[{string.Join(',', Said.Select(m => $"[\"{Told(m.At)}\",\"{m.Name}\",\"{m.Text}\"]"))}]}}",
        ["elements"] = () => $"<?xml version=\"1.0\"?><chat>{Each(m => $"<message time=\"2026-11-02T{Told(m.At)}:00Z\" from=\"{m.Name}\">{m.Text}</message>")}</chat>",
        ["labels and values"] = () => $"messages:\n{Each(m => $"- at: {Told(m.At)}:00\n  who: {m.Name}\n  text: \"{m.Text}\"\n")}",
        ["before noon in front"] = () => Each(m => $"午前{Told(m.At, "h:mm")} {m.Name}：{m.Text}\n"),
        ["a sentence"] = () => Each(m => $"Um {Told(m.At, "H.mm")} Uhr schrieb {m.Name}: {m.Text}\n"),
        ["the time below"] = () => Each(m => $"{m.Name} says:\n{m.Text}\n{Told(m.At)}\n"),
        ["numbered"] = () => $"Chat of the lesson\n\n{string.Concat(Said.Select((m, i) => $"{i + 1}. {m.Name} [{Told(m.At)}]  {m.Text}\n"))}",
        ["rules between"] = () => Each(m => $"{m.Name}, 2 Nov 2026 at {Told(m.At)}\n{m.Text}\n---\n"),
        ["letters over the name"] = () => Each(m => $"{m.Name[0]}{m.Name.Split(' ')[1][0]}\n{m.Name}  {Told(m.At, "h:mm tt")}\n{m.Text}\n\n"),
        ["the class beside the name"] = () => Each(m => $"{Told(m.At)} {m.Name} (Year 8): {m.Text}\n"),
        ["name, time, colon"] = () => Each(m => $"{m.Name} {Told(m.At)}: {m.Text}\n"),
        ["a zone in letters"] = () => Each(m => $"{m.Name}, 02/11/2026 {Told(m.At)} GMT — {m.Text}\n"),
        ["a log of a program"] = () => Each(m => $"2026-11-02 {Told(m.At)}:12,345 INFO chat - {m.Name} -> all: {m.Text}\n"),
        ["angles and a sign"] = () => $"09:29 -!- {Names[0]} has joined\n{Each(m => $"{Told(m.At)} <@{m.Name}> {m.Text}\n")}",
        ["seconds since 1970"] = () => Each(m => $"{(From.InZone(MadeUpReading.Zone).Date + m.At).InUtc().ToInstant().ToUnixTimeSeconds()} {m.Name}: {m.Text}\n"),
        ["lines with numbers"] = () => string.Concat(Said.Select((m, i) => $"{i + 1:000} {Told(m.At)} {m.Name}: {m.Text}\n")),
        ["what somebody is behind the name"] = () => Each(m => $"{m.Name}, student, {Told(m.At)}: {m.Text}\n"),
        ["no signs at all"] = () => Each(m => $"20261102T{Told(m.At, "HHmm")}00Z,{m.Name},\"{m.Text}\"\n"),
        ["lines in quotation marks"] = () => $"Chat\n{Each(m => $"\"{Told(m.At)} {m.Name}: {m.Text}\"\n")}",
        ["emphasis of Markdown"] = () => Each(m => $"* **{m.Name}** _{Told(m.At)}_ {m.Text}\n"),
        ["names over words that end with a time"] = () => Each(m => $"{m.Name}\n{m.Text}  {Told(m.At, "h:mm tt")}\n"),
        ["days that a spreadsheet counts"] = () => $"When,Who,What\n{Each(m => $"{46328 + (m.At.TickOfDay / (double)NodaConstants.TicksPerDay):0.000000},{m.Name},\"{m.Text}\"\n")}",
        ["when each was changed"] = () => $"sent,edited,name,text\n{Each(m => $"2026-11-02 {Told(m.At)}:00,2026-11-02 {Told(m.At)}:09,{m.Name},\"{m.Text}\"\n")}",
        ["said at"] = () => Each(m => $"* {m.Name} said at {Told(m.At, "H'h'mm")}: {m.Text}\n"),
    };

    public static TheoryData<string> ChatNames => [.. Chats.Keys];

    private static string Each(Func<(LocalTime At, string Name, string Text), string> write) => string.Concat(Said.Select(write));

    [Theory]
    [MemberData(nameof(ChatNames))]
    public void A_chat(string how)
    {
        var bytes = Bytes(Chats[how]());
        IsTakenFor(FileKind.Chat, bytes);
        var read = ChatFile.Read(bytes, null, MadeUpReading.Zone, From, Class.IsNameHere);
        read.Unclear.ShouldBeEmpty();
        read.Rows.Select(r => $"{r.Problems.Count} {r.At!.Value.InZone(MadeUpReading.Zone).TimeOfDay:HH:mm} {r.Name}: {r.Text}").ShouldBe(Said.Select(m => $"0 {Told(m.At)} {m.Name}: {m.Text}"));
    }

    [Fact]
    public void Messages_under_the_line_of_another_day_are_of_that_day()
    {
        var text = $"1 November 2026\n{Told(Said[0].At)} {Names[0]}: the day before\n{Told(Said[1].At)} {Names[1]}: the day before\n2 November 2026\n{Each(m => $"{Told(m.At)} {m.Name}: {m.Text}\n")}";
        var read = ChatFile.Read(Bytes(text), null, MadeUpReading.Zone, From, Class.IsNameHere);
        read.Rows.Count(r => r.Problems.Count > 0).ShouldBe(2);
        read.Rows[0].Problems.ShouldHaveSingleItem().ShouldContain("2026-11-01");
    }

    [Fact]
    public void A_day_that_somebody_wrote_is_what_they_wrote()
    {
        var text = Each(m => $"{m.Name} {Told(m.At)}\n{(m == Said[4] ? "24 November 2026" : m.Text)}\n\n");
        var read = ChatFile.Read(Bytes(text), null, MadeUpReading.Zone, From, Class.IsNameHere);
        read.Rows.Select(r => r.Text).ShouldBe(Said.Select(m => m == Said[4] ? "24 November 2026" : m.Text));
        read.Rows.ShouldAllBe(r => r.Problems.Count == 0);
    }

    private static readonly Dictionary<string, Func<string>> Lists = new()
    {
        ["three lines each"] = () => $"Participants ({Stays.Length})\n\n{Of(s => $"{s.Name}\n{Told(s.In)} - {Told(s.Out)}\n{Minutes(s)} min\n")}",
        ["a role between"] = () => Of(s => $"{s.Name}\nStudent\nJoined {Told(s.In, "h:mm tt")}  Left {Told(s.Out, "h:mm tt")}\n\n"),
        ["sentences"] = () => Of(s => $"{s.Name} joined {Told(s.In)}, left {Told(s.Out)} ({Minutes(s)} min)\n"),
        ["sentences with dots"] = () => Of(s => $"{s.Name} was in the lesson from {Told(s.In, "H.mm")} to {Told(s.Out, "H.mm")}.\n"),
        ["times first"] = () => Of(s => $"{Told(s.In)}–{Told(s.Out)} {s.Name}\n"),
        ["times with a hyphen"] = () => Of(s => $"{s.Name}: {Told(s.In)}-{Told(s.Out)}\n"),
        ["columns under one another"] = () => $"Tides in the sound\n\n{"Joined",-12}{"Left",-12}Name\n{Of(s => $"{Told(s.In, "h:mm tt"),-12}{Told(s.Out, "h:mm tt"),-12}{s.Name}\n")}",
        ["columns with numbers"] = () => $"{"No",-4}{"Name",-28}{"In",-8}{"Out",-8}Min\n{string.Concat(Stays.Select((s, i) => $"{i + 1,-4}{s.Name,-28}{Told(s.In),-8}{Told(s.Out),-8}{Minutes(s)}\n"))}",
        ["Markdown"] = () => $"| Name | In | Out |\n|:--|--:|--:|\n{Of(s => $"| {s.Name} | {Told(s.In)} | {Told(s.Out)} |\n")}",
        ["a page"] = () => $"<ul>{Of(s => $"<li><b>{s.Name}</b><br>{Told(s.In)} – {Told(s.Out)} <i>({Minutes(s)} min)</i></li>")}</ul>",
        ["labels and values"] = () => Of(s => $"Name: {s.Name}\nJoined: {Told(s.In)}\nLeft: {Told(s.Out)}\nDuration: {Minutes(s)} min\n\n"),
        ["objects under names"] = () => $"{{{string.Join(',', Stays.Select(s => $"\"{s.Name}\":{{\"join\":\"2026-11-02T{Told(s.In, "HH:mm:ss")}Z\",\"leave\":\"2026-11-02T{Told(s.Out, "HH:mm:ss")}Z\"}}"))}}}",
        ["stays inside of people"] = () => $"{{\"participants\":[{string.Join(',', Stays.Select(s => $"{{\"display_name\":\"{s.Name}\",\"sessions\":[{{\"in\":\"2026-11-02T{Told(s.In, "HH:mm:ss")}Z\",\"out\":\"2026-11-02T{Told(s.Out, "HH:mm:ss")}Z\"}}]}}"))}]}}",
        ["two times in a cell"] = () => $"Name,When\n{Of(s => $"{s.Name},{Told(s.In)} - {Told(s.Out)}\n")}",
        ["intervals"] = () => $"Name;When\n{Of(s => $"{s.Name};2026-11-02T{Told(s.In, "HH:mm:ss")}Z/2026-11-02T{Told(s.Out, "HH:mm:ss")}Z\n")}",
        ["parts of a day"] = () => $"Name,Joined,Left\n{Of(s => $"{s.Name},{Part(s.In)},{Part(s.Out)}\n")}",
        ["days that a spreadsheet counts"] = () => $"Name;Joined;Left\n{Of(s => $"{s.Name};46328{Part(s.In)[1..].Replace('.', ',')};46328{Part(s.Out)[1..].Replace('.', ',')}\n")}",
        ["zones in letters"] = () => $"Name,Join,Leave\n{Of(s => $"{s.Name},{Told(s.In, "h:mm tt")} GMT,{Told(s.Out, "h:mm tt")} GMT\n")}",
        ["days of a mail"] = () => $"Name;Join;Leave\n{Of(s => $"{s.Name};Mon, 02 Nov 2026 {Told(s.In, "HH:mm:ss")} +0000;Mon, 02 Nov 2026 {Told(s.Out, "HH:mm:ss")} +0000\n")}",
        ["the year last"] = () => $"Name;Join;Leave\n{Of(s => $"{s.Name};Mon Nov 2 {Told(s.In, "HH:mm:ss")} 2026;Mon Nov 2 {Told(s.Out, "HH:mm:ss")} 2026\n")}",
        ["no signs at all"] = () => $"Name;Join;Leave\n{Of(s => $"{s.Name};20261102T{Told(s.In, "HHmmss")}Z;20261102T{Told(s.Out, "HHmmss")}Z\n")}",
        ["dots in both"] = () => $"Name;Join;Leave\n{Of(s => $"{s.Name};02.11.26, {Told(s.In, "HH.mm")};02.11.26, {Told(s.Out, "HH.mm")}\n")}",
        ["a day in words"] = () => $"Name;Join;Leave\n{Of(s => $"{s.Name};Monday 2 November 2026 at {Told(s.In)};Monday 2 November 2026 at {Told(s.Out)}\n")}",
        ["ticks beside times"] = () => $"Name,Present?,Time joined,Time left\n{Of(s => $"{s.Name},yes,{Told(s.In)},{Told(s.Out)}\n")}",
        ["two columns of names"] = () => $"Last name,First name,Arrived,Went\n{Of(s => $"{s.Name[(s.Name.IndexOf(' ') + 1)..]},{s.Name[..s.Name.IndexOf(' ')]},{Told(s.In)},{Told(s.Out)}\n")}",
        ["days before both, a length in words"] = () => $"Teilnehmer,Beitritt,Austritt,Duration,Role\n{Of(s => $"{s.Name},2026-11-02 {Told(s.In, "HH:mm:ss")},2026-11-02 {Told(s.Out, "HH:mm:ss")},0 hours {Minutes(s)} minutes,Attendee\n")}",
        ["days before both, a sum above"] = () => $"Summary\nMeeting,Fog and haar\n\nParticipants\nParticipant,Join time,Leave time,Duration\n{Of(s => $"{s.Name},2026-11-02 {Told(s.In, "HH:mm:ss")},2026-11-02 {Told(s.Out, "HH:mm:ss")},0 heures et {Minutes(s)} minutes\n")}",
        ["days before both, reactions below"] = () => $"Teilnehmer,Beitritt,Austritt,E-mail\n{Of(s => $"{s.Name},2026-11-02 {Told(s.In, "HH:mm:ss")},2026-11-02 {Told(s.Out, "HH:mm:ss")},{s.Name[..2]}{Minutes(s)}@school.example\n")}\nReactions\nName,Hands,Hearts\n{Names[0]},2,1\n{Names[1]},0,3\n",
        ["elements"] = () => $"<attendees>{Of(s => $"<person><name>{s.Name}</name><in>2026-11-02T{Told(s.In, "HH:mm:ss")}Z</in><out>2026-11-02T{Told(s.Out, "HH:mm:ss")}Z</out></person>")}</attendees>",
    };

    public static TheoryData<string> ListNames => [.. Lists.Keys];

    private static string Part(LocalTime time) => (time.TickOfDay / (double)NodaConstants.TicksPerDay).ToString("0.000000000", CultureInfo.InvariantCulture);

    private static string Of(Func<(string Name, LocalTime In, LocalTime Out), string> write) => string.Concat(Stays.Select(write));

    private static long Minutes((string Name, LocalTime In, LocalTime Out) stay) => Period.Between(stay.In, stay.Out, PeriodUnits.Minutes).Minutes;

    [Theory]
    [MemberData(nameof(ListNames))]
    public void Who_came_and_went(string how)
    {
        var bytes = Bytes(Lists[how]());
        IsTakenFor(FileKind.Attendance, bytes);
        var read = AttendanceFile.Read(bytes, null, MadeUpReading.Zone, From, To);
        read.Unclear.Concat(read.Problems).ShouldBeEmpty();
        read.Rows.Select(r => $"{r.Name} {r.Joined!.Value.InZone(MadeUpReading.Zone).TimeOfDay:HH:mm} {r.Left!.Value.InZone(MadeUpReading.Zone).TimeOfDay:HH:mm}").ShouldBe(Stays.Select(s => $"{s.Name} {Told(s.In)} {Told(s.Out)}"));
    }

    [Theory]
    [InlineData("{1} {0} entered the meeting", "{1} {0} left the meeting")]
    [InlineData("{0} joined the meeting at {1}", "{0} left the meeting at {1}")]
    [InlineData("[{1}] {0} ist beigetreten", "[{1}] {0} hat die Besprechung verlassen")]
    public void A_log_of_comings_and_goings(string comes, string goes)
    {
        var events = Stays.SelectMany(s => new[] { (At: s.In, Line: string.Format(CultureInfo.InvariantCulture, comes, s.Name, Told(s.In, "HH:mm:ss"))), (At: s.Out, Line: string.Format(CultureInfo.InvariantCulture, goes, s.Name, Told(s.Out, "HH:mm:ss"))) });
        var bytes = Bytes(string.Join('\n', events.OrderBy(e => e.At).Select(e => e.Line)));
        IsTakenFor(FileKind.Attendance, bytes);
        var read = AttendanceFile.Read(bytes, null, MadeUpReading.Zone, From, To);
        read.Rows.Where(r => r.Joined is not null).Select(r => r.Name).ShouldBe(Names);
        read.Rows.Where(r => r.Left is not null).Select(r => r.Name).ShouldBe(Names);
    }

    [Fact]
    public void Whoever_is_told_of_otherwise_is_not_left_out()
    {
        var others = new[] { $"{MadeUpClass.Teacher} joined 09:20\n", "Dewi Suharto left 10:05\n", "Kensa Tremayne (12 min)\n" };
        var read = AttendanceFile.Read(Bytes(Of(s => $"{s.Name} joined {Told(s.In)}, left {Told(s.Out)}\n") + string.Concat(others)), null, MadeUpReading.Zone, From, To);
        read.Rows.Count.ShouldBe(Stays.Length + others.Length);
        read.Rows[^3].ShouldSatisfyAllConditions(r => r.Name.ShouldBe(MadeUpClass.Teacher), r => r.Left.ShouldBeNull(), r => r.Problems.ShouldBeEmpty());
        read.Rows[^2].ShouldSatisfyAllConditions(r => r.Name.ShouldBe("Dewi Suharto"), r => r.Joined.ShouldBeNull(), r => r.Left.ShouldNotBeNull());
        read.Rows[^1].Problems.ShouldHaveSingleItem().ShouldContain("no joining time");
    }

    [Fact]
    public void Captions_that_name_nobody_are_counted()
    {
        var rows = string.Concat(Spoken.Select(c => $"{Clock(c.From)},{Clock(c.To)},{c.Name},\"{c.Text}\"\n"));
        CaptionsFile.Read(Bytes($"Start,End,Speaker,Text\n{rows}00:20:00,00:20:05,,\"who is that there then\"\n"), MadeUpReading.Zone, From, Class.IsNameHere).LeftOut.ShouldBe(1);
    }

    [Fact]
    public void Quotation_marks_stay()
    {
        var text = string.Concat(Said.Select(m => $"Time: {Told(m.At)}\nName: {m.Name}\nText: she said \"{m.Text}\" to me\n\n"));
        ChatFile.Read(Bytes(text), null, MadeUpReading.Zone, From, Class.IsNameHere).Rows.Select(r => r.Text).ShouldBe(Said.Select(m => $"she said \"{m.Text}\" to me"));
    }

    [Theory]
    [InlineData("{0} — {1} minutes\n", "")]
    [InlineData("{0} ({1} min)\n", "In the lesson:\n")]
    [InlineData("{0},PT{1}M\n", "Name,Attended\n")]
    [InlineData("{0},{1}m 5s\n", "Student,Time in class\n")]
    [InlineData("{0}\t0h {1}m 5s\n", "")]
    public void How_long_somebody_was_there(string line, string above)
    {
        var bytes = Bytes(above + Of(s => string.Format(CultureInfo.InvariantCulture, line, s.Name, Minutes(s))));
        IsTakenFor(FileKind.Attendance, bytes);
        AttendanceFile.Read(bytes, null, MadeUpReading.Zone, From, To).Rows.Select(r => $"{r.Name} {Math.Floor(r.Length!.Value.TotalMinutes)}").ShouldBe(Stays.Select(s => $"{s.Name} {Minutes(s)}"));
    }

    [Fact]
    public void All_stays_of_a_row_count()
    {
        var bytes = Bytes($"Name;Joined 1;Left 1;Joined 2;Left 2\n{Of(s => $"{s.Name};{Told(s.In)};09:50;{(s.Name == Names[0] ? ";" : $"09:55;{Told(s.Out)}")}\n")}");
        var read = AttendanceFile.Read(bytes, null, MadeUpReading.Zone, From, To);
        read.Rows.Count.ShouldBe((2 * Stays.Length) - 1);
        read.Rows.Count(r => r.Problems.Count > 0).ShouldBe(0);
        read.Rows.Where(r => r.Name == Names[1]).Select(r => r.Left!.Value.InZone(MadeUpReading.Zone).TimeOfDay).ShouldBe([new LocalTime(9, 50), Stays[1].Out.PlusSeconds(-12)]);
    }

    [Theory]
    [InlineData("name,present\n", "{0},yes\n", "{0},no\n")]
    [InlineData("Name;Anwesend\n", "{0};x\n", "{0};\n")]
    [InlineData("Student\tMonday\n", "{0}\tpresent\n", "{0}\tabsent\n")]
    [InlineData("", "{0},\n", "Away: {0}, Dewi Suharto, Kensa Tremayne\n")]
    [InlineData("Present (8)\n", "{0}\n", "\nNot present (1)\n{0}\n\nPresent\n")]
    [InlineData("Class of Monday\n", "- [x] {0}\n", "- [ ] {0}\n")]
    [InlineData("", "{0} ✔\n", "{0}\n")]
    [InlineData("Name;26.10.;02.11.;09.11.\n", "{0};;x;\n", "{0};x;;\n")]
    [InlineData("Name,2026-10-26,2026-11-02\n", "{0},absent,late\n", "{0},present,absent\n")]
    public void Whoever_is_ticked_was_there(string head, string here, string away)
    {
        var rows = Names.Select((n, i) => string.Format(CultureInfo.InvariantCulture, i == 4 ? away : here, n)).ToList();
        var bytes = Bytes(head + string.Concat(rows));
        IsTakenFor(FileKind.People, bytes);
        PeopleFile.Read(bytes, MadeUpReading.Zone, From, To, Class.IsNameHere).Rows.Select(r => r.Name.TrimEnd(',')).ShouldBe(Names.Where((_, i) => i != 4));
    }

    [Fact]
    public void A_line_of_names_is_all_of_them() =>
        PeopleFile.Read(Bytes($"Here: {string.Join(", ", Names[..6])}\nAway: {string.Join(", ", Names[6..])}\n"), MadeUpReading.Zone, From, To, Class.IsNameHere).Rows.Select(r => r.Name).ShouldBe(Names[..6]);

    [Theory]
    [InlineData("here today: {0}\nmissing: {1} (ferry)\n")]
    [InlineData("Present:{0}\nAbsent: {1}")]
    [InlineData("Da waren: {0}\nFehlt: {1}\n")]
    public void Given_names_in_a_line_after_who_is_here_are_all_of_them(string note)
    {
        var given = MadeUpClass.Students.Select(s => s.Given).ToList();
        var bytes = Bytes(string.Format(CultureInfo.InvariantCulture, note, string.Join(", ", given[..5]), given[7]));
        IsTakenFor(FileKind.People, bytes);
        PeopleFile.Read(bytes, MadeUpReading.Zone, From, To, Class.IsNameHere).Rows.Select(r => r.Name).ShouldBe(given[..5]);
    }

    [Fact]
    public void What_a_program_has_to_be_pressed_is_nobody() =>
        PeopleFile.Read(Bytes($"{string.Join('\n', Names)}\nInvite\nMute all\nMore\n"), MadeUpReading.Zone, From, To, Class.IsNameHere).Rows.Select(r => r.Name).ShouldBe(Names);

    [Fact]
    public void Two_blocks_of_labels_are_two_messages()
    {
        var bytes = Bytes($"Time: 09:50\nFrom: {Names[0]}\nTo: Everyone\nMessage: what is slack water?\n\nTime: 09:51\nFrom: {Names[1]}\nTo: Everyone\nMessage: when it stands still\n");
        IsTakenFor(FileKind.Chat, bytes);
        ChatFile.Read(bytes, null, MadeUpReading.Zone, From, Class.IsNameHere).Rows.Select(r => $"{r.Name}: {r.Text}").ShouldBe([$"{Names[0]}: what is slack water?", $"{Names[1]}: when it stands still"]);
    }

    [Fact]
    public void A_letter_to_colleagues_is_no_list() =>
        Should.Throw<NothingKnown>(() => MadeUpReading.KindsOf(Bytes($"Dear all,\nplease remember the ferry leaves at three.\n{Names[0]}\n"), Class));

    [Fact]
    public void Only_one_who_leaves_in_a_log_leaves()
    {
        var log = Bytes($"{Names[0]} joined 09:31\n{Names[0]} left 09:50\n{Names[0]} joined 09:52\n{Names[1]} joined 09:33\n{Names[2]} joined 09:30\n{Names[0]} left 10:20\n");
        var read = AttendanceFile.Read(log, null, MadeUpReading.Zone, From, To);
        read.Rows.ShouldAllBe(r => r.Problems.Count == 0);
        read.Rows.Count(r => r.Name == Names[0] && r.Left is not null).ShouldBe(2);
    }

    private static readonly string[] Winds = ["East", "West", "East", "South", "East", "West", "West", "South", "East"];

    private static readonly Dictionary<string, Func<string>> Answers = new()
    {
        ["a line each"] = () => $"Which wind brings the haar?\n{string.Concat(Names.Zip(Winds, (n, w) => $"{n}: {w}\n"))}",
        ["who chose what"] = () => $"Which wind brings the haar?\n{string.Concat(Winds.Distinct().Select(w => $"{w} ({Winds.Count(o => o == w)}): {string.Join(", ", Names.Where((_, i) => Winds[i] == w))}\n"))}",
        ["ticks"] = () => $"Which wind brings the haar?,East,West,South\n{string.Concat(Names.Zip(Winds, (n, w) => $"{n},{(w == "East" ? "x" : "")},{(w == "West" ? "x" : "")},{(w == "South" ? "x" : "")}\n"))}",
        ["objects under names"] = () => $"{{\"answers\":{{{string.Join(',', Names.Zip(Winds, (n, w) => $"\"{n}\":{{\"Which wind brings the haar?\":\"{w}\"}}"))}}}}}",
        ["people across, with nothing over what was asked"] = () => $";{string.Join(';', Names)}\nWhich wind brings the haar?;{string.Join(';', Winds)}\n",
        ["ids of questions and people"] = () => $"{{\"people\":[{string.Join(',', Names.Select((n, i) => $"{{\"id\":{i},\"name\":\"{n}\"}}"))}],\"questions\":[{{\"id\":\"q1\",\"text\":\"Which wind brings the haar?\"}},{{\"id\":\"q2\",\"text\":\"And the rain?\"}}],\"answers\":[{string.Join(',', Winds.Select((w, i) => $"{{\"student\":{i},\"question\":\"q1\",\"value\":\"{w}\"}}"))}]}}",
        ["given name, family name"] = () => $"First name;Surname;Which wind brings the haar?\n{string.Concat(Names.Zip(Winds, (n, w) => $"{n[..n.IndexOf(' ')]};{n[(n.IndexOf(' ') + 1)..]};{w}\n"))}",
        ["Markdown"] = () => $"| | Which wind brings the haar? |\n|-|-|\n{string.Concat(Names.Zip(Winds, (n, w) => $"| {n} | {w} |\n"))}",
    };

    public static TheoryData<string> AnswerNames => [.. Answers.Keys];

    [Theory]
    [MemberData(nameof(AnswerNames))]
    public void Who_answered_what(string how)
    {
        var bytes = Bytes(Answers[how]());
        IsTakenFor(FileKind.Answers, bytes);
        var question = AnswersFile.Read(bytes, null, MadeUpReading.Zone, From, To, Class.IsNameHere).Questions.ShouldHaveSingleItem();
        question.Text.ShouldBe("Which wind brings the haar?");
        question.Answers.Select(a => $"{a.Row.Name}: {a.Written.Text}").ShouldBe(Names.Zip(Winds, (n, w) => $"{n}: {w}"), ignoreOrder: true);
    }

    [Fact]
    public void A_score_after_several_questions_is_of_all_of_them()
    {
        var read = AnswersFile.Read(Bytes($"Name,Q1,Q2,Score\n{string.Concat(Names.Zip(Winds, (n, w) => $"{n},{w},2,1/2\n"))}"), null, MadeUpReading.Zone, From, To, Class.IsNameHere);
        read.Questions.SelectMany(q => q.Answers).ShouldAllBe(a => a.Written.Share == null);
        var marked = AnswersFile.Read(Bytes($"Name,Q1 answer,Q1 right,Q2 answer,Q2 right\n{string.Concat(Names.Zip(Winds, (n, w) => $"{n},{w},{(w == "East" ? "✓" : "✗")},2,✓\n"))}"), null, MadeUpReading.Zone, From, To, Class.IsNameHere);
        marked.Questions.Select(q => q.Answers.Count(a => a.Written.Share == 1)).ShouldBe([4, 9]);
    }

    private static readonly (int From, int To, string Name, string Text)[] Spoken = [.. Enumerable.Range(0, 12).Select(i => (i * 40, (i * 40) + 12 + i, Names[i % 5], "because the water is cold there"))];

    private static string Clock(int seconds) => $"{seconds / 3600:00}:{seconds / 60 % 60:00}:{seconds % 60:00}";

    [Theory]
    [InlineData("ranges")]
    [InlineData("a table")]
    [InlineData("thousandths")]
    [InlineData("JSON")]
    [InlineData("elements")]
    [InlineData("two times and a comma")]
    [InlineData("dialogue")]
    [InlineData("speakers by ids")]
    [InlineData("a time for each word")]
    public void Captions(string how)
    {
        string All(Func<(int From, int To, string Name, string Text), string> write, string between = "") => string.Join(between, Spoken.Select(write));
        var bytes = Bytes(how switch
        {
            "ranges" => All(c => $"[{Clock(c.From)} - {Clock(c.To)}] {c.Name}: {c.Text}\n"),
            "a table" => $"Start,End,Speaker,Text\n{All(c => $"{Clock(c.From)},{Clock(c.To)},{c.Name},\"{c.Text}\"\n")}",
            "thousandths" => $"speaker,start_ms,end_ms,transcript\n{All(c => $"{c.Name},{c.From * 1000},{c.To * 1000},{c.Text}\n")}",
            "JSON" => $"{{\"segments\":[{All(c => $"{{\"start\":{c.From}.0,\"end\":{c.To}.0,\"speaker\":\"{c.Name}\",\"text\":\"{c.Text}\"}}", ",")}]}}",
            "elements" => $"<tt xmlns=\"http://www.w3.org/ns/ttml\"><body><div>{All(c => $"<p begin=\"{Clock(c.From)}.000\" end=\"{Clock(c.To)}.000\" agent=\"{c.Name}\">{c.Text}</p>")}</div></body></tt>",
            "dialogue" => $"[Events]\nFormat: Layer, Start, End, Style, Name, MarginL, Effect, Text\n{All(c => $"Dialogue: 0,{Clock(c.From)[1..]}.00,{Clock(c.To)[1..]}.00,Default,{c.Name},0,,{c.Text}, and so on\n")}",
            "speakers by ids" => $"{{\"speakers\":{{{string.Join(',', Names[..5].Select((n, i) => $"\"S{i}\":\"{n}\""))}}},\"segments\":[{All(c => $"{{\"start\":{c.From}.0,\"end\":{c.To}.0,\"speaker\":\"S{Array.IndexOf(Names, c.Name)}\",\"text\":\"{c.Text}\"}}", ",")}]}}",
            "a time for each word" => $"{{\"results\":[{All(c => $"{{\"speaker\":\"{c.Name}\",\"words\":[{string.Join(',', Enumerable.Range(c.From, c.To - c.From).Select(at => $"{{\"word\":\"water\",\"start\":{at}.0,\"end\":{at + 1}.0}}"))}]}}", ",")}]}}",
            _ => All(c => $"{Clock(c.From)}.000,{Clock(c.To)}.000\n{c.Name}: {c.Text}\n\n"),
        });
        IsTakenFor(FileKind.Captions, bytes);
        var read = CaptionsFile.Read(bytes, MadeUpReading.Zone, From, Class.IsNameHere);
        read.FromStart.ShouldBeTrue();
        read.Rows.Select(r => $"{r.Name} {(r.From - From).TotalSeconds}+{r.Length.TotalSeconds}").ShouldBe(Spoken.Select(c => $"{c.Name} {c.From}+{c.To - c.From}"));
    }

    [Theory]
    [InlineData("A shopping list\neggs\nflour\n", "“A shopping list”, “eggs”")]
    [InlineData("Juno Quillfeather: hello there\nEino Rautio: what is haar?\nJuno Quillfeather: fog from the sea\nEino Rautio: thanks a lot\n", "no names with times")]
    public void What_tells_nothing_is_said_to_with_its_first_lines(string text, string said) =>
        Should.Throw<FormatProblem>(() => MadeUpReading.KindsOf(Bytes(text), Class)).Message.ShouldContain(said);

    [Fact]
    public void Broken_elements_are_said_to_be_broken() => Should.Throw<FormatProblem>(() => Bytes("<?xml version=\"1.0\"?>\n<chat><message></chat>")).Message.ShouldContain("Line 2");

    [Theory]
    [InlineData("09:31 <Juno> 2 < 3 and 3 > 2")]
    [InlineData("<Juno Quillfeather> hello\n<Eino Rautio> hi\n")]
    [InlineData("{\"one\":1}")]
    [InlineData("Name,Joined\nJuno,09:28\n")]
    public void Nothing_is_taken_off_where_nothing_stands_around(string text) => Bytes(text).ShouldBe(Encoding.UTF8.GetBytes(text));
}
