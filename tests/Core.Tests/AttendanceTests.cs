using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Tests;

public sealed class AttendanceTests
{
    [Theory]
    // joins and leaves                status     minutes dropouts flags
    [InlineData("j0 l50", "Present", 50, 0, "None")]
    [InlineData("j-10 l60", "Present", 50, 0, "None")]                        // early and over earn nothing extra
    [InlineData("j5 l50", "Present", 45, 0, "None")]                          // exactly 5 min is not late
    [InlineData("j5.02 l50", "Late", 44.98, 0, "None")]
    [InlineData("j0 l45", "Present", 45, 0, "None")]                          // exactly 5 min before E is not early
    [InlineData("j0 l44.9", "Present", 44.9, 0, "LeftEarly")]
    [InlineData("j12 l40", "Late", 28, 0, "LeftEarly, Partly")]               // late, left early and partly are independent
    [InlineData("j0 l20 j22 l50", "Present", 50, 1, "None")]                  // 2 min are bridged, and still a dropout
    [InlineData("j0 l20 j22.1 l50", "Present", 47.9, 1, "None")]
    [InlineData("j0 l10 j11 l20 j30 l50", "Present", 40, 2, "None")]
    [InlineData("j0", "Present", 50, 0, "Open")]                              // no leave: runs to E
    [InlineData("l30", "Present", 30, 0, "LeftEarly, Partly, NoJoin")]        // no join: starts at R
    [InlineData("j0 l4.9", "Absent", 4.9, 0, "None")]                         // below 5 min, which is 10 % of 50
    [InlineData("j0 l5", "Present", 5, 0, "LeftEarly, Partly")]
    [InlineData("phone:j0 phone:l30 laptop:j20 laptop:l50", "Present", 50, 0, "None")] // two devices count once
    [InlineData("phone:j0 phone:l10 laptop:j5 laptop:l8", "Present", 10, 0, "LeftEarly, Partly")]
    [InlineData("j0 l20 j20 l50", "Present", 50, 0, "None")]                  // reconnected within one time stamp
    [InlineData("j10 l10", "Absent", 0, 0, "None")]                           // came and went at once
    [InlineData("j60 l70", "Absent", 0, 0, "None")]                           // after the lesson
    [InlineData("j50 l60", "Absent", 0, 0, "None")]                           // at the very end
    [InlineData("j-10 l0", "Absent", 0, 0, "None")]                           // until the very start
    [InlineData(":j0 :j10 :l40 :l50", "Present", 50, 0, "None")]                  // two at once, no device told: over when the last has left
    [InlineData(":j0 :j1 :l2 :l50", "Present", 50, 0, "None")]
    [InlineData("phone:j0 phone:l30 phone:j30 phone:l30", "Present", 30, 0, "LeftEarly, Partly")] // on again and off in one moment
    [InlineData("phone:j0 phone:j10 phone:l50", "Present", 50, 0, "None")]    // one device has one connection: the first broke off unseen
    [InlineData("m47", "Present", 47, 0, "LengthOnly")]
    [InlineData("m90", "Present", 50, 0, "LengthOnly")]
    [InlineData("m30", "Present", 30, 0, "Partly, LengthOnly")]
    [InlineData("m2", "Absent", 2, 0, "LengthOnly")]
    [InlineData("", "Absent", 0, 0, "None")]
    public void Measured_presence_decides(string sightings, string status, double minutes, int dropouts, string flags)
    {
        var result = Given.Attendance(sightings);

        result.Status.ToString().ShouldBe(status);
        result.Present.TotalMinutes.ShouldBe(minutes, 0.01);
        result.Dropouts.ShouldBe(dropouts);
        result.Flags.ToString().ShouldBe(flags);
        result.KnownBy.ShouldBe(sightings.Length == 0 ? KnownBy.Nothing : KnownBy.Measured);
    }

    [Theory]
    [InlineData("s10 s40", 30)]
    [InlineData("s10", 0)]              // seen at all is present
    [InlineData("p3 q20", 17)]          // and so is who has the page open
    [InlineData("p-3 q20", 20)]
    [InlineData("p40", 10)]
    public void What_somebody_did_only_estimates(string sightings, double minutes)
    {
        var result = Given.Attendance(sightings);

        result.Status.ShouldBe(AttendanceStatus.Present);
        result.Present.TotalMinutes.ShouldBe(minutes, 0.01);
        (result.KnownBy, result.Flags, result.Credit).ShouldBe((KnownBy.Estimated, AttendanceFlags.Estimated, 1m));
    }

    /// <summary>The lesson is from 0 to 50; each row was reckoned wrongly once, unasked.</summary>
    [Theory]
    // list              wrote      status     minutes  flags                      asked
    [InlineData("j25 l50", "-15", "Late", 25, "Partly", 0)]                          // "I will be late"
    [InlineData("j6.2 l50", "6", "Late", 43.8, "None", 0)]                           // within 45 s of joining
    [InlineData("j-2 l10", "10.33", "Present", 10, "LeftEarly, Partly", 0)]          // "bye"
    [InlineData("j-2 l10", "30", "Present", 10, "LeftEarly, Partly", 1)]
    [InlineData("j-2 l10", "30 40", "Present", 10, "LeftEarly, Partly", 1)]
    [InlineData("", "-15", "Absent", 0, "None", 0)]                                  // "I am ill today"
    [InlineData("", "50.1", "Absent", 0, "None", 0)]
    [InlineData("j1 l1.8", "1.5", "Present", 0.8, "LeftEarly, Partly", 0)]           // not a whole lesson
    [InlineData("j49.1 l50", "49.5", "Late", 0.9, "Partly", 0)]                      // the last 54 s
    [InlineData("j49.1 l50", "", "Absent", 0.9, "None", 0)]
    [InlineData("j60 l70", "10 20", "Absent", 0, "None", 1)]                         // asked, and meanwhile as measured
    [InlineData("m1", "5 45", "Absent", 1, "LengthOnly", 0)]
    public void Acts_show_a_moment_and_move_nothing_that_was_measured(string list, string wrote, string status, double minutes, string flags, int asked)
    {
        var result = Given.Attendance($"{list} {string.Join(' ', wrote.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(w => $"s{w}"))}");

        (result.Status.ToString(), result.Flags.ToString(), result.Contested.Count).ShouldBe((status, flags, asked));
        result.Present.TotalMinutes.ShouldBe(minutes, 0.01);
        result.KnownBy.ShouldBe(list.Length > 0 ? KnownBy.Measured : KnownBy.Nothing);
    }

    [Theory]
    // joins, leaves and a length beside them: the shorter time counts, and the gaps lie somewhere between
    [InlineData("j0 l50 m40", 40, "LengthShorter")]
    [InlineData("j0 l50 m49.5", 50, "None")]
    [InlineData("j0 l50 m55", 50, "None")]
    [InlineData("j-10 l50 m55", 50, "LengthShorter")]
    public void A_shorter_length_is_the_time_that_counts(string sightings, double minutes, string flags)
    {
        var result = Given.Attendance(sightings);
        (result.Present.TotalMinutes, result.Flags.ToString(), result.KnownBy).ShouldBe((minutes, flags, KnownBy.Measured));
    }

    [Theory]
    // the teacher's marks      with the file     status    minutes
    [InlineData("here@3", "", "Present", 50)]              // "here" is from the start
    [InlineData("late@7", "", "Late", 43)]                 // "late" from that moment
    [InlineData("late@7 here@8", "", "Present", 50)]       // put right
    [InlineData("here@1 late@9", "", "Late", 41)]
    [InlineData("here@1 left@30", "", "Present", 30)]
    [InlineData("here@1 left@30 here@40", "", "Present", 40)]
    [InlineData("left@30", "", "Present", 0)]              // seen to leave, and nobody knows since when
    [InlineData("late@7", "j0 l50", "Late", 50)]           // the mark wins the status, minutes stay as measured
    public void Marks_win_the_status(string marks, string sightings, string status, double minutes)
    {
        var result = Given.Attendance(sightings, marks);

        result.Status.ToString().ShouldBe(status);
        result.Present.TotalMinutes.ShouldBe(minutes, 0.01);
        result.KnownBy.ShouldBe(KnownBy.Declared);
    }

    [Fact]
    public void What_the_teacher_declares_when_settling_wins_over_everything()
    {
        Given.Attendance("j0 l50", "here@1", declared: AttendanceStatus.Absent).Status.ShouldBe(AttendanceStatus.Absent);
        Given.Attendance("", declared: AttendanceStatus.Present).Credit.ShouldBe(1m);
    }

    [Theory]
    [InlineData("", "Excused")]
    [InlineData("j0 l2", "Excused")]     // there for 2 min is not there
    [InlineData("j0 l50", "Present")]    // an excuse does not take away presence
    [InlineData("j9 l50", "Late")]
    public void An_excuse_counts_only_for_who_was_not_there(string sightings, string status) =>
        Given.Attendance(sightings, excuse: "dentist").Status.ToString().ShouldBe(status);

    [Theory]
    [InlineData("j0 l50", 1.0)]
    [InlineData("j6 l50", 0.75)]
    [InlineData("", 0.0)]
    public void Credit_by_status(string sightings, double credit) =>
        Given.Attendance(sightings).Credit.ShouldBe((decimal)credit);

    [Theory]
    [InlineData("j0 l50", 1.0)]
    [InlineData("j0 l37.5", 1.0)]     // 75 % is enough
    [InlineData("j0 l18.75", 0.5)]
    public void Credit_by_share(string sightings, double credit) =>
        Given.Attendance(sightings, policy: new AttendancePolicy { CreditBy = CreditBy.Share }).Credit.ShouldBe((decimal)credit);

    [Theory]
    // A status that is known otherwise earns what it earns by itself.
    [InlineData("s10", 1.0)]
    [InlineData("", 0.0)]
    public void Credit_by_share_is_only_of_what_was_measured(string sightings, double credit) =>
        Given.Attendance(sightings, policy: new AttendancePolicy { CreditBy = CreditBy.Share }).Credit.ShouldBe((decimal)credit);

    [Theory]
    // 50 min; by default late and leaving early cost a quarter each, and of what was measured no more than twice the share
    [InlineData("j6 l50", "", false, 0.75)]
    [InlineData("j0 l40", "", false, 0.75)]
    [InlineData("j6 l40", "", false, 0.5)]
    [InlineData("j0 l15", "", false, 0.6)]               // 30 % of the time
    [InlineData("j0 l15 j35 l50", "", false, 1.0)]       // dropouts cost nothing while they were there half of the time
    [InlineData("j0 l10 j40 l50", "", false, 0.8)]
    [InlineData("j0 l10 j40 l50", "Dropouts", false, 1.0)]
    [InlineData("j6 l40", "ComingLate", false, 0.75)]
    [InlineData("j6 l40", "LeavingEarly", false, 0.75)]
    [InlineData("j6 l40", "ComingLate, LeavingEarly", false, 1.0)]
    [InlineData("j40 l50", "ComingLate", false, 1.0)]
    [InlineData("j40 l50", "", true, 1.0)]
    [InlineData("j6 l15", "", true, 1.0)]                // an excuse for the lesson covers late and left early
    public void What_is_missed_without_an_excuse_costs(string sightings, string lineFailed, bool excused, double credit)
    {
        var failed = lineFailed.Split(", ", StringSplitOptions.RemoveEmptyEntries).Select(Enum.Parse<MissedBy>).ToArray();
        Given.Attendance(sightings, excuse: excused ? "ferry" : null, lineFailed: failed).Credit.ShouldBe((decimal)credit);
    }

    /// <summary>Whom the teacher sent out neither left early nor fell out, and loses nothing by it; nothing was asked of them meanwhile.</summary>
    [Theory]
    // there from, to, again from, to; sent out, let back in; minutes; flags; dropouts; credit
    [InlineData(0, 20, 30, 50, 20, 30.0, 40, "None", 0, 1.0)]
    [InlineData(0, 20.5, 31, 50, 20, 30.5, 39.5, "None", 0, 1.0)]     // the meeting has it a little otherwise
    [InlineData(0, 20, 50, 50, 20, null, 20, "Partly", 0, 1.0)]       // and stayed out
    [InlineData(0, 20, 45, 50, 20, 30.0, 25, "Partly", 1, 1.0)]         // did not come back at once: a dropout, half of the time there or sent out
    [InlineData(0, 20, 50, 50, 20, 30.0, 20, "LeftEarly, Partly", 0, 0.75)] // let back in, and did not come
    public void Sent_out_is_neither_leaving_early_nor_a_dropout(double from, double to, double again, double end, double sentOut, double? letIn, double minutes, string flags, int dropouts, double credit)
    {
        List<Entry> entries = [Given.Noted(60, new Meeting.NameMatched("Juno", Given.Juno)), Given.Noted(from, new Meeting.Joined("Juno", "")), Given.Noted(to, new Meeting.Left("Juno", "")), Given.Noted(sentOut, new SentOut(Given.Juno))];
        if (again < end)
        {
            entries.AddRange([Given.Noted(again, new Meeting.Joined("Juno", "")), Given.Noted(end, new Meeting.Left("Juno", ""))]);
        }

        if (letIn is { } back)
        {
            entries.Add(Given.Noted(back, new LetBackIn(Given.Juno)));
        }

        var result = Given.State(entries).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default);
        (result.Present.TotalMinutes, result.Flags.ToString(), result.Dropouts, result.Credit).ShouldBe((minutes, flags, dropouts, (decimal)credit));
        result.SentOutSince.ShouldBe(letIn is null ? Given.At(sentOut) : null);
        result.Missed.Any(m => m.From < Given.At(letIn ?? 50) && m.To > Given.At(sentOut)).ShouldBeFalse();
        result.InWords().ShouldContain("sent out for");
    }

    [Fact]
    public void Declared_present_clears_late_and_left_early()
    {
        var result = Given.Attendance("j10 l30", declared: AttendanceStatus.Present);
        (result.Status, result.Flags, result.Credit, result.Present).ShouldBe((AttendanceStatus.Present, AttendanceFlags.Partly, 1m, Duration.FromMinutes(20)));
    }

    [Theory]
    // Where they are now the newest evidence says; an act beside every connection shows that they may be there.
    [InlineData("j1 s1.5 l2", "", false, null)]
    [InlineData("j1 l2 s20", "", false, 20.0)]
    [InlineData("j1 l2 s20 j21", "", true, null)]
    [InlineData("j1", "left@9", false, null)]
    [InlineData("j1 s12", "left@9", true, null)]
    [InlineData("s5", "", true, null)]
    [InlineData("s5 s30", "left@20", false, 30.0)]
    [InlineData("p5 q20", "", true, null)]                   // closing the page is no leaving
    [InlineData("s-5", "", false, null)]                     // before the start it says nothing
    public void The_sheet_shows_where_they_are_by_the_newest_evidence(string sightings, string marks, bool isHere, double? shown)
    {
        var result = Given.Attendance(sightings, marks);
        (result.IsHere, result.ShownSince).ShouldBe((isHere, shown is { } at ? Given.At(at) : null));
        if (shown is { } since)
        {
            result.MayBeHere(Given.At(since + 5), onPage: false).ShouldBeTrue();
            result.MayBeHere(Given.At(since + 5.1), onPage: false).ShouldBeFalse();
            result.MayBeHere(Given.At(since + 5.1), onPage: true).ShouldBeTrue();
        }
    }

    [Fact]
    public void Excused_is_not_counted() => Given.Attendance("", excuse: "dentist").Credit.ShouldBeNull();

    [Theory]
    // planned 09:30 to 10:20; actual from, to; joined; arrival in minutes; status
    [InlineData(8.0, 50.0, "j9 l50", 1, "Present")]      // nobody is late for a lesson that began late
    [InlineData(-5.0, 50.0, "j0 l50", 0, "Present")]     // starting early earns nothing
    [InlineData(0.0, 40.0, "j0 l40", 0, "Present")]      // ended early: E is the actual end
    [InlineData(0.0, 70.0, "j0 l51", 0, "Present")]      // ran over: E stays as planned
    public void Counted_from_R_to_E(double from, double to, string sightings, double arrival, string status)
    {
        var result = Given.Attendance(sightings, lesson: Given.Lesson with { ActualStart = Given.At(from), ActualEnd = Given.At(to) });

        result.Arrival!.Value.TotalMinutes.ShouldBe(arrival, 0.01);
        result.Status.ToString().ShouldBe(status);
        result.Flags.ShouldBe(AttendanceFlags.None);
    }

    [Fact]
    public void A_lesson_of_no_minutes_knows_only_seen_or_not()
    {
        var none = new LessonTimes(Given.Start, Given.Start, Given.Start, Given.Start, DropIn: false);

        Given.Attendance("j-1 l1", lesson: none).Status.ShouldBe(AttendanceStatus.Present);
        Given.Attendance("j-1 l1", lesson: none).Share.ShouldBe(1m);
        Given.Attendance("s0", lesson: none).Status.ShouldBe(AttendanceStatus.Present);
        Given.Attendance("", lesson: none).Status.ShouldBe(AttendanceStatus.Absent);
        Given.Attendance("j9 l10", lesson: none).Status.ShouldBe(AttendanceStatus.Absent);
    }

    [Fact]
    public void A_short_lesson_asks_for_a_tenth_of_its_time()
    {
        var short_ = new LessonTimes(Given.Start, Given.At(10), Given.Start, Given.At(10), DropIn: false);

        Given.Attendance("j0 l1", lesson: short_).Status.ShouldBe(AttendanceStatus.Present);
        Given.Attendance("j0 l0.9", lesson: short_).Status.ShouldBe(AttendanceStatus.Absent);
    }

    [Theory]
    [InlineData("j20 l40", "Present")]
    [InlineData("", "DidNotCome")]
    public void A_drop_in_lesson_knows_no_absence_and_no_lateness_unless_the_class_wants_it(string sightings, string status)
    {
        var result = Given.Attendance(sightings, lesson: Given.Lesson with { DropIn = true });

        result.Status.ToString().ShouldBe(status);
        Given.Attendance("", excuse: "dentist", lesson: Given.Lesson with { DropIn = true }).Status.ShouldBe(AttendanceStatus.Excused);
        var strict = AttendancePolicy.Default with { LateInDropIn = true };
        Given.Attendance("j20 l40", lesson: Given.Lesson with { DropIn = true }, policy: strict).Status.ShouldBe(AttendanceStatus.Late);
        Given.Attendance("j5 l40", lesson: Given.Lesson with { DropIn = true }, policy: strict).Status.ShouldBe(AttendanceStatus.Present);
    }

    [Theory]
    // Across midnight, and across both changes of daylight saving time in the islands.
    [InlineData("Atlantic/Faroe", "2026-11-23T23:40", 50)]
    [InlineData("Atlantic/Faroe", "2026-10-25T00:30", 90)]
    [InlineData("Atlantic/Faroe", "2026-03-29T00:30", 90)]
    public void Time_that_passes_is_what_counts(string zoneId, string local, int minutes)
    {
        var zone = DateTimeZoneProviders.Tzdb[zoneId];
        var start = zone.AtLeniently(NodaTime.Text.LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm").Parse(local).Value).ToInstant();
        var end = start + Duration.FromMinutes(minutes);
        var result = AttendanceRules.Reckon(
            new LessonTimes(start, end, start, end, DropIn: false),
            new StudentEvidence([new JoinAt(start + Duration.FromMinutes(6), Given.Id(1), "a"), new LeaveAt(end, Given.Id(2), "a")], []), AttendancePolicy.Default);

        result.Present.ShouldBe(Duration.FromMinutes(minutes - 6));
        result.Status.ShouldBe(AttendanceStatus.Late);
    }

    [Fact]
    public void Whoever_spoke_was_there_even_if_nobody_took_the_roll()
    {
        var state = Given.State(Given.Noted(12, Given.Turn(Given.Juno)));

        state.AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default).Status.ShouldBe(AttendanceStatus.Present);
        state.AttendanceOf(Given.Eino, Given.Lesson, AttendancePolicy.Default).Status.ShouldBe(AttendanceStatus.Absent);
    }
}
