using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>One strand of a score. It is put in words when somebody asks, for scores are reckoned by the thousand.</summary>
public sealed record StrandScore
{
    private readonly Func<string> _because;

    /// <summary>A strand whose reason is known in words.</summary>
    public StrandScore(Strand strand, decimal weight, Figure? value, string because)
        : this(strand, weight, value, () => because)
    {
    }

    internal StrandScore(Strand strand, decimal weight, Figure? value, Func<string> because) =>
        (Strand, Weight, Value, _because) = (strand, weight, value, because);

    /// <summary>Which.</summary>
    public Strand Strand { get; }

    /// <summary>Its weight in the scheme.</summary>
    public decimal Weight { get; }

    /// <summary>From 0 to 1, with its parts; null if there was no chance.</summary>
    public Figure? Value { get; }

    /// <summary>The value in plain words, or why there was no chance.</summary>
    public string Because => _because();

    /// <summary>Whether it counts in the score: it weighs something, and there was a chance.</summary>
    public bool Counts => Value is not null && Weight > 0;
}

/// <summary>The score of one student in one lesson.</summary>
/// <param name="Strands">Every strand, in the order of <see cref="Strand"/>.</param>
/// <param name="Total">From 0 to 100, with its parts; null if the lesson is not scored for this student.</param>
/// <param name="Because">Why there is no score; null if there is one.</param>
public sealed record LessonScore(IReadOnlyList<StrandScore> Strands, Figure? Total, string? Because)
{
    private static readonly Strand[] All = Enum.GetValues<Strand>();

    /// <summary>The weight of the strands that the score rests on.</summary>
    public decimal RestsOn => Strands.Where(s => s.Counts).Sum(s => s.Weight);

    /// <summary>The weight of all strands of the scheme.</summary>
    public decimal Whole => Strands.Sum(s => s.Weight);

    /// <summary>Whether it rests on less than half of the scheme.</summary>
    public bool RestsOnLittle => Total is not null && RestsOn * 2 < Whole;

    /// <summary>The entries that it rests on; those of attendance also where that does not count.</summary>
    /// <param name="did">What was scored.</param>
    public IReadOnlySet<Guid> EntriesOf(Participation did) =>
        Strands.Select(s => s.Value).Append(Total).OfType<Figure>().SelectMany(f => f.Leaves()).Concat(did.Attendance.Entries).ToHashSet();

    /// <summary>
    /// Scores a lesson: <c>100 · Σ w·v / Σ w</c> over strands with a chance, then nods, kept in 0…100. Chance counts: what a
    /// student could not have done is left out and marks nobody down.
    /// </summary>
    /// <param name="did">What they did, and had a chance to do.</param>
    /// <param name="scheme">How the class scores.</param>
    public static LessonScore Of(Participation did, Scheme scheme)
    {
        var status = did.Attendance.Status;
        var ofLesson = did.Corrections.Count == 0 ? null : did.Corrections.FirstOrDefault(c => c.Strand is null);
        if (ofLesson is { What: CorrectionKind.LessonLeftOut })
        {
            return new LessonScore([], null, $"{ofLesson.Said} ({ofLesson.By}).");
        }

        var woven = Woven(did, scheme, status);
        return ofLesson is null ? woven : woven with
        {
            Total = Figure.Given($"{ofLesson.Said}; it was {(woven.Total is { } was ? Words.Plain(was.Value) : "no score")}", ofLesson.Value!.Value, ofLesson.Entry),
            Because = null,
        };
    }

    private static LessonScore Woven(Participation did, Scheme scheme, AttendanceStatus status)
    {
        if (status == AttendanceStatus.Excused)
        {
            return new LessonScore([], null, "Excused: this lesson does not count.");
        }

        if (did.IsDropIn)
        {
            return new LessonScore([], null, "A drop-in lesson has no score: who came stands in it, and for how long.");
        }

        var onlyIfRaises = new List<Strand>();
        List<StrandScore> strands = [.. All.Select(Weighed)];
        foreach (var strand in onlyIfRaises)
        {
            var at = strands.FindIndex(s => s.Strand == strand);
            var others = strands.Where((s, i) => i != at && s.Counts).ToList();
            // Where it is the only one it raises from nothing.
            if (others.Sum(s => s.Weight) is > 0 and var weight && strands[at].Value!.Value * weight < others.Sum(s => s.Weight * s.Value!.Value))
            {
                var would = strands[at];
                strands[at] = new StrandScore(strand, would.Weight, null, () => $"{would.Because}; that would lower the score, and is left out");
            }
        }

        var counted = strands.Where(s => s.Counts).ToList();
        if (counted.Count == 0 && status == AttendanceStatus.Absent)
        {
            return new LessonScore(strands, Figure.Given("absent without an excuse", 0, did.Attendance.Entries), null);
        }

        if (counted.Count == 0)
        {
            return new LessonScore(strands, null, "There was no chance to take part in anything that counts.");
        }

        var earned = Figure.Of("Earned", Reckoning.Sum, [.. counted.Select(s =>
            Figure.Of(s.Strand.InWords(), Reckoning.Product, s.Value!, Figure.Given("weight", s.Weight)))]);
        var possible = Figure.Of("Possible", Reckoning.Sum, [.. counted.Select(s => Figure.Given(s.Strand.WeightInWords(), s.Weight))]);
        var strandsOf100 = Figure.Of(
            "Strands, out of 100", Reckoning.Product,
            Figure.Given("hundredths", 100), Figure.Of("Earned of possible", Reckoning.Quotient, earned, possible));
        var given = status == AttendanceStatus.Absent ? [] : did.Nods;
        var nods = Figure.Of(
            "Nods", Reckoning.Least,
            Figure.Given(Words.Count(given.Count, "nod"), given.Count * scheme.NodPoints, given),
            Figure.Given("at most", scheme.NodsAtMost));
        var total = Figure.Of(
            "Score", Reckoning.Least,
            Figure.Given("at most", 100),
            Figure.Of("Strands and nods", Reckoning.Sum, strandsOf100, nods));
        return new LessonScore(strands, total, null);

        StrandScore Weighed(Strand strand)
        {
            var weight = scheme.Weights.GetValueOrDefault(strand);
            var (value, because, onlyIfItRaises) = status == AttendanceStatus.Absent && strand is not (Strand.Attendance or Strand.Rubric) ? StrandRules.Missed(scheme) : StrandRules.Of(strand, did, scheme);
            if (did.Corrections.Count > 0 && did.Corrections.FirstOrDefault(c => c.Strand == strand) is { } correction)
            {
                return new StrandScore(
                    strand, weight,
                    correction.Value is { } set ? Figure.Given($"{correction.Said}; it was {(value is null ? "no chance" : Words.Plain(value.Value))}", set, correction.Entry) : null,
                    () => $"{correction.Said} ({correction.By}); before: {because()}");
            }

            if (onlyIfItRaises && weight > 0)
            {
                onlyIfRaises.Add(strand);
            }

            return new StrandScore(strand, weight, value, because);
        }
    }
}
