using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Tests;

/// <summary>Answers that other programs took: read as they are written, made to questions where nobody prepared one, and one with what the page took.</summary>
public sealed class AnswersFromFilesTests
{
    private static Question Choice(QuestionKind kind, params string[] options) => new()
    {
        Id = Given.Id(900),
        Kind = kind,
        Text = "Which way does the wind go?",
        Purpose = QuestionPurpose.Quiz,
        Options = [.. options.Select((o, i) => new QuestionOption(Given.Id(901 + i), o, Right: i == 0))],
    };

    /// <summary>What a cell is read as: the places of options, or the answer in words; "none" if it is no answer.</summary>
    [Theory]
    [InlineData("it backs", "1")]
    [InlineData("It  Backs!", "1")]
    [InlineData("a) it backs", "1")]
    [InlineData("B", "2")]
    [InlineData("c.", "3")]
    [InlineData("it vears", "2")]
    [InlineData("D", "none")]
    [InlineData("it stops", "none")]
    [InlineData("", "none")]
    public void A_choice(string cell, string options) => Read(Choice(QuestionKind.SingleChoice, "it backs", "it veers", "it drops"), cell).ShouldBe(options);

    [Theory]
    [InlineData("fog; haar", "1,2")]
    [InlineData("fog, haar", "1,2")]
    [InlineData("haar|fog", "1,2")]
    [InlineData("A;B", "1,2")]
    [InlineData("rain, then sun", "3")]
    [InlineData("fog; rain, then sun", "1,3")]
    [InlineData("fog; hail", "none")]
    public void Several_in_a_cell(string cell, string options) => Read(Choice(QuestionKind.MultipleChoice, "fog", "haar", "rain, then sun"), cell).ShouldBe(options);

    [Theory]
    [InlineData("TRUE", "1")]
    [InlineData("yes", "1")]
    [InlineData("falsch", "2")]
    [InlineData("maybe", "none")]
    public void True_or_false(string cell, string options) => Read(Choice(QuestionKind.TrueFalse, "true", "false"), cell).ShouldBe(options);

    [Theory]
    [InlineData("1013", "1013")]
    [InlineData("1 013,5", "1013.5")]
    [InlineData("1013 hPa", "1013")]
    [InlineData("-4°", "-4")]
    [InlineData("about 1013", "none")]
    [InlineData("2026-11-02", "none")]
    public void A_number(string cell, string number) =>
        Read(new Question { Id = Given.Id(900), Kind = QuestionKind.Number, Text = "?" }, cell).ShouldBe(number);

    [Theory]
    [InlineData("3", "3")]
    [InlineData("5 (fair winds)", "5")]
    [InlineData("fair winds", "5")]
    [InlineData("heavy weather", "1")]
    [InlineData("9", "none")]
    public void A_step(string cell, string step) =>
        Read(new Question { Id = Given.Id(900), Kind = QuestionKind.Scale, Text = "?", ScaleFromLabel = "heavy weather", ScaleToLabel = "fair winds" }, cell).ShouldBe(step);

    [Fact]
    public void A_cell_that_holds_a_book_is_no_option_and_cut_as_a_text()
    {
        var book = string.Concat(Enumerable.Repeat("the wind backs, ", 20_000));
        Read(Choice(QuestionKind.MultipleChoice, "it backs", "it veers"), book).ShouldBe("none");
        AnswerReading.Of(new Question { Id = Given.Id(900), Kind = QuestionKind.ShortText, Text = "?" }, book).ShouldNotBeNull().Text.Length.ShouldBe(AnswerRules.LongestText);
        AnswerReading.AreAlike(book, book + "!").ShouldBeTrue();
    }

    [Theory]
    [InlineData("Q1. What is normal pressure?", "What is normal pressure?", true)]
    [InlineData("what is normal presure", "What is normal pressure?", true)]
    [InlineData("What is normal pressure at sea level, in…", "What is normal pressure at sea level, in hPa?", true)]
    [InlineData("What is normal pressure?", "What is normal temperature?", false)]
    [InlineData("What?", "What is normal pressure?", false)]
    public void Questions_are_the_same_or_not(string one, string other, bool alike) => AnswerReading.AreAlike(one, other).ShouldBe(alike);

    /// <summary>What kind of question answers are to, and what is right by their points.</summary>
    [Theory]
    [InlineData("up:0 down:1 down:1 up:0", QuestionKind.SingleChoice, "down")]
    [InlineData("up down down up", QuestionKind.SingleChoice, "")]
    [InlineData("yes no yes", QuestionKind.TrueFalse, "")]
    [InlineData("yes:1 no:0 yes:1", QuestionKind.TrueFalse, "yes")]
    [InlineData("1013:1 1000:0 1013:1", QuestionKind.Number, "1013")]
    [InlineData("isobars:1 isobar:1 lines:0 contours:0", QuestionKind.ShortText, "isobars,isobar")]
    [InlineData("up:0 up:1 down:1 down:0", QuestionKind.ShortText, "")]
    [InlineData("fog;haar:1 fog;rain:0.5 haar;fog:1 rain:0 fog;haar:1 fog;haar;rain:0", QuestionKind.MultipleChoice, "fog,haar")]
    public void A_question_is_made_of_its_answers(string written, QuestionKind kind, string right)
    {
        var answers = written.Split(' ').Select(w => w.Split(':')).Select(w => new AnswerWritten(w[0], w.Length > 1 ? decimal.Parse(w[1], System.Globalization.CultureInfo.InvariantCulture) : null)).ToList();
        var question = Made(answers);
        question.Kind.ShouldBe(kind);
        RightIn(question).ShouldBe(right.Length == 0 ? [] : right.Split(','), ignoreOrder: true);
        QuestionRules.Missing(question).ShouldBeEmpty();
        answers.ShouldAllBe(a => AnswerReading.Of(question, a.Text) != null);
    }

    [Fact]
    public void In_whatever_order_answers_stand_the_question_is_the_same()
    {
        var random = new Random(14);
        var answers = "down:1 up:0 down:1 sideways:0 up:0 down:1 sideways:0 up:0".Split(' ').Select(w => new AnswerWritten(w.Split(':')[0], decimal.Parse(w.Split(':')[1], System.Globalization.CultureInfo.InvariantCulture))).ToArray();
        var wanted = System.Text.Json.JsonSerializer.Serialize(Made(answers));
        for (var i = 0; i < 20; i++)
        {
            random.Shuffle(answers);
            System.Text.Json.JsonSerializer.Serialize(Made(answers)).ShouldBe(wanted);
        }
    }

    private static readonly Question Wind = Choice(QuestionKind.SingleChoice, "it backs", "it veers");

    private static Answer Backs => new() { Options = [Wind.Options[0].Id] };

    private static Answer Veers => new() { Options = [Wind.Options[1].Id] };

    /// <summary>A file of answers to the question; its clock is right.</summary>
    private static Entry[] File(Guid asking, bool brings, params (double Minute, string Name, Answer Answer)[] answers)
    {
        var file = Given.Noted(60, new FileBroughtIn(FileKind.Answers, "answers.csv", answers.Length, "00"));
        Entry[] question = brings ? [Given.Noted(answers[0].Minute, new QuestionFromFile(Wind, Duration.FromMinutes(answers[^1].Minute - answers[0].Minute), answers.Length, []), Source.File)] : [];
        return
        [
            file,
            .. question.Concat(answers.Select(a => Given.Noted(a.Minute, new NameAnswered(a.Name, asking, a.Answer, null, Timed: true), Source.File)))
                .Append(Given.Noted(60, new NameMatched("Juno Q", Given.Juno), Source.File)).Append(Given.Noted(60, new NameMatched("Eino R.", Given.Eino), Source.File)).Select(e => e with { Together = file.Id }),
        ];
    }

    [Fact]
    public void A_question_that_a_file_brings_is_marked_by_its_key()
    {
        var asking = Given.State(File(Wind.Id, brings: true, (40, "Juno Q", Backs), (42, "Eino R.", Veers))).Questions.All.ShouldHaveSingleItem();
        (asking.OpenedAt, asking.ClosedAt).ShouldBe((Given.At(40), Given.At(42)));
        (asking.MarksOf(Given.Juno), asking.MarksOf(Given.Eino)).ShouldBe((1m, 0m));
    }

    [Fact]
    public void The_marks_of_the_file_count_where_the_teacher_says_so()
    {
        var entries = File(Wind.Id, brings: true, (40, "Juno Q", Veers)).Select(e => e.Act is NameAnswered told ? e with { Act = told with { Marks = 0.5m } } : e).ToArray();
        Given.State(entries).Questions.All[0].MarksOf(Given.Juno).ShouldBe(0.5m);
        // A mark by hand is above it.
        Given.State([.. entries, Given.Noted(61, new AnswersMarked(Wind.Id, [Given.Juno], 1))]).Questions.All[0].MarksOf(Given.Juno).ShouldBe(1);
    }

    [Fact]
    public void Who_was_there_and_did_not_answer_was_asked()
    {
        var state = Given.State([.. File(Wind.Id, brings: true, (40, "Juno Q", Backs), (42, "Eino R.", Veers)), Given.Noted(0, new Marked(Given.Zainab, Mark.Here))]);
        ChanceOf(Given.Zainab).ShouldBe((false, 1m));
        // Nobody answers while they are not there.
        ChanceOf(Given.Cormac).ShouldBeNull();

        (bool, decimal)? ChanceOf(Guid student) =>
            state.Questions.All[0].ChanceOf(student, state.AttendanceOf(student, Given.Lesson, AttendancePolicy.Default), Duration.Zero, state.Groups) is { } chance ? (chance.Answered, chance.Possible) : null;
    }

    [Fact]
    public void What_the_page_took_counts_and_the_row_stands_behind_it()
    {
        var opened = Given.Noted(38, new QuestionOpened(Wind, null, null, [], Duration.Zero));
        var page = Given.Noted(40, new AnswerGiven(Given.Juno, opened.Id, Backs), Source.Page);
        var file = File(opened.Id, brings: false, (40.2, "Juno Q", Veers), (41, "Eino R.", Veers));
        var state = Given.State([opened, page, .. file]);
        var answers = state.Questions.All.ShouldHaveSingleItem().Answers;
        (answers[Given.Juno].Entry, answers[Given.Eino].Answer.Written).ShouldBe((page.Id, Veers.Written));
        state.Files.SupportOf(page.Id).Select(e => e.Id).ShouldBe([file[1].Id]);
    }

    [Fact]
    public void Of_several_tries_the_last_counts_and_a_longer_version_adds_what_is_new()
    {
        (double, string, Answer)[] rows = [(40, "Juno Q", Veers), (41, "Juno Q", Backs), (42, "Juno Q", Backs)];
        (double, string, Answer)[] more = [.. rows, (43, "Eino R.", Backs)];
        Figures([.. File(Wind.Id, true, rows), .. File(Wind.Id, true, more)]).ShouldBe(Figures(File(Wind.Id, true, more)));
        Figures([.. File(Wind.Id, true, more), .. File(Wind.Id, true, rows)]).ShouldBe(Figures(File(Wind.Id, true, more)));
        Given.State(File(Wind.Id, true, rows)).Questions.All[0].MarksOf(Given.Juno).ShouldBe(1);
    }

    [Fact]
    public void A_file_taken_out_takes_its_questions_with_it()
    {
        var file = File(Wind.Id, brings: true, (40, "Juno Q", Backs));
        Given.State([.. file, Given.Strike(file[0], 61)]).Questions.All.ShouldBeEmpty();
    }

    [Fact]
    public void Answers_without_names_are_counts_alone()
    {
        var question = Wind with { Purpose = QuestionPurpose.Poll, Anonymous = true };
        var file = Given.Noted(60, new FileBroughtIn(FileKind.Answers, "answers.csv", 6, "00"));
        var brought = Given.Noted(40, new QuestionFromFile(question, Duration.FromMinutes(2), 6, [Backs, Backs, Veers, Backs, Veers, Backs]), Source.File) with { Together = file.Id };
        var asking = Given.State(file, brought).Questions.All.ShouldHaveSingleItem();
        (asking.BallotsCast, asking.Ballots.Count, asking.IsCounted).ShouldBe((6, 6, true));
        asking.ChanceOf(Given.Juno, Given.State(file, brought).AttendanceOf(Given.Juno, Given.Lesson, AttendancePolicy.Default), Duration.Zero, Given.State(file, brought).Groups).ShouldBeNull();
    }

    private static IReadOnlyList<string> Figures(IReadOnlyList<Entry> entries) =>
        [.. Given.State(entries).Questions.All.SelectMany(a => a.Answers.OrderBy(x => x.Key).Select(x => $"{a.Id} {a.OpenedAt} {a.ClosedAt} {x.Key} {x.Value.At} {x.Value.Answer.Written} {a.MarksOf(x.Key)}"))];

    private static Question Made(IReadOnlyList<AnswerWritten> answers) =>
        new QuestionGuess(text => new Guid(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(text)).AsSpan(0, 16))).Of("Which way?", answers, []);

    private static IEnumerable<string> RightIn(Question question) =>
        [.. question.Options.Where(o => o.Right).Select(o => o.Text), .. question.AcceptedAnswers, .. question.Target is { } target ? [$"{target}"] : Array.Empty<string>()];

    private static string Read(Question question, string cell) => AnswerReading.Of(question, cell) switch
    {
        null => "none",
        { Options: [_, ..] options } => string.Join(",", options.Select(o => question.Options.ToList().FindIndex(q => q.Id == o) + 1).Order()),
        var answer => answer.InWords(question),
    };
}
