using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Register;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Register;

/// <summary>Something that was done to the register of a lesson.</summary>
/// <param name="At">When it was done.</param>
/// <param name="By">Who did it.</param>
/// <param name="Said">What, in words.</param>
/// <param name="Changes">What a hand-in changed, in words; empty of everything else.</param>
public sealed record RegisterPast(Instant At, string By, string Said, IReadOnlyList<string> Changes);

/// <summary>Who changed what on a register, and when: marks by hand after the lesson, excuses, confirming, handing in, and what of it was taken back.</summary>
internal static class RegisterHistory
{
    /// <summary>What was done to the register of a lesson, the first first.</summary>
    /// <param name="open">The lesson.</param>
    /// <param name="handIns">What was handed in of it.</param>
    public static IReadOnlyList<RegisterPast> Of(OpenLesson open, IReadOnlyList<HandIn> handIns)
    {
        var names = open.Roster.ToDictionary(s => s.Name.Id, s => s.Name.Whole);
        var byHand = open.State.Entries.Where(e => IsOfRegister(e.Act)).ToDictionary(e => e.Id);
        var (reckoned, others) = (open.Times.CountedTo, open.State.Entries.Where(e => e.Act is Struck));
        return
        [
            .. byHand.Values.Where(e => e.Act is not Marked || e.NotedAt >= reckoned).Select(e => new RegisterPast(e.NotedAt, e.By, Wording.Of(e, open.State, names), []))
                .Concat(
                    from strike in others
                    let taken = ((Struck)strike.Act).Entries.Where(byHand.ContainsKey).Select(id => byHand[id]).ToList()
                    where taken.Count > 0
                    select new RegisterPast(strike.NotedAt, strike.By, $"taken back: {Wording.Of(taken, open.State, names)}", []))
                .Concat(handIns.Select(h => HandedIn(h, handIns)))
                .OrderBy(p => p.At),
        ];
    }

    private static bool IsOfRegister(Act act) => act.IsOfAttendance || act is Marked or LessonSettled;

    private static RegisterPast HandedIn(HandIn one, IReadOnlyList<HandIn> all)
    {
        var before = all.FirstOrDefault(h => h.Version < one.Version && h.State == HandInState.Taken);
        return new RegisterPast(
            one.MadeAt, one.By, one.Why.Length > 0 ? $"amended: {one.Why}" : "handed in",
            before is null ? [] : [.. RegisterChange.Between(OtherJson.ReadMarks(before.Marks), OtherJson.ReadMarks(one.Marks)).Select(c => c.InWords)]);
    }
}
