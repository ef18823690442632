using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Web.Features.Live;

/// <summary>Entries in plain words, the same in the last entries, in an explanation and in settling.</summary>
internal static class Wording
{
    /// <summary>An act with the name of the student in front.</summary>
    public static string Of(Act act, IReadOnlyDictionary<Guid, string> names) => act switch
    {
        StudentAct student => $"{names.GetValueOrDefault(student.Student, "A former student")}, {Of(act)}",
        _ => Of(act),
    };

    /// <summary>An act without saying whose.</summary>
    public static string Of(Act act) => act switch
    {
        LessonStarted => "Lesson started",
        LessonEnded => "Lesson ended",
        LessonSettled => "Register confirmed, lesson settled",
        Struck => "an entry struck out",
        Marked { Mark: Mark.Here } => "here",
        Marked { Mark: Mark.Late } => "late",
        Marked { Mark: Mark.Left } => "left",
        StatusDeclared declared => $"declared {Words.Of(declared.Status)}",
        ExcuseRecorded excuse => $"excused: {excuse.Reason}",
        HandRaised => "hand up",
        HandEnded { End: HandEnd.Withdrawn } => "hand withdrawn",
        HandEnded { End: HandEnd.SetDown } => "hand set down",
        HandEnded => "hand lapsed",
        Called called => called.Origin == TurnOrigin.Invited ? "called" : $"called, {Words.Of(called.Origin)}",
        TurnTaken taken => Words.Of(taken.Outcome),
        ChatSaid { Text: { Length: > 0 } text } said => $"{Words.Of(said.Kind)} in the chat: “{text}”",
        ChatSaid said => $"{Words.Of(said.Kind)} in the chat",
        NodGiven nod => $"nod, {nod.Reason}",
        ReminderTicked ticked => $"reminder seen to: {ticked.Reminder}",
        Joined joined => $"“{joined.Name}” joined",
        Left left => $"“{left.Name}” left",
        Seen seen => $"“{seen.Name}” seen in a roll call",
        Attended attended => $"“{attended.Name}” there for {Words.Minutes(attended.Length)}",
        NameMatched { Student: null } matched => $"“{matched.Name}” is not a student",
        NameMatched matched => $"“{matched.Name}” matched",
        _ => throw new ArgumentOutOfRangeException(nameof(act), act, "an act without words"),
    };
}
