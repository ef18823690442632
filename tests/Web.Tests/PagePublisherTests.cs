using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging.Abstractions;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>Who has a page open: told by the windows that come and go, not by every dropped line.</summary>
public sealed class PagePublisherTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private readonly FakeTimeProvider _time = new();

    private LedgerWriter Ledger => app.Part<LedgerWriter>();

    private PagePublisher Publisher() => new(
        Ledger, app.File, app.Part<IHubContext<PageHub>>(), SystemClock.Instance, _time, app.Part<IHostApplicationLifetime>(), NullLogger<PagePublisher>.Instance);

    private async Task<(Classroom Taught, OpenLesson Room)> Lesson()
    {
        var taught = await (await app.SignedIn()).Teach();
        await using var db = app.File.Open(Guid.Empty);
        var owner = await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == taught.Lesson).Select(l => l.OwnerId).SingleAsync();
        return (taught, Ledger.Find(owner, taught.Lesson)!);
    }

    private static PageGuest Guest(OpenLesson room, Guid student) => new(Guid.CreateVersion7(), room, student, "", TurnedAway: false);

    /// <summary>Opens a window of a student, which then is open by the ledger.</summary>
    private static async Task<Window> Opens(PagePublisher publisher, OpenLesson room, Guid student)
    {
        var window = new Window();
        await publisher.Watched(Guest(room, student), window);
        room.State().State.Of(student).PageOpenBy.ShouldNotBeNull();
        return window;
    }

    private static IReadOnlyList<Entry> Noted<T>(OpenLesson room, Guid student)
        where T : StudentAct => [.. room.State().State.Entries.Where(e => e.Act is T act && act.Student == student)];

    /// <summary>Lets time pass until the ledger has it that a student's page is closed.</summary>
    private async Task UntilClosed(OpenLesson room, Guid student, TimeSpan step)
    {
        var closed = new TaskCompletionSource();
        void Look(Guid lesson)
        {
            if (Noted<PageClosed>(room, student).Count > 0)
            {
                closed.TrySetResult();
            }
        }

        Ledger.Changed += Look;
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while (await Task.WhenAny(closed.Task, Task.Delay(10, patience.Token)) != closed.Task)
        {
            patience.Token.ThrowIfCancellationRequested();
            _time.Advance(step);
        }

        Ledger.Changed -= Look;
    }

    [Fact]
    public async Task A_line_that_drops_and_comes_back_closes_nothing_and_the_last_window_closes_the_page_as_of_when_it_went()
    {
        var (taught, room) = await Lesson();
        var juno = taught.Students["Juno"];
        var publisher = Publisher();
        var first = await Opens(publisher, room, juno);
        publisher.Gone(first.ConnectionId);
        _time.Advance(PagePublisher.Grace - TimeSpan.FromSeconds(1));
        var again = await Opens(publisher, room, juno);
        _time.Advance(PagePublisher.Grace);

        var other = await Opens(publisher, room, juno);
        publisher.Gone(again.ConnectionId);
        _time.Advance(PagePublisher.Grace);

        var from = Classroom.Now;
        publisher.Gone(other.ConnectionId);
        var to = SystemClock.Instance.GetCurrentInstant();
        await UntilClosed(room, juno, PagePublisher.Grace);
        Noted<PageClosed>(room, juno).ShouldHaveSingleItem().HappenedAt.ShouldBeInRange(from, to);
        Noted<PageOpened>(room, juno).ShouldHaveSingleItem();
    }

    [Fact]
    public async Task After_a_restart_whoever_does_not_come_back_is_gone_since_they_were_last_heard_of()
    {
        var (taught, room) = await Lesson();
        var (juno, eino) = (taught.Students["Juno"], taught.Students["Eino"]);
        var before = Publisher();
        await Opens(before, room, juno);
        await Opens(before, room, eino);
        var last = Noted<PageOpened>(room, eino)[^1].HappenedAt;

        var after = Publisher();
        await after.StartAsync(TestContext.Current.CancellationToken);
        await after.Watched(Guest(room, juno), new Window());
        await UntilClosed(room, eino, PagePublisher.GraceAfterStart);
        await after.StopAsync(TestContext.Current.CancellationToken);
        Noted<PageClosed>(room, eino).ShouldHaveSingleItem().HappenedAt.ShouldBe(last);
        Noted<PageClosed>(room, juno).ShouldBeEmpty();
    }

    /// <summary>A window as the hub knows it.</summary>
    private sealed class Window : HubCallerContext
    {
        public override string ConnectionId { get; } = Guid.NewGuid().ToString();

        public override string? UserIdentifier => null;

        public override System.Security.Claims.ClaimsPrincipal? User => null;

        public override IDictionary<object, object?> Items { get; } = new Dictionary<object, object?>();

        public override IFeatureCollection Features { get; } = new FeatureCollection();

        public override CancellationToken ConnectionAborted => CancellationToken.None;

        public override void Abort()
        {
            // Nothing to close: there is no line.
        }
    }
}
