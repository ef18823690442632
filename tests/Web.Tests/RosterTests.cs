using System.IO.Compression;
using System.Net;
using System.Text.Json;
using PoliteTally.Core.Names;
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
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, Three))).ShouldBe(new RosterBroughtIn(3, 0, 0, 0));
        var before = await teacher.Get<ClassView>($"/api/classes/{id}");
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, Three))).ShouldBe(new RosterBroughtIn(0, 0, 0, 3));

        const string later = "Number,Given name,Family name,Preferred name\nS1,Juno,Quillfeather,\nS2,Eino,Rautio,Ink\nS4,Saga,Eriksdotter,\n";
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, later))).ShouldBe(new RosterBroughtIn(1, 1, 0, 1));
        var after = await teacher.Get<ClassView>($"/api/classes/{id}");
        after.Students.Select(s => s.Called).Order().ShouldBe(["Ink", "Juno", "Saga", "Zainab"]);
        // Whoever was there keeps their id and their key.
        foreach (var student in before.Students)
        {
            var now = after.Students.Single(s => s.Id == student.Id);
            now.Key.ShouldBe(student.Key);
        }
    }

    [Fact]
    public async Task What_is_ticked_is_done_and_nothing_else()
    {
        var teacher = await app.SignedIn();
        var id = await MakeClass(teacher, "Spring tides");
        await BringIn(teacher, id, Three.Replace(",S", ",T").Replace("\nS", "\nT"));
        const string later = "Number,Given name,Family name\nT1,Junia,Quillfeather\nT4,Saga,Eriksdotter\nT5,Pip,Farrow\n";
        var look = await Visitor.Read<RosterLook>(await teacher.Send($"/api/classes/{id}/roster/preview", later));
        look.Steps.Select(s => s.Step.ToString()).ShouldBe(["Changes", "Joins", "Joins", "Leaves", "Leaves"]);
        (await teacher.Get<ClassView>($"/api/classes/{id}")).Students.Count.ShouldBe(3);

        var einoId = (await teacher.Get<ClassView>($"/api/classes/{id}")).Students.Single(s => s.Called == "Eino").Id;
        var eino = look.Steps.Single(s => s.Step == RosterStep.Leaves && s.Student == einoId);
        var ticked = JsonSerializer.Serialize(new[] { "3", eino.Key });
        (await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, later, ("ticked", ticked)))).ShouldBe(new RosterBroughtIn(1, 0, 1, 0));
        var page = await teacher.Get<ClassView>($"/api/classes/{id}");
        page.Students.Select(s => s.Called).Order().ShouldBe(["Juno", "Saga", "Zainab"]);
        page.Left.ShouldHaveSingleItem().Called.ShouldBe("Eino");
    }

    [Fact]
    public async Task A_bundle_of_several_classes_waits_for_a_choice()
    {
        var teacher = await app.SignedIn();
        var id = await MakeClass(teacher, "Tides of the bundle");
        var bundle = Zip(
            ("users.csv", "sourcedId,givenName,familyName,identifier\nu1,Juno,Quillfeather,B1\n"),
            ("classes.csv", "sourcedId,title\nc1,Tides\nc2,Botany\n"), ("enrollments.csv", "classSourcedId,userSourcedId,role\nc1,u1,student\n"));
        (await Visitor.Read<RosterLook>(await teacher.Send($"/api/classes/{id}/roster/preview", bundle))).Steps.ShouldBeEmpty();
        var refused = await teacher.Send($"/api/classes/{id}/roster", bundle);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("Choose which class");
        (await Visitor.Read<RosterBroughtIn>(await teacher.Send($"/api/classes/{id}/roster", bundle, ("bundleClass", "c1")))).Joined.ShouldBe(1);
    }

    private static byte[] Zip(params (string Name, string Text)[] parts)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in parts)
            {
                using var part = zip.CreateEntry(name).Open();
                part.Write(System.Text.Encoding.UTF8.GetBytes(text));
            }
        }

        return bytes.ToArray();
    }

    [Fact]
    public async Task A_row_that_is_wrong_stores_nothing_unless_it_is_left_out()
    {
        var teacher = await app.SignedIn();
        var id = await MakeClass(teacher, "Cloud families");
        var refused = await BringIn(teacher, id, Three + "S3,Dewi,Suharto\n");

        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("Row 5");
        (await teacher.Get<ClassView>($"/api/classes/{id}")).Students.ShouldBeEmpty();
        await Visitor.Read<RosterBroughtIn>(await BringIn(teacher, id, Three + "S3,Dewi,Suharto\n", ("leaveOut", "true")));
        (await teacher.Get<ClassView>($"/api/classes/{id}")).Students.Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_student_of_two_classes_is_one_student()
    {
        var teacher = await app.SignedIn();
        var (tides, sky) = (await MakeClass(teacher, "Tides"), await MakeClass(teacher, "Night sky"));
        await BringIn(teacher, tides, "Number,Given name,Family name\nS77,Kensa,Tremayne\n");
        await BringIn(teacher, sky, "Number,Given name,Family name\nS77,Kensa,Tremayne\n");

        var first = (await teacher.Get<ClassView>($"/api/classes/{tides}")).Students.ShouldHaveSingleItem();
        (await teacher.Get<ClassView>($"/api/classes/{sky}")).Students.ShouldHaveSingleItem().Id.ShouldBe(first.Id);
    }

    [Fact]
    public async Task Somebody_who_joins_the_class_during_a_lesson_is_on_its_sheet()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Sheet();
        await Visitor.Read<RosterBroughtIn>(await BringIn(room.Teacher, room.Class, "Number,Given name,Family name\nS9,Pip,Farrow\n"));

        var pip = (await room.Sheet()).Rows.Single(r => r.Called == "Pip");
        (await room.Tap(new Core.Hands.HandRaised(pip.Id))).Refused.ShouldBeEmpty();
        (await room.Sheet()).Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(pip.Id);
    }
}
