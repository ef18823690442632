using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>A whole class over some lessons.</summary>
/// <param name="Students">Its students.</param>
/// <param name="Lessons">How many settled lessons there are.</param>
/// <param name="Guests">Visits of people who are not on the roster, by lesson of those that nobody has to come to.</param>
public sealed record ClassOverview(IReadOnlyList<StudentTerm> Students, int Lessons, int Guests)
{
    private const int MostNamed = 5;

    /// <summary>The report.</summary>
    /// <param name="about">The line above the title.</param>
    /// <param name="name">The name of the class.</param>
    public Document Written(string about, string name)
    {
        var sections = new List<Section> { new("", [.. Summary()]) };
        if (Lessons > 0)
        {
            sections.AddRange([new("What changed lately", [.. Changed()], null, Movers()), .. Bands(), new("Everybody", [], null, Everybody()), .. DropIn()]);
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
            new("Bands", without > 0 ? [$"{Words.Capital(Words.Several(without, "student"))} {(without == 1 ? "has" : "have")} too few scored lessons for a score."] : [], null, new Figures(
                "Bands", ["Band", "From", "Students"], [.. rows.Select(r => new FigureRow([r.Band.Name, FigureCell.Of(r.Band.From), r.In]))])),
        ];
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
        return came.Count == 0 ? [] :
        [
            new("Drop-in lessons", [$"{Words.Capital(Words.Several(came.Count, "student"))} came{(Guests > 0 ? $", and {Words.Several(Guests, "guest")}" : "")}."], null, new Figures(
                "Drop-in", ["Student", "How often", "Minutes in all"],
                [
                    .. came.Select(s => s.Came.Where(l => l.DropIn).ToList()).Zip(came, (lessons, s) => new FigureRow(
                        [s.Called, lessons.Count, (int)Math.Round(lessons.Sum(l => l.There.TotalMinutes), MidpointRounding.AwayFromZero)], new Opens(s.Id))),
                ])),
        ];
    }
}
