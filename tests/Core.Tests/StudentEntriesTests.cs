using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Tests;

public sealed class StudentEntriesTests
{
    private static readonly Entry Message = Given.Noted(5, new NameWrote("Juno's laptop", "the wind backs", false), Source.Feed);
    private static readonly Entry Match = Given.Noted(6, new NameMatched("Juno's laptop", Given.Juno));
    private static readonly Guid Asking = Given.Id(40);

    public static TheoryData<string, Act, bool> Acts => new()
    {
        { "their own act", new NodGiven(Given.Juno, "on time"), true },
        { "somebody else's", new NodGiven(Given.Eino, "on time"), false },
        { "a name that is theirs", new Joined("Juno's laptop", ""), true },
        { "a name that is nobody's", new Joined("harbour-office-3", ""), false },
        { "what was said of their message", new ChatSorted(Message.Id, ChatKind.Idea), true },
        { "what was said of another", new ChatSorted(Given.Id(77), ChatKind.Idea), false },
        { "a roll call that names them", new RollCallTaken([Given.Juno]), true },
        { "a roll call that misses them", new RollCallTaken([Given.Eino]), true },
        { "a signal round that they answered", new SignalRoundHeld("Fog is a cloud.", [Given.Juno], []), true },
        { "a signal round in which they were silent", new SignalRoundHeld("Fog is a cloud.", [], [Given.Juno]), true },
        { "a signal round without them", new SignalRoundHeld("Fog is a cloud.", [Given.Eino], []), false },
        { "groups that they are in", new GroupsMade([new StudentGroup(Given.Id(50), "Gulls", [Given.Juno])]), true },
        { "groups that they are not in", new GroupsMade([new StudentGroup(Given.Id(50), "Gulls", [Given.Eino])]), false },
        { "marks of theirs", new AnswersMarked(Asking, [Given.Juno], 1), true },
        { "their way in", new PageAdmitted(Given.Id(60), Given.Juno), true },
        { "somebody turned away", new PageAdmitted(Given.Id(60), null), false },
        { "the course of the lesson", new StageMoved(Given.Id(70)), false },
        { "the word on their status", new StatusDeclared(Given.Juno, AttendanceStatus.Present), true },
    };

    [Theory]
    [MemberData(nameof(Acts))]
    public void The_list_of_a_student_has_all_that_is_about_them(string what, Act act, bool isTheirs)
    {
        var entry = Given.Noted(10, act);
        StudentEntries.Of(Given.State(Message, Match, entry), Given.Juno).Contains(entry).ShouldBe(isTheirs, what);
    }

    [Fact]
    public void What_was_struck_out_stays_in_the_list_and_a_merged_record_brings_its_own()
    {
        var (nod, merged) = (Given.Noted(3, new NodGiven(Given.Juno, "on time")), Given.Noted(2, new NodGiven(Given.Ana, "kept going")));
        var state = LessonState.Fold([nod, merged, Given.Strike(nod)], new Dictionary<Guid, Guid> { [Given.Ana] = Given.Juno });
        StudentEntries.Of(state, Given.Juno).ShouldBe([merged, nod]);
    }
}
