using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Names;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Live;

/// <summary>What the live screen shows, all that does not change by time alone.</summary>
/// <param name="Head">The lesson, the hand line, the turn and the last entries.</param>
/// <param name="Rows">A row a student, in the order of the sheet.</param>
public sealed record LiveView(LiveHead Head, IReadOnlyList<LiveRow> Rows)
{
    private const int LastEntriesShown = 40;

    internal static LiveView Of(Room room, LessonState state, long position, Instant now)
    {
        var names = ShortNames.For([.. room.Roster.Select(s => s.Name)]);
        var lesson = room.Lesson;
        var byStudent = state.Entries.Where(e => e.Act is StudentAct).ToLookup(e => state.Whose(((StudentAct)e.Act).Student));
        var hands = state.Hands.Where(h => h.InLine && names.ContainsKey(h.Student))
            .Select(h => new HandInLine(h.Student, h.RaisedAt, h.Stage == HandStage.Lapsed)).ToList();
        var turn = state.CurrentTurn is { } current && names.ContainsKey(current.Student)
            ? new TurnNow(current.Student, current.Origin, current.At, current.Waited?.TotalSeconds)
            : null;
        // Struck-out entries do not use up the list, so that undo never runs out while there is something to undo.
        var standing = 0;
        var recent = state.Entries.Where(e => e.Source == Source.Tapped && e.Act is not Struck).Reverse()
            .TakeWhile(e => state.IsStruck(e.Id) || standing++ < LastEntriesShown)
            .Select(e => new LastEntry(e.Id, e.HappenedAt, Wording.Of(e.Act, names), state.IsStruck(e.Id), e.Act is StudentAct or ReminderTicked)).ToList();
        return new LiveView(
            new LiveHead(
                lesson.Id, lesson.ClassId, room.ClassName, lesson.Number, lesson.Title, lesson.Stage, lesson.DropIn,
                lesson.PlannedStart, lesson.PlannedEnd, lesson.ActualStart, lesson.ActualEnd,
                room.Times.CountedFrom, room.Times.CountedTo, now, position, hands, turn, recent, lesson.MeetingLink, room.Rules.NodReasons,
                RemindersOf(room.Rules.BeforeStart, state), RemindersOf(room.Rules.BeforeEnd, state)),
            [.. room.Roster.Select(s => LiveRow.Of(s, names[s.Name.Id], state, room, byStudent[s.Name.Id]))]);
    }

    private static IReadOnlyList<Reminder> RemindersOf(IReadOnlyList<string> reminders, LessonState state) =>
        [.. reminders.Select(r => new Reminder(r, state.RemindersTicked.TryGetValue(r, out var entry) ? entry : null))];
}

/// <summary>The lesson, the hand line, the turn and the last entries.</summary>
public sealed record LiveHead(
    Guid LessonId, Guid ClassId, string ClassName, int Number, string Title, LessonStage Stage, bool DropIn,
    Instant PlannedStart, Instant PlannedEnd, Instant? StartedAt, Instant? EndedAt, Instant CountedFrom, Instant CountedTo,
    Instant Now, long Position, IReadOnlyList<HandInLine> Hands, TurnNow? Turn, IReadOnlyList<LastEntry> LastEntries, string? MeetingLink,
    IReadOnlyList<string> NodReasons, IReadOnlyList<Reminder> BeforeStart, IReadOnlyList<Reminder> BeforeEnd);

/// <summary>A reminder, and the entry that says it was seen to; null while it was not.</summary>
public sealed record Reminder(string Text, Guid? Ticked);

/// <summary>A hand in the line.</summary>
public sealed record HandInLine(Guid Student, Instant RaisedAt, bool Lapsed);

/// <summary>The turn that is on.</summary>
public sealed record TurnNow(Guid Student, TurnOrigin Origin, Instant At, double? WaitedSeconds);

/// <summary>One of the last entries.</summary>
public sealed record LastEntry(Guid Id, Instant At, string Text, bool Struck, bool CanStrike);

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
public sealed record LiveRow(
    Guid Id, string Called, string Rest, string ShortName, string Key, string Tags, Whereabouts Whereabouts,
    double? LateSeconds, Instant? Since, IReadOnlyList<LiveStretch> Stretches, IReadOnlyList<long> Spoke, int Dropouts,
    IReadOnlyList<Stroke> Speaking, IReadOnlyList<Stroke> Chat, IReadOnlyList<Stroke> Nods)
{
    internal static LiveRow Of(OnSheet student, string shortName, LessonState state, Room room, IEnumerable<Entry> entries)
    {
        var id = student.Name.Id;
        var attendance = AttendanceRules.Reckon(state, id, room.Times, room.Rules.Scheme.Attendance);
        var last = attendance.Stretches is [.., var end] ? end : null;
        var running = room.Lesson.Stage is LessonStage.Live or LessonStage.Planned;
        var whereabouts = attendance switch
        {
            { Status: AttendanceStatus.Excused } => Whereabouts.Excused,
            { WasThere: true } when last is { Open: false } && (attendance.Flags & AttendanceFlags.Estimated) == 0 && running => Whereabouts.Left,
            { Status: AttendanceStatus.Late } => Whereabouts.Late,
            { Status: AttendanceStatus.Present } => Whereabouts.Here,
            _ => Whereabouts.Missing,
        };
        var live = entries.Where(e => !state.IsStruck(e.Id)).ToList();
        var turns = state.Turns.Where(t => t.Student == id).ToList();
        var called = ShortNames.CalledName(student.Name);
        return new LiveRow(
            id, called, student.Name.Family, shortName, student.Key.ToString(), student.Tags, whereabouts,
            attendance.Status == AttendanceStatus.Late ? attendance.Arrival?.TotalSeconds : null,
            whereabouts == Whereabouts.Left ? last?.To : null,
            [.. attendance.Stretches.Select(s => new LiveStretch(s.From, s.Open ? null : s.To))],
            [.. turns.Where(t => Scheme.CreditOf(t.Outcome) > 0).Select(t => t.At.ToUnixTimeMilliseconds())],
            attendance.Dropouts,
            [.. turns.Where(t => Scheme.CreditOf(t.Outcome) > 0).Select(t => new Stroke(t.Entries[^1], Scheme.CreditOf(t.Outcome)!.Value, false)),
                .. Struck<TurnTaken>(t => Scheme.CreditOf(t.Outcome))],
            [.. live.Where(e => e.Act is ChatSaid c && Scheme.CreditOf(c.Kind) > 0).Select(e => new Stroke(e.Id, 1, false)),
                .. Struck<ChatSaid>(c => Scheme.CreditOf(c.Kind))],
            [.. live.Where(e => e.Act is NodGiven).Select(e => new Stroke(e.Id, 1, false)), .. Struck<NodGiven>(_ => 1)]);

        IEnumerable<Stroke> Struck<T>(Func<T, decimal?> credit)
            where T : Act => entries.Where(e => e.Act is T act && state.IsStruck(e.Id) && credit(act) > 0)
                .Select(e => new Stroke(e.Id, credit((T)e.Act)!.Value, true));
    }
}

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
