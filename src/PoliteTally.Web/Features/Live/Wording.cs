using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;

namespace PoliteTally.Web.Features.Live;

/// <summary>Entries in plain words, the same in the last entries, in an explanation and in settling.</summary>
internal static class Wording
{
    private const int MostNamed = 3;

    /// <summary>An entry with the name of the student in front.</summary>
    public static string Of(Entry entry, LessonState state, IReadOnlyDictionary<Guid, string> names) =>
        NameOf(entry, state, names) is { } name ? $"{name}, {Of(entry, state)}" : Of(entry, state);

    /// <summary>What one press noted: the same of several students in one line, "Juno, Eino, hand up".</summary>
    public static string Of(IReadOnlyList<Entry> press, LessonState state, IReadOnlyDictionary<Guid, string> names)
    {
        var all = press.Select(e => (Name: NameOf(e, state, names), Words: Of(e, state))).ToList();
        return all switch
        {
            [var one] => one.Name is null ? one.Words : $"{one.Name}, {one.Words}",
            _ when all.Exists(a => a.Name is null || a.Words != all[0].Words) => string.Join("; ", all.Take(MostNamed).Select(a => a.Name is null ? a.Words : $"{a.Name}, {a.Words}"))
                + (all.Count > MostNamed ? $", and {all.Count - MostNamed} more" : ""),
            { Count: > MostNamed } => $"{all.Count} students, {all[0].Words}",
            _ => $"{string.Join(", ", all.Select(a => a.Name))}, {all[0].Words}",
        };
    }

    /// <summary>An entry as it is told of one student: in a roll call or missing from it, answering in a signal round or not.</summary>
    public static string For(Guid student, Entry entry, LessonState state) => entry.Act switch
    {
        RollCallTaken call => call.Here.Any(s => state.Whose(s) == student) ? "here, in the roll call" : "missing from the roll call",
        SignalRoundHeld round => $"{(round.Answered.Any(s => state.Whose(s) == student) ? "answered" : "no answer")} in the signal round: {round.Statement}",
        GroupsMade made when made.Groups.FirstOrDefault(g => g.Members.Any(s => state.Whose(s) == student)) is { } group => $"in {group.Name}",
        Called { By: { } by } when state.Whose(by) == student => "full turn, handed on",
        // The list stands behind scores, too, which others may see over the shoulder.
        AsideNoted => "an aside",
        AnswersMarked marked => $"answer marked, {Words.Plain(marked.Marks)}",
        _ => Of(entry, state),
    };

    private static string? NameOf(Entry entry, LessonState state, IReadOnlyDictionary<Guid, string> names)
    {
        var student = entry.Act switch
        {
            StudentAct act => act.Student,
            ChatAct { Message: var message } => state.MessageOf(message)?.Student,
            PageAdmitted admitted => admitted.Student,
            _ => null,
        };
        return student is { } who ? names.GetValueOrDefault(state.Whose(who), "A former student") : null;
    }

    /// <summary>An entry without saying whose; a message with its text, unless it was hidden, and an answer with its question.</summary>
    public static string Of(Entry entry, LessonState state) => entry.Act switch
    {
        _ when state.MessageOf(entry.Id) is { Text.Length: > 0, Hidden: null } message => $"{Of(entry.Act)}: “{message.Text}”",
        AnswerGiven { Asking: var id } when state.AskingOf(id) is { } asking => $"answered: {asking.Question.Text}",
        QuestionClosed { Asking: var id } when state.AskingOf(id) is { } asking => $"question closed: {asking.Question.Text}",
        CannotAnswer { Asking: var id } when state.AskingOf(id) is { } asking => $"cannot answer: {asking.Question.Text}",
        _ => Of(entry.Act),
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
        HandRaised { Ready: true } => "said ready",
        HandRaised => "hand up",
        HandEnded { End: HandEnd.Withdrawn } => "hand withdrawn",
        HandEnded { End: HandEnd.SetDown } => "hand set down",
        HandEnded => "hand lapsed",
        Called { Why: { } why } => $"drawn: {why}",
        Called called => called.Origin == TurnOrigin.Invited ? "called" : $"called, {Words.Of(called.Origin)}",
        TurnTaken taken => Words.Of(taken.Outcome),
        ChatSaid said => $"{Words.Of(said.Kind)} in the chat",
        NodGiven nod => $"nod, {nod.Reason}",
        ReminderTicked ticked => $"reminder seen to: {ticked.Reminder}",
        Joined joined => $"“{joined.Name}” joined",
        Left left => $"“{left.Name}” left",
        Seen seen => $"“{seen.Name}” seen in a roll call",
        Attended attended => $"“{attended.Name}” there for {Words.Minutes(attended.Length)}",
        NameMatched { Student: null } matched => $"“{matched.Name}” is not a student",
        NameMatched matched => $"“{matched.Name}” matched",
        AskedLater later => $"“{later.Name}” will be asked later",
        Renamed renamed => $"“{renamed.Name}” is now “{renamed.To}”",
        NameRaisedHand raised => raised.Ready ? $"“{raised.Name}” said ready" : $"“{raised.Name}” raised a hand",
        NameLoweredHand { End: HandEnd.Lapsed } lowered => $"the hand of “{lowered.Name}” lapsed",
        NameLoweredHand lowered => $"“{lowered.Name}” took the hand down",
        NameWrote wrote => $"“{wrote.Name}” wrote in the chat",
        NameReacted reacted => $"“{reacted.Name}” reacted: {reacted.Reaction}",
        NameOnline online => $"“{online.Name}” {Of(online.Status)}",
        RollCallTaken call => $"roll call, {call.Here.Count} here",
        PointCovered => "covered a point",
        SpeakingPaused { Paused: true } => "cannot speak today",
        SpeakingPaused => "can speak again",
        SignalRoundHeld round => $"signal round, {round.Answered.Count} of {round.Answered.Count + round.Silent.Count}: {round.Statement}",
        ChatSorted sorted => $"a message sorted: {Words.Of(sorted.Kind)}",
        ChatHidden => "a message hidden",
        ChatDealtWith => "a question in the chat answered",
        AsideNoted aside => $"aside: {aside.Text}",
        ContactTried contact => $"{Of(contact.Channel)}, {Of(contact.Outcome)}{(contact.Note.Length > 0 ? $": {contact.Note}" : "")}",
        StageMoved => "next stage",
        StageExtended extended => $"stage {(extended.Minutes < 0 ? "shortened" : "extended")} by {Math.Abs(extended.Minutes)} min",
        TimerStarted timer => $"timer{(timer.Group is null ? "" : " of a group")}, {timer.Seconds / 60}:{timer.Seconds % 60:00}{(timer.Task.Length > 0 ? $", {timer.Task}" : "")}",
        TimerStopped stopped => stopped.Group is null ? "timer ended" : "timer of a group ended",
        GroupsMade made => Words.Count(made.Groups.Count, "group") + " made",
        GroupJoined { Group: null } => "taken out of the groups",
        GroupJoined => "to another group",
        GroupRenamed renamed => $"group renamed: {renamed.Name}",
        GroupsDissolved => "groups dissolved",
        SatIn seen => $"in a group: {Of(seen.Contribution)}",
        QuestionOpened opened => $"question opened: {opened.Question.Text}",
        QuestionClosed => "question closed",
        AnswerGiven => "answered",
        CannotAnswer => "cannot answer a question",
        BallotsCounted counted => $"{Words.Count(counted.Cast, "answer")} without names counted",
        AnswersMarked marked => $"{Words.Count(marked.Students.Count, "answer")} marked, {Words.Plain(marked.Marks)}",
        KeyCorrected => "key of a question corrected",
        WordsMerged merged => $"“{merged.Word}” counts as “{merged.Into}”",
        RightRevealed => "what was right shown on student pages",
        ResultsPut => "results on the board",
        SignalGiven signal => $"signal: {signal.Signal}",
        StudentWrote wrote => $"{Words.Of(wrote.Kind)} on the student page",
        MessageShown shown => shown.WithoutName ? "a message shown to the class without a name" : "a message shown to the class",
        PageOpened => "student page opened",
        PageClosed => "student page closed",
        PageKnocked knocked => $"“{knocked.Name}” at the student page",
        PageAdmitted { Student: null } => "turned away from the student page",
        PageAdmitted => "let in to the student page",
        BoardPut put => $"on the board: {Of(put.Item)}",
        BoardTaken taken => $"off the board: {Of(taken.Item)}",
        _ => throw new ArgumentOutOfRangeException(nameof(act), act, "an act without words"),
    };

    /// <summary>An item of the class board.</summary>
    public static string Of(BoardItem item) => item switch
    {
        BoardItem.HandLine => "hand line",
        BoardItem.WayIn => "way in",
        _ => item.ToString().ToLowerInvariant(),
    };

    /// <summary>What a member did in a group.</summary>
    public static string Of(Contribution contribution) => contribution switch
    {
        Contribution.Contributed => "contributed",
        Contribution.Some => "some",
        _ => "did not contribute",
    };

    private static string Of(ContactChannel channel) => channel switch
    {
        ContactChannel.Email => "e-mail",
        ContactChannel.Phone => "call",
        ContactChannel.Message => "message",
        _ => "through somebody",
    };

    private static string Of(ContactOutcome outcome) => outcome switch
    {
        ContactOutcome.Sent => "sent",
        ContactOutcome.Reached => "reached",
        ContactOutcome.NoAnswer => "no answer",
        _ => "could not go",
    };

    private static string Of(OnlineStatus status) => status switch
    {
        OnlineStatus.Online => "was online",
        OnlineStatus.Away => "was online, away",
        _ => "was not online",
    };
}
