using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

/// <summary>What the default scheme gives typical students, and the order it puts them in: the one in which a fair-minded teacher would.</summary>
public sealed class FairOrderTests
{
    private static readonly Scheme Default = Scheme.Default;

    /// <summary>
    /// A student of a lesson of 50 min with a chat and a line from which others were called, and without a question; there all the time if nothing else is said.
    /// </summary>
    private static Participation Student(string did)
    {
        var student = new Participation { Attendance = Given.Attendance("j0 l50"), LineWasOpen = true };
        foreach (var word in did.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            student = word.Split('×') switch
            {
                ["late"] => student with { Attendance = Given.Attendance("j8 l50") },
                ["late-excused"] => student with { Attendance = Given.Attendance("j8 l50", excuse: "tram stood still") },
                ["dropped-out"] => student with { Attendance = Given.Attendance("j0 l10 j22 l50") },
                ["absent"] => student with { Attendance = Given.Attendance("") },
                ["excused"] => student with { Attendance = Given.Attendance("", excuse: "dentist") },
                ["line-closed"] => student with { LineWasOpen = false },
                ["cannot-speak"] => student with { SpeakingPausedBy = Given.Id(9) },
                ["hand"] => student with { Hands = [new Hand(Given.Juno, Given.At(1), Given.Id(2), HandStage.SetDown)] },
                ["signal"] => student with { SignalRounds = [new SignalRound(true, Given.Id(3))] },
                ["no-signal"] => student with { SignalRounds = [new SignalRound(false, Given.Id(3))] },
                ["group"] => student with { SitIns = [new SitIn(1, Given.Id(4))] },
                ["quiz-right"] => student with { Questions = [new QuestionChance(true, 1, 1, [Given.Id(5)])] },
                ["quiz-wrong"] => student with { Questions = [new QuestionChance(true, 0, 1, [Given.Id(5)])] },
                ["quiz-not"] => student with { Questions = [new QuestionChance(false, 0, 1, [])] },
                ["spoke", var times] => student with { Turns = Turns(TurnOutcome.Full, times) },
                ["partly", var times] => student with { Turns = Turns(TurnOutcome.Partial, times) },
                ["passed"] => student with { Turns = Turns(TurnOutcome.Pass, "1") },
                ["could-not"] => student with { Turns = Turns(TurnOutcome.CouldNot, "1") },
                ["wrote", var times] => student with { Chat = [.. Enumerable.Repeat((ChatKind.Idea, Given.Id(6)), int.Parse(times))] },
                ["chatted", var times] => student with { Chat = [.. Enumerable.Repeat((ChatKind.Social, Given.Id(6)), int.Parse(times))] },
                _ => throw new ArgumentException($"nobody does {word}"),
            };
        }

        return student;

        static IReadOnlyList<Turn> Turns(TurnOutcome outcome, string times) =>
            [.. Enumerable.Repeat(new Turn(Given.Juno, TurnOrigin.Hand, Given.At(1), null, outcome, [Given.Id(1)]), int.Parse(times))];
    }

    private static decimal? Score(string did) => LessonScore.Of(Student(did), Default).Total?.Value;

    [Theory]
    [InlineData("spoke×1 wrote×2", "100", 6, "Did all that the lesson asked of one person.")]
    [InlineData("spoke×1 wrote×1", "95.8", 6, "A turn and a message are nearly that.")]
    [InlineData("spoke×3", "91.7", 6, "Who speaks again and again need hardly write, but the chat was open to them.")]
    [InlineData("spoke×1", "87.5", 6, "A turn stands in for a message, not for all of the chat.")]
    [InlineData("late spoke×1 wrote×2", "91.7", 6, "Late costs a little, whatever comes after.")]
    [InlineData("late-excused spoke×1 wrote×2", "100", 6, "Late with an excuse costs nothing: it was not their doing.")]
    [InlineData("hand wrote×2", "87.5", 6, "Wanted to speak and wrote: as much as who spoke and did not write.")]
    [InlineData("partly×1 wrote×2", "87.5", 6, "Part of a turn, and the rest in writing.")]
    [InlineData("wrote×2", "75", 6, "Took part in writing all the time; speaking was open and not taken.")]
    [InlineData("wrote×9", "75", 6, "Writing more does not replace speaking.")]
    [InlineData("hand", "58.3", 6, "Wanted to speak; that nobody called is not their doing.")]
    [InlineData("partly×1", "58.3", 6, "Said something, and left the chat alone.")]
    [InlineData("wrote×1", "54.2", 6, "One message is a beginning.")]
    [InlineData("signal", "45.8", 6, "Only a sign when all were asked: little, but not nothing.")]
    [InlineData("passed", "33.3", 6, "Was asked and passed: as who did nothing, not worse.")]
    [InlineData("chatted×5", "33.3", 6, "Talk beside the matter is no taking part.")]
    [InlineData("", "33.3", 6, "Was there, and did nothing of what was open.")]
    [InlineData("late", "25", 6, "The same, and late.")]
    [InlineData("line-closed wrote×2", "100", 3, "Nobody could speak: the chat was all there was, and it was used.")]
    [InlineData("line-closed", "66.7", 3, "Nobody could speak: only the chat was not used.")]
    [InlineData("cannot-speak wrote×2", "100", 3, "The microphone is broken: speaking is left out.")]
    [InlineData("could-not", "66.7", 3, "Was called and the line failed: speaking is left out.")]
    [InlineData("cannot-speak", "66.7", 3, "Could have written, and did not.")]
    [InlineData("group", "42.9", 7, "Worked in the group and was silent before the class.")]
    [InlineData("dropped-out spoke×1 wrote×2", "100", 6, "Fell out of the meeting and took part all the same.")]
    [InlineData("spoke×1 wrote×2 quiz-right", "100", 9, "And knew the answer.")]
    [InlineData("spoke×1 wrote×2 quiz-wrong", "83.3", 9, "A wrong answer is still an answer.")]
    [InlineData("spoke×1 wrote×2 quiz-not", "66.7", 9, "A question was asked and not answered.")]
    [InlineData("absent", "0", 2, "Was not there and nobody knows why.")]
    [InlineData("excused", "no score", 0, "Was not there and could not be: the lesson does not count.")]
    public void A_typical_student(string did, string score, int restsOn, string why)
    {
        var given = LessonScore.Of(Student(did), Default);
        (given.Total?.Value.ToString("0.#") ?? "no score").ShouldBe(score, why);
        given.RestsOn.ShouldBe(restsOn, why);
    }

    [Fact]
    public void The_more_somebody_took_part_the_more_they_have()
    {
        string[] order = ["spoke×1 wrote×2", "spoke×1", "wrote×2", "hand", "wrote×1", "signal", "", "late", "absent"];
        order.Select(Score).ShouldBe(order.Select(Score).OrderDescending());
        order.Select(Score).ShouldBeUnique();
    }

    [Theory]
    [InlineData("line-closed", true)]
    [InlineData("cannot-speak wrote×2", true)]
    [InlineData("", false)]
    [InlineData("spoke×1 wrote×2 quiz-right", false)]
    public void A_score_says_whether_it_rests_on_less_than_half_of_the_scheme(string did, bool little) =>
        LessonScore.Of(Student(did), Default).ShouldSatisfyAllConditions(s => s.Whole.ShouldBe(10), s => s.RestsOnLittle.ShouldBe(little));

    [Theory]
    [InlineData(0, false, 6)]
    [InlineData(30, false, 6)] // came when nobody was called any more: missed, and not unasked
    [InlineData(30, true, 3)]  // with an excuse it was none
    public void A_line_from_which_others_were_called_is_a_chance_for_who_was_there_then_or_missed_it(int came, bool excused, int restsOn)
    {
        var lesson = Given.State(
            Given.Noted(0, excused ? new Attendance.ExcuseRecorded(Given.Juno, "ferry") : new HandRaised(Given.Zainab)),
            Given.Noted(10, new HandRaised(Given.Eino)), Given.Noted(11, new Called(Given.Eino, TurnOrigin.Hand, null)), Given.Noted(came, new NameMatched("Juno Q", Given.Juno)), Given.Noted(came, new Joined("Juno Q", "")));
        LessonScore.Of(lesson.ParticipationOf(Given.Juno, Given.Lesson, Default), Default).RestsOn.ShouldBe(restsOn);
    }
}
