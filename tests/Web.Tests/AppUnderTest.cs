using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Accounts;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Settling;
using PoliteTally.Web.Hosting;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Tests;

/// <summary>The application on a fresh data folder, on real HTTP.</summary>
public sealed class AppUnderTest : IAsyncLifetime
{
    private readonly Dictionary<string, CookieCollection> _signedIn = [];
    private WebApplication _app = null!;

    public string Address { get; private set; } = "";

    /// <summary>The data folder.</summary>
    public string Folder { get; } = Directory.CreateTempSubdirectory("polite-tally-test").FullName;

    /// <summary>A mail server instead of the folder that stands in for one; set before the application starts.</summary>
    public MailServer? Mail { get; init; }

    /// <summary>The register desk of the school; set before the application starts.</summary>
    public RegisterDeskAddress? Desk { get; init; }

    /// <summary>The address under which a web server on the same machine passes requests on; set before the application starts.</summary>
    public Uri? SchoolAddress { get; init; }

    /// <summary>The time that it goes by; null for that of this machine. Set before the application starts.</summary>
    public TimeProvider? Time { get; init; }

    /// <summary>A part of the running application.</summary>
    public T Part<T>()
        where T : notnull => _app.Services.GetRequiredService<T>();

    /// <summary>All parts of a kind.</summary>
    public IEnumerable<T> Parts<T>() => _app.Services.GetServices<T>();

    public SchoolFile File { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        await Start();
        File = new SchoolFile(Folder);
        await using var db = File.Open(Guid.Empty);
        db.Users.AddRange(TeacherNamed("tamsin"), TeacherNamed("odhran"));
        await db.SaveChangesAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await _app.StopAsync();
        await _app.DisposeAsync();
        Directory.Delete(Folder, recursive: true);
    }

    /// <summary>Ends the application and starts it again on the same data folder.</summary>
    public async Task Restart()
    {
        await _app.StopAsync();
        await _app.DisposeAsync();
        _signedIn.Clear();
        await Start();
    }

    private async Task Start()
    {
        _app = Application.Build(new Settings(Folder, 0, Demo: false, Mail, SchoolAddress, Desk), Time);
        await _app.StartAsync();
        Address = _app.Urls.First();
    }

    /// <summary>A browser that nobody has signed in with.</summary>
    public Visitor Visitor() => new(Address);

    /// <summary>A browser with Tamsin Vale or Odhran Pike signed in.</summary>
    public async Task<Visitor> SignedIn(string name = "tamsin")
    {
        // Once a name: signing in is limited in how often it may be tried.
        if (!_signedIn.TryGetValue(name, out var cookies))
        {
            var first = Visitor();
            await first.Enter();
            (await first.Post("/api/session", new SignIn($"{name}@skerrysound.example", "rule of twelfths"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
            _signedIn[name] = cookies = first.Cookies.GetCookies(new Uri(Address));
        }

        var visitor = Visitor();
        visitor.Cookies.Add(cookies);
        await visitor.Enter();
        return visitor;
    }

    private static Store.Model.Teacher TeacherNamed(string name)
    {
        var mail = $"{name}@skerrysound.example";
        var teacher = new Store.Model.Teacher
        {
            Id = Guid.CreateVersion7(),
            UserName = mail,
            NormalizedUserName = mail.ToUpperInvariant(),
            Email = mail,
            NormalizedEmail = mail.ToUpperInvariant(),
            SecurityStamp = "stamp",
            DisplayName = name,
            School = "Skerry Sound Online School",
            TimeZone = "Atlantic/Faroe",
            LockoutEnabled = true,
        };
        teacher.PasswordHash = new Microsoft.AspNetCore.Identity.PasswordHasher<Store.Model.Teacher>().HashPassword(teacher, "rule of twelfths");
        return teacher;
    }
}

/// <summary>A browser: keeps cookies.</summary>
public sealed class Visitor(string address)
{
    public static readonly JsonSerializerOptions Json = MadeJson();

    private readonly CookieContainer _cookies = new();

    public HttpClient Http { get; private set; } = null!;

    public CookieContainer Cookies => _cookies;

    public async Task<Session> Enter()
    {
        Http ??= new HttpClient(new HttpClientHandler { CookieContainer = _cookies }) { BaseAddress = new Uri(address) };
        return (await Http.GetFromJsonAsync<Session>("/api/session", Json))!;
    }

    public async Task<T> Get<T>(string path) => (await Http.GetFromJsonAsync<T>(path, Json))!;

    public Task<HttpResponseMessage> Post(string path, object? body) => Http.PostAsJsonAsync(path, body, Json);

    public async Task<T> Post<T>(string path, object body) => await Read<T>(await Post(path, body));

    public static async Task<T> Read<T>(HttpResponseMessage response)
    {
        response.IsSuccessStatusCode.ShouldBeTrue(await response.Content.ReadAsStringAsync());
        return (await response.Content.ReadFromJsonAsync<T>(Json))!;
    }

    public Task<HttpResponseMessage> Put(string path, object body) => Http.PutAsJsonAsync(path, body, Json);

    public async Task<T> Delete<T>(string path) => await Read<T>(await Http.DeleteAsync(path));

    public async Task<T> Put<T>(string path, object body) => await Read<T>(await Put(path, body));

    public Task<HttpResponseMessage> Send(string path, string content, params (string Field, string Value)[] decided) =>
        Send(path, System.Text.Encoding.UTF8.GetBytes(content), decided);

    public Task<HttpResponseMessage> Send(string path, byte[] content, params (string Field, string Value)[] decided)
    {
        var form = new MultipartFormDataContent { { new ByteArrayContent(content), "file", "list.csv" } };
        foreach (var (field, value) in decided)
        {
            form.Add(new StringContent(value), field);
        }

        return Http.PostAsync(path, form);
    }

    /// <summary>A class of three, with a settled lesson in which Juno was there.</summary>
    public async Task<Classroom> TeachAndSettle()
    {
        var room = await Teach();
        await room.Tap(new Marked(room.Students["Juno"], Mark.Here));
        await room.Tap(new LessonEnded());
        (await room.Tap(new LessonSettled())).Refused.ShouldBeEmpty();
        return room;
    }

    /// <summary>A class of three, with a lesson of it going on.</summary>
    public async Task<Classroom> Teach()
    {
        var made = await Post<ClassLine>("/api/classes", new NewClass("Weather and Tides"));
        const string roster = "Number,Given name,Family name\nS1,Juno,Quillfeather\nS2,Eino,Rautio\nS3,Zainab,Usman\n";
        await Read<RosterBroughtIn>(await Send($"/api/classes/{made.Id}/roster", roster));
        var lesson = await Post<LessonLine>($"/api/classes/{made.Id}/lessons", new LessonNow("Why the wind backs", 50));
        var page = await Get<ClassView>($"/api/classes/{made.Id}");
        return new Classroom(this, made.Id, lesson.Id, page.Students.ToDictionary(s => s.Called, s => s.Id));
    }

    private static JsonSerializerOptions MadeJson()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web);
        JsonFormat.Configure(options);
        return options;
    }
}

/// <summary>A lesson going on.</summary>
public sealed record Classroom(Visitor Teacher, Guid Class, Guid Lesson, IReadOnlyDictionary<string, Guid> Students)
{
    /// <summary>Another lesson of the class, going on.</summary>
    public async Task<Classroom> Next() =>
        this with { Lesson = (await Teacher.Post<LessonLine>($"/api/classes/{Class}/lessons", new LessonNow("Fog and haar", 50))).Id };

    public Task<LiveView> Sheet() => Teacher.Get<LiveView>($"/api/lessons/{Lesson}/live");

    public Task<WriteResult> Tap(params IEnumerable<Act> acts) => Tap(acts.Select(a => new SentEntry(Guid.CreateVersion7(), Now, a)));

    public Task<WriteResult> Tap(IEnumerable<SentEntry> entries) =>
        Teacher.Post<WriteResult>($"/api/lessons/{Lesson}/entries", new EntriesSent([.. entries]));

    public async Task<SettlingView> Settling() => await Teacher.Get<SettlingView>($"/api/lessons/{Lesson}/settling");

    public static Instant Now => Instant.FromUnixTimeMilliseconds(SystemClock.Instance.GetCurrentInstant().ToUnixTimeMilliseconds());
}
