using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using NodaTime;
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

    private TermSheet(Guid classId, string name, Scheme scheme, IReadOnlyList<OnSheet> roster, IReadOnlyList<Lesson> lessons, Dictionary<Guid, Scheme> schemes, IEnumerable<Summary> summaries)
    {
        (ClassId, Name, Scheme, Roster, Lessons, _schemes) = (classId, name, scheme, roster, lessons, schemes);
        _summaries = summaries.ToDictionary(s => (s.LessonId, s.StudentId));
    }

    public Guid ClassId { get; }

    public string Name { get; }

    public Scheme Scheme { get; }

    public IReadOnlyList<OnSheet> Roster { get; }

    public IReadOnlyList<Lesson> Lessons { get; }

    /// <summary>Reads the settled lessons of a class.</summary>
    /// <param name="row">The class.</param>
    /// <param name="db">A context of its owner.</param>
    /// <param name="student">The only student whose summaries are read; null for everybody.</param>
    /// <param name="span">The days from which lessons are read; null for all of them.</param>
    /// <param name="figuresOnly">Whether what stands beside the figures, the notes and the ribbons, is left where it is: that is most of the reading.</param>
    public static async Task<TermSheet> Of(SchoolClass row, SchoolDb db, Guid? student = null, Span? span = null, bool figuresOnly = false)
    {
        var id = row.Id;
        var (from, to) = (span?.From ?? Instant.MinValue, span?.To ?? Instant.MaxValue);
        var lessons = await db.Lessons.AsNoTracking().Where(l => l.ClassId == id && l.Stage == LessonStage.Settled && l.PlannedStart >= from && l.PlannedStart < to)
            .OrderBy(l => l.PlannedStart).ToListAsync();
        var rows = db.Summaries.AsNoTracking().Where(s => s.Lesson!.ClassId == id && s.Lesson.PlannedStart >= from && s.Lesson.PlannedStart < to && (student == null || s.StudentId == student));
        var summaries = await (figuresOnly
            ? rows.Select(s => new Summary { LessonId = s.LessonId, StudentId = s.StudentId, Score = s.Score, PresentSeconds = s.PresentSeconds, Tally = s.Tally, Notes = "", Ribbon = "" })
            : rows).ToListAsync();
        // Who left keeps their place as long as a lesson of theirs stands in the term.
        var known = summaries.Select(s => s.StudentId).ToHashSet();
        var now = Rosters.Of(db, id);
        var here = now.Select(s => s.Name.Id).ToHashSet();
        var versions = await Schemes.Of(db, id).ToDictionaryAsync(v => v.Number, v => RulesJson.SchemeOf(v.Scheme));
        var rules = RulesJson.Of(row);
        return new TermSheet(
            id, row.Name, rules.Scheme,
            [.. now, .. Rosters.Ever(db, id).Where(s => !here.Contains(s.Name.Id) && known.Contains(s.Name.Id))], lessons,
            lessons.ToDictionary(l => l.Id, l => RulesJson.Of(l, l.ScoredBy is { } number ? rules with { Scheme = versions[number] } : rules).Scheme), summaries);
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

    /// <summary>How many lessons of a student are scored, on these days.</summary>
    public int Scored(Guid student, Span? span = null) => ScoredOf(student, span).Count;

    /// <summary>The score of a student over the lessons of these days.</summary>
    public TermScore Score(Guid student, Span? span = null) => TermScore.Of(ScoredOf(student, span), Scheme);

    /// <summary>The value of a strand in a lesson, from 0 to 1; null if there was no chance.</summary>
    public decimal? StrandOf(Strand strand, Lesson lesson, Guid student) => TallyOf(lesson.Id, student) is { } did
        ? LessonScore.Of(did.ToScore(SchemeOf(lesson)), SchemeOf(lesson)).Strands.FirstOrDefault(s => s.Strand == strand)?.Value?.Value
        : null;

    /// <summary>A strand over the lessons of these days in which there was a chance in it, from 0 to 100; the lowest count, too.</summary>
    public TermScore ScoreOfStrand(Strand strand, Guid student, Span? span = null) => TermScore.Of(ChancesOf(strand, student, span), Scheme with { LowestLeftOut = 0 });

    /// <summary>In how many lessons of these days there was a chance in a strand.</summary>
    public int ChancesIn(Strand strand, Guid student, Span? span = null) => ChancesOf(strand, student, span).Count;

    /// <summary>Why a term score needs a look, each in a few words.</summary>
    /// <param name="student">The student.</param>
    /// <param name="score">The score over the lessons of these days.</param>
    /// <param name="span">The days; null for all.</param>
    public IReadOnlyList<string> NeedsLook(Guid student, TermScore score, Span? span = null) => Core.Scoring.NeedsLook.Because(
        [
            .. Lessons.Where(l => span is null || span.Has(l.PlannedStart)).Select(l => (Row: Of(l.Id, student), Tally: TallyOf(l.Id, student))).Where(l => l.Row is not null)
                .Select(l => new LessonLooked(l.Row!.Score, l.Row.RestsOnLittle, l.Tally!)),
        ],
        score);

    /// <summary>A score over the term as it is shown.</summary>
    public decimal? Shown(Figure? total) => total is null ? null : Scheme.Shown(total.Value);

    /// <summary>The name of the band that a score over the term is in.</summary>
    public string? BandOf(Figure? total) => total is null ? null : Scheme.BandOf(total.Value)?.Name;

    private List<ScoredLesson> ChancesOf(Strand strand, Guid student, Span? span) =>
    [
        .. from lesson in Lessons
           where span is null || span.Has(lesson.PlannedStart)
           let value = StrandOf(strand, lesson, student)
           where value is not null
           select new ScoredLesson(LabelOf(lesson), value.Value * 100, MinutesOf(lesson)),
    ];

    private List<ScoredLesson> ScoredOf(Guid student, Span? span) =>
    [
        .. from lesson in Lessons
           where span is null || span.Has(lesson.PlannedStart)
           let score = Of(lesson.Id, student)?.Score
           where score is not null
           select new ScoredLesson(LabelOf(lesson), score.Value, MinutesOf(lesson)),
    ];
}
