using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

/// <summary>What a score says for itself before anybody looks at figures.</summary>
public sealed class ScoreInWordsTests
{
    private static readonly Tally There = new() { Status = AttendanceStatus.Present, KnownBy = KnownBy.Measured, MeasuredShare = 1, LineWasOpen = true };

    private static string Words(Tally did, Scheme? scheme = null) =>
        ScoreInWords.Of(LessonScore.Of(did.ToScore(scheme ?? Scheme.Default), scheme ?? Scheme.Default), did, scheme ?? Scheme.Default);

    public static TheoryData<Tally, string> Sentences() => new()
    {
        { There with { FullTurns = 1 }, "88: there all the time, one full turn, wrote nothing in the chat though it was open." },
        { There, "33: there all the time, no turn though the line was open, wrote nothing in the chat though it was open." },
        { There with { FullTurns = 2, HandNeverCalled = true, ChatIdeas = 1, Nods = 2 }, "100: there all the time, 2 full turns and a hand that nobody called, one contribution in the chat, 2 nods." },
        { There with { Status = AttendanceStatus.Late, LateCosts = true, Asked = 4, Answered = 3, MarksGot = 2, MarksPossible = 4, LineWasOpen = false },
            "56: late, no chance to speak, answered 3 of 4 questions for 2 of 4 marks, wrote nothing in the chat though it was open." },
        { There with { MeasuredShare = 0.4m, SpeakingPaused = true, SitIns = 2, GroupCredits = 1 }, "63: there for 40 % of the time, could not speak, wrote nothing in the chat though it was open, worked in a group at 50 %." },
        { new Tally { Status = AttendanceStatus.Absent }, "0: absent without an excuse." },
        { new Tally { Status = AttendanceStatus.Excused }, "Excused: this lesson does not count." },
    };

    [Theory]
    [MemberData(nameof(Sentences))]
    public void A_score_in_one_sentence(Tally did, string sentence) => Words(did).ShouldBe(sentence);

    [Fact]
    public void What_was_put_right_by_hand_is_said()
    {
        var strand = new Correction(CorrectionKind.StrandSet, Strand.Speaking, 0.5m, "spoke by telephone", "tamsin", Given.Start, Given.Id(1));
        Words(There with { Corrections = [strand] }).ShouldContain("speaking set to 50 % by hand: spoke by telephone");
        Words(There with { Corrections = [strand, strand with { What = CorrectionKind.ScoreSet, Strand = null, Value = 80, Reason = "as agreed" }] })
            .ShouldBe("80: the score set to 80 by hand: as agreed.");
    }

    [Theory]
    [InlineData(0, "one full turn more 88, a hand raised 58, one contribution more in the chat 54")]
    [InlineData(1, "one contribution more in the chat 96, one full turn more 92")]
    public void What_would_have_made_it_higher_is_tried_alone(int turns, string would) =>
        string.Join(", ", WouldChange.Of(There with { FullTurns = turns }, Scheme.Default).Select(w => $"{w.What} {Text.Words.Shown(w.Score)}")).ShouldBe(would);

    [Fact]
    public void Who_did_everything_and_who_has_no_score_has_nothing_to_change()
    {
        WouldChange.Of(There with { FullTurns = 1, ChatIdeas = 2 }, Scheme.Default).ShouldBeEmpty();
        WouldChange.Of(new Tally { Status = AttendanceStatus.Excused }, Scheme.Default).ShouldBeEmpty();
    }

    [Theory]
    // scores of the lessons in order, what needs a look
    [InlineData("80 80", "not enough yet")]
    [InlineData("80 80 80", "")]
    [InlineData("90 90 90 70 70 70", "20 lower than before")]
    [InlineData("90 90 90 76 76 76", "")]
    [InlineData("80 80! 80", "put right by hand in 1 lesson")]
    [InlineData("80? 80? 80", "little chance in 2 of 3 lessons")]
    public void What_needs_a_look(string lessons, string because) => string.Join("; ", Looked(
        [
            .. lessons.Split(' ').Select(l => new LessonLooked(
                decimal.Parse(l.TrimEnd('!', '?')), l.EndsWith('?'),
                There with
                {
                    FullTurns = 1,
                    Corrections = l.EndsWith('!') ? [new Correction(CorrectionKind.LessonLeftOut, null, null, "as agreed", "tamsin", Given.Start, Given.Id(1))] : [],
                })),
        ])).ShouldBe(because);

    [Fact]
    public void A_term_that_rests_on_one_entry_needs_a_look() => Looked(
        [new(50, false, There), new(50, false, There with { ChatIdeas = 1 }), new(50, false, There)]).ShouldBe(["rests on one entry"]);

    [Fact]
    public void One_lesson_is_enough_where_the_scheme_says_so_however_many_are_left_out() =>
        Looked([new(50, false, There with { FullTurns = 2 })], Scheme.Default with { LessonsForTerm = 1, LowestLeftOut = 2 }).ShouldBeEmpty();

    private static IReadOnlyList<string> Looked(IReadOnlyList<LessonLooked> lessons, Scheme? scheme = null) => NeedsLook.Because(
        lessons, TermScore.Of([.. lessons.Where(l => l.Score is not null).Select(l => new ScoredLesson("", l.Score!.Value, 50))], scheme ?? Scheme.Default));
}
