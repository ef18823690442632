using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// What the entries of a lesson amount to. A pure fold: the order in which entries arrive does not matter, an entry that
/// arrives twice counts once, and a struck-out entry leaves no trace. The live screen, settling, scores and tests all
/// read this.
/// </summary>
public sealed class LessonState
{
    private static readonly StudentState Nothing = new();
    private static readonly Dictionary<Guid, Guid> NoneMerged = [];

    private readonly Dictionary<Guid, StudentState> _students = [];
    private readonly Dictionary<string, NameState> _names = new(StringComparer.Ordinal);
    private readonly HandLine _line = new();
    private readonly SortedSet<Instant> _rollCalls = [];
    private readonly Dictionary<string, Guid> _reminders = new(StringComparer.Ordinal);
    private readonly List<ChatMessage> _chat = [];
    private readonly Dictionary<Guid, ChatMessage> _messages = [];
    private readonly Dictionary<Guid, MessageWords> _saidOf = [];
    private readonly List<(Guid Stage, Instant At)> _stageMoves = [];
    private readonly Dictionary<Guid, int> _extended = [];
    private readonly List<HeldRound> _rounds = [];
    private readonly SortedDictionary<BoardItem, OnBoard> _board = [];
    private readonly GroupsNow _groups = new();
    private readonly List<Asking> _askings = [];
    private readonly Dictionary<Guid, Asking> _askingOf = [];
    private readonly Dictionary<Guid, string> _signals = [];
    private readonly Dictionary<Guid, PageVisitor> _visitors = [];
    private readonly HashSet<Guid> _revealed = [];
    private readonly HashSet<Guid> _struck;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;

    private LessonState(IReadOnlyList<Entry> ordered, HashSet<Guid> struck, IReadOnlyDictionary<Guid, Guid> merged)
    {
        _struck = struck;
        _merged = merged;
        Entries = ordered;
        var standing = struck.Count == 0 ? ordered : [.. ordered.Where(e => !struck.Contains(e.Id))];
        // What is said of names and of messages counts for what came before it, too.
        foreach (var entry in standing)
        {
            Learn(entry);
        }

        foreach (var name in _names.Values)
        {
            name.Settle(_names);
        }

        foreach (var entry in standing)
        {
            Apply(entry);
        }
    }

    /// <summary>All entries, struck-out ones too, in the order in which they happened.</summary>
    public IReadOnlyList<Entry> Entries { get; }

    /// <summary>When the lesson began; null before it has.</summary>
    public Instant? StartedAt { get; private set; }

    /// <summary>When the lesson ended; null before it has.</summary>
    public Instant? EndedAt { get; private set; }

    /// <summary>The entry by which the lesson was settled; null while it is not.</summary>
    public Guid? SettledBy { get; private set; }

    /// <summary>Names seen in the meeting, by the name as shown.</summary>
    public IReadOnlyDictionary<string, NameState> Names => _names;

    /// <summary>Every hand of the lesson, by the time raised.</summary>
    public IReadOnlyList<Hand> Hands => _line.Hands;

    /// <summary>Every turn of the lesson, by the time called.</summary>
    public IReadOnlyList<Turn> Turns => _line.Turns;

    /// <summary>The latest call that nobody has said the outcome of.</summary>
    public Turn? CurrentTurn => _line.Current();

    /// <summary>Messages in the chat, in order.</summary>
    public IReadOnlyList<ChatMessage> Chat => _chat;

    /// <summary>Stages that were moved to, and when, in order.</summary>
    public IReadOnlyList<(Guid Stage, Instant At)> StageMoves => _stageMoves;

    /// <summary>Minutes that were added to stages.</summary>
    public IReadOnlyDictionary<Guid, int> Extended => _extended;

    /// <summary>The time that was given for a task last; null if none was, or if it was ended.</summary>
    public TaskTimer? Timer { get; private set; }

    /// <summary>Signal rounds, in order.</summary>
    public IReadOnlyList<HeldRound> SignalRounds => _rounds;

    /// <summary>The groups that the class is split into; empty while it is not.</summary>
    public IReadOnlyList<StudentGroup> Groups => _groups.Groups;

    /// <summary>The groups there were last, dissolved or not.</summary>
    public IReadOnlyList<StudentGroup> LastGroups => _groups.Last;

    /// <summary>Questions that were opened, in order.</summary>
    public IReadOnlyList<Asking> Askings => _askings;

    /// <summary>Questions of which students see on their page what was right, by the entries that opened them.</summary>
    public IReadOnlySet<Guid> Revealed => _revealed;

    /// <summary>The results that are up on the class board; null while none are.</summary>
    public ResultsPut? ResultsUp { get; private set; }

    /// <summary>Signals from student pages for the statement that is up, by student.</summary>
    public IReadOnlyDictionary<Guid, string> Signals => _signals;

    /// <summary>Who came to the student page with a code and a name, by the id that tells them apart.</summary>
    public IReadOnlyDictionary<Guid, PageVisitor> PageVisitors => _visitors;

    /// <summary>What is up on the class board.</summary>
    public IReadOnlyDictionary<BoardItem, OnBoard> Board => _board;

    /// <summary>When roll calls were taken.</summary>
    public IReadOnlyCollection<Instant> RollCalls => _rollCalls;

    /// <summary>Reminders that were seen to, each with the entry that says so.</summary>
    public IReadOnlyDictionary<string, Guid> RemindersTicked => _reminders;

    /// <summary>Folds entries, given in any order.</summary>
    /// <param name="entries">The entries of one lesson.</param>
    /// <param name="merged">
    /// Records that turned out to be of one student: what entries say of the key counts for the value. The entries themselves
    /// stay as they are, so that a merge can be undone.
    /// </param>
    public static LessonState Fold(IEnumerable<Entry> entries, IReadOnlyDictionary<Guid, Guid>? merged = null)
    {
        var seen = new HashSet<Guid>();
        var ordered = new List<Entry>();
        foreach (var entry in entries)
        {
            if (seen.Add(entry.Id))
            {
                ordered.Add(entry);
            }
        }

        ordered.Sort(InOrder);
        return new LessonState(ordered, StruckOut(ordered), merged ?? NoneMerged);
    }

    /// <summary>Entries that were struck out, in order.</summary>
    public IEnumerable<Entry> Struck => _struck.Count == 0 ? [] : Entries.Where(e => _struck.Contains(e.Id));

    /// <summary>True if the entry no longer counts.</summary>
    public bool IsStruck(Guid entry) => _struck.Contains(entry);

    /// <summary>The student that an entry about this id counts for.</summary>
    public Guid Whose(Guid student) => _merged.GetValueOrDefault(student, student);

    /// <summary>What is known of a student; empty for one of whom nothing was noted.</summary>
    public StudentState Of(Guid student) => _students.GetValueOrDefault(student, Nothing);

    /// <summary>Everything that says when a student was there: the sightings of all names that are theirs, and their own acts.</summary>
    public IReadOnlyList<Sighting> SightingsOf(Guid student)
    {
        var own = Of(student).OwnSightings;
        var named = _names.Values.Where(n => StudentOf(n) == student).SelectMany(n => n.Sightings);
        return [.. named, .. own];
    }

    /// <summary>The message that an entry brought; null if it brought none.</summary>
    public ChatMessage? MessageOf(Guid entry) => _messages.GetValueOrDefault(entry);

    /// <summary>The question that an entry opened; null if it opened none.</summary>
    public Asking? AskingOf(Guid entry) => _askingOf.GetValueOrDefault(entry);

    /// <summary>The student whose name it is; null if nobody has said, or if it is not a student's.</summary>
    public Guid? StudentOf(NameState name) => name.Match?.Student is { } matched ? Whose(matched) : null;

    private static int InOrder(Entry a, Entry b)
    {
        var byTime = a.HappenedAt.CompareTo(b.HappenedAt);
        if (byTime != 0)
        {
            return byTime;
        }

        var byNoted = a.NotedAt.CompareTo(b.NotedAt);
        return byNoted != 0 ? byNoted : a.Id.CompareTo(b.Id);
    }

    /// <summary>An entry is struck out if an entry that is not itself struck out says so.</summary>
    private static HashSet<Guid> StruckOut(List<Entry> entries)
    {
        var strikes = entries.Where(e => e.Act is Struck).ToLookup(e => ((Struck)e.Act).Entry);
        var struck = new HashSet<Guid>();
        foreach (var target in strikes)
        {
            if (IsStruckOut(target.Key, strikes, depth: 0))
            {
                struck.Add(target.Key);
            }
        }

        return struck;
    }

    // A strike can only name an entry that was stored before it, so chains end; the depth is a guard against a damaged file.
    private static bool IsStruckOut(Guid id, ILookup<Guid, Entry> strikes, int depth) =>
        depth < 1000 && strikes[id].Any(s => !IsStruckOut(s.Id, strikes, depth + 1));

    private void Learn(Entry entry)
    {
        switch (entry.Act)
        {
            case NameAct act:
                NameOf(act.Name).Learn(act, entry);
                if (act is Renamed renamed)
                {
                    NameOf(renamed.To).WasCalled(renamed.Name);
                }

                break;
            case ChatSorted sorted:
                WordsOn(sorted.Message).Sorted = (sorted.Kind, entry.Id);
                break;
            case ChatHidden hidden:
                WordsOn(hidden.Message).Hidden = entry.Id;
                break;
            case ChatDealtWith done:
                WordsOn(done.Message).DealtWith = entry.Id;
                break;
            case MessageShown shown:
                WordsOn(shown.Message).Shown = entry.Id;
                break;
            case QuestionOpened opened:
                var asking = new Asking(opened, entry);
                _askings.Add(asking);
                _askingOf[entry.Id] = asking;
                break;
            case QuestionClosed closed:
                _askingOf.GetValueOrDefault(closed.Asking)?.Close(entry);
                break;
            case BallotsCounted counted:
                _askingOf.GetValueOrDefault(counted.Asking)?.Count(counted, entry, Whose);
                break;
            case KeyCorrected key:
                _askingOf.GetValueOrDefault(key.Asking)?.Correct(key, entry);
                break;
            case PageKnocked knocked:
                _visitors[knocked.Session] = new PageVisitor(knocked.Session, knocked.Name, entry.HappenedAt, null, null);
                break;
            case PageAdmitted admitted when _visitors.TryGetValue(admitted.Session, out var visitor):
                _visitors[admitted.Session] = visitor with { Student = admitted.Student is { } who ? Whose(who) : null, Word = entry.Id };
                break;
        }

        NameState NameOf(string name) => _names.TryGetValue(name, out var known) ? known : _names[name] = new NameState(name);

        MessageWords WordsOn(Guid message) => _saidOf.TryGetValue(message, out var known) ? known : _saidOf[message] = new MessageWords();
    }

    private void Apply(Entry entry)
    {
        switch (entry.Act)
        {
            case LessonStarted:
                StartedAt ??= entry.HappenedAt;
                break;
            case LessonEnded:
                EndedAt = entry.HappenedAt;
                foreach (var open in _askings)
                {
                    open.Close(entry);
                }

                break;
            case LessonSettled:
                SettledBy = entry.Id;
                break;
            case ReminderTicked ticked:
                _reminders[ticked.Reminder] = entry.Id;
                break;
            case RollCallTaken call:
                _rollCalls.Add(entry.HappenedAt);
                foreach (var student in call.Here)
                {
                    StateOf(Whose(student)).Glimpsed(entry);
                }

                break;
            case SignalRoundHeld round:
                Hold(round, entry);
                break;
            case StageMoved moved:
                _stageMoves.Add((moved.Stage, entry.HappenedAt));
                break;
            case StageExtended extended:
                _extended[extended.Stage] = _extended.GetValueOrDefault(extended.Stage) + extended.Minutes;
                break;
            case TimerStarted timer:
                Timer = new TaskTimer(timer.Task, entry.HappenedAt, entry.HappenedAt + Duration.FromSeconds(timer.Seconds), entry.Id);
                break;
            case TimerStopped:
                Timer = null;
                break;
            case GroupsMade made:
                _groups.Make([.. made.Groups.Select(g => g with { Members = [.. g.Members.Select(Whose).Distinct()] })]);
                break;
            case GroupRenamed renamed:
                _groups.Rename(renamed.Group, renamed.Name);
                break;
            case GroupsDissolved:
                _groups.Dissolve();
                break;
            case BoardPut put:
                _board[put.Item] = new OnBoard(put.Text, entry.HappenedAt, entry.Id);
                if (put.Item == BoardItem.Statement)
                {
                    _signals.Clear();
                }

                break;
            case ResultsPut results:
                _board[BoardItem.Results] = new OnBoard(null, entry.HappenedAt, entry.Id);
                ResultsUp = results;
                break;
            case BoardTaken taken:
                _board.Remove(taken.Item);
                ResultsUp = taken.Item == BoardItem.Results ? null : ResultsUp;
                break;
            case QuestionOpened { Group: { } group }:
                _askingOf[entry.Id].GoesToGroup(_groups.Groups.FirstOrDefault(g => g.Id == group)?.Members ?? []);
                break;
            case AnswersMarked marked when _askingOf.TryGetValue(marked.Asking, out var asked):
                foreach (var student in marked.Students)
                {
                    asked.Mark(Whose(student), marked.Marks, entry.Id);
                }

                break;
            case WordsMerged merged:
                _askingOf.GetValueOrDefault(merged.Asking)?.Merge(merged.Word, merged.Into);
                break;
            case RightRevealed revealed:
                _revealed.Add(revealed.Asking);
                break;
            case StudentAct act:
                ApplyTo(Whose(act.Student), act, entry);
                break;
            case NameAct act:
                ApplyTo(act, entry);
                break;
        }
    }

    private StudentState StateOf(Guid id) => _students.TryGetValue(id, out var known) ? known : _students[id] = new StudentState();

    private void ApplyTo(Guid id, StudentAct act, Entry entry)
    {
        StateOf(id).Apply(act, entry);
        switch (act)
        {
            case HandRaised raised:
                _line.Raise(id, entry.HappenedAt, entry.Id, raised.Ready);
                break;
            case HandEnded ended:
                _line.End(id, ended.End);
                break;
            case Called called:
                _line.Call(id, called, entry);
                break;
            case TurnTaken taken:
                _line.Take(id, taken.Outcome, taken.Origin, entry.HappenedAt, entry.Id);
                break;
            case PointCovered covered:
                _line.Cover(id, covered.Point, entry.Id);
                break;
            case GroupJoined joined:
                _groups.Move(id, joined.Group);
                foreach (var asking in _askings.Where(a => a.Group is not null && a.Group == joined.Group && a.WasOpenAt(entry.HappenedAt)))
                {
                    asking.GoesToGroup([id]);
                }

                break;
            case AnswerGiven given:
                _askingOf.GetValueOrDefault(given.Asking)?.Take(id, given.Answer, entry);
                break;
            case CannotAnswer cannot:
                _askingOf.GetValueOrDefault(cannot.Asking)?.Excuse(id, entry);
                break;
            case SignalGiven signal:
                _signals[id] = signal.Signal;
                break;
            case StudentWrote wrote:
                Say(id, "", wrote.Text, isPrivate: true, ChatKind.Unsorted, entry, wrote.Kind);
                break;
            case ChatSaid said:
                Say(id, "", said.Text ?? "", isPrivate: false, said.Kind, entry);
                break;
        }
    }

    private void ApplyTo(NameAct act, Entry entry)
    {
        var name = _names[act.Name];
        name.Apply(act, entry);
        // A hand of somebody who is not known yet stands in line under an id of its own, until the name is matched.
        var owner = StudentOf(name) ?? name.StandsFor;
        switch (act)
        {
            case Renamed renamed:
                _names[renamed.To].CameBy(renamed, entry);
                break;
            case Seen:
                _rollCalls.Add(entry.HappenedAt);
                break;
            case NameRaisedHand raised:
                _line.Raise(owner, entry.HappenedAt, entry.Id, raised.Ready);
                break;
            case NameLoweredHand lowered:
                _line.End(owner, lowered.End);
                break;
            case NameWrote wrote:
                Say(StudentOf(name), name.Name, wrote.Text, wrote.Private, ChatKind.Unsorted, entry);
                break;
        }
    }

    private void Say(Guid? student, string name, string text, bool isPrivate, ChatKind noted, Entry entry, ChatKind? chosen = null)
    {
        var words = _saidOf.GetValueOrDefault(entry.Id);
        var repeat = text.Length > 0 && RepeatsOf(text, student, name, entry.HappenedAt);
        var message = new ChatMessage(
            entry.Id, entry.HappenedAt, student, name, text, isPrivate, words?.Sorted?.Kind ?? noted,
            words?.Sorted?.By ?? (noted == ChatKind.Unsorted ? null : entry.Id), words?.Hidden, words?.DealtWith, repeat,
            chosen, words?.Shown, _askings.Any(a => a.Group is null && a.WasOpenAt(entry.HappenedAt)));
        _chat.Add(message);
        _messages[entry.Id] = message;
        if (student is { } known)
        {
            StateOf(known).Wrote(message);
        }
    }

    // Backwards and only as far as a repeat may lie, so that a long lesson does not make each message dearer.
    private bool RepeatsOf(string text, Guid? student, string name, Instant at)
    {
        for (var i = _chat.Count - 1; i >= 0 && at - _chat[i].At <= ChatMessage.RepeatWithin; i--)
        {
            if (_chat[i].Text == text && _chat[i].Student == student && _chat[i].Name == name)
            {
                return true;
            }
        }

        return false;
    }

    private void Hold(SignalRoundHeld round, Entry entry)
    {
        _rounds.Add(new HeldRound(round.Statement, round.Answered.Count, round.Silent.Count, round.LedBy, entry.HappenedAt, entry.Id));
        var answered = round.Answered.Select(Whose).ToHashSet();
        foreach (var student in answered)
        {
            StateOf(student).InRound(answered: true, entry);
        }

        foreach (var student in round.Silent.Select(Whose).Distinct().Where(s => !answered.Contains(s)))
        {
            StateOf(student).InRound(answered: false, entry);
        }
    }

    private sealed class MessageWords
    {
        public (ChatKind Kind, Guid By)? Sorted { get; set; }

        public Guid? Hidden { get; set; }

        public Guid? DealtWith { get; set; }

        public Guid? Shown { get; set; }
    }
}

/// <summary>Somebody who came to the student page with the code of the lesson and a name.</summary>
/// <param name="Session">Tells apart who came.</param>
/// <param name="Name">The name they gave.</param>
/// <param name="At">When.</param>
/// <param name="Student">The student they are, by the teacher's word; null while nobody has said, and if they were turned away.</param>
/// <param name="Word">The entry of the teacher's word; null while there is none.</param>
public sealed record PageVisitor(Guid Session, string Name, Instant At, Guid? Student, Guid? Word);

/// <summary>The time given for a task.</summary>
/// <param name="Task">What is to be done; may be empty.</param>
/// <param name="From">When it began to run.</param>
/// <param name="To">When it runs out.</param>
/// <param name="Entry">The entry that started it.</param>
public sealed record TaskTimer(string Task, Instant From, Instant To, Guid Entry);

/// <summary>A signal round that was held.</summary>
/// <param name="Statement">The statement.</param>
/// <param name="Answered">How many answered.</param>
/// <param name="Silent">How many were there and did not.</param>
/// <param name="LedBy">The student who led it, if one did.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry that says so.</param>
public sealed record HeldRound(string Statement, int Answered, int Silent, Guid? LedBy, Instant At, Guid Entry);

/// <summary>Something that is up on the class board.</summary>
/// <param name="Text">Its words, where they do not follow from the lesson.</param>
/// <param name="Since">When it was put up.</param>
/// <param name="Entry">The entry that put it up.</param>
public sealed record OnBoard(string? Text, Instant Since, Guid Entry);
