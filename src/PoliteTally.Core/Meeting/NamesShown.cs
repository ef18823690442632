using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Meeting;

/// <summary>The names shown in the meeting of a lesson.</summary>
public sealed class NamesShown : LessonPart
{
    private readonly Dictionary<string, NameShown> _names;

    // What was seen beside a name. Two different ones are two people of one name; one is still nobody else.
    private readonly Dictionary<string, GrowingList<string>> _besides;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;

    /// <param name="merged">Records that turned out to be of one student.</param>
    internal NamesShown(IReadOnlyDictionary<Guid, Guid> merged) =>
        (_names, _besides, _merged) = (new(StringComparer.Ordinal), new(StringComparer.Ordinal), merged);

    private NamesShown(NamesShown from) =>
        (_names, _besides, _merged) = (new(from._names, StringComparer.Ordinal), new(from._besides, StringComparer.Ordinal), from._merged);

    /// <summary>What is known of each name, by <see cref="NameShown.Who"/>.</summary>
    public IReadOnlyDictionary<string, NameShown> All => _names;

    /// <summary>The student whose name it is; null if nobody has said, or if it is not a student's.</summary>
    public Guid? StudentOf(NameShown name) => name.Match?.Student is { } matched ? _merged.GetValueOrDefault(matched, matched) : null;

    /// <summary>When the names of a student were seen.</summary>
    public IEnumerable<Sighting> SightingsOf(Guid student) => _names.Values.Where(n => StudentOf(n) == student).SelectMany(n => n.Sightings);

    /// <summary>Whether two people or more were shown under this name.</summary>
    public bool AreSeveral(string name) => _besides.GetValueOrDefault(name) is { Count: > 1 };

    /// <summary>Whether somebody shown so now is of several of that name: as <see cref="AreSeveral(string)"/>, or seen with something else beside it so far.</summary>
    public bool AreSeveral(string name, string beside) => AreSeveral(name) || (beside.Length > 0 && _besides.GetValueOrDefault(name) is [var only] && only != beside);

    /// <summary>
    /// What tells somebody apart from others of the same name; empty if there is none. Not what stood beside the name in any case: else what was said of the name
    /// would be asked again as soon as a source gives less.
    /// </summary>
    public string TellingApart(string name, string beside) => AreSeveral(name) ? beside : "";

    /// <summary>By what a name is known, as <see cref="NameShown.Who"/> has it.</summary>
    public string WhoIs(string name, string beside) => TellingApart(name, beside) is { Length: > 0 } apart ? $"{name}\n{apart}" : name;

    /// <summary>Whom an act is about, as <see cref="NameShown.Who"/> has it.</summary>
    public string WhoIs(NameAct act) => WhoIs(act.Name, act.Beside);

    /// <summary>The last word on whoever is shown so; null if they were not seen, or nobody has said.</summary>
    public NameDecision? DecisionOn(string name, string beside) => _names.GetValueOrDefault(WhoIs(name, beside))?.Match;

    /// <summary>What is known of whom an act is about.</summary>
    internal NameShown Of(NameAct act) => _names[WhoIs(act)];

    /// <summary>Takes what stands beside names, before anything else is made of the acts.</summary>
    /// <returns>False if a name that was seen before turns out to be of several people: then all is to be folded anew.</returns>
    internal bool TellApart(IEnumerable<NameAct> acts)
    {
        var stillOne = true;
        foreach (var act in acts)
        {
            stillOne &= TellApart(act.Name, act.Beside) && (act is not Renamed renamed || TellApart(renamed.To, act.Beside));
        }

        return stillOne;
    }

    internal NameShown Know(string name, string beside)
    {
        var who = WhoIs(name, beside);
        var known = _names.GetValueOrDefault(who);
        return known is not null && (known.Beside.Length > 0 || beside.Length == 0) ? known
            : _names[who] = known is null ? new NameShown(who, name, beside) : known with { Beside = beside };
    }

    // What a file makes of a name by itself is no answer to what somebody said of it.
    internal void Match(NameAct act, NameDecision word)
    {
        var known = Know(act.Name, act.Beside);
        _names[known.Who] = known.Word is { Source: not Source.File } && word.Source == Source.File ? known : known with { Word = word };
    }

    internal void AskLater(NameAct act, Guid entry) => _names[WhoIs(act)] = Know(act.Name, act.Beside) with { Later = entry };

    internal void Rename(NameAct act, string to)
    {
        var before = Know(act.Name, act.Beside);
        var now = Know(to, act.Beside);
        _names[now.Who] = now with { Before = before.Who };
    }

    internal void See(NameShown name, Sighting sighting) => _names[name.Who] = name with { Seen = name.Seen.With(sighting) };

    internal void AnswerSometime(NameShown name) => _names[name.Who] = name with { Answered = true };

    internal void Online(NameShown name, OnlineStatus status, Instant at) => _names[name.Who] = name with { Online = (status, at) };

    /// <summary>Settles whose each name is by all that has been said of names.</summary>
    /// <param name="counted">Names of which acts were counted already.</param>
    /// <returns>False if one of those turns out to be somebody else's: then all is to be folded anew.</returns>
    internal bool Settle(IReadOnlySet<string> counted)
    {
        foreach (var name in _names.Values.ToList())
        {
            var match = WordOn(name);
            if (match == name.Match)
            {
                continue;
            }

            if (counted.Contains(name.Who) && match?.Student != name.Match?.Student)
            {
                return false;
            }

            _names[name.Who] = name with { Match = match };
        }

        return true;
    }

    internal override LessonPart Copy() => new NamesShown(this);

    private bool TellApart(string name, string beside)
    {
        var others = _besides.GetValueOrDefault(name);
        if (beside.Length == 0 || (others is not null && others.Contains(beside)))
        {
            return true;
        }

        _besides[name] = others?.With(beside) ?? new GrowingList<string>([beside]);
        return others is not { Count: 1 } || !_names.ContainsKey(name);
    }

    // The word on it, or on a name before it, however often it was changed; a ring of changes ends.
    private NameDecision? WordOn(NameShown name)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var at = name;
        while (at.Word is null && at.Before is { } before && seen.Add(at.Who))
        {
            at = _names[before];
        }

        return at.Word;
    }
}
