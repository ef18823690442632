using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>Whom a report on a student is for.</summary>
public enum Reader
{
    /// <summary>The student, and whoever teaches them.</summary>
    Student,

    /// <summary>A guardian: the same, with what the words mean, and without who put what right.</summary>
    Guardian,
}

/// <summary>One student over some lessons, as a document. There is nothing of any other student in it.</summary>
public static class StudentReport
{
    /// <summary>The part of it that a teacher may put in other words.</summary>
    public const string Summary = "summary";

    private static readonly CultureInfo English = CultureInfo.GetCultureInfo("en-GB");

    /// <summary>Writes it.</summary>
    /// <param name="student">The student.</param>
    /// <param name="about">The line above the name: class, days, school.</param>
    /// <param name="reader">Whom it is for.</param>
    public static Document Of(StudentTerm student, string about, Reader reader)
    {
        var sections = new List<Section> { new("", [.. StudentInWords.Of(student), StudentInWords.Next(student)], Key: Summary) };
        if (student.Lessons.Count > 0)
        {
            sections.Add(new Section("Lesson by lesson", [], StudentDrawings.LessonByLesson(student), Lessons(student)));
            sections.Add(new Section(ScoreHeading(student), Score(student, reader), StudentDrawings.HowItMoved(student)));
            sections.Add(new Section("What went well", StudentInWords.WentWell(student)));
            sections.AddRange(new[] { Chances(student), NotCounted(student), PutRight(student, reader) }.OfType<Section>());
        }

        return new Document(student.Whole, about, sections);
    }

    /// <summary>A day as it stands in a report: "12 October".</summary>
    public static string DayOf(LocalDate day) => day.ToString("d MMMM", English);

    /// <summary>The same where there is little room: "16 Nov".</summary>
    public static string ShortDayOf(LocalDate day) => day.ToString("d MMM", English);

    private static string ScoreHeading(StudentTerm student) => student.Score.Total is { } total ? $"Over these lessons: {Words.Plain(student.Scheme.Shown(total.Value))} of 100" : "Over these lessons";

    private static List<Sentence> Score(StudentTerm student, Reader reader)
    {
        var (scored, opens) = (student.Lessons.Count(l => l.Score is not null), new Opens(student.Id));
        var says = new List<Sentence>();
        if (student.Score.Total is { } total)
        {
            var band = student.Scheme.BandOf(total.Value)?.Name is { } name ? $", “{name}”" : "";
            says.Add(new($"The score is {Words.Plain(student.Scheme.Shown(total.Value))} of 100{band}, from {Words.Several(scored, "scored lesson")}.", opens, Words.Plain(student.Scheme.Shown(total.Value))));
        }
        else
        {
            says.Add(new($"There is no score over these lessons yet: {Words.InLetters(scored)} of the {Words.Several(student.Scheme.LessonsForTerm, "scored lesson")} that it takes.", opens));
        }

        if (student.Score.LeftOut.Count > 0)
        {
            says.Add($"The lowest {(student.Score.LeftOut.Count == 1 ? "one does" : $"{Words.InLetters(student.Score.LeftOut.Count)} do")} not count.");
        }

        if (reader == Reader.Guardian)
        {
            says.Add($"100 is all that {student.Called} had a chance to do; what could not be done, or was excused, is left out and marks nobody down.");
        }

        return says;
    }

    private static Figures Lessons(StudentTerm student) => new(
        "Lesson by lesson", ["Lesson", "Day", "There", "Minutes", "Turns", "Answered", "Chat", "Nods", "Score"],
        [
            .. student.Lessons.Select(l => new FigureRow(
                [
                    $"{l.Number}, {l.Title}", DayOf(l.Day), l.Did.Status.InWords() + (l.Notes.Length > 0 ? $", {l.Notes}" : ""),
                    Words.WholeMinutes(l.There), FigureCell.Of(l.Did.FullTurns + (l.Did.PartialTurns * 0.5m)),
                    l.Did.Asked == 0 ? "" : $"{l.Did.Answered} of {l.Did.Asked}", l.Did.Contributions(), l.Did.Nods,
                    l.Score is { } score ? FigureCell.Of(student.Scheme.Shown(score)) : "not counted",
                ],
                new Opens(student.Id, l.Id))),
        ],
        Fold: true);

    private static Section? Chances(StudentTerm student)
    {
        (string What, int Had, int Taken)[] all =
        [
            ("turns, when called or drawn", student.Sum(t => t.Turns() + t.Passes), student.Sum(t => t.Turns())),
            ("questions", student.Sum(t => t.Asked), student.Sum(t => t.Answered)),
            ("signal rounds", student.Sum(t => t.SignalRounds), student.Sum(t => t.SignalsAnswered)),
            ("lessons with an open line", student.Lessons.Count(l => l.Did.LineWasOpen), student.Lessons.Count(l => l.Did.LineWasOpen && (l.Did.Turns() > 0 || l.Did.HandNeverCalled))),
        ];
        var rows = all.Where(c => c.Had > 0).Select(c => new FigureRow([c.What, c.Had, c.Taken], new Opens(student.Id))).ToList();
        return rows.Count == 0 ? null : new Section("Chances", [], null, new Figures("Chances", ["Chances", "Had", "Taken"], rows));
    }

    private static Section? NotCounted(StudentTerm student)
    {
        var rows = new List<FigureRow>();
        foreach (var lesson in student.Lessons)
        {
            var why = new[]
            {
                lesson.Did.Status == AttendanceStatus.Excused ? "excused" : lesson.Score is null && lesson.Did.Status != AttendanceStatus.Absent ? "nothing that counts was possible" : "",
                lesson.Did.SpeakingPaused ? "speaking was not possible" : "",
                lesson.Did.TurnsNotCounted > 0 ? Words.Count(lesson.Did.TurnsNotCounted, "turn") + " that could not be taken" : "",
            };
            if (Words.Listed(why) is { Length: > 0 } because)
            {
                rows.Add(new FigureRow([$"{lesson.Number}, {lesson.Title}", because], new Opens(student.Id, lesson.Id)));
            }
        }

        return rows.Count == 0 ? null : new Section("Not counted, and why", [], null, new Figures("Not counted", ["Lesson", "Why"], rows));
    }

    private static Section? PutRight(StudentTerm student, Reader reader)
    {
        var rows = student.Lessons.SelectMany(l => l.Did.Corrections.Select(c => new FigureRow(
            [$"{l.Number}, {l.Title}", c.Said, .. reader == Reader.Guardian ? Array.Empty<FigureCell>() : [c.By]], new Opens(student.Id, l.Id)))).ToList();
        string[] headings = reader == Reader.Guardian ? ["Lesson", "What"] : ["Lesson", "What", "By"];
        return rows.Count == 0 ? null : new Section("Put right by hand", [], null, new Figures("Put right", headings, rows));
    }
}
