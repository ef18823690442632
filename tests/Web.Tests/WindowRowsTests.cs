using CsCheck;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Tests;
using PoliteTally.Store;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Tests;

/// <summary>Which rows an entry may change is said by kind; for lessons of every kind of act that is held against rows made whole.</summary>
public sealed class WindowRowsTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static LiveView View(OpenLesson open, Dictionary<Guid, LiveRow>? unchanged = null) =>
        LiveView.Of(open, open.State, open.Position, null, DoorTries.None, Classroom.Now, unchanged ?? []);

    [Fact]
    public async Task Rows_that_are_taken_over_are_the_same_as_rows_made_anew()
    {
        var room = await (await app.SignedIn()).Teach();
        await using var anybody = app.File.Open(Guid.Empty);
        var owner = anybody.Users.Single(u => u.UserName!.StartsWith("tamsin")).Id;
        await using var db = app.File.Open(owner);
        var start = OpenLesson.Load(db, room.Lesson)!;
        Guid[] students = [.. room.Students.Values];
        Gen.Int.Sample(
            seed =>
            {
                var (ledger, sizes) = (new AnyLedger(seed, students, start.Lesson.PlannedStart), new Random(seed));
                var (open, seq) = (start, start.Position);
                var sent = WindowRows.Of(View(open), open, before: null);
                for (var batch = 0; batch < 25; batch++)
                {
                    List<(long, Entry)> more = [.. ledger.Next(1 + sizes.Next(3)).Select(e => (++seq, e))];
                    open = open.With(more, open.Lesson, state: null);
                    var (taken, whole) = (WindowRows.Of(View(open, sent.Unchanged(open)), open, sent), WindowRows.Of(View(open), open, before: null));
                    foreach (var student in students)
                    {
                        taken.WrittenOf(student).ShouldBe(whole.WrittenOf(student), $"seed {seed}, batch {batch}: {string.Join(", ", more.Select(m => m.Item2.Act.GetType().Name))}");
                    }

                    sent = taken;
                }
            },
            iter: 200);
    }
}
