using System.Globalization;
using NodaTime;
using PoliteTally.Core.Fairness;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>Who was heard in a class and how evenly, beside what chance alone would make of it.</summary>
/// <param name="Heard">Who was heard.</param>
/// <param name="Lessons">The same, lesson by lesson.</param>
/// <param name="Tags">Groups of students beside the others.</param>
/// <param name="Called">What a student is called in it.</param>
public sealed record FairnessReport(ClassHeard Heard, IReadOnlyList<LessonHeard> Lessons, IReadOnlyList<TagHeard> Tags, Func<Guid, string> Called)
{
    /// <summary>The section whose sentences can be put into the next plan.</summary>
    public const string NextLesson = "Next lesson";

    /// <summary>From how many lessons in a row without a turn somebody is named: 3.</summary>
    public const int UnheardTooLong = 3;

    private const int MostNamed = 4;
    private static readonly Duration LongWait = Duration.FromMinutes(2);

    /// <summary>The report.</summary>
    /// <param name="about">The line above the title.</param>
    public Document Written(string about)
    {
        if (Heard.Students.Count == 0)
        {
            return new Document("Being fair", about, [new("", ["Nobody was there in a settled lesson of these days: there is nothing to tell."])]);
        }

        return new Document("Being fair", about,
        [
            new("", [.. Summary()]),
            new("How turns were spread", [.. Spread()], Curve()),
            .. Lessons.Count > 1 ? [new Section("Over the term", [.. Trend()], OverTime(), ByLesson())] : Array.Empty<Section>(),
            new("How a turn came about", [.. Origins()]),
            new("Waiting in the line", [.. Waiting()]),
            .. Tags.Count > 0 ? [new Section("Groups side by side", [.. Groups()], null, ByTag())] : Array.Empty<Section>(),
            new(NextLesson, [.. Advice()]),
            new("Everybody", [], null, Everybody()),
        ]);
    }

    private static string Two(decimal value) => value.ToString("0.00", CultureInfo.InvariantCulture);

    // With the same places in every row, so that they can be held against each other.
    private static FigureCell Rate(decimal value) => new(Two(value), Math.Round(value, 2));

    private static string Clock(Duration length) => $"{(int)length.TotalMinutes}:{length.Seconds:D2}";

    private IEnumerable<Sentence> Summary()
    {
        var heard = Heard.HadATurn;
        yield return new(
            $"{(heard == Heard.Students.Count ? $"All {Words.InLetters(heard)}" : $"{Words.Capital(Words.InLetters(heard))} of {Words.InLetters(Heard.Students.Count)}")} students who were there had a turn, {Words.Count(Heard.Turns, "turn")} in {Words.Several(Lessons.Count, "lesson")}.",
            Marked: heard == Heard.Students.Count ? null : $"{Words.Capital(Words.InLetters(heard))} of {Words.InLetters(Heard.Students.Count)}");
        if (Heard.Gini is { } gini)
        {
            yield return gini.IsHigh ? "Turns were spread less evenly than an even draw would spread them."
                : gini.IsLow ? "Turns were spread more evenly than an even draw would spread them."
                : "Turns were spread as an even draw might spread them.";
        }

        if (Heard.UnheardFor(UnheardTooLong) is { Count: > 0 } unheard)
        {
            yield return $"{NamedShort(unheard)} {(unheard.Count == 1 ? "was" : "were")} not heard in the last {Words.Several(unheard.Min(u => u.Unheard), "lesson")} that {(unheard.Count == 1 ? "this student" : "each")} came to, or longer.";
        }
    }

    private IEnumerable<Sentence> Spread()
    {
        if (Heard.Gini is not { } gini || Heard.TopTenth is not { } top)
        {
            yield return "No turn was noted, so there is nothing to spread.";
            yield break;
        }

        yield return $"The Gini coefficient is {Two(gini.Value)}, where 0 is the same for all and 1 is all for one. By an even draw nine of ten classes would lie between {Two(gini.Low)} and {Two(gini.High)}.";
        yield return $"The most heard tenth, {Words.Several((int)Math.Ceiling(Heard.Students.Count / 10.0), "student")}, held {Words.Percent(top.Value)} of all turns; by an even draw {Words.Percent(top.Low)} to {Words.Percent(top.High)}.";
    }

    private Drawing? Curve()
    {
        var curve = Heard.Curve;
        if (curve.Count < 3)
        {
            return null;
        }

        const decimal left = 60, size = 150, top = 18;
        var sketch = new Sketch(Sketch.PageWidth);
        decimal X(decimal share) => left + (size * 1.4m * share);
        decimal Y(decimal share) => top + size - (size * share);
        foreach (var at in new[] { 0m, 0.25m, 0.5m, 0.75m, 1m })
        {
            sketch.Line(Pen.Rule, left, Y(at), X(1), Y(at), 0.7m);
            sketch.Words(Pen.Soft, left - 6, Y(at) + 3, Words.Percent(at), 7.5m, Side.End);
            sketch.Words(Pen.Soft, X(at), Y(0) + 12, Words.Percent(at), 7.5m, Side.Middle);
        }

        sketch.Line(Pen.Soft, X(0), Y(0), X(1), Y(1), 0.8m);
        for (var i = 1; i < curve.Count; i++)
        {
            sketch.Line(Pen.Speaking, X((i - 1m) / (curve.Count - 1)), Y(curve[i - 1]), X((decimal)i / (curve.Count - 1)), Y(curve[i]), 2);
        }

        sketch.Words(Pen.Soft, X(0.5m), Y(0) + 24, "of the students, the least heard first", 7.5m, Side.Middle);
        sketch.Words(Pen.Soft, left - 6, 7, "of all turns", 7.5m, Side.End);
        sketch.Words(Pen.Speaking, X(1) + 12, Y(0.3m), "what they had", 8, bold: true);
        sketch.Words(Pen.Soft, X(1) + 12, Y(0.3m) + 12, "the straight line: the same for all", 8);
        var half = curve[(curve.Count - 1) / 2];
        sketch.Words(Pen.Ink, X(1) + 12, Y(0.3m) + 30, $"the less heard half had {Words.Percent(half)}", 8);
        return sketch.Done($"The curve of Lorenz: the less heard half of the class had {Words.Percent(half)} of all turns.", Y(0) + 30);
    }

    private IEnumerable<Sentence> Trend()
    {
        var shares = Lessons.Where(l => l.Present.Count > 0).Select(ShareOf).ToList();
        if (shares.Count > 0)
        {
            yield return $"In a lesson {Words.Percent(shares.Average())} of those present were heard on average, from {Words.Percent(shares.Min())} to {Words.Percent(shares.Max())}.";
        }
    }

    private static decimal ShareOf(LessonHeard lesson) => lesson.Present.Count == 0 ? 0 : (decimal)lesson.Turns.Select(t => t.Student).Intersect(lesson.Present).Count() / lesson.Present.Count;

    private Drawing OverTime()
    {
        var sketch = new Sketch(Sketch.PageWidth);
        var axis = new LessonAxis(sketch, [.. Lessons.Select(l => l.Number)], top: 8, height: 70);
        for (var i = 0; i < Lessons.Count; i++)
        {
            sketch.Line(Pen.Speaking, axis.Of(i), axis.Foot, axis.Of(i), axis.At(ShareOf(Lessons[i])), Math.Min(4, axis.Step / 2));
        }

        return sketch.Done($"The share of those present who were heard, in each of {Words.Count(Lessons.Count, "lesson")}.", axis.Bottom);
    }

    private Figures ByLesson() => new(
        "Lesson by lesson", ["Lesson", "Present", "Heard", "Turns", "Hands never called", "Longest wait"],
        [
            .. Lessons.Select(l => new FigureRow(
                [
                    $"{l.Number}, {StudentReport.DayOf(l.Day)}", l.Present.Count, l.Turns.Select(t => t.Student).Intersect(l.Present).Count(), l.Turns.Count, l.NeverCalled,
                    l.Waits.Count == 0 ? "" : Clock(l.Waits.Max()),
                ],
                new Opens(Lesson: l.Id))),
        ],
        Fold: true);

    private IEnumerable<Sentence> Origins()
    {
        var by = Heard.ByOrigin;
        string Part(TurnOrigin origin, string words) => by.GetValueOrDefault(origin) is > 0 and var many ? $"{many} {words}" : "";
        var parts = Words.Listed(
        [
            Part(TurnOrigin.Hand, "by a raised hand"), Part(TurnOrigin.Ready, "by “ready” in the chat"), Part(TurnOrigin.Drawn, "by draw"), Part(TurnOrigin.Invited, "by invitation"),
            Part(TurnOrigin.HandedOn, "handed on by a student"),
        ]);
        yield return parts.Length == 0 ? "No turn was noted." : $"Of {Words.Count(Heard.Turns, "turn")}: {parts}.";
        if (Heard.Spoken > Duration.Zero)
        {
            var most = Heard.Students.MaxBy(s => s.Spoken)!;
            yield return $"Where there were captions, students spoke for {Words.Minutes(Heard.Spoken)}; {Called(most.Student)} longest, for {Words.Minutes(most.Spoken)}.";
        }

        if (Heard.Teacher > Duration.Zero)
        {
            yield return $"You spoke for {Words.Minutes(Heard.Teacher)}{(Heard.Spoken > Duration.Zero ? $", {Words.Percent((decimal)(Heard.Teacher / (Heard.Teacher + Heard.Spoken)))} of all that you and they said" : "")}.";
        }
    }

    private IEnumerable<Sentence> Waiting()
    {
        if (Heard.MedianWait is not { } median)
        {
            yield return Heard.NeverCalled == 0 ? "No hand was raised." : $"{Words.Capital(Words.Several(Heard.NeverCalled, "hand"))} went up, and none was called.";
            yield break;
        }

        yield return $"A hand that was called had waited {Clock(median)} in the middle, {Clock(Heard.Waits[^1])} at the longest.";
        yield return Heard.NeverCalled == 0 ? "Every hand was called." : $"{Words.Capital(Words.Several(Heard.NeverCalled, "hand"))} {(Heard.NeverCalled == 1 ? "was" : "were")} never called.";
    }

    private IEnumerable<Sentence> Groups()
    {
        foreach (var tag in Tags.Where(t => t.Difference.IsLow || t.Difference.IsHigh))
        {
            yield return $"Those with “{tag.Tag}” had {(tag.Difference.IsLow ? "fewer" : "more")} turns than the others, by more than groups put together by chance would differ.";
        }

        if (Tags.All(t => !t.Difference.IsLow && !t.Difference.IsHigh))
        {
            yield return "No group differs from the others by more than chance alone would make.";
        }

        yield return new("Groups of fewer than five are not compared: that would be about persons.", Quiet: true);
    }

    private Figures ByTag() => new(
        "Groups", ["Group", "Students", "Turns a lesson", "The others", "Difference", "By chance"],
        [
            .. Tags.Select(t => new FigureRow(
            [
                t.Tag, t.With, Rate(t.Mean), Rate(t.Others), Rate(t.Difference.Value), $"{Two(t.Difference.Low)} to {Two(t.Difference.High)}",
            ])),
        ]);

    private IEnumerable<Sentence> Advice()
    {
        var advice = new List<string>();
        if (Heard.UnheardFor(UnheardTooLong) is { Count: > 0 } unheard)
        {
            advice.Add($"Draw once round: {NamedShort(unheard)} {(unheard.Count == 1 ? "was" : "were")} not heard in {Words.InLetters(unheard.Min(u => u.Unheard))} lessons.");
        }
        else if (Heard.Students.Where(s => s.Turns == 0).ToList() is { Count: > 0 } never)
        {
            advice.Add($"Invite {NamedShort(never)}, without a turn so far.");
        }

        if (Heard.NeverCalled * 5 >= Heard.Waits.Count + Heard.NeverCalled && Heard.NeverCalled > 1)
        {
            advice.Add($"Keep the last five minutes for the line: {Heard.NeverCalled} hands were never called.");
        }

        if (Heard.MedianWait is { } wait && wait > LongWait)
        {
            advice.Add($"Take the line earlier: half of the hands waited longer than {Clock(wait)}.");
        }

        if (Heard.TopTenth is { IsHigh: true } top)
        {
            advice.Add($"Let the draw favour the least heard: the most heard tenth held {Words.Percent(top.Value)} of all turns.");
        }

        if (advice.Count == 0)
        {
            advice.Add("Go on as you do: nobody was passed over for long, and no hand was left waiting.");
        }

        return advice.Take(3).Select(a => new Sentence(a));
    }

    private Figures Everybody() => new(
        "Everybody", ["Student", "Turns", "Lessons there", "Lessons in a row without a turn", "Longest such row"],
        [
            .. Heard.Students.OrderBy(s => s.Turns).ThenByDescending(s => s.Unheard).Select(s => new FigureRow(
                [Called(s.Student), s.Turns, s.Lessons, s.Unheard, s.LongestUnheard], new Opens(s.Student))),
        ]);

    private string NamedShort(IReadOnlyList<StudentHeard> students) => students.Count <= MostNamed
        ? Words.Listed(students.Select(s => Called(s.Student)))
        : $"{Called(students[0].Student)} and {Words.InLetters(students.Count - 1)} others";
}
