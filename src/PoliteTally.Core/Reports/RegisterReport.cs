using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>A lesson of a register.</summary>
/// <param name="Id">The id of the lesson.</param>
/// <param name="Number">Its number in the class.</param>
/// <param name="Day">Its day.</param>
public sealed record RegisteredLesson(Guid Id, int Number, LocalDate Day);

/// <summary>A student of a register.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Number">Their number at the school; null if they have none.</param>
/// <param name="Name">What they are called in it.</param>
/// <param name="Marks">In each of the lessons the status and what stands beside it; null where they did not belong to it.</param>
public sealed record RegisteredStudent(Guid Student, string? Number, string Name, IReadOnlyList<(AttendanceStatus Status, string Beside)?> Marks)
{
    /// <summary>How many lessons have a status.</summary>
    public int Count(AttendanceStatus status) => Marks.Count(m => m?.Status == status);
}

/// <summary>Attendance over some days, as an office wants it: a code for each, and how often; with what was amended.</summary>
/// <param name="Lessons">The lessons, in their order.</param>
/// <param name="Students">The students.</param>
/// <param name="CodeOf">The code of the school for a status.</param>
/// <param name="Read">What was read aloud to the class: in which lesson, when by the clock, which reminder, and its words.</param>
/// <param name="Amendments">What was amended after it was handed in: when, which lesson, why, and what changed.</param>
public sealed record RegisterReport(
    IReadOnlyList<RegisteredLesson> Lessons, IReadOnlyList<RegisteredStudent> Students, Func<AttendanceStatus, string> CodeOf,
    IReadOnlyList<(Guid Lesson, string Clock, string Reminder, string Words)> Read, IReadOnlyList<(LocalDate Day, int Lesson, string What)> Amendments)
{
    // As many days as stand beside a name on a page.
    private const int MostColumns = 12;

    /// <summary>The report.</summary>
    /// <param name="about">The line above the title.</param>
    public Document Written(string about) => new("Register", about,
    [
        new("", [.. Summary()]),
        .. Lessons.Count == 0 ? Array.Empty<Section>() : [new("Codes", [string.Join(", ", new[] { AttendanceStatus.Present, AttendanceStatus.Late, AttendanceStatus.Absent, AttendanceStatus.Excused }.Select(s => $"{CodeOf(s)} {s.InWords()}")) + "."])],
        .. Chunks().Select((chunk, i) => new Section(i == 0 ? "Lesson by lesson" : "", [], null, ByLesson(chunk))),
        .. Lessons.Count == 0 ? Array.Empty<Section>() : [new("How often", [], null, Sums())],
        .. Beside(),
        .. ReadAloud(),
        .. Amended(),
    ]);

    private IEnumerable<Sentence> Summary()
    {
        if (Lessons.Count == 0)
        {
            yield return "No register of these days is confirmed.";
            yield break;
        }

        int All(AttendanceStatus status) => Students.Sum(s => s.Count(status));
        var asked = All(AttendanceStatus.Present) + All(AttendanceStatus.Late) + All(AttendanceStatus.Absent);
        yield return $"{Words.Capital(Words.Several(Lessons.Count, "lesson"))}, {Words.Count(Students.Count, "student")}: present {All(AttendanceStatus.Present)}, late {All(AttendanceStatus.Late)}, absent {All(AttendanceStatus.Absent)}, excused {All(AttendanceStatus.Excused)}.";
        if (asked > 0)
        {
            yield return $"That is {Words.Percent((decimal)(asked - All(AttendanceStatus.Absent)) / asked)} of what nobody was excused from.";
        }
    }

    // Parts of much the same width, rather than one with a single day in it.
    private IEnumerable<IReadOnlyList<int>> Chunks()
    {
        var parts = (Lessons.Count + MostColumns - 1) / MostColumns;
        return parts == 0 ? [] : Enumerable.Range(0, Lessons.Count).Chunk((Lessons.Count + parts - 1) / parts);
    }

    private Figures ByLesson(IReadOnlyList<int> lessons) => new(
        $"Lessons {Lessons[lessons[0]].Number} to {Lessons[lessons[^1]].Number}",
        ["Student", .. lessons.Select(l => $"{Lessons[l].Day.Day}.{Lessons[l].Day.Month}.")],
        [
            .. Students.Select(s => new FigureRow(
                [new FigureCell(s.Name), .. lessons.Select(l => new FigureCell(s.Marks[l] is { } mark ? CodeOf(mark.Status) : ""))], new Opens(s.Student))),
        ]);

    private Figures Sums() => new(
        "How often", ["Number", "Student", "Present", "Late", "Absent", "Excused", "Present of asked"],
        [
            .. Students.Select(s => (Student: s, Asked: s.Count(AttendanceStatus.Present) + s.Count(AttendanceStatus.Late) + s.Count(AttendanceStatus.Absent))).Select(s => new FigureRow(
            [
                s.Student.Number ?? "", s.Student.Name, s.Student.Count(AttendanceStatus.Present), s.Student.Count(AttendanceStatus.Late), s.Student.Count(AttendanceStatus.Absent), s.Student.Count(AttendanceStatus.Excused),
                s.Asked == 0 ? "" : new FigureCell($"{Words.Shown((s.Asked - s.Student.Count(AttendanceStatus.Absent)) * 100m / s.Asked)} %", Math.Round((decimal)(s.Asked - s.Student.Count(AttendanceStatus.Absent)) / s.Asked, 4)),
            ])),
        ]);

    private IEnumerable<Section> Beside()
    {
        var rows = Students.SelectMany(s => s.Marks.Select((m, i) => (Mark: m, Lesson: Lessons[i])).Where(m => m.Mark is { Status: not AttendanceStatus.Present } mark && mark.Beside.Length > 0)
            .Select(m => new FigureRow([s.Name, $"{m.Lesson.Number}, {StudentReport.DayOf(m.Lesson.Day)}", m.Mark!.Value.Status.InWords(), m.Mark.Value.Beside], new Opens(s.Student, m.Lesson.Id)))).ToList();
        return rows.Count == 0 ? [] : [new("What stands beside it", [], null, new Figures("Beside", ["Student", "Lesson", "Status", "Beside it"], rows))];
    }

    private IEnumerable<Section> ReadAloud()
    {
        var rows = Lessons.SelectMany(l => Read.Where(r => r.Lesson == l.Id).Select(r => new FigureRow([$"{l.Number}, {StudentReport.DayOf(l.Day)}", r.Clock, r.Reminder, r.Words], new Opens(Lesson: l.Id)))).ToList();
        return rows.Count == 0 ? [] : [new("Read aloud to the class", [], null, new Figures("Read aloud", ["Lesson", "At", "What", "In these words"], rows))];
    }

    private IEnumerable<Section> Amended() => Amendments.Count == 0 ? [] :
    [
        new("Amendments", [], null, new Figures("Amendments", ["Day", "Lesson", "What"], [.. Amendments.Select(a => new FigureRow([StudentReport.DayOf(a.Day), a.Lesson, a.What]))])),
    ];
}
