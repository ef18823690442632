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

    /// <summary>
    /// Everything that says when a student was there: the sightings of all names that are theirs, and their own acts, but for those of which the teacher
    /// says that they show nothing.
    /// </summary>
    public IReadOnlyList<Sighting> SightingsOf(Guid student)
    {
        var all = Names.SightingsOf(student).Concat(Evidence.SightingsOf(student));
        // Asked of everybody with every tap, and hardly ever is such a word said.
        return Evidence.HasAwayWords(student) ? [.. all.Where(s => s is not SeenAt || Evidence.AwayWordOn(student, s.At) is not { WasThere: false })] : [.. all];
    }

    /// <summary>Names that are no student's and were there, with how long.</summary>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="policy">How the class counts.</param>
    public IEnumerable<(NameShown Shown, AttendanceResult Stay)> Guests(LessonTimes times, AttendancePolicy policy) =>
        from name in Names.All.Values
        where Names.StudentOf(name) is null && name.Sightings.Count > 0
        let stay = AttendanceRules.Reckon(times, name.Sightings, [], null, null, [], policy)
        where stay.Stretches.Count > 0 || stay.Present > Duration.Zero
        orderby name.Name
        select (name, stay);

    /// <summary>Reckons the attendance of a student.</summary>
    /// <param name="student">The id of the student.</param>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="policy">How the class counts.</param>
    public AttendanceResult AttendanceOf(Guid student, LessonTimes times, AttendancePolicy policy) => AttendanceRules.Reckon(
        times, SightingsOf(student), Evidence.MarksOf(student), Evidence.DeclaredOf(student), Evidence.ExcuseOf(student), Names.ListsSeen, policy);

    /// <summary>What a student did, and had a chance to do.</summary>
    /// <param name="student">The id of the student.</param>
    /// <param name="times">When the lesson was meant to be, and when it was.</param>
    /// <param name="scheme">How the class scores.</param>
    public Participation ParticipationOf(Guid student, LessonTimes times, Scheme scheme)
    {
        var attendance = AttendanceOf(student, times, scheme.Attendance);
        var chat = Chat.Of(student);
        return new Participation
        {
            Attendance = attendance,
            Questions = [.. Questions.All.Select(a => a.ChanceOf(student, attendance, scheme.Attendance.Bridge, Groups)).OfType<QuestionChance>()],
            Turns = [.. HandLine.Turns.Where(t => t.Student == student)],
            Hands = [.. HandLine.Hands.Where(h => h.Student == student)],
            LineWasOpen = HandLine.Turns.Any(t => t.Origin == TurnOrigin.Hand && attendance.WasThereAt(t.At, scheme.Attendance.Bridge)),
            SignalRounds = [.. Signals.RoundsOf(student).Select(r => new SignalRound(r.Answered, r.Entry))],
            SignalsGiven = Signals.OfOwnAccord(student),
            SpeakingPausedBy = HandLine.PausedBy(student),
            Chat = [.. chat.Select(c => (c.CountsAs, c.Entry))],
            ChatNotSwept = chat.Count(c => c.IsToSweep),
            SitIns = [.. Groups.SitInsOf(student).Select(s => new SitIn(Scheme.CreditOf(s.Seen.Contribution), s.Entry.Id))],
            Marks = Judged.MarksOf(student),
            Corrections = Judged.CorrectionsOf(student),
            Nods = [.. Notes.NodsOf(student).Select(n => n.Entry.Id)],
        };
    }
}
