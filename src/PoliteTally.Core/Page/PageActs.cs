using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Page;

/// <summary>A student opened their page: the first of their windows.</summary>
public sealed record PageOpened(Guid Student) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => "student page opened";

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Join, lesson);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry)
    {
        lesson.Change<PageVisits>().Open(student, entry.Id);
        lesson.Change<Evidence>().SeePage(student, entry, opens: true);
    }
}

/// <summary>The last window of a student's page was closed.</summary>
public sealed record PageClosed(Guid Student) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => "student page closed";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry)
    {
        lesson.Change<PageVisits>().Close(student);
        lesson.Change<Evidence>().SeePage(student, entry, opens: false);
    }
}

/// <summary>Somebody came to the student page with the code of the lesson and a name.</summary>
/// <param name="Session">Tells apart who came.</param>
/// <param name="Name">The name they gave.</param>
public sealed record PageKnocked(Guid Session, string Name) : Act
{
    /// <inheritdoc/>
    public override string InWords => $"“{Name}” at the student page";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => Name;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Name) ? "Write your name."
        : TextLimits.TooLong(Name, "name", TextLimits.LongestName);

    internal override void Learn(LessonParts lesson, Entry entry) =>
        lesson.Change<PageVisits>().Knock(new PageVisitor(Session, Name, entry.HappenedAt, null, null));

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // All of it was learned.
    }
}

/// <summary>The teacher said who came to the student page.</summary>
/// <param name="Session">Who came.</param>
/// <param name="Student">The student they are; null to turn them away.</param>
public sealed record PageAdmitted(Guid Session, Guid? Student) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => Student is null ? "turned away from the student page" : "let in to the student page";

    internal override IEnumerable<Guid> About(LessonParts lesson) => Student is { } student ? [lesson.Whose(student)] : [];

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        (Student is { } student ? lesson.NotOnRoster(student) : null)
        ?? (lesson.See<PageVisits>().Visitors.ContainsKey(Session) ? null : "Nobody of this kind came to this lesson.");

    internal override void Learn(LessonParts lesson, Entry entry) =>
        lesson.Change<PageVisits>().Admit(Session, Student is { } student ? lesson.Whose(student) : null, entry.Id);

    internal override void Apply(LessonParts lesson, Entry entry)
    {
        // All of it was learned.
    }
}
