using NodaTime;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>A lesson of a class, as far as all its students together tell of it.</summary>
/// <param name="Id">The id of the lesson.</param>
/// <param name="Number">Its number in the class.</param>
/// <param name="Day">Its day at the school.</param>
/// <param name="There">How many were there.</param>
/// <param name="Spoke">How many of them had a turn.</param>
/// <param name="Asked">Questions that counted for somebody, one for each.</param>
/// <param name="Answered">How many of these were answered.</param>
/// <param name="Contributions">Contributions in the chat.</param>
/// <param name="Groups">What was contributed in groups, added up.</param>
/// <param name="Mean">The mean of the scores, 0 to 100; null if none counts.</param>
public sealed record LessonOfClass(Guid Id, int Number, LocalDate Day, int There, int Spoke, int Asked, int Answered, int Contributions, decimal Groups, decimal? Mean);

/// <summary>The lessons of a class one after the other.</summary>
/// <param name="lessons">The lessons, in their order.</param>
public sealed class ClassTerm(IReadOnlyList<LessonOfClass> lessons)
{
    /// <summary>Adds up what is known of each lesson.</summary>
    /// <param name="students">The students of the class.</param>
    public static ClassTerm Of(IReadOnlyList<StudentTerm> students)
    {
        var sums = new Dictionary<Guid, Sum>();
        foreach (var lesson in students.SelectMany(s => s.Lessons))
        {
            if (!sums.TryGetValue(lesson.Id, out var sum))
            {
                sums[lesson.Id] = sum = new Sum(lesson);
            }

            sum.Add(lesson);
        }

        return new ClassTerm([.. sums.Values.Select(s => s.Done).OrderBy(l => l.Day).ThenBy(l => l.Number)]);
    }

    // In one go: a class of a thousand has sixty thousand of them.
    private sealed class Sum(LessonOfStudent one)
    {
        private int _there, _spoke, _asked, _answered, _contributions, _scored;
        private decimal _groups, _scores;

        public LessonOfClass Done => new(one.Id, one.Number, one.Day, _there, _spoke, _asked, _answered, _contributions, _groups, _scored == 0 ? null : _scores / _scored);

        public void Add(LessonOfStudent lesson)
        {
            var did = lesson.Did;
            _there += lesson.Came ? 1 : 0;
            _spoke += did.Turns() > 0 ? 1 : 0;
            _asked += did.Asked;
            _answered += did.Answered;
            _contributions += did.Contributions();
            _groups += did.GroupCredits;
            if (lesson.Score is { } score)
            {
                _scored++;
                _scores += score;
            }
        }
    }

    /// <summary>How it went; null with fewer than two lessons.</summary>
    public Section? Written() => lessons.Count < 2 ? null : new Section("Lesson by lesson", [.. Says()], Drawn(), new Figures(
        "Lessons", ["Lesson", "Day", "There", "Spoke", "Answered", "Asked", "Chat", "Groups", "Mean score"],
        [
            .. lessons.Select(l => new FigureRow(
                [l.Number, StudentReport.ShortDayOf(l.Day), l.There, l.Spoke, l.Answered, l.Asked, l.Contributions, FigureCell.Of(l.Groups), l.Mean is { } mean ? Words.Shown(mean) : "–"], new Opens(Lesson: l.Id))),
        ],
        Fold: true));

    private IEnumerable<Sentence> Says()
    {
        if (lessons.Count < StudentTerm.Last + 2)
        {
            yield return "It takes five lessons to say where it is going.";
            yield break;
        }

        var (lately, before) = (lessons.TakeLast(StudentTerm.Last).ToList(), lessons.SkipLast(StudentTerm.Last).ToList());
        List<string> moved =
        [
            .. Moved("of those who were there had a turn", l => (l.Spoke, l.There)),
            .. Moved("of the questions were answered", l => (l.Answered, l.Asked)),
        ];
        foreach (var sentence in moved)
        {
            yield return sentence;
        }

        if (moved.Count == 0)
        {
            yield return "The last three lessons went as those before.";
        }

        IEnumerable<string> Moved(string what, Func<LessonOfClass, (int Part, int Whole)> of)
        {
            if (ShareIn(lately) is { } now && ShareIn(before) is { } then && Math.Abs(now - then) * 100 >= StudentInWords.WorthSaying)
            {
                yield return $"In the last three lessons {Words.Percent(now)} {what}; before, it was {Words.Percent(then)}.";
            }

            decimal? ShareIn(List<LessonOfClass> some) => some.Sum(l => of(l).Whole) is > 0 and var whole ? (decimal)some.Sum(l => of(l).Part) / whole : null;
        }
    }

    private Drawing Drawn()
    {
        var sketch = new Sketch(Sketch.PageWidth);
        var axis = new LessonAxis(sketch, [.. lessons.Select(l => l.Number)], top: 18, height: 92);
        var wide = Math.Min(14, axis.Step * 0.55m);
        (decimal X, decimal Y)? before = null;
        for (var i = 0; i < lessons.Count; i++)
        {
            var (lesson, x) = (lessons[i], axis.Of(i));
            if (lesson.There > 0)
            {
                sketch.Field(Pen.Speaking, x - (wide / 2), axis.At((decimal)lesson.Spoke / lesson.There), x + (wide / 2), axis.Foot);
            }

            if (lesson.Mean is { } mean)
            {
                var now = (X: x, Y: axis.At(mean / 100));
                if (before is { } last)
                {
                    sketch.Line(Pen.Ink, last.X, last.Y, now.X, now.Y, 1.4m);
                }

                sketch.Dot(Pen.Ink, now.X, now.Y, Math.Min(2.2m, axis.Step / 4));
                before = now;
            }
        }

        sketch.Words(Pen.Soft, Sketch.PageWidth, 7, "a bar is how many of those who were there had a turn; the line is the mean of the scores", 7.5m, Side.End);
        return sketch.Done(
            $"{Words.Count(lessons.Count, "lesson")}: of those who were there {string.Join(", ", lessons.Select(l => l.There > 0 ? Words.Percent((decimal)l.Spoke / l.There) : "nobody"))} had a turn. The table has the same in figures.",
            axis.Bottom);
    }
}
