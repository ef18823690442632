namespace PoliteTally.Core.Groups;

/// <summary>The groups as the entries of a lesson tell them, fed in the order in which things happened.</summary>
internal sealed class GroupsNow
{
    private List<StudentGroup> _groups = [];

    public IReadOnlyList<StudentGroup> Groups => _groups;

    /// <summary>The groups there were last, dissolved or not.</summary>
    public IReadOnlyList<StudentGroup> Last { get; private set; } = [];

    public GroupsNow Copy()
    {
        List<StudentGroup> groups = [.. _groups];
        // The groups there are now are the last ones, too, and go on changing.
        return new GroupsNow { _groups = groups, Last = ReferenceEquals(Last, _groups) ? groups : Last };
    }

    public void Make(IReadOnlyList<StudentGroup> groups) => Last = _groups = [.. groups];

    /// <summary>Takes a student from where they are to a group; with none, or one that is not there, out of all.</summary>
    public void Move(Guid student, Guid? to)
    {
        for (var i = 0; i < _groups.Count; i++)
        {
            var others = _groups[i].Members.Where(m => m != student);
            _groups[i] = _groups[i] with { Members = [.. _groups[i].Id == to ? others.Append(student) : others] };
        }
    }

    public void Rename(Guid group, string name)
    {
        var index = _groups.FindIndex(g => g.Id == group);
        if (index >= 0)
        {
            _groups[index] = _groups[index] with { Name = name };
        }
    }

    public void Dissolve()
    {
        Last = _groups.Count > 0 ? _groups : Last;
        _groups = [];
    }
}
