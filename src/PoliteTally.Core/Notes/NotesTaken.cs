using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Notes;

/// <summary>What the teacher noted of students by the way: nods, asides, attempts to reach them.</summary>
public sealed class NotesTaken : LessonPart
{
    private readonly ListsBy<Guid, (NodGiven Nod, Entry Entry)> _nods;
    private readonly ListsBy<Guid, (AsideNoted Aside, Entry Entry)> _asides;
    private readonly ListsBy<Guid, (ContactTried Try, Entry Entry)> _contacts;

    internal NotesTaken() => (_nods, _asides, _contacts) = (new(), new(), new());

    private NotesTaken(NotesTaken from) => (_nods, _asides, _contacts) = (from._nods.Copy(), from._asides.Copy(), from._contacts.Copy());

    /// <summary>Nods of a student, in order.</summary>
    public IReadOnlyList<(NodGiven Nod, Entry Entry)> NodsOf(Guid student) => _nods[student];

    /// <summary>Private notes about a student, in order.</summary>
    public IReadOnlyList<(AsideNoted Aside, Entry Entry)> AsidesOf(Guid student) => _asides[student];

    /// <summary>Attempts to reach a student, in order.</summary>
    public IReadOnlyList<(ContactTried Try, Entry Entry)> ContactsOf(Guid student) => _contacts[student];

    internal void Nod(Guid student, NodGiven nod, Entry entry) => _nods.Add(student, (nod, entry));

    internal void Aside(Guid student, AsideNoted aside, Entry entry) => _asides.Add(student, (aside, entry));

    internal void Contact(Guid student, ContactTried contact, Entry entry) => _contacts.Add(student, (contact, entry));

    internal override LessonPart Copy() => new NotesTaken(this);
}
