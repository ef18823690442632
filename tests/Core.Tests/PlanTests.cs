using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Tests;

public sealed class PlanTests
{
    private static readonly IReadOnlyDictionary<Guid, string> Class = new Dictionary<Guid, string>
    {
        [Given.Juno] = "Juno",
        [Given.Eino] = "Eino",
        [Given.Zainab] = "Zainab",
    };

    private static readonly Plan Good = new()
    {
        Stages = [Stage("Arriving", 10), Stage("Readings", 40)],
        Points = [new(Given.Id(90), "What you saw")],
    };

    private static PlannedStage Stage(string name, int minutes, string directions = "Read the dial twice.") =>
        new(Guid.NewGuid(), name, Duration.FromMinutes(minutes), directions);

    private static QuestionOption Option(string text, bool right = false) => new(Guid.NewGuid(), text, right);

    private static Question Asked(QuestionKind kind, params QuestionOption[] options) =>
        new() { Id = Guid.NewGuid(), Kind = kind, Text = "Why does the wind back?", Options = options };

    private static IReadOnlyList<ReadyNote> Ready(Plan plan, int minutes = 50, bool link = true, int withoutMail = 0, ClassRules? rules = null) =>
        Readiness.Of(plan, rules ?? ClassRules.Default, new LessonAhead(Duration.FromMinutes(minutes), link, Class, withoutMail));

    [Fact]
    public void Times_follow_from_the_start()
    {
        var start = Instant.FromUtc(2026, 11, 26, 9, 30);
        var timed = Good.Timed(start);
        timed.Select(t => (t.From, t.To)).ShouldBe([
            (start, start + Duration.FromMinutes(10)), (start + Duration.FromMinutes(10), start + Duration.FromMinutes(50)),
        ]);
        Plan.Empty.Timed(start).ShouldBeEmpty();
    }

    [Fact]
    public void A_good_plan_is_ready() => Ready(Good).ShouldBeEmpty();

    public static TheoryData<string, Plan, string, bool> Lacks() => new()
    {
        // what is wrong, what is said of it, whether it is needed
        { "too long", Good with { Stages = [Stage("Arriving", 20), Stage("Readings", 45)] }, "15 more than the lesson has", true },
        { "too short", Good with { Stages = [Stage("Arriving", 20)] }, "30 of 50 min are not planned", false },
        { "no stages", Good with { Stages = [] }, "runs as one piece", false },
        { "no name", Good with { Stages = [Stage(" ", 50)] }, "Stage 1 has no name", true },
        { "no directions", Good with { Stages = [Stage("Readings", 50, "")] }, "“Readings” has no directions", false },
        { "an empty point", Good with { Points = [new(Given.Id(1), "")] }, "point to cover is empty", true },
        { "one alone", Good with { Together = [new(Given.Id(1), [Given.Juno])] }, "needs two students", true },
        { "gone", Good with { Apart = [new(Given.Id(1), [Given.Juno, Given.Id(77)])] }, "no longer in the class", true },
        {
            "both", Good with { Together = [new(Given.Id(1), [Given.Juno, Given.Eino])], Apart = [new(Given.Id(2), [Given.Eino, Given.Juno])] },
            "Eino and Juno are to be both together and apart", true
        },
        {
            "both, by a chain",
            Good with
            {
                Together = [new(Given.Id(1), [Given.Juno, Given.Eino]), new(Given.Id(2), [Given.Eino, Given.Zainab])],
                Apart = [new(Given.Id(3), [Given.Juno, Given.Zainab])],
            },
            "Juno and Zainab are to be both together and apart", true
        },
        { "a question without text", Good with { Questions = [Asked(QuestionKind.ShortText) with { Text = "" }] }, "Question 1: it asks nothing yet", true },
        {
            "a blank", Good with { Questions = [Asked(QuestionKind.SingleChoice, Option("{the first reading}"), Option("neither"))] },
            "“the first reading” is filled in during the lesson", false
        },
    };

    [Theory]
    [MemberData(nameof(Lacks))]
    public void Is_it_ready_says_what_is_missing(string told, Plan plan, string said, bool needed)
    {
        var note = Ready(plan).ShouldHaveSingleItem(told);
        note.Text.ShouldContain(said);
        note.Needed.ShouldBe(needed);
    }

    [Fact]
    public void Is_it_ready_looks_at_the_lesson_too()
    {
        Ready(Good, link: false).ShouldHaveSingleItem().Text.ShouldBe("The link to the meeting is missing.");
        Ready(Good, withoutMail: 2).ShouldBeEmpty();
        var on = ClassRules.Default with { WordAhead = new WordAhead { On = true } };
        Ready(Good, withoutMail: 2, rules: on).ShouldHaveSingleItem().Text.ShouldContain("2 of 3 students have no e-mail address");
        Readiness.Of(Good, ClassRules.Default, new LessonAhead(Duration.FromMinutes(50), true, new Dictionary<Guid, string>(), 0))
            .ShouldHaveSingleItem().Text.ShouldContain("roster of this class is empty");
    }

    [Fact]
    public void What_is_needed_comes_first() =>
        Ready(Good with { Stages = [Stage("Arriving", 5, ""), Stage("", 5)] }).Select(n => n.Needed).ShouldBeInOrder(SortDirection.Descending);

    public static TheoryData<Question, string?> QuestionsMissing() => new()
    {
        { Asked(QuestionKind.ShortText), null },
        { Asked(QuestionKind.SingleChoice, Option("a")), "two options at least" },
        { Asked(QuestionKind.SingleChoice, Option("a"), Option("")), "an option is empty" },
        { Asked(QuestionKind.SingleChoice, Option("It backs"), Option("it BACKS ")), "two options are the same" },
        { Asked(QuestionKind.PictureChoice, Option("a"), Option("b")), "an option has no picture" },
        {
            Asked(QuestionKind.PictureChoice, Option("a") with { Picture = Given.Id(1), AlternativeText = "heaps" }, Option("b") with { Picture = Given.Id(2) }),
            "no words for those who cannot see it"
        },
        { Asked(QuestionKind.SingleChoice, Option("a"), Option("b")) with { Purpose = QuestionPurpose.Quiz }, "exactly one option must be marked" },
        { Asked(QuestionKind.TrueFalse, Option("true", true), Option("false", true)) with { Purpose = QuestionPurpose.Quiz }, "exactly one option" },
        { Asked(QuestionKind.MultipleChoice, Option("a"), Option("b")) with { Purpose = QuestionPurpose.Quiz }, "at least one option must be marked" },
        { Asked(QuestionKind.MultipleChoice, Option("a", true), Option("b", true)) with { Purpose = QuestionPurpose.Quiz }, null },
        { Asked(QuestionKind.Number) with { Purpose = QuestionPurpose.Quiz }, "the right number is missing" },
        { Asked(QuestionKind.Number) with { Purpose = QuestionPurpose.Quiz, Target = 1013 }, null },
        { Asked(QuestionKind.WordList) with { Purpose = QuestionPurpose.Quiz }, "so it is a poll" },
        { Asked(QuestionKind.ShortText) with { Purpose = QuestionPurpose.Quiz }, null }, // marked by hand
        { Asked(QuestionKind.Scale) with { Purpose = QuestionPurpose.Quiz }, null }, // without marks
        { Asked(QuestionKind.Ranking, Option("a"), Option("b")) with { Purpose = QuestionPurpose.Quiz }, null },
        { Asked(QuestionKind.ShortText) with { Purpose = QuestionPurpose.Quiz, Anonymous = true }, "a quiz cannot be anonymous" },
    };

    [Theory]
    [MemberData(nameof(QuestionsMissing))]
    public void A_question_says_what_it_lacks(Question question, string? lack)
    {
        var missing = QuestionRules.Missing(question).ToList();
        if (lack is null)
        {
            missing.ShouldBeEmpty();
        }
        else
        {
            missing.ShouldHaveSingleItem().ShouldContain(lack);
        }
    }

    public static TheoryData<Plan, string> NeverStored() => new()
    {
        { new Plan { Stages = [Stage(new string('x', 121), 5)] }, "Stage 1: the name may have 120" },
        { new Plan { Stages = [Stage("Arriving", 5), Stage("Readings", 601)] }, "Stage 2: from 0 to 600 min" },
        { new Plan { Stages = [Stage("Arriving", -1)] }, "Stage 1: from 0" },
        { new Plan { Stages = [Stage("Arriving", 1, new string('x', 5001))] }, "directions may have 5,000" },
        { new Plan { Stages = [.. Enumerable.Range(0, 61).Select(i => Stage($"Stage {i}", 1))] }, "60 stages; this one has 61" },
        { new Plan { Points = [new(Given.Id(1), new string('x', 241))] }, "240 characters" },
        { new Plan { Points = [new(Given.Id(1), "a"), new(Given.Id(1), "b")] }, "same id" },
        { new Plan { Questions = [Asked(QuestionKind.Scale) with { ScaleFrom = 5, ScaleTo = 5 }] }, "Question 1: A scale has from 2 to 11 steps" },
        { new Plan { Questions = [Asked(QuestionKind.WordList) with { WordsEach = 0 }] }, "from 1 to 10 words" },
        { new Plan { Questions = [Asked(QuestionKind.Number) with { Tolerance = -1 }] }, "A tolerance is 0 or more" },
        { new Plan { Questions = [Asked(QuestionKind.Number) with { TimeLimit = Duration.FromSeconds(4) }] }, "between 5 s and 60 min" },
        { new Plan { Questions = [Asked(QuestionKind.SingleChoice, [.. Enumerable.Range(0, 13).Select(i => Option($"{i}"))])] }, "12 options; this one has 13" },
    };

    [Theory]
    [MemberData(nameof(NeverStored))]
    public void What_no_plan_may_hold_is_named_with_its_place(Plan plan, string said) => plan.Problems().ShouldHaveSingleItem().ShouldContain(said);

    [Fact]
    public void Placeholders_are_found_in_text_and_options_once_each() =>
        QuestionRules.Placeholders(Asked(QuestionKind.SingleChoice, Option("{ the first reading }"), Option("{b}, not {the first reading}"), Option("{}")) with { Text = "Is it {b}?" })
            .ShouldBe(["b", "the first reading"]);

    [Fact]
    public void A_copied_plan_is_the_same_but_for_ids_and_for_who_is_not_there()
    {
        var plan = Good with
        {
            Questions = [Asked(QuestionKind.SingleChoice, Option("a", true), Option("b"))],
            Apart = [new(Given.Id(1), [Given.Juno, Given.Eino, Given.Zainab])],
            Together = [new(Given.Id(2), [Given.Juno, Given.Zainab])],
        };
        var copied = plan.CopiedFor(Guid.NewGuid, new HashSet<Guid> { Given.Juno, Given.Eino });
        copied.Problems().ShouldBeEmpty();
        copied.Stages.Select(s => (s.Name, s.Length)).ShouldBe(plan.Stages.Select(s => (s.Name, s.Length)));
        copied.Questions[0].Options.Select(o => (o.Text, o.Right)).ShouldBe([("a", true), ("b", false)]);
        copied.Stages.Select(s => s.Id).ShouldNotContain(id => plan.Stages.Any(s => s.Id == id));
        copied.Questions[0].Id.ShouldNotBe(plan.Questions[0].Id);
        copied.Apart.ShouldHaveSingleItem().Students.ShouldBe([Given.Juno, Given.Eino]);
        copied.Together.ShouldBeEmpty();
    }
}
