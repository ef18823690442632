using NodaTime;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;

namespace PoliteTally.Core.Tests;

/// <summary>What a source gives beside a name tells two people of one name apart.</summary>
public sealed class TwoOfOneNameTests
{
    private const string North = "robin.north@skerrysound.example", South = "robin.south@skerrysound.example";

    private static Joined Join(string beside) => new("Robin", "") { Beside = beside };

    private static Left Leave(string beside) => new("Robin", "") { Beside = beside };

    private static NameMatched Is(Guid? student, string beside = "") => new("Robin", student) { Beside = beside };

    private static Duration Present(Guid student, params IEnumerable<Entry> entries) =>
        Given.State(entries).AttendanceOf(student, Given.Lesson, Attendance.AttendancePolicy.Default).Present;

    [Fact]
    public void Two_of_one_name_are_two()
    {
        Entry[] entries =
        [
            Given.Noted(0, Join(North)), Given.Noted(10, Join(South)), Given.Noted(30, Leave(North)), Given.Noted(50, Leave(South)),
            Given.Noted(51, Is(Given.Juno, North)), Given.Noted(51, Is(Given.Eino, South)),
        ];
        Present(Given.Juno, entries).ShouldBe(Duration.FromMinutes(30));
        Present(Given.Eino, entries).ShouldBe(Duration.FromMinutes(40));
        Given.State(entries).Names.AreSeveral("Robin").ShouldBeTrue();
    }

    [Fact]
    public void One_who_is_seen_with_an_address_and_without_it_is_one()
    {
        Entry[] entries =
        [
            Given.Noted(0, Join("")), Given.Noted(10, Leave(North)), Given.Noted(20, new NameRaisedHand("Robin")), Given.Noted(21, Is(Given.Juno)),
        ];
        var state = Given.State(entries);
        state.Names.All.Keys.ShouldBe(["Robin"]);
        state.Names.All["Robin"].Beside.ShouldBe(North);
        state.HandLine.Hands.ShouldHaveSingleItem().Student.ShouldBe(Given.Juno);
    }

    [Fact]
    public void What_was_said_of_the_name_while_it_was_one_is_said_of_neither_of_two()
    {
        Entry[] one = [Given.Noted(0, Join(North)), Given.Noted(5, Is(Given.Juno))];
        Present(Given.Juno, one).ShouldBeGreaterThan(Duration.Zero);
        var two = Given.State(one.Append(Given.Noted(6, Join(South)))).Names;
        two.All.Values.Where(n => n.Beside.Length > 0).ShouldAllBe(n => n.Match == null);
        // And if the second turns out to be no such thing, all is as before.
        var second = Given.Noted(6, Join(South));
        Present(Given.Juno, one.Append(second).Append(Given.Strike(second))).ShouldBe(Present(Given.Juno, one));
    }

    [Fact]
    public void A_student_is_told_by_the_address_and_the_other_of_the_name_is_asked_about()
    {
        RosterName[] roster = [new(Given.Juno, "Robin", "Ashdown", Email: North), new(Given.Eino, "Wren", "Ashdown")];
        var matches = new NameMatcher(roster, []).Match([new ShownName("Robin", Email: North), new ShownName("Robin", Email: South)]);
        matches[0].ShouldSatisfyAllConditions(m => m.Certainty.ShouldBe(Certainty.Sure), m => m.Student.ShouldBe(Given.Juno));
        // By the name alone it would be sure, too: there is one Robin.
        matches[1].Certainty.ShouldBe(Certainty.Likely);
    }

    [Fact]
    public void Whoever_changes_the_name_under_one_number_stays_one_person()
    {
        RosterName[] roster = [new(Given.Juno, "Robin", "Ashdown"), new(Given.Eino, "Wren", "Ashdown")];
        var matches = new NameMatcher(roster, []).Match([new ShownName("galaxy tab 7", Number: "P7"), new ShownName("Robin Ashdown", Number: "P7"), new ShownName("Robin's mum", Number: "P7")]);
        matches[0].Student.ShouldBe(Given.Juno);
        matches[0].Certainty.ShouldBe(Certainty.Sure);
        matches[2].Certainty.ShouldBe(Certainty.Unknown, "a relation is somebody else, whatever they sign in with");
    }

    [Fact]
    public void What_was_confirmed_of_one_of_two_is_proposed_for_the_name_and_for_the_address_and_sure_for_both_together()
    {
        RosterName[] roster = [new(Given.Juno, "Robin", "Ashdown"), new(Given.Eino, "Wren", "Holm")];
        var matcher = new NameMatcher(roster, [new ConfirmedName("birdie", Given.Eino, South)]);
        Told(new ShownName("birdie", Email: South)).ShouldBe((Certainty.Sure, Given.Eino));
        Told(new ShownName("birdie", Email: "ROBIN.SOUTH@skerrysound.example")).ShouldBe((Certainty.Sure, Given.Eino));
        Told(new ShownName("birdie")).ShouldBe((Certainty.Likely, Given.Eino));
        Told(new ShownName("kittiwake", Email: South)).ShouldBe((Certainty.Likely, Given.Eino));
        Told(new ShownName("kittiwake")).ShouldBe((Certainty.Unknown, null));

        (Certainty, Guid?) Told(ShownName shown) => matcher.Match(shown) is var match ? (match.Certainty, match.Student) : default;
    }

    [Theory]
    [InlineData("", "Robin", null, null, null)]
    [InlineData("S1001", "Robin", "S1001", "r@skerrysound.example", null)]
    [InlineData("r@skerrysound.example", "Robin", null, "R@skerrysound.example", "conn 4")]
    [InlineData("#conn 4", "Robin", null, null, "conn 4")]
    public void What_stands_beside_a_name_is_the_number_else_the_address_else_the_connection(string beside, string name, string? number, string? email, string? connection)
    {
        new ShownName(name, number, email, connection).Beside.ShouldBe(beside);
        ShownName.Of(name, beside).Beside.ShouldBe(beside);
        ShownName.Of(name, beside).IsLasting.ShouldBe(!beside.StartsWith('#'));
    }
}
