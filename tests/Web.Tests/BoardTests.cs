using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Plans;

namespace PoliteTally.Web.Tests;

/// <summary>The class board carries what was put up, and nothing else that the lesson knows.</summary>
public sealed class BoardTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly Dictionary<BoardItem, string> Parts = Enum.GetValues<BoardItem>().ToDictionary(
        i => i, i => i switch
        {
            BoardItem.Question => "questions",
            BoardItem.Timer => "timers",
            _ => JsonNamingPolicy.CamelCase.ConvertName(i.ToString()),
        });

    /// <summary>A lesson full of things that a class must not see, and of everything that could be put up.</summary>
    private async Task<Classroom> Full()
    {
        var room = await (await app.SignedIn()).Teach();
        var (juno, eino, zainab) = (room.Students["Juno"], room.Students["Eino"], room.Students["Zainab"]);
        var plan = await room.Teacher.Get<PlanView>($"/api/lessons/{room.Lesson}/plan");
        await room.Teacher.Put<PlanStored>($"/api/lessons/{room.Lesson}/plan", new PlanSent(plan.Version, plan.Plan, new Plan
        {
            Stages = [new(Guid.NewGuid(), "stage one", Duration.FromMinutes(10), "Draw the wind as an **arrow**.")],
            Points = [new(Guid.NewGuid(), "SECRET point")],
            Statements = [new(Guid.NewGuid(), "SECRET statement")],
        }));
        var rules = await room.Teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(rules.Rules with { Rubric = "You say what you *saw*." }));
        await room.Tap(
            new AsideNoted(juno, "SECRET aside"), new NodGiven(juno, "SECRET nod"), new ExcuseRecorded(zainab, "SECRET excuse"),
            new ContactTried(zainab, ContactChannel.Phone, ContactOutcome.Reached, "SECRET call"), new ChatSaid(eino, Core.Chat.ChatKind.Question, "SECRET message"),
            new Marked(juno, Mark.Here), new Marked(eino, Mark.Here), new HandRaised(eino), new Called(juno, TurnOrigin.Drawn, "SECRET why"),
            new TimerStarted(Duration.FromSeconds(180), "the task"), new GroupsMade([new StudentGroup(Guid.NewGuid(), "Gulls", [juno, eino])]));
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

    private static Task<Guid> Asked(Classroom room) => StudentPageTests.Open(room, new Question
    {
        Id = Guid.NewGuid(),
        Kind = QuestionKind.ShortText,
        Purpose = QuestionPurpose.Quiz,
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

    // Three students answer a question of each kind; what the board shows of it, by a path into its results.
    public static TheoryData<QuestionKind, Answer[], string, string> Results => new()
    {
        { QuestionKind.SingleChoice, [Chose(0), Chose(0), Chose(1)], "counts", "[2,1,0]" },
        { QuestionKind.MultipleChoice, [Chose(0, 1), Chose(1), Chose(2)], "counts", "[1,2,1]" },
        { QuestionKind.Scale, [Number(1), Number(5), Number(5)], "counts", "[1,0,0,0,2]" },
        { QuestionKind.Number, [Number(8), Number(8), Number(11.5m)], "counts", "[2,1]" },
        { QuestionKind.Ranking, [Chose(0, 1, 2), Chose(0, 1, 2), Chose(1, 0, 2)], "ranking", "[1.33,1.67,3]" },
        { QuestionKind.WordList, [Said("fog", "haar"), Said("Fog!"), Said("FOG", "mist")], "words", "fog 3, haar 1, mist 1" },
        { QuestionKind.ShortText, [Text("It backs."), Text("it backs"), Text("no idea")], "texts", "it backs 2, no idea 1" },
    };

    private static readonly Guid[] Options = [Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid()];

    private static Answer Chose(params int[] options) => new() { Options = [.. options.Select(o => Options[o])] };

    private static Answer Number(decimal number) => new() { Number = number };

    private static Answer Said(params string[] words) => new() { Words = [.. words] };

    private static Answer Text(string text) => new() { Text = text };

    [Theory]
    [MemberData(nameof(Results))]
    public async Task Results_of_each_kind_come_as_counts_without_who_said_what(QuestionKind kind, Answer[] answers, string part, string shown)
    {
        var room = await (await app.SignedIn()).Teach();
        var asking = await StudentPageTests.Open(room, new Question
        {
            Id = Guid.NewGuid(),
            Kind = kind,
            Purpose = QuestionPurpose.Poll,
            Text = "What comes in from the sea?",
            ScaleFrom = 1,
            ScaleTo = 5,
            WordsEach = 3,
            Options = kind is QuestionKind.Scale or QuestionKind.Number or QuestionKind.WordList or QuestionKind.ShortText ? [] : [.. Options.Select((o, i) => new QuestionOption(o, $"option {i}"))],
        });
        var given = await room.Tap(room.Students.Values.Zip(answers).Select(a => (Act)new AnswerGiven(a.First, asking, a.Second)));
        given.Refused.ShouldBeEmpty();
        await room.Tap(new QuestionClosed(asking), new ResultsPut(asking, WithRight: false, HoldBackFew: false, []));

        var board = await Board(room);
        var results = board["results"]!;
        results["answered"]!.GetValue<int>().ShouldBe(3);
        results["named"]!.AsArray().ShouldBeEmpty();
        room.Students.ShouldAllBe(s => !board.ToJsonString().Contains(s.Key) && !board.ToJsonString().Contains(s.Value.ToString()));
        (part switch
        {
            "counts" => $"[{string.Join(',', results[part]!.AsArray().Select(c => c!["count"]!.GetValue<int>()))}]",
            "ranking" => $"[{string.Join(',', results[part]!.AsArray().Select(r => Core.Text.Words.Plain(r!["meanPlace"]!.GetValue<decimal>())))}]",
            _ => string.Join(", ", results[part]!.AsArray().Select(w => $"{(w!["word"] ?? w["text"])!.GetValue<string>()} {w["count"]}")),
        }).ShouldBe(shown);
    }
}
