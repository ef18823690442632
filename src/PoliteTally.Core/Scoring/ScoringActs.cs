using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>The teacher's own judgement of a student by one criterion of the class. The last word on a criterion counts.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Criterion">The id of the criterion.</param>
/// <param name="Level">The id of its level.</param>
public sealed record CriterionMarked(Guid Student, Guid Criterion, Guid Level) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsTakenWhenSettled => true;

    /// <inheritdoc/>
    public override bool IsOfScores => true;

    /// <inheritdoc/>
    public override string InWords => "a criterion marked";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.Levels?.Contains((Criterion, Level)) == true ? null : "There is no such criterion, or no such level of it, in the scheme of this lesson.";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<Judged>().Mark(student, new CriterionMark(Criterion, Level, entry.Id));
}

/// <summary>What a correction does.</summary>
public enum CorrectionKind
{
    /// <summary>A strand is left out, as if there had been no chance.</summary>
    StrandLeftOut,

    /// <summary>A strand has another value.</summary>
    StrandSet,

    /// <summary>The lesson does not count for the student.</summary>
    LessonLeftOut,

    /// <summary>The score of the lesson is another.</summary>
    ScoreSet,
}

/// <summary>The teacher puts the score of one student in one lesson right, with a reason. Of two about the same thing the later one counts.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="What">What it does.</param>
/// <param name="Strand">The strand it is about; null if it is about the lesson.</param>
/// <param name="Value">From 0 to 1 for a strand, from 0 to 100 for a score; null if something is left out.</param>
/// <param name="Reason">Why.</param>
public sealed record ScoreCorrected(Guid Student, CorrectionKind What, Strand? Strand, decimal? Value, string Reason) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsTakenWhenSettled => true;

    /// <inheritdoc/>
    public override bool IsOfScores => true;

    /// <inheritdoc/>
    public override string InWords => $"{Correction.InWords(What, Strand, Value)}: {Reason}";

    internal override string? Typed => Reason;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Reason) ? "A correction needs a reason."
        : TextLimits.TooLong(Reason, "reason", TextLimits.LongestText)
            ?? (IsOfStrand != Strand is not null ? (IsOfStrand ? "Say which strand." : "This is about the whole lesson, not about a strand.")
            : Sets != Value is not null ? (Sets ? "Say to what it is set." : "What is left out is not set to anything.")
            : Value < 0 || Value > (IsOfStrand ? 1 : 100) ? (IsOfStrand ? "A strand is set from 0 to 1." : "A score is set from 0 to 100.")
            : null);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<Judged>().Correct(student, new Correction(What, Strand, Value, Reason, entry.By, entry.NotedAt, entry.Id));

    private bool IsOfStrand => What is CorrectionKind.StrandLeftOut or CorrectionKind.StrandSet;

    private bool Sets => What is CorrectionKind.StrandSet or CorrectionKind.ScoreSet;
}

/// <summary>The lesson is scored by another version of the scheme from now on. The last word counts.</summary>
/// <param name="Version">The number of the version.</param>
public sealed record ScoredAnew(int Version) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override bool IsTakenWhenSettled => true;

    /// <inheritdoc/>
    public override bool IsOfScores => true;

    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    /// <inheritdoc/>
    public override string InWords => $"scored by version {Version} of the scheme";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Version >= 1 && Version <= lesson.SchemeVersions ? null : $"The scheme of this class has no version {Version}.";

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<Judged>().ScoreBy(Version);
}
