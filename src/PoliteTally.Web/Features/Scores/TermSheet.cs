using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Scores;

/// <summary>The settled lessons of a class with their summaries: what scores and reports read.</summary>
internal sealed class TermSheet
{
    private readonly Dictionary<(Guid Lesson, Guid Student), Summary> _summaries;

    private readonly Dictionary<Guid, Scheme> _schemes;
    private readonly ConcurrentDictionary<Summary, Tally> _tallies = new(ReferenceEqualityComparer.Instance);

    private TermSheet(string name, Scheme scheme, IReadOnlyList<OnSheet> roster, IReadOnlyList<Lesson> lessons, Dictionary<Guid, Scheme> schemes, IEnumerable<Summary> summaries)
    {
        (Name, Scheme, Roster, Lessons, _schemes) = (name, scheme, roster, lessons, schemes);
        _summaries = summaries.ToDictionary(s => (s.LessonId, s.StudentId));
    }

    public string Name { get; }

    public Scheme Scheme { get; }

    public IReadOnlyList<OnSheet> Roster { get; }

    public IReadOnlyList<Lesson> Lessons { get; }

    /// <summary>Reads the settled lessons of a class.</summary>
    /// <param name="row">The class.</param>
    /// <param name="db">A context of its owner.</param>
    /// <param name="student">The only student whose summaries are read; null for everybody.</param>
    /// <param name="figuresOnly">Whether what stands beside the figures, the notes and the ribbons, is left where it is: that is most of the reading.</param>
    public static async Task<TermSheet> Of(SchoolClass row, SchoolDb db, Guid? student = null, bool figuresOnly = false)
    {
        var id = row.Id;
        var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == id && l.Stage == LessonStage.Settled)
            .OrderBy(l => l.PlannedStart).ToListAsync();
        var rows = db.Summaries.AsNoTracking().Where(s => s.Lesson!.ClassId == id && (student == null || s.StudentId == student));
        var summaries = await (figuresOnly
            ? rows.Select(s => new Summary { LessonId = s.LessonId, StudentId = s.StudentId, Score = s.Score, Tally = s.Tally, Notes = "", Ribbon = "" })
            : rows).ToListAsync();
        // Who left keeps their place as long as a lesson of theirs stands in the term.
        var known = summaries.Select(s => s.StudentId).ToHashSet();
        var now = Rosters.Of(db, id);
        var here = now.Select(s => s.Name.Id).ToHashSet();
        var versions = await Schemes.Of(db, id).ToDictionaryAsync(v => v.Number, v => RulesJson.SchemeOf(v.Scheme));
        return new TermSheet(
            row.Name, RulesJson.Of(row).Scheme,
            [.. now, .. Rosters.Ever(db, id).Where(s => !here.Contains(s.Name.Id) && known.Contains(s.Name.Id))], lessons,
            lessons.ToDictionary(l => l.Id, l => RulesJson.Of(l, row, l.ScoredBy is { } number ? versions[number] : null).Scheme), summaries);
    }

    /// <summary>What a lesson is called in an explanation.</summary>
    public static string LabelOf(Lesson lesson) => $"Lesson {lesson.Number}, {lesson.Title}";

    /// <summary>The planned length of a lesson in minutes.</summary>
    public static decimal MinutesOf(Lesson lesson) => (decimal)(lesson.PlannedEnd - lesson.PlannedStart).TotalMinutes;

    /// <summary>The scheme that a lesson is scored by.</summary>
    public Scheme SchemeOf(Lesson lesson) => _schemes[lesson.Id];

    /// <summary>What a student did in a lesson, counted; null if they have no row of it.</summary>
    public Tally? TallyOf(Guid lesson, Guid student) => Of(lesson, student) is { } summary ? _tallies.GetOrAdd(summary, Summaries.TallyOf) : null;

    /// <summary>What a student did in all lessons that have a row of theirs.</summary>
    public IReadOnlyList<Tally> TalliesOf(Guid student) => [.. Lessons.Select(l => TallyOf(l.Id, student)).OfType<Tally>()];

    public Summary? Of(Guid lesson, Guid student) => _summaries.GetValueOrDefault((lesson, student));

    public int Scored(Guid student) => Lessons.Count(l => Of(l.Id, student)?.Score is not null);

    public TermScore Score(Guid student) => TermScore.Of(
        [.. from lesson in Lessons
            let score = Of(lesson.Id, student)?.Score
            where score is not null
            select new ScoredLesson(LabelOf(lesson), score.Value, MinutesOf(lesson))],
        Scheme);
}
