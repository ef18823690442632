using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>How a class scores. Every weight, target and cap of the rules stands here, with its default, and nowhere else.</summary>
public sealed record Scheme
{
    /// <summary>The defaults.</summary>
    public static readonly Scheme Default = new();

    /// <summary>The longest name of a band, a criterion or a level, in UTF-16 code units: 60.</summary>
    public const int LongestName = 60;

    /// <summary>How attendance is counted.</summary>
    public AttendancePolicy Attendance { get; init; } = AttendancePolicy.Default;

    /// <summary>Weight of each strand, from zero up; one that is left out weighs nothing. Attendance 2, speaking 3, questions 3, chat 1, group work 1, rubric 0.</summary>
    public IReadOnlyDictionary<Strand, decimal> Weights
    {
        get;
        // Every strand is said, so that a version is read the same whatever strands it was written with.
        init => field = Enum.GetValues<Strand>().ToDictionary(s => s, s => value.GetValueOrDefault(s));
    } = new Dictionary<Strand, decimal>
    {
        [Strand.Attendance] = 2,
        [Strand.Speaking] = 3,
        [Strand.Questions] = 3,
        [Strand.Chat] = 1,
        [Strand.GroupWork] = 1,
        [Strand.Rubric] = 0,
    };

    /// <summary>Turn credits for a full speaking strand. 1, above zero.</summary>
    public decimal SpeakingTarget { get; init; } = 1;

    /// <summary>What a hand that was raised and never called earns, once. 0.5.</summary>
    public decimal UncalledHand { get; init; } = 0.5m;

    /// <summary>What a signal round answered earns, up to 1 in all. 0.25.</summary>
    public decimal SignalAnswered { get; init; } = 0.25m;

    /// <summary>Whether an open hand line from which anybody was called is a chance for all who were there then. On.</summary>
    public bool OpenLineIsChance { get; init; } = true;

    /// <summary>What a contribution in the chat earns for speaking, of what is missing to a full turn; from 0 to 1. 0.25.</summary>
    public decimal WrittenStandsIn { get; init; } = 0.25m;

    /// <summary>The most that all of them earn for speaking, of what is missing to a full turn; from 0 to 1. 0.5.</summary>
    public decimal WrittenAtMost { get; init; } = 0.5m;

    /// <summary>How much marks weigh in the questions strand against answering at all. 0.5, from 0 to 1.</summary>
    public decimal MarksShare { get; init; } = 0.5m;

    /// <summary>What a signal given outside of a signal round earns for speaking, from 0 to 1; all of them together at most 1. 0: it is not counted.</summary>
    public decimal SignalGiven { get; init; }

    /// <summary>Whether contributions in the chat count. If not, the chat strand gives nobody a chance, and nothing written stands in for speaking. On.</summary>
    public bool ChatCounts { get; init; } = true;

    /// <summary>Chat credits for a full chat strand. 2, above zero.</summary>
    public decimal ChatTarget { get; init; } = 2;

    /// <summary>What a full turn earns for the chat, in contributions; from 0 to 1. 0.5.</summary>
    public decimal TurnInChat { get; init; } = 0.5m;

    /// <summary>The most that all of them earn for the chat, as a share of its target; from 0 to 1. 0.5.</summary>
    public decimal TurnsInChatAtMost { get; init; } = 0.5m;

    /// <summary>What one nod adds to the score, in points. 1.</summary>
    public decimal NodPoints { get; init; } = 1;

    /// <summary>The most that nods add to the score, in points. 5.</summary>
    public decimal NodsAtMost { get; init; } = 5;

    /// <summary>Whether an absence without excuse scores 0 in every strand instead of leaving out all but attendance. Off.</summary>
    public bool AbsenceScoresZero { get; init; }

    /// <summary>How many of the lowest lessons a term leaves out. 0.</summary>
    public int LowestLeftOut { get; init; }

    /// <summary>Whether every lesson of a term weighs the same instead of by its planned minutes. Off.</summary>
    public bool LessonsWeighTheSame { get; init; }

    /// <summary>Fewer scored lessons than this, after the lowest were left out, give no term score yet. 3.</summary>
    public int LessonsForTerm { get; init; } = 3;

    /// <summary>By what the teacher judges, for the rubric strand. None.</summary>
    public IReadOnlyList<Criterion> Criteria { get; init; } = [];

    /// <summary>Ranges of scores with names of their own, the lowest first. None.</summary>
    public IReadOnlyList<Band> Bands { get; init; } = [];

    /// <summary>With how many places scores are shown, from 0 to 2. 0.</summary>
    public int Places { get; init; }

    /// <summary>What a level of a criterion is worth, from 0 to 1; null if there is no such level.</summary>
    public decimal? WorthOf(Guid criterion, Guid level) => Criteria.FirstOrDefault(c => c.Id == criterion)?.Levels.FirstOrDefault(l => l.Id == level)?.Worth;

    /// <summary>The band of a score as it is shown; null if there are none.</summary>
    public Band? BandOf(decimal score) => Bands.LastOrDefault(b => Shown(score) >= b.From);

    /// <summary>A score as it is shown: rounded half away from zero.</summary>
    public decimal Shown(decimal score) => Math.Round(score, Places, MidpointRounding.AwayFromZero);

    /// <summary>What is wrong with it, each with its place and what it may be; empty if nothing is.</summary>
    public IReadOnlyList<string> Problems() =>
    [
        .. new (bool Wrong, string Message)[]
        {
            (Attendance.LateAfter.TotalMinutes is < 0 or > 120, "Late after: from 0 to 120 min."),
            (Attendance.LeftEarlyBefore.TotalMinutes is < 0 or > 120, "Left early before: from 0 to 120 min."),
            (Attendance.Bridge.TotalMinutes is < 0 or > 60, "A dropout is bridged: from 0 to 60 min."),
            (Attendance.AbsentBelow.TotalMinutes is < 0 or > 240, "Absent below: from 0 to 240 min."),
            (Attendance.AbsentBelowShare is < 0 or > 1, "Absent below a share: from 0 to 100 %."),
            (Attendance.EnoughShare is <= 0 or > 1, "Enough presence: more than 0 and up to 100 %."),
            (Attendance.LateCredit is < 0 or > 1, "Credit of a late student: from 0 to 1."),
            (Attendance.LeftEarlyCredit is < 0 or > 1, "Credit of a student who left early: from 0 to 1."),
            (Enum.GetValues<Strand>().Any(s => Weights.GetValueOrDefault(s) is < 0 or > 100), "Weights: each from 0 to 100."),
            (Enum.GetValues<Strand>().All(s => Weights.GetValueOrDefault(s) <= 0), "Weights: at least one strand must weigh something."),
            (SpeakingTarget is <= 0 or > 100, "Turns for a full strand: more than 0 and up to 100."),
            (ChatTarget is <= 0 or > 100, "Messages for a full strand: more than 0 and up to 100."),
            (UncalledHand is < 0 or > 1, "A hand never called: from 0 to 1."),
            (SignalAnswered is < 0 or > 1, "A signal round answered: from 0 to 1."),
            (SignalGiven is < 0 or > 1, "A signal given by oneself: from 0 to 1."),
            (WrittenStandsIn is < 0 or > 1, "A message, for speaking: from 0 to 1."),
            (WrittenAtMost is < 0 or > 1, "Messages, for speaking, at most: from 0 to 1."),
            (TurnInChat is < 0 or > 1, "A full turn, for the chat: from 0 to 1."),
            (TurnsInChatAtMost is < 0 or > 1, "Full turns, for the chat, at most: from 0 to 100 %."),
            (MarksShare is < 0 or > 1, "Share of marks: from 0 to 100 %."),
            (NodPoints is < 0 or > 100, "A nod: from 0 to 100 points."),
            (NodsAtMost is < 0 or > 100, "Nods at most: from 0 to 100 points."),
            (LowestLeftOut is < 0 or > 100, "Lowest lessons left out: from 0 to 100."),
            (LessonsForTerm is < 1 or > 100, "Lessons for a term score: from 1 to 100."),
            (Places is < 0 or > 2, "Places shown: from 0 to 2."),
            (Bands.Count > Band.Most, $"Bands: at most {Band.Most}."),
            (Bands.Any(b => b.From is < 0 or > 100), "Bands: each from 0 to 100."),
            (Bands.Any(b => IsNoName(b.Name)), $"Bands: each has a name of at most {LongestName} characters."),
            (Bands.Count > 0 && Bands[0].From != 0, "Bands: the lowest begins at 0, so that no score lies between them."),
            (Bands.Zip(Bands.Skip(1)).Any(b => b.Second.From <= b.First.From), "Bands: each begins above the one before it, so that no two overlap."),
            (Criteria.Count > Criterion.Most, $"Criteria: at most {Criterion.Most}."),
            (Criteria.Any(c => IsNoName(c.Name) || c.Levels.Any(l => IsNoName(l.Name))), $"Criteria: each and each of its levels has a name of at most {LongestName} characters."),
            (Criteria.Any(c => c.Levels.Count is < 2 or > Criterion.MostLevels), $"Criteria: each has from 2 to {Criterion.MostLevels} levels."),
            (Criteria.Any(c => c.Levels.Any(l => l.Worth is < 0 or > 1)), "Criteria: a level is worth from 0 to 1."),
            (Criteria.SelectMany(c => c.Levels.Select(l => l.Id).Append(c.Id)).Distinct().Count() < Criteria.Sum(c => c.Levels.Count + 1), "Criteria: each and each of its levels has an id of its own."),
            (Weights.GetValueOrDefault(Strand.Rubric) > 0 && Criteria.Count == 0, "Rubric: it weighs something, so it needs a criterion."),
        }.Where(p => p.Wrong).Select(p => p.Message),
    ];

    private static bool IsNoName(string name) => CleanText.IsBlank(name) || name.Length > LongestName || !CleanText.IsClean(name);

    /// <summary>What a turn earns by its outcome; null if it is not counted.</summary>
    public static decimal? CreditOf(TurnOutcome? outcome) => outcome switch
    {
        TurnOutcome.Full => 1,
        TurnOutcome.Partial => 0.5m,
        TurnOutcome.Pass => 0,
        // Nobody said how it went, or it could not go: neither is the student's doing.
        _ => null,
    };

    /// <summary>What a message earns by its kind.</summary>
    public static decimal CreditOf(ChatKind kind) => kind switch
    {
        ChatKind.Question or ChatKind.Answer or ChatKind.Idea => 1,
        _ => 0,
    };

    /// <summary>What a contribution in a group earns.</summary>
    public static decimal CreditOf(Contribution contribution) => contribution switch
    {
        Contribution.Contributed => 1,
        Contribution.Some => 0.5m,
        _ => 0,
    };
}

/// <summary>Something that the teacher judges, with levels in their own words.</summary>
/// <param name="Id">Its id, by which marks speak of it.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Levels">Its levels, the best first.</param>
public sealed record Criterion(Guid Id, string Name, IReadOnlyList<CriterionLevel> Levels)
{
    /// <summary>The most criteria of a scheme: 8.</summary>
    public const int Most = 8;

    /// <summary>The most levels of a criterion: 9, one for each digit.</summary>
    public const int MostLevels = 9;
}

/// <summary>A level of a criterion.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Worth">From 0 to 1.</param>
public sealed record CriterionLevel(Guid Id, string Name, decimal Worth);

/// <summary>A range of scores with a name of its own, up to where the next one begins.</summary>
/// <param name="From">The lowest score in it, from 0 to 100.</param>
/// <param name="Name">What it is called.</param>
public sealed record Band(decimal From, string Name)
{
    /// <summary>The most bands of a scheme: 12.</summary>
    public const int Most = 12;
}
