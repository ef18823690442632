using System.Globalization;
using NodaTime;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Lessons;

/// <summary>
/// Which entries a lesson takes: what holds for all of them. What one kind of act needs stands in the act. Every refusal says what was wrong and
/// what to do.
/// </summary>
public static class EntryRules
{
    /// <summary>How far from the lesson an act may lie. 60 min.</summary>
    public static readonly Duration Margin = Duration.FromMinutes(60);

    /// <summary>How far from the lesson a time in a file may lie: a meeting may have stood open all morning. 12 h.</summary>
    public static readonly Duration FileMargin = Duration.FromHours(12);

    /// <summary>How far ahead of the server a clock may run. 2 min.</summary>
    public static readonly Duration ClockSlack = Duration.FromMinutes(2);

    /// <summary>Why a lesson does not take an entry; null if it does.</summary>
    public static string? WhyRefused(Entry entry, LessonFacts lesson, Instant now)
    {
        if (lesson.Settled && !entry.Act.IsTakenWhenSettled && !(entry.Act is Struck strike && strike.Entries.All(e => lesson.ActOf(e) is LessonSettled or { IsTakenWhenSettled: true })))
        {
            return "This lesson is settled. Open it again first; then it takes entries.";
        }

        return WrongTime(entry, lesson.Times, now)
            ?? (entry.Act is StudentAct act ? lesson.NotOnRoster(act.Student) : null)
            ?? entry.Act.WhyRefused(entry, lesson)
            ?? Unshowable(entry.Act);
    }

    /// <summary>
    /// Control characters, and those that turn the direction of writing for what stands behind them, would make other lines say
    /// something else. A feed takes them out (<see cref="CleanText"/>); what is typed has none.
    /// </summary>
    private static string? Unshowable(Act act) =>
        act.Typed is not { } text || CleanText.IsClean(text) ? null : "The text holds characters that cannot be shown. Type it anew.";

    private static string? WrongTime(Entry entry, LessonTimes times, Instant now)
    {
        if (entry.HappenedAt > now + ClockSlack)
        {
            return "The time of this entry lies in the future. Check the clock of this device.";
        }

        if (entry.Act.IsDecision)
        {
            return null;
        }

        var margin = entry.Source == Source.File ? FileMargin : Margin;
        var first = (times.ActualStart is { } start ? Instant.Min(start, times.PlannedStart) : times.PlannedStart) - margin;
        var last = Instant.Max(times.PlannedEnd, times.ActualEnd ?? times.PlannedEnd) + margin;
        // A lesson that is running takes what happens now, however long it runs over.
        var running = times.ActualStart is not null && times.ActualEnd is null;
        // Starting early or late is the teacher's choice; so the start itself has no window.
        return entry.Act is LessonStarted || (entry.HappenedAt >= first && (running || entry.HappenedAt <= last))
            ? null
            : $"The time of this entry lies more than {margin.TotalMinutes.ToString(CultureInfo.InvariantCulture)} min outside the lesson.";
    }
}
