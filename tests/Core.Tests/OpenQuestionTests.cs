using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Core.Register;
using PoliteTally.Core.Settling;

namespace PoliteTally.Core.Tests;

/// <summary>Only what the sources cannot agree on is asked; each with a proposal and why; and what the register says then.</summary>
public sealed class OpenQuestionTests
{
    private static readonly Guid[] Roster = [Given.Juno, Given.Eino, Given.Zainab];

    private static IReadOnlyList<OpenQuestion> Asked(LessonState state, params NameMatch[] names) =>
        new OpenQuestions(state, Given.Lesson, ClassRules.Default, Roster, DateTimeZone.Utc).All(names);

    private static OpenQuestion? OfStatus(params IEnumerable<Entry> entries) => Asked(Given.State(entries)).SingleOrDefault(q => q.Asks == Asks.WhichStatus);

    private static Entry[] Stay(double from, double to) =>
        [Given.Noted(from, new Joined("Juno Q", "")), Given.Noted(to, new Left("Juno Q", "")), Given.Noted(60, new NameMatched("Juno Q", Given.Juno))];

    private static Entry Mark(double minute, Mark mark) => Given.Noted(minute, new Marked(Given.Juno, mark));

    [Fact]
    public void Nothing_is_asked_where_marks_and_list_agree()
    {
        OfStatus([Mark(2, Attendance.Mark.Here), .. Stay(-1, 50)]).ShouldBeNull();
        OfStatus(Mark(2, Attendance.Mark.Here)).ShouldBeNull();
        OfStatus(Stay(8, 50)).ShouldBeNull();
    }

    [Theory]
    [InlineData(18)]
    [InlineData(8)]
    // Two clocks are never quite the same.
    [InlineData(7.5)]
    public void Who_was_seen_here_after_they_came_came_as_late_as_they_did(double minute)
    {
        OfStatus([Mark(minute, Attendance.Mark.Here), .. Stay(8, 50)]).ShouldBeNull();
        OfStatus([Given.Noted(minute, new RollCallTaken([Given.Juno, Given.Eino])), .. Stay(8, 50)]).ShouldBeNull();
        OfStatus([Mark(2, Attendance.Mark.Here), Mark(minute, Attendance.Mark.Here), .. Stay(8, 50)]).ShouldNotBeNull();
        // Whom the list has for a minute and the teacher saw later on is asked about.
        OfStatus([Mark(minute, Attendance.Mark.Here), .. Stay(0, 1)]).ShouldNotBeNull();
    }

    [Fact]
    public void A_mark_made_too_early_is_asked_about_and_the_list_is_proposed()
    {
        var mark = Mark(2, Attendance.Mark.Here);
        Entry[] entries = [mark, .. Stay(8, 50)];
        var asked = OfStatus(entries).ShouldNotBeNull();
        asked.Choices.Select(c => $"{c.By}: {c.Says}").ShouldBe(["you: present", "the list: late, 8 min"]);
        asked.Proposed.ShouldBe(1);
        // Taken, nothing is asked any more, and the register says what the list does.
        var taken = Given.State([.. entries, .. asked.Choices[1].Acts.Select(a => Given.Noted(61, a))]);
        Asked(taken).ShouldBeEmpty();
        RegisterMark.Of(Given.Juno, null, "Juno", taken.AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default)).InWords.ShouldBe("late, 8 min");
    }

    [Fact]
    public void Who_was_marked_gone_and_did_something_is_asked_about_and_the_mark_is_proposed()
    {
        var asked = Away(Mark(1, Attendance.Mark.Here), Mark(10, Attendance.Mark.Left), Given.Noted(30, new ChatSaid(Given.Juno, ChatKind.Answer, "four"))).ShouldHaveSingleItem();
        asked.Choices.Select(c => $"{c.By}: {c.Says}").ShouldBe(["you: away from 09:40 to 10:20", "what they did: there from 09:40 to 10:00"]);
        asked.Proposed.ShouldBe(0);
    }

    private static OpenQuestion[] Of(Asks asks, params IEnumerable<Entry> entries) => [.. Asked(Given.State(entries)).Where(q => q.Asks == asks)];

    [Fact]
    public void Who_was_called_missing_while_connected_is_asked_about_and_stays_as_measured_meanwhile()
    {
        Entry[] entries = [.. Stay(0, 50), Given.Noted(20, new RollCallTaken([Given.Eino])), Given.Noted(30, new ChatSaid(Given.Juno, ChatKind.Answer, "four"))];
        var asked = Away(entries).ShouldHaveSingleItem();
        asked.Choices.Select(c => $"{c.By}: {c.Says}").ShouldBe(["you: away from 09:50 to 10:00", "the list: there"]);
        double Minutes(int? choice) => Given.State([.. entries, .. choice is { } taken ? asked.Choices[taken].Acts.Select(a => Given.Noted(70, a) with { HappenedAt = asked.Choices[taken].At!.Value }) : []])
            .AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).Present.TotalMinutes;
        (Minutes(null), Minutes(0), Minutes(1)).ShouldBe((50, 40, 50));
    }

    [Fact]
    public void Here_after_they_were_seen_to_leave_is_asked_about_and_holds_if_it_is_true()
    {
        Entry[] entries = [.. Stay(0, 10), Mark(20, Attendance.Mark.Here)];
        var asked = Away(entries).ShouldHaveSingleItem();
        (asked.Proposed, asked.Choices[1].By, asked.Choices[1].Says).ShouldBe((1, "you", "there from 09:40 to 10:20"));
        var result = Given.State([.. entries, Given.Noted(70, asked.Choices[1].Acts[0]) with { HappenedAt = asked.Choices[1].At!.Value }]).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default);
        (result.Present.TotalMinutes, result.KnownBy, result.Flags).ShouldBe((50, KnownBy.Declared, AttendanceFlags.None));
    }

    [Theory]
    [InlineData(39, true, true)]
    [InlineData(39, false, false)]     // nobody is known to have been there before
    [InlineData(5, true, false)]       // within the first 5 min
    public void Who_is_known_by_what_they_did_alone_and_came_after_others_may_be_late(double first, bool others, bool isAsked)
    {
        Entry[] entries = [Given.Noted(first, new Page.PageOpened(Given.Juno)), .. others ? [Given.Noted(1, new Marked(Given.Eino, Attendance.Mark.Here))] : Array.Empty<Entry>()];
        var asked = Of(Asks.WhenTheyCame, entries);
        asked.Length.ShouldBe(isAsked ? 1 : 0);
        if (!isAsked)
        {
            return;
        }

        (asked[0].Proposed, asked[0].Choices[0].Says, asked[0].Choices[1].Says, asked[0].Why).ShouldBe((0, "late, 39 min", "there before", "first seen at 10:09, and others were there before"));
        string After(int choice)
        {
            var state = Given.State([.. entries, Given.Noted(70, asked[0].Choices[choice].Acts[0]) with { HappenedAt = asked[0].Choices[choice].At!.Value }]);
            Asked(state).ShouldNotContain(q => q.Student == Given.Juno);
            return RegisterMark.Of(Given.Juno, null, "", state.AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default)).InWords;
        }

        (After(0), After(1)).ShouldBe(("late, 39 min", "present"));
    }

    [Fact]
    public void A_connection_that_failed_is_offered_where_it_costs_and_answered_once()
    {
        Entry[] StayOf(string name, Guid student, double from, double to) => [Given.Noted(from, new Joined(name, "")), Given.Noted(to, new Left(name, "")), Given.Noted(60, new NameMatched(name, student))];
        // In and out, and away for good at the end.
        Entry[] entries = [.. Stay(0, 10), .. Stay(15, 30)];
        var asked = Of(Asks.WasItTheLine, entries).ShouldHaveSingleItem();
        (asked.Proposed, asked.Choices[0].Says).ShouldBe((1, "the connection failed"));
        asked.Choices[0].Acts.ShouldBe([new ConnectionJudged(Given.Juno, MissedBy.LeavingEarly, Failed: true)]);
        Of(Asks.WasItTheLine, [.. entries, Given.Noted(70, asked.Choices[1].Acts[0])]).ShouldBeEmpty();
        Given.State([.. entries, Given.Noted(70, asked.Choices[0].Acts[0])]).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).Credit.ShouldBe(1m);
        // Several gone within a minute are no coincidence; one alone left early.
        Of(Asks.WasItTheLine, Stay(0, 30)).ShouldBeEmpty();
        Of(Asks.WasItTheLine, [.. Stay(0, 30), .. StayOf("Eino R", Given.Eino, 0, 30.5), .. StayOf("Zainab U", Given.Zainab, 0, 29.5)]).Select(q => q.Proposed).ShouldBe([0, 0, 0]);
        // Where it costs nothing, nothing is asked.
        Of(Asks.WasItTheLine, [.. Stay(0, 10), .. Stay(15, 50)]).ShouldBeEmpty();
    }

    [Fact]
    public void What_they_did_does_not_say_that_they_came_in_time() =>
        OfStatus(Mark(8, Attendance.Mark.Late), Given.Noted(4, new ChatSaid(Given.Juno, ChatKind.Answer, "four")), Given.Noted(9, Given.Turn(Given.Juno))).ShouldBeNull();

    [Fact]
    public void A_status_that_was_declared_is_not_asked_again() =>
        OfStatus([Mark(2, Attendance.Mark.Here), .. Stay(8, 50), Given.Noted(61, new StatusDeclared(Given.Juno, AttendanceStatus.Present))]).ShouldBeNull();

    private static OpenQuestion[] Away(params IEnumerable<Entry> entries) => [.. Asked(Given.State(entries)).Where(q => q.Asks == Asks.WereTheyAway)];

    private static Entry Wrote(double minute) => Given.Noted(minute, new NameWrote("Juno Q", "low water at four", false));

    /// <summary>On the list from 0 to 11 and from 25 to 50; the lesson is from 0 to 50, and gaps up to 2 min are bridged.</summary>
    private static readonly Entry[] TwoStays = [.. Stay(0, 11), .. Stay(25, 50)];

    [Theory]
    [InlineData("wrote while away", new[] { 12.0 }, "away from 09:41 to 09:55", "“Juno Q” wrote in the chat at 09:42, while the list has them away")]
    [InlineData("wrote more than once", new[] { 12.0, 14, 20 }, "away from 09:41 to 09:55", "“Juno Q” wrote in the chat at 09:42, and 2 things more, while the list has them away")]
    [InlineData("wrote while there", new[] { 10.0, 26 }, null, null)]
    [InlineData("wrote so close to leaving that two clocks may disagree", new[] { 11.7 }, null, null)]
    [InlineData("wrote so close to coming back", new[] { 24.3 }, null, null)]
    public void Who_did_something_while_the_list_has_them_away_is_asked_about(string what, double[] wrote, string? away, string? why)
    {
        var asked = Away([.. TwoStays, .. wrote.Select(Wrote)]);
        asked.Select(q => q.Choices[0].Says).SingleOrDefault().ShouldBe(away, what);
        asked.Select(q => q.Why).SingleOrDefault().ShouldBe(why);
        asked.ShouldAllBe(q => q.Proposed == (wrote.Length > 1 ? 1 : 0) && q.Choices[1].By == "what they did");
    }

    [Fact]
    public void Before_they_came_and_after_they_left_is_asked_too() =>
        Away([.. Stay(10, 30), Wrote(4), Wrote(40)]).Select(q => $"{q.Choices[0].Says}; {q.Choices[1].Says}")
            .ShouldBe(["away from 09:30 to 09:40; there from 09:34 to 09:40", "away from 10:00 to 10:20; there from 10:00 to 10:10"]);

    [Fact]
    public void A_gap_that_is_bridged_and_somebody_who_is_on_no_connection_are_not_asked_about()
    {
        Away([.. Stay(0, 11), .. Stay(12.9, 50), Wrote(11.95)]).ShouldBeEmpty();
        Away(Mark(2, Attendance.Mark.Here), Wrote(13), Given.Noted(60, new NameMatched("Juno Q", Given.Juno))).ShouldBeEmpty();
        Away([.. TwoStays, Wrote(13), Given.Noted(61, new StatusDeclared(Given.Juno, AttendanceStatus.Present))]).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_said_of_a_time_away_counts_and_can_be_taken_back()
    {
        Entry[] entries = [.. TwoStays, Wrote(12), Wrote(16)];
        var asked = Away(entries).ShouldHaveSingleItem();
        Entry[] Taken(int choice) => [.. asked.Choices[choice].Acts.Select(a => Given.Noted(70, a) with { HappenedAt = asked.Choices[choice].At!.Value })];
        double Minutes(params IEnumerable<Entry> all) => Given.State(all).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).Present.TotalMinutes;

        // Until it is answered the list counts; who was there was there until they came again.
        Minutes(entries).ShouldBe(11 + 25);
        Minutes([.. entries, .. Taken(1)]).ShouldBe(50);
        Minutes([.. entries, .. Taken(0)]).ShouldBe(11 + 25);
        Away([.. entries, .. Taken(0)]).ShouldBeEmpty();
        Away([.. entries, .. Taken(1)]).ShouldBeEmpty();
        // The later word counts; struck out, it is asked again; and what they did later in that time is another question.
        Minutes([.. entries, .. Taken(0), .. Taken(1).Select(e => e with { NotedAt = Given.At(80) })]).ShouldBe(50);
        var taken = Taken(0);
        Away([.. entries, .. taken, Given.Strike(taken[0])]).ShouldHaveSingleItem();
        Away([.. entries, .. Taken(0), Wrote(20)]).ShouldHaveSingleItem().Choices[1].Says.ShouldBe("there from 09:41 to 09:55");
    }

    [Fact]
    public void A_roll_call_is_not_struck_out_for_one()
    {
        var asked = OfStatus([Given.Noted(3, new RollCallTaken([Given.Juno, Given.Eino])), .. Stay(8, 50)]).ShouldNotBeNull();
        asked.Choices[1].Acts.ShouldBe([new StatusDeclared(Given.Juno, AttendanceStatus.Late)]);
    }

    [Fact]
    public void A_name_is_asked_with_whom_it_could_be()
    {
        var state = Given.State(Given.Noted(3, new Joined("Rowan", "")), Given.Noted(41, new Left("Rowan", "")));
        var match = new NameMatch(new ShownName("Rowan"), Certainty.Likely, MatchedBy.Similar, Given.Eino, [Given.Eino, Given.Zainab]);
        var asked = Asked(state, match).ShouldHaveSingleItem();
        asked.Choices.Select(c => c.Student).ShouldBe([Given.Eino, Given.Zainab, null]);
        (asked.Proposed, asked.Why).ShouldBe((0, "09:33 to 10:11; the likest name"));
        asked.Choices[^1].Acts.ShouldBe([new NameMatched("Rowan", null)]);
    }

    [Fact]
    public void An_unknown_name_is_proposed_for_the_only_one_who_is_missing()
    {
        Entry[] entries = [Given.Noted(3, new Joined("Guest 4417", "")), Mark(1, Attendance.Mark.Here), Given.Noted(1, new ExcuseRecorded(Given.Eino, "ferry"))];
        var match = new NameMatch(new ShownName("Guest 4417"), Certainty.Unknown, MatchedBy.Nothing, null, []);
        var asked = Asked(Given.State(entries), match).ShouldHaveSingleItem();
        asked.Choices[0].Student.ShouldBe(Given.Zainab);
        asked.Proposed.ShouldBeNull("a name that is like nobody's is never taken by one key without a look");
        // Somebody whose name was answered is not asked again.
        Asked(Given.State([.. entries, Given.Noted(60, new NameMatched("Guest 4417", null))]), match).ShouldBeEmpty();
    }

    [Fact]
    public void Words_that_are_kept_stand_beside_the_question()
    {
        var file = Given.Noted(60, new FileBroughtIn(FileKind.Captions, "captions.vtt", 1, "00"));
        var spoke = Given.Noted(14, new NameSpoke("Juno Q", Duration.FromSeconds(24), "on Nort it was the other way round"), Source.File) with { Together = file.Id };
        Asked(Given.State([file, spoke, Given.Noted(60, new NameMatched("Juno Q", Given.Juno))])).ShouldHaveSingleItem()
            .Why.ShouldBe("captions: spoke for 24 s at 09:44, and nothing was noted: “on Nort it was the other way round”");
    }

    [Theory]
    [InlineData(19, false)]
    [InlineData(20, true)]
    public void Speech_that_nobody_noted_is_asked_about_from_a_length_on(int seconds, bool isAsked)
    {
        var file = Given.Noted(60, new FileBroughtIn(FileKind.Captions, "captions.vtt", 1, "00"));
        var spoke = Given.Noted(14, new NameSpoke("Juno Q", Duration.FromSeconds(seconds)), Source.File) with { Together = file.Id };
        Entry[] entries = [file, spoke, Given.Noted(60, new NameMatched("Juno Q", Given.Juno))];
        var asked = Asked(Given.State(entries)).SingleOrDefault();
        (asked is not null).ShouldBe(isAsked);
        if (asked is null)
        {
            return;
        }

        asked.Why.ShouldBe("captions: spoke for 20 s at 09:44, and nothing was noted");
        Given.State(entries).HandLine.Turns.ShouldBeEmpty();
        foreach (var (choice, turns) in asked.Choices.Zip([1, 0]))
        {
            var taken = Given.State([.. entries, .. choice.Acts.Select(a => Given.Noted(choice.At is { } at ? (at - Given.Start).TotalMinutes : 61, a))]);
            taken.HandLine.Turns.Count.ShouldBe(turns);
            Asked(taken).ShouldBeEmpty();
        }
    }

    [Fact]
    public void All_messages_that_show_what_they_are_are_one_answer()
    {
        Entry[] entries =
        [
            Given.Noted(5, new NameWrote("Juno Q", "why does the wind back?", false)), Given.Noted(6, new NameWrote("Juno Q", "hello", false)), Given.Noted(7, new NameWrote("Juno Q", "four", false)),
            Given.Noted(8, new NameWrote("somebody", "why?", false)), Given.Noted(60, new NameMatched("Juno Q", Given.Juno)),
        ];
        var asked = Asked(Given.State(entries)).ShouldHaveSingleItem();
        (asked.About, asked.Choices[0].Says, asked.Why).ShouldBe(("3 messages", "1 question, 1 social", "1 more cannot be told by their words"));
        var taken = Given.State([.. entries, .. asked.Choices[0].Acts.Select(a => Given.Noted(61, a))]);
        Asked(taken).ShouldBeEmpty();
        taken.Chat.Of(Given.Juno).Select(m => m.Kind).ShouldBe([ChatKind.Question, ChatKind.Social, ChatKind.Unsorted]);
    }

    [Fact]
    public void Of_very_many_messages_one_answer_sorts_as_many_as_are_sent_at_once()
    {
        Entry[] entries = [.. Enumerable.Range(0, 500).Select(i => Given.Noted(5 + (i / 60.0), new ChatSaid(Given.Juno, ChatKind.Unsorted, $"why {i}?")))];
        var first = Asked(Given.State(entries)).ShouldHaveSingleItem().Choices[0].Acts;
        first.Count.ShouldBe(OpenQuestions.MostMessages);
        Asked(Given.State([.. entries, .. first.Select(a => Given.Noted(61, a))])).ShouldHaveSingleItem().Choices[0].Acts.Count.ShouldBe(100);
    }

    [Theory]
    [InlineData(16, 10, 20, 16, 0)]
    [InlineData(9, 10, 20, 10, 20)]
    [InlineData(24, 10, 20, 24, 0)]
    public void A_register_is_due_by_a_time_of_the_day_and_never_before_the_end(int dueBy, int endHour, int endMinute, int hour, int minute)
    {
        var zone = DateTimeZoneProviders.Tzdb["Atlantic/Faroe"];
        var day = new LocalDate(2026, 7, 6);
        var due = new RegisterRules { DueBy = Duration.FromHours(dueBy) }.DueAt(zone.AtStrictly(day + new LocalTime(endHour, endMinute)).ToInstant(), zone);
        (due.InZone(zone).LocalDateTime - day.AtMidnight()).ToDuration().ShouldBe(Duration.FromMinutes((hour * 60) + minute));
    }

    [Fact]
    public void An_amendment_says_what_changed_and_nothing_else()
    {
        RegisterMark Of(Guid student, AttendanceStatus status, int? late = null, string? why = null, string name = "x") => new(student, null, name, status, late, why);
        RegisterMark[] before = [Of(Given.Juno, AttendanceStatus.Present), Of(Given.Eino, AttendanceStatus.Absent), Of(Given.Ana, AttendanceStatus.Late, 8)];
        RegisterMark[] after = [Of(Given.Juno, AttendanceStatus.Present, name: "y"), Of(Given.Eino, AttendanceStatus.Excused, why: "ferry"), Of(Given.Zainab, AttendanceStatus.Late, 9)];
        RegisterChange.Between(before, after).Select(c => c.InWords).ShouldBe(
            ["x: excused: ferry; it was absent", "x: late, 9 min; not in it before", "x: not in it any more; it was late, 8 min"]);
        RegisterChange.Between(before, before).ShouldBeEmpty();
    }
}
