using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Notes;

/// <summary>What the teacher noted of students by the way: nods, asides, attempts to reach them.</summary>
public sealed class NotesTaken : LessonPart
{
    // The board has room for a few lines, and they stand there for seconds.
    private const int PressesKept = 3;

    private readonly ListsBy<Guid, (NodGiven Nod, Entry Entry)> _nods;
    private readonly ListsBy<Guid, (AsideNoted Aside, Entry Entry)> _asides;
    private readonly ListsBy<Guid, (ContactTried Try, Entry Entry)> _contacts;

    internal NotesTaken() => (_nods, _asides, _contacts) = (new(), new(), new());

    private NotesTaken(NotesTaken from) => (_nods, _asides, _contacts, LastNods, LastShown) = (from._nods.Copy(), from._asides.Copy(), from._contacts.Copy(), from.LastNods, from.LastShown);

    /// <summary>Nods of a student, in order.</summary>
    public IReadOnlyList<(NodGiven Nod, Entry Entry)> NodsOf(Guid student) => _nods[student];

    /// <summary>Private notes about a student, in order.</summary>
    public IReadOnlyList<(AsideNoted Aside, Entry Entry)> AsidesOf(Guid student) => _asides[student];

    /// <summary>Attempts to reach a student, in order.</summary>
    public IReadOnlyList<(ContactTried Try, Entry Entry)> ContactsOf(Guid student) => _contacts[student];

    /// <summary>What the last presses gave nods to, at most three, in order.</summary>
    public IReadOnlyList<NodsTogether> LastNods { get; private set; } = [];

    /// <summary>What was last shown to the class by a press of its own, at most three, in order.</summary>
    public IReadOnlyList<NodsTogether> LastShown { get; private set; } = [];

    internal void Nod(Guid student, NodGiven nod, Entry entry)
    {
        _nods.Add(student, (nod, entry));
        var press = entry.Together ?? entry.Id;
        LastNods = LastNods is [.., var last] && last.Press == press && last.Reason == nod.Reason
            ? [.. LastNods.SkipLast(1), last with { Students = last.Students.With(student), Entries = last.Entries.With(entry.Id) }]
            : [.. LastNods.TakeLast(PressesKept - 1), new NodsTogether(press, nod.Reason, new([student]), new([entry.Id]), entry.HappenedAt)];
    }

    internal void Show(IReadOnlyList<Guid> nods, Entry entry)
    {
        var shown = nods.ToHashSet();
        LastShown = [.. LastShown.Concat(LastNods.Where(n => n.Entries.Any(shown.Contains)).Select(n => n with { At = entry.HappenedAt })).TakeLast(PressesKept)];
    }

    internal void Aside(Guid student, AsideNoted aside, Entry entry) => _asides.Add(student, (aside, entry));

    internal void Contact(Guid student, ContactTried contact, Entry entry) => _contacts.Add(student, (contact, entry));

    internal override LessonPart Copy() => new NotesTaken(this);
}

/// <summary>Nods that one press gave for one reason.</summary>
/// <param name="Press">The press.</param>
/// <param name="Reason">What for.</param>
/// <param name="Students">To whom, in the order in which they were noted.</param>
/// <param name="Entries">The entries.</param>
/// <param name="At">When; of nods that were shown by a press of its own, when that was.</param>
public sealed record NodsTogether(Guid Press, string Reason, GrowingList<Guid> Students, GrowingList<Guid> Entries, Instant At);
