using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>A criterion as it was marked.</summary>
/// <param name="Criterion">The id of the criterion.</param>
/// <param name="Level">The id of its level.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record CriterionMark(Guid Criterion, Guid Level, Guid Entry);

/// <summary>A correction as it was made.</summary>
/// <param name="What">What it does.</param>
/// <param name="Strand">The strand it is about; null if it is about the lesson.</param>
/// <param name="Value">From 0 to 1 for a strand, from 0 to 100 for a score; null if something is left out.</param>
/// <param name="Reason">Why.</param>
/// <param name="By">Who made it.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record Correction(CorrectionKind What, Strand? Strand, decimal? Value, string Reason, string By, Instant At, Guid Entry)
{
    /// <summary>What a correction does, without its reason: "speaking set to 50 %".</summary>
    public static string InWords(CorrectionKind what, Strand? strand, decimal? value) => what switch
    {
        CorrectionKind.StrandLeftOut => $"{strand?.InWords()} left out",
        CorrectionKind.StrandSet => $"{strand?.InWords()} set to {Words.Plain((value ?? 0) * 100)} %",
        CorrectionKind.LessonLeftOut => "the lesson left out",
        _ => $"the score set to {Words.Plain(value ?? 0)}",
    };

    /// <summary>It in words, with its reason.</summary>
    public string Said => $"{InWords(What, Strand, Value)} by hand: {Reason}";
}

/// <summary>What the teacher says of scores: marks by criteria, corrections, and by which version of the scheme the lesson is scored.</summary>
public sealed class Judged : LessonPart
{
    private readonly Dictionary<Guid, Dictionary<Guid, CriterionMark>> _marks;
    private readonly Dictionary<Guid, Dictionary<int, Correction>> _corrections;

    internal Judged() => (_marks, _corrections) = ([], []);

    private Judged(Judged from)
    {
        _marks = from._marks.ToDictionary(m => m.Key, m => new Dictionary<Guid, CriterionMark>(m.Value));
        _corrections = from._corrections.ToDictionary(c => c.Key, c => new Dictionary<int, Correction>(c.Value));
        Version = from.Version;
    }

    /// <summary>The version of the scheme that it is scored by; null while it is the one it was settled with.</summary>
    public int? Version { get; private set; }

    /// <summary>The marks of a student, one for each criterion.</summary>
    public IReadOnlyCollection<CriterionMark> MarksOf(Guid student) => _marks.TryGetValue(student, out var marks) ? marks.Values : [];

    /// <summary>The corrections of a student that count: one for each strand, and one for the lesson.</summary>
    public IReadOnlyCollection<Correction> CorrectionsOf(Guid student) => _corrections.TryGetValue(student, out var corrections) ? corrections.Values : [];

    internal void Mark(Guid student, CriterionMark mark)
    {
        _marks.TryAdd(student, []);
        _marks[student][mark.Criterion] = mark;
    }

    internal void Correct(Guid student, Correction correction)
    {
        _corrections.TryAdd(student, []);
        _corrections[student][correction.Strand is { } strand ? (int)strand : -1] = correction;
    }

    internal void ScoreBy(int version) => Version = version;

    internal override LessonPart Copy() => new Judged(this);
}
