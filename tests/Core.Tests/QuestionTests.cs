using CsCheck;
using NodaTime;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

public sealed class QuestionTests
{
    private static readonly Guid A = Given.Id(501), B = Given.Id(502), C = Given.Id(503), D = Given.Id(504);

    private static Question Asked(QuestionKind kind, QuestionPurpose purpose = QuestionPurpose.Quiz) => new()
    {
        Id = Given.Id(500),
        Kind = kind,
        Purpose = purpose,
        Text = "What comes behind the front?",
        Options = kind is QuestionKind.Number or QuestionKind.Scale or QuestionKind.ShortText or QuestionKind.WordList
            ? []
            : [new(A, "rain", true), new(B, "cold", kind == QuestionKind.MultipleChoice), new(C, "frost"), new(D, "sun")],
        Target = kind is QuestionKind.Number or QuestionKind.Scale ? 4 : null,
        Tolerance = kind is QuestionKind.Number ? 0.5m : 0,
        AcceptedAnswers = ["a haar", "sea fog"],
    };

    private static Answer Chosen(params Guid[] options) => new() { Options = options };

    private static Answer Number(decimal number) => new() { Number = number };

    private static Answer Said(string text) => new() { Text = text };

    public static TheoryData<QuestionKind, Answer, string> Marked => new()
    {
        { QuestionKind.SingleChoice, Chosen(A), "1" },
        { QuestionKind.SingleChoice, Chosen(C), "0" },
        { QuestionKind.MultipleChoice, Chosen(A, B), "1" },
        { QuestionKind.MultipleChoice, Chosen(A), "0.5" },
        { QuestionKind.MultipleChoice, Chosen(A, B, C), "0.5" },
        { QuestionKind.MultipleChoice, Chosen(A, C), "0" },
        { QuestionKind.MultipleChoice, Chosen(C, D), "0" },
        { QuestionKind.Number, Number(4.5m), "1" },
        { QuestionKind.Number, Number(3.49m), "0" },
        { QuestionKind.Scale, Number(4), "1" },
        { QuestionKind.Scale, Number(5), "0" },
        { QuestionKind.Ranking, Chosen(A, B, C, D), "1" },
        { QuestionKind.Ranking, Chosen(D, C, B, A), "0" },
        { QuestionKind.Ranking, Chosen(B, A, C, D), "0.8333" },
        { QuestionKind.ShortText, Said("A Haar!"), "1" },
        { QuestionKind.ShortText, Said("séa  fog"), "1" },
        { QuestionKind.ShortText, Said("mist"), "waits" },
    };

    [Theory]
    [MemberData(nameof(Marked))]
    public void Marks_follow_the_kind(QuestionKind kind, Answer answer, string marks) =>
        (AnswerRules.MarksOf(Asked(kind), answer) is { } found ? decimal.Round(found, 4).ToString(System.Globalization.CultureInfo.InvariantCulture) : "waits").ShouldBe(marks);

    [Fact]
    public void All_or_nothing_knows_no_half()
    {
        var question = Asked(QuestionKind.MultipleChoice) with { AllOrNothing = true };
        AnswerRules.MarksOf(question, Chosen(A)).ShouldBe(0);
        AnswerRules.MarksOf(question, Chosen(B, A)).ShouldBe(1);
    }

    [Theory]
    [InlineData("3.5", "-3.5")]
    [InlineData("3.5", "35")]
    [InlineData("12", "1 2")]
    public void Numbers_in_words_are_not_the_same_for_looking_alike(string accepted, string said) =>
        AnswerRules.MarksOf(Asked(QuestionKind.ShortText) with { AcceptedAnswers = [accepted] }, Said(said)).ShouldBeNull();

    [Fact]
    public void The_teachers_mark_wins_and_a_poll_has_none()
    {
        AnswerRules.MarksOf(Asked(QuestionKind.ShortText), Said("mist"), 0.5m).ShouldBe(0.5m);
        AnswerRules.MarksOf(Asked(QuestionKind.SingleChoice, QuestionPurpose.Poll), Chosen(A)).ShouldBeNull();
        AnswerRules.MarksOf(Asked(QuestionKind.Scale) with { Target = null }, Number(3)).ShouldBeNull();
    }

    [Fact]
    public void Marks_of_a_ranking_lie_between_none_and_one_and_turning_it_round_mirrors_them() =>
        Gen.Shuffle(new[] { A, B, C, D }).Sample(order =>
        {
            var (there, back) = (AnswerRules.MarksOf(Asked(QuestionKind.Ranking), Chosen(order)), AnswerRules.MarksOf(Asked(QuestionKind.Ranking), Chosen([.. order.Reverse()])));
            return there is >= 0 and <= 1 && Math.Abs(there.Value + back!.Value - 1) < 0.0001m;
        });

    public static TheoryData<QuestionKind, Answer, string> NoAnswers => new()
    {
        { QuestionKind.SingleChoice, Chosen(), "Choose one" },
        { QuestionKind.SingleChoice, Chosen(A, B), "Choose one" },
        { QuestionKind.SingleChoice, Chosen(Given.Id(9)), "not one of the choices" },
        { QuestionKind.MultipleChoice, Chosen(), "at least one" },
        { QuestionKind.MultipleChoice, Chosen(A, A), "not one of the choices" },
        { QuestionKind.Ranking, Chosen(A, B), "all of them" },
        { QuestionKind.Ranking, Chosen(A, A, B, C), "not one of the choices" },
        { QuestionKind.Scale, Number(6), "from 1 to 5" },
        { QuestionKind.Scale, Number(2.5m), "from 1 to 5" },
        { QuestionKind.Number, new Answer(), "number" },
        { QuestionKind.Number, Number(decimal.MaxValue), "too large" },
        { QuestionKind.ShortText, Said("  "), "few words" },
        { QuestionKind.ShortText, Said("\u202E\u200B\a"), "few words" },
        { QuestionKind.ShortText, Said(string.Concat(Enumerable.Repeat("🌊", 5000))), "200 characters" },
        { QuestionKind.WordList, new Answer(), "one word" },
        { QuestionKind.WordList, new Answer { Words = [" ", "\u202E"] }, "one word" },
        { QuestionKind.WordList, new Answer { Words = ["a", "b", "c", "d"] }, "3 words" },
        { QuestionKind.WordList, new Answer { Words = [new string('x', 41)] }, "40 characters" },
    };

    [Theory]
    [MemberData(nameof(NoAnswers))]
    public void What_is_no_answer_is_said(QuestionKind kind, Answer answer, string said) =>
        AnswerRules.WhyRefused(Asked(kind), answer).ShouldNotBeNull().ShouldContain(said);

    [Fact]
    public void An_answer_is_kept_without_what_its_kind_has_no_use_for()
    {
        var kept = AnswerRules.Kept(Asked(QuestionKind.WordList), new Answer { Words = ["Fog", "fog!", " haar\u202E ", ""], Text = "x", Number = 3 });
        kept.Words.ShouldBe(["Fog", "haar"]);
        (kept.Text, kept.Number).ShouldBe(("", null));
        AnswerRules.Kept(Asked(QuestionKind.MultipleChoice), Chosen(C, A)).Options.ShouldBe([A, C]);
    }

    // A lesson in which a question is open from minute 10 to 20.
    private static (Entry Opened, Entry Closed) Around(Question question, Guid? group = null)
    {
        var opened = Given.Noted(10, new QuestionOpened(question, group, null, [], Duration.Zero));
        return (opened, Given.Noted(20, new QuestionClosed(opened.Id)));
    }

    private static Entry Gave(double minute, Guid student, Entry opened, Answer answer, Source source = Source.Page) =>
        Given.Noted(minute, new AnswerGiven(student, opened.Id, answer), source);

    private static Entry[] Here(string who, double from, double to)
    {
        var name = $"{who} in the meeting";
        return [Given.Noted(from, new Joined(name, "laptop"), Source.Feed), Given.Noted(to, new Left(name, "laptop"), Source.Feed),
            Given.Noted(from, new NameMatched(name, who == "Juno" ? Given.Juno : Given.Eino))];
    }

    private static IReadOnlyList<QuestionChance> Chances(Guid student, params IEnumerable<Entry> entries) =>
        Given.State(entries).ParticipationOf(student, Given.Lesson, Scheme.Default).Questions;

    [Fact]
    public void While_it_is_open_the_latest_answer_counts_and_after_closing_only_the_teachers()
    {
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice));
        Entry[] entries = [opened, Gave(12, Given.Juno, opened, Chosen(C)), Gave(14, Given.Juno, opened, Chosen(A)), closed, Gave(21, Given.Juno, opened, Chosen(D))];
        Given.State(entries).Questions.All[0].Answers[Given.Juno].Answer.Options.ShouldBe([A]);
        var entered = Given.State([.. entries, Gave(30, Given.Juno, opened, Chosen(D), Source.Tapped)]).Questions.All[0];
        (entered.Answers[Given.Juno].ByTeacher, entered.MarksOf(Given.Juno)).ShouldBe((true, 0m));
    }

    [Fact]
    public void What_was_acknowledged_while_it_was_open_counts_whatever_the_clocks_say()
    {
        // The teacher's clock is a little behind, so the closing seems to lie before an answer that came before it.
        var (opened, _) = Around(Asked(QuestionKind.SingleChoice));
        var answer = Gave(20.1, Given.Juno, opened, Chosen(A));
        var closed = Given.Noted(20, new QuestionClosed(opened.Id)) with { NotedAt = Given.At(20.2) };
        Given.State(opened, answer, closed).Questions.All[0].Answers.ShouldContainKey(Given.Juno);
    }

    /// <summary>A question from 10 to 20: who was there for half of it was asked; so was who missed it by coming late or leaving early without an excuse.</summary>
    [Theory]
    // there from, to; excused; asked; only because it was missed
    [InlineData(0, 50, false, true, false)]      // there all along
    [InlineData(15, 50, false, true, false)]     // for half of the ten minutes
    [InlineData(15.2, 50, false, true, true)]    // for less than half: came late
    [InlineData(0, 14, false, true, true)]       // left before half of it
    [InlineData(30, 50, false, true, true)]
    [InlineData(15.2, 50, true, false, false)]
    [InlineData(0, 14, true, false, false)]
    public void Unanswered_it_counts_for_whoever_was_there_for_half_of_it_or_missed_it(double from, double to, bool excused, bool counts, bool missed)
    {
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice));
        Entry[] excuse = excused ? [Given.Noted(1, new Attendance.ExcuseRecorded(Given.Juno, "ferry"))] : [];
        var chances = Chances(Given.Juno, [opened, closed, .. excuse, .. Here("Juno", from, to)]);
        chances.Count.ShouldBe(counts ? 1 : 0);
        chances.ShouldAllBe(c => !c.Answered && c.Marks == 0 && c.Possible == 1 && c.Missed == missed);
    }

    [Fact]
    public void Missed_in_a_dropout_or_known_only_by_what_they_did_nothing_else_was_asked_of_them()
    {
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice));
        Chances(Given.Juno, [opened, closed, .. Here("Juno", 0, 9), .. Here("Juno", 21, 50)]).ShouldBeEmpty();
        Chances(Given.Juno, [opened, closed, Given.Noted(5, Given.Turn(Given.Juno)), Given.Noted(40, Given.Turn(Given.Juno))]).ShouldBeEmpty();
        Chances(Given.Juno, [opened, closed, Given.Noted(60, new NameMatched("Juno", Given.Juno)), Given.Noted(50, new Attended("Juno", Duration.FromMinutes(50)))]).ShouldBeEmpty();
    }

    [Fact]
    public void Answered_it_counts_however_short_one_was_there()
    {
        var (opened, closed) = Around(Asked(QuestionKind.MultipleChoice));
        Chances(Given.Juno, [opened, closed, Gave(11, Given.Juno, opened, Chosen(A)), .. Here("Juno", 10.5, 11.5)])
            .ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Answered.ShouldBeTrue(), c => c.Marks.ShouldBe(0.5m));
    }

    [Fact]
    public void Whoever_cannot_answer_is_excused_until_they_can()
    {
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice));
        var cannot = Given.Noted(11, new CannotAnswer(Given.Juno, opened.Id), Source.Page);
        Chances(Given.Juno, [opened, cannot, closed, .. Here("Juno", 0, 50)]).ShouldBeEmpty();
        Chances(Given.Juno, [opened, cannot, Gave(12, Given.Juno, opened, Chosen(A)), closed, .. Here("Juno", 0, 50)]).ShouldHaveSingleItem().Answered.ShouldBeTrue();
    }

    [Fact]
    public void A_question_to_a_group_is_none_to_the_others_and_one_to_latecomers_of_the_group()
    {
        var group = new StudentGroup(Given.Id(700), "Group 1", [Given.Juno]);
        var made = Given.Noted(5, new GroupsMade([group, new StudentGroup(Given.Id(701), "Group 2", [Given.Eino, Given.Zainab])]));
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice), group.Id);
        var moved = Given.Noted(12, new GroupJoined(Given.Zainab, group.Id));
        var state = Given.State(made, opened, moved, closed);
        bool GoesTo(Guid student) => state.Questions.All.ShouldHaveSingleItem().GoesTo(student, state.Groups);
        (GoesTo(Given.Juno), GoesTo(Given.Eino), GoesTo(Given.Zainab)).ShouldBe((true, false, true));
    }

    [Fact]
    public void A_short_text_that_waits_for_its_mark_costs_nothing_yet()
    {
        var (opened, closed) = Around(Asked(QuestionKind.ShortText));
        Entry[] entries = [opened, Gave(12, Given.Juno, opened, Said("mist")), closed, .. Here("Juno", 0, 50)];
        Chances(Given.Juno, entries).ShouldHaveSingleItem().Possible.ShouldBe(0);
        Chances(Given.Juno, [.. entries, Given.Noted(30, new AnswersMarked(opened.Id, [Given.Juno], 0.5m))]).ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(c => c.Possible.ShouldBe(1), c => c.Marks.ShouldBe(0.5m), c => c.Entries.Count.ShouldBe(2));
    }

    [Fact]
    public void A_corrected_key_marks_anew_and_struck_out_it_leaves_no_trace()
    {
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice));
        var corrected = Given.Noted(40, new KeyCorrected(opened.Id, [C], null, 0, []));
        Entry[] entries = [opened, Gave(12, Given.Juno, opened, Chosen(C)), closed, corrected];
        Given.State(entries).Questions.All[0].MarksOf(Given.Juno).ShouldBe(1);
        Given.State([.. entries, Given.Strike(corrected)]).Questions.All[0].MarksOf(Given.Juno).ShouldBe(0);
    }

    [Fact]
    public void Extra_time_is_for_those_who_have_it()
    {
        var opened = Given.Noted(10, new QuestionOpened(Asked(QuestionKind.SingleChoice) with { TimeLimit = Duration.FromSeconds(60) }, null, null, [Given.Juno], Duration.FromSeconds(30)));
        var state = Given.State(opened);
        var asking = state.Questions.All[0];
        asking.DeadlineOf(Given.Juno).ShouldBe(Given.At(11.5));
        asking.DeadlineOf(Given.Eino).ShouldBe(Given.At(11));
        AskingRules.OutOfTime(asking, Given.Eino, state.Groups, Given.At(11.05)).ShouldNotBeNull().ShouldContain("time");
        AskingRules.OutOfTime(asking, Given.Juno, state.Groups, Given.At(11.05)).ShouldBeNull();
    }

    [Fact]
    public void Without_names_only_that_somebody_answered_can_count_and_only_if_it_was_said()
    {
        var question = Asked(QuestionKind.Scale, QuestionPurpose.Poll) with { Anonymous = true, CountsTakingPart = true };
        var (opened, closed) = Around(question);
        var counted = Given.Noted(20.1, new BallotsCounted(opened.Id, 6, [.. Enumerable.Repeat(Number(3), 6)], [Given.Juno]));
        Entry[] entries = [opened, closed, counted, .. Here("Juno", 0, 50), .. Here("Eino", 0, 50)];
        Chances(Given.Juno, entries).ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Answered.ShouldBeTrue(), c => c.Possible.ShouldBe(0));
        Chances(Given.Eino, entries).ShouldHaveSingleItem().Answered.ShouldBeFalse();
        var (silently, over) = Around(question with { CountsTakingPart = false });
        Chances(Given.Juno, [silently, over, Given.Noted(20.1, new BallotsCounted(silently.Id, 6, [], [])), .. Here("Juno", 0, 50)]).ShouldBeEmpty();
    }

    [Fact]
    public void The_order_in_which_entries_arrive_does_not_matter() => Gen.Int.Sample(seed =>
    {
        var (opened, closed) = Around(Asked(QuestionKind.SingleChoice));
        Entry[] entries =
        [
            opened, Gave(11, Given.Juno, opened, Chosen(C)), Gave(12, Given.Eino, opened, Chosen(A)), Gave(13, Given.Juno, opened, Chosen(A)), closed,
            Given.Noted(14, new CannotAnswer(Given.Zainab, opened.Id), Source.Page), Given.Noted(30, new KeyCorrected(opened.Id, [C], null, 0, [])),
        ];
        var shuffled = entries.ToArray();
        new Random(seed).Shuffle(shuffled);
        string Told(Entry[] list) => LessonState.Fold(list).Questions.All is [var one]
            ? string.Join(';', one.Answers.OrderBy(a => a.Key).Select(a => $"{a.Key} {a.Value.Entry} {one.MarksOf(a.Key)}")) + one.Cannot.Count
            : "none";
        return Told(shuffled) == Told(entries);
    });

    [Fact]
    public void Words_are_counted_by_student_whatever_their_spelling_and_merged_by_the_teacher()
    {
        var (opened, _) = Around(Asked(QuestionKind.WordList, QuestionPurpose.Poll));
        Entry[] entries =
        [
            opened, Gave(11, Given.Juno, opened, new Answer { Words = ["Fog", "mist"] }), Gave(12, Given.Eino, opened, new Answer { Words = ["fóg"] }),
            Gave(13, Given.Zainab, opened, new Answer { Words = ["misty"] }),
        ];
        QuestionResults.Of(Given.State(entries).Questions.All[0]).Words.Select(w => (w.Folded, w.Count)).ShouldBe([("fog", 2), ("mist", 1), ("misty", 1)]);
        QuestionResults.Of(Given.State([.. entries, Given.Noted(20, new WordsMerged(opened.Id, "misty", "mist"))]).Questions.All[0]).Words
            .Select(w => (w.Folded, w.Count)).ShouldBe([("fog", 2), ("mist", 2)]);
    }

    [Fact]
    public void Short_texts_that_are_alike_stand_together()
    {
        var (opened, _) = Around(Asked(QuestionKind.ShortText));
        var texts = QuestionResults.Of(Given.State(
            opened, Gave(11, Given.Juno, opened, Said("isobars")), Gave(12, Given.Eino, opened, Said("Isobar")), Gave(13, Given.Zainab, opened, Said("contour lines"))).Questions.All[0]).Texts;
        texts.Select(t => t.Count).ShouldBe([2, 1]);
        texts[0].Students.ShouldBe([Given.Juno, Given.Eino], ignoreOrder: true);
    }

    [Fact]
    public void Counts_of_few_can_be_held_back_and_the_sum_with_them()
    {
        var (opened, _) = Around(Asked(QuestionKind.SingleChoice, QuestionPurpose.Poll));
        Entry[] entries = [opened, .. Enumerable.Range(10, 5).Select(i => Gave(11, Given.Id(i), opened, Chosen(i < 14 ? A : B)))];
        var held = QuestionResults.Of(Given.State(entries).Questions.All[0]).HoldingBackFew();
        held.Answered.ShouldBeNull();
        held.Counts.Select(c => c.Count).ShouldBe([4, null, 0, 0]);
    }

    [Fact]
    public void Nothing_of_an_anonymous_question_is_shown_while_it_is_open()
    {
        var opened = Given.Noted(10, new QuestionOpened(Asked(QuestionKind.Scale, QuestionPurpose.Poll) with { Anonymous = true }, null, null, [], Duration.Zero));
        QuestionResults.Of(Given.State(opened).Questions.All[0]).Counts.ShouldAllBe(c => c.Count == 0);
    }
}
