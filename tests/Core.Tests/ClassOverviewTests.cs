using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Reports;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Core.Tests;

/// <summary>What is told of a whole class: where it is going lesson by lesson, its bands, and who came to lessons that nobody has to come to.</summary>
public sealed class ClassOverviewTests
{
    private static readonly Tally Silent = new() { Status = AttendanceStatus.Present, LineWasOpen = true };
    private static readonly Tally Spoke = Silent with { FullTurns = 1 };
    private static readonly Tally Away = new() { Status = AttendanceStatus.Absent };

    private static StudentTerm Student(string name, bool dropIn, params IReadOnlyList<(Tally Did, decimal? Score)> lessons)
    {
        List<LessonOfStudent> all =
        [
            .. lessons.Select((l, i) => new LessonOfStudent(
                Given.Id(i + 1), i + 1, "Tides", new LocalDate(2026, 10, 1).PlusDays(i), dropIn, l.Score, l.Did, Duration.FromMinutes(l.Did.Status == AttendanceStatus.Absent ? 0 : 40), [], [], "")),
        ];
        return new StudentTerm(
            Given.Id(name.GetHashCode(StringComparison.Ordinal)), name, name, all,
            TermScore.Of([.. all.Where(l => l.Score is not null).Select(l => new ScoredLesson($"{l.Number}", l.Score!.Value, 50))], Scheme.Default),
            Scheme.Default with { Bands = [new Band(0, "growing"), new Band(60, "steady")] });
    }

    private static Section? Of(string heading, params IReadOnlyList<StudentTerm> students) =>
        new ClassOverview(students, students.Max(s => s.Lessons.Count), []).Written("Weather and Tides", "Weather and Tides").Sections.SingleOrDefault(s => s.Heading == heading);

    private static string[] Cells(FigureRow row) => [.. row.Cells.Select(c => c.Text)];

    [Fact]
    public void Lesson_by_lesson_it_is_told_who_was_there_who_spoke_and_how_it_scored()
    {
        var section = Of(
            "Lesson by lesson",
            Student("Eino", false, (Spoke with { Asked = 2, Answered = 1, ChatIdeas = 3 }, 80), (Silent, 50)),
            Student("Juno", false, (Silent with { Asked = 2, Answered = 2 }, 71), (Away, null))).ShouldNotBeNull();
        section.Figures!.Headings.ShouldBe(["Lesson", "Day", "There", "Spoke", "Answered", "Asked", "Chat", "Groups", "Mean score"]);
        section.Figures.Rows.Select(Cells).ShouldBe([["1", "1 Oct", "2", "1", "3", "4", "3", "0", "76"], ["2", "2 Oct", "1", "0", "0", "0", "0", "0", "50"]]);
        section.Figures.Rows.Select(r => r.Opens!.Lesson).ShouldBe([Given.Id(1), Given.Id(2)]);
        section.Drawing!.Says.ShouldContain("50 %, 0 % had a turn");
        // A bar for each lesson: half as high as all for the first, without height for the second.
        var bars = section.Drawing.Marks.Where(m => m.Kind == MarkKind.Field).ToList();
        bars.Select(b => b.Y2 - b.Y).ShouldBe([46, 0]);
    }

    public static TheoryData<Tally[], string> Goings => new()
    {
        { [Spoke, Silent], "It takes five lessons to say where it is going." },
        { [Spoke, Spoke, Spoke, Spoke, Spoke], "The last three lessons went as those before." },
        { [Silent, Spoke, Spoke, Spoke, Spoke], "In the last three lessons 100 % of those who were there had a turn; before, it was 50 %." },
        { [Away, Away, Spoke, Spoke, Spoke], "The last three lessons went as those before." },
        { [Spoke with { Asked = 4, Answered = 4 }, Spoke, Spoke, Spoke with { Asked = 4, Answered = 1 }, Spoke], "In the last three lessons 25 % of the questions were answered; before, it was 100 %." },
    };

    [Theory]
    [MemberData(nameof(Goings))]
    public void Where_it_is_going_is_said_only_where_it_goes_anywhere(Tally[] lessons, string said) =>
        Of("Lesson by lesson", Student("Eino", false, [.. lessons.Select(l => (l, (decimal?)70))]))!.Says.Select(s => s.Text).ShouldBe([said]);

    [Fact]
    public void One_lesson_goes_nowhere() => Of("Lesson by lesson", Student("Eino", false, (Spoke, 80))).ShouldBeNull();

    [Fact]
    public void Guests_of_drop_in_lessons_stand_below_students_with_how_often_and_how_long()
    {
        var overview = new ClassOverview([Student("Eino", true, (Silent, null), (Silent, null))], 2, [new GuestVisits("Odhran Pike", 1, Duration.FromMinutes(12)), new GuestVisits("Mum (Barney)", 2, Duration.FromMinutes(31))]);
        var section = overview.Written("Tides", "Tides").Sections.Single(s => s.Heading == "Drop-in lessons");
        section.Says.ShouldHaveSingleItem().Text.ShouldBe("One student came, and two guests.");
        section.Figures!.Rows.Select(Cells).ShouldBe([["Eino", "2", "80"], ["Mum (Barney), guest", "2", "31"], ["Odhran Pike, guest", "1", "12"]]);
    }

    [Fact]
    public void A_band_has_a_stroke_for_each_student()
    {
        var section = Of("Bands", [.. Enumerable.Range(1, 7).Select(i => Student($"S{i}", false, (Spoke, 95), (Spoke, 95), (Spoke, 95)))]).ShouldNotBeNull();
        section.Figures!.Rows.Select(Cells).ShouldBe([["steady", "60", "7"], ["growing", "0", "0"]]);
        section.Drawing!.Says.ShouldBe("Students by band: steady 7 and growing 0.");
        section.Drawing.Marks.Count(m => m.Kind == MarkKind.Line).ShouldBe(7);
    }
}
