using System.Net;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Store;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

// An application a test: a student is one record in all classes of a teacher, so tests that change one would meet.
public sealed class StudentTests : IAsyncLifetime
{
    private readonly AppUnderTest app = new();

    public ValueTask InitializeAsync() => app.InitializeAsync();

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private static StudentRecord RecordOf(StudentLine s, bool inClass = true) => new(s.Number, s.Family, s.Given, s.Preferred, s.Email, s.SecondEmail, s.Phone, s.Tags, inClass);

    private static Task<ClassView> Page(Classroom room) => room.Teacher.Get<ClassView>($"/api/classes/{room.Class}");

    private static async Task<StudentLine> Line(Classroom room, string called) => (await Page(room)).Students.Single(s => s.Called == called);

    private static Task<HttpResponseMessage> Change(Classroom room, Guid student, StudentRecord record) =>
        room.Teacher.Put($"/api/classes/{room.Class}/students/{student}", record);

    private async Task<Classroom> Settled()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new Marked(room.Students["Juno"], Mark.Here), new Marked(room.Students["Eino"], Mark.Here), new NodGiven(room.Students["Eino"], "on time"));
        await room.Tap(new LessonEnded());
        await room.Tap(new LessonSettled());
        return room;
    }

    private static async Task<string> Statuses(Classroom room)
    {
        var sheet = await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores");
        return string.Join(' ', sheet.Students.Select(s => $"{s.Called}:{s.Cells[0]?.Status.ToString() ?? "-"}"));
    }

    [Fact]
    public async Task A_record_is_changed_everywhere_it_is_shown()
    {
        var room = await (await app.SignedIn()).Teach();
        var eino = await Line(room, "Eino");
        (await Change(room, eino.Id, RecordOf(eino) with { Preferred = "Ink", Tags = "Nort, extra time" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Line(room, "Ink")).Tags.ShouldBe("Nort;extra time");
        (await room.Sheet()).Rows.ShouldContain(r => r.Called == "Ink");
    }

    [Theory]
    [InlineData("", " ", null, "needs a name")]
    [InlineData("Eino", "Rau\ntio", null, "No field may")]
    [InlineData("Eino", "Rautio", "eino at home", "no e-mail address")]
    public async Task A_record_that_is_wrong_is_not_stored(string given, string family, string? email, string said)
    {
        var room = await (await app.SignedIn()).Teach();
        var eino = await Line(room, "Eino");
        var refused = await Change(room, eino.Id, RecordOf(eino) with { Given = given, Family = family, Email = email });
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
        (await Line(room, "Eino")).ShouldBeEquivalentTo(eino);
    }

    [Fact]
    public async Task A_number_belongs_to_one_student()
    {
        var room = await (await app.SignedIn()).Teach();
        var eino = await Line(room, "Eino");
        (await (await Change(room, eino.Id, RecordOf(eino) with { Number = "S1" })).Content.ReadAsStringAsync()).ShouldContain("has the number S1 already");
    }

    [Theory]
    [InlineData("at home", null, "no e-mail address")]
    [InlineData(null, "ask at the desk", "no telephone number")]
    [InlineData("home@skerrysound.example", "+44 1632 960 117", "")]
    public async Task A_second_address_and_a_telephone_number_are_looked_at(string? second, string? phone, string said)
    {
        var room = await (await app.SignedIn()).Teach();
        var eino = await Line(room, "Eino");
        (await (await Change(room, eino.Id, RecordOf(eino) with { SecondEmail = second, Phone = phone })).Content.ReadAsStringAsync()).ShouldContain(said);
        var stored = await Line(room, "Eino");
        (stored.SecondEmail, stored.Phone).ShouldBe(said.Length == 0 ? (second, phone) : (null, null));
    }

    [Fact]
    public async Task A_leaver_keeps_their_past_and_a_joiner_is_not_absent_from_it()
    {
        var room = await Settled();
        (await Statuses(room)).ShouldBe("Juno:Present Eino:Present Zainab:Absent");
        await Change(room, room.Students["Juno"], RecordOf(await Line(room, "Juno"), inClass: false));
        await room.Teacher.Post<StudentLine>($"/api/classes/{room.Class}/students", new StudentRecord("S8", "Farrow", "Philippa", "Pip", null, null, null, "", true));
        // Reckoned anew, from the ledger and the roster, it is the same.
        var rules = await room.Teacher.Get<Features.GroundRules.RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<Features.GroundRules.RulesStored>($"/api/classes/{room.Class}/rules", new Features.GroundRules.RulesSent(rules.Rules with { Scheme = rules.Rules.Scheme with { ChatCounts = false } }));
        (await Statuses(room)).ShouldBe("Pip:- Eino:Present Zainab:Absent Juno:Present");
        Summaries.Check(app.File).ShouldBeEmpty();
        (await Page(room)).Left.ShouldHaveSingleItem().LeftAt.ShouldNotBeNull();
        // And in the next lesson only those who are in the class are on the sheet.
        var next = await room.Teacher.Post<Features.Lessons.LessonLine>($"/api/classes/{room.Class}/lessons", new Features.Lessons.LessonNow("Fog", 50));
        var sheet = await room.Teacher.Get<Features.Live.LiveView>($"/api/lessons/{next.Id}/live");
        sheet.Rows.Select(r => r.Called).ShouldBe(["Pip", "Eino", "Zainab"]);
    }

    [Fact]
    public async Task Two_records_of_one_student_are_merged_and_parted_again()
    {
        var room = await Settled();
        var before = await Statuses(room);
        var path = $"/api/classes/{room.Class}/students/{room.Students["Eino"]}/merge";
        (await room.Teacher.Post<Renewed>(path, new MergeInto(room.Students["Zainab"]))).ShouldBe(new Renewed(1, 1));
        // What Eino's record did counts for Zainab's now.
        (await Statuses(room)).ShouldBe("Juno:Present Zainab:Present");
        (await Line(room, "Zainab")).Merged.ShouldHaveSingleItem().Name.ShouldBe("Eino Rautio");
        Summaries.Check(app.File).ShouldBeEmpty();
        var why = await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students["Zainab"]}");
        why.Entries.ShouldContain(e => e.Text == "nod, on time");

        (await room.Teacher.Post($"/api/classes/{room.Class}/students/{room.Students["Zainab"]}/merge", new MergeInto(room.Students["Zainab"]))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await Visitor.Read<Renewed>(await room.Teacher.Http.DeleteAsync(path));
        (await Statuses(room)).ShouldBe(before);
        Summaries.Check(app.File).ShouldBeEmpty();
    }

    [Fact]
    public async Task An_entry_of_a_window_that_knew_the_old_record_counts_for_the_new_one()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Teacher.Post<Renewed>($"/api/classes/{room.Class}/students/{room.Students["Eino"]}/merge", new MergeInto(room.Students["Juno"]));
        (await room.Tap(new NodGiven(room.Students["Eino"], "on time"))).Refused.ShouldBeEmpty();
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Nods.Count.ShouldBe(1);
    }

    [Fact]
    public async Task Passes_are_short_and_only_their_fingerprint_is_kept()
    {
        var room = await (await app.SignedIn()).Teach();
        var slips = await room.Teacher.Post<List<PassSlip>>($"/api/classes/{room.Class}/passes", new PassesWanted([.. room.Students.Values]));
        slips.Count.ShouldBe(3);
        slips.ShouldAllBe(s => s.Pass.Length == 14 && s.Pass.Split('-').Length == 3);
        slips.Select(s => s.Pass).Distinct().Count().ShouldBe(3);
        await using var db = app.File.Open(Guid.Empty);
        var stored = await db.Students.IgnoreQueryFilters().Where(s => s.Id == room.Students["Juno"]).SingleAsync();
        var juno = slips.Single(s => s.Called == "Juno").Pass;
        stored.PassHash.ShouldBe(app.Part<Passes>().FingerprintOf(juno.ToUpperInvariant().Replace('-', ' ')));
        foreach (var file in Directory.GetFiles(app.Folder, "polite-tally.db*"))
        {
            await using var open = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            using var reader = new StreamReader(open, System.Text.Encoding.Latin1);
            (await reader.ReadToEndAsync()).ShouldNotContain(juno);
        }

        var again = await room.Teacher.Post<List<PassSlip>>($"/api/classes/{room.Class}/passes", new PassesWanted([room.Students["Juno"]]));
        again.ShouldHaveSingleItem().Pass.ShouldNotBe(juno);
        (await Line(room, "Juno")).PassMadeAt.ShouldNotBeNull();
        (await room.Teacher.Http.DeleteAsync($"/api/classes/{room.Class}/students/{room.Students["Juno"]}/pass")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Line(room, "Juno")).PassMadeAt.ShouldBeNull();
    }

    [Fact]
    public async Task Names_seen_before_say_where_they_came_from_and_can_be_taken_back()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new LessonEnded());
        await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", $"Name,Joined\nThe lighthouse,{Classroom.Now}\n", ("zone", "UTC"));
        await room.Teacher.Put<SettlingView>($"/api/lessons/{room.Lesson}/names", new NameDecisionSent("The lighthouse", room.Students["Juno"], false));
        var line = (await room.Teacher.Get<List<KnownNameLine>>($"/api/classes/{room.Class}/names")).ShouldHaveSingleItem();
        (line.Name, line.Student, line.Origin).ShouldBe(("The lighthouse", room.Students["Juno"], "lesson 1, Why the wind backs"));
        var back = await room.Teacher.Put<List<KnownNameLine>>($"/api/classes/{room.Class}/names", new KnownNameSent(line.Name, line.Student, Known: false));
        back.ShouldBeEmpty();
    }

    [Fact]
    public async Task Whoever_left_missed_a_lesson_and_came_back_is_not_absent_from_it()
    {
        var room = await (await app.SignedIn()).Teach();
        var zainab = await Line(room, "Zainab");
        await Change(room, zainab.Id, RecordOf(zainab, inClass: false));
        // The lesson began before she left, so it is over before the one she misses.
        await room.Tap(new LessonEnded());
        var missed = await room.Teacher.Post<Features.Lessons.LessonLine>($"/api/classes/{room.Class}/lessons", new Features.Lessons.LessonNow("Fog and haar", 50));
        var second = room with { Lesson = missed.Id };
        await second.Tap(new Marked(room.Students["Juno"], Mark.Here), new Marked(room.Students["Eino"], Mark.Here));
        await second.Tap(new LessonEnded());
        await second.Tap(new LessonSettled());
        (await Statuses(room)).ShouldNotContain("Zainab:Absent");

        await Change(room, zainab.Id, RecordOf(zainab));
        var rules = await room.Teacher.Get<Features.GroundRules.RulesView>($"/api/classes/{room.Class}/rules");
        await room.Teacher.Put<Features.GroundRules.RulesStored>($"/api/classes/{room.Class}/rules", new Features.GroundRules.RulesSent(rules.Rules with { NodReasons = ["careful"] }));
        (await Statuses(room)).ShouldNotContain("Zainab:Absent");
        Summaries.Check(app.File).ShouldBeEmpty();
        (await second.Settling()).Register.ShouldNotContain(r => r.Student == zainab.Id);
    }

    [Fact]
    public async Task A_name_that_was_decided_in_a_lesson_is_forgotten_when_that_is_taken_back_though_the_lesson_was_renamed()
    {
        var room = await (await app.SignedIn()).Teach();
        using var meeting = await Meeting.Of(room);
        await meeting.Tell(meeting.Event("joined", new { name = "The lighthouse" }));
        var word = (await room.Tap(new NameMatched("The lighthouse", room.Students["Juno"]))).Accepted[0];
        var today = Classroom.Now.InZone(NodaTime.DateTimeZoneProviders.Tzdb["Atlantic/Faroe"]);
        var line = (await Page(room)).Lessons.Single();
        (await room.Teacher.Put($"/api/lessons/{room.Lesson}", new Features.Lessons.LessonPlanned(
            "Fog and haar", line.PlannedStart.InZone(today.Zone).Date, new NodaTime.LocalTime(line.PlannedStart.InZone(today.Zone).Hour, line.PlannedStart.InZone(today.Zone).Minute),
            50, false, null, false))).StatusCode.ShouldBe(HttpStatusCode.OK);

        (await room.Tap(new Struck(word))).Refused.ShouldBeEmpty();
        (await room.Teacher.Get<List<KnownNameLine>>($"/api/classes/{room.Class}/names")).ShouldBeEmpty();
    }
}
