using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Groups;

/// <summary>The class was split into groups, in place of any before.</summary>
public sealed record GroupsMade(IReadOnlyList<StudentGroup> Groups) : Act
{
    /// <inheritdoc/>
    public override bool IsOfSeveral => true;

    /// <inheritdoc/>
    public override string InWords => Words.Count(Groups.Count, "group") + " made";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => string.Concat(Groups.Select(g => g.Name));

    internal override IEnumerable<Guid> About(LessonParts lesson) => Groups.SelectMany(g => g.Members).Select(lesson.Whose);

    internal override string? WhyRefused(Entry entry, LessonFacts lesson)
    {
        var members = Groups.SelectMany(g => g.Members).ToList();
        return Groups switch
        {
            { Count: 0 or > StudentGroup.Most } => $"A class is split into 1 to {StudentGroup.Most} groups.",
            _ when Groups.Select(g => StudentGroup.WrongName(g.Name)).FirstOrDefault(w => w is not null) is { } wrong => wrong,
            _ when Groups.DistinctBy(g => g.Id).Count() < Groups.Count => "Two groups have the same id.",
            _ when lesson.NotOnRoster(members) is { } stranger => stranger,
            _ when members.Distinct().Count() < members.Count => "A student is in one group at a time.",
            _ => null,
        };
    }

    internal override void Apply(LessonParts lesson, Entry entry) =>
        lesson.Change<GroupsNow>().Make([.. Groups.Select(g => g with { Members = [.. g.Members.Select(lesson.Whose).Distinct()] })]);
}

/// <summary>A student came into a group, from none or from another; or, with null, is in none any more.</summary>
public sealed record GroupJoined(Guid Student, Guid? Group) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override string InWords => Group is null ? "taken out of the groups" : "to another group";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<GroupsNow>().Move(student, Group, entry.HappenedAt);
}

/// <summary>A group was given another name.</summary>
public sealed record GroupRenamed(Guid Group, string Name) : Act
{
    /// <inheritdoc/>
    public override string InWords => $"group renamed: {Name}";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override string? Typed => Name;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => StudentGroup.WrongName(Name);

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<GroupsNow>().Rename(Group, Name);
}

/// <summary>The groups came back together.</summary>
public sealed record GroupsDissolved : Act
{
    /// <inheritdoc/>
    public override string InWords => "groups dissolved";

    /// <inheritdoc/>
    public override Reach Reach => Reach.Nobody;

    internal override void Apply(LessonParts lesson, Entry entry) => lesson.Change<GroupsNow>().Dissolve();
}

/// <summary>The teacher sat in on a group and saw what this member did there.</summary>
public sealed record SatIn(Guid Student, Guid Group, Contribution Contribution) : StudentAct(Student)
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => $"in a group: {Contribution.InWords()}";

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) => lesson.Change<GroupsNow>().SitIn(student, this, entry);
}
