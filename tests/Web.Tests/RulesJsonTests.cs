using CsCheck;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Tests;

/// <summary>What is kept of rules and plans is what they were.</summary>
public sealed class RulesJsonTests
{
    private static readonly Gen<string> Line = Gen.String[Gen.Char["abc øʻ渡\"\\{}<>"], 1, 12];

    private static readonly Gen<ClassRules> Rules = Gen.Select(
        Gen.Int[0, 120], Gen.Int[0, 100], Gen.Bool, Line.Array[1, 5], Line.Array[0, 4], Gen.Int[0, 20], Line, Gen.Int[1, 1440]).Select(
        (late, share, choice, nods, reminders, weight, text, ahead) => ClassRules.Default with
        {
            NodReasons = nods,
            BeforeEnd = reminders,
            ReadAloud = reminders.Distinct().ToDictionary(r => r, _ => text),
            Signals = [.. nods.Select(n => new AgreedSignal(n, text))],
            Rubric = text,
            WordAhead = new WordAhead { On = choice, Ahead = Duration.FromMinutes(ahead), Text = text },
            Scheme = ClassRules.Default.Scheme with
            {
                Attendance = new AttendancePolicy { LateAfter = Duration.FromMinutes(late), EnoughShare = share / 100m, CreditBy = choice ? CreditBy.Share : CreditBy.Status },
                Weights = ClassRules.Default.Scheme.Weights.ToDictionary(w => w.Key, w => w.Key == Strand.Chat ? weight / 2m : w.Value),
                LowestLeftOut = weight,
                ChatCounts = choice,
            },
        });

    private static SchoolClass Kept(string rules) => new() { Name = "Tides", Rules = rules };

    private static Lesson KeptLesson(string rules) => new() { Title = "Fog", Rules = rules };

    /// <summary>Whether rules say the same: words to read aloud have no order among them, as they go by their reminder.</summary>
    private static bool Same(ClassRules some, ClassRules others) => RulesJson.Difference(some, others) == "{}";

    [Fact]
    public void Rules_come_back_as_they_were_kept() => Rules.Sample(rules =>
        Same(RulesJson.Of(Kept(RulesJson.Difference(ClassRules.Default, rules))), rules));

    /// <summary>A client may leave strands out; the rules of old versions know fewer of them.</summary>
    [Fact]
    public void Weights_come_back_whichever_strands_are_left_out() => Gen.Select(Rules, Gen.Enum<Strand>().HashSet[0, 5]).Sample((rules, leftOut) =>
    {
        var fewer = rules with { Scheme = rules.Scheme with { Weights = rules.Scheme.Weights.Where(w => !leftOut.Contains(w.Key)).ToDictionary() } };
        var back = RulesJson.Of(Kept(RulesJson.Difference(ClassRules.Default, fewer))).Scheme.Weights;
        return Enum.GetValues<Strand>().All(s => back[s] == (leftOut.Contains(s) ? 0 : rules.Scheme.Weights[s]));
    });

    [Fact]
    public void A_lesson_comes_back_whatever_its_class_has() => Gen.Select(Rules, Rules).Sample((inClass, inLesson) =>
        Same(RulesJson.Of(KeptLesson(RulesJson.Difference(inClass, inLesson)), Kept(RulesJson.Difference(ClassRules.Default, inClass))), inLesson));

    [Fact]
    public void A_lesson_follows_its_class_in_what_it_did_not_change() => Gen.Select(Rules, Gen.Int[0, 20]).Sample((inClass, target) =>
    {
        var changed = ClassRules.Default with { Scheme = ClassRules.Default.Scheme with { ChatTarget = target + 3 } };
        var kept = RulesJson.Difference(ClassRules.Default, changed);
        var lesson = RulesJson.Of(KeptLesson(kept), Kept(RulesJson.Difference(ClassRules.Default, inClass)));
        return lesson.Scheme.ChatTarget == target + 3 && lesson.Rubric == inClass.Rubric && lesson.NodReasons.SequenceEqual(inClass.NodReasons)
            && lesson.Scheme.Attendance == inClass.Scheme.Attendance;
    });

    [Fact]
    public void What_equals_the_defaults_is_not_kept() => RulesJson.Difference(ClassRules.Default, new ClassRules()).ShouldBe("{}");

    [Fact]
    public void Plans_come_back_as_they_were_kept() => Gen.Select(
        Line.Array[0, 5], Line.Array[0, 4], Gen.Enum<QuestionKind>(), Gen.Enum<QuestionPurpose>(), Gen.Int[0, 600], Gen.Bool).Sample((names, texts, kind, purpose, minutes, choice) =>
    {
        var plan = new Plan
        {
            Stages = [.. names.Select(n => new PlannedStage(Guid.NewGuid(), n, Duration.FromMinutes(minutes), n))],
            Points = [.. texts.Select(t => new PointToCover(Guid.NewGuid(), t))],
            Apart = [new StudentSet(Guid.NewGuid(), [Guid.NewGuid(), Guid.NewGuid()])],
            Questions =
            [
                new Question
                {
                    Id = Guid.NewGuid(),
                    Kind = kind,
                    Purpose = purpose,
                    Text = string.Concat(texts),
                    Options = [.. texts.Select(t => new QuestionOption(Guid.NewGuid(), t, choice, choice ? Guid.NewGuid() : null, t))],
                    Target = choice ? minutes / 7m : null,
                    TimeLimit = choice ? null : Duration.FromSeconds(60),
                    AcceptedAnswers = texts,
                },
            ],
        };
        var json = PlanJson.Write(plan);
        return PlanJson.Write(PlanJson.ReadPlan(json)) == json && PlanJson.ReadPlan(json).Stages.SequenceEqual(plan.Stages);
    });
}
