using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>The drawings of a report on a student.</summary>
public static class StudentDrawings
{
    private const int InARow = 12;

    private sealed record StrandRow(string Name, Pen Pen, Func<Tally, int> Whole, Func<Tally, int> Half)
    {
        public bool HasAny(StudentTerm student) => student.Lessons.Any(l => Whole(l.Did) + Half(l.Did) > 0);

        public string Total(StudentTerm student) => Words.Plain(student.Sum(t => Whole(t) + (Half(t) * 0.5m)));
    }

    private static readonly StrandRow[] Strands =
    [
        new("speaking", Pen.Speaking, t => t.FullTurns, t => t.PartialTurns),
        new("questions answered", Pen.Questions, t => t.Answered, _ => 0),
        new("chat", Pen.Chat, t => t.Contributions(), _ => 0),
        new("groups", Pen.Group, t => t.SitIns > 0 ? (int)t.GroupCredits : 0, t => t.GroupCredits % 1 > 0 ? 1 : 0),
        new("nods", Pen.Nods, t => t.Nods, _ => 0),
    ];

    /// <summary>Each lesson as a ribbon, with strokes by strand below it.</summary>
    public static Drawing LessonByLesson(StudentTerm student)
    {
        const decimal row = 13;
        var (sketch, strands) = (new Sketch(Sketch.PageWidth), Strands.Where(s => s.HasAny(student)).ToList());
        var (column, block) = (Sketch.PageWidth / InARow, 30 + (row * strands.Count));
        for (var i = 0; i < student.Lessons.Count; i++)
        {
            var (lesson, x, y) = (student.Lessons[i], i % InARow * column, i / InARow * block);
            var number = $"{lesson.Number}";
            sketch.Words(Pen.Ink, x, y + 8, number, 8, bold: true);
            sketch.Words(Pen.Soft, x + 2 + (number.Length * 5), y + 8, StudentReport.ShortDayOf(lesson.Day), 7);
            if (lesson.Came)
            {
                sketch.Ribbon(x, y + 16, column - 7, lesson.Stretches, lesson.Spoke);
            }
            else
            {
                sketch.Line(Pen.Rule, x, y + 16, x + column - 7, y + 16, 1.4m);
                sketch.Words(Pen.Soft, x, y + 27, lesson.Did.Status == Attendance.AttendanceStatus.Excused ? "excused" : "not there", 7);
            }

            for (var s = 0; s < strands.Count; s++)
            {
                // More than there is room for is told by its number.
                var (strand, foot) = (strands[s], y + 31 + (row * s));
                var (whole, half) = (strand.Whole(lesson.Did), strand.Half(lesson.Did));
                if (whole + half > 10)
                {
                    sketch.Words(strand.Pen, x, foot - 1, $"{whole + half} ×", 8, bold: true);
                }
                else
                {
                    sketch.Strokes(strand.Pen, x + 1, foot, 10, whole, half);
                }
            }
        }

        var end = ((student.Lessons.Count + InARow - 1) / InARow * block) + 8;
        var at = 0m;
        foreach (var strand in strands)
        {
            var text = $"{strand.Name} {strand.Total(student)}";
            sketch.Words(strand.Pen, at, end, text, 8, bold: true);
            at += (text.Length * 4.6m) + 14;
        }

        sketch.Words(Pen.Soft, at, end, strands.Exists(s => s.Pen == Pen.Speaking) ? "a line is the lesson, a dot a turn, a short stroke half of one" : "a line is the lesson, solid while there", 8);
        return sketch.Done($"{Words.Count(student.Lessons.Count, "lesson")} of {student.Called}, each as a line that is solid while {student.Called} was there, with strokes for what was done. The table has the same in figures.", end + 6);
    }

    /// <summary>The scores of the lessons, and the mean so far; null with fewer than two.</summary>
    public static Drawing? HowItMoved(StudentTerm student)
    {
        var scored = student.Lessons.Where(l => l.Score is not null).ToList();
        if (scored.Count < 2)
        {
            return null;
        }

        const decimal height = 96, top = 20, left = 26, right = 96;
        var (sketch, foot) = (new Sketch(Sketch.PageWidth), top + height);
        var step = (Sketch.PageWidth - left - right) / scored.Count;
        decimal At(decimal score) => foot - (height * score / 100);
        var lines = student.Scheme.Bands.Count > 0 ? student.Scheme.Bands.Select(b => (b.From, b.Name)) : [(0m, ""), (50m, ""), (100m, "")];
        var lastName = decimal.MaxValue;
        foreach (var (from, name) in lines)
        {
            sketch.Line(Pen.Rule, left, At(from), Sketch.PageWidth - right, At(from), 0.7m);
            sketch.Words(Pen.Soft, left - 5, At(from) + 3, Words.Plain(from), 7.5m, Side.End);
            // Names that would lie on each other: the higher band waits for room.
            if (name.Length > 0 && lastName - At(from) > 9)
            {
                sketch.Words(Pen.Soft, Sketch.PageWidth - right + 8, At(from) - 2, Words.Cut(name, 20), 7.5m);
                lastName = At(from);
            }
        }

        var (sum, before) = (0m, (X: 0m, Y: 0m));
        for (var i = 0; i < scored.Count; i++)
        {
            var (x, score) = (left + (step * (i + 0.5m)), scored[i].Score!.Value);
            sketch.Line(Pen.Ink, x, foot, x, At(score), Math.Min(2, step / 3));
            if (step >= 16)
            {
                sketch.Words(Pen.Ink, x, At(score) - 4, $"{Words.Shown(score)}", 7.5m, Side.Middle);
                sketch.Words(Pen.Soft, x, foot + 10, $"{scored[i].Number}", 7, Side.Middle);
            }

            sum += score;
            var now = (X: x, Y: At(sum / (i + 1)));
            if (i > 0)
            {
                sketch.Line(Pen.Soft, before.X, before.Y, now.X, now.Y, 1.2m);
            }

            before = now;
        }

        sketch.Line(Pen.Ink, left, foot, Sketch.PageWidth - right, foot, 0.7m);
        sketch.Words(Pen.Soft, Sketch.PageWidth, 7, "each lesson; the line is the mean so far", 7.5m, Side.End);
        return sketch.Done($"The scores of {Words.Count(scored.Count, "lesson")}: {string.Join(", ", scored.Select(l => Words.Shown(l.Score!.Value)))}.", foot + 14);
    }
}
