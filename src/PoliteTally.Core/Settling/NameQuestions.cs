using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Core.Register;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Settling;

/// <summary>Whose the names in the meeting are, where nobody has said and where the answer changes something.</summary>
/// <param name="state">The lesson.</param>
/// <param name="times">When it was meant to be, and when it was.</param>
/// <param name="policy">How the class counts.</param>
/// <param name="attended">Where each of its students was, as it counts now.</param>
/// <param name="zone">The zone in which times are said.</param>
internal sealed class NameQuestions(LessonState state, LessonTimes times, AttendancePolicy policy, IReadOnlyDictionary<Guid, AttendanceResult> attended, DateTimeZone zone)
{
    /// <summary>The most students who are proposed for one name.</summary>
    private const int MostProposals = 3;

    // So many times attendance is reckoned with a name and without; of more names than any meeting has, the others are asked about.
    private const int MostReckoned = 20_000;

    private int _reckoned;

    // Names that did something which counts, whoever was there. Most lessons have no name that is open.
    private readonly Lazy<HashSet<string>> _counting = new(() => [.. state.Entries.Where(e => !state.IsStruck(e.Id)).Select(e => e.Act).OfType<NameAct>().Where(a => !a.IsWhereabouts).Select(state.Names.WhoIs)]);

    /// <summary>What is asked of names, in their order.</summary>
    /// <param name="names">Whose they could be.</param>
    public IEnumerable<OpenQuestion> All(IReadOnlyList<NameMatch> names) => names.Select(Of).OfType<OpenQuestion>();

    private OpenQuestion? Of(NameMatch match)
    {
        var (name, beside) = (match.Shown.Name, state.Names.TellingApart(match.Shown.Name, match.Shown.Beside));
        if (state.Names.All.GetValueOrDefault(state.Names.WhoIs(name, match.Shown.Beside)) is not { Match: null } shown || !Matters(shown, match.Proposals))
        {
            return null;
        }

        // Somebody's relation is nobody of the class, however well the name fits.
        var isRelation = match.By == MatchedBy.SomebodyOf;
        List<Guid> likely = isRelation ? [] : [.. NotSeenBeside(shown, match.Proposals).Take(MostProposals)];
        var missing = likely.Count == 0 && !isRelation && shown.Sightings.Count > 0 && Missing() is [var only] ? only : (Guid?)null;
        if (missing is { } one)
        {
            likely.Add(one);
        }

        var none = new Choice("", "not a student", null, [new NameMatched(name, null) { Beside = beside }]);
        var why = missing is not null ? "nobody else of the class is missing"
            : isRelation ? "somebody of theirs, by the name"
            : likely.Count > 0 ? "the likest name"
            : "like nobody’s name here";
        return new OpenQuestion(
            $"name {state.Names.WhoIs(name, match.Shown.Beside)}", Asks.WhoseName, null, name,
            [.. likely.Select(s => new Choice("", "", s, [new NameMatched(name, s) { Beside = beside }])), none],
            isRelation ? likely.Count : match.Certainty == Certainty.Unknown ? null : 0, Seen(shown) is { Length: > 0 } seen ? $"{seen}; {why}" : why);
    }

    // Whoever could be meant, nothing would be otherwise: a picture of people whom a list has there only confirms.
    private bool Matters(NameShown shown, IReadOnlyList<Guid> proposals) =>
        _counting.Value.Contains(shown.Who) || shown.Answered || (proposals.Count > 0 ? proposals : attended.Keys).Any(s => WouldChange(s, shown));

    private bool WouldChange(Guid student, NameShown shown)
    {
        if (!attended.TryGetValue(student, out var was) || ++_reckoned > MostReckoned)
        {
            return true;
        }

        var told = state.EvidenceOf(student);
        var with = AttendanceRules.Reckon(times, told with { Sightings = [.. told.Sightings, .. shown.Sightings] }, policy);
        return Register(was).SaysOtherThan(Register(with)) || (was.Present, was.Credit, was.KnownBy, was.Contested.Count) != (with.Present, with.Credit, with.KnownBy, with.Contested.Count);

        RegisterMark Register(AttendanceResult result) => RegisterMark.Of(student, null, "", result);
    }

    // In a list of one moment everybody stands once. If all who could be meant stand there already, one of them does twice.
    private IReadOnlyList<Guid> NotSeenBeside(NameShown shown, IReadOnlyList<Guid> proposals)
    {
        var looks = shown.Sightings.OfType<SeenAt>().Select(s => s.At).ToHashSet();
        List<Guid> others = [.. proposals.Where(s => looks.Count == 0 || !state.Names.SightingsOf(s).Any(seen => seen is SeenAt && looks.Contains(seen.At)))];
        return others.Count > 0 ? others : proposals;
    }

    private List<Guid> Missing() => [.. attended.Keys.Where(s => state.EvidenceOf(s) is { Sightings.Count: 0, Marks.Count: 0, Excuse: null })];

    private string Seen(NameShown shown)
    {
        var at = shown.Sightings.Where(s => s is not PresentFor).Select(s => s.At).ToList();
        return at.Count == 0 ? "" : at.Min() == at.Max() ? Words.Clock(at.Min(), zone) : $"{Words.Clock(at.Min(), zone)} to {Words.Clock(at.Max(), zone)}";
    }
}
