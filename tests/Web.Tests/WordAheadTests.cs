using System.Buffers;
using System.Collections.Concurrent;
using System.Net;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Desk;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.WordAhead;
using PoliteTally.Web.Hosting;
using PoliteTally.Web.Mail;
using SmtpServer;
using SmtpServer.ComponentModel;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace PoliteTally.Web.Tests;

public sealed class WordAheadTests
{
    private const string Roster = "Given name,Family name,E-mail\nJuno,Quillfeather,juno@pupils.skerrysound.example\nEino,Rautio,eino@pupils.skerrysound.example\nZainab,Usman,\n";

    /// <summary>A class of three, two of them with an address, and a lesson of it that begins in a few minutes.</summary>
    private static async Task<(Visitor Teacher, Guid Class, Guid Lesson)> Soon(AppUnderTest app, bool on = true)
    {
        var teacher = await app.SignedIn();
        var made = await teacher.Post<ClassLine>("/api/classes", new NewClass("Weather and Tides"));
        await teacher.Send($"/api/classes/{made.Id}/roster", Roster);
        await teacher.Put<RulesStored>($"/api/classes/{made.Id}/rules", new RulesSent(ClassRules.Default with { WordAhead = new() { On = on, Ahead = Duration.FromMinutes(30) } }));
        var start = (SystemClock.Instance.GetCurrentInstant() + Duration.FromMinutes(20)).InZone(DateTimeZoneProviders.Tzdb["Atlantic/Faroe"]);
        var lesson = await teacher.Post<LessonLine>($"/api/classes/{made.Id}/lessons/planned", new LessonPlanned(
            "Fog and haar", start.Date, new LocalTime(start.Hour, start.Minute), 50, false, "https://meet.skerrysound.example/w", false));
        return (teacher, made.Id, lesson.Id);
    }

    private static Task<WordView> Word(Visitor teacher, Guid lesson) => teacher.Get<WordView>($"/api/lessons/{lesson}/word");

    private static Task SendDue(AppUnderTest app) => app.Part<WordAheadSender>().SendDue(CancellationToken.None);

    private static async Task<AppUnderTest> Running(MailServer? mail = null)
    {
        var app = new AppUnderTest { Mail = mail };
        await app.InitializeAsync();
        return app;
    }

    [Fact]
    public async Task What_is_due_goes_once_to_each_student_and_survives_a_restart()
    {
        await using var app = await Running();
        var (teacher, _, lesson) = await Soon(app);
        await SendDue(app);
        await SendDue(app);
        await app.Restart();
        await SendDue(app);

        teacher = await app.SignedIn();
        var word = await Word(teacher, lesson);
        word.Stands.ShouldBe(WordStands.Sent);
        word.Said.ShouldBe("Went to 2 students. 1 student without an e-mail address.");
        var messages = await teacher.Get<List<OutboxLine>>("/api/outbox");
        messages.Select(m => m.To).Order().ShouldBe(["eino@pupils.skerrysound.example", "juno@pupils.skerrysound.example"]);
        messages[0].Subject.ShouldContain("Fog and haar");
        messages[0].Text.ShouldContain("https://meet.skerrysound.example/w");
        // The files are mail that any program opens, and nobody else sees them.
        using var mail = await MimeMessage.LoadAsync(Directory.GetFiles(Path.Combine(app.Folder, "outbox"), "*.eml", SearchOption.AllDirectories)[0]);
        mail.ReplyTo.Mailboxes.Single().Address.ShouldBe("tamsin@skerrysound.example");
        (await (await app.SignedIn("odhran")).Get<List<OutboxLine>>("/api/outbox")).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_on_its_way_when_the_program_stopped_is_said_to_be_in_doubt()
    {
        await using var app = await Running();
        var (teacher, _, lesson) = await Soon(app, on: false);
        var students = (await teacher.Get<ClassView>($"/api/classes/{(await teacher.Get<List<ClassLine>>("/api/classes"))[0].Id}")).Students;
        await using (var db = app.File.Open((await app.File.Open(Guid.Empty).Users.SingleAsync(u => u.DisplayName == "tamsin")).Id))
        {
            // As a sudden stop leaves it: noted as going, and nobody knows whether it went.
            var now = SystemClock.Instance.GetCurrentInstant();
            db.WordOfLessons.Add(new WordOfLesson { LessonId = lesson, State = WordState.Going, At = now });
            db.WordsSent.Add(new WordSent { LessonId = lesson, StudentId = students.Single(s => s.Called == "Juno").Id, Address = "juno@pupils.skerrysound.example", State = WordState.Going, At = now });
            await db.SaveChangesAsync();
        }

        var rules = await teacher.Get<RulesView>($"/api/lessons/{lesson}/rules");
        await teacher.Put<RulesStored>($"/api/lessons/{lesson}/rules", new RulesSent(rules.Rules with { WordAhead = rules.Rules.WordAhead with { On = true } }));
        await SendDue(app);
        var word = await Word(teacher, lesson);
        word.Stands.ShouldBe(WordStands.NotSent);
        word.Said.ShouldContain("Went to 1 student.");
        word.Said.ShouldContain("perhaps it went, perhaps not");
        (await teacher.Get<List<OutboxLine>>("/api/outbox")).ShouldHaveSingleItem().To.ShouldContain("eino");

        // The teacher decides: sent again to whoever is in doubt, and to nobody else.
        (await teacher.Post<WordView>($"/api/lessons/{lesson}/word", new { })).Stands.ShouldBe(WordStands.Sent);
        (await teacher.Get<List<OutboxLine>>("/api/outbox")).Count.ShouldBe(2);
    }

    [Fact]
    public async Task Nothing_goes_out_for_lessons_that_are_off_cancelled_or_of_a_class_put_away()
    {
        await using var app = await Running();
        var (teacher, _, off) = await Soon(app, on: false);
        var (_, _, cancelled) = await Soon(app);
        var line = (await teacher.Get<CalendarView>($"/api/calendar?from={(await teacher.Get<CalendarView>("/api/calendar?from=2026-01-01&days=1")).Today:uuuu-MM-dd}&days=2")).Days.SelectMany(d => d.Lessons).Single(l => l.Id == cancelled);
        var start = line.PlannedStart.InZone(DateTimeZoneProviders.Tzdb["Atlantic/Faroe"]);
        await teacher.Put<LessonLine>($"/api/lessons/{cancelled}", new LessonPlanned(line.Title, start.Date, start.TimeOfDay, 50, false, line.MeetingLink, Cancelled: true));
        var (_, away, putAway) = await Soon(app);
        await teacher.Put($"/api/classes/{away}", new ClassChange("Weather", null, Archived: true));
        await SendDue(app);

        (await teacher.Get<List<OutboxLine>>("/api/outbox")).ShouldBeEmpty();
        (await Word(teacher, off)).Stands.ShouldBe(WordStands.Off);
        (await Word(teacher, cancelled)).Stands.ShouldBe(WordStands.Off);
        (await Word(teacher, putAway)).Stands.ShouldBe(WordStands.Waits);
        (await teacher.Post($"/api/lessons/{cancelled}/word", new { })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_preview_reads_as_it_will_for_that_student()
    {
        await using var app = await Running();
        var (teacher, inClass, lesson) = await Soon(app);
        var eino = (await teacher.Get<ClassView>($"/api/classes/{inClass}")).Students.Single(s => s.Called == "Eino");
        var word = await teacher.Get<WordView>($"/api/lessons/{lesson}/word?student={eino.Id}");
        word.To.ShouldBe("eino@pupils.skerrysound.example");
        word.Text.ShouldStartWith("Hello Eino,");
        word.StandIn.ShouldBeTrue();
    }

    [Fact]
    public async Task A_mail_server_is_spoken_to_and_what_it_refuses_is_said()
    {
        var inbox = new Inbox(refused: "eino");
        await using var post = new PostOffice(inbox);
        await using (var app = await Running(new MailServer("127.0.0.1", post.Port, Encrypted: false, null, null, "lessons@skerrysound.example")))
        {
            var (teacher, _, lesson) = await Soon(app);
            await SendDue(app);
            var word = await Word(teacher, lesson);
            word.Stands.ShouldBe(WordStands.NotSent);
            word.StandIn.ShouldBeFalse();
            word.Said.ShouldContain("Went to 1 student.");
            word.Said.ShouldContain("Did not go to 1 student: The mail server refused it");
            inbox.Taken.ShouldHaveSingleItem().ShouldContain("Hello Juno,");
            (await teacher.Get<Desk>("/api/desk")).WordsNotSent.ShouldHaveSingleItem().Why.ShouldContain("refused");
        }
    }

    [Fact]
    public async Task A_mail_server_that_is_away_is_said_and_nothing_counts_as_sent()
    {
        await using var app = await Running(new MailServer("127.0.0.1", FreePort(), Encrypted: false, null, null, "lessons@skerrysound.example"));
        var (teacher, _, lesson) = await Soon(app);
        await SendDue(app);
        var word = await Word(teacher, lesson);
        word.Stands.ShouldBe(WordStands.NotSent);
        word.Said.ShouldContain("cannot be reached. It is tried again");
        word.Students.ShouldBeEmpty();
        (await teacher.Get<Desk>("/api/desk")).WordsNotSent.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task An_outbox_that_could_not_be_written_to_is_tried_again()
    {
        await using var app = await Running();
        var (teacher, _, lesson) = await Soon(app);
        // A file where the folder should be; then it is out of the way, and half a minute has gone by.
        var outbox = Path.Combine(app.Folder, "outbox");
        await File.WriteAllTextAsync(outbox, "");
        await SendDue(app);
        (await Word(teacher, lesson)).Said.ShouldContain("cannot be written to");
        File.Delete(outbox);
        await SendDue(app);
        (await teacher.Get<List<OutboxLine>>("/api/outbox")).ShouldBeEmpty();
        await using (var db = app.File.Open(Guid.Empty))
        {
            await db.WordOfLessons.IgnoreQueryFilters().ExecuteUpdateAsync(set => set.SetProperty(w => w.At, w => SystemClock.Instance.GetCurrentInstant() - Duration.FromSeconds(31)));
        }

        await SendDue(app);
        (await Word(teacher, lesson)).Stands.ShouldBe(WordStands.Sent);
        (await teacher.Get<List<OutboxLine>>("/api/outbox")).Count.ShouldBe(2);
    }

    private static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    /// <summary>A mail server without encryption that takes passwords all the same.</summary>
    private sealed class PostOffice : IAsyncDisposable
    {
        private readonly CancellationTokenSource _stop = new();
        private readonly Task _serving;

        public PostOffice(Inbox inbox)
        {
            var services = new ServiceProvider();
            services.Add((IMessageStore)inbox);
            services.Add((IMailboxFilterFactory)inbox);
            var options = new SmtpServerOptionsBuilder().ServerName("localhost").Endpoint(e => e.Port(Port).AllowUnsecureAuthentication()).Build();
            _serving = new SmtpServer.SmtpServer(options, services).StartAsync(_stop.Token);
        }

        public int Port { get; } = FreePort();

        public async ValueTask DisposeAsync()
        {
            await _stop.CancelAsync();
            await _serving;
            _stop.Dispose();
        }
    }

    /// <summary>A mail server's inbox, which takes mail for everybody but one.</summary>
    private sealed class Inbox(string refused) : MessageStore, IMailboxFilter, IMailboxFilterFactory
    {
        public ConcurrentBag<string> Taken { get; } = [];

        public override Task<SmtpResponse> SaveAsync(ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer, CancellationToken cancellationToken)
        {
            using var message = MimeMessage.Load(new MemoryStream(buffer.ToArray()), cancellationToken);
            Taken.Add(message.TextBody ?? "");
            return Task.FromResult(SmtpResponse.Ok);
        }

        public Task<bool> CanAcceptFromAsync(ISessionContext context, SmtpServer.Mail.IMailbox from, int size, CancellationToken cancellationToken) => Task.FromResult(true);

        public Task<bool> CanDeliverToAsync(ISessionContext context, SmtpServer.Mail.IMailbox to, SmtpServer.Mail.IMailbox from, CancellationToken cancellationToken) =>
            Task.FromResult(to.User != refused);

        public IMailboxFilter CreateInstance(ISessionContext context) => this;
    }

    [Theory]
    [InlineData("b@x,y.example")]
    [InlineData("b@x y.example")]
    [InlineData("two@at@skerrysound.example")]
    [InlineData("<b@skerrysound.example>")]
    public async Task An_address_that_no_post_takes_is_refused_when_it_is_brought_in(string address)
    {
        await using var app = await Running();
        var teacher = await app.SignedIn();
        var made = await teacher.Post<ClassLine>("/api/classes", new NewClass("Weather and Tides"));
        var answer = await teacher.Send($"/api/classes/{made.Id}/roster", $"Given name,Family name,E-mail\nJuno,Quillfeather,\"{address}\"\n");
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("Row 2");
    }

    [Fact]
    public async Task One_message_that_cannot_be_written_never_stops_the_next()
    {
        await using var app = await Running();
        var (teacher, inClass, lesson) = await Soon(app);
        await using (var db = app.File.Open(Guid.Empty))
        {
            // From a file of before addresses were looked at so closely.
            await db.Students.IgnoreQueryFilters().Where(s => s.Given == "Eino").ExecuteUpdateAsync(set => set.SetProperty(s => s.Email, "b@x,y.example"));
        }

        await SendDue(app);
        await SendDue(app);
        var word = await Word(teacher, lesson);
        word.Students.Count(m => m.State == WordState.Sent).ShouldBe(1);
        word.Students.Count(m => m.State == WordState.NotSent).ShouldBe(1);
    }

    [Fact]
    public async Task A_mail_server_without_encryption_gets_neither_password_nor_message()
    {
        var inbox = new Inbox(refused: "");
        await using var post = new PostOffice(inbox);
        await using (var app = await Running(new MailServer("127.0.0.1", post.Port, Encrypted: true, "lessons", "rule of twelfths", "lessons@skerrysound.example")))
        {
            var (teacher, _, lesson) = await Soon(app);
            await SendDue(app);
            (await Word(teacher, lesson)).Said.ShouldContain("takes no encrypted connection");
            inbox.Taken.ShouldBeEmpty();
        }
    }
}
