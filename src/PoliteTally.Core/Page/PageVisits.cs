using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Page;

/// <summary>Who has their student page open, and who came to it by name, as the entries of a lesson tell it.</summary>
public sealed class PageVisits : LessonPart
{
    private readonly Dictionary<Guid, PageVisitor> _visitors;
    private readonly Dictionary<Guid, Guid> _open;

    internal PageVisits() => (_visitors, _open) = ([], []);

    private PageVisits(PageVisits from) => (_visitors, _open) = (new(from._visitors), new(from._open));

    /// <summary>Who came to the student page with a code and a name, by the id that tells them apart.</summary>
    public IReadOnlyDictionary<Guid, PageVisitor> Visitors => _visitors;

    /// <summary>The entry by which the page of a student was opened; null while it is not open.</summary>
    public Guid? OpenBy(Guid student) => _open.TryGetValue(student, out var entry) ? entry : null;

    internal void Open(Guid student, Guid entry) => _open[student] = entry;

    internal void Close(Guid student) => _open.Remove(student);

    internal void Knock(PageVisitor visitor) => _visitors[visitor.Session] = visitor;

    internal void Admit(Guid session, Guid? student, Guid entry)
    {
        if (_visitors.TryGetValue(session, out var visitor))
        {
            _visitors[session] = visitor with { Student = student, Word = entry };
        }
    }

    internal override LessonPart Copy() => new PageVisits(this);
}

/// <summary>Somebody who came to the student page with the code of the lesson and a name.</summary>
/// <param name="Session">Tells apart who came.</param>
/// <param name="Name">The name they gave.</param>
/// <param name="At">When.</param>
/// <param name="Student">The student they are, by the teacher's word; null while nobody has said, and if they were turned away.</param>
/// <param name="Word">The entry of the teacher's word; null while there is none.</param>
public sealed record PageVisitor(Guid Session, string Name, Instant At, Guid? Student, Guid? Word);
