namespace PoliteTally.Core.Ledger;

/// <summary>Which entries of a lesson are about one student.</summary>
public static class StudentEntries
{
    /// <summary>
    /// Every entry about a student, in the order in which things happened, struck-out ones too: their own, those of names that are theirs, what was
    /// said of their messages, and roll calls, signal rounds, groups and marks that name them or miss them. Strikes are no entries of their own here.
    /// </summary>
    public static IEnumerable<Entry> Of(LessonState state, Guid student) => state.Entries.Where(e => IsAbout(e, state, student));

    /// <summary>Whether an entry is about several students at once, so that striking it out changes more than one.</summary>
    public static bool IsOfSeveral(Act act) => act is Called { By: not null } or RollCallTaken or SignalRoundHeld or GroupsMade or AnswersMarked;

    private static bool IsAbout(Entry entry, LessonState state, Guid student) => entry.Act switch
    {
        Called { By: { } by } handed => state.Whose(handed.Student) == student || state.Whose(by) == student,
        StudentAct act => state.Whose(act.Student) == student,
        NameAct act => state.Names.TryGetValue(act.Name, out var name) && state.StudentOf(name) == student,
        ChatAct act => state.MessageOf(act.Message)?.Student == student,
        PageAdmitted { Student: { } admitted } => state.Whose(admitted) == student,
        RollCallTaken => true,
        SignalRoundHeld round => round.Answered.Concat(round.Silent).Any(s => state.Whose(s) == student),
        GroupsMade made => made.Groups.SelectMany(g => g.Members).Any(s => state.Whose(s) == student),
        AnswersMarked marked => marked.Students.Any(s => state.Whose(s) == student),
        _ => false,
    };
}
