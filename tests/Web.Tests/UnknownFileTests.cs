using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using PoliteTally.Core.Course;
using PoliteTally.Core.Merging;
using PoliteTally.Formats.Lines;
using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

/// <summary>A file that nobody knows is shown with its lines, marked by hand, and brought in as it was marked.</summary>
public sealed class UnknownFileTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private const string Scores = "7 ~ Juno Quillfeather ~ swell\n8 ~ Eino Rautio ~ ebb\n";

    private async Task<Classroom> Ended()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new LessonEnded());
        return room;
    }

    private static Task<HttpResponseMessage> Send(Classroom room, string how, string text, params (string, string)[] decided) => room.Teacher.Send($"/api/lessons/{room.Lesson}/files{how}", text, decided);

    private static (string, string) Marks(params MarkedPart[] marks) => ("marks", JsonSerializer.Serialize(
        new { lines = new[] { "7 ~ Juno Quillfeather ~ swell" }, parts = marks.Select(m => new { field = m.Field.ToString().ToLowerInvariant(), m.Line, m.From, m.To }) }, JsonSerializerOptions.Web));

    [Fact]
    public async Task A_file_that_tells_nothing_shows_its_lines_and_is_not_stored()
    {
        var room = await Ended();
        var look = await Visitor.Read<FileLook>(await Send(room, "/look", "Dear colleague,\nthank you for the day.\n"));
        (look.Kind, look.CouldBe.Count, look.Lines[0]).ShouldBe((null, 0, "Dear colleague,"));
        look.Problems.ShouldHaveSingleItem().ShouldContain("not known");
        (await Send(room, "", "Dear colleague,\nthank you for the day.\n")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await room.Settling()).Files.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_marked_in_one_line_is_read_in_all_and_brought_in()
    {
        var room = await Ended();
        var marks = Marks(new(MarkedField.Name, 0, 4, 21), new(MarkedField.Answer, 0, 24, 29));
        var look = await Visitor.Read<FileLook>(await Send(room, "/look", Scores, marks));
        look.Kind.ShouldBe(FileKind.Answers);
        look.First.Select(r => $"{r.Name}: {r.Text}").ShouldBe(["Juno Quillfeather: swell", "Eino Rautio: ebb"]);
        look.Names.Select(n => n.Student).ShouldBe([room.Students["Juno"], room.Students["Eino"]], ignoreOrder: true);

        // Read in another way the same file is another, and the last reading counts.
        var people = ("at", $"{(await room.Settling()).CountedFrom.ToUnixTimeMilliseconds()}");
        var view = await Visitor.Read<SettlingView>(await Send(room, "", Scores, Marks(new MarkedPart(MarkedField.Name, 0, 4, 21)), people));
        view.Files.ShouldHaveSingleItem().Kind.ShouldBe(FileKind.People);
        view.Register.Count(r => r.Status == Core.Attendance.AttendanceStatus.Present).ShouldBe(2);
    }

    private static readonly MarkedPart Name = new(MarkedField.Name, 0, 4, 21);

    private async Task<(Classroom Room, (string, string) At)> MarkedOnce()
    {
        var room = await Ended();
        var at = ("at", $"{(await room.Settling()).CountedFrom.ToUnixTimeMilliseconds()}");
        await Visitor.Read<SettlingView>(await Send(room, "", Scores, Marks(Name), at));
        return (room, at);
    }

    [Fact]
    public async Task What_was_said_of_a_layout_is_known_again_in_the_class_and_can_be_forgotten()
    {
        var (room, at) = await MarkedOnce();
        const string Later = "11 ~ Zainab Usman ~ neap tide, I think\n12 ~ Eino Rautio ~ nothing\n";
        var look = await Visitor.Read<FileLook>(await Send(room, "/look", Later, at));
        (look.Kind, look.Like!.FileName, look.Rows).ShouldBe((FileKind.People, "list.csv", 2));
        look.Like.Said.ShouldNotContain("Juno");
        // Looked at anew, and in another class, nothing is known of it.
        (await Visitor.Read<FileLook>(await Send(room, "/look", Later, at, ("anew", "true")))).ShouldSatisfyAllConditions(l => l.Kind.ShouldBeNull(), l => l.Like.ShouldBeNull());
        var other = await Ended();
        (await Visitor.Read<FileLook>(await Send(other, "/look", Later, at))).Like.ShouldBeNull();

        var known = (await room.Teacher.Get<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts")).ShouldHaveSingleItem();
        (await room.Teacher.Put<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts", new KnownLayoutSent(known.Layout, known.FileName, known.Said, Known: false))).ShouldBeEmpty();
        (await Visitor.Read<FileLook>(await Send(room, "/look", Later, at))).Like.ShouldBeNull();
        // Taken back.
        (await room.Teacher.Put<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts", new KnownLayoutSent(known.Layout, known.FileName, known.Said, Known: true))).ShouldHaveSingleItem().Said.ShouldBe(known.Said);
        (await Visitor.Read<FileLook>(await Send(room, "/look", Later, at))).Kind.ShouldBe(FileKind.People);
    }

    [Fact]
    public async Task More_that_is_said_of_a_known_layout_adds_to_what_was_said()
    {
        var (room, at) = await MarkedOnce();
        await Visitor.Read<SettlingView>(await Send(room, "", "11 ~ Zainab Usman ~ neap\n12 ~ Eino Rautio ~ ebb\n", at, ("zone", "UTC")));
        (await room.Teacher.Get<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts")).ShouldHaveSingleItem().Said.ShouldSatisfyAllConditions(s => s.ShouldContain("marks"), s => s.ShouldContain("UTC"));
        // Said to be of another kind, it is not read by the marks any more.
        (await Visitor.Read<FileLook>(await Send(room, "/look", Scores, at, ("kind", "\"people\"")))).Like.ShouldBeNull();
    }

    [Fact]
    public async Task What_is_read_in_a_picture_says_nothing_of_other_files()
    {
        var room = await Ended();
        var at = ("at", $"{(await room.Settling()).CountedFrom.ToUnixTimeMilliseconds()}");
        await Visitor.Read<SettlingView>(await Send(room, "", "(Juno Quillfeather)\n(Eino Rautio)\n", at, ("picture", "true"), ("kind", "\"people\"")));
        (await room.Teacher.Get<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts")).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_said_of_a_layout_gives_way_where_it_does_not_fit()
    {
        var (room, at) = await MarkedOnce();
        var words = new KnownLayoutSent((await room.Teacher.Get<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts"))[0].Layout, "list.csv", "{\"zone\":\"Atlantic/Nowhere\"}", Known: true);
        await room.Teacher.Put<List<KnownLayoutLine>>($"/api/classes/{room.Class}/layouts", words);
        var look = await Visitor.Read<FileLook>(await Send(room, "/look", Scores, at));
        (look.Kind, look.Like).ShouldBe((null, null));
    }

    [Theory]
    [InlineData("x", "[]")]
    [InlineData("x", "{\"sure\":\"true\"}")]
    [InlineData("x", "{\"kind\":null}")]
    [InlineData("", "{\"kind\":\"1\"}")]
    public async Task A_layout_may_be_sent_as_anything(string layout, string said)
    {
        var room = await (await app.SignedIn()).Teach();
        (await room.Teacher.Http.PutAsJsonAsync($"/api/classes/{room.Class}/layouts", new KnownLayoutSent(layout, "list.csv", said, Known: true))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Theory]
    [InlineData("{}")]
    [InlineData("[null]")]
    [InlineData("{\"lines\":[null],\"parts\":[null]}")]
    [InlineData("{\"lines\":[\"7 ~ J\"],\"parts\":[{\"field\":99,\"line\":0,\"from\":0,\"to\":4}]}")]
    [InlineData("{\"lines\":[\"7 ~ J\"],\"parts\":[{\"field\":\"name\",\"line\":2147483647,\"from\":-5,\"to\":2147483647}]}")]
    public async Task Marks_may_be_anything(string marks) => (await Send(await Ended(), "/look", Scores, ("marks", marks))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
}
