using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>Somebody on no roster, in the lessons that nobody has to come to.</summary>
/// <param name="Name">The name shown.</param>
/// <param name="Often">In how many of them they were.</param>
/// <param name="There">For how long in all.</param>
public sealed record GuestVisits(string Name, int Often, Duration There);

/// <summary>A whole class over some lessons.</summary>
/// <param name="Students">Its students.</param>
/// <param name="Lessons">How many settled lessons there are.</param>
/// <param name="Guests">Who came besides.</param>
public sealed record ClassOverview(IReadOnlyList<StudentTerm> Students, int Lessons, IReadOnlyList<GuestVisits> Guests)
{
    private const int MostNamed = 5;

    // What does not fit is told by its number alone.
    private const int MostStrokes = 90;

    /// <summary>The report.</summary>
    /// <param name="about">The line above the title.</param>
    /// <param name="name">The name of the class.</param>
    public Document Written(string about, string name)
    {
        var sections = new List<Section> { new("", [.. Summary()]) };
        if (Lessons > 0)
        {
            sections.AddRange([new("What changed lately", [.. Changed()], null, Movers()), .. ClassTerm.Of(Students).Written() is { } term ? [term] : Array.Empty<Section>(), .. Bands(), new("Everybody", [], null, Everybody()), .. DropIn()]);
        }

        return new Document(name, about, sections);
    }

    private IEnumerable<Sentence> Summary()
    {
        if (Lessons == 0)
        {
            yield return "No lesson of these days is settled.";
            yield break;
        }

        int All(AttendanceStatus status) => Students.Sum(s => s.Lessons.Count(l => !l.DropIn && l.Did.Status == status));
        var asked = All(AttendanceStatus.Present) + All(AttendanceStatus.Late) + All(AttendanceStatus.Absent);
        if (asked > 0)
        {
            var share = Words.Percent((decimal)(asked - All(AttendanceStatus.Absent)) / asked);
            yield return new($"Students were there for {share} of what they were not excused from.", Marked: share);
        }

        var (came, spoke) = (Students.Count(s => s.Came.Count > 0), Students.Count(s => s.SpokeIn > 0));
        yield return $"{(spoke == came ? $"All {came}" : $"{spoke} of {came}")} who came have spoken, {Words.Count(Students.Sum(s => s.Sum(t => t.Turns())), "turn")} in all; {Words.Count(Students.Sum(s => s.Sum(t => t.Contributions())), "contribution")} stood in the chat.";
        if (Students.Sum(s => s.Sum(t => t.Asked)) is > 0 and var questions)
        {
            yield return $"{Words.Percent((decimal)Students.Sum(s => s.Sum(t => t.Answered)) / questions)} of the questions that went to somebody were answered.";
        }
    }

    private IEnumerable<Sentence> Changed()
    {
        var moved = Students.Where(s => s.Moved is not null).ToList();
        if (moved.Count == 0)
        {
            yield return "It takes five scored lessons to say what changed.";
            yield break;
        }

        var (up, down) = (moved.Where(s => Change(s) >= StudentInWords.WorthSaying).OrderByDescending(Change).ToList(), moved.Where(s => Change(s) <= -StudentInWords.WorthSaying).OrderBy(Change).ToList());
        yield return up.Count + down.Count == 0 ? "The last three lessons went as those before."
            : $"In the last three lessons {Words.InLetters(up.Count)} stand higher than before and {Words.InLetters(down.Count)} lower, by five points or more.";
        if (up.Count > 0)
        {
            yield return $"Higher: {Named(up)}.";
        }

        if (down.Count > 0)
        {
            yield return $"Lower: {Named(down)}; worth asking how things are.";
        }
    }

    private static decimal Change(StudentTerm student) => student.Moved is { } moved ? moved.Lately - moved.Before : 0;

    private static string Named(List<StudentTerm> students) =>
        Words.Listed(students.Take(MostNamed).Select(s => s.Called)) + (students.Count > MostNamed ? $", and {students.Count - MostNamed} more" : "");

    private Figures? Movers()
    {
        var moved = Students.Where(s => Math.Abs(Change(s)) >= StudentInWords.WorthSaying).OrderBy(Change).ToList();
        return moved.Count == 0 ? null : new Figures(
            "What changed", ["Student", "Before", "Last three", "Change"],
            [.. moved.Select(s => new FigureRow([s.Called, Words.Shown(s.Moved!.Value.Before), Words.Shown(s.Moved.Value.Lately), Words.Shown(s.Moved.Value.Lately) - Words.Shown(s.Moved.Value.Before)], new Opens(s.Id)))], Fold: true);
    }

    private IEnumerable<Section> Bands()
    {
        var scheme = Students.Count > 0 ? Students[0].Scheme : null;
        if (scheme is null || scheme.Bands.Count == 0)
        {
            return [];
        }

        var rows = scheme.Bands.Reverse().Select(b => (Band: b, In: Students.Count(s => s.Score.Total is { } total && scheme.BandOf(total.Value)?.Name == b.Name))).ToList();
        var without = Students.Count(s => s.Score.Total is null);
        return
        [
            new("Bands", without > 0 ? [$"{Words.Capital(Words.Several(without, "student"))} {(without == 1 ? "has" : "have")} too few scored lessons for a score."] : [], Drawn([.. rows.Select(r => (r.Band.Name, r.In))]), new Figures(
                "Bands", ["Band", "From", "Students"], [.. rows.Select(r => new FigureRow([r.Band.Name, FigureCell.Of(r.Band.From), r.In]))], Fold: true)),
        ];
    }

    // Each student is a stroke.
    private static Drawing Drawn(IReadOnlyList<(string Band, int In)> rows)
    {
        const decimal row = 18, left = 130;
        var sketch = new Sketch(Sketch.PageWidth);
        for (var i = 0; i < rows.Count; i++)
        {
            var ((band, count), foot) = (rows[i], (row * i) + 13);
            sketch.Words(Pen.Ink, 0, foot, Words.Cut(band, 26), 9);
            var end = count > MostStrokes ? left : sketch.Strokes(Pen.Ink, left, foot + 1, 11, count);
            sketch.Words(Pen.Soft, end + (end > left ? 6 : 0), foot, $"{count}", 9);
        }

        return sketch.Done($"Students by band: {Words.Listed(rows.Select(r => $"{r.Band} {r.In}"))}.", (row * rows.Count) + 2);
    }

    private Figures Everybody() => new(
        "Everybody", ["Student", "There", "Late", "Absent", "Excused", "Turns", "Answered", "Asked", "Marks", "Chat", "Groups", "Nods", "Score"],
        [
            .. Students.Select(s => new FigureRow(
                [
                    s.Called, s.Came.Count, s.Count(AttendanceStatus.Late), s.Count(AttendanceStatus.Absent), s.Count(AttendanceStatus.Excused), FigureCell.Of(s.Sum(t => t.FullTurns) + (s.Sum(t => t.PartialTurns) * 0.5m)),
                    s.Sum(t => t.Answered), s.Sum(t => t.Asked), FigureCell.Of(s.Sum(t => t.MarksGot)), s.Sum(t => t.Contributions()), FigureCell.Of(s.Sum(t => t.GroupCredits)), s.Sum(t => t.Nods),
                    s.Score.Total is { } total ? FigureCell.Of(s.Scheme.Shown(total.Value)) : "not yet",
                ],
                new Opens(s.Id))),
        ]);

    private IEnumerable<Section> DropIn()
    {
        var came = Students.Where(s => s.Came.Any(l => l.DropIn)).OrderByDescending(s => s.Came.Where(l => l.DropIn).Sum(l => l.There.TotalMinutes)).ToList();
        return came.Count + Guests.Count == 0 ? [] :
        [
            new("Drop-in lessons", [$"{Words.Capital(Words.Several(came.Count, "student"))} came{(Guests.Count > 0 ? $", and {Words.Several(Guests.Count, "guest")}" : "")}."], null, new Figures(
                "Drop-in", ["Who", "How often", "Minutes in all"],
                [
                    .. came.Select(s => s.Came.Where(l => l.DropIn).ToList()).Zip(came, (lessons, s) => new FigureRow(
                        [s.Called, lessons.Count, Words.WholeMinutes(lessons.Aggregate(Duration.Zero, (sum, l) => sum + l.There))], new Opens(s.Id))),
                    .. Guests.OrderByDescending(g => g.There).ThenBy(g => g.Name, StringComparer.OrdinalIgnoreCase)
                        .Select(g => new FigureRow([$"{g.Name}, guest", g.Often, Words.WholeMinutes(g.There)])),
                ])),
        ];
    }
}
