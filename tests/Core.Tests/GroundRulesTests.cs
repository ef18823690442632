using CsCheck;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

public sealed class GroundRulesTests
{
    private static readonly ClassRules Rules = ClassRules.Default;

    private static ClassRules Counting(AttendancePolicy policy) => Rules with { Scheme = Rules.Scheme with { Attendance = policy } };

    private static string Example(string rule, ClassRules rules) => RuleExamples.Of(rules).Single(e => e.Rule == rule).Text;

    [Fact]
    public void The_defaults_are_right() => Rules.Problems().ShouldBeEmpty();

    public static TheoryData<ClassRules, string> Wrong() => new()
    {
        { Counting(new() { LateAfter = Duration.FromMinutes(-1) }), "Late after: from 0 to 120 min" },
        { Counting(new() { LateAfter = Duration.FromMinutes(121) }), "Late after" },
        { Counting(new() { EnoughShare = 0 }), "Enough presence: more than 0" },
        { Counting(new() { LateCredit = 1.01m }), "Credit of a late student" },
        { Counting(new() { LeftEarlyCredit = -0.01m }), "Credit of a student who left early" },
        { Rules with { Scheme = Rules.Scheme with { SpeakingTarget = 0 } }, "Turns for a full strand: more than 0" },
        { Rules with { Scheme = Rules.Scheme with { ChatTarget = 0 } }, "Messages for a full strand" },
        { Rules with { Scheme = Rules.Scheme with { Weights = new Dictionary<Strand, decimal>() } }, "at least one strand" },
        { Rules with { Scheme = Rules.Scheme with { LessonsForTerm = 0 } }, "Lessons for a term score" },
        { Rules with { NodReasons = [] }, "Reasons for nods: from 1 to 5" },
        { Rules with { NodReasons = ["on time", "On time "] }, "each only once" },
        { Rules with { NodReasons = ["on\ntime"] }, "no line may be empty" },
        { Rules with { Signals = [new("yes", "")] }, "Agreed signals" },
        { Rules with { BeforeEnd = ["Start the recording"] }, "Reminders: each only once" },
        { Rules with { ReadAloud = new Dictionary<string, string> { ["Start the recording"] = new('x', ClassRules.LongestReadAloud + 1) } }, "Words to read aloud: at most" },
        { Rules with { ReadAloud = Enumerable.Range(0, 41).ToDictionary(i => $"line {i}", _ => "words") }, "Words to read aloud: one text" },
        { Rules with { Rubric = new string('x', 10_001) }, "The rubric" },
        { Rules with { WordAhead = new() { Ahead = Duration.Zero } }, "from 1 to 1,440 min" },
        { Rules with { Register = new() { DueBy = Duration.FromHours(25) } }, "due by a time of the day" },
        { Rules with { Register = new() { Late = "" } }, "each code has from 1 to 12 characters" },
        { Rules with { Register = new() { Late = "P" } }, "no two codes are the same" },
        { Rules with { Register = new() { MailTo = "the office" } }, "is one e-mail address" },
        { Rules with { WordAhead = new() { Subject = "two\nlines" } }, "the subject is one line" },
        { Rules with { WordAhead = new() { Text = "Dear {pupil}" } }, "nobody knows what {pupil} stands for" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_no_rule_may_be_is_said(ClassRules rules, string said) => rules.Problems().ShouldHaveSingleItem().ShouldContain(said);

    [Fact]
    public void Every_threshold_has_an_example() =>
        RuleExamples.Of(Rules).Select(e => e.Rule).Order().ShouldBe(
            new[]
            {
                "lateAfter", "lateInDropIn", "leftEarlyBefore", "bridge", "absentBelow", "absentBelowShare", "enoughShare", "lateCredit", "leftEarlyCredit", "missedCounts", "creditBy", "weights",
                "speakingTarget", "uncalledHand", "signalAnswered", "signalGiven", "openLineIsChance", "writtenStandsIn", "writtenAtMost", "marksShare", "chatCounts", "chatTarget", "turnInChat", "turnsInChatAtMost", "readyJoinsLine", "nodPoints", "nodsOnBoard",
                "absenceScoresZero", "pageByName", "pageShowsStrokes", "pageShowsScores", "signalsAnyTime", "studentsHandOn", "extraTimeShare", "speechSeconds", "keepsSpoken", "lowestLeftOut", "lessonsWeighTheSame", "lessonsForTerm", "places",
            }.Order());

    [Theory]
    [InlineData("lateAfter", 5, "Coming at 08:35 to a lesson at 08:30 is present; a minute later it is late.")]
    [InlineData("lateAfter", 12, "Coming at 08:42 to a lesson at 08:30 is present; a minute later it is late.")]
    public void Examples_recompute(string rule, int minutes, string text) =>
        Example(rule, Counting(new() { LateAfter = Duration.FromMinutes(minutes) })).ShouldBe(text);

    [Fact]
    public void Examples_say_what_a_changed_rule_amounts_to()
    {
        Example("lateInDropIn", Rules).ShouldBe("Coming to a drop-in lesson 6 min after its start is present.");
        Example("lateInDropIn", Counting(new() { LateInDropIn = true })).ShouldBe("Coming to a drop-in lesson 6 min after its start is late.");
        Example("bridge", Counting(new() { Bridge = Duration.FromMinutes(4) })).ShouldBe("Gone for 4 min in the middle: 50 min count of 50. Gone for 5 min: 45 min.");
        Example("creditBy", Rules).ShouldContain("0.75 of 1");
        Example("creditBy", Counting(new() { CreditBy = CreditBy.Share })).ShouldContain("0.67 of 1");
        Example("speakingTarget", Rules with { Scheme = Rules.Scheme with { SpeakingTarget = 2 } }).ShouldBe("One full turn: 50 % of speaking. A partial one: 25 %. Two full ones: 100 %.");
        Example("absenceScoresZero", Rules).ShouldContain("attendance alone");
        Example("absenceScoresZero", Rules with { Scheme = Rules.Scheme with { AbsenceScoresZero = true } }).ShouldNotContain("attendance alone");
        Example("nodPoints", Rules).ShouldBe("One nod: 1 more. Three nods: 3 more. Twenty nods: 5 more.");
    }

    [Fact]
    public void Examples_can_be_reckoned_from_any_rules_that_are_right() => Gen.Select(
        Gen.Int[0, 120], Gen.Int[0, 60], Gen.Int[0, 100], Gen.Int[1, 100], Gen.Int[0, 10], Gen.Bool).Sample((late, bridge, below, enough, target, choice) =>
    {
        var rules = Rules with
        {
            Scheme = Rules.Scheme with
            {
                ChatCounts = choice,
                Attendance = new()
                {
                    LateAfter = Duration.FromMinutes(late),
                    LeftEarlyBefore = Duration.FromMinutes(late),
                    Bridge = Duration.FromMinutes(bridge),
                    AbsentBelowShare = below / 100m,
                    EnoughShare = enough / 100m,
                    CreditBy = choice ? CreditBy.Share : CreditBy.Status,
                },
                SpeakingTarget = target + 0.5m,
                ChatTarget = target + 0.5m,
                AbsenceScoresZero = choice,
                LowestLeftOut = target,
                OpenLineIsChance = choice,
            },
        };
        return rules.Problems().Count == 0 && RuleExamples.Of(rules).All(e => e.Text.Length > 10);
    });

    [Fact]
    public void Word_ahead_is_filled_in_for_one_student()
    {
        var facts = new WordFacts("Juno", "Weather and Tides", "Fog and haar", "Thursday 26 November", "09:30", "https://meet.skerrysound.example/w", "Tamsin Vale");
        Rules.WordAhead.SubjectFor(facts).ShouldBe("Weather and Tides at 09:30: Fog and haar");
        Rules.WordAhead.TextFor(facts).ShouldContain("Hello Juno,");
        Rules.WordAhead.TextFor(facts).ShouldContain("\nhttps://meet.skerrysound.example/w\n");
        Rules.WordAhead.TextFor(facts with { Link = "" }).ShouldNotContain("{");
        // Whatever a name looks like, it is not looked at again.
        Rules.WordAhead.TextFor(facts with { Name = "{link}" }).ShouldContain("Hello {link},");
    }

    [Theory]
    [InlineData(-11, false)]
    [InlineData(-10, true)]
    [InlineData(-1, true)]
    [InlineData(0, false)]
    public void Word_ahead_goes_from_when_it_is_due_until_the_start(int minutes, bool goes)
    {
        var start = Instant.FromUtc(2026, 11, 26, 9, 30);
        (Rules.WordAhead with { On = true }).GoesNow(start, start + Duration.FromMinutes(minutes)).ShouldBe(goes);
        Rules.WordAhead.GoesNow(start, start - Duration.FromMinutes(5)).ShouldBeFalse();
    }

    [Fact]
    public void Merged_records_count_as_one_student_and_can_be_parted_again()
    {
        Entry At(int minute, Act act) => new(Guid.NewGuid(), Given.Lesson.PlannedStart + Duration.FromMinutes(minute), Given.Lesson.PlannedEnd, Source.Tapped, "", act);
        Entry[] entries = [At(1, new HandRaised(Given.Eino)), At(2, new NodGiven(Given.Juno, "on time")), At(3, new NodGiven(Given.Eino, "on time")), At(4, new NameMatched("E", Given.Eino)), At(5, new Joined("E", ""))];
        var merged = LessonState.Fold(entries, new Dictionary<Guid, Guid> { [Given.Eino] = Given.Juno });
        merged.Notes.NodsOf(Given.Juno).Count.ShouldBe(2);
        merged.Notes.NodsOf(Given.Eino).ShouldBeEmpty();
        merged.HandLine.Hands.ShouldHaveSingleItem().Student.ShouldBe(Given.Juno);
        merged.EvidenceOf(Given.Juno).Sightings.Count.ShouldBe(2);
        var parted = LessonState.Fold(entries);
        parted.Notes.NodsOf(Given.Juno).Count.ShouldBe(1);
        parted.HandLine.Hands.ShouldHaveSingleItem().Student.ShouldBe(Given.Eino);
    }

    [Fact]
    public void A_reminder_stays_seen_to_until_that_is_struck_out()
    {
        var tick = new Entry(Given.Id(1), Given.Lesson.PlannedStart, Given.Lesson.PlannedStart, Source.Tapped, "", new ReminderTicked("Start the recording"));
        LessonState.Fold([tick]).Course.RemindersTicked["Start the recording"].Entry.ShouldBe(tick.Id);
        var strike = tick with { Id = Given.Id(2), Act = new Struck(tick.Id) };
        LessonState.Fold([tick, strike]).Course.RemindersTicked.ShouldBeEmpty();
    }
}
