using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

/// <summary>What a student reads of their own score.</summary>
public sealed class ScoreToStudentTests
{
    private static readonly Tally There = new() { Status = AttendanceStatus.Present, KnownBy = KnownBy.Measured, MeasuredShare = 1, LineWasOpen = true };

    private static IReadOnlyList<ToldPart> Told(Tally did, Scheme? scheme = null) =>
        ScoreToStudent.Of(LessonScore.Of(did.ToScore(scheme ?? Scheme.Default), scheme ?? Scheme.Default), did, scheme ?? Scheme.Default);

    public static TheoryData<Strand, Tally, string> Strands() => new()
    {
        { Strand.Attendance, There, "You were there." },
        { Strand.Attendance, There with { MeasuredShare = 0.4m }, "You were there for 40 % of the time." },
        { Strand.Attendance, There with { Status = AttendanceStatus.Late, LateCosts = true }, "You came late." },
        { Strand.Attendance, There with { Status = AttendanceStatus.Late, HasExcuse = true }, "You came late and had a reason, so being late costs nothing." },
        { Strand.Attendance, There with { Status = AttendanceStatus.Absent }, "You were not there." },
        { Strand.Speaking, There with { FullTurns = 2, PartialTurns = 1 }, "You spoke twice. You also said a part once." },
        { Strand.Speaking, There with { HandNeverCalled = true }, "Your hand was up and nobody called you: that counts, too." },
        { Strand.Speaking, There with { SignalRounds = 3, SignalsAnswered = 3 }, "You showed a signal 3 times." },
        { Strand.Speaking, There with { Passes = 1 }, "You passed when you were called." },
        { Strand.Speaking, There, "You did not speak, though you could have put up your hand." },
        { Strand.Speaking, There with { ChatIdeas = 1 }, "You did not speak, though you could have put up your hand. What you wrote counts for a part of it." },
        { Strand.Speaking, There with { LineWasOpen = false }, "You had no chance to speak, so this is left out." },
        { Strand.Speaking, There with { SpeakingPaused = true }, "You could not speak, so this is left out." },
        { Strand.Speaking, There with { Status = AttendanceStatus.Absent }, "You were not there." },
        { Strand.Questions, There, "There was no question for you, so this is left out." },
        { Strand.Questions, There with { Asked = 1, Answered = 1 }, "You answered 1 of 1 question." },
        { Strand.Questions, There with { Asked = 4, Answered = 3, MarksGot = 1.5m, MarksPossible = 4 }, "You answered 3 of 4 questions, and got 1.5 of 4 marks." },
        { Strand.Chat, There, "You wrote nothing that counts in the chat." },
        { Strand.Chat, There with { ChatQuestions = 1 }, "You wrote 1 message that counts." },
        { Strand.Chat, There with { ChatIdeas = 2, FullTurns = 1 }, "You wrote 2 messages that count. That you spoke counts for a part of it." },
        { Strand.GroupWork, There, "Your teacher did not see you work in a group, so this is left out." },
        { Strand.GroupWork, There with { SitIns = 2, GroupCredits = 1 }, "Your teacher saw you work in a group twice." },
        { Strand.Chat, There with { Corrections = [ByHand(CorrectionKind.StrandSet, Strand.Chat, 0.5m)] }, "Your teacher set this to 50 %: as agreed" },
    };

    [Theory]
    [MemberData(nameof(Strands))]
    public void A_strand_in_a_childs_words(Strand strand, Tally did, string said) => Told(did).Single(p => p.Strand == strand).Said.ShouldBe(said);

    [Fact]
    public void What_is_left_out_has_no_share_and_everything_else_has_the_one_it_is_scored_by()
    {
        var told = Told(There with { FullTurns = 1, LineWasOpen = false });
        told.Where(p => p.Share is null).Select(p => p.Strand).ShouldBe([Strand.Questions, Strand.GroupWork]);
        told.Single(p => p.Strand == Strand.Chat).Share.ShouldBe(0.25m);
    }

    [Theory]
    [InlineData(AttendanceStatus.Excused, false, "You were excused. This lesson does not count for you.")]
    [InlineData(AttendanceStatus.Present, true, "Nobody had to come to this lesson, so nobody has a score for it.")]
    public void Why_a_lesson_does_not_count(AttendanceStatus status, bool dropIn, string said) => Told(new Tally { Status = status, IsDropIn = dropIn }).ShouldHaveSingleItem().Said.ShouldBe(said);

    [Fact]
    public void Nods_and_what_the_teacher_said_of_the_lesson_come_last() =>
        Told(There with { Nods = 7, Corrections = [ByHand(CorrectionKind.ScoreSet, null, 80)] }).TakeLast(2).Select(p => p.Said)
            .ShouldBe(["7 nods from your teacher: 5 more.", "Your teacher set this lesson to 80: as agreed"]);

    [Fact]
    public void A_lesson_that_was_left_out_says_so_alone() =>
        Told(There with { Corrections = [ByHand(CorrectionKind.LessonLeftOut, null, null)] }).ShouldHaveSingleItem().Said.ShouldBe("Your teacher left this lesson out: as agreed");

    private static Correction ByHand(CorrectionKind what, Strand? strand, decimal? value) => new(what, strand, value, "as agreed", "tamsin", Given.Start, Given.Id(1));
}
