using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Notes;
using PoliteTally.Web.Features.Board;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Tests;

/// <summary>Nods that the class sees: on the board for a moment, and each student their own on their page, if the class has agreed.</summary>
public sealed class NodsSeenTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private async Task<Classroom> Taught(NodsOnBoard rule)
    {
        var room = await (await app.SignedIn()).Teach();
        await StudentPageTests.SetRules(room, r => r with { NodsOnBoard = rule });
        return room;
    }

    private static async Task<IReadOnlyList<BoardNods>> OnBoard(Classroom room) =>
        (await room.Teacher.Get<BoardView>($"/api/lessons/{room.Lesson}/board")).Nods ?? [];

    /// <summary>One press: nods for some, so long ago.</summary>
    private static async Task<IReadOnlyList<Guid>> Nod(Classroom room, string reason, Duration ago, params string[] who)
    {
        var press = Guid.CreateVersion7();
        var given = await room.Tap(who.Select(w => new SentEntry(Guid.CreateVersion7(), Classroom.Now - ago, new NodGiven(room.Students[w], reason), press)));
        given.Refused.ShouldBeEmpty();
        return given.Accepted;
    }

    private static string Told(IReadOnlyList<BoardNods> nods) => string.Join("; ", nods.Select(n => $"{string.Join(", ", n.Who)}: {n.Reason}"));

    [Theory]
    [InlineData(NodsOnBoard.Never, "", "")]
    [InlineData(NodsOnBoard.WhenShown, "", "Juno: on time")]
    [InlineData(NodsOnBoard.Always, "Juno: on time", "Juno: on time")]
    public async Task The_board_shows_what_the_class_has_agreed_to_see(NodsOnBoard rule, string atOnce, string shown)
    {
        var room = await Taught(rule);
        var nods = await Nod(room, "on time", Duration.Zero, "Juno");
        Told(await OnBoard(room)).ShouldBe(atOnce);
        (await room.Tap(new NodsShown(nods))).Refused.ShouldBeEmpty();
        Told(await OnBoard(room)).ShouldBe(shown);
    }

    [Fact]
    public async Task One_that_is_older_than_its_moment_or_was_struck_out_is_not_seen()
    {
        var room = await Taught(NodsOnBoard.Always);
        await Nod(room, "on time", BoardNods.ShownFor, "Juno");
        (await OnBoard(room)).ShouldBeEmpty();
        var nod = await Nod(room, "kept going", Duration.Zero, "Eino");
        var seen = (await OnBoard(room)).ShouldHaveSingleItem();
        (seen.To - Classroom.Now).ShouldBeInRange(Duration.FromMilliseconds(1), BoardNods.ShownFor);
        await room.Tap(new Struck(nod[0]));
        (await OnBoard(room)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Several_presses_stand_below_each_other_and_the_oldest_makes_room()
    {
        var room = await Taught(NodsOnBoard.Always);
        foreach (var (who, i) in new[] { "Juno", "Eino", "Zainab", "Juno" }.Select((w, i) => (w, i)))
        {
            await Nod(room, $"reason {i}", Duration.Zero, who);
        }

        Told(await OnBoard(room)).ShouldBe("Eino: reason 1; Zainab: reason 2; Juno: reason 3");
    }

    [Fact]
    public async Task A_group_has_its_name_and_all_who_are_here_are_everybody()
    {
        var room = await Taught(NodsOnBoard.Always);
        var (juno, eino) = (room.Students["Juno"], room.Students["Eino"]);
        await room.Tap(room.Students.Values.Select(s => new Marked(s, Mark.Here)));
        await room.Tap(new GroupsMade([new StudentGroup(Guid.NewGuid(), "Gulls", [juno, eino])]));
        await Nod(room, "on time", Duration.Zero, "Juno", "Eino");
        await Nod(room, "on time", Duration.Zero, "Juno", "Zainab");
        await Nod(room, "kept going", Duration.Zero, "Juno", "Eino", "Zainab");
        Told(await OnBoard(room)).ShouldBe("Gulls: on time; Juno, Zainab: on time; Everybody: kept going");
        // Whoever has gone is not waited for.
        await room.Tap(new Marked(room.Students["Zainab"], Mark.Left));
        Told(await OnBoard(room)).ShouldStartWith("Everybody: on time");
    }

    [Theory]
    [InlineData(NodsOnBoard.Never, new string[0])]
    [InlineData(NodsOnBoard.WhenShown, new[] { "on time", "kept going" })]
    [InlineData(NodsOnBoard.Always, new[] { "on time", "kept going" })]
    public async Task A_student_sees_their_own_at_once_on_their_page_and_nobody_elses(NodsOnBoard rule, string[] seen)
    {
        var room = await Taught(rule);
        using var juno = await Pupil.In(room, (await Pupil.Passes(room))["Juno"]);
        await Nod(room, "on time", Duration.Zero, "Juno");
        await Nod(room, "careful drawing", Duration.Zero, "Eino");
        await Nod(room, "kept going", Duration.FromMinutes(1), "Juno");
        (await juno.See()).Own.Nods.ShouldBe(seen, ignoreOrder: true);
    }
}
