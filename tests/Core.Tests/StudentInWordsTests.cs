using System.Text.RegularExpressions;
using CsCheck;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Reports;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

public sealed partial class StudentInWordsTests
{
    private static readonly Tally There = new() { Status = AttendanceStatus.Present, LineWasOpen = true };

    private static LessonOfStudent Lesson(int number, Tally did, decimal? score = 70) => new(
        new Guid(number, 0, 0, new byte[8]), number, "Tides", new LocalDate(2026, 10, 1).PlusDays(number), false, score, did, Duration.FromMinutes(50), [[0, 1]], [], "");

    private static StudentTerm Student(params IEnumerable<Tally> lessons) => Scored([.. lessons.Select(l => (l, (decimal?)70))]);

    private static StudentTerm Scored(params IReadOnlyList<(Tally Did, decimal? Score)> lessons)
    {
        List<LessonOfStudent> all = [.. lessons.Select((l, i) => Lesson(i + 1, l.Did, l.Score))];
        return new StudentTerm(
            new Guid(9, 0, 0, new byte[8]), "Eino", "Eino Rautio", all, TermScore.Of([.. all.Where(l => l.Score is not null).Select(l => new ScoredLesson($"{l.Number}", l.Score!.Value, 50))], Scheme.Default), Scheme.Default);
    }

    private static string Said(StudentTerm student) => string.Join(' ', StudentInWords.Of(student).Select(s => s.Text));

    public static TheoryData<Tally[], string> Cases => new()
    {
        { [], "No lesson of these days has anything of Eino." },
        { [There with { FullTurns = 1 }], "Eino was there in the one lesson. Eino spoke in one lesson: one full turn. Nothing was written in the chat." },
        { [There, There with { PartialTurns = 1, FullTurns = 2 }], "Eino was there in all two lessons. Eino spoke in one lesson: two full turns and one partial turn. Nothing was written in the chat." },
        { [There, There with { Status = AttendanceStatus.Late }, There with { Status = AttendanceStatus.Absent }], "Eino was there in two of three lessons, late in one. There was no turn for Eino yet. Nothing was written in the chat." },
        { [There, There with { Status = AttendanceStatus.Excused }], "Eino was there in the one lesson; one lesson with an excuse does not count. There was no turn for Eino yet. Nothing was written in the chat." },
        { [There with { Status = AttendanceStatus.Excused }], "Eino was excused from the one lesson." },
        { [There with { Dropouts = 2 }, There with { Dropouts = 1 }], "Eino was there in all two lessons. The line dropped in two lessons, three times in all. There was no turn for Eino yet. Nothing was written in the chat." },
        { [There with { Passes = 1 }], "Eino was there in the one lesson. One turn was passed on; none was taken yet. Nothing was written in the chat." },
        { [There with { HandNeverCalled = true }], "Eino was there in the one lesson. There was no turn for Eino yet. In one lesson a hand stayed up and was not called. Nothing was written in the chat." },
        { [There with { SpeakingPaused = true }], "Eino was there in the one lesson. There was no turn for Eino yet. In one lesson speaking was not possible, and is not counted. Nothing was written in the chat." },
        { [There with { Asked = 4, Answered = 3, MarksGot = 2.5m, MarksPossible = 4 }], "Eino was there in the one lesson. There was no turn for Eino yet. Three of four questions were answered, for 2.5 of 4 marks. Nothing was written in the chat." },
        { [There with { ChatQuestions = 2, ChatIdeas = 1 }], "Eino was there in the one lesson. There was no turn for Eino yet. Three contributions stood in the chat, two of them questions." },
        { [There with { SitIns = 2, GroupCredits = 1.5m, Nods = 1 }], "Eino was there in the one lesson. There was no turn for Eino yet. Nothing was written in the chat. In groups Eino was seen twice, contributing at 75 %. One nod was given." },
        { [There with { SignalRounds = 2, SignalsAnswered = 1 }], "Eino was there in the one lesson. There was no turn for Eino yet. Eino answered one of two signal rounds. Nothing was written in the chat." },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_term_in_sentences(Tally[] lessons, string said) => Said(Student(lessons)).ShouldBe(said);

    [Theory]
    [InlineData(new[] { 50, 50, 80, 80, 80 }, "The last three lessons stand higher than those before, at 80 after 50.")]
    [InlineData(new[] { 80, 80, 50, 50, 50 }, "The last three lessons stand lower than those before, at 50 after 80; the count does not know why.")]
    [InlineData(new[] { 80, 80, 76, 76, 76 }, null)]
    [InlineData(new[] { 50, 80, 80, 80 }, null)]
    public void How_it_moved_is_said_only_if_it_did(int[] scores, string? said)
    {
        var text = Said(Scored([.. scores.Select(s => (There, (decimal?)s))]));
        if (said is null)
        {
            text.ShouldNotContain("last three");
        }
        else
        {
            text.ShouldEndWith(said);
        }
    }

    public static TheoryData<Tally[], string> NextSteps => new()
    {
        { [There with { Status = AttendanceStatus.Absent }], "Next: one lesson from the beginning to the end." },
        { [There, There with { Status = AttendanceStatus.Absent }], "Next: to be there, or a word beforehand when that cannot be; one lesson went by without Eino." },
        { [There with { Dropouts = 1 }], "Next: another place or another device, to see whether the line holds." },
        { [There with { HandNeverCalled = true }, There with { HandNeverCalled = true }], "Next: the teacher calls on Eino early, for a hand stayed up uncalled in two lessons." },
        { [There with { ChatQuestions = 1 }], "Next: one of the questions from the chat aloud, in each of the next two lessons." },
        { [There with { ChatIdeas = 1 }], "Next: one thought that would go into the chat said aloud instead." },
        { [There], "Next: one turn in each of the next two lessons; a short one is enough." },
        { [There with { FullTurns = 1, Asked = 2 }], "Next: an answer to each question before it closes; two questions went by without one." },
        { [There with { FullTurns = 1, Status = AttendanceStatus.Late }], "Next: to be there when the lesson begins; one lesson began without Eino." },
        { [There with { FullTurns = 1 }], "Next: a question in the chat when something is not clear." },
        { [There with { FullTurns = 1, ChatIdeas = 2 }], "Next: to take up what somebody else said, and go on from there." },
        // Whoever cannot speak is not told to.
        { [There with { SpeakingPaused = true, ChatIdeas = 2 }], "Next: to take up what somebody else said, and go on from there." },
    };

    [Theory]
    [MemberData(nameof(NextSteps))]
    public void One_thing_to_try_next(Tally[] lessons, string next) => StudentInWords.Next(Student(lessons)).Text.ShouldBe(next);

    private static readonly Gen<Tally> AnyTally =
        from status in Gen.Enum<AttendanceStatus>()
        from counts in Gen.Int[0, 3].Array[9]
        from flags in Gen.Bool.Array[3]
        select new Tally
        {
            Status = status,
            FullTurns = counts[0],
            PartialTurns = counts[1],
            Passes = counts[2],
            Asked = counts[3] + counts[4],
            Answered = counts[4],
            ChatQuestions = counts[5],
            ChatIdeas = counts[6],
            Nods = counts[7],
            Dropouts = counts[8],
            HandNeverCalled = flags[0],
            SpeakingPaused = flags[1],
            LineWasOpen = flags[2],
        };

    [GeneratedRegex(@"\b(he|she|him|her|his|hers|they|(?<!of )them|their|theirs|lazy|bad|poor|fail\w*|worst|best in|rank\w*)\b", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Unkind();

    [Fact]
    public void No_sentence_takes_a_pronoun_or_shames_and_each_opens_to_its_figures() => AnyTally.Array[0, 8].Sample(lessons =>
    {
        var student = Student(lessons);
        Sentence[] all = [.. StudentInWords.Of(student), .. StudentInWords.WentWell(student), StudentInWords.Next(student)];
        foreach (var sentence in all)
        {
            Unkind().IsMatch(sentence.Text).ShouldBeFalse(sentence.Text);
            (sentence.Text.EndsWith('.'), sentence.Text.Contains("  ", StringComparison.Ordinal), char.IsLower(sentence.Text[0])).ShouldBe((true, false, false), sentence.Text);
            (lessons.Length == 0 || sentence.Opens is not null).ShouldBeTrue(sentence.Text);
            (sentence.Marked is null || sentence.Text.Contains(sentence.Marked, StringComparison.Ordinal)).ShouldBeTrue();
        }

        StudentInWords.Of(student).Count(s => s.Marked is not null).ShouldBeLessThan(2);
    });

    [Fact]
    public void Two_students_with_one_text_have_like_figures() => Gen.Select(AnyTally.Array[1, 5], AnyTally.Array[1, 5]).Sample((one, other) =>
    {
        object Of(Tally[] lessons) => (
            lessons.Count(l => l.Status is AttendanceStatus.Present or AttendanceStatus.Late), lessons.Count(l => l.Status == AttendanceStatus.Late),
            lessons.Sum(l => l.FullTurns), lessons.Sum(l => l.PartialTurns), lessons.Sum(l => l.Answered), lessons.Sum(l => l.ChatQuestions + l.ChatIdeas));
        bool Came(Tally[] lessons) => lessons.Any(l => l.Status is AttendanceStatus.Present or AttendanceStatus.Late);
        if (Came(one) && Came(other) && Said(Student(one)) == Said(Student(other)))
        {
            Of(one).ShouldBe(Of(other));
        }
    });

    [Fact]
    public void A_report_is_of_one_student_and_says_less_to_a_guardian_of_who_did_what()
    {
        var correction = new Correction(CorrectionKind.ScoreSet, null, 80, "the device failed", "Tamsin Vale", default, Guid.NewGuid());
        var student = Scored((There with { FullTurns = 1, Corrections = [correction] }, 80), (There with { Status = AttendanceStatus.Excused }, null));
        string All(Reader reader) => string.Join('\n', StudentReport.Of(student, "about", reader).Sections.SelectMany(s => s.Figures?.Rows.SelectMany(r => r.Cells.Select(c => c.Text)) ?? []));
        All(Reader.Student).ShouldContain("Tamsin Vale");
        All(Reader.Guardian).ShouldNotContain("Tamsin Vale");
        All(Reader.Guardian).ShouldContain("excused");
    }
}
