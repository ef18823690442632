namespace PoliteTally.Core.Names;

/// <summary>A student as far as matching names goes.</summary>
/// <param name="Id">The id of the student.</param>
/// <param name="Given">Given name or names.</param>
/// <param name="Family">Family name or names.</param>
/// <param name="Preferred">What they are called, if not by the given name.</param>
/// <param name="Number">Student number, if there is one.</param>
/// <param name="Email">E-mail address, if there is one.</param>
public sealed record RosterName(
    Guid Id, string Given, string Family, string? Preferred = null, string? Number = null, string? Email = null)
{
    /// <summary>What they are called, and the family name if they have one.</summary>
    public string Whole => $"{ShortNames.CalledName(this)} {Family}".Trim();

    /// <summary>What a roster is sorted by: the family name, or the only one.</summary>
    public string Sorted => Family.Length > 0 ? Family : Given;

    /// <summary>Who has one name only has it as the given name, in whichever column it stood.</summary>
    public static (string Given, string Family) Placed(string given, string family) => given.Length > 0 ? (given, family) : (family, "");
}

/// <summary>A name as a meeting showed it, with what else the source gives.</summary>
/// <param name="Name">The name exactly as shown.</param>
/// <param name="Number">Student number, if the source has one.</param>
/// <param name="Email">E-mail address, if the source has one.</param>
/// <param name="Connection">What the source calls their connection, where nothing else tells two of one name apart.</param>
public sealed record ShownName(string Name, string? Number = null, string? Email = null, string? Connection = null)
{
    private const char ConnectionSign = '#';

    /// <summary>What tells two of one name apart, in one text: the number, else the address, else the connection; empty without any.</summary>
    public string Beside => Number ?? Email?.ToLowerInvariant() ?? (Connection is null ? "" : $"{ConnectionSign}{Connection}");

    /// <summary>Whether what stands beside the name is still theirs in the next lesson: a connection is not.</summary>
    public bool IsLasting => Connection is null || Number is not null || Email is not null;

    /// <summary>The names under which two people or more are shown in a list.</summary>
    public static IReadOnlySet<string> OfSeveral(IEnumerable<ShownName> list) =>
        list.Where(s => s.Beside.Length > 0).Select(s => (s.Name, s.Beside)).Distinct().CountBy(s => s.Name).Where(c => c.Value > 1).Select(c => c.Key).ToHashSet(StringComparer.Ordinal);

    /// <summary>The name with what stood beside it, as <see cref="Beside"/> has it.</summary>
    public static ShownName Of(string name, string beside) =>
        beside.Length == 0 ? new ShownName(name)
        : beside[0] == ConnectionSign ? new ShownName(name, Connection: beside[1..])
        : beside.Contains('@') ? new ShownName(name, Email: beside)
        : new ShownName(name, Number: beside);
}

/// <summary>A name that this class has confirmed before.</summary>
/// <param name="Shown">The name as it was shown.</param>
/// <param name="Student">Whose it is; null for "not a student".</param>
/// <param name="Beside">What stood beside it, as in <see cref="ShownName.Beside"/>.</param>
public sealed record ConfirmedName(string Shown, Guid? Student, string Beside = "");

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

    /// <summary>Somebody who belongs to the student, such as a parent: the proposals say to whom.</summary>
    SomebodyOf,

    /// <summary>Nothing fits.</summary>
    Nothing,
}

/// <summary>What to make of a shown name.</summary>
/// <param name="Shown">The name.</param>
/// <param name="Certainty">How well it is known.</param>
/// <param name="By">Why.</param>
/// <param name="Student">Whose it is; the first of the proposals if likely; null if unknown, or if sure not to be a student's.</param>
/// <param name="Proposals">Whom it could be, best first; at most five. Of somebody else: whose they probably are.</param>
public sealed record NameMatch(
    ShownName Shown, Certainty Certainty, MatchedBy By, Guid? Student, IReadOnlyList<Guid> Proposals);

/// <summary>
/// Compares names shown in a meeting with the roster of a class: number or e-mail, a name confirmed before, the same name after folding, then similarity.
/// Taking the wrong student is worse than asking, so a name is sure only if nobody else could be meant. What follows does not depend on the order of the roster.
/// </summary>
public sealed class NameMatcher
{
    private const double ClearLead = 0.12;
    private const double LikelyFrom = 0.5;
    private const int MostProposals = 5;
    private const int ShortestSure = 4;
    private const int ShortestWithInitial = 3;

    private readonly RosterWords _roster;
    private readonly Dictionary<(string Name, string Beside), Guid?> _confirmed = [];
    private readonly ILookup<string, Guid> _besideConfirmed;

    /// <summary>Prepares a roster for matching.</summary>
    /// <param name="roster">The students of the class.</param>
    /// <param name="confirmed">What the teacher has said of names; of two words on one name the later counts.</param>
    /// <param name="shortForms">Which names are called what for short; null for the table that ships with the application.</param>
    public NameMatcher(IEnumerable<RosterName> roster, IEnumerable<ConfirmedName> confirmed, ShortForms? shortForms = null)
    {
        _roster = new RosterWords(roster, shortForms ?? ShortForms.Shipped);
        foreach (var name in confirmed)
        {
            _confirmed[(NameFolding.AsShown(name.Shown), name.Beside)] = name.Student;
        }

        // An address or a number may come with another name the next time, and a name without them.
        _besideConfirmed = _confirmed.Where(c => c.Key.Beside.Length > 0 && c.Value is { } student && _roster.Has(student))
            .SelectMany(c => new[] { (By: c.Key.Beside, c.Value), (By: c.Key.Name, c.Value) })
            .ToLookup(c => c.By, c => c.Value!.Value, StringComparer.Ordinal);
    }

    /// <summary>
    /// Matches all names of a lesson together: of two people of one name neither is known by it, whoever changed the name stays one person, and one taken for
    /// sure is proposed last for the others.
    /// </summary>
    /// <param name="shown">The names.</param>
    /// <param name="knownSeveral">Whether another was seen under the same name elsewhere; null if nothing is known of that.</param>
    public IReadOnlyList<NameMatch> Match(IReadOnlyList<ShownName> shown, Func<ShownName, bool>? knownSeveral = null)
    {
        var several = ShownName.OfSeveral(shown);
        var alone = shown.Select(s => Match(s, several.Contains(s.Name) || knownSeveral?.Invoke(s) == true)).ToList();
        var people = alone.Where(m => m.Shown.Beside.Length > 0 && m is { Certainty: Certainty.Sure, Student: not null })
            .ToLookup(m => m.Shown.Beside, m => m.Student!.Value, StringComparer.Ordinal);
        alone = alone.ConvertAll(m => m.Certainty != Certainty.Sure && m.By != MatchedBy.SomebodyOf && people[m.Shown.Beside].Distinct().ToList() is [var same]
            ? Sure(m.Shown, MatchedBy.Identity, same) : m);
        var taken = alone.Where(m => m.Certainty == Certainty.Sure && m.Student is not null)
            .Select(m => m.Student!.Value).ToHashSet();
        return [.. alone.Select(m => m.Certainty == Certainty.Likely
            ? Likely(m.Shown, m.By, m.Proposals.OrderBy(p => taken.Contains(p)))
            : m)];
    }

    /// <summary>Matches one name by itself.</summary>
    /// <param name="shown">The name.</param>
    /// <param name="several">Whether two people were seen under it: then it is sure only by what stands beside it.</param>
    public NameMatch Match(ShownName shown, bool several = false)
    {
        var asShown = NameFolding.AsShown(shown.Name);
        var isConfirmed = _confirmed.TryGetValue((asShown, shown.Beside), out var word);
        var match = Alone(shown, asShown, isConfirmed, word);
        return several && match is { Certainty: Certainty.Sure, Student: { } student } && match.By != MatchedBy.Identity && !isConfirmed
            ? Likely(shown, match.By, [student])
            : match;
    }

    private NameMatch Alone(ShownName shown, string asShown, bool isConfirmed, Guid? word)
    {
        if (_roster.Identified(shown) is { } identified)
        {
            return Sure(shown, MatchedBy.Identity, identified);
        }

        if (!isConfirmed && _besideConfirmed[shown.Beside.Length > 0 ? shown.Beside : asShown].Distinct().ToList() is { Count: > 0 } before)
        {
            return Likely(shown, MatchedBy.ConfirmedBefore, before);
        }

        var said = (isConfirmed || _confirmed.TryGetValue((asShown, ""), out word))
            && (word is null || _roster.Has(word.Value));
        var (asItStands, stripped) = (NameReading.Whole(shown.Name), NameReading.Stripped(shown.Name, _roster.HasWord));
        // Words that are the whole name of somebody are that name, whatever else they mean: "Miss Adler" may be on the roster.
        var whole = NameReading.IsOtherwiseInBrackets(shown.Name) ? [] : _roster.Whole(asItStands.Forms);
        if (stripped.Speaks == Speaks.OfNobody && whole.Count == 0)
        {
            // What is nobody's in particular may be another's next time: it is asked again, and last time's answer is proposed.
            return said && word is { } lastTime ? Likely(shown, MatchedBy.ConfirmedBefore, [lastTime]) : Unknown(shown);
        }

        if (said)
        {
            return Sure(shown, MatchedBy.ConfirmedBefore, word);
        }

        return whole switch
        {
            [var only] when asItStands.Speaks == Speaks.OfItself => Sure(shown, MatchedBy.SameName, only),
            { Count: > 0 } several => Likely(shown, MatchedBy.SameName, several),
            _ => Read(shown, asItStands, stripped),
        };
    }

    private NameMatch Read(ShownName shown, NameReading asItStands, NameReading stripped)
    {
        if (stripped.Speaks == Speaks.OfSomebodyElse)
        {
            var whose = Best(shown, [.. stripped.Forms, .. Bare(stripped.Forms)], itself: false).Proposals;
            return new NameMatch(shown, Certainty.Unknown, whose.Count == 0 ? MatchedBy.Nothing : MatchedBy.SomebodyOf, null, whose);
        }

        // Before anything is taken away a name may hold more than after: "Bo Li's" is nobody's phone.
        var itself = stripped.Speaks == Speaks.OfItself;
        var match = Best(shown, itself ? [.. asItStands.Forms, .. stripped.Forms] : stripped.Forms, itself);
        return match.Certainty != Certainty.Unknown ? match : Best(shown, Bare(stripped.Forms), itself: false);
    }

    private NameMatch Best(ShownName shown, IReadOnlyList<IReadOnlyList<string>> forms, bool itself)
    {
        if (_roster.Whole(forms) is { Count: > 0 } whole)
        {
            return itself && whole is [var only] ? Sure(shown, MatchedBy.SameName, only) : Likely(shown, MatchedBy.SameName, whole);
        }

        if (_roster.Called(forms) is { Count: > 0 } called)
        {
            var rivals = _roster.CouldBeCalled(forms).Except(called).ToList();
            return itself && called is [var single] && rivals.Count == 0
                ? Sure(shown, MatchedBy.OnlyOneSoNamed, single)
                : Likely(shown, called.Count == 1 && rivals.Count == 0 ? MatchedBy.OnlyOneSoNamed : MatchedBy.Similar, called.Concat(rivals));
        }

        if (_roster.WholeWithin(forms) is { Count: > 0 } within)
        {
            return Likely(shown, MatchedBy.Similar, within);
        }

        var ranked = _roster.Fits(forms);
        return ranked.Count == 0 || ranked[0].Score < LikelyFrom ? Unknown(shown)
            : itself && IsClear(ranked) ? Sure(shown, MatchedBy.Similar, ranked[0].Student)
            : Likely(shown, MatchedBy.Similar, ranked.Where(r => r.Score >= LikelyFrom).Select(r => r.Student));
    }

    /// <summary>
    /// Whether the first is meant and nobody else could be: every word has its place, given and family name are both there, at most one of them by a slip or by its
    /// initial, and whoever comes next, however poor, is far behind.
    /// </summary>
    private static bool IsClear(IReadOnlyList<NameFit> ranked)
    {
        var first = ranked[0];
        var told = first.Words.Where(w => w.As is Resemblance.Same || (w.As is Resemblance.Respelled && w.Shown.Length >= ShortestSure)).ToList();
        return first.BothNames
            && told.Count >= first.Words.Count - 1
            && first.Words.Except(told).All(w => w.As is Resemblance.Slip || (w.As is Resemblance.Initial && told.Any(t => t.Shown.Length >= ShortestWithInitial)))
            && (ranked.Count == 1 || (first.Score - ranked[1].Score >= ClearLead && !ranked.Skip(1).Any(r => r.BothNames && r.Words.All(w => w.As != Resemblance.None))));
    }

    // "Robins telefon": in many languages the owner has an ending, and no mark before it.
    private static IReadOnlyList<IReadOnlyList<string>> Bare(IReadOnlyList<IReadOnlyList<string>> forms) =>
        [.. forms.Where(f => f.Count > 0).Select(f => NameReading.WithoutGenitive(f[^1]) is { } bare ? (IReadOnlyList<string>)[.. f.SkipLast(1), bare] : []).Where(f => f.Count > 0)];

    private static NameMatch Sure(ShownName shown, MatchedBy by, Guid? student) =>
        new(shown, Certainty.Sure, by, student, student is null ? [] : [student.Value]);

    private static NameMatch Likely(ShownName shown, MatchedBy by, IEnumerable<Guid> proposals)
    {
        List<Guid> best = [.. proposals.Distinct().Take(MostProposals)];
        return new NameMatch(shown, Certainty.Likely, by, best[0], best);
    }

    private static NameMatch Unknown(ShownName shown) => new(shown, Certainty.Unknown, MatchedBy.Nothing, null, []);
}
