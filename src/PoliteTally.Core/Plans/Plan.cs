using NodaTime;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Plans;

/// <summary>A part of a lesson as planned.</summary>
/// <param name="Id">Its id, kept when it moves.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Length">Its planned length, from 0 to 600 min.</param>
/// <param name="Directions">What students are to do, for the class board. Markdown.</param>
public sealed record PlannedStage(Guid Id, string Name, Duration Length, string Directions = "");

/// <summary>Something each student is asked to speak to in a turn.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Text">What it is.</param>
public sealed record PointToCover(Guid Id, string Text);

/// <summary>Students who are to be kept together, or apart, when groups are made.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Students">Two students or more.</param>
public sealed record StudentSet(Guid Id, IReadOnlyList<Guid> Students);

/// <summary>A stage with the time it is to begin and end.</summary>
public sealed record TimedStage(PlannedStage Stage, Instant From, Instant To);

/// <summary>What is prepared for one lesson.</summary>
public sealed record Plan
{
    /// <summary>Nothing prepared.</summary>
    public static readonly Plan Empty = new();

    /// <summary>The longest name or point, in UTF-16 code units: 120.</summary>
    public const int LongestLine = 120;

    /// <summary>The longest directions of a stage, in UTF-16 code units: 5,000.</summary>
    public const int LongestDirections = 5000;

    /// <summary>The most items of any list: 60.</summary>
    public const int MostItems = 60;

    private static readonly Duration LongestStage = Duration.FromMinutes(600);

    /// <summary>Stages, in order.</summary>
    public IReadOnlyList<PlannedStage> Stages { get; init; } = [];

    /// <summary>Points to cover, in order.</summary>
    public IReadOnlyList<PointToCover> Points { get; init; } = [];

    /// <summary>Who works together when groups are made.</summary>
    public IReadOnlyList<StudentSet> Together { get; init; } = [];

    /// <summary>Who does not.</summary>
    public IReadOnlyList<StudentSet> Apart { get; init; } = [];

    /// <summary>Prepared questions, in order.</summary>
    public IReadOnlyList<Question> Questions { get; init; } = [];

    /// <summary>Statements for signal rounds.</summary>
    public IReadOnlyList<PointToCover> Statements { get; init; } = [];

    /// <summary>Whether nothing is prepared.</summary>
    public bool IsEmpty => Stages.Count + Points.Count + Together.Count + Apart.Count + Questions.Count + Statements.Count == 0;

    /// <summary>The planned length of all stages.</summary>
    public Duration Length => Stages.Aggregate(Duration.Zero, (sum, stage) => sum + stage.Length);

    /// <summary>The stages with the times that follow from the start.</summary>
    public IReadOnlyList<TimedStage> Timed(Instant start)
    {
        var timed = new List<TimedStage>();
        foreach (var stage in Stages)
        {
            var from = timed.Count == 0 ? start : timed[^1].To;
            timed.Add(new TimedStage(stage, from, from + stage.Length));
        }

        return timed;
    }

    /// <summary>
    /// The plan for use in another lesson: every part gets an id of its own, so that answers to a question of one lesson are never
    /// taken for answers in another, and wishes for groups keep only students who are there.
    /// </summary>
    /// <param name="newId">Makes ids.</param>
    /// <param name="students">The students of the other lesson.</param>
    public Plan CopiedFor(Func<Guid> newId, IReadOnlySet<Guid> students) => this with
    {
        Stages = [.. Stages.Select(s => s with { Id = newId() })],
        Points = [.. Points.Select(p => p with { Id = newId() })],
        Statements = [.. Statements.Select(s => s with { Id = newId() })],
        Together = Kept(Together, newId, students),
        Apart = Kept(Apart, newId, students),
        Questions = [.. Questions.Select(q => q with { Id = newId(), Options = [.. q.Options.Select(o => o with { Id = newId() })] })],
    };

    /// <summary>What keeps a plan from being stored, each with its place; empty if nothing does.</summary>
    public IReadOnlyList<string> Problems()
    {
        var problems = new List<string>();
        Count(Stages.Count, "stages");
        Count(Points.Count, "points to cover");
        Count(Together.Count + Apart.Count, "wishes for groups");
        Count(Questions.Count, "questions");
        Count(Statements.Count, "statements");
        foreach (var (stage, number) in Stages.Select((s, i) => (s, i + 1)))
        {
            if (stage.Name.Length > LongestLine)
            {
                problems.Add($"Stage {number}: the name may have {LongestLine} characters.");
            }

            if (stage.Length < Duration.Zero || stage.Length > LongestStage)
            {
                problems.Add($"Stage {number}: from 0 to 600 min.");
            }

            if (stage.Directions.Length > LongestDirections)
            {
                problems.Add($"Stage {number}: the directions may have {LongestDirections:N0} characters.");
            }
        }

        foreach (var (point, number) in Points.Concat(Statements).Select((p, i) => (p, i + 1)).Where(p => p.p.Text.Length > LongestLine * 2))
        {
            problems.Add($"“{point.Text[..30]}…”: a point or a statement may have {LongestLine * 2} characters.");
        }

        foreach (var (question, number) in Questions.Select((q, i) => (q, i + 1)))
        {
            problems.AddRange(QuestionRules.Problems(question).Select(p => $"Question {number}: {p}"));
        }

        var ids = Stages.Select(s => s.Id).Concat(Points.Select(p => p.Id)).Concat(Statements.Select(s => s.Id))
            .Concat(Together.Concat(Apart).Select(s => s.Id)).Concat(Questions.Select(q => q.Id))
            .Concat(Questions.SelectMany(q => q.Options).Select(o => o.Id));
        if (ids.GroupBy(id => id).Any(same => same.Count() > 1))
        {
            problems.Add("Two parts of this plan have the same id.");
        }

        return problems;

        void Count(int count, string what)
        {
            if (count > MostItems)
            {
                problems.Add($"A plan may have {MostItems} {what}; this one has {count}.");
            }
        }
    }

    private static IReadOnlyList<StudentSet> Kept(IReadOnlyList<StudentSet> sets, Func<Guid> newId, IReadOnlySet<Guid> students) =>
        [.. sets.Select(s => new StudentSet(newId(), [.. s.Students.Where(students.Contains)])).Where(s => s.Students.Count > 1)];
}
