using System.Text;
using NodaTime;
using NodaTime.Text;

namespace PoliteTally.Formats.Tests;

public sealed class CalendarFileTests
{
    private static readonly DateTimeZone Faroe = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    private static byte[] Calendar(params string[] lines) => Encoding.UTF8.GetBytes(
        string.Join("\r\n", [.. (string[])["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Skerry Sound//EN"], .. lines, "END:VCALENDAR", ""]));

    private static string[] Event(params string[] lines) => ["BEGIN:VEVENT", "UID:w@skerrysound.example", "SUMMARY:Weather and Tides", .. lines, "END:VEVENT"];

    private static CalendarTitle Read(byte[] file, string? until = null) =>
        CalendarFile.Read(file, Faroe, until is null ? null : LocalDatePattern.Iso.Parse(until).Value).ShouldHaveSingleItem();

    private static string Starts(CalendarTitle title) =>
        string.Join(' ', title.Dates.Select(d => InstantPattern.CreateWithInvariantCulture("MM-dd'T'HH:mm").Format(d.Start) + (d.Cancelled ? "x" : "")));

    [Fact]
    public void Weekly_rules_keep_to_the_clock_of_their_zone_across_the_change()
    {
        var title = Read(Calendar(Event("DTSTART;TZID=Atlantic/Faroe:20261019T093000", "DURATION:PT50M", "RRULE:FREQ=WEEKLY;COUNT=3")));
        Starts(title).ShouldBe("10-19T08:30 10-26T09:30 11-02T09:30");
        title.Dates.ShouldAllBe(d => d.End - d.Start == Duration.FromMinutes(50));
    }

    [Fact]
    public void Exceptions_moved_dates_and_cancelled_ones_are_followed()
    {
        var title = Read(Calendar(
        [
            .. Event("DTSTART;TZID=Atlantic/Faroe:20261102T093000", "DTEND;TZID=Atlantic/Faroe:20261102T102000", "RRULE:FREQ=WEEKLY;BYDAY=MO,TH;UNTIL=20261113T235959Z", "EXDATE;TZID=Atlantic/Faroe:20261105T093000"),
            .. Event("RECURRENCE-ID;TZID=Atlantic/Faroe:20261109T093000", "DTSTART;TZID=Atlantic/Faroe:20261110T140000", "DURATION:PT50M"),
            .. Event("RECURRENCE-ID:20261112T093000Z", "DTSTART;TZID=Atlantic/Faroe:20261112T093000", "DURATION:PT50M", "STATUS:CANCELLED"),
        ]));
        Starts(title).ShouldBe("11-02T09:30 11-10T14:00 11-12T09:30x");
        // A moved date is still the date it was: read again, it is the same lesson.
        title.Dates[1].Uid.ShouldBe("w@skerrysound.example/20261109T0930");
    }

    [Theory]
    [InlineData("DTSTART:20261123T093000Z", "11-23T09:30")] // UTC
    [InlineData("DTSTART:20260907T093000", "09-07T08:30")] // no zone: the school's
    [InlineData("DTSTART;TZID=Europe/Helsinki:20261123T113000", "11-23T09:30")]
    [InlineData("DTSTART;TZID=GMT Standard Time:20260907T093000", "09-07T08:30")] // as Windows names it
    public void Times_are_read_in_whatever_zone_they_name(string start, string utc) => Starts(Read(Calendar(Event(start, "DURATION:PT50M")))).ShouldBe(utc);

    [Fact]
    public void A_zone_that_the_file_brings_along_is_worked_out()
    {
        string[] zone =
        [
            "BEGIN:VTIMEZONE", "TZID:Skerry Time",
            "BEGIN:STANDARD", "DTSTART:20001029T020000", "RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU", "TZOFFSETFROM:+0130", "TZOFFSETTO:+0030", "END:STANDARD",
            "BEGIN:DAYLIGHT", "DTSTART:20000326T010000", "RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU", "TZOFFSETFROM:+0030", "TZOFFSETTO:+0130", "END:DAYLIGHT", "END:VTIMEZONE",
        ];
        var title = Read(Calendar([.. zone, .. Event("DTSTART;TZID=Skerry", "  Time:20261019T100000", "DURATION:PT50M", "RRULE:FREQ=WEEKLY;COUNT=2")]));
        Starts(title).ShouldBe("10-19T08:30 10-26T09:30");
        Should.Throw<FormatProblem>(() => Read(Calendar(Event("DTSTART;TZID=Skerry Time:20261019T100000", "DURATION:PT50M")))).Message.ShouldContain("“Skerry Time”");
    }

    [Fact]
    public void A_rule_without_end_is_not_read_until_somebody_says_until_when()
    {
        var endless = Calendar(Event("DTSTART:20261123T093000Z", "DURATION:PT50M", "RRULE:FREQ=WEEKLY"));
        var asked = Read(endless);
        asked.Endless.ShouldBeTrue();
        asked.Dates.ShouldBeEmpty();
        asked.Problems.ShouldHaveSingleItem().ShouldContain("without end");
        Starts(Read(endless, "2026-12-08")).ShouldBe("11-23T09:30 11-30T09:30 12-07T09:30");
    }

    [Theory]
    [InlineData("RRULE:FREQ=SECONDLY", "within the same day")]
    [InlineData("RRULE:FREQ=HOURLY;COUNT=5", "within the same day")]
    public void Rules_of_no_lesson_are_left_out_and_told(string rule, string said) =>
        Read(Calendar(Event("DTSTART:20261123T093000Z", "DURATION:PT50M", rule)), "2030-01-01").Problems.ShouldHaveSingleItem().ShouldContain(said);

    [Theory]
    [InlineData("RRULE:FREQ=DAILY;COUNT=2000000000")]
    [InlineData("RRULE:FREQ=DAILY")]
    public void A_calendar_of_too_many_dates_is_refused(string rule) =>
        Should.Throw<FormatProblem>(() => Read(Calendar(Event("DTSTART:20261123T093000Z", "DURATION:PT50M", rule)), "9990-01-01")).Message.ShouldContain("20,000 dates");

    [Theory]
    [InlineData("DTSTART;VALUE=DATE:20261123", "whole days")]
    [InlineData("DTSTART:yesterday", "cannot be read")]
    [InlineData("DTSTART:19700101T093000Z", "before the year 2000")]
    public void Events_that_are_no_lessons_are_left_out_and_told(string start, string said)
    {
        var title = Read(Calendar(Event(start)));
        title.Dates.ShouldBeEmpty();
        title.Problems.ShouldHaveSingleItem().ShouldContain(said);
    }

    [Fact]
    public void A_rule_that_never_comes_true_ends() =>
        Read(Calendar(Event("DTSTART:20261123T093000Z", "DURATION:PT50M", "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30;COUNT=3"))).Dates.Count.ShouldBeLessThanOrEqualTo(1);

    [Fact]
    public void The_way_into_the_meeting_is_found() =>
        Read(Calendar(Event("DTSTART:20261123T093000Z", "DURATION:PT50M", "DESCRIPTION:Join at <https://meet.skerrysound.example/w>\\nBring your readings")))
            .Dates[0].Link.ShouldBe("https://meet.skerrysound.example/w");

    [Fact]
    public void What_is_written_is_read_as_it_was()
    {
        var start = Instant.FromUtc(2027, 3, 28, 0, 30);
        var bytes = CalendarFile.Write("Skerry Sound", [new("1@polite-tally", "Fog; haar, and \"mist\"\nagain", start, start + Duration.FromMinutes(50), "https://meet.skerrysound.example/w", true)], start);
        var title = Read(bytes);
        title.Title.ShouldBe("Fog; haar, and \"mist\"\nagain");
        title.Dates.ShouldHaveSingleItem().ShouldBe(new CalendarDate("1@polite-tally/20270328T0030", start, start + Duration.FromMinutes(50), true, "https://meet.skerrysound.example/w"));
    }
}
