using NodaTime;
using PoliteTally.Core.Board;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Notes;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Board;

/// <summary>Nods on the class board, for a moment.</summary>
/// <param name="Who">Short names; for a whole group its name, and for everybody who is here that word.</param>
/// <param name="Reason">What for.</param>
/// <param name="To">Until when they stand there.</param>
public sealed record BoardNods(IReadOnlyList<string> Who, string Reason, Instant To)
{
    /// <summary>How long they stand there: long enough to be read from the far end of a slow connection.</summary>
    public static readonly Duration ShownFor = Duration.FromSeconds(8);

    /// <summary>What of the last nods the class sees at a moment; null if none.</summary>
    internal static IReadOnlyList<BoardNods>? In(OpenLesson open, LessonState state, Instant now)
    {
        var nods = open.Rules.NodsOnBoard switch
        {
            NodsOnBoard.Always => state.Notes.LastNods,
            NodsOnBoard.WhenShown => state.Notes.LastShown,
            _ => [],
        };
        var seen = nods.Where(n => n.At <= now && now < n.At + ShownFor)
            .Select(n => new BoardNods(WhoOf(n, open, state), n.Reason, n.At + ShownFor)).Where(n => n.Who.Count > 0).ToList();
        return seen.Count == 0 ? null : seen;
    }

    private static List<string> WhoOf(NodsTogether nods, OpenLesson open, LessonState state)
    {
        var students = nods.Students.Where(open.ShortNames.ContainsKey).ToHashSet();
        return students.Count < 2 ? Named(students)
            : IsAllOf(open.Roster.Select(s => s.Name.Id)) ? ["Everybody"]
            : state.Groups.Now.FirstOrDefault(g => students.IsSubsetOf(g.Members) && IsAllOf(g.Members)) is { } group ? [group.Name]
            : Named(students);

        bool IsAllOf(IEnumerable<Guid> others) => others.All(o => students.Contains(o) || !state.AttendanceOf(o, open.Times, open.Rules.Scheme.Attendance).IsHere);
        List<string> Named(IEnumerable<Guid> some) => [.. some.Select(s => open.ShortNames[s])];
    }
}
