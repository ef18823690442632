using System.Net;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Tests;

public sealed class GroundRulesTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static Task<RulesView> Of(Visitor teacher, string path) => teacher.Get<RulesView>($"/api/{path}/rules");

    private static Task<RulesStored> Store(Visitor teacher, string path, ClassRules rules) => teacher.Put<RulesStored>($"/api/{path}/rules", new RulesSent(rules));

    private static ClassRules With(ClassRules rules, Func<Scheme, Scheme> change) => rules with { Scheme = change(rules.Scheme) };

    [Fact]
    public async Task A_lesson_follows_its_class_but_for_what_it_changes()
    {
        var room = await (await app.SignedIn()).Teach();
        var (inClass, inLesson) = ($"classes/{room.Class}", $"lessons/{room.Lesson}");
        await Store(room.Teacher, inLesson, With((await Of(room.Teacher, inLesson)).Rules, s => s with { ChatTarget = 5 }));
        await Store(room.Teacher, inClass, With((await Of(room.Teacher, inClass)).Rules, s => s with { NodPoints = 2, ChatTarget = 3 }) with { NodReasons = ["careful drawing"] });

        var lesson = (await Of(room.Teacher, inLesson)).Rules;
        (lesson.Scheme.ChatTarget, lesson.Scheme.NodPoints).ShouldBe((5, 2));
        (await room.Sheet()).Head.NodReasons.ShouldBe(["careful drawing"]);
        // Changed back to what the class has, it follows the class again.
        await Store(room.Teacher, inLesson, With(lesson, s => s with { ChatTarget = 3 }));
        await Store(room.Teacher, inClass, With((await Of(room.Teacher, inClass)).Rules, s => s with { ChatTarget = 7 }));
        (await Of(room.Teacher, inLesson)).Rules.Scheme.ChatTarget.ShouldBe(7);
    }

    [Fact]
    public async Task Changed_rules_leave_settled_lessons_as_they_are()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new Marked(room.Students["Juno"], Mark.Here), new Marked(room.Students["Eino"], Mark.Late), new ChatSaid(room.Students["Juno"], ChatKind.Question, null));
        await room.Tap(new LessonEnded());
        await room.Tap(new LessonSettled());
        async Task<string> Scores() => string.Join(' ', (await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores")).Students.Select(s => s.Cells[0]?.Score));
        (await Scores()).ShouldBe("83 50 0");

        var path = $"classes/{room.Class}";
        var before = (await Of(room.Teacher, path)).Rules;
        var stored = await Store(room.Teacher, path, With(before, s => s with { Attendance = s.Attendance with { LateCredit = 0.6m }, ChatCounts = false }));
        (stored.Lessons, stored.Scores, stored.Version).ShouldBe((0, 0, 2));
        (await Scores()).ShouldBe("83 50 0");
        Summaries.Check(app.File).ShouldBeEmpty();
        // What counts for nothing makes no version.
        (await Store(room.Teacher, path, stored.View.Rules with { NodReasons = ["careful drawing"] })).Version.ShouldBeNull();
        var why = await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students["Juno"]}");
        why.Shown.ShouldBe(83);
    }

    [Fact]
    public async Task Rules_that_are_wrong_are_not_stored_and_say_why()
    {
        var room = await (await app.SignedIn()).Teach();
        foreach (var (rules, said) in new[]
        {
            (With(ClassRules.Default, s => s with { Attendance = s.Attendance with { LateAfter = Duration.FromMinutes(-1) } }), "Late after: from 0 to 120 min."),
            (ClassRules.Default with { Rubric = "<iframe>" }, "The rubric: Line 1 has a tag"),
            (ClassRules.Default with { NodReasons = [] }, "Reasons for nods"),
        })
        {
            var refused = await room.Teacher.Put($"/api/classes/{room.Class}/rules", new RulesSent(rules));
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
            (await room.Teacher.Post("/api/rules/examples", new RulesSent(rules))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        }

        (await Of(room.Teacher, $"classes/{room.Class}")).Rules.NodReasons.Count.ShouldBe(3);
    }

    [Fact]
    public async Task Reminders_are_ticked_before_and_during_the_lesson()
    {
        var room = await (await app.SignedIn()).Teach();
        (await room.Tap(new ReminderTicked("Start the recording"))).Refused.ShouldBeEmpty();
        var ticked = (await room.Sheet()).Head.BeforeStart.Single(r => r.Text == "Start the recording").Ticked.ShouldNotBeNull();
        await room.Tap(new Struck(ticked));
        (await room.Sheet()).Head.BeforeStart.ShouldAllBe(r => r.Ticked == null);
    }

    [Fact]
    public async Task Words_to_read_aloud_stand_with_their_reminder_and_when_they_were_read_is_in_the_register()
    {
        var room = await (await app.SignedIn()).Teach();
        var (path, notice, words) = ($"classes/{room.Class}", "Read the recording notice", "This lesson is recorded.");
        var rules = (await Of(room.Teacher, path)).Rules;
        await Store(room.Teacher, path, rules with { ReadAloud = new Dictionary<string, string> { [notice] = words, ["a line that is gone"] = "…" } });
        (await room.Sheet()).Head.BeforeStart.Select(r => r.ReadAloud).ShouldBe([null, null, words]);

        await room.Tap(new ReminderTicked(notice, words), new ReminderTicked("Start the recording"));
        // What was read stays as it was read.
        await Store(room.Teacher, path, rules with { ReadAloud = new Dictionary<string, string> { [notice] = "Other words." } });
        await room.Tap(new LessonEnded());
        await room.Tap(new LessonSettled());
        foreach (var (kind, query) in new[] { ("register", ""), ("lesson", $"?lesson={room.Lesson}") })
        {
            var report = await ReportTests.Report(room, kind, query);
            var row = report.Sections.Single(s => s.Heading.StartsWith("Read aloud", StringComparison.Ordinal)).Figures!.Rows.ShouldHaveSingleItem().Cells.Select(c => c.Text).ToList();
            row.ShouldContain(notice);
            row.ShouldContain(words);
        }
    }
}
