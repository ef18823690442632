using System.Text;
using NodaTime;

namespace PoliteTally.Formats.Tests;

public sealed class AttendanceFileTests
{
    // A Monday in November in the islands, which then are on UTC.
    private static readonly Instant From = Instant.FromUtc(2026, 11, 2, 9, 30);
    private static readonly DateTimeZone Faroe = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];

    private static AttendancePreview Read(string text, DateTimeZone? zone = null, Instant? from = null) => AttendanceFile.Read(
        Encoding.UTF8.GetBytes(text), null, zone ?? Faroe, from ?? From, (from ?? From) + Duration.FromMinutes(50));

    [Theory]
    // many ways to write 09:31:00 on 2 November
    [InlineData("2026-11-02 09:31:00", false)]
    [InlineData("2026-11-02T09:31:00Z", true)]
    [InlineData("2026-11-02T10:31:00+01:00", true)]
    [InlineData("02/11/2026 09:31:00", false)]         // day first, since month first would lie in February
    [InlineData("11/02/2026 09:31:00 AM", false)]      // month first, since day first would lie in February
    [InlineData("11/2/26, 9:31 AM", false)]
    [InlineData("2.11.2026 9:31", false)]
    [InlineData("Nov 2, 2026 9:31:00 AM", false)]
    [InlineData("2 Nov 2026 09:31", false)]
    [InlineData("09:31:00", false)]
    [InlineData("9:31 AM", false)]
    [InlineData("2026-11-02 09:31:00 UTC", true)]
    public void Times(string written, bool namesZone)
    {
        var list = Read($"Name;Join time;Leave time\nJuno;{written};\n");

        list.Shape.ShouldBe(AttendanceShape.Stretches);
        list.Rows[0].Problems.ShouldBeEmpty();
        list.Rows[0].Joined.ShouldBe(From + Duration.FromMinutes(1));
        list.NamesZone.ShouldBe(namesZone);
    }

    [Fact]
    public void Times_without_a_zone_are_read_in_the_one_that_was_asked_for()
    {
        var list = Read("Name,Joined,Left\nJuno,2026-11-02 10:31,2026-11-02 11:20", DateTimeZoneProviders.Tzdb["Europe/Oslo"]);
        list.Rows[0].Joined.ShouldBe(From + Duration.FromMinutes(1));
        list.NamesZone.ShouldBeFalse();
    }

    [Fact]
    public void Times_across_a_change_of_daylight_saving_time_are_told_apart_by_the_zone()
    {
        var before = Instant.FromUtc(2026, 10, 24, 8, 30);
        Read("Name,Joined\nJuno,2026-10-24 09:31", from: before).Rows[0].Joined.ShouldBe(before + Duration.FromMinutes(1));
        Read("Name,Joined\nJuno,2026-11-02 09:31").Rows[0].Joined.ShouldBe(From + Duration.FromMinutes(1));
    }

    [Fact]
    public void One_event_a_row()
    {
        var list = Read("Timestamp,Participant,Action\n2026-11-02 09:31:00,Juno,Joined\n2026-11-02 10:00:00,Juno,left the meeting\n2026-11-02 09:50:00,Eino,waved\n");

        list.Shape.ShouldBe(AttendanceShape.Events);
        list.Rows[0].Joined.ShouldBe(From + Duration.FromMinutes(1));
        list.Rows[1].Left.ShouldBe(From + Duration.FromMinutes(30));
        list.Rows[2].Problems.ShouldHaveSingleItem().ShouldContain("neither joining nor leaving");
    }

    [Theory]
    [InlineData("Duration (minutes)", "47", 47)]
    [InlineData("Duration", "47 min", 47)]
    [InlineData("Duration", "1h 2m 30s", 62.5)]
    [InlineData("Duration", "00:47:30", 47.5)]
    [InlineData("Duration", "47,5", 47.5)]
    [InlineData("Duration (seconds)", "2820", 47)]
    public void Minutes_only(string heading, string cell, double minutes)
    {
        var list = Read($"Name;{heading}\nJuno;{cell}\n");
        list.Shape.ShouldBe(AttendanceShape.Lengths);
        list.Rows[0].Length!.Value.TotalMinutes.ShouldBe(minutes);
        list.NamesZone.ShouldBeTrue(); // there is nothing to ask
    }

    [Fact]
    public void A_list_with_a_title_above_it()
    {
        var list = Read("Meeting summary\nTitle,Weather and Tides\n\nFull name,E-mail,Joined,Left\nJuno Q,juno.quillfeather@pupils.skerrysound.example,2026-11-02 09:31,2026-11-02 10:20\n");
        list.Rows.ShouldHaveSingleItem().Email.ShouldBe("juno.quillfeather@pupils.skerrysound.example");
        list.Rows[0].Row.ShouldBe(5);
    }

    [Theory]
    [InlineData("Name,Joined,Left\nJuno,soon,2026-11-02 10:20\nEino,2026-11-02 09:30,2026-11-02 10:20", 2, "“soon”, which cannot be read")]
    [InlineData("Name,Joined,Left\nEino,2026-11-02 09:30,2026-11-02 10:20\nJuno,2026-11-02 10:20,2026-11-02 09:30", 3, "leaves before it joins")]
    [InlineData("Name,Joined,Left\n,2026-11-02 09:30,2026-11-02 10:20", 2, "no name")]
    [InlineData("Name,Joined,Left\nJuno,,", 2, "no joining time")]
    [InlineData("Name,Minutes\nJuno,a while", 2, "cannot be read")]
    [InlineData("Name,Minutes\n=1+1,5", 2, "formula")]
    public void What_is_wrong_is_said_by_its_row(string text, int row, string part)
    {
        var wrong = Read(text).Rows.Single(l => l.Problems.Count > 0);
        wrong.Row.ShouldBe(row);
        wrong.Problems[0].ShouldContain(part);
    }

    [Theory]
    [InlineData("Name,Shoe size\nJuno,38", "joining times")]
    [InlineData("When,Joined\nx,2026-11-02 09:30", "names")]
    [InlineData("Name,Joined\nJuno,2026-10-02 09:30", "another lesson")]
    public void A_list_that_does_not_fit_says_so(string text, string part) => string.Join(' ', Read(text).Problems).ShouldContain(part);

    // Lists of layouts that no heading here was written for: what each column holds says what it is.
    [Theory]
    [InlineData("Person;Came;Went\nJuno Quillfeather;02.11.2026 09:31;02.11.2026 10:20\nEino Rautio;02.11.2026 09:40;02.11.2026 10:20", "name joined left")]
    [InlineData("who_is_it,at_utc,what_they_did\nJuno,2026-11-02 09:31,entered\nJuno,2026-11-02 10:20,went out", "name time event")]
    [InlineData("Name\tTime in\tTime out\nJuno\t9:31 AM\t10:20 AM", "name joined left")]
    [InlineData("Nickname,Contact,Time In,Role\nJuno,juno@skerrysound.example,49 min,guest", "name email length")]
    [InlineData("Date,Participant,In,Out\n2026-11-02,Juno,09:31,10:20", "date name joined left")]
    [InlineData("Juno Quillfeather,2026-11-02 09:31,2026-11-02 10:20\nEino Rautio,2026-11-02 09:40,2026-11-02 10:20", "name joined left")]
    [InlineData("Participant ID,Name,Joined at (UTC+0),Left at (UTC+0)\njuno@skerrysound.example,Juno,2026-11-02 09:31,2026-11-02 10:20", "email name joined left")]
    [InlineData("Participant ID,Name,Joined at,Left at\nP7,Juno,2026-11-02 09:31,2026-11-02 10:20", "person name joined left")]
    [InlineData("Wer;Gekommen am;Gegangen am;Rolle\nJuno;02.11.2026 09:31:00;02.11.2026 10:20:00;Teilnehmer\nEino;02.11.2026 09:33:00;02.11.2026 10:20:00;Teilnehmer", "name joined left")]
    [InlineData("Log of the call\n\nNo.\tDate\tClock\tPerson\tAction\n1\t11/02/2026\t09:31:00 AM\tJuno\tconnected\n2\t11/02/2026\t10:20:00 AM\tJuno\tdisconnected", "date time name event")]
    [InlineData("Registered;Wer;Anwesend\n01.11.2026;Juno;00:49:00", "name length")]
    public void Columns_are_known_by_what_they_hold(string text, string fields)
    {
        var list = Read(text);
        list.Columns.Where(c => c.Field is not null).Select(c => c.Field).ShouldBe(fields.Split(' '));
        list.Unclear.ShouldBeEmpty();
        list.Rows.ShouldAllBe(r => r.Problems.Count == 0);
        if (list.Shape != AttendanceShape.Lengths)
        {
            list.Rows[0].Joined.ShouldBe(From + Duration.FromMinutes(1));
        }
        else
        {
            list.Rows[0].Length.ShouldBe(Duration.FromMinutes(49));
        }
    }

    /// <summary>Times of a day alone are those nearest to the lesson: past midnight, and in the hour that comes twice.</summary>
    [Theory]
    [InlineData("2026-11-02T23:30Z", "23:28", "00:20", "2026-11-02T23:28Z", "2026-11-03T00:20Z")]
    [InlineData("2026-11-03T00:10Z", "23:58", "01:00", "2026-11-02T23:58Z", "2026-11-03T01:00Z")]
    [InlineData("2026-10-25T00:30Z", "01:31", "01:10", "2026-10-25T00:31Z", "2026-10-25T01:10Z")] // clocks go back from 2:00 to 1:00
    [InlineData("2026-10-25T00:30Z", "01:05", "01:10", "2026-10-25T01:05Z", "2026-10-25T01:10Z")]
    [InlineData("2027-03-28T00:30Z", "00:31", "02:10", "2027-03-28T00:31Z", "2027-03-28T01:10Z")] // clocks go forward from 1:00 to 2:00
    public void Times_of_a_day_are_read_by_the_lesson(string lesson, string joined, string left, string trueJoined, string trueLeft)
    {
        var parse = NodaTime.Text.InstantPattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm'Z'");
        var list = Read($"Name,Joined,Left\nJuno,{joined},{left}\nEino,{joined},{left}\n", from: parse.Parse(lesson).Value);
        list.Rows.ShouldAllBe(r => r.Problems.Count == 0);
        (list.Rows[0].Joined, list.Rows[0].Left).ShouldBe((parse.Parse(trueJoined).Value, parse.Parse(trueLeft).Value));
        list.Problems.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("1 hour 5 minutes", 65)]
    [InlineData("1 hour, 5 minutes and 30 seconds", 65.5)]
    [InlineData("55 Min.", 55)]
    [InlineData("1 Std. 5 Min.", 65)]
    [InlineData("1 heure et 5 minutes", 65)]
    [InlineData("1 t 5 min", 65)]
    [InlineData("1 tunti 5 minuuttia", 65)]
    [InlineData("1 klst. og 5 mínútur", 65)]
    [InlineData("PT1H5M", 65)]
    [InlineData("1 ч 5 мин", 65)]
    public void Lengths_in_words(string cell, double minutes) => Read($"Name;Duration\nJuno;{cell}\nEino;{cell}\n").Rows[1].Length!.Value.TotalMinutes.ShouldBe(minutes);

    [Theory]
    [InlineData("Summary\nMeeting,Fog\nAttended,2\n\nParticipants\nName,Joined,Left\nJuno,09:31,10:20\nEino,09:31,10:20\n\nReactions\nName,Hands\nJuno,4\n")]
    [InlineData("Name,Joined,Left\nJuno,09:31,10:20\nEino,09:31,10:20\n\nTotal,2\n")]
    [InlineData("Name,Hands\nJuno,4\n\nName,Joined,Left\nJuno,09:31,10:20\nEino,09:31,10:20\n")]
    [InlineData("Name,First join,Last leave\nJuno,09:31,10:20\n\nActivities\nName,Joined,Left\nJuno,09:31,10:20\nEino,09:31,10:20\n")]
    public void Of_several_tables_the_list_is_taken(string text)
    {
        var list = Read(text);
        list.Rows.ShouldAllBe(r => r.Problems.Count == 0);
        list.Rows.Select(r => (r.Name, r.Joined - From)).ShouldBe([("Juno", Duration.FromMinutes(1)), ("Eino", Duration.FromMinutes(1))]);
    }

    [Fact]
    public void Rows_of_other_days_can_be_left_out()
    {
        var list = Read("Name,Joined,Left\nJuno,2026-11-02 09:31,2026-11-02 10:20\nEino,2026-11-01 09:31,2026-11-01 10:20\n");
        list.Problems.ShouldBeEmpty();
        list.Rows.Select(r => string.Join(' ', r.Problems)).ShouldBe(["", "is of 2026-11-01 09:31, which is not in this lesson."]);
    }

    [Theory]
    [InlineData("Name,Minutes,Seen\nJuno,40,2026-11-02 09:31", "“Seen” holds times")]
    [InlineData("Name,A,B,C\nJuno,09:31,10:20,09:50", "“A” and “B” and “C” hold times")]
    [InlineData("Name,A,B\nJuno,10:20,09:31\nEino,10:10,09:40", "“A” and “B” hold times")]
    public void Times_whose_columns_are_not_understood_are_asked_about(string text, string part)
    {
        Read(text).Unclear.ShouldHaveSingleItem().ShouldContain(part);
        // Whoever says what the columns are has answered, with whatever they say.
        AttendanceFile.Read(Encoding.UTF8.GetBytes("Name,Minutes,Seen\nJuno,40,2026-11-02 09:31"), new Dictionary<string, int> { ["name"] = 0, ["length"] = 1 }, Faroe, From, From + Duration.FromMinutes(50))
            .ShouldSatisfyAllConditions(l => l.Unclear.ShouldBeEmpty(), l => l.Shape.ShouldBe(AttendanceShape.Lengths));
    }

    [Fact]
    public void A_length_that_does_not_go_with_joining_and_leaving_is_said()
    {
        var list = Read("Name,Joined,Left,Minutes\nJuno,09:30,09:50,20\nJuno,10:00,10:20,40\nEino,09:30,10:20,51\nZainab,09:30,10:20,20\n");
        list.Remarks.ShouldBe(["Row 5 says 20 min of Zainab; from joining to leaving it is 50 min. The shorter time counts."]);
        list.Rows.ShouldAllBe(r => r.Problems.Count == 0);
    }

    [Theory]
    [InlineData("Joined (UTC)", 0)]
    [InlineData("joined_at_utc", 0)]
    [InlineData("Join time [GMT+1]", 60)]
    [InlineData("Joined UTC-03:30", -210)]
    public void A_zone_in_a_heading_is_the_zone_of_its_times(string heading, int minutes)
    {
        var list = Read($"Name;{heading}\nJuno;2026-11-02 09:31\n", DateTimeZoneProviders.Tzdb["Asia/Tokyo"]);
        list.NamesZone.ShouldBeTrue();
        list.Rows[0].Joined.ShouldBe(From + Duration.FromMinutes(1) - Duration.FromMinutes(minutes));
    }
}
