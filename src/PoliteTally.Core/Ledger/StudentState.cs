using System.Security.Cryptography;
using System.Text;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;

namespace PoliteTally.Core.Ledger;

/// <summary>What the entries of a lesson say of one student, hands and turns apart.</summary>
public sealed class StudentState
{
    private readonly object _holder;
    private readonly List<MarkMade> _marks = [];
    private readonly List<Sighting> _own = [];
    private readonly List<ChatMessage> _chat = [];
    private readonly List<(bool Answered, Guid Entry)> _rounds = [];
    private readonly List<Guid> _signals = [];
    private readonly List<(SatIn Seen, Entry Entry)> _sitIns = [];
    private readonly List<(AsideNoted Aside, Entry Entry)> _asides = [];
    private readonly List<(ContactTried Try, Entry Entry)> _contacts = [];
    private readonly List<(NodGiven Nod, Entry Entry)> _nods = [];

    internal StudentState(object holder) => _holder = holder;

    /// <summary>The teacher's marks, in order.</summary>
    public IReadOnlyList<MarkMade> Marks => _marks;

    /// <summary>The teacher's last word on the status, if there is one.</summary>
    public StatusWord? Declared { get; private set; }

    /// <summary>The excuse recorded last, if there is one.</summary>
    public ExcuseGiven? Excuse { get; private set; }

    /// <summary>Acts of their own that show that the student was there.</summary>
    public IReadOnlyList<Sighting> OwnSightings => _own;

    /// <summary>Contributions in the chat, in order.</summary>
    public IReadOnlyList<ChatMessage> Chat => _chat;

    /// <summary>Signal rounds held while they were there.</summary>
    public IReadOnlyList<(bool Answered, Guid Entry)> SignalRounds => _rounds;

    /// <summary>Signals that they gave of their own accord, outside of signal rounds, in order.</summary>
    public IReadOnlyList<Guid> SignalsGiven => _signals;

    /// <summary>What they signalled last, in a round, of their own accord or by a reaction in the meeting; null if they did not.</summary>
    public Signalled? LastSignal { get; private set; }

    /// <summary>What the teacher saw of them in groups, in order.</summary>
    public IReadOnlyList<(SatIn Seen, Entry Entry)> SitIns => _sitIns;

    /// <summary>Private notes about them, in order.</summary>
    public IReadOnlyList<(AsideNoted Aside, Entry Entry)> Asides => _asides;

    /// <summary>Attempts to reach them, in order.</summary>
    public IReadOnlyList<(ContactTried Try, Entry Entry)> Contacts => _contacts;

    /// <summary>The entry that says that they cannot speak today; null if they can.</summary>
    public Guid? PausedBy { get; private set; }

    /// <summary>The entry by which their page was opened; null while it is not open.</summary>
    public Guid? PageOpenBy { get; private set; }

    /// <summary>Nods, in order.</summary>
    public IReadOnlyList<(NodGiven Nod, Entry Entry)> Nods => _nods;

    /// <summary>Whether this one is still being made by whoever asks; what another made is not changed any more.</summary>
    internal bool IsHeldBy(object holder) => ReferenceEquals(_holder, holder);

    internal StudentState CopyFor(object holder)
    {
        var copy = new StudentState(holder) { Declared = Declared, Excuse = Excuse, PausedBy = PausedBy, PageOpenBy = PageOpenBy, LastSignal = LastSignal };
        copy._marks.AddRange(_marks);
        copy._own.AddRange(_own);
        copy._chat.AddRange(_chat);
        copy._rounds.AddRange(_rounds);
        copy._signals.AddRange(_signals);
        copy._sitIns.AddRange(_sitIns);
        copy._asides.AddRange(_asides);
        copy._contacts.AddRange(_contacts);
        copy._nods.AddRange(_nods);
        return copy;
    }

    internal void Apply(StudentAct act, Entry entry)
    {
        if (act.ShowsPresence)
        {
            _own.Add(new SeenAt(entry.HappenedAt, entry.Id));
        }

        switch (act)
        {
            case Marked marked:
                _marks.Add(new MarkMade(marked.Mark, entry.HappenedAt, entry.Id, ByRollCall: false));
                break;
            case StatusDeclared declared:
                Declared = new StatusWord(declared.Status, entry.Id);
                break;
            case ExcuseRecorded excuse:
                Excuse = new ExcuseGiven(excuse.Reason, entry.Id);
                break;
            case SpeakingPaused paused:
                PausedBy = paused.Paused ? entry.Id : null;
                break;
            case PageOpened:
                PageOpenBy = entry.Id;
                _own.Add(new PageAt(entry.HappenedAt, entry.Id, Opens: true));
                break;
            case PageClosed:
                PageOpenBy = null;
                _own.Add(new PageAt(entry.HappenedAt, entry.Id, Opens: false));
                break;
            case SatIn seen:
                _sitIns.Add((seen, entry));
                break;
            case AsideNoted aside:
                _asides.Add((aside, entry));
                break;
            case ContactTried contact:
                _contacts.Add((contact, entry));
                break;
            case NodGiven nod:
                _nods.Add((nod, entry));
                break;
        }
    }

    /// <summary>They showed something: in a signal round, or of their own accord.</summary>
    internal void Signals(string what, Entry entry, bool ofOwnAccord)
    {
        LastSignal = new Signalled(what, entry.HappenedAt, entry.Id);
        if (ofOwnAccord)
        {
            _signals.Add(entry.Id);
        }
    }

    internal void Glimpsed(Entry entry) => _own.Add(new SeenAt(entry.HappenedAt, entry.Id));

    internal void InRound(bool answered, Entry entry)
    {
        _rounds.Add((answered, entry.Id));
        if (answered)
        {
            Glimpsed(entry);
        }
    }

    internal void Wrote(ChatMessage message) => _chat.Add(message);
}

/// <summary>What the entries of a lesson say of one name shown in the meeting.</summary>
public sealed class NameState
{
    private readonly object _holder;
    private readonly List<Sighting> _sightings = [];
    private NameWord? _ownMatch;
    private string? _before;
    // Boxed: it is reckoned when first asked for, by whichever thread asks.
    private object? _standsFor;

    internal NameState(object holder, string name) => (_holder, Name) = (holder, name);

    /// <summary>The name exactly as it was shown.</summary>
    public string Name { get; }

    /// <summary>When it was seen.</summary>
    public IReadOnlyList<Sighting> Sightings => _sightings;

    /// <summary>
    /// The last word on whose name it is; null while nobody has said. A name that somebody changed to is theirs, unless
    /// something else was said of it.
    /// </summary>
    public NameWord? Match { get; internal set; }

    /// <summary>The entry by which it is to be asked later; null if it is not.</summary>
    public Guid? Later { get; private set; }

    /// <summary>Whether the name was to be seen online last, and when.</summary>
    public (OnlineStatus Status, Instant At)? Online { get; private set; }

    /// <summary>The id under which the acts of the name stand while it belongs to no student. Follows from the name.</summary>
    public Guid StandsFor => (Guid)(_standsFor ??= new Guid(SHA256.HashData(Encoding.UTF8.GetBytes(Name)).AsSpan(0, 16)));

    internal bool IsHeldBy(object holder) => ReferenceEquals(_holder, holder);

    internal NameState CopyFor(object holder)
    {
        var copy = new NameState(holder, Name)
        {
            _ownMatch = _ownMatch,
            _before = _before,
            _standsFor = _standsFor,
            Match = Match,
            Later = Later,
            Online = Online,
        };
        copy._sightings.AddRange(_sightings);
        return copy;
    }

    internal void Learn(NameAct act, Entry entry)
    {
        switch (act)
        {
            case NameMatched matched:
                _ownMatch = new NameWord(matched.Student, entry.Source, entry.Id);
                break;
            case AskedLater:
                Later = entry.Id;
                break;
        }
    }

    internal void WasCalled(string before) => _before = before;

    /// <summary>The word on it, or on a name before it, however often it was changed; a ring of changes ends.</summary>
    internal NameWord? WordThrough(Dictionary<string, NameState> names)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var at = this;
        while (at._ownMatch is null && at._before is { } before && seen.Add(at.Name))
        {
            at = names[before];
        }

        return at._ownMatch;
    }

    internal void Apply(NameAct act, Entry entry)
    {
        switch (act)
        {
            case Joined joined:
                _sightings.Add(new JoinAt(entry.HappenedAt, entry.Id, DeviceOf(joined.Device)));
                break;
            case Left left:
                _sightings.Add(new LeaveAt(entry.HappenedAt, entry.Id, DeviceOf(left.Device)));
                break;
            case Renamed renamed:
                _sightings.Add(new LeaveAt(entry.HappenedAt, entry.Id, DeviceOf(renamed.Device)));
                break;
            case Seen:
                _sightings.Add(new SeenAt(entry.HappenedAt, entry.Id));
                break;
            case Attended attended:
                _sightings.Add(new PresentFor(attended.Length, entry.HappenedAt, entry.Id));
                break;
            case NameOnline online:
                Online = (online.Status, entry.HappenedAt);
                break;
        }

        if (act.ShowsPresence)
        {
            _sightings.Add(new SeenAt(entry.HappenedAt, entry.Id));
        }
    }

    /// <summary>Somebody changed their name to this one: their connection goes on under it.</summary>
    internal void CameBy(Renamed renamed, Entry entry) =>
        _sightings.Add(new JoinAt(entry.HappenedAt, entry.Id, DeviceOf(renamed.Device)));

    // The same device id under two names is two connections: files number devices name by name.
    private string DeviceOf(string device) => $"{Name}\n{device}";
}

/// <summary>Whose name it is: a student, or null for "not a student".</summary>
public sealed record NameWord(Guid? Student, Source Source, Guid Entry);

/// <summary>A mark of the teacher, and when it was made.</summary>
/// <param name="Mark">The mark: of a roll call "here" for whom it names and "left" for whom it does not.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry.</param>
/// <param name="ByRollCall">Whether a roll call made it.</param>
public sealed record MarkMade(Mark Mark, Instant At, Guid Entry, bool ByRollCall);

/// <summary>The teacher looked round.</summary>
/// <param name="At">When.</param>
/// <param name="Entry">The entry.</param>
/// <param name="Here">Who was there; everybody else was not.</param>
public sealed record RollCall(Instant At, Guid Entry, IReadOnlySet<Guid> Here);

/// <summary>What somebody signalled.</summary>
/// <param name="What">What it means, or the reaction as the meeting calls it.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry.</param>
public sealed record Signalled(string What, Instant At, Guid Entry);

/// <summary>The teacher's word on a status.</summary>
public sealed record StatusWord(AttendanceStatus Status, Guid Entry);

/// <summary>An excuse and its reason.</summary>
public sealed record ExcuseGiven(string Reason, Guid Entry);
