using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Tests;

/// <summary>What happens in a lesson beside hands and turns, folded.</summary>
public sealed class LiveLessonTests
{
    private static AttendanceResult AttendanceOf(Guid student, params Entry[] entries) =>
        Given.State(entries).AttendanceOf(student, Given.Lesson, AttendancePolicy.Default);

    private static StrandScore Strand(Strand strand, Guid student, params Entry[] entries) => LessonScore.Of(
        Given.State([.. entries, Given.Noted(1, new Marked(student, Mark.Here))]).ParticipationOf(student, Given.Lesson, Scheme.Default),
        Scheme.Default).Strands.Single(s => s.Strand == strand);

    [Theory]
    [InlineData("3 juno eino", "Present", "Present")]
    [InlineData("3 juno, 9 juno eino", "Present", "Present")]              // missing from a roll call within 5 min says nothing
    [InlineData("7 juno, 9 juno eino", "Present", "Late")]                 // missing at 7 min, there at 9
    [InlineData("7 juno", "Present", "Absent")]
    [InlineData("7 eino, 20 juno eino", "Late", "Present")]
    public void Who_misses_a_roll_call_and_is_seen_later_is_late_by_itself(string calls, string juno, string eino)
    {
        Entry[] entries = [.. calls.Split(", ").Select(c => c.Split(' ')).Select(c => Given.Noted(
            double.Parse(c[0]), new RollCallTaken([.. c[1..].Select(name => name == "juno" ? Given.Juno : Given.Eino)])))];
        AttendanceOf(Given.Juno, entries).Status.ToString().ShouldBe(juno);
        AttendanceOf(Given.Eino, entries).Status.ToString().ShouldBe(eino);
    }

    [Fact]
    public void A_roll_call_does_not_make_good_a_late_arrival_that_was_measured() => AttendanceOf(
        Given.Juno, Given.Noted(12, new Joined("Juno", "")), Given.Noted(1, new NameMatched("Juno", Given.Juno)), Given.Noted(15, new RollCallTaken([Given.Juno])))
        .Status.ShouldBe(AttendanceStatus.Late);

    [Fact]
    public void Somebody_who_changes_their_name_stays_one_person()
    {
        Entry[] entries =
        [
            Given.Noted(0, new Joined("iPad (3)", "tablet")), Given.Noted(2, new Renamed("iPad (3)", "Ren Watanabe", "tablet")),
            Given.Noted(30, new Left("Ren Watanabe", "tablet")), Given.Noted(3, new NameMatched("Ren Watanabe", Given.Juno)),
        ];
        // Known under the second name only: the first is not known to be theirs, since a device may change hands.
        AttendanceOf(Given.Juno, entries).Present.ShouldBe(Duration.FromMinutes(28));
        Entry[] known = [.. entries[..3], Given.Noted(1, new NameMatched("iPad (3)", Given.Juno))];
        var result = AttendanceOf(Given.Juno, known);
        (result.Present, result.Dropouts).ShouldBe((Duration.FromMinutes(30), 0));
    }

    [Fact]
    public void A_name_changed_to_can_be_somebody_else_s_by_the_teacher_s_word() => Given.State(
        Given.Noted(1, new NameMatched("Toby's tablet", Given.Juno)), Given.Noted(2, new Renamed("Toby's tablet", "Barney", "tablet")),
        Given.Noted(3, new NameMatched("Barney", Given.Eino))).Names.All["Barney"].Match!.Student.ShouldBe(Given.Eino);

    [Fact]
    public void A_ring_of_names_ends() => Given.State(
        Given.Noted(1, new Renamed("a", "b", "")), Given.Noted(2, new Renamed("b", "a", ""))).Names.All.Values.ShouldAllBe(n => n.Match == null);

    [Fact]
    public void The_hand_of_a_name_that_is_nobody_s_stands_in_line_and_becomes_theirs()
    {
        var up = Given.Noted(5, new NameRaisedHand("galaxy tab 7"), Source.Feed);
        var unknown = Given.State(up);
        unknown.HandLine.Hands.ShouldHaveSingleItem().Student.ShouldBe(unknown.Names.All["galaxy tab 7"].StandsFor);
        var known = Given.State(up, Given.Noted(6, new HandRaised(Given.Juno)), Given.Noted(9, new NameMatched("galaxy tab 7", Given.Juno)));
        known.HandLine.Hands.ShouldHaveSingleItem().ShouldBe(new Hand(Given.Juno, Given.At(5), up.Id, HandStage.Up));
    }

    [Theory]
    [InlineData(HandEnd.Lapsed, HandStage.Lapsed)]
    [InlineData(HandEnd.Withdrawn, HandStage.Withdrawn)]
    public void A_hand_lowered_in_the_meeting_is_not_lost_unless_its_owner_took_it_down(HandEnd end, HandStage stage) => Given.State(
        Given.Noted(1, new NameMatched("Juno", Given.Juno)), Given.Noted(5, new NameRaisedHand("Juno")), Given.Noted(5.2, new NameLoweredHand("Juno", end)))
        .HandLine.Hands.ShouldHaveSingleItem().Stage.ShouldBe(stage);

    [Fact]
    public void Who_writes_ready_is_in_line_in_order_and_has_a_turn_of_that_origin()
    {
        var state = Given.State(
            Given.Noted(1, new HandRaised(Given.Eino)), Given.Noted(2, new HandRaised(Given.Juno, Ready: true)), Given.Noted(3, new HandRaised(Given.Zainab)),
            Given.Noted(4, new Called(Given.Juno, TurnOrigin.Hand)));
        state.HandLine.Hands.Select(h => h.Student).ShouldBe([Given.Eino, Given.Juno, Given.Zainab]);
        state.HandLine.Turns.ShouldHaveSingleItem().Origin.ShouldBe(TurnOrigin.Ready);
    }

    [Fact]
    public void A_turn_knows_its_length_its_points_and_why_it_was_drawn()
    {
        var (first, second) = (Guid.NewGuid(), Guid.NewGuid());
        var turn = Given.State(
            Given.Noted(1, new Called(Given.Juno, TurnOrigin.Drawn, "not heard yet today")), Given.Noted(2, new PointCovered(Given.Juno, first)),
            Given.Noted(2.5, new PointCovered(Given.Juno, first)), Given.Noted(3, Given.Turn(Given.Juno)), Given.Noted(4, new PointCovered(Given.Juno, second)),
            Given.Noted(5, new PointCovered(Given.Eino, second))).HandLine.Turns.ShouldHaveSingleItem();
        (turn.Length, turn.Why).ShouldBe((Duration.FromMinutes(2), "not heard yet today"));
        turn.Points.Select(p => p.Point).ShouldBe([first, second]);
    }

    [Fact]
    public void A_signal_round_answered_earns_a_quarter_up_to_one()
    {
        Entry[] Rounds(int answered, int silent) =>
        [
            .. Enumerable.Range(0, answered).Select(i => Given.Noted(5 + i, new SignalRoundHeld("Fog is a cloud.", [Given.Juno], []))),
            .. Enumerable.Range(0, silent).Select(i => Given.Noted(30 + i, new SignalRoundHeld("Fog is a cloud.", [Given.Eino], [Given.Juno]))),
        ];
        Strand(Scoring.Strand.Speaking, Given.Juno, Rounds(1, 0)).Value.ShouldBeNull("it is the only chance, and would lower the score");
        Strand(Scoring.Strand.Speaking, Given.Juno, Rounds(6, 0)).Value!.Value.ShouldBe(1);
        Strand(Scoring.Strand.Speaking, Given.Juno, Rounds(1, 3)).Value!.Value.ShouldBe(0.25m);
        Strand(Scoring.Strand.Speaking, Given.Juno, Rounds(0, 1)).Value!.Value.ShouldBe(0);
        Strand(Scoring.Strand.Speaking, Given.Zainab, Rounds(2, 2)).Value.ShouldBeNull(); // not there for any of them
    }

    [Fact]
    public void Who_cannot_speak_today_is_not_counted_but_what_they_did_is()
    {
        var paused = Given.Noted(2, new SpeakingPaused(Given.Juno, Paused: true));
        var round = Given.Noted(5, new SignalRoundHeld("Fog is a cloud.", [], [Given.Juno]));
        Strand(Scoring.Strand.Speaking, Given.Juno, paused, round).Value.ShouldBeNull();
        Strand(Scoring.Strand.Speaking, Given.Juno, paused, round, Given.Noted(9, new SpeakingPaused(Given.Juno, Paused: false))).Value!.Value.ShouldBe(0);
        Strand(Scoring.Strand.Speaking, Given.Juno, paused, Given.Noted(9, Given.Turn(Given.Juno))).Value!.Value.ShouldBe(1);
    }

    [Fact]
    public void Group_work_is_the_average_over_what_was_seen()
    {
        var group = Guid.NewGuid();
        Entry Seen(double minute, Contribution what) => Given.Noted(minute, new SatIn(Given.Juno, group, what));
        Strand(Scoring.Strand.GroupWork, Given.Juno).Value.ShouldBeNull();
        Strand(Scoring.Strand.GroupWork, Given.Juno, Seen(5, Contribution.Contributed), Seen(9, Contribution.Some)).Value!.Value.ShouldBe(0.75m);
        Strand(Scoring.Strand.GroupWork, Given.Juno, Seen(5, Contribution.Not)).Value!.Value.ShouldBe(0);
    }

    [Fact]
    public void An_aside_is_never_scored()
    {
        var aside = Given.Noted(5, new AsideNoted(Given.Juno, "tired today"));
        var with = Given.State(aside, Given.Noted(1, new Marked(Given.Juno, Mark.Here))).ParticipationOf(Given.Juno, Given.Lesson, Scheme.Default);
        LessonScore.Of(with, Scheme.Default).Total!.Value.ShouldBe(
            LessonScore.Of(Given.State(Given.Noted(1, new Marked(Given.Juno, Mark.Here))).ParticipationOf(Given.Juno, Given.Lesson, Scheme.Default), Scheme.Default).Total!.Value);
    }

    private static readonly StudentGroup[] Two = [new(Given.Id(301), "Group 1", [Given.Juno, Given.Eino]), new(Given.Id(302), "Group 2", [Given.Zainab])];

    private static string Told(LessonState state) => string.Join(" | ", state.Groups.Now.Select(g => $"{g.Name}: {string.Join(' ', g.Members.Select(m => m == Given.Juno ? "juno" : m == Given.Eino ? "eino" : m == Given.Zainab ? "zainab" : "cormac"))}"));

    [Fact]
    public void Groups_are_made_changed_dissolved_and_remembered()
    {
        var made = Given.Noted(5, new GroupsMade(Two));
        Told(Given.State(made)).ShouldBe("Group 1: juno eino | Group 2: zainab");
        Told(Given.State(made, Given.Noted(6, new GroupJoined(Given.Eino, Two[1].Id)))).ShouldBe("Group 1: juno | Group 2: zainab eino");
        Told(Given.State(made, Given.Noted(6, new GroupJoined(Given.Cormac, Two[1].Id)))).ShouldBe("Group 1: juno eino | Group 2: zainab cormac"); // a latecomer
        Told(Given.State(made, Given.Noted(6, new GroupJoined(Given.Juno, null)))).ShouldBe("Group 1: eino | Group 2: zainab");
        Told(Given.State(made, Given.Noted(6, new GroupRenamed(Two[1].Id, "Gulls")))).ShouldBe("Group 1: juno eino | Gulls: zainab");
        var dissolved = Given.State(made, Given.Noted(7, new GroupsDissolved()));
        dissolved.Groups.Now.ShouldBeEmpty();
        dissolved.Groups.Last.Count.ShouldBe(2);
        Told(Given.State(made, Given.Noted(7, new GroupsDissolved()), Given.Noted(8, new GroupsMade([Two[1]])))).ShouldBe("Group 2: zainab");
    }

    [Fact]
    public void A_member_called_before_the_class_is_in_their_group_afterwards() => Told(Given.State(
        Given.Noted(5, new GroupsMade(Two)), Given.Noted(6, new Called(Given.Eino, TurnOrigin.Invited)), Given.Noted(7, Given.Turn(Given.Eino))))
        .ShouldBe("Group 1: juno eino | Group 2: zainab");

    [Fact]
    public void The_board_shows_what_is_up_and_nothing_that_was_taken_down()
    {
        var put = Given.Noted(5, new BoardPut(BoardItem.Statement, "Fog is a cloud."));
        Given.State(put).Board.Items[BoardItem.Statement].Text.ShouldBe("Fog is a cloud.");
        Given.State(put, Given.Noted(6, new BoardTaken(BoardItem.Statement))).Board.Items.ShouldBeEmpty();
        Given.State(put, Given.Strike(put)).Board.Items.ShouldBeEmpty();
    }

    [Fact]
    public void A_timer_runs_until_its_end_or_until_it_is_ended()
    {
        var timer = Given.Noted(5, new TimerStarted(Duration.FromSeconds(180), "Read your glass"));
        Given.State(timer).Timers.ShouldHaveSingleItem().To.ShouldBe(Given.At(8));
        Given.State(timer, Given.Noted(6, new TimerStopped())).Timers.ShouldBeEmpty();
        Given.State(timer, Given.Noted(6, new TimerStarted(Duration.FromSeconds(60), ""))).Timers.ShouldHaveSingleItem().To.ShouldBe(Given.At(7));
    }

    [Fact]
    public void A_group_has_a_timer_of_its_own_for_as_long_as_there_is_the_group()
    {
        var (gulls, terns) = (Given.Id(701), Given.Id(702));
        Entry[] begun =
        [
            Given.Noted(1, new GroupsMade([new StudentGroup(gulls, "Gulls", [Given.Juno]), new StudentGroup(terns, "Terns", [Given.Eino])])),
            Given.Noted(2, new TimerStarted(Duration.FromSeconds(180), "Read your glass")), Given.Noted(3, new TimerStarted(Duration.FromSeconds(60), "", gulls)), Given.Noted(4, new TimerStarted(Duration.FromSeconds(60), "", terns)),
        ];
        GroupsOf().ShouldBe([null, gulls, terns]);
        GroupsOf(new TimerStopped(gulls)).ShouldBe([null, terns]);
        GroupsOf(new TimerStopped()).ShouldBe([gulls, terns]);
        GroupsOf(new GroupsMade([new StudentGroup(terns, "Terns", [Given.Eino])])).ShouldBe([null, terns]);
        GroupsOf(new GroupsDissolved()).ShouldBe([null]);

        IEnumerable<Guid?> GroupsOf(Act? next = null) =>
            Given.State(next is null ? begun : [.. begun, Given.Noted(5, next)]).Timers.Select(t => t.Group);
    }

    private static readonly Plan Planned = new()
    {
        Stages = [new(Given.Id(401), "Readings", Duration.FromMinutes(8)), new(Given.Id(402), "In pairs", Duration.FromMinutes(15)), new(Given.Id(403), "From the line", Duration.FromMinutes(17))],
    };

    [Theory]
    [InlineData("", 4, "Readings", 0, 8, 0)]
    [InlineData("", 11, "Readings", 0, 8, 3)]                               // over its time: behind by as much
    [InlineData("10>402", 12, "In pairs", 10, 25, 2)]                       // began 2 min late
    [InlineData("6>402", 12, "In pairs", 6, 21, -2)]                        // ahead
    [InlineData("8>402 12+5", 14, "In pairs", 8, 28, 5)]                    // extended
    [InlineData("8>402 9+5 10+-5", 14, "In pairs", 8, 23, 0)]
    [InlineData("8>402 20>403", 22, "From the line", 20, 37, -3)]
    [InlineData("8>402 9>999", 14, "In pairs", 8, 23, 0)]                   // a stage that is not in the plan any more
    [InlineData("8>402 20>401", 21, "Readings", 20, 28, 20)]                // back again
    public void The_stage_that_is_on_and_how_far_the_lesson_is_from_its_plan(string moves, double now, string name, double from, double to, double drift)
    {
        Entry[] entries = [.. moves.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(m => m.Contains('>')
            ? Given.Noted(double.Parse(m.Split('>')[0]), new StageMoved(Given.Id(int.Parse(m.Split('>')[1]))))
            : Given.Noted(double.Parse(m.Split('+')[0]), new StageExtended(Given.Id(402), Duration.FromMinutes(int.Parse(m.Split('+')[1])))))];
        var state = Given.State(entries);
        var on = StageClock.Now(Planned, Given.Start, state.Course.StageMoves, state.Course.Extended)!;
        (on.Stage.Name, on.From, on.To, on.DriftAt(Given.At(now))).ShouldBe((name, Given.At(from), Given.At(to), Duration.FromMinutes(drift)));
    }

    [Theory]
    [InlineData("8>402 23>403", "Every stage took about as long as planned.")]
    [InlineData("10>402 25>403", "Every stage took about as long as planned.")] // two minutes are no drift
    [InlineData("8>402 17>403", "“In pairs” took nine minutes, six fewer than planned. “From the line” took 23 minutes, six more than planned.")]
    [InlineData("8>402", "“In pairs” took 32 minutes, 17 more than planned. “From the line” was not come to.")]
    [InlineData("8>403", "“From the line” took 32 minutes, 15 more than planned. “In pairs” was not come to.")]
    [InlineData("5>402 10>401 13>402 23>403", "Every stage took about as long as planned.")] // come back to: both times count
    [InlineData("0>403", "“From the line” took 40 minutes, 23 more than planned. “Readings” and “In pairs” were not come to.")]
    public void How_far_stages_were_from_the_plan_is_said_in_words(string moves, string said)
    {
        var moved = moves.Split(' ').Select(m => (Given.Id(int.Parse(m.Split('>')[1])), Given.At(double.Parse(m.Split('>')[0])))).ToList();
        var held = StageClock.Held(Planned, Given.Start, moved, Given.At(40));
        held.Zip(held.Skip(1)).ShouldAllBe(s => s.First.To == s.Second.From);
        string.Join(' ', StageClock.InWords(Planned, held)).ShouldBe(said);
    }

    [Fact]
    public void Without_stages_nothing_is_said_of_them() =>
        StageClock.InWords(Plan.Empty, StageClock.Held(Plan.Empty, Given.Start, [(Given.Id(401), Given.At(5))], Given.At(40))).ShouldBeEmpty();

    [Fact]
    public void Without_stages_or_before_the_lesson_none_is_on()
    {
        StageClock.At(Plan.Empty, Given.Start, [], Given.At(5)).ShouldBeNull();
        StageClock.Now(Plan.Empty, Given.Start, [], new Dictionary<Guid, Duration>()).ShouldBeNull();
        StageClock.Now(Planned, null, [], new Dictionary<Guid, Duration>()).ShouldBeNull();
    }

    private static readonly LessonFacts Running = new(
        Given.Lesson with { ActualEnd = null }, new HashSet<Guid> { Given.Juno, Given.Eino }, Settled: false, _ => null, () => LessonState.Fold([]).Parts);

    public static TheoryData<Act, string> Wrong => new()
    {
        { new RollCallTaken([Given.Juno, Given.Zainab]), "roster" },
        { new SignalRoundHeld("x", [Given.Juno], [Given.Zainab]), "roster" },
        { new SignalRoundHeld(new string('x', 2001), [], []), "too long" },
        { new SignalRoundHeld("x", [], [], Given.Zainab), "roster" },
        { new GroupsMade([]), "1 to 60" },
        { new GroupsMade([new StudentGroup(Given.Id(1), "a", [Given.Juno]), new StudentGroup(Given.Id(2), "b", [Given.Juno])]), "one group at a time" },
        { new GroupsMade([new StudentGroup(Given.Id(1), "a", []), new StudentGroup(Given.Id(1), "b", [])]), "same id" },
        { new GroupsMade([new StudentGroup(Given.Id(1), " ", [])]), "name" },
        { new GroupsMade([new StudentGroup(Given.Id(1), "a", [Given.Zainab])]), "roster" },
        { new GroupJoined(Given.Zainab, null), "roster" },
        { new StageExtended(Given.Id(1), Duration.FromMinutes(121)), "120 min" },
        { new TimerStarted(Duration.FromSeconds(4), ""), "5 s" },
        { new TimerStarted(Duration.FromSeconds(3 * 3600 + 1), ""), "3 h" },
        { new ChatSorted(Given.Id(77), Chat.ChatKind.Idea), "not in this lesson" },
        { new ChatHidden(Given.Id(77)), "not in this lesson" },
        { new AsideNoted(Given.Juno, " "), "words" },
        { new AsideNoted(Given.Juno, "a\u202Eb"), "cannot be shown" },
        { new NameWrote("Juno", " ", false), "empty" },
        { new NameWrote("Juno", new string('x', 2001), false), "too long" },
        { new NameWrote("Ju\u0000no", "x", false), "cannot be shown" },
        { new Renamed("Juno", "", ""), "empty" },
        { new Renamed("Juno", new string('x', 201), ""), "too long" },
        { new BoardPut(BoardItem.Statement, new string('x', 2001)), "too long" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_is_wrong_is_refused_with_the_reason(Act act, string why) =>
        EntryRules.WhyRefused(Given.Noted(5, act), Running, Given.At(49)).ShouldNotBeNull().ShouldContain(why);

    [Fact]
    public void What_somebody_showed_last_is_known_whichever_way_it_came_and_only_a_signal_of_ones_own_accord_may_count()
    {
        var matched = Given.Noted(0, new NameMatched("Juno's laptop", Given.Juno));
        var reacted = Given.Noted(2, new NameReacted("Juno's laptop", "clap"), Source.Feed);
        var alone = Given.Noted(3, new SignalGiven(Given.Juno, "not sure"), Source.Page);
        var (up, inRound) = (Given.Noted(4, new BoardPut(BoardItem.Statement, "Fog is a cloud.")), Given.Noted(5, new SignalGiven(Given.Juno, "yes"), Source.Page));
        Given.State(matched, reacted).Signals.LastOf(Given.Juno).ShouldBe(new Signalled("clap", Given.At(2), reacted.Id));
        Given.State(matched, reacted, alone).Signals.LastOf(Given.Juno)!.What.ShouldBe("not sure");
        var all = Given.State(matched, reacted, alone, up, inRound);
        (all.Signals.LastOf(Given.Juno)!.What, all.Signals.InRound[Given.Juno]).ShouldBe(("yes", "yes"));
        all.Signals.OfOwnAccord(Given.Juno).ShouldBe([alone.Id]);
    }
}
