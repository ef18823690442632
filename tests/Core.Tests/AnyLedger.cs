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

namespace PoliteTally.Core.Tests;

/// <summary>
/// Ledgers of every kind of act, as they could come: each entry is noted after those before it, speaks only of what was noted before it, and
/// now and then happened a while before it was noted. A kind that is missing here fails a test.
/// </summary>
internal sealed class AnyLedger(int seed, IReadOnlyList<Guid> students, Instant start)
{
    private static readonly string[] Names = ["Juno", "Juno Q.", "Eino's phone", "harbour-office-3", "Zai", "Mum (Barney)"];
    // Now and then two people of one name.
    private static readonly string[] Besides = [.. Enumerable.Repeat("", 18), "S1001", "zai@skerrysound.example"];
    private static readonly string[] Texts = ["is neap tide at half moon?", "low water at four", "the wind backs", "I think it rains", "ready"];

    private readonly Random _random = new(seed);
    private readonly List<Entry> _entries = [];
    private readonly List<Guid> _groups = [.. Enumerable.Range(0, 3).Select(_ => Guid.NewGuid())];
    private readonly List<Guid> _stages = [Guid.NewGuid(), Guid.NewGuid()];
    private readonly List<Guid> _fromFiles = [];
    private readonly List<Guid> _sessions = [Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid()];
    private Instant _now = start - Duration.FromMinutes(3);

    /// <summary>Every way to make an act, by its kind. An act that needs something to speak of is null while there is nothing.</summary>
    private IReadOnlyDictionary<Type, Func<Act?>> Makers => field ??= new Dictionary<Type, Func<Act?>>
    {
        [typeof(LessonStarted)] = () => new LessonStarted(),
        [typeof(LessonEnded)] = () => One(20) == 0 ? new LessonEnded() : null,
        [typeof(LessonSettled)] = () => One(20) == 0 ? new LessonSettled() : null,
        [typeof(Struck)] = () => Earlier(_ => true) is { } id ? new Struck(id, One(3) == 0 && Earlier(_ => true) is { } other ? [other] : null) : null,
        [typeof(CriterionMarked)] = () => new CriterionMarked(Student(), Of(_stages), Of(_groups)),
        [typeof(ScoreCorrected)] = () => Correction(),
        [typeof(ScoredAnew)] = () => new ScoredAnew(1 + One(3)),
        [typeof(Marked)] = () => new Marked(Student(), Any<Mark>()),
        [typeof(StatusDeclared)] = () => new StatusDeclared(Student(), Any<AttendanceStatus>()),
        [typeof(AwayJudged)] = () => new AwayJudged(Student(), One(900), One(2) == 0),
        [typeof(ConnectionJudged)] = () => new ConnectionJudged(Student(), Any<MissedBy>(), One(2) == 0),
        [typeof(SentOut)] = () => new SentOut(Student()),
        [typeof(LetBackIn)] = () => new LetBackIn(Student()),
        [typeof(ExcuseRecorded)] = () => new ExcuseRecorded(Student(), "dentist"),
        [typeof(HandRaised)] = () => new HandRaised(Student(), One(3) == 0),
        [typeof(HandEnded)] = () => new HandEnded(Student(), Any<HandEnd>()),
        [typeof(Called)] = () => One(3) == 0
            ? new Called(Student(), TurnOrigin.HandedOn, By: Student())
            : new Called(Student(), Any<TurnOrigin>(), One(2) == 0 ? "not heard yet today" : null),
        [typeof(TurnTaken)] = () => new TurnTaken(Student(), Any<TurnOutcome>(), Any<TurnOrigin>()),
        [typeof(ChatSaid)] = () => new ChatSaid(Student(), Any<ChatKind>(), One(2) == 0 ? Of(Texts) : null),
        [typeof(NodGiven)] = () => new NodGiven(Student(), "on time"),
        [typeof(NodsShown)] = () => Earlier(a => a is NodGiven) is { } nod ? new NodsShown([nod]) : null,
        [typeof(ReminderTicked)] = () => new ReminderTicked("Start the recording", One(2) == 0 ? Of(Texts) : null),
        [typeof(Joined)] = () => new Joined(Of(Names), Of(["laptop", "phone", ""])) { Beside = Of(Besides) },
        [typeof(Left)] = () => new Left(Of(Names), Of(["laptop", "phone", ""])) { Beside = Of(Besides) },
        [typeof(Seen)] = () => new Seen(Of(Names)),
        [typeof(Attended)] = () => new Attended(Of(Names), Duration.FromMinutes(One(50))),
        [typeof(NameMatched)] = () => new NameMatched(Of(Names), One(4) == 0 ? null : Student()) { Beside = Of(Besides) },
        [typeof(AskedLater)] = () => new AskedLater(Of(Names)),
        [typeof(Renamed)] = () => new Renamed(Of(Names), Of(Names), "laptop") { Beside = Of(Besides) },
        [typeof(NameRaisedHand)] = () => new NameRaisedHand(Of(Names), One(3) == 0),
        [typeof(NameLoweredHand)] = () => new NameLoweredHand(Of(Names), Any<HandEnd>()),
        [typeof(NameWrote)] = () => new NameWrote(Of(Names), Of(Texts), One(3) == 0),
        [typeof(NameSpoke)] = () => new NameSpoke(Of(Names), Duration.FromSeconds(1 + One(60))),
        [typeof(NameReacted)] = () => new NameReacted(Of(Names), "clap"),
        [typeof(NameOnline)] = () => new NameOnline(Of(Names), Any<OnlineStatus>()),
        [typeof(RollCallTaken)] = () => new RollCallTaken(Some()),
        [typeof(PointCovered)] = () => new PointCovered(Student(), Of(_stages)),
        [typeof(SpeakingPaused)] = () => new SpeakingPaused(Student(), One(2) == 0),
        [typeof(SignalRoundHeld)] = () => new SignalRoundHeld("Fog is a cloud.", Some(), Some(), One(3) == 0 ? Student() : null),
        [typeof(ChatSorted)] = () => Message() is { } id ? new ChatSorted(id, Any<ChatKind>()) : null,
        [typeof(ChatHidden)] = () => Message() is { } id ? new ChatHidden(id) : null,
        [typeof(ChatDealtWith)] = () => Message() is { } id ? new ChatDealtWith(id) : null,
        [typeof(MessageShown)] = () => Message() is { } id ? new MessageShown(id) : null,
        [typeof(AsideNoted)] = () => new AsideNoted(Student(), "tired today"),
        [typeof(ContactTried)] = () => new ContactTried(Student(), Any<ContactChannel>(), Any<ContactOutcome>(), ""),
        [typeof(StageMoved)] = () => new StageMoved(Of(_stages)),
        [typeof(StageExtended)] = () => new StageExtended(Of(_stages), Duration.FromMinutes(One(9) - 4)),
        [typeof(TimerStarted)] = () => new TimerStarted(Duration.FromSeconds(60), "Draw the tide", One(2) == 0 ? Of(_groups) : null),
        [typeof(TimerStopped)] = () => new TimerStopped(One(2) == 0 ? Of(_groups) : null),
        [typeof(GroupsMade)] = () => new GroupsMade([.. _groups.Select((id, i) => new StudentGroup(id, $"Group {i}", [.. students.Where((_, s) => s % _groups.Count == i)]))]),
        [typeof(GroupJoined)] = () => new GroupJoined(Student(), One(3) == 0 ? null : Of(_groups)),
        [typeof(GroupRenamed)] = () => new GroupRenamed(Of(_groups), "Barometers"),
        [typeof(GroupsDissolved)] = () => new GroupsDissolved(),
        [typeof(SatIn)] = () => new SatIn(Student(), Of(_groups), Any<Contribution>()),
        [typeof(QuestionOpened)] = () => new QuestionOpened(Question(), One(3) == 0 ? Of(_groups) : null, null, Some(), Duration.FromSeconds(30)),
        [typeof(QuestionClosed)] = () => Asked() is { } id ? new QuestionClosed(id) : null,
        [typeof(AnswerGiven)] = () => Asked() is { } id ? new AnswerGiven(Student(), id, new Answer { Text = Of(Texts) }) : null,
        [typeof(CannotAnswer)] = () => Asked() is { } id ? new CannotAnswer(Student(), id) : null,
        [typeof(BallotsCounted)] = () => Asked() is { } id ? new BallotsCounted(id, 6, [new Answer { Text = "windy" }], Some()) : null,
        [typeof(AnswersMarked)] = () => Asked() is { } id ? new AnswersMarked(id, Some(), 0.5m) : null,
        [typeof(KeyCorrected)] = () => Asked() is { } id ? new KeyCorrected(id, [], null, 0, ["the wind backs"]) : null,
        [typeof(WordsMerged)] = () => Asked() is { } id ? new WordsMerged(id, "gale", "storm") : null,
        [typeof(RightRevealed)] = () => Asked() is { } id ? new RightRevealed(id) : null,
        [typeof(ResultsPut)] = () => Asked() is { } id ? new ResultsPut(id, false, true, []) : null,
        [typeof(SignalGiven)] = () => new SignalGiven(Student(), "yes"),
        [typeof(StudentWrote)] = () => new StudentWrote(Student(), ChatKind.Question, Of(Texts)),
        [typeof(PageOpened)] = () => new PageOpened(Student()),
        [typeof(PageClosed)] = () => new PageClosed(Student()),
        [typeof(PageKnocked)] = () => new PageKnocked(Of(_sessions), Of(Names)),
        [typeof(PageAdmitted)] = () => new PageAdmitted(Of(_sessions), One(3) == 0 ? null : Student()),
        [typeof(BoardPut)] = () => new BoardPut(Any<BoardItem>(), One(2) == 0 ? "Fog is a cloud." : null),
        // In a lesson without files most of the time: with one, all is folded anew at every entry.
        [typeof(FileBroughtIn)] = () => One(10) == 0 ? new FileBroughtIn(Any<FileKind>(), "list.csv", 3, "00") : null,
        [typeof(QuestionFromFile)] = () => One(10) == 0 ? FromFile() : null,
        [typeof(NameAnswered)] = () => _fromFiles.Count > 0 ? new NameAnswered(Of(Names), Of(_fromFiles), new Answer { Text = Of(Texts) }, One(2) == 0 ? 0.5m : null, One(2) == 0) : null,
        [typeof(ClockSet)] = () => File() is { } id ? new ClockSet(id, One(2) == 0 ? Duration.FromSeconds(One(90)) : null) : null,
        [typeof(ActsCompared)] = () => One(10) == 0 && Earlier(_ => true) is { } id && Earlier(_ => true) is { } other ? new ActsCompared(id, other, One(2) == 0) : null,
        [typeof(BoardTaken)] = () => new BoardTaken(Any<BoardItem>()),
    };

    /// <summary>Every kind of act.</summary>
    public static IEnumerable<Type> Kinds => typeof(Act).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(Act)) && !t.IsAbstract);

    /// <summary>The next entry.</summary>
    public Entry Next()
    {
        Act? act;
        do
        {
            act = Makers[Kinds.ElementAt(One(Kinds.Count()))]();
        }
        while (act is null);

        _now += Duration.FromMilliseconds(1 + (One(4) == 0 ? 0 : One(20_000)));
        var late = One(6) switch
        {
            0 => Duration.FromMilliseconds(One(3_000)),
            1 when One(5) == 0 => Duration.FromMinutes(One(20)),
            _ => Duration.Zero,
        };
        var file = act.IsDecision || One(3) > 0 ? null : File();
        var entry = new Entry(Guid.CreateVersion7(), _now - late, _now, file is null ? (Source)One(3) : Source.File, "Tamsin Vale", act, file);
        _entries.Add(entry);
        return entry;
    }

    public List<Entry> Next(int count) => [.. Enumerable.Range(0, count).Select(_ => Next())];

    private int One(int of) => _random.Next(of);

    private T Of<T>(IReadOnlyList<T> list) => list[One(list.Count)];

    private T Any<T>()
        where T : struct, Enum => Of(Enum.GetValues<T>());

    private Guid Student() => Of(students);

    private List<Guid> Some() => [.. students.Where(_ => One(2) == 0)];

    private Guid? Earlier(Func<Act, bool> which) => _entries.Where(e => which(e.Act)).Select(e => e.Id).ToList() is { Count: > 0 } ids ? ids[One(3) == 0 ? ids.Count - 1 : One(ids.Count)] : null;

    private Guid? Message() => Earlier(a => a is ChatSaid or NameWrote or StudentWrote);

    private ScoreCorrected? Correction() => One(6) != 0 ? null : Any<CorrectionKind>() switch
    {
        CorrectionKind.StrandLeftOut => new ScoreCorrected(Student(), CorrectionKind.StrandLeftOut, Any<Strand>(), null, "was on the stairs"),
        CorrectionKind.StrandSet => new ScoreCorrected(Student(), CorrectionKind.StrandSet, Any<Strand>(), One(5) / 4m, "spoke by telephone"),
        CorrectionKind.LessonLeftOut => new ScoreCorrected(Student(), CorrectionKind.LessonLeftOut, null, null, "the island had no power"),
        _ => new ScoreCorrected(Student(), CorrectionKind.ScoreSet, null, One(101), "as agreed"),
    };

    private QuestionFromFile FromFile()
    {
        var question = Question();
        _fromFiles.Add(question.Id);
        return new QuestionFromFile(question, Duration.FromMinutes(One(9)), One(9), []);
    }

    private Guid? File() => Earlier(a => a is FileBroughtIn);

    private Guid? Asked() => Earlier(a => a is QuestionOpened);

    private Question Question() => new()
    {
        Id = Guid.NewGuid(),
        Kind = QuestionKind.ShortText,
        Purpose = Any<QuestionPurpose>(),
        Text = "Why does the wind back?",
        AcceptedAnswers = ["low water at four"],
        TimeLimit = One(3) == 0 ? Duration.FromSeconds(60) : null,
        Anonymous = One(3) == 0,
        CountsTakingPart = One(2) == 0,
    };
}
