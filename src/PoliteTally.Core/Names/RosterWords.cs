namespace PoliteTally.Core.Names;

/// <summary>How well the words of a shown name fit a student.</summary>
/// <param name="Student">The student.</param>
/// <param name="Score">The mean of what its words are worth, from 0 to 1.</param>
/// <param name="BothNames">Whether two of its words, each on its own, fit the given and the family name.</param>
/// <param name="Words">Each word with what it is to the name.</param>
internal sealed record NameFit(Guid Student, double Score, bool BothNames, IReadOnlyList<(string Shown, Resemblance As)> Words);

/// <summary>
/// The names of a roster by their words, so that a shown name is compared only with students that share a word with it: two words are compared once, however many
/// names they stand in. Not safe for use by several at once.
/// </summary>
internal sealed class RosterWords
{
    private readonly List<(Guid Id, string Order)> _students = [];
    private readonly Dictionary<Guid, int> _indexes = [];
    private readonly Dictionary<string, HashSet<int>> _identities = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, HashSet<int>> _whole = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<int>> _called = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<int>> _localParts = new(StringComparer.Ordinal);
    private readonly Dictionary<string, (NameWord Word, List<Place> Places)> _words = new(StringComparer.Ordinal);
    private readonly Dictionary<string, List<(List<Place> Places, Likeness Is)>> _like = new(StringComparer.Ordinal);
    private readonly ShortForms _shortForms;

    public RosterWords(IEnumerable<RosterName> roster, ShortForms shortForms)
    {
        _shortForms = shortForms;
        foreach (var student in roster)
        {
            var index = _students.Count;
            _students.Add((student.Id, $"{NameFolding.Fold(student.Given)} {NameFolding.Fold(student.Family)} {student.Id:N}"));
            _indexes[student.Id] = index;
            Take(student, index);
        }
    }

    /// <summary>Whether a student is on the roster.</summary>
    public bool Has(Guid student) => _indexes.ContainsKey(student);

    /// <summary>Whether a folded word is part of a name on the roster.</summary>
    public bool HasWord(string word) => _words.ContainsKey(word);

    /// <summary>The one student of a number or an address; null if there is none, or if there are several.</summary>
    public Guid? Identified(ShownName shown)
    {
        foreach (var sign in new[] { shown.Email, shown.Number, shown.Name })
        {
            if (sign?.Trim() is { Length: > 0 } given && _identities.GetValueOrDefault(given) is { Count: 1 } one)
            {
                return _students[one.Single()].Id;
            }
        }

        // The part of an address before its sign is that address, unless somebody else is called so.
        var local = shown.Name.Trim().ToLowerInvariant();
        return _localParts.GetValueOrDefault(local) is { Count: 1 } found && Others(found.Single(), NameFolding.Tokens(local)).Count == 0
            ? _students[found.Single()].Id
            : null;
    }

    /// <summary>Whose whole name it is, in either order, however it is parted by spaces.</summary>
    public IReadOnlyList<Guid> Whole(IEnumerable<IReadOnlyList<string>> forms) => InOrder(forms.SelectMany(f => Of(_whole, f)));

    /// <summary>Who is called so: the given or the preferred name alone.</summary>
    public IReadOnlyList<Guid> Called(IEnumerable<IReadOnlyList<string>> forms) => InOrder(forms.SelectMany(f => Of(_called, f)));

    /// <summary>Who could be called so, too: by a short form, or by the family name.</summary>
    public IReadOnlyList<Guid> CouldBeCalled(IEnumerable<IReadOnlyList<string>> forms) => InOrder(
        forms.Where(f => f.Count == 1).SelectMany(f => Like(f[0])).Where(l => l.Is.As is Resemblance.Same or Resemblance.ShortForm)
            .SelectMany(l => l.Places).Select(p => p.Student));

    /// <summary>Whose whole name stands within it, as words that follow on each other.</summary>
    public IReadOnlyList<Guid> WholeWithin(IEnumerable<IReadOnlyList<string>> forms) => InOrder(
        from form in forms
        where form.Count is > 2 and <= 8
        from start in Enumerable.Range(0, form.Count - 1)
        from length in Enumerable.Range(2, form.Count - start - 1)
        from student in Of(_whole, [.. form.Skip(start).Take(length)])
        select student);

    /// <summary>All students that share a word with it, the best first.</summary>
    public IReadOnlyList<NameFit> Fits(IEnumerable<IReadOnlyList<string>> forms) =>
    [
        .. forms.Where(f => f.Count is > 0 and <= 12).DistinctBy(f => string.Join(' ', f)).SelectMany(FitsOf)
            .GroupBy(f => f.Student).Select(g => g.MaxBy(f => (f.Score, f.BothNames))!)
            .OrderByDescending(f => f.Score).ThenBy(f => _students[_indexes[f.Student]].Order, StringComparer.Ordinal),
    ];

    private IEnumerable<NameFit> FitsOf(IReadOnlyList<string> form)
    {
        var found = new Dictionary<int, List<(int Token, Likeness Is, Place Place)>>();
        foreach (var (token, i) in form.Select((t, i) => (t, i)))
        {
            foreach (var (places, likeness) in Like(token))
            {
                foreach (var place in places)
                {
                    (found.TryGetValue(place.Student, out var list) ? list : found[place.Student] = []).Add((i, likeness, place));
                }
            }
        }

        return found.Select(f => FitOf(form, _students[f.Key].Id, f.Value)).Where(f => f.Score > 0);
    }

    private static NameFit FitOf(IReadOnlyList<string> form, Guid student, List<(int Token, Likeness Is, Place Place)> likes)
    {
        var words = form.Select((token, i) => (token, likes.Where(l => l.Token == i).Select(l => l.Is).DefaultIfEmpty().MaxBy(l => l.Weight))).ToList();
        // Initials alone are nobody's name: at least one name must be spelled out.
        var isSpelledOut = words.Exists(w => w.Item2.As >= Resemblance.Alike);
        var both = likes.Exists(g => g.Place.IsGiven && likes.Exists(f => f.Place.IsFamily && f.Token != g.Token && f.Place.Word != g.Place.Word));
        return new NameFit(student, isSpelledOut ? words.Average(w => w.Item2.Weight) : 0, both, [.. words.Select(w => (w.token, w.Item2.As))]);
    }

    private List<(List<Place> Places, Likeness Is)> Like(string token)
    {
        if (!_like.TryGetValue(token, out var like))
        {
            var shown = NameWord.Of(token);
            _like[token] = like = [.. _words.Values.Select(w => (w.Places, Is: shown.To(w.Word, _shortForms))).Where(w => w.Is.As != Resemblance.None)];
        }

        return like;
    }

    private static IEnumerable<int> Of(Dictionary<string, HashSet<int>> names, IReadOnlyList<string> form)
    {
        // Without the spaces: "Jansen vanWyk", "d ambrosio" and "Bao Tram" written as one are the same name. And in Latin letters.
        var joined = string.Concat(form);
        return new[] { joined, string.Concat(form.Select(Romanised.Latin)) }.Where(j => j.Length > 0).Distinct().SelectMany(j => names.GetValueOrDefault(j) ?? []);
    }

    private IReadOnlyList<Guid> InOrder(IEnumerable<int> students) =>
        [.. students.Distinct().OrderBy(s => _students[s].Order, StringComparer.Ordinal).Select(s => _students[s].Id)];

    // Whoever but one is called so, or by one of its words.
    private List<int> Others(int than, IReadOnlyList<string> tokens) =>
        [.. Of(_whole, tokens).Concat(Of(_called, tokens)).Where(s => s != than)];

    private void Take(RosterName student, int index)
    {
        foreach (var sign in new[] { student.Number, student.Email })
        {
            if (sign?.Trim() is { Length: > 0 } given)
            {
                Add(_identities, given, index);
            }
        }

        var (givens, families) = (FormsOf(student.Given, student.Preferred), FormsOf(student.Family));
        if (givens.Count == 0)
        {
            (givens, families) = (families, []);
        }

        foreach (var given in givens)
        {
            Add(_called, string.Concat(given), index);
            given.ForEach(word => PutWord(word, index, isGiven: true, isFamily: families.Count == 0));
            if (families.Count == 0)
            {
                // Who has one name only is called by it, and it is all of it; some programs write it twice.
                Add(_whole, string.Concat(given), index);
                Add(_whole, string.Concat(given.Concat(given)), index);
            }
        }

        foreach (var family in families)
        {
            family.ForEach(word => PutWord(word, index, isGiven: false, isFamily: true));
            foreach (var given in givens)
            {
                Add(_whole, string.Concat(given.Concat(family)), index);
                Add(_whole, string.Concat(family.Concat(given)), index);
            }
        }

        TakeAddress(student.Email?.Split('@')[0].Trim().ToLowerInvariant() ?? "", index);
    }

    // An address is often the only place where a name in another script stands in Latin letters; which part is which name it does not say.
    private void TakeAddress(string local, int index)
    {
        if (local.Length == 0)
        {
            return;
        }

        Add(_localParts, local, index);
        var words = NameFolding.Tokens(local);
        if (words.Count > 1)
        {
            Add(_whole, string.Concat(words), index);
            Add(_whole, string.Concat(words.Reverse()), index);
            foreach (var word in words.Where(w => w.Length > 1))
            {
                PutWord(word, index, isGiven: true, isFamily: true);
            }
        }
    }

    private static List<List<string>> FormsOf(params IEnumerable<string?> names) =>
    [
        .. names.SelectMany(name => new[] { NameFolding.Tokens(name ?? ""), NameFolding.DigraphTokens(name ?? "") })
            .SelectMany(tokens => new[] { tokens.ToList(), [.. tokens.Select(Romanised.Latin).Where(t => t.Length > 0)] })
            .Where(tokens => tokens.Count > 0).DistinctBy(tokens => string.Join(' ', tokens)),
    ];

    private void PutWord(string word, int index, bool isGiven, bool isFamily)
    {
        var (known, places) = _words.TryGetValue(word, out var entry) ? entry : _words[word] = (NameWord.Of(word), []);
        if (!places.Exists(p => p.Student == index && p.IsGiven == isGiven && p.IsFamily == isFamily))
        {
            places.Add(new Place(index, known.Text, isGiven, isFamily));
        }
    }

    private static void Add(Dictionary<string, HashSet<int>> to, string key, int index) =>
        (to.TryGetValue(key, out var students) ? students : to[key] = []).Add(index);

    private readonly record struct Place(int Student, string Word, bool IsGiven, bool IsFamily);
}
