using NodaTime;

namespace PoliteTally.Formats.Tests;

/// <summary>A bundle of the open grade book standard, read by a reader that knows the standard and nothing of how it was written.</summary>
public sealed class GradeBundleTests
{
    private static readonly LocalDate Day = new(2026, 11, 19);

    private static readonly GradeBundle Book = new(
        "class-1", "school-1",
        [new("lesson-1", "Lesson 1, Reading a \"glass\"", "", Day, false), new("term", "Over the term", "1 settled lesson", Day, true)],
        [
            new("r1", "lesson-1", "S1020", 87.5m, Day, "", ""), new("r2", "lesson-1", "S1021", null, Day, "excused", ""), new("r3", "term", "S1020", 88, Day, "", "carrying the lesson"),
            new("r4", "lesson-1", "S1022", 0, Day, "=1+1", ""),
        ],
        new("bands", [(0, 54, "finding {a} way, in"), (55, 100, "carrying the lesson")]));

    [Fact]
    public void A_bundle_is_valid_by_the_standard_and_says_what_was_put_in()
    {
        var read = StandardGradeBook.Read(Book.Write());
        read.Problems.ShouldBeEmpty();
        read.Rows("lineItems").Select(r => (r["sourcedId"], r["title"], r["dueDate"], r["resultValueMax"]))
            .ShouldBe([("lesson-1", "Lesson 1, Reading a \"glass\"", "2026-11-19", "100"), ("term", "Over the term", "2026-11-19", "100")]);
        read.Rows("results").Select(r => (r["studentSourcedId"], r["scoreStatus"], r["score"], r["textScore"]))
            .ShouldBe([("S1020", "fully graded", "87.5", ""), ("S1021", "exempt", "", ""), ("S1020", "fully graded", "88", "carrying the lesson"), ("S1022", "fully graded", "0", "")]);
        read.Rows("scoreScales")[0]["scoreScaleValue"].ShouldBe("{0-54:finding  a  way  in},{55-100:carrying the lesson}");
        // No comment becomes a formula where somebody opens the table itself.
        read.Rows("results")[3]["comment"].ShouldBe("'=1+1");
    }

    [Fact]
    public void Without_bands_there_are_no_scales()
    {
        var read = StandardGradeBook.Read((Book with { Scale = null, Results = [Book.Results[0]] }).Write());
        read.Problems.ShouldBeEmpty();
        read.Files.ShouldNotContain("scoreScales");
    }

    [Fact]
    public void A_class_of_nobody_makes_an_empty_bundle() =>
        StandardGradeBook.Read(new GradeBundle("class-1", "school-1", [], [], null).Write()).Problems.ShouldBeEmpty();

    [Fact]
    public void The_reader_finds_what_is_wrong()
    {
        StandardGradeBook.Read((Book with { Results = [new("r1", "no such item", "S1020", 120, Day, "", "")] }).Write()).Problems
            .ShouldBe(["results: lineItemSourcedId “no such item” stands in no lineItems", "results: 120 is no score from 0 to 100"], ignoreOrder: true);
        StandardGradeBook.Read((Book with { Items = [Book.Items[0], Book.Items[0]] }).Write()).Problems.ShouldContain("lineItems: “lesson-1” stands there twice");
    }
}
