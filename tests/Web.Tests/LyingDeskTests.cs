using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Register;
using PoliteTally.Web.Hosting;

namespace PoliteTally.Web.Tests;

/// <summary>A register counts as handed in only if the desk says so as agreed, twice; whatever else answers there neither has it nor holds anybody up.</summary>
public sealed class LyingDeskTests : IAsyncLifetime
{
    private Func<HttpContext, Task> _answer = _ => Task.CompletedTask;
    private int _elsewhere;
    private WebApplication _desk = null!;
    private AppUnderTest _app = null!;

    public async ValueTask InitializeAsync()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.SetMinimumLevel(LogLevel.Critical);
        builder.WebHost.UseSetting("urls", "http://127.0.0.1:0");
        _desk = builder.Build();
        _desk.Run(context =>
        {
            if (context.Request.Path.StartsWithSegments("/elsewhere"))
            {
                Interlocked.Increment(ref _elsewhere);
                return context.Response.WriteAsync("<html>Sign in");
            }

            return _answer(context);
        });
        await _desk.StartAsync();
        _app = new AppUnderTest { Desk = new RegisterDeskAddress(new Uri(_desk.Urls.First() + "/"), "token") };
        await _app.InitializeAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await _app.DisposeAsync();
        await _desk.DisposeAsync();
    }

    private async Task<Classroom> Settled() => await (await _app.SignedIn()).TeachAndSettle();

    private static async Task<HandInLine> HandIn(Classroom room) =>
        (await room.Teacher.Post<RegisterStands>($"/api/lessons/{room.Lesson}/register", new HandInSent(HandInWay.Desk, "", 0))).HandIns[0];

    private static Func<HttpContext, Task> Says(int status, string type, string body, int? asked = null, string? askedBody = null) => context =>
    {
        var isAsked = HttpMethods.IsGet(context.Request.Method);
        context.Response.StatusCode = isAsked ? asked ?? status : status;
        context.Response.ContentType = type;
        if (status is >= 300 and < 400)
        {
            context.Response.Headers.Location = "/elsewhere";
        }

        var path = context.Request.Path.Value!.Split('/');
        return context.Response.WriteAsync((isAsked ? askedBody ?? body : body).Replace("LESSON", path[^2], StringComparison.Ordinal).Replace("VERSION", path[^1], StringComparison.Ordinal));
    };

    private const string Json = "application/json";
    private const string Receipt = """{"lesson":"LESSON","version":VERSION}""";

    private static readonly (int Status, string Type, string Body, int? Asked, string? AskedBody, HandInState State, string Said)[] Answers =
    [
        (201, Json, Receipt, 200, null, HandInState.Taken, "has it"),
        (200, Json, """{"lesson":"LESSON","version":VERSION,"students":[]}""", 200, Receipt, HandInState.Taken, "has it"),
        (302, "text/html", "", null, null, HandInState.Waiting, "points elsewhere"),
        (307, "text/html", "", null, null, HandInState.Waiting, "points elsewhere"),
        (200, "text/html", "<html>Sign in to go on</html>", null, null, HandInState.Waiting, "is no register desk"),
        (200, Json, "", null, null, HandInState.Waiting, "is no register desk"),
        (200, Json, "[]", null, null, HandInState.Waiting, "is no register desk"),
        (204, Json, "", null, null, HandInState.Waiting, "is no register desk"),
        (200, Json, """{"lesson":"LESSON","version":99}""", null, null, HandInState.Waiting, "is no register desk"),
        (200, Json, """{"lesson":"another","version":VERSION}""", null, null, HandInState.Waiting, "is no register desk"),
        (200, Json, """{"lesson":7,"version":"1"}""", null, null, HandInState.Waiting, "is no register desk"),
        (201, Json, Receipt, 404, null, HandInState.Waiting, "when asked has not"),
        (201, Json, Receipt, 200, "<html>", HandInState.InDoubt, "could not be asked"),
        (500, "text/html", "<html>", null, null, HandInState.Waiting, "is away"),
        (503, Json, "{}", null, null, HandInState.Waiting, "is away"),
        (429, Json, "{}", null, null, HandInState.Waiting, "is away"),
        (403, Json, "{}", null, null, HandInState.Refused, "token is wrong"),
        (409, "application/problem+json", """{"detail":"Registers are\u0000 taken \u202euntil four."}""", null, null, HandInState.Refused, "Registers are taken until four."),
        (422, Json, """{"detail":"\ud800"}""", null, null, HandInState.Refused, "gives no reason"),
        (422, "text/html", "<html>no</html>", null, null, HandInState.Refused, "gives no reason"),
    ];

    [Fact]
    public async Task Only_what_is_agreed_counts()
    {
        foreach (var one in Answers)
        {
            _answer = Says(one.Status, one.Type, one.Body, one.Asked, one.AskedBody);
            var line = await HandIn(await Settled());
            line.State.ShouldBe(one.State, $"{one}: {line.Said}");
            line.Said.ShouldContain(one.Said);
        }

        _elsewhere.ShouldBe(0);
    }

    /// <summary>Zeros without end, and how many of them were read.</summary>
    private sealed class Endless : Stream
    {
        public long Taken { get; private set; }

        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new NotSupportedException();

        public override long Position { get => throw new NotSupportedException(); set => throw new NotSupportedException(); }

        public override int Read(byte[] buffer, int offset, int count)
        {
            Taken += count;
            Array.Fill(buffer, (byte)'0', offset, count);
            return count;
        }

        public override void Flush()
        {
        }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }

    private sealed class Answering(Stream body) : HttpMessageHandler
    {
        protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
        {
            var answer = new HttpResponseMessage { Content = new StreamContent(body) };
            answer.Content.Headers.ContentType = new(Json);
            return Task.FromResult(answer);
        }
    }

    [Fact]
    public async Task An_answer_without_end_is_left_after_its_bound()
    {
        using var body = new Endless();
        using var client = new HttpClient(new Answering(body));
        var desk = new RegisterDesk(client, new Settings("", 0, Demo: false, Desk: new RegisterDeskAddress(new Uri("http://127.0.0.1:1/"), "token")));
        (await desk.HandIn(new RegisterSheet(Guid.NewGuid(), "", "", default, default, 1, "", [], []), TestContext.Current.CancellationToken)).Says.ShouldBe(DeskSays.Away);
        body.Taken.ShouldBeInRange(1_000_000, 1_100_000);
    }

    /// <summary>The desk holds the register of one lesson; the one of another class goes meanwhile.</summary>
    [Fact]
    public async Task A_desk_that_drips_holds_up_no_other_class_and_ends_in_doubt()
    {
        var (slow, quick) = (await Settled(), await Settled());
        var held = new TaskCompletionSource();
        var good = Says(201, Json, Receipt, 200);
        _answer = async context =>
        {
            if (!context.Request.Path.Value!.Contains($"{slow.Lesson}", StringComparison.Ordinal))
            {
                await good(context);
                return;
            }

            context.Response.ContentType = Json;
            held.TrySetResult();
            while (!context.RequestAborted.IsCancellationRequested)
            {
                await context.Response.WriteAsync(" ", context.RequestAborted);
                await context.Response.Body.FlushAsync(context.RequestAborted);
                await Task.Delay(100, context.RequestAborted);
            }
        };
        var waiting = HandIn(slow);
        await held.Task.WaitAsync(TimeSpan.FromSeconds(20), TestContext.Current.CancellationToken);
        (await HandIn(quick)).State.ShouldBe(HandInState.Taken);
        waiting.IsCompleted.ShouldBeFalse();
        (await waiting).State.ShouldBe(HandInState.InDoubt);
    }
}
