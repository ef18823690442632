using System.Net;
using System.Net.Http.Json;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Names;
using PoliteTally.Core.Notes;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Reports;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Features.Settling;

namespace PoliteTally.Web.Tests;

public sealed class SettlingTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static string Iso(Instant at) => at.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", null);

    private static string List(Instant now) =>
        $"Name,Joined,Left\nJuno Q,{Iso(now)},\nEino Rautio,{Iso(now)},\nThe Keeper,{Iso(now)},\n";

    private async Task<Classroom> Ended()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new Marked(room.Students["Juno"], Mark.Here), new TurnTaken(room.Students["Juno"], Core.Hands.TurnOutcome.Full, Core.Hands.TurnOrigin.Invited));
        await room.Tap(new LessonEnded());
        return room;
    }

    [Fact]
    public async Task From_an_attendance_list_to_a_score()
    {
        var room = await Ended();
        var view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", List(Classroom.Now)));

        view.Names.Single(n => n.Name == "Eino Rautio").Decided.ShouldBeTrue();
        view.Names.Single(n => n.Name == "Juno Q").Student.ShouldBe(room.Students["Juno"]);
        view.Names.Single(n => n.Name == "The Keeper").Certainty.ShouldBe(Certainty.Unknown);
        view.Register.Single(r => r.Called == "Zainab").Status.ShouldBe(AttendanceStatus.Absent);

        (await room.Tap(new ExcuseRecorded(room.Students["Zainab"], "dentist"))).Refused.ShouldBeEmpty();
        (await room.Tap(new LessonSettled())).Refused.ShouldBeEmpty();
        var sheet = await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores");
        sheet.Students.Single(s => s.Called == "Zainab").Cells[0]!.Status.ShouldBe(AttendanceStatus.Excused);
        sheet.Students.Single(s => s.Called == "Zainab").Cells[0]!.Score.ShouldBeNull();

        var why = await room.Teacher.Get<Explanation>($"/api/lessons/{room.Lesson}/scores/{room.Students["Juno"]}");
        why.Shown.ShouldBe(sheet.Students.Single(s => s.Called == "Juno").Cells[0]!.Score);
        why.Entries.Select(e => e.Text).ShouldContain("full turn");
        why.Score.Total!.Recompute().ShouldBe(why.Score.Total.Value);
        Summaries.Check(app.File).ShouldBeEmpty();
    }

    [Fact]
    public async Task Bringing_in_the_same_file_twice_changes_nothing()
    {
        var room = await Ended();
        var list = List(Classroom.Now);
        await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list);
        var once = (await room.Sheet()).Head.Position;
        var view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list));

        (await room.Sheet()).Head.Position.ShouldBe(once);
        view.Files.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task A_file_is_taken_out_without_a_trace_and_put_back()
    {
        var room = await Ended();
        var before = await Figures(room);
        var list = List(Classroom.Now);
        var view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list));
        var with = await Figures(room);
        with.ShouldNotBe(before);

        var file = view.Files.ShouldHaveSingleItem();
        await room.Tap(new Struck(file.Id));
        var takenOut = (await room.Settling()).Files[0].TakenOutBy.ShouldNotBeNull();
        (await Figures(room)).ShouldBe(before);
        (await Visitor.Read<FileLook>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files/look", list))).BroughtInBefore.ShouldBeFalse("bringing it in puts it back");
        await room.Tap(new Struck(takenOut));
        (await Figures(room)).ShouldBe(with);
        // Bringing in what was taken out is putting it back.
        await room.Tap(new Struck(file.Id));
        await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list);
        (await Figures(room)).ShouldBe(with);
    }

    [Fact]
    public async Task What_two_files_say_stands_for_as_long_as_one_of_them_counts_whatever_is_struck_out_by_hand()
    {
        var room = await Ended();
        var list = List(Classroom.Now);
        await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list);
        var one = await Figures(room);
        var view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", $"{list}Zainab Usman,{Iso(Classroom.Now)},\n"));
        var two = await Figures(room);
        async Task Out(int file) => await room.Tap(new Struck(view.Files[file].Id));
        async Task Back(int file) => await room.Tap(new Struck((await room.Settling()).Files[file].TakenOutBy!.Value));

        await Out(0);
        (await Figures(room)).ShouldBe(two, "the longer file says all that the shorter one says");
        await Out(1);
        await Back(0);
        (await Figures(room)).ShouldBe(one);
        await Back(1);
        (await Figures(room)).ShouldBe(two);

        var eino = (await room.Teacher.Get<StudentEntryList>($"/api/lessons/{room.Lesson}/students/{room.Students["Eino"]}/entries")).Entries.First(e => e.Source == Source.File);
        await room.Tap(new Struck(eino.Id));
        var struck = await Figures(room);
        await Out(0);
        await Out(1);
        await Back(1);
        (await Figures(room)).ShouldBe(struck);
    }

    private static string Chat(params IEnumerable<(int Second, string Name, string Text)> lines) =>
        string.Concat(lines.Select(l => $"{(Classroom.Now + Duration.FromSeconds(l.Second)).ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", null)} {l.Name}: {l.Text}\n"));

    [Fact]
    public async Task A_message_that_was_tapped_and_saved_counts_once_whichever_file_comes_first()
    {
        async Task<(string Register, IEnumerable<string> Chat, FileIn File)> With(bool chatFirst)
        {
            // The lesson is over within a second: who joined before its beginning was in all of it.
            var list = List(Classroom.Now);
            var room = await (await app.SignedIn()).Teach();
            await room.Tap(new ChatSaid(room.Students["Juno"], ChatKind.Question, null));
            await room.Tap(new LessonEnded());
            string[] files = [list, Chat((0, "Juno Q", "why does the wind back?"), (2, "Eino Rautio", "a low passes north"), (3, "tamsin", "well asked"))];
            SettlingView? view = null;
            foreach (var file in chatFirst ? files.Reverse() : files)
            {
                view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", file, ("zone", "UTC")));
            }

            var juno = await room.Teacher.Get<StudentEntryList>($"/api/lessons/{room.Lesson}/students/{room.Students["Juno"]}/entries");
            view!.Names.Single(n => n.Name == "tamsin").ShouldSatisfyAllConditions(n => n.Decided.ShouldBeTrue(), n => n.Student.ShouldBeNull());
            return (string.Join("; ", view.Register.Select(r => $"{r.Called} {r.Status} {r.KnownBy}")), juno.Entries.Select(e => e.Text), view.Files.Single(f => f.Kind == FileKind.Chat));
        }

        var (one, other) = (await With(false), await With(true));
        one.File.Known.ShouldBe(1);
        other.File.Known.ShouldBe(1);
        other.Register.ShouldBe(one.Register);
        other.Chat.Order().ShouldBe(one.Chat.Order());
    }

    [Fact]
    public async Task A_file_of_another_class_is_asked_about_and_nothing_is_stored_until_then()
    {
        var room = await Ended();
        var list = $"Name,Joined\n{string.Concat(new[] { "Perry Ashdown", "Ritika Bakshi", "Solveig Dam", "Juno Q", "Tor Eide" }.Select(n => $"{n},{Iso(Classroom.Now)}\n"))}";
        var look = await Visitor.Read<FileLook>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files/look", list));
        look.Doubts.ShouldHaveSingleItem().ShouldContain("4 of its 5 names");
        (await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await room.Settling()).Files.ShouldBeEmpty();
        (await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list, ("sure", "true")))).Files.ShouldHaveSingleItem();
    }

    [Theory]
    [InlineData("List of “Fog and haar”", null, true)]
    [InlineData("Your list", -1, true)]
    [InlineData("Your list", 0, false)]
    [InlineData("Your list", 5, false)]
    [InlineData("Your list", null, false)]
    public async Task A_mail_about_another_lesson_is_said_to_be_that(string subject, int? daysAway, bool fits)
    {
        var room = await Ended();
        var now = Classroom.Now.InUtc().LocalDateTime;
        var before = now.PlusDays(-1);
        await room.Teacher.Post<LessonLine>($"/api/classes/{room.Class}/lessons/planned", new LessonPlanned("Fog and haar", before.Date, before.TimeOfDay.With(TimeAdjusters.TruncateToMinute), 50, DropIn: false, null, Cancelled: false));
        var date = daysAway is { } days ? $"Date: {now.PlusDays(days).PlusMinutes(70):ddd, dd MMM uuuu HH:mm:ss} +0000\r\n" : "";
        var mail = $"From: meetings@skerrysound.example\r\nSubject: {subject}\r\n{date}MIME-Version: 1.0\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n{List(Classroom.Now)}";
        var opened = await Visitor.Read<OpenedMail>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files/open", mail));
        opened.Files.ShouldHaveSingleItem();
        opened.Fits?.Title.ShouldBe("Fog and haar");
        (opened.Fits is not null).ShouldBe(fits);
    }

    [Fact]
    public async Task A_file_of_another_lesson_is_said_with_the_lesson_that_it_fits()
    {
        var room = await Ended();
        var later = await room.Teacher.Post<LessonLine>($"/api/classes/{room.Class}/lessons/planned", new LessonPlanned("Fog and haar", new LocalDate(2026, 12, 14), new LocalTime(9, 30), 50, DropIn: false, null, Cancelled: false));
        var look = await Visitor.Read<FileLook>(await room.Teacher.Send(
            $"/api/lessons/{room.Lesson}/files/look", "Name,Joined,Left\nJuno Q,2026-12-14T09:35:00Z,2026-12-14T10:00:00Z\nEino,2026-12-14T09:35:00Z,2026-12-14T10:00:00Z\n"));
        look.Problems[^1].ShouldContain($"“{later.Title}”");
    }

    [Fact]
    public async Task A_file_read_in_another_way_takes_the_place_of_what_it_was()
    {
        var room = await Ended();
        var text = $"Who,When,Then\nJuno Q,{Iso(Classroom.Now)},{Iso(Classroom.Now + Duration.FromMinutes(1))}\n";
        await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", text, ("mapping", """{"name":0,"joined":1}"""), ("kind", "\"attendance\""));
        var view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", text, ("mapping", """{"name":0,"joined":1,"left":2}"""), ("kind", "\"attendance\"")));
        view.Files.Select(f => f.TakenOutBy is null).ShouldBe([false, true]);
    }

    [Theory]
    [InlineData("\"pictures\"", "not understood")]
    [InlineData("\"captions\"", "captions")]
    public async Task A_kind_that_does_not_fit_is_said(string kind, string why)
    {
        var room = await Ended();
        var answer = await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", List(Classroom.Now), ("kind", kind));
        ((int)answer.StatusCode).ShouldBeInRange(400, 499);
        (await answer.Content.ReadAsStringAsync()).ShouldContain(why);
    }

    /// <summary>Everything that the register and the names of a lesson say, as text.</summary>
    private static async Task<string> Figures(Classroom room)
    {
        var view = await room.Settling();
        return System.Text.Json.JsonSerializer.Serialize(new { view.Register, Names = view.Names.Where(n => n.First is not null) });
    }

    [Fact]
    public async Task Two_of_one_name_in_one_list_are_decided_each_for_itself()
    {
        var room = await Ended();
        var list = $"Name,E-mail,Joined,Left\nWren,north@skerrysound.example,{Iso(Classroom.Now)},\nWren,south@skerrysound.example,{Iso(Classroom.Now)},\n";
        var view = await Visitor.Read<SettlingView>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list));
        view.Names.Select(n => (n.Name, n.Beside)).ShouldBe([("Wren", "north@skerrysound.example"), ("Wren", "south@skerrysound.example")]);

        await Decide(room, new NameDecisionSent("Wren", room.Students["Eino"], false, "north@skerrysound.example"));
        view = await Decide(room, new NameDecisionSent("Wren", room.Students["Zainab"], false, "south@skerrysound.example"));
        view.Names.Select(n => n.Student).ShouldBe([room.Students["Eino"], room.Students["Zainab"]]);
        view.Register.Where(r => r.KnownBy == KnownBy.Measured).Select(r => r.Called).ShouldBe(["Eino", "Zainab"], ignoreOrder: true);

        // The class remembers both, and the name alone is neither.
        var look = await Visitor.Read<FileLook>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files/look", $"{list}Wren,,{Iso(Classroom.Now)},\n"));
        look.Names.Select(n => (n.Certainty, n.Student)).ShouldBe(
            [(Certainty.Sure, room.Students["Eino"]), (Certainty.Sure, room.Students["Zainab"]), (Certainty.Likely, room.Students["Eino"])]);
    }

    [Fact]
    public async Task Two_at_once_who_could_be_two_students_are_told_apart_by_their_connections()
    {
        var teacher = await app.SignedIn();
        var made = await teacher.Post<ClassLine>("/api/classes", new NewClass("Island Botany"));
        await Visitor.Read<RosterBroughtIn>(await teacher.Send($"/api/classes/{made.Id}/roster", "Given name,Family name\nWren,Ashdown\nWren,Holm\n"));
        var lesson = await teacher.Post<LessonLine>($"/api/classes/{made.Id}/lessons", new LessonNow("Ferns", 50));
        async Task<IEnumerable<(string, string)>> Told(int second, int secondLeaves)
        {
            string At(int minutes) => Iso(Classroom.Now + Duration.FromMinutes(minutes));
            var list = $"Name,Session,Joined,Left\nWren,a7,{At(0)},{At(20)}\nWren,b2,{At(second)},{At(secondLeaves)}\n";
            var look = await Visitor.Read<FileLook>(await teacher.Send($"/api/lessons/{lesson.Id}/files/look", list));
            return look.Names.Select(n => (n.Name, n.Beside));
        }

        (await Told(second: 10, secondLeaves: 40)).ShouldBe([("Wren", "#a7"), ("Wren", "#b2")]);
        // One after the other is somebody who came again.
        (await Told(second: 21, secondLeaves: 40)).ShouldBe([("Wren", "")]);
    }

    [Fact]
    public async Task A_name_is_decided_remembered_and_taken_back()
    {
        var room = await Ended();
        await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", List(Classroom.Now));
        var said = await Decide(room, new NameDecisionSent("The Keeper", room.Students["Zainab"], false));
        said.Register.Single(r => r.Called == "Zainab").KnownBy.ShouldBe(KnownBy.Measured);

        var look = await Visitor.Read<FileLook>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files/look", List(Classroom.Now)));
        look.Names.Single(n => n.Name == "The Keeper").ShouldBe(new NameLook("The Keeper", "", Certainty.Sure, MatchedBy.ConfirmedBefore, room.Students["Zainab"]));

        var undone = await Decide(room, new NameDecisionSent("The Keeper", null, false));
        undone.Names.Single(n => n.Name == "The Keeper").Decided.ShouldBeFalse();
        undone.Names.Single(n => n.Name == "The Keeper").Certainty.ShouldBe(Certainty.Unknown);

        var nobody = await Decide(room, new NameDecisionSent("The Keeper", null, true));
        nobody.Names.Single(n => n.Name == "The Keeper").Decided.ShouldBeTrue();
        nobody.Register.Single(r => r.Called == "Zainab").Status.ShouldBe(AttendanceStatus.Absent);
    }

    [Fact]
    public async Task Looking_stores_nothing()
    {
        var room = await Ended();
        var before = (await room.Sheet()).Head.Position;
        await Visitor.Read<FileLook>(await room.Teacher.Send($"/api/lessons/{room.Lesson}/files/look", List(Classroom.Now)));
        (await room.Sheet()).Head.Position.ShouldBe(before);
        (await room.Settling()).Files.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_row_that_is_wrong_stops_the_file_unless_it_is_left_out()
    {
        var room = await Ended();
        var before = (await room.Sheet()).Head.Position;
        var list = List(Classroom.Now) + "Zainab Usman,soon,\n";
        var refused = await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list);

        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("Row 5");
        (await room.Sheet()).Head.Position.ShouldBe(before);
        (await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list, ("leaveOut", "true"))).IsSuccessStatusCode.ShouldBeTrue();
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("Name,Joined\nJuno,2020-01-01T09:30:00Z\n", "None of its times lie in this lesson")]
    public async Task A_list_that_cannot_be_used_is_refused_whole(string list, string part)
    {
        var room = await Ended();
        var refused = await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", list);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain(part);
        (await room.Settling()).Names.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_file_is_too_large_a_zone_unknown_a_form_without_a_file()
    {
        var room = await Ended();
        var path = $"/api/lessons/{room.Lesson}/files/look";
        (await Said(await room.Teacher.Send(path, new byte[20_000_001]))).ShouldContain("larger than 20 MB");
        (await Said(await room.Teacher.Send(path, List(Classroom.Now), ("zone", "Atlantic/Nowhere")))).ShouldContain("not a time zone");
        (await Said(await room.Teacher.Send(path, List(Classroom.Now), ("mapping", "{")))).ShouldContain("columns");
        (await Said(await room.Teacher.Post(path, new { }))).ShouldContain("file is missing");
    }

    [Fact]
    public async Task A_settled_lesson_is_closed_until_it_is_opened_again()
    {
        var room = await Ended();
        var settled = (await room.Tap(new LessonSettled())).Accepted[0];
        (await room.Tap(new NodGiven(room.Students["Juno"], "on time"))).Refused.ShouldHaveSingleItem().Why.ShouldContain("settled");
        (await room.Teacher.Send($"/api/lessons/{room.Lesson}/files", List(Classroom.Now))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores")).Lessons.ShouldHaveSingleItem();

        (await room.Tap(new Struck(settled))).Refused.ShouldBeEmpty();
        (await room.Settling()).Lesson.Stage.ShouldBe(LessonStage.Ended);
        (await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores")).Lessons.ShouldBeEmpty();
        (await room.Tap(new StatusDeclared(room.Students["Zainab"], AttendanceStatus.Late))).Refused.ShouldBeEmpty();
        (await room.Settling()).Register.Single(r => r.Called == "Zainab").Status.ShouldBe(AttendanceStatus.Late);
    }

    [Fact]
    public async Task The_report_agrees_with_the_scores_and_its_file_is_safe()
    {
        var room = await Ended();
        await room.Tap(new LessonSettled());
        var report = await room.Teacher.Get<ClassReport>($"/api/classes/{room.Class}/report");
        var scores = await room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores");
        report.Students.Select(s => (decimal?)s.Cells[0]!.Score).ShouldBe(scores.Students.Select(s => s.Cells[0]!.Score));
        report.Students.Single(s => s.Called == "Juno").FullTurns.ShouldBe(1);

        var csv = await room.Teacher.Http.GetStringAsync($"/api/classes/{room.Class}/report.csv");
        csv.ShouldContain("S1,Quillfeather,Juno,Juno,1,0,0,0,1,0,0,0,0,0,0,0,0,not enough yet,");
    }

    [Fact]
    public async Task Hidden_messages_and_asides_stand_in_settling_and_nowhere_else()
    {
        var room = await (await app.SignedIn()).Teach();
        var said = (await room.Tap(new ChatSaid(room.Students["Juno"], ChatKind.Question, "my number is 55 01 47, does fog count?"))).Accepted[0];
        await room.Tap(new ChatSaid(room.Students["Eino"], ChatKind.Unsorted, "hm"), new ChatHidden(said), new AsideNoted(room.Students["Eino"], "line bad again"));
        var view = await room.Settling();
        view.PutAway.Select(p => (p.Who, p.Text, p.IsAside)).ShouldBe([("Juno", "my number is 55 01 47, does fog count?", false), ("Eino", "line bad again", true)]);
        view.ChatWaiting.ShouldBe(1);

        await room.Tap(new LessonEnded(), new LessonSettled());
        foreach (var path in new[] { $"lessons/{room.Lesson}/chat", $"lessons/{room.Lesson}/live", $"lessons/{room.Lesson}/scores/{room.Students["Juno"]}", $"classes/{room.Class}/report", $"classes/{room.Class}/report.csv", $"lessons/{room.Lesson}/board" })
        {
            var shown = await room.Teacher.Http.GetStringAsync($"/api/{path}");
            shown.ShouldNotContain("55 01 47", customMessage: path);
        }

        (await room.Teacher.Http.GetStringAsync($"/api/classes/{room.Class}/report")).ShouldNotContain("line bad");
        // What was hidden still counts.
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Chat.ShouldHaveSingleItem();
    }

    private static async Task<string> Said(HttpResponseMessage response)
    {
        ((int)response.StatusCode).ShouldBeInRange(400, 499);
        response.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json");
        return await response.Content.ReadAsStringAsync();
    }

    private static async Task<SettlingView> Decide(Classroom room, NameDecisionSent word) =>
        await Visitor.Read<SettlingView>(await room.Teacher.Http.PutAsJsonAsync($"/api/lessons/{room.Lesson}/names", word, Visitor.Json));
}
