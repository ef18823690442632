using F23.StringSimilarity;

namespace PoliteTally.Core.Names;

/// <summary>A student as far as matching names goes.</summary>
/// <param name="Id">The id of the student.</param>
/// <param name="Given">Given name or names.</param>
/// <param name="Family">Family name or names.</param>
/// <param name="Preferred">What they are called, if not by the given name.</param>
/// <param name="Number">Student number, if there is one.</param>
/// <param name="Email">E-mail address, if there is one.</param>
public sealed record RosterName(
    Guid Id, string Given, string Family, string? Preferred = null, string? Number = null, string? Email = null);

/// <summary>A name as a meeting showed it, with what else the source gives.</summary>
/// <param name="Name">The name exactly as shown.</param>
/// <param name="Number">Student number, if the source has one.</param>
/// <param name="Email">E-mail address, if the source has one.</param>
public sealed record ShownName(string Name, string? Number = null, string? Email = null);

/// <summary>A name that this class has confirmed before.</summary>
/// <param name="Folded">The folded name.</param>
/// <param name="Student">Whose it is; null for "not a student".</param>
public sealed record ConfirmedName(string Folded, Guid? Student);

/// <summary>How well a name is known.</summary>
public enum Certainty
{
    /// <summary>Taken without asking.</summary>
    Sure,

    /// <summary>Proposed.</summary>
    Likely,

    /// <summary>Goes to the door list.</summary>
    Unknown,
}

/// <summary>Why a name was taken or proposed.</summary>
public enum MatchedBy
{
    /// <summary>Student number or e-mail address.</summary>
    Identity,

    /// <summary>Confirmed before for this class.</summary>
    ConfirmedBefore,

    /// <summary>The whole name, the same after folding.</summary>
    SameName,

    /// <summary>The given or preferred name alone, the only one in the class.</summary>
    OnlyOneSoNamed,

    /// <summary>Similar: initials, short forms, a slip of spelling.</summary>
    Similar,

    /// <summary>Nothing fits.</summary>
    Nothing,
}

/// <summary>What to make of a shown name.</summary>
/// <param name="Shown">The name.</param>
/// <param name="Certainty">How well it is known.</param>
/// <param name="By">Why.</param>
/// <param name="Student">Whose it is; null if unknown, or if sure not to be a student's.</param>
/// <param name="Proposals">Whom it could be, best first; at most five.</param>
public sealed record NameMatch(
    ShownName Shown, Certainty Certainty, MatchedBy By, Guid? Student, IReadOnlyList<Guid> Proposals);

/// <summary>
/// Compares names shown in a meeting with the roster of a class: number or e-mail, a name confirmed before, the same
/// name after folding, then similarity. Taking the wrong student is worse than asking, so a name is sure only with a
/// single candidate and a clear lead.
/// </summary>
public sealed class NameMatcher
{
    private const double SureFrom = 0.90;
    private const double ClearLead = 0.12;
    private const double LikelyFrom = 0.5;
    private const double SameWordFrom = 0.88;
    private const int MostProposals = 5;

    private static readonly JaroWinkler Likeness = new();

    private readonly List<Candidate> _roster;
    private readonly Dictionary<string, ConfirmedName> _confirmed;

    /// <summary>Prepares a roster for matching.</summary>
    public NameMatcher(IEnumerable<RosterName> roster, IEnumerable<ConfirmedName> confirmed)
    {
        _roster = [.. roster.Select(s => new Candidate(s))];
        _confirmed = [];
        foreach (var name in confirmed)
        {
            _confirmed[name.Folded] = name;
        }
    }

    /// <summary>Matches all names of a lesson together, so that one taken for sure is proposed last for the others.</summary>
    public IReadOnlyList<NameMatch> Match(IReadOnlyList<ShownName> shown)
    {
        var alone = shown.Select(Match).ToList();
        var taken = alone.Where(m => m.Certainty == Certainty.Sure && m.Student is not null)
            .Select(m => m.Student!.Value).ToHashSet();
        return [.. alone.Select(m => m.Certainty == Certainty.Sure
            ? m
            : m with { Proposals = [.. m.Proposals.OrderBy(p => taken.Contains(p))] })];
    }

    /// <summary>Matches one name by itself.</summary>
    public NameMatch Match(ShownName shown)
    {
        if (_roster.Where(c => c.HasIdentity(shown)).Take(2).ToList() is [var identified])
        {
            return Sure(shown, MatchedBy.Identity, identified.Id);
        }

        var folded = NameFolding.Fold(shown.Name);
        if (_confirmed.TryGetValue(folded, out var before)
            && (before.Student is null || _roster.Exists(c => c.Id == before.Student)))
        {
            return Sure(shown, MatchedBy.ConfirmedBefore, before.Student);
        }

        if (NameFolding.IsSomebodyElse(shown.Name))
        {
            return new NameMatch(shown, Certainty.Unknown, MatchedBy.Nothing, null, []);
        }

        var forms = new[] { NameFolding.Tokens(shown.Name), NameFolding.DigraphTokens(shown.Name), NameFolding.Tokens(CamelHumps(shown.Name)) };
        var whole = _roster.Where(c => forms.Any(c.IsWholeName)).ToList();
        if (whole.Count > 0)
        {
            return whole is [var only]
                ? Sure(shown, MatchedBy.SameName, only.Id)
                : Likely(shown, MatchedBy.SameName, whole.Select(c => c.Id));
        }

        var called = _roster.Where(c => forms.Any(c.IsCalled)).ToList();
        if (called is [var single])
        {
            return Sure(shown, MatchedBy.OnlyOneSoNamed, single.Id);
        }

        var ranked = _roster
            .Select(c => (Candidate: c, Fit: forms.Select(c.FitOf).MaxBy(f => f.Score)))
            .Where(r => r.Fit.Score >= LikelyFrom)
            .OrderByDescending(r => r.Fit.Score)
            .ToList();
        if (ranked.Count == 0)
        {
            return new NameMatch(shown, Certainty.Unknown, MatchedBy.Nothing, null, []);
        }

        var lead = ranked.Count > 1 ? ranked[0].Fit.Score - ranked[1].Fit.Score : 1;
        return ranked[0].Fit is { BothNames: true, Score: >= SureFrom } && lead >= ClearLead
            ? Sure(shown, MatchedBy.Similar, ranked[0].Candidate.Id)
            : Likely(shown, MatchedBy.Similar, ranked.Select(r => r.Candidate.Id));
    }

    private static NameMatch Sure(ShownName shown, MatchedBy by, Guid? student) =>
        new(shown, Certainty.Sure, by, student, student is null ? [] : [student.Value]);

    private static NameMatch Likely(ShownName shown, MatchedBy by, IEnumerable<Guid> proposals)
    {
        List<Guid> best = [.. proposals.Take(MostProposals)];
        return new NameMatch(shown, Certainty.Likely, by, best[0], best);
    }

    private static string CamelHumps(string name) =>
        string.Concat(name.Select((c, i) => i > 0 && char.IsUpper(c) && char.IsLower(name[i - 1]) ? $" {c}" : c.ToString()));

    private readonly record struct Fit(double Score, bool BothNames);

    /// <summary>A student with every form of their name folded once.</summary>
    private sealed class Candidate
    {
        private readonly RosterName _student;
        private readonly List<IReadOnlyList<string>> _given = [];
        private readonly List<IReadOnlyList<string>> _family = [];
        private readonly HashSet<string> _called = [];
        private readonly HashSet<string> _whole = [];

        public Candidate(RosterName student)
        {
            _student = student;
            foreach (var given in new[] { student.Given, student.Preferred ?? "" })
            {
                Add(_given, given);
            }

            Add(_family, student.Family);
            // An address is often the only place where a name in another script stands in Latin letters.
            var address = NameFolding.Tokens(student.Email?.Split('@')[0] ?? "");
            if (address.Count > 1)
            {
                _whole.Add(string.Concat(address));
            }

            foreach (var given in _given)
            {
                _called.Add(string.Concat(given));
                foreach (var family in _family)
                {
                    _whole.Add(string.Concat(given.Concat(family)));
                    _whole.Add(string.Concat(family.Concat(given)));
                }
            }
        }

        public Guid Id => _student.Id;

        public bool HasIdentity(ShownName shown) =>
            Same(_student.Email, shown.Email) || Same(_student.Email, shown.Name)
            || Same(_student.Number, shown.Number) || Same(_student.Number, shown.Name);

        // Compared without the spaces: "Jansen vanWyk", "d ambrosio" and "Bao Tram" written as one are the same name.
        public bool IsWholeName(IReadOnlyList<string> tokens) => _whole.Contains(string.Concat(tokens));

        public bool IsCalled(IReadOnlyList<string> tokens) => _called.Contains(string.Concat(tokens));

        /// <summary>How well tokens fit this student: every token must find its place in the given or the family name.</summary>
        public Fit FitOf(IReadOnlyList<string> tokens)
        {
            var best = new Fit(0, false);
            if (tokens.Count == 0)
            {
                return best;
            }

            foreach (var given in _given)
            {
                foreach (var family in _family)
                {
                    var fit = FitOf(tokens, given, family);
                    best = fit.Score > best.Score ? fit : best;
                }
            }

            return best;
        }

        private static Fit FitOf(IReadOnlyList<string> tokens, IReadOnlyList<string> given, IReadOnlyList<string> family)
        {
            double total = 0;
            var (bestGiven, bestFamily, spelledOut) = (0.0, 0.0, 0.0);
            foreach (var token in tokens)
            {
                var (asGiven, asFamily) = (LikenessTo(token, given), LikenessTo(token, family));
                total += Math.Max(asGiven, asFamily);
                if (asGiven >= asFamily)
                {
                    bestGiven = Math.Max(bestGiven, asGiven);
                }
                else
                {
                    bestFamily = Math.Max(bestFamily, asFamily);
                }

                spelledOut = Math.Max(spelledOut, token.Length > 1 ? Math.Max(asGiven, asFamily) : 0);
            }

            // Initials alone are nobody's name: at least one name must be spelled out.
            var score = spelledOut < SameWordFrom * 0.9 ? 0 : total / tokens.Count;
            return new Fit(score, bestGiven > 0 && bestFamily > 0);
        }

        // An initial is sure of its letter and of nothing else; a short form of three letters or more is nearly the name.
        private static double LikenessTo(string token, IReadOnlyList<string> names)
        {
            double best = 0;
            foreach (var name in names)
            {
                var likeness = token == name ? 1
                    : token.Length == 1 ? (name[0] == token[0] ? 0.9 : 0)
                    : token.Length >= 3 && name.StartsWith(token, StringComparison.Ordinal) ? 0.92
                    : Likeness.Similarity(token, name) is var alike && alike >= SameWordFrom ? alike * 0.96
                    : 0;
                best = Math.Max(best, likeness);
            }

            return best;
        }

        private static void Add(List<IReadOnlyList<string>> forms, string name)
        {
            foreach (var tokens in new[] { NameFolding.Tokens(name), NameFolding.DigraphTokens(name) })
            {
                if (tokens.Count > 0)
                {
                    forms.Add(tokens);
                }
            }
        }

        private static bool Same(string? a, string? b) =>
            !string.IsNullOrWhiteSpace(a) && string.Equals(a.Trim(), b?.Trim(), StringComparison.OrdinalIgnoreCase);
    }
}
