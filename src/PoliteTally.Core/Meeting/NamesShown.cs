using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Meeting;

/// <summary>The names shown in the meeting of a lesson.</summary>
public sealed class NamesShown : LessonPart
{
    private readonly Dictionary<string, NameShown> _names;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;
    private GrowingList<Instant> _listsSeen;

    /// <param name="merged">Records that turned out to be of one student.</param>
    internal NamesShown(IReadOnlyDictionary<Guid, Guid> merged) => (_names, _merged, _listsSeen) = (new(StringComparer.Ordinal), merged, new([]));

    private NamesShown(NamesShown from) => (_names, _merged, _listsSeen) = (new(from._names, StringComparer.Ordinal), from._merged, from._listsSeen);

    /// <summary>What is known of each name, by the name as shown.</summary>
    public IReadOnlyDictionary<string, NameShown> All => _names;

    /// <summary>When lists of everybody who was there were seen, in order.</summary>
    public IReadOnlyList<Instant> ListsSeen => _listsSeen;

    /// <summary>The student whose name it is; null if nobody has said, or if it is not a student's.</summary>
    public Guid? StudentOf(NameShown name) => name.Match?.Student is { } matched ? _merged.GetValueOrDefault(matched, matched) : null;

    /// <summary>When the names of a student were seen.</summary>
    public IEnumerable<Sighting> SightingsOf(Guid student) => _names.Values.Where(n => StudentOf(n) == student).SelectMany(n => n.Sightings);

    internal void Know(string name)
    {
        if (!_names.ContainsKey(name))
        {
            _names[name] = new NameShown(name);
        }
    }

    internal void Match(string name, NameDecision word) => _names[name] = Known(name) with { Word = word };

    internal void AskLater(string name, Guid entry) => _names[name] = Known(name) with { Later = entry };

    internal void Rename(string name, string to)
    {
        Know(name);
        _names[to] = Known(to) with { Before = name };
    }

    internal void See(NameShown name, Sighting sighting) => _names[name.Name] = name with { Seen = name.Seen.With(sighting) };

    internal void SeeListAt(Instant at)
    {
        if (_listsSeen.Count == 0 || _listsSeen[^1] != at)
        {
            _listsSeen = _listsSeen.With(at);
        }
    }

    internal void Online(NameShown name, OnlineStatus status, Instant at) => _names[name.Name] = name with { Online = (status, at) };

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

            if (counted.Contains(name.Name) && match?.Student != name.Match?.Student)
            {
                return false;
            }

            _names[name.Name] = name with { Match = match };
        }

        return true;
    }

    internal override LessonPart Copy() => new NamesShown(this);

    private NameShown Known(string name) => _names.GetValueOrDefault(name) ?? new NameShown(name);

    // The word on it, or on a name before it, however often it was changed; a ring of changes ends.
    private NameDecision? WordOn(NameShown name)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var at = name;
        while (at.Word is null && at.Before is { } before && seen.Add(at.Name))
        {
            at = _names[before];
        }

        return at.Word;
    }
}
