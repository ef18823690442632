using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Store;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Tests;

public sealed class LedgerTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    [Fact]
    public async Task A_tap_is_on_the_sheet_and_in_the_file()
    {
        var room = await (await app.SignedIn()).Teach();
        var juno = room.Students["Juno"];
        var result = await room.Tap(new HandRaised(juno), new Called(juno, TurnOrigin.Hand), new TurnTaken(juno, TurnOutcome.Partial, TurnOrigin.Invited));

        result.Refused.ShouldBeEmpty();
        var row = (await room.Sheet()).Rows.Single(r => r.Id == juno);
        row.Speaking.ShouldHaveSingleItem().Credit.ShouldBe(0.5m);
        // What the prepared statement of the writer wrote is read back through the model.
        await using var db = app.File.Open(OwnerOf(room));
        (await db.Entries.Where(e => e.LessonId == room.Lesson).OrderBy(e => e.Seq).Select(e => e.Act).ToListAsync())
            .Select(ActJson.Read).Skip(1).First().ShouldBe(new HandRaised(juno));
    }

    [Fact]
    public async Task Sending_twice_is_harmless()
    {
        var room = await (await app.SignedIn()).Teach();
        SentEntry[] entry = [new(Guid.CreateVersion7(), Classroom.Now, new NodGiven(room.Students["Juno"], "on time"))];

        (await room.Tap(entry)).Accepted.ShouldHaveSingleItem();
        (await room.Tap(entry)).Accepted.ShouldHaveSingleItem();
        (await room.Tap(entry.Concat(entry))).Refused.ShouldBeEmpty();
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Nods.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task Each_entry_is_refused_with_its_reason_and_the_others_are_kept()
    {
        var room = await (await app.SignedIn()).Teach();
        var result = await room.Tap([
            new SentEntry(Guid.CreateVersion7(), Classroom.Now, new HandRaised(Guid.CreateVersion7())),
            new SentEntry(Guid.CreateVersion7(), Classroom.Now - Duration.FromHours(3), new HandRaised(room.Students["Eino"])),
            new SentEntry(Guid.CreateVersion7(), Classroom.Now + Duration.FromHours(3), new HandRaised(room.Students["Eino"])),
            new SentEntry(Guid.CreateVersion7(), Classroom.Now, new HandRaised(room.Students["Eino"])),
        ]);

        result.Refused.Select(r => r.Why).ShouldBe([
            "This student is not on the roster of this class.",
            "The time of this entry lies more than 60 min outside the lesson.",
            "The time of this entry lies in the future. Check the clock of this device.",
        ]);
        result.Accepted.ShouldHaveSingleItem();
        (await room.Sheet()).Head.Hands.ShouldHaveSingleItem().Student.ShouldBe(room.Students["Eino"]);
    }

    [Fact]
    public async Task Undo_is_an_entry_that_can_itself_be_undone()
    {
        var room = await (await app.SignedIn()).Teach();
        var nod = (await room.Tap(new NodGiven(room.Students["Juno"], "on time"))).Accepted[0];
        var strike = (await room.Tap(new Struck(nod))).Accepted[0];
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Nods.ShouldHaveSingleItem().Struck.ShouldBeTrue();
        (await room.Tap(new Struck(nod))).Refused.ShouldHaveSingleItem().Why.ShouldContain("already");
        await room.Tap(new Struck(strike));
        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Nods.ShouldHaveSingleItem().Struck.ShouldBeFalse();
    }

    [Fact]
    public async Task What_one_press_noted_is_one_line_and_is_taken_back_and_put_back_as_one()
    {
        var room = await (await app.SignedIn()).Teach();
        var hands = new[] { "Juno", "Eino" }.Select(n => room.Students[n]).ToList();
        await room.Tap(hands.Select(h => (Act)new HandRaised(h)));
        var press = Guid.CreateVersion7();
        await room.Tap(hands.Select(h => new SentEntry(Guid.CreateVersion7(), Classroom.Now, new HandEnded(h, HandEnd.SetDown), press)));
        async Task<LastEntry> Last() => (await room.Sheet()).Head.LastEntries[0];

        var down = await Last();
        (down.Text, down.Entries.Count, down.Struck, down.StruckBy.Count).ShouldBe(("Juno, Eino, hand set down", 2, false, 0));
        await room.Tap(new Struck(down.Entries[0], [.. down.Entries.Skip(1)]));
        (await room.Sheet()).Head.Hands.Select(h => h.Student).ShouldBe(hands);
        var struck = await Last();
        (struck.Id, struck.Struck).ShouldBe((down.Id, true));
        await room.Tap(new Struck(struck.StruckBy.ShouldHaveSingleItem()));
        (await room.Sheet()).Head.Hands.ShouldBeEmpty();
        (await Last()).ShouldSatisfyAllConditions(e => e.Struck.ShouldBeFalse(), e => e.Entries.ShouldBe(down.Entries));

        // As it is read back from the file.
        app.Part<OpenLessons>().Forget(l => l.Id == room.Lesson);
        (await Last()).Entries.ShouldBe(down.Entries);
    }

    [Fact]
    public async Task A_lesson_ends_once()
    {
        var room = await (await app.SignedIn()).Teach();
        (await room.Tap(new LessonEnded())).Refused.ShouldBeEmpty();
        (await room.Tap(new LessonEnded())).Refused.ShouldHaveSingleItem().Why.ShouldBe("This lesson has ended already.");
        (await room.Sheet()).Head.Stage.ShouldBe(Store.Model.LessonStage.Ended);
    }

    [Fact]
    public async Task Undo_reaches_past_what_the_last_entries_show()
    {
        var room = await (await app.SignedIn()).Teach();
        await room.Tap(Enumerable.Range(0, 90).Select(_ => (Act)new NodGiven(room.Students["Juno"], "on time")));
        for (var i = 0; i < 90; i++)
        {
            var last = (await room.Sheet()).Head.LastEntries.First(e => !e.Struck && e.CanStrike);
            (await room.Tap(new Struck(last.Id))).Refused.ShouldBeEmpty();
        }

        (await room.Sheet()).Rows.Single(r => r.Called == "Juno").Nods.ShouldAllBe(n => n.Struck);
    }

    [Fact]
    public async Task Many_windows_at_once_lose_nothing()
    {
        var room = await (await app.SignedIn()).Teach();
        var sent = await Task.WhenAll(Enumerable.Range(0, 200).Select(_ => room.Tap(new NodGiven(room.Students["Eino"], "on time"))));

        sent.SelectMany(s => s.Accepted).Distinct().Count().ShouldBe(200);
        (await room.Sheet()).Rows.Single(r => r.Called == "Eino").Nods.Count.ShouldBe(200);
    }

    [Fact]
    public async Task A_window_that_missed_something_asks_for_it()
    {
        var room = await (await app.SignedIn()).Teach();
        var before = await room.Sheet();
        await room.Tap(new NodGiven(room.Students["Juno"], "on time"), new HandRaised(room.Students["Eino"]));
        var patch = await room.Teacher.Get<LivePatch>($"/api/lessons/{room.Lesson}/live/since/{before.Head.Position}");
        var after = await room.Sheet();

        patch.From.ShouldBe(before.Head.Position);
        patch.Head.Position.ShouldBe(after.Head.Position);
        patch.Rows.Select(r => r.Called).Order().ShouldBe(["Eino", "Juno"]);
        patch.Head.Hands.ShouldHaveSingleItem();
    }

    private Guid OwnerOf(Classroom room)
    {
        using var db = app.File.Open(Guid.Empty);
        return db.Lessons.IgnoreQueryFilters().Single(l => l.Id == room.Lesson).OwnerId;
    }
}
