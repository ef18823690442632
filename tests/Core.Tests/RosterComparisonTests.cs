using PoliteTally.Core.Names;

namespace PoliteTally.Core.Tests;

public sealed class RosterComparisonTests
{
    private static RosterStudent Student(int id, string given, string family, string? number = null, string? email = null, bool inClass = true, bool was = true, string tags = "") =>
        new(new RosterName(Given.Id(id), given, family, null, number, email), tags, inClass, was || inClass);

    private static RosterEntry Line(string key, string given, string family, string? number = null, string? email = null, string? preferred = null, string tags = "") =>
        new(key, number, family, given, preferred, email, tags);

    private static string Steps(IReadOnlyCollection<RosterStudent> school, params RosterEntry[] file) =>
        string.Join(' ', RosterComparison.Of(school, file).Select(c => $"{c.Step}{(c.Step == RosterStep.Leaves ? "" : c.Key)}{(c.Student is { } s ? $"={(school.First(x => x.Name.Id == s).Name.Given)}" : "")}"));

    [Fact]
    public void Joiners_leavers_changes_and_those_who_stay()
    {
        RosterStudent[] school = [Student(1, "Juno", "Quillfeather", "S1"), Student(2, "Eino", "Rautio", "S2"), Student(3, "Zainab", "Usman", "S3")];
        Steps(school, Line("2", "Juno", "Quillfeather", "S1"), Line("3", "Einar", "Rautio", "S2"), Line("4", "Pip", "Farrow", "S9"))
            .ShouldBe("Stays2=Juno Changes3=Eino Joins4 Leaves=Zainab");
        RosterComparison.Of(school, [Line("3", "Einar", "Rautio", "S2")])[0].Changes.ShouldHaveSingleItem().ShouldBe(new FieldChange("given", "Eino", "Einar"));
    }

    [Theory]
    // how a line names Juno S1 juno@ of the class, and whether she is known by it
    [InlineData("J.", "Quill", "S1", null, true)] // by number, whatever the name
    [InlineData("J.", "Quill", null, "JUNO@skerrysound.example", true)] // by address, in any case
    [InlineData("juno", "QUILLFEATHER", null, null, true)] // by name, folded
    [InlineData("Juno", "Quillfeather", "S2", null, false)] // another number is another student
    [InlineData("Juno", "Quillfeather", null, "other@skerrysound.example", false)]
    [InlineData("Juno", "Quillfeather", "S2", "juno@skerrysound.example", false)] // twins may share a family's address
    public void A_student_is_known_by_number_then_address_then_name(string given, string family, string? number, string? email, bool known) =>
        RosterComparison.Of([Student(1, "Juno", "Quillfeather", "S1", "juno@skerrysound.example")], [Line("2", given, family, number, email)])[0]
            .Student.HasValue.ShouldBe(known);

    [Fact]
    public void Somebody_of_another_class_joins_as_the_student_they_are_and_only_by_number_or_address()
    {
        RosterStudent[] school = [Student(1, "Kensa", "Tremayne", "S7", inClass: false, was: false)];
        Steps(school, Line("2", "Kensa", "Tremayne", "S7")).ShouldBe("Joins2=Kensa");
        Steps(school, Line("2", "Kensa", "Tremayne")).ShouldBe("Joins2");
    }

    [Fact]
    public void Who_left_comes_back_as_themselves() =>
        Steps([Student(1, "Wojtek", "Grzelak", inClass: false)], Line("2", "Wojtek", "Grzelak")).ShouldBe("Returns2=Wojtek");

    [Fact]
    public void Two_lines_never_take_the_same_student() =>
        Steps([Student(1, "Rowan", "Bellweather")], Line("2", "Rowan", "Bellweather"), Line("3", "Rowan", "Bellweather")).ShouldBe("Stays2=Rowan Joins3");

    [Fact]
    public void What_a_file_does_not_give_is_kept()
    {
        var known = Student(1, "Ifeoma", "Abernethy-Okafor", "S1", "i@skerrysound.example", tags: "Nort");
        RosterComparison.Of([known with { Name = known.Name with { Preferred = "Ify" } }], [Line("2", "Ifeoma", "Abernethy-Okafor", "S1")])[0].Step.ShouldBe(RosterStep.Stays);
    }
}
