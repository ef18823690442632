using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Meeting;

/// <summary>An act about a name shown in the meeting, whoever that may be.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
public abstract record NameAct(string Name) : Act
{
    /// <summary>
    /// What the source gives beside the name and tells two of one name apart: a student number, an address, the id of a connection. Empty if it gives nothing.
    /// </summary>
    public string Beside { get; init; } = "";

    /// <summary>As in <see cref="StudentAct.ShowsPresence"/>.</summary>
    public virtual bool ShowsPresence => false;

    /// <summary>Whether it tells of nothing but where somebody was, or who they are.</summary>
    internal virtual bool IsWhereabouts => false;

    /// <inheritdoc/>
    public override Reach Reach => Reach.WhoItIsAbout;

    internal override string? Typed => $"{Name}{Beside}";

    internal override IEnumerable<Guid> About(LessonParts lesson) =>
        lesson.See<NamesShown>() is var names && names.All.TryGetValue(names.WhoIs(this), out var name) && names.StudentOf(name) is { } student ? [student] : [];

    /// <summary>What it tells of, as of the student whose name it is, or of the name.</summary>
    private protected Trace Traced(TraceKind kind, LessonParts lesson, string? text = null, Duration lasts = default) =>
        new(kind, About(lesson).FirstOrDefault() is var student && student != default ? student.ToString() : lesson.See<NamesShown>().WhoIs(this), Trace.Comparable(text), lasts);

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Name) ? "The name is empty."
        : TextLimits.TooLong(Name, "name", TextLimits.LongestName) ?? TextLimits.TooLong(Beside, "address or number", TextLimits.LongestName);

    // A name is known from the first that is said of it.
    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<NamesShown>().Know(Name, Beside);

    internal sealed override void Apply(LessonParts lesson, Entry entry) => Apply(lesson, lesson.See<NamesShown>().Of(this), entry);

    /// <summary>Takes what happened by it.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="name">What is known of the name before it.</param>
    /// <param name="entry">The entry.</param>
    internal abstract void Apply(LessonParts lesson, NameShown name, Entry entry);

    private protected static string? DeviceTooLong(string device) =>
        TextLimits.TooLong(device, "device", TextLimits.LongestName);
}
