using NodaTime;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Course;

/// <summary>How far a lesson has come, as its entries tell it: begun, ended, settled, its stages, its timers, its reminders.</summary>
public sealed class CourseNow : LessonPart
{
    private readonly Dictionary<string, ReminderSeen> _reminders;
    private readonly List<(Guid Stage, Instant At)> _stageMoves;
    private readonly Dictionary<Guid, Duration> _extended;
    private IReadOnlyList<TaskTimer> _timers = [];

    internal CourseNow() => (_reminders, _stageMoves, _extended) = (new(StringComparer.Ordinal), [], []);

    private CourseNow(CourseNow from)
    {
        (_reminders, _stageMoves, _extended, _timers) = (new(from._reminders, StringComparer.Ordinal), [.. from._stageMoves], new(from._extended), from._timers);
        (StartedAt, EndedAt, EndedBy, SettledBy) = (from.StartedAt, from.EndedAt, from.EndedBy, from.SettledBy);
    }

    /// <summary>When the lesson began; null before it has.</summary>
    public Instant? StartedAt { get; private set; }

    /// <summary>When the lesson ended; null before it has.</summary>
    public Instant? EndedAt { get; private set; }

    /// <summary>The entry by which the lesson ended; null before it has.</summary>
    public Guid? EndedBy { get; private set; }

    /// <summary>The entry by which the lesson was settled; null while it is not.</summary>
    public Guid? SettledBy { get; private set; }

    /// <summary>Stages that were moved to, and when, in order.</summary>
    public IReadOnlyList<(Guid Stage, Instant At)> StageMoves => _stageMoves;

    /// <summary>Minutes that were added to stages.</summary>
    public IReadOnlyDictionary<Guid, Duration> Extended => _extended;

    /// <summary>Reminders that were seen to.</summary>
    public IReadOnlyDictionary<string, ReminderSeen> RemindersTicked => _reminders;

    /// <summary>
    /// The times that were given for tasks and not ended, in the order in which they began: at most one for the class and one for each group there is.
    /// </summary>
    public IReadOnlyList<TaskTimer> TimersIn(GroupsNow groups) => [.. _timers.Where(t => t.Group is not { } group || groups.NoSuch(group) is null)];

    internal void Start(Entry entry) => StartedAt ??= entry.HappenedAt;

    internal void End(Entry entry) => (EndedAt, EndedBy) = (entry.HappenedAt, entry.Id);

    internal void Settle(Entry entry) => SettledBy = entry.Id;

    internal void Move(Guid stage, Instant at) => _stageMoves.Add((stage, at));

    internal void Extend(Guid stage, Duration by) => _extended[stage] = _extended.GetValueOrDefault(stage) + by;

    internal void StartTimer(TaskTimer timer) => _timers = [.. _timers.Where(t => t.Group != timer.Group), timer];

    internal void StopTimer(Guid? group) => _timers = [.. _timers.Where(t => t.Group != group)];

    internal void Tick(string reminder, ReminderSeen seen) => _reminders[reminder] = seen;

    internal override LessonPart Copy() => new CourseNow(this);
}

/// <summary>The time given for a task.</summary>
/// <param name="Task">What is to be done; may be empty.</param>
/// <param name="From">When it began to run.</param>
/// <param name="To">When it runs out.</param>
/// <param name="Group">The group it is for; null for the whole class.</param>
public sealed record TaskTimer(string Task, Instant From, Instant To, Guid? Group = null);

/// <summary>A reminder that was seen to.</summary>
/// <param name="Entry">The entry that says so.</param>
/// <param name="At">When.</param>
/// <param name="ReadAloud">What was read to the class; null if there was nothing to read.</param>
public sealed record ReminderSeen(Guid Entry, Instant At, string? ReadAloud);
