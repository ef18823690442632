using System.Collections.Concurrent;
using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Reports;
using PoliteTally.Formats.Tests;
using PoliteTally.Store;
using PoliteTally.Web.Features.Reports;

namespace PoliteTally.Web.Tests;

/// <summary>Reports of a class: the same on the screen, on paper and in files; edited; numbered; of many at once.</summary>
public sealed class ReportTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static string At(Classroom room, string kind, string rest = "") => $"/api/classes/{room.Class}/reports/{kind}{rest}";

    internal static Task<Document> Report(Classroom room, string kind, string query = "") => room.Teacher.Get<Document>(At(room, kind, query));

    internal static string Said(Document report) => string.Join(' ', report.Sections.SelectMany(s => s.Says.Select(w => w.Text)));

    private static string All(Document report) => string.Join('\n', report.Sections.SelectMany(s =>
        s.Says.Select(w => w.Text).Prepend(s.Heading).Concat(s.Figures?.Rows.SelectMany(r => r.Cells.Select(c => c.Text)) ?? []).Concat(s.Drawing?.Marks.Select(m => m.Text ?? "").Append(s.Drawing.Says) ?? [])).Prepend(report.Title));

    public static TheoryData<string> Kinds => ["student", "fairness", "questions", "lesson", "register", "class"];

    // One class for all tests that only read: nobody signs in as often as there are cases.
    private static readonly ConcurrentDictionary<AppUnderTest, Lazy<Task<(Classroom Room, IReadOnlyList<Guid> Lessons)>>> Read = new();

    private Task<(Classroom Room, IReadOnlyList<Guid> Lessons)> ToRead() => Read.GetOrAdd(app, a => new(() => ThreeLessons.Settled(a))).Value;

    private async Task<(Classroom Room, IReadOnlyList<Guid> Lessons, string Query)> Taught(string kind)
    {
        var (room, lessons) = await ToRead();
        return (room, lessons, kind == "student" ? $"?student={room.Students["Juno"]}" : kind == "lesson" ? $"?lesson={lessons[0]}" : "");
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Every_report_is_the_same_on_the_screen_and_on_paper(string kind)
    {
        var (room, _, query) = await Taught(kind);
        var report = await Report(room, kind, query);
        var file = await room.Teacher.Http.GetAsync(At(room, kind, $"/file.pdf{query}"));
        file.Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
        var pdf = PrintedPdf.Read(await file.Content.ReadAsByteArrayAsync());
        pdf.Title.ShouldBe(report.Title);
        pdf.Raw.ShouldContain("/Lang (en-GB)");
        var words = string.Concat(pdf.Text.Where(c => !char.IsWhiteSpace(c)));
        foreach (var text in report.Sections.SelectMany(s => s.Says.Select(w => w.Text).Concat(s.Figures?.Rows.SelectMany(r => r.Cells.Select(c => c.Text)) ?? [])))
        {
            // Where lines end is a matter of the page.
            foreach (var word in text.Split(' '))
            {
                words.ShouldContain(word, Case.Sensitive, text);
            }
        }
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Every_report_is_a_workbook_a_table_and_JSON_and_its_drawings_are_files(string kind)
    {
        var (room, _, query) = await Taught(kind);
        var report = await Report(room, kind, $"{query}{(query.Length > 0 ? "&" : "?")}hidden={(kind == "questions" ? "true" : "false")}");
        var json = JsonDocument.Parse(await room.Teacher.Http.GetStringAsync(At(room, kind, $"/file.json{query}"))).RootElement;
        (json.GetProperty("format").GetString(), json.GetProperty("version").GetInt32(), json.GetProperty("report").GetProperty("sections").GetArrayLength())
            .ShouldBe(("polite-tally-report", 1, report.Sections.Count));
        if (report.Sections.Any(s => s.Figures?.Rows.Count > 0))
        {
            (await room.Teacher.Http.GetByteArrayAsync(At(room, kind, $"/file.xlsx{query}")))[..2].ShouldBe("PK"u8.ToArray());
            var csv = Encoding.UTF8.GetString(await room.Teacher.Http.GetByteArrayAsync(At(room, kind, $"/file.csv{query}")));
            foreach (var cell in report.Sections.SelectMany(s => s.Figures?.Rows.SelectMany(r => r.Cells.Select(c => c.Text)) ?? []).Where(c => c.Length > 0 && c[0] is not ('-' or '"')))
            {
                csv.ShouldContain(cell);
            }
        }

        foreach (var place in report.Sections.Index().Where(s => s.Item.Drawing is not null).Select(s => s.Index))
        {
            (await room.Teacher.Http.GetStringAsync(At(room, kind, $"/drawings/{place}.svg{query}"))).ShouldStartWith("<svg");
            (await room.Teacher.Http.GetByteArrayAsync(At(room, kind, $"/drawings/{place}.png{query}"))).Length.ShouldBeGreaterThan(500);
        }

        (await room.Teacher.Http.GetAsync(At(room, kind, $"/drawings/99.svg{query}"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("student", "", HttpStatusCode.UnprocessableEntity)]
    [InlineData("lesson", "", HttpStatusCode.UnprocessableEntity)]
    [InlineData("weather", "", HttpStatusCode.UnprocessableEntity)]
    [InlineData("0", "", HttpStatusCode.UnprocessableEntity)]
    [InlineData("fairness", "?from=yesterday", HttpStatusCode.UnprocessableEntity)]
    [InlineData("fairness", "?reader=press", HttpStatusCode.UnprocessableEntity)]
    [InlineData("fairness", "?hidden=perhaps", HttpStatusCode.BadRequest)]
    [InlineData("student", "?student=5f0c1c1e-7d0c-4b0f-9a58-0d9d8c8f2b11", HttpStatusCode.NotFound)]
    [InlineData("lesson", "?lesson=5f0c1c1e-7d0c-4b0f-9a58-0d9d8c8f2b11", HttpStatusCode.NotFound)]
    public async Task What_cannot_be_told_is_refused_with_a_sentence(string kind, string query, HttpStatusCode status)
    {
        var (room, _) = await ToRead();
        foreach (var path in new[] { "", "/file.pdf", "/drawings/0.svg" })
        {
            (await room.Teacher.Http.GetAsync(At(room, kind, path + query))).StatusCode.ShouldBe(status, path);
        }
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task A_span_without_a_lesson_gives_sentences_that_are_true(string kind)
    {
        var (room, _, query) = await Taught(kind);
        var report = await Report(room, kind, $"{query}{(query.Length > 0 ? "&" : "?")}from=2031-01-01");
        if (kind != "lesson")
        {
            Said(report).ShouldMatch("^(No|Nobody|No lesson)");
        }

        foreach (var ending in new[] { "pdf", "xlsx", "csv", "json" })
        {
            (await room.Teacher.Http.GetAsync(At(room, kind, $"/file.{ending}{query}{(query.Length > 0 ? "&" : "?")}from=2031-01-01"))).StatusCode.ShouldBe(HttpStatusCode.OK, ending);
        }
    }

    [Fact]
    public async Task A_report_on_a_student_has_nothing_of_any_other()
    {
        var (room, _, query) = await Taught("student");
        var text = All(await Report(room, "student", query));
        text.ShouldContain("Juno");
        room.Students.Keys.Where(k => k != "Juno").ShouldAllBe(name => !text.Contains(name, StringComparison.Ordinal));
        room.Students.Values.Select(v => $"{v}").ShouldAllBe(id => id == $"{room.Students["Juno"]}" || !text.Contains(id, StringComparison.Ordinal));
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Without_names_there_is_no_name_in_it(string kind)
    {
        var (room, _, query) = await Taught(kind);
        var text = All(await Report(room, kind, $"{query}{(query.Length > 0 ? "&" : "?")}hidden=true"));
        room.Students.Keys.ShouldAllBe(name => !text.Contains(name, StringComparison.Ordinal));
        if (kind is "student" or "fairness" or "register" or "class")
        {
            text.ShouldContain("Student ");
        }
    }

    [Fact]
    public async Task The_words_of_a_report_are_edited_kept_and_given_back()
    {
        var (room, _, query) = await Taught("student");
        var plain = Said(await Report(room, "student", query));
        async Task<Document> Edit(string text) => (await (await room.Teacher.Http.PutAsJsonAsync(At(room, "student", $"/text{query}"), new ReportEdit(StudentReport.Summary, text), Visitor.Json)).Content.ReadFromJsonAsync<Document>(Visitor.Json))!;
        (await Edit("Juno carried the lesson.")).Sections[0].Says.Single().Text.ShouldBe("Juno carried the lesson.");
        var kept = (await Report(room, "student", query)).Sections[0];
        (kept.Says[0].Text, kept.OutOfDate, kept.Plain![..4]).ShouldBe(("Juno carried the lesson.", false, "Juno"));
        PrintedPdf.Read(await room.Teacher.Http.GetByteArrayAsync(At(room, "student", $"/file.pdf{query}"))).Text.ShouldContain("Juno carried the lesson.");
        // Other readers, other days and other students keep their own.
        Said(await Report(room, "student", $"{query}&reader=guardian")).ShouldNotContain("carried");
        Said(await Report(room, "student", $"?student={room.Students["Eino"]}")).ShouldNotContain("carried");
        Said(await Edit("")).ShouldBe(plain);
        (await room.Teacher.Http.PutAsJsonAsync(At(room, "student", $"/text{query}"), new ReportEdit(StudentReport.Summary, new string('x', 4001)), Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await room.Teacher.Http.PutAsJsonAsync(At(room, "student", $"/text{query}"), new ReportEdit("weather", "fine"), Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Two_windows_that_edit_at_once_are_both_answered_and_one_of_them_is_kept()
    {
        var (room, _, query) = await Taught("student");
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(i =>
            room.Teacher.Http.PutAsJsonAsync(At(room, "student", $"/text{query}&to=2030-01-01"), new ReportEdit(StudentReport.Summary, $"Words {i}."), Visitor.Json)));
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.OK);
        (await Report(room, "student", $"{query}&to=2030-01-01")).Sections[0].Says.Single().Text.ShouldStartWith("Words ");
    }

    [Fact]
    public async Task An_edit_says_when_the_figures_have_changed_since()
    {
        var (room, _) = await ThreeLessons.Settled(app);
        var query = $"?student={room.Students["Juno"]}";
        await room.Teacher.Http.PutAsJsonAsync(At(room, "student", $"/text{query}"), new ReportEdit(StudentReport.Summary, "Fine."), Visitor.Json);
        var next = await room.Next();
        await next.Tap(new Core.Attendance.Marked(room.Students["Juno"], Core.Attendance.Mark.Here));
        await next.Tap(new Core.Course.LessonEnded());
        await next.Tap(new Core.Course.LessonSettled());
        var edited = (await Report(room, "student", query)).Sections[0];
        (edited.Says[0].Text, edited.OutOfDate).ShouldBe(("Fine.", true));
        edited.Plain!.ShouldContain("four lessons");
    }

    private static async Task<RoundView> Ended(Classroom room, Guid round)
    {
        RoundView view;
        do
        {
            view = await room.Teacher.Get<RoundView>($"/api/classes/{room.Class}/rounds/{round}");
            await Task.Yield();
        }
        while (view.Said.Length == 0);
        return view;
    }

    [Fact]
    public async Task The_reports_of_a_class_are_made_at_once_and_a_round_asked_for_twice_is_one()
    {
        var (room, _) = await ToRead();
        var asked = new RoundSent(Guid.NewGuid(), [], RoundBy.Zip, "guardian", null, null, false);
        await Task.WhenAll(room.Teacher.Post<RoundView>($"/api/classes/{room.Class}/rounds", asked), room.Teacher.Post<RoundView>($"/api/classes/{room.Class}/rounds", asked));
        var view = await Ended(room, asked.Id);
        (view.Done, view.Of, view.HasFile, view.Problems.Count).ShouldBe((room.Students.Count, room.Students.Count, true, 0));
        using var archive = new ZipArchive(await room.Teacher.Http.GetStreamAsync($"/api/classes/{room.Class}/rounds/{asked.Id}/reports.zip"));
        archive.Entries.Count.ShouldBe(room.Students.Count);
        foreach (var entry in archive.Entries)
        {
            using var bytes = new MemoryStream();
            await entry.Open().CopyToAsync(bytes);
            PrintedPdf.Read(bytes.ToArray()).Text.ShouldContain("page 1 of");
        }

        var other = await (await app.SignedIn()).Teach();
        (await room.Teacher.Http.GetAsync($"/api/classes/{other.Class}/rounds/{asked.Id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_round_by_mail_says_who_has_no_address_and_notes_what_went_to_whom_once()
    {
        var (room, _) = await ThreeLessons.Settled(app);
        async Task<RoundView> Send()
        {
            var asked = new RoundSent(Guid.NewGuid(), [], RoundBy.Mail, null, null, null, false);
            await room.Teacher.Post<RoundView>($"/api/classes/{room.Class}/rounds", asked);
            return await Ended(room, asked.Id);
        }

        var first = await Send();
        var sent = await room.Teacher.Get<IReadOnlyList<SentLine>>($"/api/classes/{room.Class}/sent");
        (sent.Count + first.Problems.Count).ShouldBe(room.Students.Count);
        sent.ShouldAllBe(s => s.Problem == "" && s.To.Contains('@'));
        var again = await Send();
        (await room.Teacher.Get<IReadOnlyList<SentLine>>($"/api/classes/{room.Class}/sent")).Count.ShouldBe(sent.Count);
        again.Said.ShouldContain(sent.Count > 0 ? "did not go twice" : "No reports went out");
    }

    [Theory]
    [InlineData(null)]
    [InlineData("5f0c1c1e-7d0c-4b0f-9a58-0d9d8c8f2b11")]
    public async Task A_round_of_nobody_or_of_others_is_refused(string? student)
    {
        var (room, _) = await ToRead();
        var sent = new RoundSent(student is null ? Guid.Empty : Guid.NewGuid(), student is null ? [] : [Guid.Parse(student)], RoundBy.Zip, null, null, null, false);
        (await room.Teacher.Http.PostAsJsonAsync($"/api/classes/{room.Class}/rounds", sent, Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_lesson_is_replayed_to_any_minute()
    {
        var (room, lessons) = await ToRead();
        Task<ReplayView> Replay(string query = "") => room.Teacher.Get<ReplayView>($"/api/lessons/{lessons[0]}/replay{query}");
        var middle = await Replay();
        middle.At.ShouldBeInRange(middle.From, NodaTime.Instant.Max(middle.From, middle.To));
        var end = await Replay($"?at={middle.To.ToUnixTimeMilliseconds()}");
        end.Rows.Single(r => r.Id == room.Students["Juno"]).ShouldSatisfyAllConditions(r => r.FullTurns.ShouldBe(1), r => r.Chat.ShouldBe(1));
        var begin = await Replay($"?at={end.From.ToUnixTimeMilliseconds() - 1}");
        begin.At.ShouldBe(end.From);
        (await Replay("?at=-9223372036854775808")).At.ShouldBe(end.From);
        (await Replay("?at=9223372036854775807")).At.ShouldBe(NodaTime.Instant.Max(end.From, end.To));
    }

    [Fact]
    public async Task Reports_are_put_together_for_a_meeting_without_names_and_the_key_is_kept_apart()
    {
        var (room, lessons) = await ToRead();
        var sent = new MeetingSent("Meeting of tutors", [new("", null, null, "Before we begin."), new("student", room.Students["Juno"], null, "Look at the turns."), new("lesson", null, lessons[0], "")], null, null, true, false);
        var document = await room.Teacher.Post<Document>($"/api/classes/{room.Class}/meeting", sent);
        var text = All(document);
        room.Students.Keys.ShouldAllBe(name => !text.Contains(name, StringComparison.Ordinal));
        text.IndexOf("Before we begin.", StringComparison.Ordinal).ShouldBeLessThan(text.IndexOf("Look at the turns.", StringComparison.Ordinal));
        // The same number in both reports, and in the key.
        var key = Encoding.UTF8.GetString(await room.Teacher.Http.GetByteArrayAsync($"/api/classes/{room.Class}/meeting/key.csv"));
        var number = key.Split("\r\n").Single(l => l.Contains("Juno", StringComparison.Ordinal)).Split(',')[0];
        document.Sections.ShouldContain(s => s.Heading == number);
        document.Sections.Select(s => s.Figures).OfType<Figures>().Single(f => f.Name == "Everybody").Rows.Single(r => r.Opens!.Student == room.Students["Juno"]).Cells[0].Text.ShouldBe(number);
        var pdf = PrintedPdf.Read(await (await room.Teacher.Http.PostAsJsonAsync($"/api/classes/{room.Class}/meeting/file.pdf", sent, Visitor.Json)).Content.ReadAsByteArrayAsync());
        (pdf.Title, pdf.Text.Contains("Look at the turns.", StringComparison.Ordinal), pdf.Text.Contains("Juno", StringComparison.Ordinal)).ShouldBe(("Meeting of tutors", true, false));
    }

    public static TheoryData<MeetingSent> NoMeetings =>
    [
        Tutors("", new MeetingPart("class", null, null, "")), Tutors("Tutors"), Tutors("Tutors", new MeetingPart("weather", null, null, "")), Tutors("Tutors", new MeetingPart("student", null, null, "")),
        Tutors("Tutors", new MeetingPart("class", null, null, new string('x', 4001))), Tutors("Tutors", new MeetingPart("class", null, null, "")) with { From = "soon" },
    ];

    private static MeetingSent Tutors(string title, params IReadOnlyList<MeetingPart> parts) => new(title, parts, null, null, false, false);

    [Theory]
    [MemberData(nameof(NoMeetings))]
    public async Task A_meeting_that_cannot_be_put_together_is_refused_with_a_sentence(MeetingSent sent)
    {
        var (room, _) = await ToRead();
        var answer = await room.Teacher.Http.PostAsJsonAsync($"/api/classes/{room.Class}/meeting", sent, Visitor.Json);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("detail");
    }

    [Fact]
    public async Task All_that_is_known_of_a_student_is_found_by_words_kind_and_days()
    {
        var (room, lessons) = await ToRead();
        Task<PastView> Past(string query = "") => room.Teacher.Get<PastView>($"/api/students/{room.Students["Juno"]}/past{query}");
        var all = await Past();
        // The students of a teacher are the same in all classes.
        all.Lines.Count(l => l.ClassId == room.Class).ShouldBe(9);
        all.Lines.Select(l => l.At).ShouldBeInOrder(SortDirection.Descending);
        (await Past("?kind=speaking")).Lines.ShouldAllBe(l => l.Text == "full turn");
        (await Past("?words=FULL%20turn")).Lines.Where(l => l.ClassId == room.Class).Select(l => l.Lesson!.Value).Order().ShouldBe(lessons.Order());
        (await Past("?words=nothing%20like%20that")).All.ShouldBe(0);
        (await Past("?from=2031-01-01")).All.ShouldBe(0);
        // What is noted next is found next.
        var (fresh, _) = await ThreeLessons.Settled(app);
        var before = (await fresh.Teacher.Get<PastView>($"/api/students/{fresh.Students["Eino"]}/past")).All;
        var next = await fresh.Next();
        await next.Tap(new Core.Attendance.Marked(fresh.Students["Eino"], Core.Attendance.Mark.Here));
        (await fresh.Teacher.Get<PastView>($"/api/students/{fresh.Students["Eino"]}/past")).All.ShouldBe(before + 1);
    }

    [Fact]
    public async Task What_is_kept_of_settled_lessons_is_what_their_ledgers_say_and_what_is_noted_later_is_found()
    {
        var (room, lessons) = await ThreeLessons.Settled(app);
        Task<PastView> Past() => room.Teacher.Get<PastView>($"/api/students/{room.Students["Juno"]}/past");
        await using var all = app.File.Open(Guid.Empty);
        var owner = all.Classes.IgnoreQueryFilters().Single(c => c.Id == room.Class).OwnerId;
        await using var db = app.File.Open(owner);
        // By the ledgers alone, then by what is kept.
        await db.Lessons.Where(l => lessons.Contains(l.Id)).ExecuteUpdateAsync(set => set.SetProperty(l => l.LookBackKept, false));
        var told = await Past();
        await Summaries.RenewDue(db);
        (await db.Lessons.CountAsync(l => lessons.Contains(l.Id) && l.LookBackKept)).ShouldBe(lessons.Count);
        (await Past()).Lines.ShouldBe(told.Lines);
        Summaries.Check(app.File).ShouldBeEmpty();
        // Somebody calls back days after a lesson was settled.
        await (room with { Lesson = lessons[0] }).Tap(new Core.Notes.ContactTried(room.Students["Juno"], Core.Notes.ContactChannel.Phone, Core.Notes.ContactOutcome.Reached, "was at the dentist"));
        (await Past()).Lines.ShouldContain(l => l.Text == "call, reached: was at the dentist");
        // Of the lesson that was settled last, too, whose row the program still has in hand as it was before its words were kept.
        await (room with { Lesson = lessons[^1] }).Tap(new Core.Notes.ContactTried(room.Students["Juno"], Core.Notes.ContactChannel.Phone, Core.Notes.ContactOutcome.Reached, "comes on Monday"));
        (await Past()).Lines.ShouldContain(l => l.Text == "call, reached: comes on Monday");
        Summaries.Check(app.File).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_bundle_has_everything_of_a_class_and_a_manifest_that_is_true()
    {
        var (room, _) = await ToRead();
        using var archive = new ZipArchive(await room.Teacher.Http.GetStreamAsync($"/api/classes/{room.Class}/bundle.zip"));
        byte[] Bytes(string name)
        {
            using var bytes = new MemoryStream();
            using var part = archive.GetEntry(name)!.Open();
            part.CopyTo(bytes);
            return bytes.ToArray();
        }

        var manifest = JsonDocument.Parse(Bytes("manifest.json")).RootElement;
        (manifest.GetProperty("format").GetString(), manifest.GetProperty("version").GetInt32()).ShouldBe(("polite-tally-bundle", 1));
        var files = manifest.GetProperty("files").EnumerateArray().ToList();
        files.Select(f => f.GetProperty("name").GetString()).Append("manifest.json").Order().ShouldBe(archive.Entries.Select(e => e.FullName).Order());
        foreach (var file in files)
        {
            var bytes = Bytes(file.GetProperty("name").GetString()!);
            (bytes.Length, Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes))).ShouldBe((file.GetProperty("bytes").GetInt32(), file.GetProperty("sha256").GetString()));
        }

        PrintedPdf.Read(Bytes("class.pdf")).Text.ShouldContain("page 1 of");
        Encoding.UTF8.GetString(Bytes("lessons.ics")).ShouldContain("DESCRIPTION:2 of");
    }

    [Fact]
    public async Task Learning_events_are_valid_statements_and_say_what_was_noted()
    {
        var (room, lessons) = await ToRead();
        async Task<byte[]> Written() => await room.Teacher.Http.GetByteArrayAsync($"/api/classes/{room.Class}/statements.json");
        var statements = StandardStatements.Read(await Written());
        // Juno was there, spoke, wrote and was scored; Eino was there, wrote and was scored.
        string Did(string who) => string.Join(' ', statements.Where(s => s.Actor.StartsWith(who, StringComparison.Ordinal) && s.Parent.EndsWith($"{lessons[0]}", StringComparison.Ordinal)).Select(s => s.Verb).Order());
        (Did("Juno"), Did("Eino")).ShouldBe(("attended commented responded scored", "attended commented scored"));
        // The same, whenever they are written: a record store takes each once.
        (await Written()).ShouldBe(await Written());
        (await room.Teacher.Http.GetAsync($"/api/classes/{room.Class}/statements.json?from=soon")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public void The_schema_of_report_files_is_current()
    {
        File.ReadAllText(Path.Combine(FloorTests.Root(), "docs", "report.schema.json")).TrimEnd().ShouldBe(DocumentJson.Schema());
    }
}
