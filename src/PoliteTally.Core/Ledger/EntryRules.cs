using System.Globalization;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Ledger;

/// <summary>What has to be known of a lesson to check an entry for it.</summary>
/// <param name="Times">Planned and actual times.</param>
/// <param name="Roster">The ids of the students of its class.</param>
/// <param name="Settled">Whether it is settled.</param>
/// <param name="ActOf">The act of an entry stored so far; null if there is no such entry.</param>
/// <param name="State">What those entries amount to; answers may be missing that came a moment before.</param>
/// <param name="Cancelled">Whether it was cancelled.</param>
/// <param name="SignalsAnyTime">Whether students may signal outside of signal rounds.</param>
/// <param name="StudentsHandOn">Whether a student whose turn it is may hand on to another.</param>
public sealed record LessonFacts(
    LessonTimes Times,
    IReadOnlySet<Guid> Roster,
    bool Settled,
    Func<Guid, Act?> ActOf,
    Func<LessonState> State,
    bool Cancelled = false,
    bool SignalsAnyTime = false,
    bool StudentsHandOn = false);

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

    /// <summary>The longest message from a student page, in UTF-16 code units: 500.</summary>
    public const int LongestFromPage = 500;

    /// <summary>The most questions open at once: 12.</summary>
    public const int MostOpen = 12;

    /// <summary>How long after a deadline an answer is still taken, for the way it had to come. 2 s.</summary>
    public static readonly Duration DeadlineSlack = Duration.FromSeconds(2);

    private const int MostExtension = 120;
    private const string NotAsked = "This question was not asked in this lesson.";
    private const string NoSuchGroup = "There is no such group now.";
    private const string NotOnRoster = "This student is not on the roster of this class.";

    /// <summary>Why a lesson does not take an entry; null if it does.</summary>
    public static string? WhyRefused(Entry entry, LessonFacts lesson, Instant now)
    {
        if (lesson.Settled && !(entry.Act is Struck strike && strike.Entries.All(e => lesson.ActOf(e) is LessonSettled)))
        {
            return "This lesson is settled. Open it again first; then it takes entries.";
        }

        return WrongTime(entry, lesson.Times, now) ?? entry.Act switch
        {
            StudentAct act when !lesson.Roster.Contains(act.Student) => NotOnRoster,
            Struck { Others.Count: >= Struck.Most } => $"At most {Struck.Most} entries are struck out at once.",
            Struck struck when struck.Entries.Any(e => lesson.ActOf(e) is null) =>
                "The entry to strike out is not in this lesson.",
            Struck struck when struck.Entries.All(lesson.State().IsStruck) =>
                "This entry is struck out already.",
            Struck struck when struck.Entries.Any(e => IsCountOfBallots(e, lesson)) =>
                "An anonymous question that was closed cannot be opened again: its answers were counted. Ask it again as a copy.",
            LessonStarted when lesson.Cancelled => "This lesson is cancelled. Put it back on the calendar first.",
            LessonStarted when lesson.Times.ActualStart is not null => "This lesson has begun already.",
            LessonEnded when lesson.Times.ActualStart is null => "This lesson has not begun, so it cannot end.",
            LessonEnded when lesson.Times.ActualEnd is not null => "This lesson has ended already.",
            LessonSettled when lesson.Times.ActualEnd is null => "End the lesson before settling it.",
            NameMatched { Student: { } student } when !lesson.Roster.Contains(student) => NotOnRoster,
            ChatSaid { Text.Length: > LongestText } => TooLong("message", LongestText),
            NodGiven { Reason: var reason } when CleanText.IsBlank(reason) => "A nod needs a reason.",
            NodGiven { Reason.Length: > LongestName } => TooLong("reason", LongestName),
            ExcuseRecorded { Reason.Length: > LongestName } => TooLong("reason", LongestName),
            ReminderTicked { Reminder.Length: > LongestName } => TooLong("reminder", LongestName),
            ChatAct { Message: var message } when lesson.ActOf(message) is not (ChatSaid or NameWrote or StudentWrote) => "This message is not in this lesson.",
            MessageShown { Message: var message } when lesson.ActOf(message) is not StudentWrote => "Only messages from student pages are shown to the class here.",
            StudentWrote { Kind: not (ChatKind.Question or ChatKind.Answer or ChatKind.Idea) } => "Say whether it is a question, an answer or an idea.",
            StudentWrote { Text: var text } when CleanText.IsBlank(text) => "Write something first.",
            StudentWrote { Text.Length: > LongestFromPage } => TooLong("message", LongestFromPage),
            SignalGiven { Signal.Length: > LongestName } => TooLong("signal", LongestName),
            SignalGiven when !lesson.SignalsAnyTime && !lesson.State().Board.ContainsKey(BoardItem.Statement) => "No signal round is on.",
            PageKnocked { Name: var name } when CleanText.IsBlank(name) => "Write your name.",
            PageKnocked { Name.Length: > LongestName } => TooLong("name", LongestName),
            PageAdmitted { Student: { } student } when !lesson.Roster.Contains(student) => NotOnRoster,
            PageAdmitted { Session: var session } when !lesson.State().PageVisitors.ContainsKey(session) => "Nobody of this kind came to this lesson.",
            QuestionOpened opened => WrongOpening(opened, lesson),
            QuestionClosed { Asking: var asking } => lesson.State().AskingOf(asking) switch
            {
                null => NotAsked,
                { IsOpen: false } => "This question is closed already.",
                _ => null,
            },
            AnswerGiven given => WrongAnswer(given, entry, lesson),
            CannotAnswer cannot => lesson.State().AskingOf(cannot.Asking) is { } asked ? OutOfTime(asked, cannot.Student, entry, lesson) : NotAsked,
            AnswersMarked { Marks: < 0 or > 1 } => "Marks are from 0 to 1.",
            AnswersMarked marked when lesson.State().AskingOf(marked.Asking) is not { Question: { Kind: QuestionKind.ShortText, Purpose: QuestionPurpose.Quiz } } =>
                "Only short texts of a quiz are marked by hand.",
            AnswersMarked marked when !marked.Students.All(lesson.Roster.Contains) => NotOnRoster,
            KeyCorrected key => WrongKey(key, lesson),
            WordsMerged merged when lesson.State().AskingOf(merged.Asking) is not { Question.Kind: QuestionKind.WordList } => "Only words of a word list are merged.",
            WordsMerged { Word.Length: > LongestName } or WordsMerged { Into.Length: > LongestName } => TooLong("word", LongestName),
            RightRevealed { Asking: var asking } => lesson.State().AskingOf(asking) switch
            {
                null => NotAsked,
                { IsOpen: true } => "Close the question first; then what was right can be shown.",
                _ => null,
            },
            ResultsPut put => WrongResults(put, lesson),
            AsideNoted { Text: var text } when CleanText.IsBlank(text) => "An aside needs words.",
            AsideNoted { Text.Length: > LongestText } => TooLong("aside", LongestText),
            ContactTried { Note.Length: > LongestName } => TooLong("note", LongestName),
            RollCallTaken call when !call.Here.All(lesson.Roster.Contains) => NotOnRoster,
            SignalRoundHeld round => WrongRound(round, lesson),
            StageExtended { Minutes: < -MostExtension or > MostExtension } =>
                $"A stage can be given up to {MostExtension} min more or less at once.",
            TimerStarted { Seconds: < 5 or > 3 * 3600 } => "The time for a task is from 5 s to 3 h.",
            TimerStarted { Task.Length: > LongestName } => TooLong("task", LongestName),
            TimerStarted { Group: { } group } when lesson.State().Groups.All(g => g.Id != group) => NoSuchGroup,
            GroupsMade made => WrongGroups(made, lesson),
            GroupRenamed { Name: var name } when CleanText.IsBlank(name) => "A group needs a name.",
            GroupRenamed { Name.Length: > LongestName } => TooLong("name", LongestName),
            BoardPut { Text.Length: > LongestText } => TooLong("text", LongestText),
            Called { Why.Length: > LongestName } => TooLong("reason", LongestName),
            Called { By: { } by } called => WrongHandingOn(by, called, entry.Source, lesson),
            NameWrote { Text: var text } when CleanText.IsBlank(text) => "The message is empty.",
            NameWrote { Text.Length: > LongestText } => TooLong("message", LongestText),
            NameReacted { Reaction.Length: > LongestName } => TooLong("reaction", LongestName),
            Renamed { To: var to } when CleanText.IsBlank(to) => "The new name is empty.",
            Renamed { To.Length: > LongestName } => TooLong("new name", LongestName),
            Renamed { Device.Length: > LongestName } => TooLong("device", LongestName),
            NameAct { Name: var name } when CleanText.IsBlank(name) => "The name is empty.",
            NameAct { Name.Length: > LongestName } => TooLong("name", LongestName),
            Joined { Device.Length: > LongestName } or Left { Device.Length: > LongestName } => TooLong("device", LongestName),
            _ => null,
        } ?? Unshowable(entry.Act);
    }

    private static string? WrongHandingOn(Guid by, Called called, Source source, LessonFacts lesson)
    {
        if (!lesson.Roster.Contains(by))
        {
            return NotOnRoster;
        }

        if (called.Origin != TurnOrigin.HandedOn || by == called.Student)
        {
            return "Somebody hands on to somebody else.";
        }

        return source != Source.Page ? null
            : !lesson.StudentsHandOn ? "In this class only the teacher gives the word."
            : lesson.State().CurrentTurn?.Student != by ? "It is not your turn any more."
            : null;
    }

    private static string? WrongOpening(QuestionOpened opened, LessonFacts lesson)
    {
        var (question, state) = (opened.Question, lesson.State());
        return lesson.Times switch
        {
            { ActualStart: null } => "Begin the lesson first; then questions can be opened.",
            { ActualEnd: not null } => "This lesson has ended: no question can be opened in it any more.",
            _ when QuestionRules.Problems(question).FirstOrDefault() is { } problem => problem,
            _ when QuestionRules.Missing(question).FirstOrDefault() is { } lack => $"This question cannot be opened: {lack}.",
            _ when QuestionRules.Placeholders(question) is [var blank, ..] => $"Fill in {{{blank}}} first.",
            _ when opened.Group is { } group && state.Groups.All(g => g.Id != group) => NoSuchGroup,
            _ when opened.LongerSeconds is < 0 or > 3600 || !opened.LongerFor.All(lesson.Roster.Contains) => "The extra time does not fit this class.",
            _ when opened.CopyOf is { } earlier && state.AskingOf(earlier) is null => NotAsked,
            _ when state.Askings.Any(a => a.Question.Id == question.Id && a.Group == opened.Group) => "This question was asked already. Ask it again as a copy.",
            _ when state.Askings.Count(a => a.IsOpen) >= MostOpen => $"At most {MostOpen} questions can be open at once. Close one first.",
            _ => null,
        };
    }

    private static string? WrongAnswer(AnswerGiven given, Entry entry, LessonFacts lesson) => lesson.State().AskingOf(given.Asking) switch
    {
        null => NotAsked,
        { Question.Anonymous: true } => "Answers to this question carry no name, so none is entered under one.",
        var asking => OutOfTime(asking, given.Student, entry, lesson) ?? AnswerRules.WhyRefused(asking.Question, given.Answer),
    };

    /// <summary>Why a student cannot answer a question now; null if they can. The teacher can at any time.</summary>
    public static string? OutOfTime(Asking asking, Guid student, Instant at) => asking switch
    {
        { IsOpen: false } => "This question is closed. Your answer came too late to count.",
        _ when !asking.GoesTo(student) => "This question goes to another group.",
        _ when asking.DeadlineOf(student) is { } deadline && at > deadline + DeadlineSlack => "Your time for this question is up.",
        _ => null,
    };

    private static string? OutOfTime(Asking asking, Guid student, Entry entry, LessonFacts lesson) =>
        entry.Source == Source.Tapped ? null : OutOfTime(asking, lesson.State().Whose(student), entry.HappenedAt);

    private static string? WrongKey(KeyCorrected key, LessonFacts lesson)
    {
        if (lesson.State().AskingOf(key.Asking) is not { Question: { Purpose: QuestionPurpose.Quiz } question })
        {
            return "Only a quiz has a key.";
        }

        var known = question.Options.Select(o => o.Id).ToHashSet();
        if (!key.Right.All(known.Contains) || (question.Kind == QuestionKind.Ranking && key.Right.Distinct().Count() < known.Count))
        {
            return "The key names what is not among the choices, or lacks one.";
        }

        var corrected = key.In(question);
        return QuestionRules.Problems(corrected).FirstOrDefault()
            ?? (QuestionRules.Missing(corrected).FirstOrDefault() is { } lack ? $"This cannot be the key: {lack}." : null);
    }

    private static string? WrongResults(ResultsPut put, LessonFacts lesson) => lesson.State().AskingOf(put.Asking) switch
    {
        null => NotAsked,
        { Question.Anonymous: true } when put.Named.Count > 0 => "Answers to an anonymous question have no names.",
        { Question.Anonymous: true, IsOpen: true } => "Close the anonymous question first: until then nobody sees its answers.",
        _ when !put.Named.All(lesson.Roster.Contains) => NotOnRoster,
        _ => null,
    };

    private static bool IsCountOfBallots(Guid entry, LessonFacts lesson) => lesson.ActOf(entry) switch
    {
        BallotsCounted => true,
        QuestionClosed closed => lesson.State().AskingOf(closed.Asking) is { Question.Anonymous: true },
        _ => false,
    };

    private static string? WrongRound(SignalRoundHeld round, LessonFacts lesson) => round switch
    {
        { Statement.Length: > LongestText } => TooLong("statement", LongestText),
        _ when !round.Answered.Concat(round.Silent).All(lesson.Roster.Contains) => NotOnRoster,
        { LedBy: { } led } when !lesson.Roster.Contains(led) => NotOnRoster,
        _ => null,
    };

    private static string? WrongGroups(GroupsMade made, LessonFacts lesson)
    {
        var members = made.Groups.SelectMany(g => g.Members).ToList();
        return made.Groups switch
        {
            { Count: 0 or > StudentGroup.Most } => $"A class is split into 1 to {StudentGroup.Most} groups.",
            _ when made.Groups.Any(g => CleanText.IsBlank(g.Name)) => "A group needs a name.",
            _ when made.Groups.Any(g => g.Name.Length > LongestName) => TooLong("name", LongestName),
            _ when made.Groups.DistinctBy(g => g.Id).Count() < made.Groups.Count => "Two groups have the same id.",
            _ when !members.All(lesson.Roster.Contains) => NotOnRoster,
            _ when members.Distinct().Count() < members.Count => "A student is in one group at a time.",
            _ => null,
        };
    }

    /// <summary>
    /// Control characters, and those that turn the direction of writing for what stands behind them, would make other lines say
    /// something else. A feed takes them out (<see cref="CleanText"/>); what is typed has none.
    /// </summary>
    private static string? Unshowable(Act act)
    {
        var text = act switch
        {
            NameAct { Name: var name } => act is NameWrote wrote ? $"{name}{wrote.Text}" : act is Renamed to ? $"{name}{to.To}" : name,
            ChatSaid said => said.Text,
            AsideNoted aside => aside.Text,
            NodGiven nod => nod.Reason,
            ExcuseRecorded excuse => excuse.Reason,
            ContactTried contact => contact.Note,
            SignalRoundHeld round => round.Statement,
            TimerStarted timer => timer.Task,
            BoardPut put => put.Text,
            GroupRenamed renamed => renamed.Name,
            StudentWrote wrote => wrote.Text,
            PageKnocked knocked => knocked.Name,
            QuestionOpened { Question: var question } => string.Concat(question.Options.Select(o => o.Text).Prepend(question.Text)),
            GroupsMade made => string.Concat(made.Groups.Select(g => g.Name)),
            _ => null,
        };
        return text is null || CleanText.IsClean(text) ? null : "The text holds characters that cannot be shown. Type it anew.";
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
