using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Questions;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Publishing;

namespace PoliteTally.Web.Tests;

/// <summary>The writer and the open lessons, without the doors before them: what nothing should send is sent.</summary>
public sealed class WriterTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private LedgerWriter Ledger => app.Part<LedgerWriter>();

    private OpenLessons Lessons => app.Part<OpenLessons>();

    private async Task<(Classroom Room, Guid Owner)> Taught()
    {
        var room = await (await app.SignedIn()).Teach();
        await using var db = app.File.Open(Guid.Empty);
        return (room, await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == room.Lesson).Select(l => l.OwnerId).SingleAsync());
    }

    private Task<WriteResult?> Note(Classroom room, Guid owner, params IEnumerable<Act> acts) =>
        Ledger.Append(owner, room.Lesson, Source.Tapped, "", [.. acts.Select(a => new NewEntry(Guid.CreateVersion7(), Classroom.Now, a))]);

    [Fact]
    public async Task An_entry_that_fails_takes_no_other_with_it()
    {
        var ((room, owner), (other, _)) = (await Taught(), await Taught());
        var asking = await StudentPageTests.Open(room, new Question { Id = Guid.NewGuid(), Kind = QuestionKind.WordList, Text = "The sea in three words", WordsEach = 3 });
        var bad = new AnswerGiven(room.Students["Juno"], asking, new Answer { Words = [null!] });
        var failing = Enumerable.Range(0, 20).Select(_ => Note(room, owner, new NodGiven(room.Students["Juno"], "helped someone"), bad)).ToList();
        var stored = await Task.WhenAll(Enumerable.Range(0, 300).Select(i => Note(i % 2 == 0 ? room : other, owner, new NodGiven((i % 2 == 0 ? room : other).Students["Eino"], "on time"))));

        stored.Sum(s => s!.Accepted.Count).ShouldBe(300);
        foreach (var job in failing)
        {
            // What is good of the same press is kept, and what is not is refused in words.
            var result = (await job)!;
            (result.Accepted.Count, result.Refused.ShouldHaveSingleItem().Why.Length).ShouldSatisfyAllConditions(r => r.Item1.ShouldBe(1), r => r.Item2.ShouldBePositive());
        }

        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Nods.Count.ShouldBe(20);
        (await room.Sheet()).Rows.Single(r => r.Called == "Eino").Nods.Count.ShouldBe(150);
        (await other.Sheet()).Rows.Single(r => r.Called == "Eino").Nods.Count.ShouldBe(150);
    }

    [Fact]
    public async Task Whoever_listens_and_fails_does_not_stop_the_writer()
    {
        var (room, owner) = await Taught();
        void Fail(Guid lesson) => throw new InvalidOperationException("A listener that fails.");
        Lessons.Changed += Fail;
        for (var i = 0; i < 3; i++)
        {
            (await Note(room, owner, new NodGiven(room.Students["Juno"], "on time")))!.Accepted.ShouldHaveSingleItem();
        }

        Lessons.Changed -= Fail;
        Ledger.BusyFor.ShouldBe(TimeSpan.Zero);
        (await room.Teacher.Http.GetStringAsync("/health", TestContext.Current.CancellationToken)).ShouldBe("well");
    }

    [Fact]
    public async Task A_lesson_is_read_once_for_all_who_ask_at_the_same_time()
    {
        var (room, owner) = await Taught();
        Lessons.Drop(owner, room.Lesson);
        var found = await Task.WhenAll(Enumerable.Range(0, 200).Select(_ => Task.Run(async () => await Lessons.Find(owner, room.Lesson))));
        found.Distinct().ShouldHaveSingleItem().ShouldNotBeNull();
        (await Lessons.Find(Guid.CreateVersion7(), room.Lesson)).ShouldBeNull();
    }

    [Fact]
    public async Task What_was_acknowledged_is_seen_whatever_is_forgotten_meanwhile()
    {
        var (room, owner) = await Taught();
        using var done = new CancellationTokenSource();
        var forgetting = Task.Run(async () =>
        {
            while (!done.IsCancellationRequested)
            {
                Lessons.Forget(l => l.Id == room.Lesson);
                await Task.Yield();
            }
        });
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Task.Run(async () =>
        {
            for (var i = 0; i < 50; i++)
            {
                var result = (await Note(room, owner, new NodGiven(room.Students["Juno"], "on time")))!;
                var open = (await Lessons.Find(owner, room.Lesson))!;
                open.Position.ShouldBeGreaterThanOrEqualTo(result.Position);
                open.State.Entries.ShouldContain(e => e.Id == result.Accepted[0]);
            }
        })));
        await done.CancelAsync();
        await forgetting;

        var now = (await Lessons.Find(owner, room.Lesson))!;
        await using var db = app.File.Open(owner);
        var read = OpenLesson.Load(db, room.Lesson)!;
        now.State.Entries.Select(e => e.Id).ShouldBe(read.State.Entries.Select(e => e.Id));
        now.State.Notes.NodsOf(room.Students["Juno"]).Count.ShouldBe(200);
    }

    [Fact]
    public async Task A_name_noted_and_struck_out_at_once_is_published_and_so_is_what_comes_after()
    {
        var (room, owner) = await Taught();
        var window = new FakeWindow();
        app.Part<Features.Live.LivePublisher>().Watched(room.Lesson, owner);
        app.Part<OpenWindows>().Hears(Features.Live.LivePublisher.SheetOf(room.Lesson), window, window);
        var joined = Guid.CreateVersion7();
        await Note(room, owner, new NodGiven(room.Students["Juno"], "on time"));
        await Ledger.Append(owner, room.Lesson, Source.Feed, "", [new NewEntry(joined, Classroom.Now, new Joined("harbour-office-3", "laptop")), new NewEntry(Guid.CreateVersion7(), Classroom.Now, new Struck(joined))]);
        for (var i = 0; i < 5; i++)
        {
            var heard = window.Heard.Count;
            await Note(room, owner, new NodGiven(room.Students["Juno"], "on time"));
            await window.HearsMoreThan(heard);
        }
    }
}
