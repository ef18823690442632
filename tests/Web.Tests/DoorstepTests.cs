using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Notes;
using PoliteTally.Store;
using PoliteTally.Web.Features.Classes;

namespace PoliteTally.Web.Tests;

/// <summary>What every answer has, what every text that comes in loses, and what is said where nothing else is.</summary>
public sealed class DoorstepTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Answers_of_the_api_are_kept_by_nobody_and_https_stays_https()
    {
        var teacher = await app.SignedIn();
        foreach (var path in new[] { "/api/classes", "/api/session", "/api/nothing", "/api/page/none/door" })
        {
            using var answer = await teacher.Http.GetAsync(path, Cancel);
            answer.Headers.CacheControl!.NoStore.ShouldBeTrue(path);
            answer.Headers.Contains("Strict-Transport-Security").ShouldBeFalse(path);
        }

        await using var school = new AppUnderTest { SchoolAddress = new Uri("https://tally.school.example") };
        await school.InitializeAsync();
        using var http = new HttpClient { BaseAddress = new Uri(school.Address) };
        using var ask = new HttpRequestMessage(HttpMethod.Get, "/api/session") { Headers = { { "X-Forwarded-Proto", "https" }, { "X-Forwarded-For", "203.0.113.7" }, { "X-Forwarded-Host", "tally.school.example" } } };
        using var secure = await http.SendAsync(ask, Cancel);
        secure.Headers.GetValues("Strict-Transport-Security").ShouldHaveSingleItem().ShouldStartWith("max-age=31536000");
    }

    [Fact]
    public async Task Long_answers_are_compressed_and_secrets_are_not()
    {
        var room = await (await app.SignedIn()).Teach();
        async Task<string> Encoded(string path)
        {
            using var ask = new HttpRequestMessage(HttpMethod.Get, path) { Headers = { { "Accept-Encoding", "br" } } };
            using var answer = await room.Teacher.Http.SendAsync(ask, Cancel);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, path);
            return string.Join(",", answer.Content.Headers.ContentEncoding);
        }

        (await Encoded($"/api/lessons/{room.Lesson}/live")).ShouldBe("br");
        (await Encoded($"/api/classes/{room.Class}/scores")).ShouldBe("br");
        (await Encoded("/api/session")).ShouldBeEmpty();
        (await Encoded($"/api/lessons/{room.Lesson}/keys")).ShouldBeEmpty();
    }

    [Fact]
    public async Task Whatever_is_refused_says_why_in_words()
    {
        var teacher = await app.SignedIn();
        var room = await teacher.Teach();
        var pupil = await Pupil.In(room, (await Pupil.Passes(room))["Juno"]);
        using var much = new HttpRequestMessage(HttpMethod.Post, $"/api/page/{pupil.Code}/acts") { Content = new StringContent(new string('x', 3_000_000), new MediaTypeHeaderValue("application/json")) };
        // Asks before the body goes: the line is closed on a body that nobody reads, and the answer can be lost with it.
        much.Headers.ExpectContinue = true;
        using var large = await pupil.Http.SendAsync(much, Cancel);
        large.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await large.Content.ReadFromJsonAsync<ProblemDetails>(Cancel))!.Detail!.ShouldContain("larger than can be taken");
        using var nobody = new HttpClient { BaseAddress = new Uri(app.Address) };
        using var stranger = await nobody.GetAsync("/api/classes", Cancel);
        stranger.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await stranger.Content.ReadFromJsonAsync<ProblemDetails>(Cancel))!.Detail!.ShouldContain("not signed in");
    }

    /// <summary>A turned direction, a zero byte, and code points that are no characters: none of them is stored, and nothing fails by them.</summary>
    [Theory]
    [InlineData("Tides\u202e and\u0000 fog", "Tides and fog")]
    [InlineData("\ufdd0Tides\ufffe", "Tides")]
    [InlineData("Ti\ud83f\udffedes\uffff", "Tides")]
    public async Task What_nobody_can_see_is_taken_out_of_names(string sent, string kept)
    {
        var teacher = await app.SignedIn();
        (await teacher.Post<ClassLine>("/api/classes", new NewClass(sent))).Name.ShouldBe(kept);
        var room = await teacher.Teach();
        await room.Tap(new ChatSaid(room.Students["Juno"], ChatKind.Question, sent));
        using var roster = await teacher.Send($"/api/classes/{room.Class}/roster", $"Number,Given name,Family name\nS9,{sent},{sent}\n");
        ((int)roster.StatusCode).ShouldBeLessThan(500);
        using var look = await teacher.Send($"/api/lessons/{room.Lesson}/files/look", $"Name,Time,Message\n{sent},09:30:00,{sent}\nJuno Quillfeather,09:31:00,low water at four\n{sent},09:32:00,{sent}\n");
        ((int)look.StatusCode).ShouldBeLessThan(500);
        await room.Tap(new NodGiven(room.Students["Juno"], sent));
        await Everything.IsServed(teacher, room);
        foreach (var blank in new[] { "\u202e", "\u0000", "\ufdd0 ", "\u200e", "two\nlines" })
        {
            (await teacher.Post("/api/classes", new NewClass(blank))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, blank);
        }
    }

    /// <summary>An entry with nothing where something must be takes no other of its batch with it.</summary>
    [Fact]
    public async Task An_entry_that_is_not_whole_harms_no_other()
    {
        var room = await (await app.SignedIn()).Teach();
        var good = Guid.CreateVersion7();
        foreach (var beside in new[] { "null", "7", "{}" })
        {
            using var answer = await room.Teacher.Http.PostAsync($"/api/lessons/{room.Lesson}/entries", new StringContent(
                $$$"""
                {"entries":[{"id":"{{{Guid.CreateVersion7()}}}","happenedAt":{{{Classroom.Now.ToUnixTimeMilliseconds()}}},"act":{"type":"nameMatched","name":"Juno Q.","student":"{{{room.Students["Juno"]}}}","beside":{{{beside}}}}},
                {"id":"{{{good}}}","happenedAt":{{{Classroom.Now.ToUnixTimeMilliseconds()}}},"act":{"type":"nodGiven","student":"{{{room.Students["Juno"]}}}","reason":"on time"}}]}
                """, new MediaTypeHeaderValue("application/json")), Cancel);
            ((int)answer.StatusCode).ShouldBeLessThan(500);
        }

        await Everything.IsServed(room.Teacher, room);
    }

    [Fact]
    public async Task What_is_due_is_not_said_to_differ()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(new Core.Course.LessonEnded());
        await room.Tap(new Core.Course.LessonSettled());
        await using var db = app.File.Open(Guid.Empty);
        // What settling leaves to whoever has time is done now: it would be due for that alone.
        await using var own = app.File.Open(await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == room.Lesson).Select(l => l.OwnerId).SingleAsync(Cancel));
        await Summaries.RenewDue(own, room.Lesson);
        await db.Summaries.IgnoreQueryFilters().Where(s => s.LessonId == room.Lesson).ExecuteUpdateAsync(set => set.SetProperty(s => s.Score, 12m), Cancel);
        Summaries.Check(app.File).ShouldNotBeEmpty();
        await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == room.Lesson).ExecuteUpdateAsync(set => set.SetProperty(l => l.ReckonAgain, true), Cancel);
        Summaries.Check(app.File).ShouldBeEmpty();
    }

    [Fact]
    [System.Runtime.Versioning.SupportedOSPlatform("linux")]
    public void What_is_stored_is_for_whoever_runs_the_program_alone()
    {
        const UnixFileMode others = UnixFileMode.GroupRead | UnixFileMode.GroupWrite | UnixFileMode.GroupExecute | UnixFileMode.OtherRead | UnixFileMode.OtherWrite | UnixFileMode.OtherExecute;
        var files = Directory.GetFiles(app.Folder, "*", SearchOption.AllDirectories).Append(Path.Combine(app.Folder, "keys")).ToList();
        files.Count.ShouldBeGreaterThan(3);
        files.ShouldAllBe(f => (File.GetUnixFileMode(f) & others) == 0);
    }

    [Fact]
    public void A_file_in_place_of_the_keys_is_said()
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-keys").FullName;
        File.WriteAllText(Path.Combine(folder, "keys"), "");
        Should.Throw<StartProblem>(() => Application.Build(new Hosting.Settings(folder, 0, Demo: false))).Message.ShouldContain("keys");
        // And the folder is let go of.
        SchoolFolder.Take(folder).Dispose();
        Directory.Delete(folder, recursive: true);
    }

    public static TheoryData<Exception, int> Failures => new()
    {
        { new IOException("No space left on device."), 503 },
        { new SqliteException("database or disk is full", 13), 503 },
        { new SqliteException("database is locked", 5), 503 },
        { new DbUpdateException("", new SqliteException("disk I/O error", 10)), 503 },
        { new DbUpdateException("", new SqliteException("UNIQUE constraint failed", 19)), 500 },
        { new UnreadableDocument("What is kept cannot be read."), 500 },
        { new NotReadBack("What was sent could not be read again."), 422 },
        { new Formats.FormatProblem("This file is empty."), 422 },
        { new BadHttpRequestException("", 413), 413 },
        { new InvalidOperationException(), 500 },
    };

    /// <summary>A full or busy disk is said to be that, wherever it is met, so that whoever sent something keeps it and tries again.</summary>
    [Theory]
    [MemberData(nameof(Failures), DisableDiscoveryEnumeration = true)]
    public void What_fails_is_answered_with_what_it_means(Exception failure, int status) =>
        Requests.Problem.Of(failure).ShouldSatisfyAllConditions(p => p.Status.ShouldBe(status), p => p.Detail.ShouldNotBeEmpty());
}
