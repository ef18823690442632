using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

public sealed class ScoringTests
{
    private static readonly Participation There = new() { Attendance = Given.Attendance("j0 l50") };

    private static decimal? Strand(Strand strand, Participation did, Scheme? scheme = null) =>
        LessonScore.Of(did, scheme ?? Scheme.Default).Strands.Single(s => s.Strand == strand).Value?.Value;

    private static Turn Turn(TurnOutcome? outcome) => new(Given.Juno, TurnOrigin.Hand, Given.At(1), null, outcome, [Given.Id(1)]);

    private static Hand Hand(HandStage stage) => new(Given.Juno, Given.At(1), Given.Id(2), stage);

    [Theory]
    // turns, hands, value ("no chance" where nothing could be done)
    [InlineData("Full", "", "1")]
    [InlineData("Partial", "", "0.5")]
    [InlineData("Partial Partial", "", "1")]
    [InlineData("Full Full", "", "1")]                 // at most 1
    [InlineData("Pass", "", "0")]
    [InlineData("CouldNot", "", "no chance")]          // not counted
    [InlineData("open", "", "no chance")]              // nobody said how it went
    [InlineData("", "", "no chance")]
    [InlineData("", "Up", "no chance")]                // raised and never called: the only chance, and it would lower the score
    [InlineData("Pass", "Lapsed", "0.5")]
    [InlineData("Pass", "SetDown", "0.5")]
    [InlineData("", "Withdrawn", "no chance")]
    [InlineData("Pass", "Up SetDown Lapsed", "0.5")]   // once
    [InlineData("Partial", "Up", "1")]
    [InlineData("Pass", "Up", "0.5")]
    public void Speaking(string turns, string hands, string value)
    {
        var did = There with
        {
            Turns = [.. Words(turns).Select(t => Turn(t == "open" ? null : Enum.Parse<TurnOutcome>(t)))],
            Hands = [.. Words(hands).Select(h => Hand(Enum.Parse<HandStage>(h)))],
        };
        (Strand(Scoring.Strand.Speaking, did)?.ToString("0.##") ?? "no chance").ShouldBe(value);
    }

    private static decimal? Score(Participation did) => LessonScore.Of(did, Scheme.Default with { ChatCounts = false }).Total?.Value;

    /// <summary>Late and gone early: attendance alone is 50.</summary>
    private static readonly Participation There50 = new() { Attendance = Given.Attendance("j6 l44") };

    /// <summary>A hand or a round that is the only chance to speak never lowers a score, and where it raises the score it counts.</summary>
    [Theory]
    // rounds answered, of; a hand; a call that could not; unanswered questions; score
    [InlineData(0, 0, false, false, 50)]
    [InlineData(0, 0, true, false, 50)]      // half: as much as attendance
    [InlineData(4, 4, false, false, 80)]
    [InlineData(4, 4, false, true, 80)]      // a call that could not takes nothing of it away
    [InlineData(1, 1, false, false, 50)]     // a quarter would lower it
    [InlineData(1, 1, true, false, 65)]      // with the hand it raises
    [InlineData(1, 2, false, false, 35)]     // one was let pass
    [InlineData(0, 0, false, true, 50)]
    public void An_only_chance_counts_where_it_raises_the_score(int answered, int rounds, bool hand, bool couldNot, double score)
    {
        var did = There50 with
        {
            SignalRounds = [.. Enumerable.Range(0, rounds).Select(i => new SignalRound(i < answered, Given.Id(i)))],
            Hands = hand ? [Hand(HandStage.SetDown)] : [],
            Turns = couldNot ? [Turn(TurnOutcome.CouldNot)] : [],
        };
        Score(did).ShouldBe((decimal)score);
    }

    [Fact]
    public void A_drop_in_lesson_has_no_score() =>
        LessonScore.Of(There with { IsDropIn = true }, Scheme.Default).ShouldSatisfyAllConditions(s => s.Total.ShouldBeNull(), s => s.Because!.ShouldContain("no score"));

    [Theory]
    [InlineData(0, 2, "0")]
    [InlineData(1, 2, "0.25")]
    [InlineData(6, 7, "1")]
    public void A_signal_round_answered_earns_a_quarter(int answered, int rounds, string value)
    {
        var did = There with { SignalRounds = [.. Enumerable.Range(0, rounds).Select(i => new SignalRound(i < answered, Given.Id(i)))] };
        Strand(Scoring.Strand.Speaking, did)!.Value.ToString("0.##").ShouldBe(value);
    }

    [Fact]
    public void An_open_line_is_a_chance_for_all_unless_the_class_chose_otherwise()
    {
        var did = There with { LineWasOpen = true };
        Strand(Scoring.Strand.Speaking, did).ShouldBe(0m);
        Strand(Scoring.Strand.Speaking, did, new Scheme { OpenLineIsChance = false }).ShouldBeNull();
    }

    [Theory]
    // turns, messages, target, value: what was written fills a part of what is missing to a full turn
    [InlineData("", 1, 1, "0.25")]
    [InlineData("", 2, 1, "0.5")]
    [InlineData("", 9, 1, "0.5")]
    [InlineData("Partial", 2, 1, "0.75")]
    [InlineData("Full", 2, 1, "1")]
    [InlineData("", 2, 2, "0.25")]
    [InlineData("Full", 2, 2, "0.5")]
    public void What_was_written_stands_in_for_a_part_of_a_turn(string turns, int messages, int target, string value)
    {
        var did = There with
        {
            LineWasOpen = true,
            Turns = [.. Words(turns).Select(t => Turn(Enum.Parse<TurnOutcome>(t)))],
            Chat = [.. Enumerable.Repeat((ChatKind.Idea, Given.Id(5)), messages)],
        };
        Strand(Scoring.Strand.Speaking, did, Scheme.Default with { SpeakingTarget = target })!.Value.ToString("0.##").ShouldBe(value);
        Strand(Scoring.Strand.Speaking, did with { LineWasOpen = false, Turns = [] }).ShouldBeNull();
    }

    [Theory]
    // full turns, messages, value: who spoke has not to write as much
    [InlineData(1, 0, "0.25")]
    [InlineData(2, 0, "0.5")]
    [InlineData(9, 0, "0.5")]
    [InlineData(1, 1, "0.75")]
    [InlineData(2, 1, "1")]
    public void A_full_turn_stands_in_for_half_a_message(int turns, int messages, string value)
    {
        var did = There with
        {
            Turns = [.. Enumerable.Repeat(Turn(TurnOutcome.Full), turns)],
            Chat = [.. Enumerable.Repeat((ChatKind.Idea, Given.Id(5)), messages)],
        };
        Strand(Scoring.Strand.Chat, did)!.Value.ToString("0.##").ShouldBe(value);
    }

    [Theory]
    // answered:marks/possible of each question
    [InlineData("", "no chance")]
    [InlineData("y:0/0 y:0/0", "1")]
    [InlineData("y:0/0 n:0/0", "0.5")]
    [InlineData("y:1/1 y:1/1", "1")]
    [InlineData("y:1/1 y:0/1", "0.75")]
    [InlineData("y:1/1 n:0/1", "0.5")]
    [InlineData("n:0/1", "0")]
    [InlineData("y:0.5/1 y:0/0", "0.75")]
    public void Questions(string asked, string value)
    {
        var did = There with
        {
            Questions = [.. Words(asked).Select(q => new QuestionChance(
                q[0] == 'y', decimal.Parse(q[2..].Split('/')[0]), decimal.Parse(q[2..].Split('/')[1]), [Given.Id(3)]))],
        };
        (Strand(Scoring.Strand.Questions, did)?.ToString("0.##") ?? "no chance").ShouldBe(value);
    }

    [Theory]
    [InlineData("", "0")]
    [InlineData("Question", "0.5")]
    [InlineData("Answer Idea", "1")]
    [InlineData("Question Question Idea", "1")]
    [InlineData("Social OffTask Unsorted", "0")]
    public void Chat(string kinds, string value)
    {
        var did = There with { Chat = [.. Words(kinds).Select((k, i) => (Enum.Parse<ChatKind>(k), Given.Id(i)))] };
        Strand(Scoring.Strand.Chat, did)!.Value.ToString("0.##").ShouldBe(value);
        Strand(Scoring.Strand.Chat, did, new Scheme { ChatCounts = false }).ShouldBeNull();
    }

    [Theory]
    [InlineData(0, 3, "no chance")]      // not counted unless the class says so, and no chance either
    [InlineData(0.25, 0, "no chance")]
    [InlineData(0.25, 2, "no chance")]   // the only chance, and it would lower the score
    [InlineData(0.25, 9, "1")]           // at most 1, before the target divides
    public void Signals_of_ones_own_accord(double credit, int signals, string value)
    {
        var did = There with { SignalsGiven = [.. Enumerable.Range(1, signals).Select(Given.Id)] };
        (Strand(Scoring.Strand.Speaking, did, Scheme.Default with { SignalGiven = (decimal)credit })?.ToString("0.##") ?? "no chance").ShouldBe(value);
    }

    [Theory]
    [InlineData("", 0, "nothing in the chat; target 2")]
    [InlineData("", 2, "2 messages, not swept; target 2")]
    [InlineData("", 1, "1 message, not swept; target 2")]
    [InlineData("Social", 0, "nothing in the chat; target 2")]
    [InlineData("Idea Idea Question", 0, "1 question, 2 ideas; target 2")]
    [InlineData("Idea", 3, "1 idea; 3 messages, not swept; target 2")]
    public void A_score_says_what_in_the_chat_no_sweep_has_looked_at(string kinds, int waiting, string because)
    {
        var did = There with { ChatNotSwept = waiting, Chat = [.. Words(kinds).Select((k, i) => (Enum.Parse<ChatKind>(k), Given.Id(i)))] };
        LessonScore.Of(did, Scheme.Default).Strands.Single(s => s.Strand == Scoring.Strand.Chat).Because.ShouldBe(because);
    }

    [Theory]
    [InlineData("", "no chance")]
    [InlineData("1", "1")]
    [InlineData("1 0.5", "0.75")]
    [InlineData("0", "0")]
    public void Group_work(string seen, string value)
    {
        var did = There with { SitIns = [.. Words(seen).Select(s => new SitIn(decimal.Parse(s), Given.Id(4)))] };
        (Strand(Scoring.Strand.GroupWork, did)?.ToString("0.##") ?? "no chance").ShouldBe(value);
    }

    [Fact]
    public void The_score_is_a_weighted_mean_of_what_there_was_a_chance_to_do()
    {
        // Attendance 1 × 2, speaking 0.5 and half of what is missing × 0.25, that is 0.625 × 3, chat 0.5 × 1, of 6.
        var did = There with { Turns = [Turn(TurnOutcome.Partial)], Chat = [(ChatKind.Idea, Given.Id(5))] };
        LessonScore.Of(did, Scheme.Default).Total!.Value.ShouldBe(100m * 4.375m / 6, 0.0000001m);
    }

    [Theory]
    [InlineData(0, 50)]
    [InlineData(3, 53)]
    [InlineData(5, 55)]
    [InlineData(9, 55)]   // five at most
    public void Nods_add_a_point_each_up_to_five(int nods, decimal score)
    {
        var scheme = new Scheme { Weights = new Dictionary<Strand, decimal> { [Scoring.Strand.Speaking] = 1 } };
        var did = There with { Turns = [Turn(TurnOutcome.Partial)], Nods = [.. Enumerable.Range(0, nods).Select(Given.Id)] };
        LessonScore.Of(did, scheme).Total!.Value.ShouldBe(score);
    }

    [Fact]
    public void Nods_do_not_lift_a_score_over_a_hundred() =>
        LessonScore.Of(
            There with { Turns = [Turn(TurnOutcome.Full)], Chat = [(ChatKind.Idea, Given.Id(5)), (ChatKind.Idea, Given.Id(6))], Nods = [Given.Id(1), Given.Id(2)] },
            Scheme.Default).Total!.Value.ShouldBe(100m);

    [Fact]
    public void Absence_leaves_out_all_but_attendance_or_by_choice_scores_zero()
    {
        var absent = There with { Attendance = Given.Attendance("") };
        LessonScore.Of(absent, Scheme.Default).Total!.Value.ShouldBe(0);
        LessonScore.Of(absent, Scheme.Default).Strands.Count(s => s.Value is not null).ShouldBe(1);
        LessonScore.Of(absent, new Scheme { AbsenceScoresZero = true }).Strands.Count(s => s.Value is not null).ShouldBe(5);
    }

    [Fact]
    public void An_excused_lesson_has_no_score() =>
        LessonScore.Of(There with { Attendance = Given.Attendance("", excuse: "dentist") }, Scheme.Default).Total.ShouldBeNull();

    [Theory]
    // score×minutes of each lesson, lowest left out, term
    [InlineData("80x50 60x50", 0, "not enough yet")]
    [InlineData("80x50 60x50 70x50", 0, "70")]
    [InlineData("90x60 60x30 60x30", 0, "75")]
    [InlineData("80x50 60x50 70x50 90x50", 1, "80")]
    [InlineData("80x50 60x50 70x50", 1, "not enough yet")]   // as many as are asked for must be left
    [InlineData("80x50 60x50 70x50 90x50", 9, "not enough yet")]
    [InlineData("60x30 60x90 70x60 80x60", 1, "72")]         // of equal lowest ones the longest goes, in whichever order
    [InlineData("80x60 60x90 70x60 60x30", 1, "72")]
    [InlineData("80x0 60x0 70x0", 0, "70")]      // lessons without length weigh the same
    public void A_term_is_a_mean_weighted_by_length(string lessons, int leftOut, string term)
    {
        var scored = Words(lessons).Select(l => l.Split('x')).Select(l => new ScoredLesson("a lesson", decimal.Parse(l[0]), decimal.Parse(l[1]))).ToList();
        var total = TermScore.Of(scored, new Scheme { LowestLeftOut = leftOut }).Total;
        (total?.Value.ToString("0.##") ?? "not enough yet").ShouldBe(term);
    }

    [Theory]
    [InlineData(72.5, 73)]
    [InlineData(72.4999, 72)]
    [InlineData(0.5, 1)]
    public void Rounding_is_half_away_from_zero_and_only_when_shown(decimal score, int shown) => Text.Words.Shown(score).ShouldBe(shown);

    private static string[] Words(string text) => text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
}
