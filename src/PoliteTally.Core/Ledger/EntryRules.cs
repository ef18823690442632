using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;

namespace PoliteTally.Core.Ledger;

/// <summary>What has to be known of a lesson to check an entry for it.</summary>
/// <param name="Times">Planned and actual times.</param>
/// <param name="Roster">The ids of the students of its class.</param>
/// <param name="Settled">Whether it is settled.</param>
/// <param name="ActOf">The act of an entry stored so far; null if there is no such entry.</param>
/// <param name="IsStruck">Whether an entry is struck out.</param>
/// <param name="Cancelled">Whether it was cancelled.</param>
public sealed record LessonFacts(
    LessonTimes Times,
    IReadOnlySet<Guid> Roster,
    bool Settled,
    Func<Guid, Act?> ActOf,
    Func<Guid, bool> IsStruck,
    bool Cancelled = false);

/// <summary>Which entries a lesson takes. Every refusal says what was wrong and what to do.</summary>
public static class EntryRules
{
    /// <summary>How far from the lesson an act may lie. 60 min.</summary>
    public static readonly Duration Margin = Duration.FromMinutes(60);

    /// <summary>How far from the lesson a time in a file may lie: a meeting may have stood open all morning. 12 h.</summary>
    public static readonly Duration FileMargin = Duration.FromHours(12);

    /// <summary>How far ahead of the server a clock may run. 2 min.</summary>
    public static readonly Duration ClockSlack = Duration.FromMinutes(2);

    /// <summary>The longest text in an entry, in UTF-16 code units: 2,000.</summary>
    public const int LongestText = 2000;

    /// <summary>The longest name or reason in an entry, in UTF-16 code units: 200.</summary>
    public const int LongestName = 200;

    /// <summary>Why a lesson does not take an entry; null if it does.</summary>
    public static string? WhyRefused(Entry entry, LessonFacts lesson, Instant now)
    {
        if (lesson.Settled && !(entry.Act is Struck { } strike && lesson.ActOf(strike.Entry) is LessonSettled))
        {
            return "This lesson is settled. Open it again first; then it takes entries.";
        }

        return WrongTime(entry, lesson.Times, now) ?? entry.Act switch
        {
            StudentAct act when !lesson.Roster.Contains(act.Student) =>
                "This student is not on the roster of this class.",
            Struck struck when lesson.ActOf(struck.Entry) is null =>
                "The entry to strike out is not in this lesson.",
            Struck struck when lesson.IsStruck(struck.Entry) =>
                "This entry is struck out already.",
            LessonStarted when lesson.Cancelled => "This lesson is cancelled. Put it back on the calendar first.",
            LessonStarted when lesson.Times.ActualStart is not null => "This lesson has begun already.",
            LessonEnded when lesson.Times.ActualStart is null => "This lesson has not begun, so it cannot end.",
            LessonEnded when lesson.Times.ActualEnd is not null => "This lesson has ended already.",
            LessonSettled when lesson.Times.ActualEnd is null => "End the lesson before settling it.",
            NameMatched { Student: { } student } when !lesson.Roster.Contains(student) =>
                "This student is not on the roster of this class.",
            ChatSaid { Text.Length: > LongestText } => TooLong("message", LongestText),
            NodGiven { Reason: var reason } when reason.Trim().Length == 0 => "A nod needs a reason.",
            NodGiven { Reason.Length: > LongestName } => TooLong("reason", LongestName),
            ExcuseRecorded { Reason.Length: > LongestName } => TooLong("reason", LongestName),
            ReminderTicked { Reminder.Length: > LongestName } => TooLong("reminder", LongestName),
            NameAct { Name: var name } when name.Trim().Length == 0 => "The name is empty.",
            NameAct { Name.Length: > LongestName } => TooLong("name", LongestName),
            Joined { Device.Length: > LongestName } or Left { Device.Length: > LongestName } => TooLong("device", LongestName),
            _ => null,
        };
    }

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

    private static string TooLong(string what, int longest) =>
        $"The {what} is too long: at most {longest.ToString(CultureInfo.InvariantCulture)} characters.";
}
