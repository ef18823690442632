using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Meeting;

/// <summary>The name came into the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Device">Tells apart the connections of one person; empty when the source does not say.</param>
public sealed record Joined(string Name, string Device) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => $"“{Name}” joined";

    internal override bool IsWhereabouts => true;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => base.WhyRefused(entry, lesson) ?? DeviceTooLong(Device);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Join, lesson);

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<NamesShown>().See(name, new JoinAt(entry.HappenedAt, entry.Id, Device, name.Who));
}

/// <summary>The name left the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Device">As in <see cref="Joined"/>.</param>
public sealed record Left(string Name, string Device) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => $"“{Name}” left";

    internal override bool IsWhereabouts => true;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => base.WhyRefused(entry, lesson) ?? DeviceTooLong(Device);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Leave, lesson);

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<NamesShown>().See(name, new LeaveAt(entry.HappenedAt, entry.Id, Device, name.Who));
}

/// <summary>The name was in the meeting when a roll call was taken.</summary>
public sealed record Seen(string Name) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => $"“{Name}” seen in a roll call";

    internal override bool IsWhereabouts => true;

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<NamesShown>().See(name, new SeenAt(entry.HappenedAt, entry.Id));
}

/// <summary>The name was in the meeting for so long; nobody says when.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Length">How long in all, from zero up.</param>
public sealed record Attended(string Name, Duration Length) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => $"“{Name}” there for {Words.Minutes(Length)}";

    internal override bool IsWhereabouts => true;

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Length, lesson, lasts: Length);

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<NamesShown>().See(name, new PresentFor(Length, entry.HappenedAt, entry.Id));
}

/// <summary>Whose name this is. The last word on a name counts.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Student">The id of the student, or null for "not a student".</param>
public sealed record NameMatched(string Name, Guid? Student) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => Student is null ? $"“{Name}” is not a student" : $"“{Name}” matched";

    internal override bool IsWhereabouts => true;

    /// <inheritdoc/>
    public override Reach Reach => Reach.Everybody;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        (Student is { } student ? lesson.NotOnRoster(student) : null) ?? base.WhyRefused(entry, lesson);

    internal override void Learn(LessonParts lesson, Entry entry) =>
        lesson.Change<NamesShown>().Match(this, new NameDecision(Student, entry.Source, entry.Id));

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry)
    {
        // All of it was learned.
    }
}

/// <summary>Whose name this is will be asked later: it leaves the door list for the end of it.</summary>
public sealed record AskedLater(string Name) : NameAct(Name)
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override string InWords => $"“{Name}” will be asked later";

    internal override bool IsWhereabouts => true;

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<NamesShown>().AskLater(this, entry.Id);

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry)
    {
        // All of it was learned.
    }
}

/// <summary>Somebody in the meeting changed the name that it shows. They stay one person.</summary>
/// <param name="Name">The name shown until now.</param>
/// <param name="To">The name shown from now on.</param>
/// <param name="Device">As in <see cref="Joined"/>.</param>
public sealed record Renamed(string Name, string To, string Device) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => $"“{Name}” is now “{To}”";

    internal override bool IsWhereabouts => true;

    /// <inheritdoc/>
    public override Reach Reach => Reach.Everybody;

    internal override string? Typed => $"{Name}{Beside}{To}";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(To) ? "The new name is empty."
        : TextLimits.TooLong(To, "new name", TextLimits.LongestName) ?? DeviceTooLong(Device) ?? base.WhyRefused(entry, lesson);

    internal override void Learn(LessonParts lesson, Entry entry) => lesson.Change<NamesShown>().Rename(this, To);

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry)
    {
        // Their connection goes on under the new name.
        var names = lesson.Change<NamesShown>();
        names.See(name, new LeaveAt(entry.HappenedAt, entry.Id, Device, name.Who));
        var now = names.Know(To, Beside);
        names.See(now, new JoinAt(entry.HappenedAt, entry.Id, Device, now.Who));
    }
}

/// <summary>Whether a name was to be seen online, somewhere else than in the meeting.</summary>
public sealed record NameOnline(string Name, OnlineStatus Status) : NameAct(Name)
{
    /// <inheritdoc/>
    public override string InWords => Status switch
    {
        OnlineStatus.Online => $"“{Name}” was online",
        OnlineStatus.Away => $"“{Name}” was online, away",
        _ => $"“{Name}” was not online",
    };

    internal override bool IsWhereabouts => true;

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<NamesShown>().Online(name, Status, entry.HappenedAt);
}

/// <summary>Whether somebody is to be seen online.</summary>
public enum OnlineStatus
{
    /// <summary>Online.</summary>
    Online,

    /// <summary>Online, and not at the machine.</summary>
    Away,

    /// <summary>Not online.</summary>
    Offline,
}
