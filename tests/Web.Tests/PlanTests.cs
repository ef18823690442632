using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using PoliteTally.Core.Board;
using PoliteTally.Core.Course;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Plans;

namespace PoliteTally.Web.Tests;

public sealed class PlanTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static PlannedStage Stage(string name, int minutes = 10, string directions = "") => new(Guid.NewGuid(), name, Duration.FromMinutes(minutes), directions);

    private static Task<PlanView> Of(Classroom room) => room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");

    private static Task<HttpResponseMessage> Put(Classroom room, PlanSent sent) => room.Teacher.Put($"/api/lessons/{room.Lesson}/plan", sent);

    private static async Task<PlanStored> Store(Classroom room, PlanView from, Plan plan) =>
        await Visitor.Read<PlanStored>(await Put(room, new PlanSent(from.Version, from.Plan, plan)));

    [Fact]
    public async Task A_plan_is_stored_and_says_what_follows_from_it()
    {
        var room = await (await app.SignedIn()).Teach();
        var stored = await Store(room, await Of(room), new Plan { Stages = [Stage("Arriving", 20, "Read **twice**."), Stage("Readings", 40)] });
        stored.Merged.ShouldBeFalse();
        (stored.View.Version, stored.View.Planned, stored.View.Minutes).ShouldBe((1, 60, 50));
        stored.View.Stages[1].From.ShouldBe(stored.View.Lesson.PlannedStart + Duration.FromMinutes(20));
        stored.View.Stages[0].DirectionsHtml.ShouldBe("<p>Read <strong>twice</strong>.</p>\n");
        stored.View.Ready.Where(n => n.Needed).Select(n => n.Text).ShouldBe(["The link to the meeting is missing.", "The stages take 60 min, 10 more than the lesson has."], ignoreOrder: true);
        JsonSerializer.Serialize((await Of(room)).Plan).ShouldBe(JsonSerializer.Serialize(stored.View.Plan));
    }

    [Fact]
    public async Task Of_two_windows_the_second_is_told_and_neither_loses_anything()
    {
        var room = await (await app.SignedIn()).Teach();
        var (a, b) = (Stage("Arriving"), Stage("Readings"));
        var start = (await Store(room, await Of(room), new Plan { Stages = [a, b] })).View;

        await Store(room, start, new Plan { Stages = [a with { Name = "Coming in" }, b], Points = [new(Guid.NewGuid(), "What you saw")] });
        var second = await Store(room, start, new Plan { Stages = [a, b with { Length = Duration.FromMinutes(25) }, Stage("Looking back")] });
        second.Merged.ShouldBeTrue();
        second.Conflicts.ShouldBeEmpty();
        second.View.Plan.Stages.Select(s => (s.Name, s.Length.TotalMinutes)).ShouldBe([("Coming in", 10), ("Readings", 25), ("Looking back", 10)]);
        second.View.Plan.Points.Count.ShouldBe(1);

        // Both wrote over the same name: the later stands, and what the other wrote is handed back.
        var third = await Store(room, start, new Plan { Stages = [a with { Name = "Hello" }, b] });
        third.View.Plan.Stages[0].Name.ShouldBe("Hello");
        var conflict = third.Conflicts.ShouldHaveSingleItem();
        (conflict.Mine, conflict.Theirs, string.Join(' ', conflict.Path)).ShouldBe(("Hello", "Coming in", "stages 1 name"));
    }

    [Fact]
    public async Task A_plan_with_everything_taken_out_is_nothing_prepared()
    {
        var room = await (await app.SignedIn()).Teach();
        var stored = await Store(room, await Of(room), new Plan { Stages = [Stage("Arriving")] });
        stored.View.Lesson.Prepared.ShouldBeTrue();
        (await Store(room, stored.View, new Plan())).View.Lesson.Prepared.ShouldBeFalse();
    }

    [Fact]
    public async Task Many_windows_at_once_lose_nothing()
    {
        var room = await (await app.SignedIn()).Teach();
        var start = await Of(room);
        var stages = Enumerable.Range(1, 6).Select(i => Stage($"Stage {i}")).ToList();
        await Task.WhenAll(stages.Select(s => Store(room, start, new Plan { Stages = [s] })));
        (await Of(room)).Plan.Stages.Select(s => s.Id).Order().ShouldBe(stages.Select(s => s.Id).Order());
    }

    [Fact]
    public async Task A_plan_that_cannot_be_stored_leaves_the_one_there_was()
    {
        var room = await (await app.SignedIn()).Teach();
        var good = (await Store(room, await Of(room), new Plan { Stages = [Stage("Arriving")] })).View;
        foreach (var (plan, said) in new[]
        {
            (new Plan { Stages = [Stage("Arriving", 10, "<script>alert(1)</script>")] }, "Stage 1, directions: Line 1 has a tag"),
            (new Plan { Stages = [Stage("Arriving", 900)] }, "Stage 1: from 0 to 600 min"),
            (new Plan { Questions = [new() { Id = Guid.NewGuid(), Kind = QuestionKind.Scale, ScaleTo = 90 }] }, "Question 1: A scale has"),
        })
        {
            var refused = await Put(room, new PlanSent(good.Version, good.Plan, plan));
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
        }

        (await Of(room)).Version.ShouldBe(good.Version);
        await room.Tap(new LessonEnded());
        await room.Tap(new LessonSettled());
        (await Put(room, new PlanSent(good.Version, good.Plan, Plan.Empty))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_plan_is_copied_to_another_class_without_its_students()
    {
        var room = await (await app.SignedIn()).Teach();
        await Store(room, await Of(room), new Plan
        {
            Stages = [Stage("Arriving")],
            Apart = [new(Guid.NewGuid(), [room.Students["Juno"], room.Students["Eino"]])],
            Questions = [new() { Id = Guid.NewGuid(), Kind = QuestionKind.ShortText, Text = "Why?" }],
        });
        var other = await room.Teacher.Post<ClassLine>("/api/classes", new NewClass("Island Botany"));
        var lesson = await room.Teacher.Post<LessonLine>($"/api/classes/{other.Id}/lessons", new LessonNow("Salt and leaves", 60));
        var copied = await room.Teacher.Post<PlanStored>($"/api/lessons/{lesson.Id}/plan/copy", new CopyFrom(room.Lesson));
        copied.View.Plan.Stages.ShouldHaveSingleItem().Name.ShouldBe("Arriving");
        copied.View.Plan.Apart.ShouldBeEmpty();
        copied.View.Plan.Questions[0].Id.ShouldNotBe((await Of(room)).Plan.Questions[0].Id);
        (await room.Teacher.Post($"/api/lessons/{lesson.Id}/plan/copy", new CopyFrom(Guid.NewGuid()))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_plan_goes_out_as_a_file_and_comes_in_with_its_pictures()
    {
        var room = await (await app.SignedIn()).Teach();
        var picture = await Visitor.Read<PictureKept>(await room.Teacher.Send("/api/pictures", Pictures.Png(40, 20, 90)));
        var plan = new Plan
        {
            Stages = [Stage("Arriving", 10, "- pier")],
            Apart = [new(Guid.NewGuid(), [room.Students["Juno"], room.Students["Eino"]])],
            Questions = [new() { Id = Guid.NewGuid(), Kind = QuestionKind.PictureChoice, Text = "Which cloud?", Options = [new(Guid.NewGuid(), "A", true, picture.Id, "heaps"), new(Guid.NewGuid(), "B")] }],
        };
        await Store(room, await Of(room), plan);
        var file = await room.Teacher.Http.GetByteArrayAsync($"/api/lessons/{room.Lesson}/plan.json");
        System.Text.Encoding.UTF8.GetString(file).ShouldNotContain(room.Students["Juno"].ToString());

        var stranger = await (await app.SignedIn("odhran")).Teach();
        var taken = await Visitor.Read<PlanStored>(await stranger.Teacher.Send($"/api/lessons/{stranger.Lesson}/plan/file", file));
        var option = taken.View.Plan.Questions[0].Options[0];
        (option.Text, option.Right, option.AlternativeText).ShouldBe(("A", true, "heaps"));
        option.Picture.ShouldNotBeNull().ShouldNotBe(picture.Id);
        var shown = await stranger.Teacher.Http.GetAsync($"/api/pictures/{option.Picture}");
        shown.Content.Headers.ContentType?.MediaType.ShouldBe("image/webp");
        (await stranger.Teacher.Http.GetAsync($"/api/pictures/{picture.Id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        // Cut off, of another format, of a later version, with a picture that is none: nothing is stored.
        var document = JsonNode.Parse(file)!.AsObject();
        foreach (var (broken, said) in new (string, string)[]
        {
            (document.ToJsonString()[..^40], "not a plan file"),
            (Changed(d => d["format"] = "something-else"), "its format is another"),
            (Changed(d => d["version"] = 2), "version 2"),
            (Changed(d => d["pictures"]![0]!["data"] = "AAAA"), "not a picture"),
            (Changed(d => d["plan"]!["stages"]![0]!["minutes"] = "ten"), "plan.stages[0].minutes"),
        })
        {
            var refused = await stranger.Teacher.Send($"/api/lessons/{stranger.Lesson}/plan/file", broken);
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, said);
            (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
        }

        (await Of(stranger)).Version.ShouldBe(taken.View.Version);

        string Changed(Action<JsonObject> change)
        {
            var copy = document.DeepClone().AsObject();
            change(copy);
            return copy.ToJsonString();
        }
    }

    [Fact]
    public void The_schema_of_plan_files_in_the_docs_is_that_of_the_code()
    {
        File.ReadAllText(Path.Combine(FloorTests.Root(), "docs", "plan.schema.json")).TrimEnd().ShouldBe(PlanDocument.Schema());
    }

    [Fact]
    public async Task A_picture_is_kept_once_and_nothing_else_is_taken_for_one()
    {
        var teacher = await app.SignedIn();
        var first = await Visitor.Read<PictureKept>(await teacher.Send("/api/pictures", Pictures.Png(3000, 1500)));
        (first.Width, first.Height).ShouldBe((1280, 640));
        (await Visitor.Read<PictureKept>(await teacher.Send("/api/pictures", Pictures.Png(3000, 1500)))).Id.ShouldBe(first.Id);
        var refused = await teacher.Send("/api/pictures", "<svg onload='alert(1)'/>");
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("not a picture");
    }

    [Fact]
    public async Task Questions_are_kept_on_the_shelf_changed_and_taken_off()
    {
        var teacher = await app.SignedIn("odhran");
        var question = new Question { Id = Guid.NewGuid(), Kind = QuestionKind.WordList, Text = "Words for the sea" };
        var kept = await teacher.Post<ShelfLine>("/api/shelf", new ShelfSent(question));
        (await teacher.Put<ShelfLine>($"/api/shelf/{kept.Id}", new ShelfSent(question with { WordsEach = 5 }))).Question.WordsEach.ShouldBe(5);
        (await teacher.Put($"/api/shelf/{kept.Id}", new ShelfSent(question with { WordsEach = 50 }))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await (await app.SignedIn()).Get<List<ShelfLine>>("/api/shelf")).ShouldNotContain(s => s.Id == kept.Id);
        (await teacher.Http.DeleteAsync($"/api/shelf/{kept.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await teacher.Get<List<ShelfLine>>("/api/shelf")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("**bold**", "<strong>bold</strong>", null)]
    [InlineData("<b>bold</b>", null, "Line 1 has a tag")]
    public async Task Markdown_is_looked_at_before_it_is_stored(string text, string? html, string? problem)
    {
        var look = await (await app.SignedIn()).Post<MarkdownLook>("/api/markdown", new MarkdownSent(text));
        look.Html.ShouldContain(html ?? "");
        string.Join(' ', look.Problems).ShouldContain(problem ?? "");
    }

    [Theory]
    [InlineData('[')]
    [InlineData('>')]
    [InlineData('*')]
    public async Task Directions_nested_too_deeply_are_refused_before_anything_is_stored(char nested)
    {
        var room = await (await app.SignedIn()).Teach();
        var before = (await Store(room, await Of(room), new Plan { Stages = [Stage("Arriving", directions: "Read **twice**.")] })).View;
        var answer = await Put(room, new PlanSent(before.Version, before.Plan, before.Plan with { Stages = [Stage("Arriving", directions: new string(nested, 128))] }));
        ((int)answer.StatusCode).ShouldBeOneOf(200, 422);
        var after = await Of(room);
        (await room.Tap(new BoardPut(BoardItem.Directions), new StageMoved(after.Plan.Stages[0].Id))).Refused.ShouldBeEmpty();
        (await room.Teacher.Http.GetAsync($"/api/lessons/{room.Lesson}/board")).StatusCode.ShouldBe(HttpStatusCode.OK);
        after.Plan.Stages[0].Directions.ShouldBe(answer.IsSuccessStatusCode ? new string(nested, 128) : "Read **twice**.");
    }
}
