using NodaTime;
using PoliteTally.Core.Hands;

namespace PoliteTally.Core.Fairness;

/// <summary>A lesson as far as it tells who was heard.</summary>
/// <param name="Id">The id of the lesson.</param>
/// <param name="Number">Its number in the class.</param>
/// <param name="Day">Its day.</param>
/// <param name="Present">Who was there.</param>
/// <param name="Turns">Turns that were taken, full or partial.</param>
/// <param name="Waits">How long each hand that was called had waited.</param>
/// <param name="NeverCalled">Hands that were not called.</param>
/// <param name="Spoken">How long each student was heard to speak, as captions say; empty without captions.</param>
/// <param name="Teacher">How long the teacher was, as captions say.</param>
public sealed record LessonHeard(
    Guid Id, int Number, LocalDate Day, IReadOnlyList<Guid> Present, IReadOnlyList<(Guid Student, TurnOrigin Origin)> Turns,
    IReadOnlyList<Duration> Waits, int NeverCalled, IReadOnlyDictionary<Guid, Duration> Spoken, Duration Teacher = default);

/// <summary>A student as far as they were heard.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Turns">Turns that were taken.</param>
/// <param name="Lessons">Lessons in which they were there.</param>
/// <param name="Unheard">Lessons in a row, up to the last, in which they were there and had no turn.</param>
/// <param name="LongestUnheard">The longest such row.</param>
/// <param name="Spoken">How long they were heard to speak.</param>
public sealed record StudentHeard(Guid Student, int Turns, int Lessons, int Unheard, int LongestUnheard, Duration Spoken);

/// <summary>A figure beside what an even draw would give: chance alone makes nine of ten such figures lie between the two ends.</summary>
/// <param name="Value">What it was.</param>
/// <param name="Low">The 5th of a hundred.</param>
/// <param name="High">The 95th.</param>
public sealed record BesideChance(decimal Value, decimal Low, decimal High)
{
    /// <summary>Whether it is more than chance would make.</summary>
    public bool IsHigh => Value > High;

    /// <summary>Whether it is less than chance would make.</summary>
    public bool IsLow => Value < Low;

    /// <summary>A figure beside what chance made of it, many times.</summary>
    internal static BesideChance Of(decimal value, IEnumerable<decimal> byChance)
    {
        var ordered = byChance.Order().ToList();
        return new(value, At(5), At(95));

        decimal At(int percent) => ordered[(int)Math.Round((ordered.Count - 1) * percent / 100.0)];
    }
}

/// <summary>Students with a tag beside the others.</summary>
/// <param name="Tag">The tag.</param>
/// <param name="With">How many have it; at least 5.</param>
/// <param name="Without">How many have not; at least 5.</param>
/// <param name="Mean">The mean of their turns a lesson.</param>
/// <param name="Others">The mean of the others.</param>
/// <param name="Difference">The first less the second, beside the differences between groups of the same sizes that are put together by chance.</param>
public sealed record TagHeard(string Tag, int With, int Without, decimal Mean, decimal Others, BesideChance Difference);

/// <summary>Who was heard in a class, over some lessons.</summary>
public sealed class ClassHeard
{
    /// <summary>The least number of students on each side of a comparison: 5. With fewer it is about persons.</summary>
    public const int FewestOfAGroup = 5;

    private const int Draws = 400;

    // Fixed, so that the same lessons always say the same.
    private const int Seed = 20260907;

    private readonly IReadOnlyList<LessonHeard> _lessons;

    /// <summary>Counts who was heard.</summary>
    /// <param name="lessons">The lessons, in their order.</param>
    public ClassHeard(IReadOnlyList<LessonHeard> lessons)
    {
        _lessons = lessons;
        Students = [.. lessons.SelectMany(l => l.Present).Distinct().Order().Select(HeardOf)];
        Turns = lessons.Sum(l => l.Turns.Count);
        Waits = [.. lessons.SelectMany(l => l.Waits).Order()];
        if (Turns > 0)
        {
            var (turns, even) = (Students.Select(s => s.Turns).ToList(), EvenDraws());
            (Gini, TopTenth) = (Beside(GiniOf), Beside(TopTenthOf));

            BesideChance Beside(Func<IReadOnlyList<int>, decimal> figure) => BesideChance.Of(figure(turns), even.Select(figure));
        }
    }

    /// <summary>Everybody who was there in any lesson.</summary>
    public IReadOnlyList<StudentHeard> Students { get; }

    /// <summary>All turns.</summary>
    public int Turns { get; }

    /// <summary>How many of those who were there had a turn.</summary>
    public int HadATurn => Students.Count(s => s.Turns > 0);

    /// <summary>The Gini coefficient of turns over those who were there, beside an even draw; null without turns.</summary>
    public BesideChance? Gini { get; }

    /// <summary>The share of all turns that the most heard tenth had, beside an even draw; null without turns.</summary>
    public BesideChance? TopTenth { get; }

    /// <summary>How long hands that were called had waited, the shortest first.</summary>
    public IReadOnlyList<Duration> Waits { get; }

    /// <summary>The wait in the middle; null if no hand was called.</summary>
    public Duration? MedianWait => Waits.Count == 0 ? null : (Waits[(Waits.Count - 1) / 2] + Waits[Waits.Count / 2]) / 2;

    /// <summary>Hands that were never called.</summary>
    public int NeverCalled => _lessons.Sum(l => l.NeverCalled);

    /// <summary>How long students were heard to speak, as captions say.</summary>
    public Duration Spoken => Students.Aggregate(Duration.Zero, (sum, s) => sum + s.Spoken);

    /// <summary>How long the teacher was heard to speak, as captions say.</summary>
    public Duration Teacher => _lessons.Aggregate(Duration.Zero, (sum, l) => sum + l.Teacher);

    /// <summary>How many turns came in each way.</summary>
    public IReadOnlyDictionary<TurnOrigin, int> ByOrigin => _lessons.SelectMany(l => l.Turns).CountBy(t => t.Origin).ToDictionary();

    /// <summary>Who was there and had no turn in so many lessons in a row, up to the last; who was unheard longest first.</summary>
    public IReadOnlyList<StudentHeard> UnheardFor(int lessons) => [.. Students.Where(s => s.Unheard >= lessons).OrderByDescending(s => s.Unheard)];

    /// <summary>The curve of Lorenz: the share of turns that the least heard share of students had, from 0 to 1.</summary>
    public IReadOnlyList<decimal> Curve
    {
        get
        {
            var (turns, sum) = (Students.Select(s => s.Turns).Order().ToList(), 0m);
            return Turns == 0 ? [] : [0, .. turns.Select(t => (sum += t) / Turns)];
        }
    }

    /// <summary>
    /// The Gini coefficient: 0 if all have the same, towards 1 if one has all.
    /// <c>G = Σ (2i − n − 1)·x_i / (n·Σ x)</c> over the numbers in order, i from 1 (Gini 1912, in the form for a sorted list); 0 if all are 0.
    /// </summary>
    public static decimal GiniOf(IReadOnlyList<int> turns)
    {
        var (ordered, sum) = (turns.Order().ToList(), turns.Sum(t => (long)t));
        return sum == 0 ? 0 : ordered.Select((x, i) => ((2 * (i + 1)) - ordered.Count - 1) * (decimal)x).Sum() / (ordered.Count * (decimal)sum);
    }

    /// <summary>The share of all turns that the most heard tenth had, at least one student; 0 if there are none.</summary>
    public static decimal TopTenthOf(IReadOnlyList<int> turns) =>
        turns.Sum() is > 0 and var sum ? (decimal)turns.OrderDescending().Take((int)Math.Ceiling(turns.Count / 10.0)).Sum() / sum : 0;

    /// <summary>Those who have a tag beside those who have not; null unless each side has at least <see cref="FewestOfAGroup"/>.</summary>
    /// <param name="tag">The tag.</param>
    /// <param name="hasIt">Who has it.</param>
    public TagHeard? Compare(string tag, IReadOnlySet<Guid> hasIt)
    {
        var with = Students.Count(s => hasIt.Contains(s.Student));
        var without = Students.Count - with;
        if (with < FewestOfAGroup || without < FewestOfAGroup)
        {
            return null;
        }

        var rates = Students.Select(s => s.Lessons == 0 ? 0 : (decimal)s.Turns / s.Lessons).ToArray();
        var (mean, others) = (Students.Zip(rates).Where(s => hasIt.Contains(s.First.Student)).Average(s => s.Second), Students.Zip(rates).Where(s => !hasIt.Contains(s.First.Student)).Average(s => s.Second));
        // Groups of the same size, put together by chance: how far apart those lie is noise.
        var random = new Random(Seed);
        var differences = Enumerable.Range(0, Draws).Select(_ =>
        {
            random.Shuffle(rates);
            return rates[..with].Average() - rates[with..].Average();
        });
        return new TagHeard(tag, with, without, mean, others, BesideChance.Of(mean - others, differences));
    }

    private StudentHeard HeardOf(Guid student)
    {
        var (turns, lessons, now, longest, spoken) = (0, 0, 0, 0, Duration.Zero);
        foreach (var lesson in _lessons.Where(l => l.Present.Contains(student)))
        {
            var had = lesson.Turns.Count(t => t.Student == student);
            (turns, lessons, now) = (turns + had, lessons + 1, had > 0 ? 0 : now + 1);
            longest = Math.Max(longest, now);
            spoken += lesson.Spoken.GetValueOrDefault(student);
        }

        return new StudentHeard(student, turns, lessons, now, longest, spoken);
    }

    // What an even draw would give each student: each turn of a lesson falls on any of those who were there, with the same odds.
    private List<int[]> EvenDraws()
    {
        var random = new Random(Seed);
        var places = Students.Select((s, i) => (s.Student, i)).ToDictionary(s => s.Student, s => s.i);
        var rosters = _lessons.Where(l => l.Present.Count > 0).Select(l => (Places: l.Present.Select(p => places[p]).ToArray(), l.Turns.Count)).ToList();
        return [.. Enumerable.Range(0, Draws).Select(_ =>
        {
            var turns = new int[places.Count];
            foreach (var (here, many) in rosters)
            {
                for (var i = 0; i < many; i++)
                {
                    turns[here[random.Next(here.Length)]]++;
                }
            }

            return turns;
        })];
    }
}
