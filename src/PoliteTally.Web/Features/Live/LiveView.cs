using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Feed;

namespace PoliteTally.Web.Features.Live;

/// <summary>What the live screen shows, all that does not change by time alone.</summary>
/// <param name="Head">The lesson, the hand line, the turn and the last entries.</param>
/// <param name="Rows">A row a student, in the order of the sheet.</param>
public sealed record LiveView(LiveHead Head, IReadOnlyList<LiveRow> Rows)
{
    private const int DoorShown = 60;

    /// <param name="open">The lesson.</param>
    /// <param name="state">What its entries amount to.</param>
    /// <param name="position">The position they were read at.</param>
    /// <param name="feed">How its feed is doing.</param>
    /// <param name="tries">What was tried at its student page of late, if that is out of the ordinary.</param>
    /// <param name="now">The time.</param>
    /// <param name="unchanged">Rows that are known to be as they were, by student.</param>
    internal static LiveView Of(
        OpenLesson open, LessonState state, long position, FeedNow? feed, DoorTries tries, Instant now, IReadOnlyDictionary<Guid, LiveRow>? unchanged = null)
    {
        var names = open.ShortNames;
        var lesson = open.Lesson;
        var turns = state.HandLine.Turns.ToLookup(t => t.Student);
        var online = state.Names.All.Values.Where(n => n.Online is not null && state.Names.StudentOf(n) is not null)
            .ToLookup(n => state.Names.StudentOf(n)!.Value, n => n.Online!.Value);
        var struck = StruckStrokes(state);
        IReadOnlyList<LiveRow> rows =
        [
            .. open.Roster.Select(s => unchanged?.GetValueOrDefault(s.Name.Id) ?? LiveRow.Of(
                s, names[s.Name.Id], state, open, [.. turns[s.Name.Id]], online[s.Name.Id], struck.GetValueOrDefault(s.Name.Id))),
        ];
        return new LiveView(
            new LiveHead(
                lesson.Id, lesson.ClassId, open.ClassName, lesson.Number, lesson.Title, lesson.Stage, lesson.DropIn,
                lesson.PlannedStart, lesson.PlannedEnd, lesson.ActualStart, lesson.ActualEnd, state.Course.EndedBy,
                open.Times.CountedFrom, open.Times.CountedTo, (int)open.Rules.Scheme.Attendance.LateAfter.TotalSeconds, IsMissingKnown(open, state), now, position, LineOf(state, names, rows.Where(r => LiveRow.IsGone(r.Whereabouts, r.ShownUntil, r.SentOutSince)).Select(r => r.Id).ToHashSet().Contains), TurnOf(state, names), LastEntries.Of(state, names),
                lesson.MeetingLink, open.Rules.NodReasons,
                open.Rules.NodsOnBoard, RemindersOf(open.Rules.BeforeStart, open, state), RemindersOf(open.Rules.BeforeEnd, open, state),
                PlanOf(open, state), [.. state.Timers.Select(t => new TimerNow(t.Task, t.From, t.To, t.Group))],
                state.Groups.Now,
                [.. state.Board.Items.Select(b => new BoardUp(b.Key, b.Value.Text, b.Value.Since))],
                [.. state.Signals.Rounds.Select(r => new RoundHeld(r.Statement, r.Answered, r.Silent, r.At)).TakeLast(5)],
                [.. DoorOf(open, state)], state.Chat.Messages.Count(m => m.IsToSweep), state.Chat.Messages.Count(m => m.IsOpenQuestion), feed,
                [.. state.Questions.All.Select(a => AskingLine.Of(a, open))],
                [.. state.Signals.InRound.Select(s => new SignalSeen(s.Key, s.Value))],
                CallersOf(open, state), tries),
            rows);
    }

    // By a roll call, or because most of the class is seen in the meeting or on the page; not by marks, which a class is looked through with.
    private static bool IsMissingKnown(OpenLesson open, LessonState state) =>
        state.Evidence.RollCalls.Count > 0
        || state.Names.All.Values.Where(n => n.Sightings.Any(s => s is JoinAt)).Select(state.Names.StudentOf).OfType<Guid>()
            .Union(open.Roster.Select(s => s.Name.Id).Where(s => state.Page.OpenBy(s) is not null)).Count() * 2 > open.Roster.Count;

    /// <summary>The hands in line. One of a name that belongs to nobody yet carries the name.</summary>
    internal static IReadOnlyList<HandWaiting> LineOf(LessonState state, IReadOnlyDictionary<Guid, string> names, Predicate<Guid> isGone)
    {
        var strangers = state.Names.All.Values.Where(n => n.Match is null).ToDictionary(n => n.StandsFor, n => n.Name);
        return
        [
            .. state.HandLine.Hands.Where(h => h.InLine && (names.ContainsKey(h.Student) || strangers.ContainsKey(h.Student)))
                .Select(h => new HandWaiting(
                    h.Student, h.RaisedAt, h.Entry, h.Stage == HandStage.Lapsed, h.Ready, names.ContainsKey(h.Student) ? null : strangers[h.Student],
                    names.ContainsKey(h.Student) && isGone(h.Student))),
        ];
    }

    internal static TurnNow? TurnOf(LessonState state, IReadOnlyDictionary<Guid, string> names) =>
        state.HandLine.Current is { } turn && names.ContainsKey(turn.Student)
            ? new TurnNow(turn.Student, turn.Entries[0], turn.Origin, turn.At, turn.Waited?.TotalSeconds, turn.Why)
            : null;

    private static PlanNow PlanOf(OpenLesson open, LessonState state) => new(
        open.Lesson.PlanVersion, [.. open.Plan.Stages.Select(s => new StageLine(s.Id, s.Name, (int)s.Length.TotalMinutes, s.Directions.Length > 0))],
        StageClock.Now(open.Plan, open.Lesson.ActualStart, state.Course.StageMoves, state.Course.Extended) is { } stage
            ? new StageOn(stage.Index, stage.From, stage.To, stage.PlannedTo, (int)stage.Extended.TotalMinutes)
            : null,
        open.Plan.Points, open.Plan.Statements, open.Rules.Signals, open.Rules.Rubric.Length > 0, open.Rules.Scheme.Criteria, open.Rules.ExtraTimeShare);

    /// <summary>Names that belong to nobody yet, those asked later last.</summary>
    private static IEnumerable<AtTheDoor> DoorOf(OpenLesson open, LessonState state) => state.Names.All.Values.Where(n => n.Match is null)
        .OrderBy(n => n.Later is not null).ThenBy(n => n.Sightings.Count == 0 ? Instant.MaxValue : n.Sightings.Min(s => s.At))
        .Take(DoorShown)
        .Select(n => (Name: n, Match: open.MatchOf(ShownName.Of(n.Name, n.Beside))))
        // Who is only to be seen online, somewhere, and is like nobody of the class has not knocked.
        .Where(d => d.Name.Sightings.Count > 0 || d.Name.Online is null || d.Match.Certainty != Certainty.Unknown)
        .Select(d =>
        {
            var (n, match) = d;
            var connections = n.Sightings.OfType<JoinAt>().Count() - n.Sightings.OfType<LeaveAt>().Count();
            return new AtTheDoor(
                n.Name, state.Names.TellingApart(n.Name, n.Beside), n.Sightings.Count == 0 ? null : n.Sightings.Min(s => s.At), connections > 0, match.Certainty == Certainty.Unknown ? [] : match.Proposals,
                match is { By: MatchedBy.SomebodyOf, Proposals: [var whose, ..] } ? whose : null, n.Later);
        });

    private static IReadOnlyList<PageCaller> CallersOf(OpenLesson open, LessonState state)
    {
        var callers = state.Page.Visitors.Values.Where(v => v.Word is null).ToList();
        var matches = open.MatchesOf([.. callers.Select(c => new ShownName(c.Name))]);
        // Two who say that they are the same student are both to be looked at, and so is one who comes when that student is in.
        var taken = matches.Select(m => m.Student).Concat(state.Page.Visitors.Values.Select(v => v.Student)).OfType<Guid>().CountBy(s => s).ToDictionary();
        return
        [
            .. callers.Zip(matches, (c, match) => new PageCaller(
                c.Session, c.Name, c.At, match is { Certainty: Certainty.Sure, Student: { } sure } && taken[sure] == 1 ? sure : null, match.Proposals)),
        ];
    }

    private static Dictionary<Guid, List<Entry>> StruckStrokes(LessonState state)
    {
        var struck = new Dictionary<Guid, List<Entry>>();
        foreach (var entry in state.Struck.Where(e => e.Act is TurnTaken or ChatSaid or NodGiven or SatIn))
        {
            var student = state.Whose(((StudentAct)entry.Act).Student);
            (struck.TryGetValue(student, out var list) ? list : struck[student] = []).Add(entry);
        }

        return struck;
    }

    private static IReadOnlyList<Reminder> RemindersOf(IReadOnlyList<string> reminders, OpenLesson open, LessonState state) =>
        [.. reminders.Select(r => new Reminder(r, open.Rules.ReadAloud.GetValueOrDefault(r), state.Course.RemindersTicked.GetValueOrDefault(r)?.Entry))];
}

/// <summary>The lesson, the hand line, the turn, what is prepared and what waits, and the last entries.</summary>
/// <param name="LateAfterSeconds">After how long coming is late.</param>
/// <param name="MissingIsKnown">Whether it is known who is missing: by a roll call, or because most of the class is in the meeting or on the page.</param>
/// <param name="EndedBy">The entry that ended it: striking it out resumes the lesson.</param>
/// <param name="Door">Names in the meeting that belong to nobody yet.</param>
/// <param name="ChatWaiting">Messages that no sweep has looked at.</param>
/// <param name="OpenQuestions">Questions in the chat that nobody has answered.</param>
/// <param name="Askings">Questions that were opened, in order.</param>
/// <param name="Signals">Signals from student pages for the statement that is up.</param>
/// <param name="Callers">Who came to the student page with a name and waits to be let in.</param>
/// <param name="Tries">What was tried at the student page of late.</param>
public sealed record LiveHead(
    Guid LessonId, Guid ClassId, string ClassName, int Number, string Title, LessonStage Stage, bool DropIn,
    Instant PlannedStart, Instant PlannedEnd, Instant? StartedAt, Instant? EndedAt, Guid? EndedBy, Instant CountedFrom, Instant CountedTo,
    int LateAfterSeconds, bool MissingIsKnown, Instant Now, long Position, IReadOnlyList<HandWaiting> Hands, TurnNow? Turn, IReadOnlyList<LastEntry> LastEntries, string? MeetingLink,
    IReadOnlyList<string> NodReasons, NodsOnBoard NodsOnBoard, IReadOnlyList<Reminder> BeforeStart, IReadOnlyList<Reminder> BeforeEnd,
    PlanNow Plan, IReadOnlyList<TimerNow> Timers, IReadOnlyList<StudentGroup> Groups, IReadOnlyList<BoardUp> Board, IReadOnlyList<RoundHeld> Rounds,
    IReadOnlyList<AtTheDoor> Door, int ChatWaiting, int OpenQuestions, FeedNow? Feed, IReadOnlyList<AskingLine> Askings,
    IReadOnlyList<SignalSeen> Signals, IReadOnlyList<PageCaller> Callers, DoorTries Tries);

/// <summary>What was tried at the student page in the last ten minutes that the teacher should know of.</summary>
/// <param name="Wrong">Wrong passes; 0 while they are few.</param>
/// <param name="TooManyKnocks">Whether more came with a name than are taken in a while.</param>
public sealed record DoorTries(int Wrong, bool TooManyKnocks)
{
    /// <summary>Nothing out of the ordinary.</summary>
    public static readonly DoorTries None = new(0, false);
}

/// <summary>A question that was opened, in a line.</summary>
/// <param name="Question">The id of the question in the plan, or of one made on the spot.</param>
/// <param name="Answered">How many answered.</param>
/// <param name="GoesTo">How many students it goes to.</param>
public sealed record AskingLine(
    Guid Asking, Guid Question, string Text, QuestionKind Kind, QuestionPurpose Purpose, bool Anonymous, Guid? Group, Instant OpenedAt, Instant? ClosedAt,
    int? Seconds, int Answered, int Cannot, int GoesTo)
{
    internal static AskingLine Of(Asking asking, OpenLesson open)
    {
        var question = asking.Question;
        var goesTo = asking.Group is null ? open.Roster.Count : open.Roster.Count(s => asking.GoesTo(s.Name.Id, open.State.Groups));
        return new AskingLine(
            asking.Id, question.Id, question.Text, question.Kind, question.Purpose, question.Anonymous, asking.Group, asking.OpenedAt, asking.ClosedAt,
            (int?)question.TimeLimit?.TotalSeconds, open.AnsweredIn(asking), asking.Cannot.Count, goesTo);
    }
}

/// <summary>A signal from a student page.</summary>
public sealed record SignalSeen(Guid Student, string Signal);

/// <summary>Somebody who came to the student page with a name.</summary>
/// <param name="Sure">Who it is, if the name leaves no doubt; the teacher lets them in all the same.</param>
/// <param name="Proposals">Whose name it could be, best first.</param>
public sealed record PageCaller(Guid Session, string Name, Instant At, Guid? Sure, IReadOnlyList<Guid> Proposals);

/// <summary>A reminder, and the entry that says it was seen to; null while it was not.</summary>
/// <param name="ReadAloud">What is read to the class with it; null if nothing is.</param>
public sealed record Reminder(string Text, string? ReadAloud, Guid? Ticked);

/// <summary>A hand in the line.</summary>
/// <param name="Student">Whose; for a name that belongs to nobody yet an id that stands for the name.</param>
/// <param name="RaisedAt">Since when.</param>
/// <param name="Entry">The entry that raised it.</param>
/// <param name="Lapsed">Lowered by the other program by itself.</param>
/// <param name="Ready">Wrote that they are ready.</param>
/// <param name="Stranger">The name, if it belongs to nobody yet.</param>
/// <param name="Gone">Whether they have left: the hand stays for when they are back, and is not called.</param>
public sealed record HandWaiting(Guid Student, Instant RaisedAt, Guid Entry, bool Lapsed, bool Ready, string? Stranger, bool Gone);

/// <summary>The turn that is on.</summary>
/// <param name="Entry">The entry that called.</param>
public sealed record TurnNow(Guid Student, Guid Entry, TurnOrigin Origin, Instant At, double? WaitedSeconds, string? Why);

/// <summary>What is prepared, as far as it is of use during the lesson.</summary>
/// <param name="Version">Changes whenever the plan does.</param>
public sealed record PlanNow(
    int Version, IReadOnlyList<StageLine> Stages, StageOn? Stage, IReadOnlyList<PointToCover> Points, IReadOnlyList<PointToCover> Statements,
    IReadOnlyList<AgreedSignal> Signals, bool HasRubric, IReadOnlyList<Criterion> Criteria, decimal ExtraTimeShare);

/// <summary>A stage of the plan.</summary>
public sealed record StageLine(Guid Id, string Name, int Minutes, bool HasDirections);

/// <summary>The stage that is on: its place, from when to when, and when it was to be over by the plan.</summary>
public sealed record StageOn(int Index, Instant From, Instant To, Instant PlannedTo, int Extended);

/// <summary>The time for a task.</summary>
/// <param name="Group">The group it is for; null for the whole class.</param>
public sealed record TimerNow(string Task, Instant From, Instant To, Guid? Group);

/// <summary>What is up on the class board.</summary>
public sealed record BoardUp(BoardItem Item, string? Text, Instant Since);

/// <summary>A signal round that was held.</summary>
public sealed record RoundHeld(string Statement, int Answered, int Silent, Instant At);

/// <summary>A name in the meeting that belongs to nobody yet.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Beside">What tells it apart from others of the same name; empty if there is none.</param>
/// <param name="First">When it was first seen.</param>
/// <param name="InMeeting">Whether it is in the meeting now.</param>
/// <param name="Proposals">Whose it could be, best first.</param>
/// <param name="SomebodyOf">Of whom it is probably a parent or the like; null for anybody else.</param>
/// <param name="Later">The entry by which it is to be asked later.</param>
public sealed record AtTheDoor(string Name, string Beside, Instant? First, bool InMeeting, IReadOnlyList<Guid> Proposals, Guid? SomebodyOf, Guid? Later);

/// <summary>Whether a student is there, at this moment of the lesson.</summary>
public enum Whereabouts
{
    Missing,
    Here,
    Late,
    Left,
    Excused,
}

/// <summary>A student on the sheet.</summary>
/// <param name="ShownUntil">Until when something that they did shows that they may be here, though nothing has them there; longer while their page is open. Null if nothing shows that.</param>
/// <param name="SentOutSince">Since when they are sent out; null if they are not, or were let back in.</param>
/// <param name="Points">Points to cover that they have covered.</param>
/// <param name="Paused">The entry that says they cannot speak today.</param>
/// <param name="Rounds">Signal rounds they answered.</param>
/// <param name="Asides">Private notes about them.</param>
/// <param name="Contacts">Attempts to reach them in this lesson.</param>
/// <param name="Page">Whether their student page is open.</param>
/// <param name="Signal">What they signalled last; it is looked at for a minute.</param>
/// <param name="Judged">The levels that were marked of them by the criteria of the class.</param>
/// <param name="Online">Whether they were to be seen online last; null if nobody says.</param>
public sealed record LiveRow(
    Guid Id, string Called, string Rest, string ShortName, string Key, string Tags, Whereabouts Whereabouts,
    double? LateSeconds, Instant? Since, Instant? ShownUntil, Instant? SentOutSince, IReadOnlyList<LiveStretch> Stretches, IReadOnlyList<long> Spoke, int Dropouts,
    IReadOnlyList<Stroke> Speaking, IReadOnlyList<Stroke> Questions, IReadOnlyList<Stroke> Chat, IReadOnlyList<Stroke> Group, IReadOnlyList<Stroke> Nods,
    IReadOnlyList<Guid> Points, Guid? Paused, int Rounds, IReadOnlyList<string> Asides, int Contacts, OnlineSeen? Online, bool Page, SignalShown? Signal,
    IReadOnlyList<Guid> Judged)
{
    internal static LiveRow Of(
        OnSheet student, string shortName, LessonState state, OpenLesson open, IReadOnlyList<Turn> turns,
        IEnumerable<(OnlineStatus Status, Instant At)> online, IReadOnlyList<Entry>? struck)
    {
        var id = student.Name.Id;
        var attendance = state.AttendanceOf(id, open.Times, open.Rules.Scheme.Attendance);
        var whereabouts = WhereaboutsOf(attendance, open.Lesson.Stage);
        var heard = turns.Where(t => Scheme.CreditOf(t.Outcome) > 0).ToList();
        var seenOnline = online.OrderBy(o => o.At).Select(o => new OnlineSeen(o.Status, o.At)).LastOrDefault();
        return new LiveRow(
            id, ShortNames.CalledName(student.Name), student.Name.Family, shortName, student.Key.ToString(), student.Tags, whereabouts,
            attendance.Status == AttendanceStatus.Late ? attendance.Arrival?.TotalSeconds : null,
            whereabouts == Whereabouts.Left ? GoneSince(attendance) : null, attendance.ShownUntil, attendance.SentOutSince,
            [.. SeenOnSheet(attendance).Select(s => new LiveStretch(s.From, s.Open ? null : s.To))],
            [.. heard.Select(t => t.At.ToUnixTimeMilliseconds())],
            attendance.Dropouts,
            [.. heard.Select(t => new Stroke(t.Entries[^1], Scheme.CreditOf(t.Outcome)!.Value, false)), .. Struck<TurnTaken>(t => Scheme.CreditOf(t.Outcome))],
            [.. state.Questions.All.Where(a => a.Answers.ContainsKey(id)).Select(a => new Stroke(a.Answers[id].Entry, a.MarksOf(id) is < 1 ? 0.5m : 1, false))],
            [.. state.Chat.Of(id).Where(m => Scheme.CreditOf(m.CountsAs) > 0).Select(m => new Stroke(m.Entry, 1, false)), .. Struck<ChatSaid>(c => Scheme.CreditOf(c.Kind))],
            [.. state.Groups.SitInsOf(id).Where(s => Scheme.CreditOf(s.Seen.Contribution) > 0).Select(s => new Stroke(s.Entry.Id, Scheme.CreditOf(s.Seen.Contribution), false)),
                .. Struck<SatIn>(s => Scheme.CreditOf(s.Contribution))],
            [.. state.Notes.NodsOf(id).Select(n => new Stroke(n.Entry.Id, 1, false)), .. Struck<NodGiven>(_ => 1)],
            [.. turns.SelectMany(t => t.Points).Select(p => p.Point).Distinct()],
            state.HandLine.PausedBy(id), state.Signals.RoundsOf(id).Count(r => r.Answered), [.. state.Notes.AsidesOf(id).Select(a => a.Aside.Text)],
            state.Notes.ContactsOf(id).Count, seenOnline, state.Page.OpenBy(id) is not null,
            state.Signals.LastOf(id) is { } signal ? new SignalShown(signal.What, signal.At) : null,
            [.. state.Judged.MarksOf(id).Select(m => m.Level)]);

        IEnumerable<Stroke> Struck<T>(Func<T, decimal?> credit)
            where T : Act => (struck ?? []).Where(e => e.Act is T act && credit(act) > 0).Select(e => new Stroke(e.Id, credit((T)e.Act)!.Value, true));
    }

    /// <summary>Whether somebody has left, and nothing since shows that they are back.</summary>
    internal static bool IsGone(Guid student, OpenLesson open, LessonState state) =>
        state.AttendanceOf(student, open.Times, open.Rules.Scheme.Attendance) is var attendance
            && IsGone(WhereaboutsOf(attendance, open.Lesson.Stage), attendance.ShownUntil, attendance.SentOutSince);

    /// <inheritdoc cref="IsGone(Guid, OpenLesson, LessonState)"/>
    internal static bool IsGone(Whereabouts whereabouts, Instant? shownUntil, Instant? sentOutSince) =>
        sentOutSince is not null || (shownUntil is null && whereabouts == Whereabouts.Left);

    private static Instant? GoneSince(AttendanceResult attendance) =>
        attendance.Contested.OfType<GoneWhileConnected>().LastOrDefault()?.From ?? (attendance.Stretches is [.., var last] ? last.To : null);

    // What the teacher said last counts on the sheet, though the register asks first.
    private static IEnumerable<Stretch> SeenOnSheet(AttendanceResult attendance) =>
        attendance.Contested.OfType<GoneWhileConnected>().Aggregate(attendance.Stretches, (seen, gone) => Connections.Without(seen, gone.From, gone.To));

    /// <summary>
    /// Where somebody is by what is known of their attendance so far. When the lesson is over, where they were at its end: that all connections
    /// break off afterwards says nothing.
    /// </summary>
    internal static Whereabouts WhereaboutsOf(AttendanceResult attendance, LessonStage stage)
    {
        var running = stage is LessonStage.Live or LessonStage.Planned;
        return attendance switch
        {
            { Status: AttendanceStatus.Excused } => Whereabouts.Excused,
            { IsHere: false, Stretches.Count: > 0 } when running => Whereabouts.Left,
            { WasThere: true } when !running && attendance.Flags.HasFlag(AttendanceFlags.LeftEarly) => Whereabouts.Left,
            { Status: AttendanceStatus.Late } => Whereabouts.Late,
            { Status: AttendanceStatus.Present } => Whereabouts.Here,
            { IsHere: true } when running => Whereabouts.Here,
            _ => Whereabouts.Missing,
        };
    }
}

/// <summary>What somebody signalled last.</summary>
public sealed record SignalShown(string What, Instant At);

/// <summary>Whether somebody was to be seen online, and when that was said.</summary>
public sealed record OnlineSeen(OnlineStatus Status, Instant At);

/// <summary>A stretch of presence; <paramref name="To"/> is null while it goes on.</summary>
public sealed record LiveStretch(Instant From, Instant? To);

/// <summary>A stroke on the sheet: credit 1, or 0.5 for half a stroke.</summary>
public sealed record Stroke(Guid Entry, decimal Credit, bool Struck);

/// <summary>What changed between two positions: the head, and the rows that differ.</summary>
/// <param name="From">The position that it builds on.</param>
/// <param name="Head">The head as it is now.</param>
/// <param name="Order">Who is on the sheet now, in order; a window that lacks one of them asks for the whole sheet.</param>
/// <param name="Rows">The rows that differ.</param>
public sealed record LivePatch(long From, LiveHead Head, IReadOnlyList<Guid> Order, IReadOnlyList<LiveRow> Rows);
