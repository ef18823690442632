using System.Net;
using System.Net.Http.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using PoliteTally.Store;
using PoliteTally.Web.Features.Accounts;

namespace PoliteTally.Web.Tests;

/// <summary>A start either comes up whole or says in a sentence why not, and leaves what was there.</summary>
public sealed class StartTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("polite-tally-start").FullName;

    private string Path => System.IO.Path.Combine(_folder, SchoolFile.Name);

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private SchoolFile Open(Action<SchoolFile>? fill = null, List<string>? said = null)
    {
        using var held = SchoolFolder.Take(_folder);
        return held.Open(fill, line => said?.Add(line));
    }

    private string Problem() => Should.Throw<StartProblem>(() => Open()).Message;

    [Fact]
    public void A_folder_is_held_by_one_at_a_time()
    {
        using (SchoolFolder.Take(_folder))
        {
            Should.Throw<StartProblem>(() => SchoolFolder.Take(_folder)).Message.ShouldContain("Another Polite Tally is running");
        }

        SchoolFolder.Take(_folder).Dispose();
    }

    [Fact]
    public void A_lock_that_cannot_be_had_for_another_reason_is_not_said_to_be_another_program()
    {
        // A link to itself: as on a disk that is read-only or full, what goes wrong is no other program.
        var path = System.IO.Path.Combine(_folder, "lock");
        File.CreateSymbolicLink(path, path);
        var said = Should.Throw<StartProblem>(() => SchoolFolder.Take(_folder)).Message;
        said.ShouldContain("cannot be used");
        said.ShouldNotContain("Another Polite Tally");
    }

    [Fact]
    public void A_file_in_place_of_the_folder_is_said()
    {
        var file = System.IO.Path.Combine(_folder, "data");
        File.WriteAllText(file, "");
        Should.Throw<StartProblem>(() => SchoolFolder.Take(file)).Message.ShouldContain("is a file");
    }

    [Fact]
    public void Short_forms_of_the_school_that_are_not_understood_are_said_with_their_line()
    {
        File.WriteAllText(System.IO.Path.Combine(_folder, ShortFormTable.FileName), "Eino: Eni\nQuillon Lon\n");
        Problem().ShouldContain("Line 2");
        File.WriteAllText(System.IO.Path.Combine(_folder, ShortFormTable.FileName), "Quillon: Lon\n");
        Open().ShortForms.IsOf("lon", "quillon").ShouldBeTrue();
    }

    [Fact]
    public void A_damaged_an_empty_and_a_strange_file_are_said_and_left_as_they_are()
    {
        File.WriteAllText(Path, new string('x', 5000));
        Problem().ShouldContain("damaged");
        File.ReadAllText(Path).ShouldBe(new string('x', 5000));
        File.WriteAllText(Path, "");
        Problem().ShouldContain("is empty");
        File.Delete(Path);
        using (var strange = new SqliteConnection($"Data Source={Path};Pooling=False"))
        {
            strange.Open();
            using var make = strange.CreateCommand();
            make.CommandText = "CREATE TABLE things (id INTEGER)";
            make.ExecuteNonQuery();
        }

        Problem().ShouldContain("no file of Polite Tally");
    }

    [Fact]
    public void A_file_of_a_newer_version_is_left_to_that_version()
    {
        using (var db = Open().Open(Guid.Empty))
        {
            db.Database.ExecuteSqlRaw("""INSERT INTO "__EFMigrationsHistory" VALUES ('29990101000000_Later', '30.0.0')""");
        }

        Problem().ShouldContain("newer version");
    }

    public static TheoryData<Exception, string> Breaks => new()
    {
        { new IOException("No space left on device."), "No space left on device" },
        { new SqliteException("database or disk is full", 13), "is full. Make room" },
        { new SqliteException("disk I/O error", 10), "full, or it fails" },
        { new SqliteException("attempt to write a readonly database", 8), "the right to write" },
        { new SqliteException("unable to open database file", 14), "the right to write" },
        { new UnauthorizedAccessException("Access to the path is denied."), "Access to the path is denied" },
    };

    /// <summary>As if the disk were full or no longer to be written, halfway through.</summary>
    [Theory]
    [MemberData(nameof(Breaks), DisableDiscoveryEnumeration = true)]
    public void What_fills_a_new_file_counts_as_a_whole_or_not_at_all(Exception breaks, string said)
    {
        void Half(SchoolFile made)
        {
            using var db = made.Open(Guid.CreateVersion7());
            db.Classes.Add(new Store.Model.SchoolClass { Id = Guid.CreateVersion7(), Name = "half of it" });
            db.SaveChanges();
            throw breaks;
        }

        Should.Throw<StartProblem>(() => Open(Half)).Message.ShouldContain(said);
        File.Exists(Path).ShouldBeFalse();
        using var anew = Open(_ => { }).Open(Guid.Empty);
        anew.Classes.IgnoreQueryFilters().Count().ShouldBe(0);
    }

    [Fact]
    public void A_place_where_no_file_can_be_put_is_said()
    {
        Directory.CreateDirectory(Path);
        Problem().ShouldContain("cannot be used");
    }

    [Fact]
    public void Before_a_file_is_brought_up_to_date_a_copy_is_kept_and_said()
    {
        using (var old = new SchoolFile(_folder).Open(Guid.Empty))
        {
            old.GetService<IMigrator>().Migrate("StudentPage");
        }

        SqliteConnection.ClearAllPools();
        var said = new List<string>();
        using var db = Open(said: said).Open(Guid.Empty);
        db.Database.GetPendingMigrations().ShouldBeEmpty();
        var kept = Directory.GetFiles(_folder, "polite-tally.before-*.db").ShouldHaveSingleItem();
        said.ShouldHaveSingleItem().ShouldContain(System.IO.Path.GetFileName(kept));
        using var before = new SqliteConnection($"Data Source={kept};Pooling=False");
        before.Open();
        using var read = before.CreateCommand();
        read.CommandText = """SELECT COUNT(*) FROM pragma_table_info('Enrolments') WHERE name = 'LeftAt'""";
        read.ExecuteScalar().ShouldBe(1L);
    }

    private static NewAccount Account(int number, string? word = null) =>
        new($"teacher{number}@skerrysound.example", "rule of twelfths", "Tamsin Vale", "Skerry Sound", "Atlantic/Faroe", word);

    private async Task<(AppUnderTest App, Visitor Visitor)> Empty(Uri? address = null)
    {
        var app = new AppUnderTest { SchoolAddress = address };
        await app.InitializeAsync();
        await using var db = app.File.Open(Guid.Empty);
        await db.Users.ExecuteDeleteAsync(TestContext.Current.CancellationToken);
        await app.Restart();
        var visitor = app.Visitor();
        await visitor.Enter();
        return (app, visitor);
    }

    [Fact]
    public async Task Of_many_first_accounts_at_once_one_is_made()
    {
        var (app, visitor) = await Empty();
        await using var _ = app;
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(i => visitor.Post("/api/accounts", Account(i))));
        answers.Count(a => a.StatusCode == HttpStatusCode.NoContent).ShouldBe(1);
        await using var db = app.File.Open(Guid.Empty);
        (await db.Users.CountAsync(TestContext.Current.CancellationToken)).ShouldBe(1);
    }

    [Fact]
    public async Task Where_others_are_answered_the_first_account_takes_the_word_and_the_demo_school_is_not_offered()
    {
        var (app, visitor) = await Empty(new Uri("http://127.0.0.1:5081"));
        await using var _ = app;
        var session = await visitor.Get<Session>("/api/session");
        (session.AsksForWord, session.OffersDemo).ShouldBe((true, false));
        (await visitor.Post("/api/accounts", Account(1))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await visitor.Post("/api/accounts", Account(1, "tavo-kile-muna"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var word = app.Part<FirstAccount>().Word!;
        (await visitor.Post("/api/accounts", Account(1, word.ToUpperInvariant()))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task What_an_account_lacks_or_has_too_much_of_is_refused()
    {
        var (app, visitor) = await Empty();
        await using var _ = app;
        foreach (var wrong in new[] { Account(1) with { Name = "" }, Account(1) with { School = new string('x', 5000) }, Account(1) with { Email = " " } })
        {
            var answer = await visitor.Post("/api/accounts", wrong);
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await answer.Content.ReadFromJsonAsync<Microsoft.AspNetCore.Mvc.ProblemDetails>(TestContext.Current.CancellationToken))!.Detail.ShouldNotBeNullOrEmpty();
        }
    }

    [Fact]
    public async Task Signing_out_ends_the_session_whatever_cookie_is_shown()
    {
        await using var app = new AppUnderTest();
        await app.InitializeAsync();
        var (here, elsewhere) = (await app.SignedIn(), await app.SignedIn("odhran"));
        var copied = app.Visitor();
        copied.Cookies.Add(here.Cookies.GetCookies(new Uri(app.Address)));
        await copied.Enter();
        (await copied.Http.GetAsync("/api/classes", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await here.Http.DeleteAsync("/api/session", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await copied.Http.GetAsync("/api/classes", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await elsewhere.Http.GetAsync("/api/classes", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>Who somebody is is read anew every half hour; a teacher in a lesson notices nothing of it.</summary>
    [Fact]
    public async Task A_session_goes_on_when_who_it_is_is_read_anew()
    {
        await using var app = new AppUnderTest();
        await app.InitializeAsync();
        var (here, ended) = (await app.SignedIn(), await app.SignedIn("odhran"));
        app.Part<Microsoft.Extensions.Options.IOptions<Microsoft.AspNetCore.Identity.SecurityStampValidatorOptions>>().Value.ValidationInterval = TimeSpan.Zero;
        for (var renewal = 0; renewal < 4; renewal++)
        {
            (await here.Http.GetAsync("/api/classes", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK, $"renewal {renewal}");
        }

        // Signed out is signed out, and another stamp, as with another password, ends it.
        (await ended.Http.DeleteAsync("/api/session", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await using (var db = app.File.Open(Guid.Empty))
        {
            await db.Users.ExecuteUpdateAsync(set => set.SetProperty(u => u.SecurityStamp, "another"), TestContext.Current.CancellationToken);
        }

        (await here.Http.GetAsync("/api/classes", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    /// <summary>What is answered, and how much work it takes, is the same for an address that nobody has.</summary>
    [Fact]
    public async Task Signing_in_tells_nobody_who_has_an_account()
    {
        await using var app = new AppUnderTest();
        await app.InitializeAsync();
        var visitor = app.Visitor();
        await visitor.Enter();
        var answers = new Dictionary<string, List<string>>();
        foreach (var email in new[] { "tamsin@skerrysound.example", "nobody@skerrysound.example" })
        {
            answers[email] = [];
            for (var i = 0; i < SignInWatch.FromOne + 1; i++)
            {
                var answer = await visitor.Post("/api/session", new SignIn(email, "not the password"));
                answers[email].Add($"{(int)answer.StatusCode} {(await answer.Content.ReadFromJsonAsync<Microsoft.AspNetCore.Mvc.ProblemDetails>(TestContext.Current.CancellationToken))!.Detail}");
            }
        }

        answers["tamsin@skerrysound.example"].ShouldBe(answers["nobody@skerrysound.example"]);
        answers["nobody@skerrysound.example"][^1].ShouldContain("Too many attempts");
    }

    [Theory]
    [InlineData("/live", "https://elsewhere.example", HttpStatusCode.Forbidden)]
    [InlineData("/page/live", "http://127.0.0.1:1", HttpStatusCode.Forbidden)]
    [InlineData("/help/live", "null", HttpStatusCode.Forbidden)]
    [InlineData("/page/live", null, HttpStatusCode.OK)]
    public async Task No_page_of_another_site_opens_a_line(string hub, string? origin, HttpStatusCode answered)
    {
        await using var app = new AppUnderTest();
        await app.InitializeAsync();
        using var http = new HttpClient { BaseAddress = new Uri(app.Address) };
        using var ask = new HttpRequestMessage(HttpMethod.Post, $"{hub}/negotiate?negotiateVersion=1");
        if (origin is not null)
        {
            ask.Headers.Add("Origin", origin);
        }

        (await http.SendAsync(ask, TestContext.Current.CancellationToken)).StatusCode.ShouldBe(answered);
    }
}
