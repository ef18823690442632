using System.Globalization;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>A lesson of a student under two schemes.</summary>
/// <param name="Label">What the lesson is called.</param>
/// <param name="PlannedMinutes">Its planned length in minutes.</param>
/// <param name="Score">Its score as it is, 0 to 100; null if it has none.</param>
/// <param name="Tally">What was done in it; null if that is not known.</param>
/// <param name="By">The scheme it is scored by when the change is made; null if it keeps its score.</param>
public sealed record LessonTried(string Label, decimal PlannedMinutes, decimal? Score, Tally? Tally, Scheme? By);

/// <summary>A student under two schemes.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Lessons">Their lessons.</param>
/// <param name="Did">What they did in all of them, kept or not.</param>
public sealed record StudentTried(Guid Student, IReadOnlyList<LessonTried> Lessons, TermDeeds Did);

/// <summary>What a student did over a term, as far as it says whom a change of scheme is about.</summary>
/// <param name="Lessons">Lessons that have a row of theirs.</param>
/// <param name="Turns">Full and partial turns.</param>
/// <param name="Messages">Contributions in the chat.</param>
/// <param name="WeakLine">Lessons in which they fell out of the meeting or could not speak.</param>
/// <param name="Excused">Lessons they were excused from.</param>
public sealed record TermDeeds(int Lessons, int Turns, int Messages, int WeakLine, int Excused)
{
    /// <summary>Adds up what they did.</summary>
    public static TermDeeds Of(IReadOnlyCollection<Tally> lessons) => new(
        lessons.Count, lessons.Sum(t => t.Turns()), lessons.Sum(t => t.Contributions()),
        lessons.Count(t => t.Dropouts > 0 || t.SpeakingPaused || t.TurnsNotCounted > 0), lessons.Count(t => t.Status == AttendanceStatus.Excused));

    /// <summary>Whether the line failed in at least a quarter of the lessons.</summary>
    public bool HasWeakLine => WeakLine > 0 && WeakLine * 4 >= Lessons;

    /// <summary>Whether they were excused from at least two lessons, and from at least a fifth.</summary>
    public bool IsOftenExcused => Excused >= 2 && Excused * 5 >= Lessons;
}

/// <summary>The term score of a student before and after.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Before">As it is, unrounded; null with too few lessons.</param>
/// <param name="After">As it would be; null with too few lessons.</param>
/// <param name="BandBefore">The name of the band it is in; null if there are none.</param>
/// <param name="BandAfter">The name of the band it would be in; null if there are none.</param>
/// <param name="Change">What is shown after, less what is shown before; null if either is missing.</param>
/// <param name="Crossed">1 if it rises to a higher band, −1 if it drops, 0 otherwise.</param>
/// <param name="About">What is to be known of the student when the change is judged, in two or three words; empty if nothing.</param>
public sealed record TermChange(Guid Student, decimal? Before, decimal? After, string? BandBefore, string? BandAfter, decimal? Change, int Crossed, string About);

/// <summary>A whole class under two schemes.</summary>
/// <param name="Students">Its students, the largest loss first; those without a change last.</param>
/// <param name="Gain">How many gain.</param>
/// <param name="Lose">How many lose.</param>
/// <param name="Stay">How many stay.</param>
/// <param name="InWords">What is to be known before the change is made, in sentences.</param>
public sealed record BeforeAfter(IReadOnlyList<TermChange> Students, int Gain, int Lose, int Stay, IReadOnlyList<string> InWords)
{
    /// <summary>Reckons both.</summary>
    /// <param name="students">The students.</param>
    /// <param name="before">The scheme of the term as it is.</param>
    /// <param name="after">The scheme that is tried.</param>
    public static BeforeAfter Of(IReadOnlyList<StudentTried> students, Scheme before, Scheme after)
    {
        var changes = students.AsParallel().AsOrdered().Select(s => ChangeOf(s, before, after)).ToList();
        var did = students.ToDictionary(s => s.Student, s => s.Did);
        var known = changes.Where(c => c.Change is not null).ToList();
        var (gain, lose) = (known.Count(c => c.Change > 0), known.Count(c => c.Change < 0));
        return new BeforeAfter(
            [.. changes.OrderBy(c => c.Change is null).ThenBy(c => c.Change).ThenBy(c => c.After)], gain, lose, known.Count - gain - lose, [.. Sentences(known, did)]);
    }

    private static TermChange ChangeOf(StudentTried student, Scheme before, Scheme after)
    {
        var was = TermScore.Of([.. Scored(student, l => l.Score)], before).Total?.Value;
        var then = TermScore.Of([.. Scored(student, l => l is { Tally: { } tally, By: { } by } ? LessonScore.Of(tally.ToScore(by), by).Total?.Value : l.Score)], after).Total?.Value;
        // Of a class that had no bands it is asked what the new ones would have said before.
        var (bandBefore, bandAfter) = (was is { } w ? (before.Bands.Count > 0 ? before : after).BandOf(w) : null, then is { } t ? after.BandOf(t) : null);
        var change = was is null || then is null ? (decimal?)null : after.Shown(then.Value) - before.Shown(was.Value);
        // Bands may change themselves: what counts is whether the student stands higher among them.
        var crossed = bandBefore is null || bandAfter is null || bandBefore.Name == bandAfter.Name ? 0 : bandAfter.From.CompareTo(bandBefore.From);
        return new TermChange(student.Student, was, then, bandBefore?.Name, bandAfter?.Name, change, crossed, AboutOf(student.Did));
    }

    private static IEnumerable<ScoredLesson> Scored(StudentTried student, Func<LessonTried, decimal?> score) =>
        from lesson in student.Lessons
        let value = score(lesson)
        where value is not null
        select new ScoredLesson(lesson.Label, value.Value, lesson.PlannedMinutes);

    private static string AboutOf(TermDeeds did) => string.Join(", ", new[]
    {
        did is { Turns: 0, Messages: > 0 } ? "writes, never speaks" : did is { Turns: 0 } ? "never speaks" : "",
        did.HasWeakLine ? "weak line" : "",
        did.IsOftenExcused ? "often excused" : "",
    }.Where(a => a.Length > 0));

    private static IEnumerable<string> Sentences(List<TermChange> known, Dictionary<Guid, TermDeeds> did)
    {
        if (known.Count == 0)
        {
            yield return "Nobody has enough lessons for a term score yet: there is nothing to compare.";
            yield break;
        }

        var (gain, lose) = (known.Count(c => c.Change > 0), known.Count(c => c.Change < 0));
        yield return $"{gain} {(gain == 1 ? "gains" : "gain")}, {lose} {(lose == 1 ? "loses" : "lose")}, {known.Count - gain - lose} {(known.Count - gain - lose == 1 ? "stays" : "stay")}.";
        var (drop, rise) = (known.Count(c => c.Crossed < 0), known.Count(c => c.Crossed > 0));
        if (drop + rise > 0)
        {
            var (down, up) = ($"{Words.InLetters(drop)} {(drop == 1 ? "drops" : "drop")} a band", $"{Words.InLetters(rise)} {(rise == 1 ? "rises" : "rise")}");
            yield return Words.Sentence(drop > 0 && rise > 0 ? $"{down}, {up}" : drop > 0 ? down : $"{up} a band");
        }

        // The quarter of the class that speaks least, and all who speak as little as they do.
        var turns = known.ConvertAll(c => did[c.Student].Turns);
        turns.Sort();
        var little = turns[(turns.Count - 1) / 4];
        if (little < turns[^1])
        {
            yield return OfGroup($"those who speak little, at most {Words.Count(little, "turn")} in the term", known.Where(c => did[c.Student].Turns <= little));
        }

        if (known.Exists(c => did[c.Student].HasWeakLine))
        {
            yield return OfGroup("those with a weak line", known.Where(c => did[c.Student].HasWeakLine));
        }

        if (known.Exists(c => did[c.Student].IsOftenExcused))
        {
            yield return OfGroup("those who are often excused", known.Where(c => did[c.Student].IsOftenExcused));
        }
    }

    private static string OfGroup(string who, IEnumerable<TermChange> group)
    {
        var changes = group.Select(c => c.Change!.Value).Order().ToList();
        var middle = changes.Count % 2 == 1 ? changes[changes.Count / 2] : (changes[(changes.Count / 2) - 1] + changes[changes.Count / 2]) / 2;
        var points = Words.Plain(Math.Abs(middle));
        var what = middle == 0 ? "neither gain nor lose" : $"{(middle < 0 ? "lose" : "gain")} {points} {(points == "1" ? "point" : "points")}";
        return Words.Sentence($"{who} ({changes.Count.ToString(CultureInfo.InvariantCulture)}), {what} in the middle");
    }
}
