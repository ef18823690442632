using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Page;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Core.Signals;

namespace PoliteTally.Core.Lessons;

/// <summary>
/// What the entries of a lesson amount to. A pure fold: the order in which entries arrive does not matter, an entry that
/// arrives twice counts once, and a struck-out entry leaves no trace. The live screen, settling, scores and tests all
/// read this. It never changes; <see cref="With"/> makes another one.
/// </summary>
/// <remarks>
/// What is kept of a lesson lies with its trade, in a <see cref="LessonPart"/>; what an act does to it stands in the act. Here is only the order in
/// which entries are taken.
/// </remarks>
public sealed partial class LessonState
{
    /// <summary>What every trade keeps of it.</summary>
    public LessonParts Parts { get; }

    /// <summary>All entries, struck-out ones too, in the order in which they happened; those of files by the clock of the lesson.</summary>
    public IReadOnlyList<Entry> Entries => _aligned ?? (IReadOnlyList<Entry>)_entries;

    /// <summary>How far the lesson has come.</summary>
    public CourseNow Course => Parts.See<CourseNow>();

    /// <summary>The files that were brought in, and what in them is known otherwise.</summary>
    public FilesMerged Files => Parts.See<FilesMerged>();

    /// <summary>Names shown in the meeting.</summary>
    public NamesShown Names => Parts.See<NamesShown>();

    /// <summary>What says where students were, names in the meeting apart.</summary>
    public Evidence Evidence => Parts.See<Evidence>();

    /// <summary>Hands and turns.</summary>
    public HandLine HandLine => Parts.See<HandLine>();

    /// <summary>Signals, in rounds and outside of them.</summary>
    public SignalsShown Signals => Parts.See<SignalsShown>();

    /// <summary>Groups.</summary>
    public GroupsNow Groups => Parts.See<GroupsNow>();

    /// <summary>The class board.</summary>
    public BoardNow Board => Parts.See<BoardNow>();

    /// <summary>Questions that were opened.</summary>
    public QuestionsAsked Questions => Parts.See<QuestionsAsked>();

    /// <summary>Messages in the chat.</summary>
    public ChatLog Chat => Parts.See<ChatLog>();

    /// <summary>Student pages.</summary>
    public PageVisits Page => Parts.See<PageVisits>();

    /// <summary>Nods, asides, attempts to reach somebody.</summary>
    public NotesTaken Notes => Parts.See<NotesTaken>();

    /// <summary>What the teacher says of scores.</summary>
    public Judged Judged => Parts.See<Judged>();

    /// <summary>The times given for tasks that run now.</summary>
    public IReadOnlyList<TaskTimer> Timers => Course.TimersIn(Groups);

    /// <summary>The results that are up on the class board; null while none are.</summary>
    public ResultsPut? ResultsUp => Board.Items.ContainsKey(BoardItem.Results) ? Questions.LastResults : null;

    /// <summary>Entries that were struck out, in order.</summary>
    public IEnumerable<Entry> Struck => Parts.See<StrikesMade>() is { Count: > 0 } strikes ? Entries.Where(e => strikes.Have(e.Id)) : [];

    /// <summary>Folds entries, given in any order.</summary>
    /// <param name="entries">The entries of one lesson.</param>
    /// <param name="merged">
    /// Records that turned out to be of one student: what entries say of the key counts for the value. The entries themselves
    /// stay as they are, so that a merge can be undone.
    /// </param>
    public static LessonState Fold(IEnumerable<Entry> entries, IReadOnlyDictionary<Guid, Guid>? merged = null)
    {
        var state = new LessonState(merged ?? NoneMerged);
        state.Take(Ordered.Once(Ordered.ByTime([.. entries])));
        return state;
    }

    /// <summary>The strikes that count, by the entries that they strike out: to strike those out puts an entry back.</summary>
    public ILookup<Guid, Guid> StrikesOn() => Entries.Where(e => e.Act is Struck && !IsStruck(e.Id))
        .SelectMany(e => ((Struck)e.Act).Entries.Select(struck => (struck, e.Id))).ToLookup(s => s.struck, s => s.Id);

    /// <summary>True if the entry no longer counts.</summary>
    public bool IsStruck(Guid entry) => Parts.See<StrikesMade>().Have(entry);

    /// <summary>The student that an entry about this id counts for.</summary>
    public Guid Whose(Guid student) => Parts.Whose(student);

    /// <summary>The students whom an act is about, merged records as one.</summary>
    public IEnumerable<Guid> StudentsOf(Act act) => act.About(Parts);

    /// <summary>Everything that says where a student was. What of it the teacher says that it shows nothing is left out.</summary>
    public StudentEvidence EvidenceOf(Guid student)
    {
        var all = Names.SightingsOf(student).Concat(Evidence.SightingsOf(student));
        var told = new StudentEvidence([.. all], Evidence.MarksOf(student))
        {
            Declared = Evidence.DeclaredOf(student),
            Excuse = Evidence.ExcuseOf(student),
            AwayWords = Evidence.AwayWordsOf(student),
            LineFailed = Evidence.LineFailedOf(student),
            TimesOut = Evidence.TimesOutOf(student),
        };
        // Asked of everybody with every tap, and hardly ever is such a word said.
        return told.AwayWords.Count == 0 ? told : told with { Sightings = [.. told.Sightings.Where(s => s is not SeenAt || told.AwayWordOn(s.At) is not { WasThere: false })] };
    }

    /// <summary>Names that are no student's and were there, with how long.</summary>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="policy">How the class counts.</param>
    public IEnumerable<(NameShown Shown, AttendanceResult Stay)> Guests(LessonTimes times, AttendancePolicy policy) =>
        from name in Names.All.Values
        where Names.StudentOf(name) is null && name.Sightings.Count > 0
        let stay = AttendanceRules.Reckon(times, new StudentEvidence(name.Sightings, []), policy)
        where stay.Stretches.Count > 0 || stay.Present > Duration.Zero
        orderby name.Name
        select (name, stay);

    /// <summary>Reckons the attendance of a student.</summary>
    /// <param name="student">The id of the student.</param>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="policy">How the class counts.</param>
    public AttendanceResult AttendanceOf(Guid student, LessonTimes times, AttendancePolicy policy) => AttendanceRules.Reckon(times, EvidenceOf(student), policy);

    /// <summary>What a student did, and had a chance to do.</summary>
    /// <param name="student">The id of the student.</param>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="scheme">How the class scores.</param>
    public Participation ParticipationOf(Guid student, LessonTimes times, Scheme scheme)
    {
        var (attendance, bridge) = (AttendanceOf(student, times, scheme.Attendance), scheme.Attendance.Bridge);
        var chat = Chat.Of(student);
        return new Participation
        {
            IsDropIn = times.DropIn,
            Attendance = attendance,
            Questions = [.. Questions.All.Select(a => a.ChanceOf(student, attendance, bridge, Groups)).OfType<QuestionChance>()],
            // Called when they had gone without an excuse, they let it pass.
            Turns = [.. HandLine.Turns.Where(t => t.Student == student).Select(t => t.Outcome is null or TurnOutcome.CouldNot && attendance.HasMissed(t.At) ? t with { Outcome = TurnOutcome.Pass } : t)],
            Hands = [.. HandLine.Hands.Where(h => h.Student == student)],
            LineWasOpen = attendance is { WasThere: true, IsEstimated: false } && HandLine.Turns.Any(t => t.Origin == TurnOrigin.Hand && (attendance.HasMissed(t.At) || attendance.WasThereAt(t.At, bridge))),
            SignalRounds = [.. RoundsOf(student, attendance)],
            SignalsGiven = Signals.OfOwnAccord(student),
            SpeakingPausedBy = HandLine.PausedBy(student),
            Chat = [.. chat.Select(c => (c.CountsAs, c.Entry))],
            ChatNotSwept = chat.Count(c => c.IsToSweep),
            SitIns = [.. Groups.SitInsOf(student).Select(s => new SitIn(Scheme.CreditOf(s.Seen.Contribution), s.Entry.Id)), .. MissedSitIns(student, attendance)],
            Marks = Judged.MarksOf(student),
            Corrections = Judged.CorrectionsOf(student),
            Nods = [.. Notes.NodsOf(student).Select(n => n.Entry.Id)],
        };
    }

    // Missed is not unasked: a round or a sit-in while they had not come, or had gone, was a chance not taken.
    private IEnumerable<SignalRound> RoundsOf(Guid student, AttendanceResult attendance)
    {
        var theirs = Signals.RoundsOf(student);
        return theirs.Select(r => new SignalRound(r.Answered, r.Entry))
            .Concat(Signals.Rounds.Where(r => attendance.HasMissed(r.At) && theirs.All(t => t.Entry != r.Entry)).Select(r => new SignalRound(false, r.Entry)));
    }

    private IEnumerable<SitIn> MissedSitIns(Guid student, AttendanceResult attendance) => attendance.Missed.Count == 0 ? [] :
        Groups.Visits.Where(v => v.Members.Contains(student) && attendance.HasMissed(v.At)).DistinctBy(v => v.Group)
            .Where(v => Groups.SitInsOf(student).All(s => s.Seen.Group != v.Group)).Select(v => new SitIn(0, v.Entry));
}
