using System.Text.Json;
using System.Text.Json.Nodes;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Plans;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Plans;

namespace PoliteTally.Web.Tests;

/// <summary>The class board carries what was put up, and nothing else that the lesson knows.</summary>
public sealed class BoardTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly Dictionary<BoardItem, string> Parts = Enum.GetValues<BoardItem>().ToDictionary(
        i => i, i => i == BoardItem.Question ? "questions" : JsonNamingPolicy.CamelCase.ConvertName(i.ToString()));

    /// <summary>A lesson full of things that a class must not see, and of everything that could be put up.</summary>
    private async Task<Classroom> Full()
    {
        var room = await (await app.SignedIn()).Teach();
        var (juno, eino, zainab) = (room.Students["Juno"], room.Students["Eino"], room.Students["Zainab"]);
        var plan = await room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");
        await room.Teacher.Put<PlanStored>($"/api/lessons/{room.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan
        {
            Stages = [new(Guid.NewGuid(), "stage one", 10, "Draw the wind as an **arrow**.")],
            Points = [new(Guid.NewGuid(), "SECRET point")],
            Statements = [new(Guid.NewGuid(), "SECRET statement")],
        }));
        var rules = await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(rules.Rules with { Rubric = "You say what you *saw*." }));
        await room.Tap(
            new AsideNoted(juno, "SECRET aside"), new NodGiven(juno, "SECRET nod"), new ExcuseRecorded(zainab, "SECRET excuse"),
            new ContactTried(zainab, ContactChannel.Phone, ContactOutcome.Reached, "SECRET call"), new ChatSaid(eino, Core.Chat.ChatKind.Question, "SECRET message"),
            new Marked(juno, Mark.Here), new Marked(eino, Mark.Here), new HandRaised(eino), new Called(juno, TurnOrigin.Drawn, "SECRET why"),
            new TimerStarted(180, "the task"), new GroupsMade([new StudentGroup(Guid.NewGuid(), "Gulls", [juno, eino])]));
        using var pupil = await Pupil.In(room, (await Pupil.Passes(room))["Juno"]);
        var shown = (await pupil.Do(Features.StudentPage.PageDoing.Write, text: "it backs", kind: Core.Chat.ChatKind.Answer)).Wrote[0].Message;
        await pupil.Do(Features.StudentPage.PageDoing.Write, text: "SECRET between two", kind: Core.Chat.ChatKind.Question);
        await room.Tap(new MessageShown(shown));
        return room;
    }

    /// <summary>What puts an item up.</summary>
    private static async Task<Act> Put(BoardItem item, Classroom room) => item switch
    {
        BoardItem.Results or BoardItem.Question => await Asked(room) is var asking && item == BoardItem.Results
            ? new ResultsPut(asking, WithRight: false, HoldBackFew: false, [])
            : new BoardPut(item),
        _ => new BoardPut(item, item == BoardItem.Statement ? "Fog is a cloud." : null),
    };

    private static Task<Guid> Asked(Classroom room) => StudentPageTests.Open(room, new Core.Questions.Question
    {
        Id = Guid.NewGuid(),
        Kind = Core.Questions.QuestionKind.ShortText,
        Purpose = Core.Questions.QuestionPurpose.Quiz,
        Text = "Sea fog on this coast?",
        AcceptedAnswers = ["SECRET key"],
    });

    private static async Task<JsonObject> Board(Classroom room) =>
        (JsonObject)JsonNode.Parse(await room.Teacher.Http.GetStringAsync($"/api/lessons/{room.Lesson}/board"))!;

    private static IEnumerable<string> Shown(JsonObject board) => board.Where(p => p.Key != "now" && p.Value is not null).Select(p => p.Key);

    [Fact]
    public async Task With_nothing_up_it_carries_nothing() => Shown(await Board(await Full())).ShouldBeEmpty();

    [Fact]
    public async Task Each_part_comes_alone_and_goes_again()
    {
        var room = await Full();
        foreach (var (item, part) in Parts)
        {
            await room.Tap(await Put(item, room));
            var board = await Board(room);
            Shown(board).ShouldBe([part]);
            board.ToJsonString().ShouldNotContain("SECRET");
            // No ids: nothing on the board leads back to a student's record.
            room.Students.Values.ShouldAllBe(id => !board.ToJsonString().Contains(id.ToString()));
            await room.Tap(new BoardTaken(item));
            Shown(await Board(room)).ShouldBeEmpty();
        }
    }

    [Fact]
    public async Task With_everything_up_it_carries_these_parts_and_no_others()
    {
        var room = await Full();
        foreach (var item in Parts.Keys)
        {
            await room.Tap(await Put(item, room));
        }

        var board = await Board(room);
        Shown(board).Order().ShouldBe(Parts.Values.Order());
        var text = board.ToJsonString();
        text.ShouldNotContain("SECRET");
        text.ShouldNotContain("Quillfeather"); // the class sees short names
        board["turn"]!.GetValue<string>().ShouldBe("Juno");
        board["handLine"]!.ToJsonString().ShouldBe("[\"Eino\"]");
        board["directions"]!.GetValue<string>().ShouldContain("<strong>arrow</strong>");
        board["statement"]!["text"]!.GetValue<string>().ShouldBe("Fog is a cloud.");
    }

    [Fact]
    public async Task It_is_cleared_by_the_end_of_the_lesson()
    {
        var room = await Full();
        await room.Tap(new BoardPut(BoardItem.Rubric), new LessonEnded());
        Shown(await Board(room)).ShouldBeEmpty();
    }
}
