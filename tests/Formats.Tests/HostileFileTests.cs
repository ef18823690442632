using System.Text;
using NodaTime;

namespace PoliteTally.Formats.Tests;

/// <summary>
/// Files that were made to be hard to read: each is read, or refused in words, within the budget of a file (<see cref="ReadingBudget"/>). Far beyond it is where the test
/// ends them, so that it can fail.
/// </summary>
public sealed class HostileFileTests
{
    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];
    private static readonly Instant From = Instant.FromUtc(2026, 11, 24, 9, 0);
    private static readonly Instant To = From + Duration.FromMinutes(50);

    private static string Many(int count, Func<int, string> one, string between = "") => string.Join(between, Enumerable.Range(0, count).Select(one));

    private static readonly Dictionary<string, Func<string>> Texts = new()
    {
        ["numbers in one line"] = () => Many(2_000_000, i => $"{i % 100000}", ","),
        ["numbers in a JSON list"] = () => $"[{Many(2_000_000, i => $"{i % 100000}", ",")}]",
        ["different names in one line"] = () => Many(400_000, i => $"Juno Nr{i}", ", "),
        ["different names in lines"] = () => Many(400_000, i => $"Juno Nr{i}", "\n"),
        ["a table of different names"] = () => "Name,Message,Time\n" + Many(100_000, i => $"Juno Nr{i},hello there you,09:{i % 50:00}:{i % 60:00}", "\n"),
        ["wide rows"] = () => "Name,Time\n" + Many(60, _ => Many(100_000, i => $"{i}", ","), "\n"),
        ["rows of 2,000 cells"] = () => Many(2_000, _ => Many(2_000, i => $"{i}", ","), "\n"),
        ["an object of many keys"] = () => $"[{{{Many(500_000, i => $"\"k{i}\":{i}", ",")}}}]",
        ["objects of ever other keys"] = () => $"[{Many(100_000, i => $"{{\"k{i}\":{{}}}}", ",")}]",
        ["nested keys"] = () => $"[{Many(100_000, i => $"{{\"a{i}\":{{\"b{i}\":{{\"c{i}\":[]}}}}}}", ",")}]",
        ["brackets"] = () => new string('[', 19_000_000),
        ["braces"] = () => Many(2_000_000, _ => "{\"a\":"),
        ["lists in lists"] = () => $"[{Many(3_000_000, _ => "[]", ",")}]",
        ["lists of lists of objects"] = () => $"{{{Many(300_000, i => $"\"a{i}\":[{{}}]", ",")}}}",
        ["a page of tags"] = () => $"<html>{Many(2_000_000, i => i % 2 == 0 ? "<p>" : "&amp;<b>")}",
        ["a page that never ends"] = () => $"<html>{Many(3_000_000, _ => "<!-")}",
        ["elements in elements"] = () => $"<?xml version=\"1.0\"?>{Many(400_000, _ => "<a>")}{Many(400_000, _ => "</a>")}",
        ["elements of ever other names"] = () => $"<x>{Many(150_000, i => $"<a{i} b{i}=\"1\"/>")}</x>",
        ["lines of dashes"] = () => Many(10, _ => "|" + new string('-', 1_500_000) + "x", "\n") + Many(100_000, _ => "|-|-", "\n"),
        ["labels without end"] = () => Many(400_000, i => $"{(i % 3 == 0 ? "name" : i % 3 == 1 ? "at" : "text")}: {i}", "\n"),
        ["quoted lines"] = () => Many(3_000_000, _ => "> x", "\n"),
        ["objects a line each"] = () => Many(600_000, i => $"{{\"a\":{i}}}", "\n"),
        ["columns of spaces"] = () => Many(150_000, i => $"{i,-30}{i,-30}09:{i % 60:00}", "\n"),
        ["people with many times"] = () => Many(20_000, i => $"Juno Nr{i} {Many(40, t => $"09:{t:00}", " - ")} 40 min", "\n"),
        ["names over times"] = () => Many(200_000, i => $"Juno Nr{i}\n09:28 - 10:20\n52 min", "\n"),
        ["answers without end"] = () => "Why?\n" + Many(400_000, i => $"Juno Nr{i % 30}: {i}", "\n"),
        ["lines of only times"] = () => Many(15, _ => Many(100_000, i => $"09:{i % 60:00}", " "), "\n"),
        ["times without lines"] = () => Many(2_000_000, i => $"09:{i % 60:00} "),
        ["lines of one time"] = () => Many(1_000_000, i => $"09:{i % 60:00}", "\n"),
        ["lines of spaces"] = () => Many(200, _ => new string(' ', 90_000) + "x", "\n"),
        ["one line of spaces"] = () => new string(' ', 15_000_000) + ":",
        ["brackets before times"] = () => Many(200_000, i => $"[[[[((((<<<< 09:{i % 60:00}", "\n"),
        ["long names before times"] = () => Many(100_000, i => new string('x', 119) + $" 09:{i % 60:00}", "\n"),
        ["arrows"] = () => Many(1_000_000, _ => "00:00:01.000 --> ", "\n"),
        ["captions of ever other names"] = () => "WEBVTT\n\n" + Many(100_000, i => $"00:00:{i % 60:00}.000 --> 00:00:{i % 60:00}.500\n<v Name{i}>hello", "\n\n"),
        ["an open quotation mark"] = () => "Name,Time\n\"" + Many(1_500_000, i => "09:30,x\n"),
        ["quotation marks"] = () => new string('"', 8_000_000),
        ["separators"] = () => new string(';', 8_000_000),
        ["bars and tabs"] = () => Many(1_000_000, _ => "|\t"),
        ["ever other answers"] = () => "Name,What is fog?\n" + Many(100_000, i => $"Juno Nr{i},answer {i}", "\n"),
        ["ever other questions"] = () => "Name,Question,Answer\n" + Many(100_000, i => $"Juno,Question {i}?,x", "\n"),
        ["words that stand out without end"] = () => "*9:30* " + Many(4_000_000, _ => "*a*", " "),
        ["commas in names"] = () => Many(200_000, i => $"Name{i}, Given{i}, Other", "\n"),
        ["long numbers"] = () => "Name,Minutes\n" + Many(2_000, i => $"Juno,{new string('9', 5_000)}", "\n"),
        ["letters of ever other kinds"] = () => "Name,Joined,Left\n" + Many(50_000, i => $"{char.ConvertFromUtf32(0x4E00 + (i % 20000))}{i},09:30,10:10", "\n"),
    };

    public static TheoryData<string> Names => [.. Texts.Keys];

    private static readonly Dictionary<string, Action<byte[]>> Readers = new()
    {
        ["what it is"] = b => FileRecognition.CouldBe(b, Zone, From, To, IsNameHere),
        ["chat"] = b => ChatFile.Read(b, null, Zone, From, _ => false),
        ["attendance"] = b => AttendanceFile.Read(b, null, Zone, From, To),
        ["answers"] = b => AnswersFile.Read(b, null, Zone, From, To, IsNameHere),
        ["captions"] = b => CaptionsFile.Read(b, Zone, From, _ => false, keepsWords: true),
        ["people"] = b => PeopleFile.Read(b, Zone, From, To, IsNameHere),
        ["roster"] = b => RosterFile.Read(b, null),
        ["what stands around"] = b => PlainContent.Of(b),
    };

    // About as dear as to compare a name with a roster.
    private static bool IsNameHere(string name)
    {
        Thread.SpinWait(2_000);
        return name.StartsWith("Juno", StringComparison.Ordinal);
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void It_is_read_or_refused_within_its_budget(string told)
    {
        var text = Texts[told]();
        var bytes = Encoding.UTF8.GetBytes(text.Length > FileSize.Largest ? text[..FileSize.Largest] : text);
        foreach (var (reader, read) in Readers)
        {
            var (before, clock) = (GC.GetAllocatedBytesForCurrentThread(), System.Diagnostics.Stopwatch.StartNew());
            try
            {
                read(bytes);
            }
            catch (FormatProblem problem)
            {
                problem.Message.ShouldNotBeEmpty();
            }

            // What was measured when this was written: at most 1 s, and 630 MB for all readers one after the other.
            (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(2 * ReadingBudget.Room, $"{told}, {reader}");
            clock.Elapsed.ShouldBeLessThan(20 * ReadingBudget.Processor, $"{told}, {reader}");
        }
    }

    private static byte[] Calendar(string lines) => Encoding.UTF8.GetBytes(
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Tides\r\nDTSTART:20270111T093000\r\nDURATION:PT50M\r\n{lines}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n");

    /// <summary>Rules that hold a core for ever if they are worked out to their end, or to their next date.</summary>
    [Theory]
    [InlineData("RRULE:FREQ=WEEKLY\r\nEXRULE:FREQ=HOURLY")]
    [InlineData("RRULE:FREQ=WEEKLY\r\nEXRULE:FREQ=SECONDLY;BYSECOND=0")]
    [InlineData("RRULE:FREQ=WEEKLY\r\nRRULE:FREQ=MINUTELY")]
    [InlineData("RRULE:FREQ=WEEKLY\r\nEXRULE:FREQ=WEEKLY")]
    [InlineData("RRULE:FREQ=DAILY\r\nEXRULE:FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR,SA,SU")]
    [InlineData("RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("RRULE:FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO;BYMONTH=6")]
    [InlineData("RRULE:FREQ=DAILY;INTERVAL=1;BYSETPOS=366\r\nEXRULE:FREQ=YEARLY;BYYEARDAY=400")]
    public void A_rule_is_worked_out_or_left_out_and_holds_nobody_up(string rules)
    {
        var clock = System.Diagnostics.Stopwatch.StartNew();
        try
        {
            CalendarFile.Read(Calendar(rules), Zone, new LocalDate(9999, 12, 31)).ShouldAllBe(t => t.Dates.Count <= CalendarFile.MostDates);
        }
        catch (FormatProblem problem)
        {
            problem.Message.ShouldNotBeEmpty();
        }

        clock.Elapsed.ShouldBeLessThan(20 * ReadingBudget.Processor);
    }

    [Theory]
    [InlineData("BEGIN:VTIMEZONE\nTZID:Nowhere/Land\n", 200_000)]
    [InlineData("BEGIN:VEVENT\n", 200_000)]
    [InlineData("BEGIN:VEVENT\nUID:a\nDTSTART;TZID=Nowhere/Land:20270111T093000\nEND:VEVENT\n", 20_000)]
    [InlineData("BEGIN:VTIMEZONE\nTZID:Nowhere/Land\nBEGIN:STANDARD\nEND:VTIMEZONE\n", 60_000)]
    [InlineData("X-WR-CALNAME:tides\n ", 300_000)]
    public void A_calendar_of_beginnings_without_an_end_is_refused(string line, int times)
    {
        var clock = System.Diagnostics.Stopwatch.StartNew();
        try
        {
            CalendarFile.Read(Encoding.UTF8.GetBytes($"BEGIN:VCALENDAR\nVERSION:2.0\n{Many(times, _ => line)}\nEND:VCALENDAR\n"), Zone, null).ShouldNotBeNull();
        }
        catch (FormatProblem problem)
        {
            problem.Message.ShouldNotBeEmpty();
        }

        clock.Elapsed.ShouldBeLessThan(20 * ReadingBudget.Processor);
    }

    [Fact]
    public void What_a_rule_of_exceptions_names_is_left_out()
    {
        var dates = CalendarFile.Read(Calendar("RRULE:FREQ=WEEKLY;COUNT=6\r\nEXRULE:FREQ=WEEKLY;INTERVAL=2"), Zone, null).ShouldHaveSingleItem().Dates;
        dates.Select(d => d.Start.InZone(Zone).Date.Day).ShouldBe([18, 1, 15]);
    }

    [Fact]
    public void Whoever_went_away_is_not_read_for()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        using var budget = ReadingBudget.Begin(gone.Token);
        Should.Throw<OperationCanceledException>(() => ChatFile.Read(Encoding.UTF8.GetBytes(Texts["a table of different names"]()), null, Zone, From, _ => false));
    }
}
