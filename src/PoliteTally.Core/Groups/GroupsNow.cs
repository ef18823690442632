using NodaTime;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Groups;

/// <summary>The groups as the entries of a lesson tell them, fed in the order in which things happened.</summary>
public sealed class GroupsNow : LessonPart
{
    private readonly ListsBy<Guid, (SatIn Seen, Entry Entry)> _sitIns;
    private GrowingList<GroupJoin> _joins;
    private GrowingList<GroupVisit> _visits;
    private List<StudentGroup> _groups;

    internal GroupsNow() => (_sitIns, _joins, _visits, _groups) = (new(), new([]), new([]), []);

    private GroupsNow(GroupsNow from)
    {
        (_sitIns, _joins, _visits, _groups) = (from._sitIns.Copy(), from._joins, from._visits, [.. from._groups]);
        // The groups there are now are the last ones, too, and go on changing.
        Last = ReferenceEquals(from.Last, from._groups) ? _groups : from.Last;
    }

    /// <summary>The groups that the class is split into; empty while it is not.</summary>
    public IReadOnlyList<StudentGroup> Now => _groups;

    /// <summary>The groups there were last, dissolved or not.</summary>
    public IReadOnlyList<StudentGroup> Last { get; private set; } = [];

    /// <summary>Who came into a group after it was made, in order.</summary>
    public IReadOnlyList<GroupJoin> Joins => _joins;

    /// <summary>What the teacher saw of a student in groups, in order.</summary>
    public IReadOnlyList<(SatIn Seen, Entry Entry)> SitInsOf(Guid student) => _sitIns[student];

    /// <summary>Why something cannot be for a group; null if there is such a group.</summary>
    internal string? NoSuch(Guid group) => _groups.Exists(g => g.Id == group) ? null : "There is no such group now.";

    internal void Make(IReadOnlyList<StudentGroup> groups) => Last = _groups = [.. groups];

    /// <summary>Takes a student from where they are to a group; with none, or one that is not there, out of all.</summary>
    internal void Move(Guid student, Guid? to, Instant at)
    {
        for (var i = 0; i < _groups.Count; i++)
        {
            var others = _groups[i].Members.Where(m => m != student);
            _groups[i] = _groups[i] with { Members = [.. _groups[i].Id == to ? others.Append(student) : others] };
        }

        if (to is { } group)
        {
            _joins = _joins.With(new GroupJoin(student, group, at));
        }
    }

    internal void Rename(Guid group, string name)
    {
        var index = _groups.FindIndex(g => g.Id == group);
        if (index >= 0)
        {
            _groups[index] = _groups[index] with { Name = name };
        }
    }

    internal void Dissolve()
    {
        Last = _groups.Count > 0 ? _groups : Last;
        _groups = [];
    }

    /// <summary>Sit-ins on groups, each with who was in the group then.</summary>
    public IReadOnlyList<GroupVisit> Visits => _visits;

    internal void SitIn(Guid student, SatIn seen, Entry entry)
    {
        _sitIns.Add(student, (seen, entry));
        if (Last.FirstOrDefault(g => g.Id == seen.Group) is { } group)
        {
            _visits = _visits.With(new GroupVisit(group.Id, entry.HappenedAt, group.Members, entry.Id));
        }
    }

    internal override LessonPart Copy() => new GroupsNow(this);
}

/// <summary>The teacher sat in on a group.</summary>
/// <param name="Group">The group.</param>
/// <param name="At">When.</param>
/// <param name="Members">Who was in it then.</param>
/// <param name="Entry">The entry.</param>
public sealed record GroupVisit(Guid Group, Instant At, IReadOnlyList<Guid> Members, Guid Entry);

/// <summary>Somebody came into a group.</summary>
public sealed record GroupJoin(Guid Student, Guid Group, Instant At);
