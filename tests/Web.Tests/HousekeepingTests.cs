using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging.Abstractions;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>A program that stores nothing any more says so and ends, so that whoever watches over it starts it anew.</summary>
public sealed class HousekeepingTests(AppUnderTest app) : IClassFixture<AppUnderTest>, IDisposable
{
    private readonly FakeTimeProvider _time = new();
    private readonly Life _life = new();

    public void Dispose() => _life.Dispose();

    private Housekeeping House(LedgerWriter ledger) =>
        new(ledger, app.Part<PageSessions>(), _life, _time, NullLogger<Housekeeping>.Instance);

    [Fact]
    public async Task While_the_writer_turns_the_program_is_well_and_goes_on()
    {
        var cancel = TestContext.Current.CancellationToken;
        var house = House(app.Part<LedgerWriter>());
        await house.StartAsync(cancel);
        _time.Advance(TimeSpan.FromDays(2));
        house.IsWell.ShouldBeTrue();
        _life.ApplicationStopping.IsCancellationRequested.ShouldBeFalse();
        (await (await app.SignedIn()).Http.GetStringAsync("/health", cancel)).ShouldBe("well");
        await house.StopAsync(cancel);
    }

    [Fact]
    public async Task A_writer_that_stopped_ends_the_program()
    {
        var cancel = TestContext.Current.CancellationToken;
        var writer = new LedgerWriter(app.File, new OpenLessons(app.File), SystemClock.Instance, NullLogger<LedgerWriter>.Instance);
        await writer.DisposeAsync();
        var house = House(writer);
        house.IsWell.ShouldBeFalse();
        var before = Environment.ExitCode;
        await house.StartAsync(cancel);
        await house.ExecuteTask!.WaitAsync(TimeSpan.FromSeconds(20), cancel);
        _life.ApplicationStopping.IsCancellationRequested.ShouldBeTrue();
        Environment.ExitCode.ShouldBe(1);
        // It is the exit code of the tests too.
        Environment.ExitCode = before;
    }

    [Fact]
    public async Task A_writer_that_waits_for_a_lock_is_busy_and_no_longer_when_it_has_it()
    {
        var room = await (await app.SignedIn()).Teach();
        var writer = app.Part<LedgerWriter>();
        Task tap;
        await using (var db = app.File.Open(Guid.Empty))
        {
            await using var held = await db.Database.BeginTransactionAsync(TestContext.Current.CancellationToken);
            await db.EndedSessions.ExecuteDeleteAsync(TestContext.Current.CancellationToken);
            tap = room.Tap(new Core.Notes.NodGiven(room.Students["Juno"], "on time"));
            using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(4));
            while (writer.BusyFor == TimeSpan.Zero)
            {
                await Task.Delay(5, patience.Token);
            }
        }

        await tap;
        writer.BusyFor.ShouldBeLessThan(Housekeeping.Patience);
    }

    private sealed class Life : IHostApplicationLifetime, IDisposable
    {
        private readonly CancellationTokenSource _stopping = new();

        public CancellationToken ApplicationStarted => CancellationToken.None;

        public CancellationToken ApplicationStopping => _stopping.Token;

        public CancellationToken ApplicationStopped => CancellationToken.None;

        public void StopApplication() => _stopping.Cancel();

        public void Dispose() => _stopping.Dispose();
    }
}
