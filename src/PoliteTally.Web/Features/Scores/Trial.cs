using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Scores;

/// <summary>A class with what its students did, to be scored by a scheme that is tried.</summary>
internal static class Trial
{
    /// <summary>The students of a term.</summary>
    /// <param name="term">The term.</param>
    /// <param name="inClass">Its class.</param>
    /// <param name="tried">The scheme.</param>
    /// <param name="anew">The lessons that are scored by it; the others keep their scores.</param>
    /// <param name="db">A context of the owner.</param>
    public static IReadOnlyList<StudentTried> Of(TermSheet term, SchoolClass inClass, Scheme tried, HashSet<Guid> anew, SchoolDb db)
    {
        var rules = RulesJson.Of(inClass, tried);
        var schemes = term.Lessons.ToDictionary(l => l.Id, l => anew.Contains(l.Id) ? RulesJson.Of(l, rules).Scheme : null);
        var folded = term.Lessons.Where(l => schemes[l.Id] is { } scheme && !Tally.CountsAlike(term.SchemeOf(l).Attendance, scheme.Attendance))
            .ToDictionary(l => l.Id, l => Folded(l, schemes[l.Id]!, db));
        var lengths = term.Lessons.ToDictionary(l => l.Id, l => (Label: TermSheet.LabelOf(l), Minutes: TermSheet.MinutesOf(l)));
        return [.. term.Roster.Select(s => s.Name.Id).AsParallel().AsOrdered().Select(student =>
        {
            var (lessons, tallies) = (new List<LessonTried>(term.Lessons.Count), new List<Tally>(term.Lessons.Count));
            foreach (var lesson in term.Lessons)
            {
                if (term.Of(lesson.Id, student) is not { } summary)
                {
                    continue;
                }

                var tally = folded.TryGetValue(lesson.Id, out var fresh) ? fresh.GetValueOrDefault(student) : term.TallyOf(lesson.Id, student);
                if (tally is not null)
                {
                    tallies.Add(tally);
                }

                lessons.Add(new LessonTried(lengths[lesson.Id].Label, lengths[lesson.Id].Minutes, summary.Score, tally, schemes[lesson.Id]));
            }

            return new StudentTried(student, lessons, TermDeeds.Of(tallies));
        })];
    }

    // Where attendance itself is counted otherwise, what was kept says nothing: the entries do.
    private static Dictionary<Guid, Tally> Folded(Lesson lesson, Scheme scheme, SchoolDb db)
    {
        var open = OpenLesson.Load(db, lesson.Id)!;
        return open.Roster.ToDictionary(s => s.Name.Id, s => Tally.Of(open.State.ParticipationOf(s.Name.Id, open.Times, scheme)));
    }
}
