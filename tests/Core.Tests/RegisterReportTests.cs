using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Reports;

namespace PoliteTally.Core.Tests;

public sealed class RegisterReportTests
{
    [Theory]
    [InlineData(1, new[] { 1 })]
    [InlineData(12, new[] { 12 })]
    [InlineData(13, new[] { 7, 6 })]
    [InlineData(25, new[] { 9, 9, 7 })]
    public void Days_that_do_not_fit_on_a_page_stand_below_each_other_in_parts_of_much_the_same_width(int lessons, int[] parts)
    {
        var report = new RegisterReport(
            [.. Enumerable.Range(1, lessons).Select(i => new RegisteredLesson(Given.Id(i), i, new LocalDate(2026, 10, 1).PlusDays(i)))],
            [new RegisteredStudent(Given.Juno, "S1", "Juno Quillfeather", [.. Enumerable.Range(1, lessons).Select(_ => ((AttendanceStatus, string)?)(AttendanceStatus.Present, ""))])],
            status => status.InWords()[..1], [], []).Written("Weather and Tides");
        report.Sections.Select(s => s.Figures).OfType<Figures>().Where(f => f.Name.StartsWith("Lessons ", StringComparison.Ordinal)).Select(f => f.Headings.Count - 1).ShouldBe(parts);
    }
}
