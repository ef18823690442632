using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Lessons;

/// <summary>Which entries of a lesson are about one student.</summary>
public static class StudentEntries
{
    /// <summary>
    /// Every entry about a student, in the order in which things happened, struck-out ones too: their own, those of names that are theirs, what was
    /// said of their messages, and roll calls, signal rounds, groups and marks that name them or miss them. Strikes are no entries of their own here.
    /// </summary>
    public static IEnumerable<Entry> Of(LessonState state, Guid student) =>
        state.Entries.Where(e => e.Act is RollCallTaken || state.StudentsOf(e.Act).Contains(student));
}
