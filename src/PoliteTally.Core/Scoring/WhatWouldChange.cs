using PoliteTally.Core.Attendance;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Scoring;

/// <summary>Something that a student did not do and could have done, and what the score would have been.</summary>
/// <param name="What">What, in plain words.</param>
/// <param name="Score">The score with it, from 0 to 100, unrounded.</param>
public sealed record WouldChange(string What, decimal Score)
{
    /// <summary>The nearest things that would have made a score another, those that would have made most first; each is tried alone.</summary>
    /// <param name="did">What was done.</param>
    /// <param name="scheme">How it is scored.</param>
    /// <returns>Empty if there is no score, or nothing would have made it higher.</returns>
    public static IReadOnlyList<WouldChange> Of(Tally did, Scheme scheme)
    {
        if (Scored(did) is not { } score)
        {
            return [];
        }

        return
        [
            .. Nearest().Select(n => Scored(n.Tally) is { } other ? new WouldChange(n.What, other) : null).OfType<WouldChange>()
                .Where(w => w.Score > score).OrderByDescending(w => w.Score).ThenBy(w => w.What, StringComparer.Ordinal),
        ];

        decimal? Scored(Tally tally) => LessonScore.Of(tally.ToScore(scheme), scheme).Total?.Value;

        IEnumerable<(string What, Tally Tally)> Nearest()
        {
            if (did.Status == AttendanceStatus.Absent)
            {
                yield return ("an excuse: the lesson would not count", did with { Status = AttendanceStatus.Excused, HasExcuse = true });
                yield return ("being there", did with { Status = AttendanceStatus.Present, MeasuredShare = 1, LateCosts = false, LeftEarlyCosts = false });
                yield break;
            }

            yield return ("being in time", did with { Status = AttendanceStatus.Present, LateCosts = false });
            yield return ("staying to the end", did with { MeasuredShare = did.MeasuredShare > 0 ? 1 : 0, LeftEarlyCosts = false });
            yield return ("one full turn more", did with { FullTurns = did.FullTurns + 1 });
            yield return ("one contribution more in the chat", did with { ChatIdeas = did.ChatIdeas + 1 });
            yield return ("a hand raised", did with { HandNeverCalled = true });
            if (did.ChatNotSwept > 0)
            {
                yield return ($"if {Words.Count(did.ChatNotSwept, "message")} that nobody has swept count", did with { ChatIdeas = did.ChatIdeas + did.ChatNotSwept, ChatNotSwept = 0 });
            }

            if (did.Answered < did.Asked)
            {
                yield return ("one answer more, whatever its marks", did with { Answered = did.Answered + 1 });
            }

            if (did.MarksGot < did.MarksPossible)
            {
                yield return ("all marks", did with { MarksGot = did.MarksPossible });
            }

            if (did.SignalsAnswered < did.SignalRounds)
            {
                yield return ("an answer in one more signal round", did with { SignalsAnswered = did.SignalsAnswered + 1 });
            }
        }
    }
}
