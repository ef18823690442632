using System.Net;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Calendar;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Desk;
using PoliteTally.Web.Features.Lessons;

namespace PoliteTally.Web.Tests;

public sealed class CalendarTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly LocalDate Monday = new(2027, 3, 15); // two weeks before the clocks go forward
    private static readonly LocalTime HalfPastNine = new(9, 30);

    private async Task<(Visitor Teacher, Guid Class)> NewClass(LocalDate? first = null)
    {
        var teacher = await app.SignedIn();
        var made = await teacher.Post<ClassLine>("/api/classes", new NewClass($"Tides {Guid.NewGuid():N}"[..20]));
        if (first is { } day)
        {
            var term = await teacher.Post<TermLine>("/api/terms", new TermSent("Spring", day, day.PlusDays(90), [new DaysOff("lambing", day.PlusDays(7), day.PlusDays(8))]));
            await teacher.Put($"/api/classes/{made.Id}", new ClassChange(made.Name, term.Id, Archived: false));
        }

        return (teacher, made.Id);
    }

    private static SeriesSent Weekly(LocalDate first, int weeks, LocalTime? time = null) =>
        new("Sea breezes", [1], 1, time ?? HalfPastNine, 50, first, first.PlusDays((weeks - 1) * 7), false, "https://meet.skerrysound.example/w", []);

    private static async Task<string> Lessons(Visitor teacher, Guid id) => string.Join(' ', (await teacher.Get<ClassView>($"/api/classes/{id}")).Lessons
        .OrderBy(l => l.PlannedStart).Select(l => $"{l.Number}@{InstantPattern.CreateWithInvariantCulture("MM-dd'T'HH:mm").Format(l.PlannedStart)}{(l.Cancelled ? "x" : "")}"));

    [Fact]
    public async Task A_weekly_series_keeps_the_clock_of_the_school_and_leaves_out_days_off()
    {
        var (teacher, id) = await NewClass(Monday);
        var look = await teacher.Post<List<SeriesDate>>($"/api/classes/{id}/series/preview", Weekly(Monday, 4));
        look.Select(d => d.Off).ShouldBe([null, "lambing", null, null]);
        var made = await teacher.Post<SeriesChanged>($"/api/classes/{id}/series", Weekly(Monday, 4) with { Except = [Monday.PlusDays(21)] });
        made.Made.ShouldBe(2);
        (await Lessons(teacher, id)).ShouldBe("1@03-15T09:30 2@03-29T08:30");
    }

    [Fact]
    public async Task A_series_is_changed_cancelled_and_put_back_and_what_was_moved_stays()
    {
        var (teacher, id) = await NewClass();
        var series = (await teacher.Post<SeriesChanged>($"/api/classes/{id}/series", Weekly(Monday, 3))).Id;
        var second = (await teacher.Get<ClassView>($"/api/classes/{id}")).Lessons.OrderBy(l => l.PlannedStart).ElementAt(1);
        await teacher.Put<LessonLine>($"/api/lessons/{second.Id}", new LessonPlanned("Sea breezes", Monday.PlusDays(8), HalfPastNine, 50, false, null, false));
        (await Lessons(teacher, id)).ShouldBe("1@03-15T09:30 2@03-23T09:30 3@03-29T08:30");

        var changed = await teacher.Put<SeriesChanged>($"/api/series/{series}", Weekly(Monday, 4, new LocalTime(10, 0)));
        (changed.Made, changed.Moved, changed.Cancelled, changed.Kept).ShouldBe((1, 2, 0, 1));
        (await Lessons(teacher, id)).ShouldBe("1@03-15T10:00 2@03-23T09:30 3@03-29T09:00 4@04-05T09:00");

        await Visitor.Read<SeriesChanged>(await teacher.Http.DeleteAsync($"/api/series/{series}"));
        (await Lessons(teacher, id)).ShouldBe("0@03-15T10:00x 0@03-23T09:30x 0@03-29T09:00x 0@04-05T09:00x");
        (await teacher.Post<SeriesChanged>($"/api/series/{series}/restore", new { })).Made.ShouldBe(4);
        (await Lessons(teacher, id)).ShouldBe("1@03-15T10:00 2@03-23T09:30 3@03-29T09:00 4@04-05T09:00");
    }

    [Fact]
    public async Task A_cancelled_lesson_does_not_begin_and_one_that_began_does_not_move()
    {
        var (teacher, id) = await NewClass();
        var today = SystemClock.Instance.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb["Atlantic/Faroe"]).Date;
        var sent = new LessonPlanned("Fog", today, new LocalTime(23, 59), 50, false, null, Cancelled: false);
        var lesson = await teacher.Post<LessonLine>($"/api/classes/{id}/lessons/planned", sent);
        await teacher.Put<LessonLine>($"/api/lessons/{lesson.Id}", sent with { Cancelled = true });
        var room = new Classroom(teacher, id, lesson.Id, new Dictionary<string, Guid>());
        (await room.Tap(new Core.Course.LessonStarted())).Refused.ShouldHaveSingleItem().Why.ShouldContain("cancelled");

        await teacher.Put<LessonLine>($"/api/lessons/{lesson.Id}", sent);
        (await room.Tap(new Core.Course.LessonStarted())).Refused.ShouldBeEmpty();
        (await teacher.Put($"/api/lessons/{lesson.Id}", sent with { Minutes = 20 })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await teacher.Put<LessonLine>($"/api/lessons/{lesson.Id}", sent with { Title = "Haar" })).Title.ShouldBe("Haar");
    }

    [Theory]
    [InlineData("", "2027-01-11", 50, null, "needs a title")]
    [InlineData("Fog", "2027-01-11", 4, null, "from 5 to 600")]
    [InlineData("Fog", "1999-01-11", 50, null, "too far off")]
    [InlineData("Fog", "2027-01-11", 50, "javascript:alert(1)", "begins with https://")]
    [InlineData("Fog", "2027-01-11", 50, "meet me", "begins with https://")]
    public async Task A_lesson_that_cannot_be_is_refused(string title, string day, int minutes, string? link, string said)
    {
        var (teacher, id) = await NewClass();
        var refused = await teacher.Post($"/api/classes/{id}/lessons/planned", new LessonPlanned(title, LocalDatePattern.Iso.Parse(day).Value, HalfPastNine, minutes, false, link, false));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
        (await Lessons(teacher, id)).ShouldBe("");
    }

    [Fact]
    public async Task A_week_is_shown_in_the_days_of_the_school()
    {
        var (teacher, id) = await NewClass();
        var day = new LocalDate(2028, 6, 5);
        await teacher.Post<LessonLine>($"/api/classes/{id}/lessons/planned", new LessonPlanned("Midnight tide", day, new LocalTime(0, 15), 50, true, null, false));
        var week = await teacher.Get<CalendarView>("/api/calendar?from=2028-06-05&days=7");
        week.TimeZone.ShouldBe("Atlantic/Faroe");
        // 00:15 on Monday at the school is 23:15 on Sunday in UTC.
        week.Days[0].Lessons.ShouldHaveSingleItem().Title.ShouldBe("Midnight tide");
        week.Days.Skip(1).ShouldAllBe(d => d.Lessons.Count == 0);
        (await teacher.Http.GetAsync("/api/calendar?from=yesterday&days=7")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await teacher.Http.GetAsync("/api/calendar?from=2028-06-05&days=900")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    private static string Calendar(params string[] events) => string.Join("\r\n", [.. (string[])["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x"], .. events, "END:VCALENDAR", ""]);

    private static string Event(string more) => $"BEGIN:VEVENT\r\nUID:s\r\nSUMMARY:Tides\r\n{more}\r\nEND:VEVENT";

    [Fact]
    public async Task A_calendar_brought_in_again_moves_what_moved_and_makes_nothing_twice()
    {
        var (teacher, id) = await NewClass();
        var choices = ("choices", $$"""[{"title":"Tides","classId":"{{id}}","dropIn":false}]""");
        var rule = Event("DTSTART;TZID=Atlantic/Faroe:20290305T093000\r\nDURATION:PT50M\r\nRRULE:FREQ=WEEKLY;COUNT=3");
        (await Visitor.Read<CalendarLook>(await teacher.Send("/api/calendar/preview", Calendar(rule)))).Titles.ShouldHaveSingleItem().Dates.ShouldBe(3);
        (await Visitor.Read<CalendarStored>(await teacher.Send("/api/calendar", Calendar(rule), choices))).Counts.ShouldBe(new CalendarBroughtIn(3, 0, 0, 0, 0));
        (await Visitor.Read<CalendarStored>(await teacher.Send("/api/calendar", Calendar(rule), choices))).Counts.ShouldBe(new CalendarBroughtIn(0, 0, 0, 3, 0));

        var changed = Calendar(
            rule, Event("RECURRENCE-ID;TZID=Atlantic/Faroe:20290312T093000\r\nDTSTART;TZID=Atlantic/Faroe:20290313T140000\r\nDURATION:PT50M"),
            Event("RECURRENCE-ID;TZID=Atlantic/Faroe:20290319T093000\r\nDTSTART;TZID=Atlantic/Faroe:20290319T093000\r\nDURATION:PT50M\r\nSTATUS:CANCELLED"));
        var look = await Visitor.Read<CalendarLook>(await teacher.Send("/api/calendar/preview", changed));
        (look.Titles[0].Known, look.Titles[0].ClassId).ShouldBe((3, id));
        (await Visitor.Read<CalendarStored>(await teacher.Send("/api/calendar", changed, choices))).Counts.ShouldBe(new CalendarBroughtIn(0, 1, 1, 1, 0));
        (await Lessons(teacher, id)).ShouldBe("1@03-05T09:30 2@03-13T14:00 0@03-19T09:30x");
    }

    [Fact]
    public async Task A_calendar_that_cannot_be_brought_in_stores_nothing()
    {
        var (teacher, id) = await NewClass();
        var choices = ("choices", $$"""[{"title":"Tides","classId":"{{id}}","dropIn":false}]""");
        var endless = Calendar(Event("DTSTART:20300107T093000Z\r\nDURATION:PT50M\r\nRRULE:FREQ=WEEKLY"));
        foreach (var (file, decided, said) in new[]
        {
            (endless, choices, "goes on without end"),
            (endless, ("choices", $$"""[{"title":"Tides","classId":"{{Guid.NewGuid()}}","dropIn":false}]"""), "which events belong to which class"),
            (endless, ("choices", "[oops"), "not understood"),
            (Calendar(Event("DTSTART:20300107T093000Z\r\nDURATION:PT50S")), choices, "A lesson lasts from 5"),
            ("BEGIN:VCALENDAR\r\nBEGIN:VEV", choices, "cut off"),
        })
        {
            var refused = await teacher.Send("/api/calendar", file, decided);
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
        }

        (await Lessons(teacher, id)).ShouldBe("");
        var stored = await Visitor.Read<CalendarStored>(await teacher.Send("/api/calendar", endless, choices, ("until", "2030-01-31")));
        stored.Made.Count.ShouldBe(4);
        // Brought into the wrong class: taken off again, but for the one that something is prepared for.
        var plan = await teacher.Get<Features.Plans.PlanView>($"/api/lessons/{stored.Made[1]}/plan");
        await teacher.Put($"/api/lessons/{stored.Made[1]}/plan", new Features.Plans.PlanSent(plan.Version, plan.Plan, new Core.Plans.Plan { Points = [new(Guid.NewGuid(), "What you saw")] }));
        (await teacher.Post<LessonsTakenOff>("/api/calendar/undo", new LessonsMade(stored.Made))).ShouldBe(new LessonsTakenOff(3, 1));
        (await Lessons(teacher, id)).ShouldBe("1@01-14T09:30");
    }

    [Fact]
    public async Task The_private_link_reads_the_calendar_until_it_is_revoked()
    {
        var (teacher, id) = await NewClass();
        await teacher.Post<SeriesChanged>($"/api/classes/{id}/series", Weekly(new LocalDate(2031, 3, 3), 2));
        var link = await teacher.Post<CalendarLink>("/api/calendar/link", new { });
        using var outsider = new HttpClient { BaseAddress = new Uri(app.Address) };
        var text = await outsider.GetStringAsync(link.Path);
        text.ShouldContain("DTSTART:20310303T093000Z");
        text.ShouldContain("SUMMARY:Tides");
        (await teacher.Http.GetStringAsync("/api/calendar.ics")).ShouldContain("DTSTART:20310303T093000Z");
        (await outsider.GetAsync("/calendars/AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA.ics")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        await teacher.Post<CalendarLink>("/api/calendar/link", new { });
        (await outsider.GetAsync(link.Path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var second = await teacher.Post<CalendarLink>("/api/calendar/link", new { });
        await teacher.Http.DeleteAsync("/api/calendar/link");
        (await outsider.GetAsync(second.Path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_class_is_renamed_put_away_and_taken_up_again()
    {
        var (teacher, id) = await NewClass();
        (await teacher.Put($"/api/classes/{id}", new ClassChange("Cloud families", null, Archived: true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var line = (await teacher.Get<List<ClassLine>>("/api/classes")).Single(c => c.Id == id);
        (line.Name, line.Archived).ShouldBe(("Cloud families", true));
        (await teacher.Get<Desk>("/api/desk")).Classes.ShouldNotContain(c => c.Id == id);
        await teacher.Put($"/api/classes/{id}", new ClassChange("Cloud families", null, Archived: false));
        (await teacher.Get<Desk>("/api/desk")).Classes.ShouldContain(c => c.Id == id);
        (await teacher.Put($"/api/classes/{id}", new ClassChange(" ", null, false))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await teacher.Put($"/api/classes/{id}", new ClassChange("x", Guid.NewGuid(), false))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_changed_title_of_a_series_makes_no_second_lesson_for_one_that_was_moved()
    {
        var (teacher, id) = await NewClass();
        var series = (await teacher.Post<SeriesChanged>($"/api/classes/{id}/series", Weekly(Monday, 3))).Id;
        var second = (await teacher.Get<ClassView>($"/api/classes/{id}")).Lessons.OrderBy(l => l.PlannedStart).ElementAt(1);
        await teacher.Put<LessonLine>($"/api/lessons/{second.Id}", new LessonPlanned("Sea breezes", Monday.PlusDays(8), HalfPastNine, 50, false, null, false));

        var changed = await teacher.Put<SeriesChanged>($"/api/series/{series}", Weekly(Monday, 3) with { Title = "Land breezes" });
        (changed.Made, changed.Cancelled).ShouldBe((0, 0));
        (await Lessons(teacher, id)).ShouldBe("1@03-15T09:30 2@03-23T09:30 3@03-29T08:30");
    }

    [Fact]
    public async Task Live_shows_the_number_a_lesson_has_now()
    {
        var (teacher, id) = await NewClass();
        async Task<LessonLine> Planned(string title, int day) => await teacher.Post<LessonLine>(
            $"/api/classes/{id}/lessons/planned", new LessonPlanned(title, Monday.PlusDays(day), HalfPastNine, 50, false, null, false));
        var (first, later) = (await Planned("Fog", 0), await Planned("Haar", 1));
        (await teacher.Get<Features.Live.LiveView>($"/api/lessons/{later.Id}/live")).Head.Number.ShouldBe(2);
        await teacher.Put<LessonLine>($"/api/lessons/{first.Id}", new LessonPlanned("Fog", Monday.PlusDays(2), HalfPastNine, 50, false, null, false));
        (await teacher.Get<Features.Live.LiveView>($"/api/lessons/{later.Id}/live")).Head.Number.ShouldBe(1);
    }
}
