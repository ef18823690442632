using System.Net;
using PoliteTally.Web.Features.Classes;

namespace PoliteTally.Web.Tests;

public sealed class RosterTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private const string Three = "Number,Given name,Family name\nS1,Juno,Quillfeather\nS2,Eino,Rautio\nS3,Zainab,Usman\n";

    private static async Task<Guid> MakeClass(Visitor teacher, string name) =>
        (await teacher.Post<ClassLine>("/api/classes", new NewClass(name))).Id;

    private static Task<HttpResponseMessage> BringIn(Visitor teacher, Guid id, string roster, params (string, string)[] decided) =>
        teacher.Send($"/api/classes/{id}/roster", roster, decided);

    [Fact]
    public async Task Bringing_a_roster_in_again_changes_what_changed_and_nothing_else()
    {
        var teacher = await app.SignedIn();
        var id = await MakeClass(teacher, "Sea breezes");
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, Three))).ShouldBe(new RosterBroughtIn(3, 0, 0));
        var before = await teacher.Get<ClassPage>($"/api/classes/{id}");
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, Three))).ShouldBe(new RosterBroughtIn(0, 0, 3));

        const string later = "Number,Given name,Family name,Preferred name\nS1,Juno,Quillfeather,\nS2,Eino,Rautio,Ink\nS4,Saga,Eriksdotter,\n";
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, later))).ShouldBe(new RosterBroughtIn(1, 1, 1));
        var after = await teacher.Get<ClassPage>($"/api/classes/{id}");
        after.Students.Select(s => s.Called).Order().ShouldBe(["Ink", "Juno", "Saga", "Zainab"]);
        // Whoever was there keeps their id and their key.
        foreach (var student in before.Students)
        {
            var now = after.Students.Single(s => s.Id == student.Id);
            now.Key.ShouldBe(student.Key);
        }
    }

    [Fact]
    public async Task A_row_that_is_wrong_stores_nothing_unless_it_is_left_out()
    {
        var teacher = await app.SignedIn();
        var id = await MakeClass(teacher, "Cloud families");
        var refused = await BringIn(teacher, id, Three + "S3,Dewi,Suharto\n");

        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("Row 5");
        (await teacher.Get<ClassPage>($"/api/classes/{id}")).Students.ShouldBeEmpty();
        await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, Three + "S3,Dewi,Suharto\n", ("leaveOut", "true")));
        (await teacher.Get<ClassPage>($"/api/classes/{id}")).Students.Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_student_of_two_classes_is_one_student()
    {
        var teacher = await app.SignedIn();
        var (tides, sky) = (await MakeClass(teacher, "Tides"), await MakeClass(teacher, "Night sky"));
        await BringIn(teacher, tides, "Number,Given name,Family name\nS77,Kensa,Tremayne\n");
        await BringIn(teacher, sky, "Number,Given name,Family name\nS77,Kensa,Tremayne\n");

        var first = (await teacher.Get<ClassPage>($"/api/classes/{tides}")).Students.ShouldHaveSingleItem();
        (await teacher.Get<ClassPage>($"/api/classes/{sky}")).Students.ShouldHaveSingleItem().Id.ShouldBe(first.Id);
    }

    [Fact]
    public async Task Somebody_who_joins_the_class_during_a_lesson_is_on_its_sheet()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Sheet();
        await Visitor.Read<RosterBroughtIn>(await BringIn(room.Teacher, room.Class, "Number,Given name,Family name\nS9,Pip,Farrow\n"));

        var pip = (await room.Sheet()).Rows.Single(r => r.Called == "Pip");
        (await room.Tap(new Core.Ledger.HandRaised(pip.Id))).Refused.ShouldBeEmpty();
        (await room.Sheet()).Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(pip.Id);
    }
}
