using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Reports;

/// <summary>A settled lesson, as a report needs it.</summary>
/// <param name="Id">The id of the lesson.</param>
/// <param name="Number">Its number in the class.</param>
/// <param name="Title">What it was about.</param>
/// <param name="Day">Its day.</param>
/// <param name="Zone">The zone of the school.</param>
/// <param name="Times">When it was meant to be, and when it was.</param>
/// <param name="Plan">Its plan.</param>
/// <param name="Scheme">How it is scored.</param>
/// <param name="Replay">The lesson, now and at any minute.</param>
/// <param name="Roster">Who belongs to it, in the order of the report.</param>
/// <param name="Reminders">What the teacher wanted to be reminded of.</param>
public sealed record LessonTaught(
    Guid Id, int Number, string Title, LocalDate Day, DateTimeZone Zone, LessonTimes Times, Plan Plan, Scheme Scheme, Replay Replay, IReadOnlyList<Guid> Roster, IReadOnlyList<string> Reminders)
{
    /// <summary>The lesson as it stands now.</summary>
    public LessonState State => Replay.Now;

    /// <summary>What everybody did.</summary>
    public IReadOnlyDictionary<Guid, Participation> Did { get; } = Roster.ToDictionary(s => s, s => Replay.Now.ParticipationOf(s, Times, Scheme));

    /// <summary>The same, counted.</summary>
    public IReadOnlyDictionary<Guid, Tally> Tallies => field ??= Did.ToDictionary(d => d.Key, d => Tally.Of(d.Value));

    /// <summary>Its stages as they were held.</summary>
    /// <param name="ended">When the last of them was over.</param>
    public IReadOnlyList<TimedStage> StagesHeld(Instant ended) => StageClock.Held(Plan, Times.ActualStart, State.Course.StageMoves, ended);

    /// <summary>A moment as the clock at the school shows it: "09:41".</summary>
    public string Clock(Instant at) => Words.Clock(at, Zone);

    /// <summary>Minutes from the planned start to a moment; negative before it.</summary>
    public int MinuteOf(Instant at) => (int)Math.Floor((at - Times.PlannedStart).TotalMinutes);
}

/// <summary>One lesson: what happened in it, who was heard, and what was left open.</summary>
/// <param name="Lesson">The lesson.</param>
/// <param name="Called">What a student is called in it.</param>
/// <param name="Named">Whether students are named: then what they wrote is told with their names.</param>
/// <param name="PutRight">What was put right, and when, in words.</param>
public sealed record LessonReport(LessonTaught Lesson, Func<Guid, string> Called, bool Named, IReadOnlyList<(Instant At, string What)> PutRight)
{
    private const int MostNamed = 6;

    /// <summary>The report.</summary>
    /// <param name="about">The line above the title.</param>
    public Document Written(string about)
    {
        var minutes = LessonLine.MinutesOf(Lesson);
        var questions = new QuestionReport(
            [.. AskedQuestion.In(Lesson.Id, Lesson.Number, Lesson.Day, Lesson.State, [.. Lesson.Did.Select(d => (d.Key, d.Value.Attendance.WasThere))])], Named ? Called : null);
        return new Document($"Lesson {Lesson.Number}: {Lesson.Title}", about,
        [
            new("", [.. Summary()]),
            new("The lesson from the beginning to the end", [.. Stages()], LessonLine.Of(Lesson, minutes), Minutes(minutes)),
            new("Who was heard", [.. Heard()], null, Everybody()),
            .. questions.Questions.Select(questions.Section).Select(s => s with { Heading = s.Heading[(s.Heading.IndexOf(": ", StringComparison.Ordinal) + 2)..], Says = [.. s.Says.Select(q => q with { Opens = null })] }),
            .. Open(),
            .. ReadAloud(),
            .. Missed(),
            .. Right(),
        ]);
    }

    private IEnumerable<Sentence> Summary()
    {
        var here = Lesson.Did.Where(d => d.Value.Attendance.WasThere).ToList();
        var (late, excused) = (here.Count(d => d.Value.Attendance.Status == AttendanceStatus.Late), Lesson.Did.Count(d => d.Value.Attendance.Status == AttendanceStatus.Excused));
        yield return $"{here.Count} of {Words.Count(Lesson.Roster.Count, "student")} {(here.Count == 1 ? "was" : "were")} there{(late > 0 ? $", {Words.InLetters(late)} late" : "")}{(excused > 0 ? $"; {Words.InLetters(excused)} excused" : "")}.";
        if (Lesson.Times is { ActualStart: { } start, ActualEnd: { } end })
        {
            var (began, ended) = ((int)Math.Round((start - Lesson.Times.PlannedStart).TotalMinutes), (int)Math.Round((end - Lesson.Times.PlannedEnd).TotalMinutes));
            yield return $"It began at {Lesson.Clock(start)}, {OffBy(began)}, and ended at {Lesson.Clock(end)}, {OffBy(ended)}.";
        }

        var (turns, heard) = (here.Sum(d => Lesson.Tallies[d.Key].Turns()), here.Count(d => Lesson.Tallies[d.Key].Turns() > 0));
        yield return new($"{Words.Capital(Words.InLetters(heard))} of them had a turn, {Words.Count(turns, "turn")} in all.", Marked: $"{Words.Capital(Words.InLetters(heard))} of them had a turn");
        var (messages, questions) = (Lesson.State.Chat.Messages.Count(m => m.Student is not null && !m.Repeat), Lesson.State.Questions.All.Count);
        yield return $"{Words.Capital(Words.Several(messages, "message"))} stood in the chat, and {Words.Several(questions, "question")} {(questions == 1 ? "was" : "were")} asked.";

        static string OffBy(int minutes) => minutes == 0 ? "on time" : $"{Words.Several(Math.Abs(minutes), "minute")} {(minutes > 0 ? "after" : "before")} its time";
    }

    // Where nobody moved on, nobody knows which stage was on.
    private IEnumerable<Sentence> Stages() =>
        Lesson.State.Course.StageMoves.Count == 0 ? [] : StageClock.InWords(Lesson.Plan, Lesson.StagesHeld(Lesson.Times.HeldTo)).Select(said => (Sentence)said);

    private IEnumerable<Sentence> Heard()
    {
        var quiet = Lesson.Did.Where(d => d.Value.Attendance.WasThere && Lesson.Tallies[d.Key].Turns() == 0).Select(d => d.Key).ToList();
        if (quiet.Count == 0)
        {
            yield return "Everybody who was there had a turn.";
            yield break;
        }

        var wrote = quiet.Count(s => Lesson.Tallies[s].Contributions() > 0);
        yield return $"{(quiet.Count <= MostNamed ? Words.Listed(quiet.Select(Called)) : Words.Capital(Words.Several(quiet.Count, "student")))} had no turn{(wrote == 0 ? "" : wrote == quiet.Count ? "; all of them wrote" : $"; {Words.InLetters(wrote)} of them wrote")}.";
    }

    private Figures Everybody() => new(
        "Everybody", ["Student", "There", "Minutes", "Turns", "Answered", "Chat", "Groups", "Nods", "Score"],
        [
            .. Lesson.Did.Select(d => (Student: d.Key, Did: Lesson.Tallies[d.Key], d.Value.Attendance, Score: LessonScore.Of(d.Value, Lesson.Scheme).Total)).Select(d => new FigureRow(
                [
                    Called(d.Student), d.Did.Status.InWords(), Words.WholeMinutes(d.Attendance.Present), FigureCell.Of(d.Did.FullTurns + (d.Did.PartialTurns * 0.5m)),
                    d.Did.Asked == 0 ? "" : $"{d.Did.Answered} of {d.Did.Asked}", d.Did.Contributions(), d.Did.SitIns == 0 ? "" : FigureCell.Of(d.Did.GroupCredits), d.Did.Nods,
                    d.Score is { } score ? FigureCell.Of(Lesson.Scheme.Shown(score.Value)) : "not counted",
                ],
                new Opens(d.Student, Lesson.Id))),
        ]);

    // The same as the line, minute by minute.
    private Figures Minutes(IReadOnlyList<MinuteOfLesson> minutes) => new(
        "Minute by minute", ["At", "Stage", "Present", "Hands up", "Turns so far", "Messages so far"],
        [
            .. minutes.Select(m => new FigureRow(
                [Lesson.Clock(m.At), m.Stage ?? "", m.Present, m.Hands, m.Turns, m.Messages], new Opens(Lesson: Lesson.Id, Minute: Lesson.MinuteOf(m.At)))),
        ],
        Fold: true);

    private IEnumerable<Section> Open()
    {
        var open = Lesson.State.Chat.Messages.Where(m => m.IsOpenQuestion && !m.Private).ToList();
        return open.Count == 0 ? [] :
        [
            new("Questions in the chat that were left open", [], null, new Figures(
                "Left open", ["At", .. Named ? ["Who"] : Array.Empty<string>(), "Question"],
                [
                    .. open.Select(m => new FigureRow(
                        [Lesson.Clock(m.At), .. Named ? [m.Student is { } who ? Called(who) : m.Name] : Array.Empty<FigureCell>(), m.Text], new Opens(Lesson: Lesson.Id, Minute: Lesson.MinuteOf(m.At)))),
                ])),
        ];
    }

    private IEnumerable<Section> Missed()
    {
        var missed = Lesson.Reminders.Where(r => !Lesson.State.Course.RemindersTicked.ContainsKey(r)).ToList();
        return missed.Count == 0 ? [] : [new("Not ticked off", [$"{Words.Listed(missed.Select(m => $"“{m}”"))} {(missed.Count == 1 ? "was" : "were")} not ticked off."])];
    }

    private IEnumerable<Section> ReadAloud()
    {
        var read = Lesson.State.Course.RemindersTicked.Where(r => r.Value.ReadAloud is not null).OrderBy(r => r.Value.At).ToList();
        return read.Count == 0 ? [] : [new("Read aloud", [], null, new Figures("Read aloud", ["At", "What", "In these words"], [.. read.Select(r => new FigureRow([Lesson.Clock(r.Value.At), r.Key, r.Value.ReadAloud!], new Opens(Lesson: Lesson.Id, Minute: Lesson.MinuteOf(r.Value.At))))]))];
    }

    private IEnumerable<Section> Right() => PutRight.Count == 0 ? [] :
    [
        new("Put right", [], null, new Figures("Put right", ["Noted", "What"], [.. PutRight.Select(p => new FigureRow([$"{StudentReport.DayOf(p.At.InZone(Lesson.Zone).Date)}, {Lesson.Clock(p.At)}", p.What]))])),
    ];
}
