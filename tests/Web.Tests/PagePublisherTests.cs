using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging.Abstractions;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Page;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.StudentPage;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Tests;

/// <summary>Who has a page open: told by the windows that come and go, not by every dropped line.</summary>
public sealed class PagePublisherTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private readonly FakeTimeProvider _time = new();

    private LedgerWriter Ledger => app.Part<LedgerWriter>();

    private OpenLessons Lessons => app.Part<OpenLessons>();

    private PagePublisher Publisher() => new(
        Ledger, Lessons, app.File, app.Part<OpenWindows>(), SystemClock.Instance, _time, app.Part<IHostApplicationLifetime>(), NullLogger<PagePublisher>.Instance);

    /// <summary>A lesson, and how to look at it as it stands.</summary>
    private async Task<(Classroom Taught, Func<Task<OpenLesson>> Room)> Lesson()
    {
        var taught = await (await app.SignedIn()).Teach();
        await using var db = app.File.Open(Guid.Empty);
        var owner = await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == taught.Lesson).Select(l => l.OwnerId).SingleAsync();
        return (taught, async () => (await Lessons.Find(owner, taught.Lesson))!);
    }

    private static PageGuest Guest(OpenLesson room, Guid student) => new(Guid.CreateVersion7(), room, student, "", TurnedAway: false);

    /// <summary>Opens a window of a student, which then is open by the ledger.</summary>
    private static async Task<FakeWindow> Opens(PagePublisher publisher, Func<Task<OpenLesson>> room, Guid student)
    {
        var window = new FakeWindow();
        await publisher.Watched(Guest(await room(), student), window, window);
        (await room()).State.Page.OpenBy(student).ShouldNotBeNull();
        return window;
    }

    private static async Task<IReadOnlyList<Entry>> Noted<T>(Func<Task<OpenLesson>> room, Guid student)
        where T : StudentAct => [.. (await room()).State.Entries.Where(e => e.Act is T act && act.Student == student)];

    /// <summary>Lets time pass until the ledger has it that a student's page is closed.</summary>
    private async Task UntilClosed(Func<Task<OpenLesson>> room, Guid student, TimeSpan step)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while ((await Noted<PageClosed>(room, student)).Count == 0)
        {
            patience.Token.ThrowIfCancellationRequested();
            _time.Advance(step);
            await Task.Delay(10, patience.Token);
        }
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
        (await Noted<PageClosed>(room, juno)).ShouldHaveSingleItem().HappenedAt.ShouldBeInRange(from, to);
        (await Noted<PageOpened>(room, juno)).ShouldHaveSingleItem();
    }

    [Fact]
    public async Task After_a_restart_whoever_does_not_come_back_is_gone_since_they_were_last_heard_of()
    {
        var (taught, room) = await Lesson();
        var (juno, eino) = (taught.Students["Juno"], taught.Students["Eino"]);
        var before = Publisher();
        await Opens(before, room, juno);
        await Opens(before, room, eino);
        var last = (await Noted<PageOpened>(room, eino))[^1].HappenedAt;

        var after = Publisher();
        await after.StartAsync(TestContext.Current.CancellationToken);
        var window = new FakeWindow();
        await after.Watched(Guest(await room(), juno), window, window);
        await UntilClosed(room, eino, PagePublisher.GraceAfterStart);
        await after.StopAsync(TestContext.Current.CancellationToken);
        (await Noted<PageClosed>(room, eino)).ShouldHaveSingleItem().HappenedAt.ShouldBe(last);
        (await Noted<PageClosed>(room, juno)).ShouldBeEmpty();
    }
}
