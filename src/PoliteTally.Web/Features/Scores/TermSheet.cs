using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Scores;

/// <summary>The settled lessons of a class with their summaries: what scores and reports read.</summary>
internal sealed class TermSheet
{
    private readonly Dictionary<(Guid Lesson, Guid Student), Summary> _summaries;

    private TermSheet(string name, Scheme scheme, IReadOnlyList<OnSheet> roster, IReadOnlyList<Lesson> lessons, IEnumerable<Summary> summaries)
    {
        (Name, Scheme, Roster, Lessons) = (name, scheme, roster, lessons);
        _summaries = summaries.ToDictionary(s => (s.LessonId, s.StudentId));
    }

    public string Name { get; }

    public Scheme Scheme { get; }

    public IReadOnlyList<OnSheet> Roster { get; }

    public IReadOnlyList<Lesson> Lessons { get; }

    public static async Task<TermSheet> Of(SchoolClass row, SchoolDb db)
    {
        var id = row.Id;
        var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == id && l.Stage == LessonStage.Settled)
            .OrderBy(l => l.PlannedStart).ToListAsync();
        var summaries = await db.Summaries.AsNoTracking().Where(s => s.Lesson!.ClassId == id).ToListAsync();
        // Who left keeps their place as long as a lesson of theirs stands in the term.
        var known = summaries.Select(s => s.StudentId).ToHashSet();
        var now = Rosters.Of(db, id);
        var here = now.Select(s => s.Name.Id).ToHashSet();
        return new TermSheet(
            row.Name, RulesJson.Of(row).Scheme,
            [.. now, .. Rosters.Ever(db, id).Where(s => !here.Contains(s.Name.Id) && known.Contains(s.Name.Id))], lessons, summaries);
    }

    public Summary? Of(Guid lesson, Guid student) => _summaries.GetValueOrDefault((lesson, student));

    public int Scored(Guid student) => Lessons.Count(l => Of(l.Id, student)?.Score is not null);

    public TermScore Score(Guid student) => TermScore.Of(
        [.. from lesson in Lessons
            let score = Of(lesson.Id, student)?.Score
            where score is not null
            select new ScoredLesson(
                $"Lesson {lesson.Number}, {lesson.Title}", score.Value, (decimal)(lesson.PlannedEnd - lesson.PlannedStart).TotalMinutes)],
        Scheme);
}
