using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Ledger;

/// <summary>How entries are taken: first what they say of names, messages and questions, then what happened.</summary>
public sealed partial class LessonState
{
    private Instant _lastNoted = Instant.MinValue;

    /// <summary>Takes entries that happened after all there are, in order.</summary>
    /// <returns>False if they change whose a name is that acts of it were counted for already; then all is to be folded anew.</returns>
    private bool Take(Entry[] more)
    {
        _entries = _entries.Count == 0 ? new GrowingList<Entry>(more) : _entries.With(more);
        _struck.UnionWith(Strikes.In(more));
        var standing = _struck.Count == 0 ? more : [.. more.Where(e => !_struck.Contains(e.Id))];
        var speaksOfNames = standing.Any(e => e.Act is NameMatched or Renamed);
        HashSet<string> counted = speaksOfNames ? [.. _names.Keys] : [];
        // What is said of names and of messages counts for what came before it, too.
        foreach (var entry in standing)
        {
            Learn(entry);
        }

        if (speaksOfNames && !SettleNames(counted))
        {
            return false;
        }

        foreach (var entry in standing)
        {
            Apply(entry);
        }

        foreach (var entry in more)
        {
            _lastNoted = Instant.Max(_lastNoted, entry.NotedAt);
        }

        return true;
    }

    private bool SettleNames(HashSet<string> counted)
    {
        foreach (var name in _names.Values.ToList())
        {
            var match = name.WordThrough(_names);
            if (match == name.Match)
            {
                continue;
            }

            if (counted.Contains(name.Name) && match?.Student != name.Match?.Student)
            {
                return false;
            }

            NameOf(name.Name).Match = match;
        }

        return true;
    }

    private void Learn(Entry entry)
    {
        switch (entry.Act)
        {
            case StudentAct:
                break;
            case NameAct act:
                NameOf(act.Name).Learn(act, entry);
                if (act is Renamed renamed)
                {
                    NameOf(renamed.To).WasCalled(renamed.Name);
                }

                break;
            case ChatSorted sorted:
                _saidOf[sorted.Message] = WordsOn(sorted.Message) with { Sorted = (sorted.Kind, entry.Id) };
                break;
            case ChatHidden hidden:
                _saidOf[hidden.Message] = WordsOn(hidden.Message) with { Hidden = entry.Id };
                break;
            case ChatDealtWith done:
                _saidOf[done.Message] = WordsOn(done.Message) with { DealtWith = entry.Id };
                break;
            case MessageShown shown:
                _saidOf[shown.Message] = WordsOn(shown.Message) with { Shown = entry.Id, WithoutName = shown.WithoutName };
                break;
            case QuestionOpened opened:
                _askings.Add(new Asking(this, opened, entry));
                break;
            case QuestionClosed closed:
                MyAsking(closed.Asking)?.Close(entry);
                break;
            case BallotsCounted counted:
                MyAsking(counted.Asking)?.Count(counted, entry, Whose);
                break;
            case KeyCorrected key:
                MyAsking(key.Asking)?.Correct(key, entry);
                break;
            case PageKnocked knocked:
                _visitors[knocked.Session] = new PageVisitor(knocked.Session, knocked.Name, entry.HappenedAt, null, null);
                break;
            case PageAdmitted admitted when _visitors.TryGetValue(admitted.Session, out var visitor):
                _visitors[admitted.Session] = visitor with { Student = admitted.Student is { } who ? Whose(who) : null, Word = entry.Id };
                break;
        }

        MessageWords WordsOn(Guid message) => _saidOf.GetValueOrDefault(message) ?? new MessageWords();
    }

    private void Apply(Entry entry)
    {
        switch (entry.Act)
        {
            case StudentAct act:
                ApplyTo(Whose(act.Student), act, entry);
                break;
            case NameAct act:
                ApplyTo(act, entry);
                break;
            case LessonStarted:
                StartedAt ??= entry.HappenedAt;
                break;
            case LessonEnded:
                (EndedAt, EndedBy) = (entry.HappenedAt, entry.Id);
                for (var i = 0; i < _askings.Count; i++)
                {
                    MyAsking(i).Close(entry);
                }

                break;
            case LessonSettled:
                SettledBy = entry.Id;
                break;
            case ReminderTicked ticked:
                _reminders[ticked.Reminder] = entry.Id;
                break;
            case RollCallTaken call:
                _rollCalls.Add(new RollCall(entry.HappenedAt, entry.Id, call.Here.Select(Whose).ToHashSet()));
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
                var until = entry.HappenedAt + Duration.FromSeconds(timer.Seconds);
                _timers = [.. _timers.Where(t => t.Group != timer.Group), new TaskTimer(timer.Task, entry.HappenedAt, until, timer.Group)];
                break;
            case TimerStopped stopped:
                _timers = [.. _timers.Where(t => t.Group != stopped.Group)];
                break;
            case GroupsMade made:
                MyGroups().Make([.. made.Groups.Select(g => g with { Members = [.. g.Members.Select(Whose).Distinct()] })]);
                break;
            case GroupRenamed renamed:
                MyGroups().Rename(renamed.Group, renamed.Name);
                break;
            case GroupsDissolved:
                MyGroups().Dissolve();
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
                MyAsking(entry.Id)!.GoesToGroup(_groups.Groups.FirstOrDefault(g => g.Id == group)?.Members ?? []);
                break;
            case AnswersMarked marked when MyAsking(marked.Asking) is { } asked:
                foreach (var student in marked.Students)
                {
                    asked.Mark(Whose(student), marked.Marks, entry.Id);
                }

                break;
            case WordsMerged merged:
                MyAsking(merged.Asking)?.Merge(merged.Word, merged.Into);
                break;
            case RightRevealed revealed:
                _revealed.Add(revealed.Asking);
                break;
        }
    }

    private void ApplyTo(Guid id, StudentAct act, Entry entry)
    {
        StateOf(id).Apply(act, entry);
        switch (act)
        {
            case HandRaised raised:
                MyLine().Raise(id, entry.HappenedAt, entry.Id, raised.Ready);
                break;
            case HandEnded ended:
                MyLine().End(id, ended.End);
                break;
            case Called { By: { } by } handed:
                MyLine().Take(Whose(by), TurnOutcome.Full, TurnOrigin.Invited, entry.HappenedAt, entry.Id);
                StateOf(Whose(by)).Glimpsed(entry);
                MyLine().Call(id, handed, entry);
                break;
            case Called called:
                MyLine().Call(id, called, entry);
                break;
            case TurnTaken taken:
                MyLine().Take(id, taken.Outcome, taken.Origin, entry.HappenedAt, entry.Id);
                break;
            case PointCovered covered:
                MyLine().Cover(id, covered.Point, entry.Id);
                break;
            case GroupJoined joined:
                MyGroups().Move(id, joined.Group);
                for (var i = 0; i < _askings.Count; i++)
                {
                    if (_askings[i] is { Group: { } group } open && group == joined.Group && open.WasOpenAt(entry.HappenedAt))
                    {
                        MyAsking(i).GoesToGroup([id]);
                    }
                }

                break;
            case AnswerGiven given:
                MyAsking(given.Asking)?.Take(id, given.Answer, entry);
                break;
            case CannotAnswer cannot:
                MyAsking(cannot.Asking)?.Excuse(id, entry);
                break;
            case SignalGiven signal:
                var inRound = _board.ContainsKey(BoardItem.Statement);
                StateOf(id).Signals(signal.Signal, entry, ofOwnAccord: !inRound);
                if (inRound)
                {
                    _signals[id] = signal.Signal;
                }

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
        var name = NameOf(act.Name);
        name.Apply(act, entry);
        // A hand of somebody who is not known yet stands in line under an id of its own, until the name is matched.
        var owner = StudentOf(name) ?? name.StandsFor;
        switch (act)
        {
            case Renamed renamed:
                NameOf(renamed.To).CameBy(renamed, entry);
                break;
            case Seen:
                SawListAt(entry.HappenedAt);
                break;
            case NameRaisedHand raised:
                MyLine().Raise(owner, entry.HappenedAt, entry.Id, raised.Ready);
                break;
            case NameLoweredHand lowered:
                MyLine().End(owner, lowered.End);
                break;
            // A reaction counts for nothing, whatever the class has agreed on signals: the meeting's have a meaning of their own.
            case NameReacted reacted when StudentOf(name) is { } reacting:
                StateOf(reacting).Signals(reacted.Reaction, entry, ofOwnAccord: false);
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
            chosen, words?.Shown, _askings.Count > 0 && _askings.Exists(a => a.Group is null && a.WasOpenAt(entry.HappenedAt)), words is { WithoutName: true });
        AddMessage(message);
        if (student is { } known)
        {
            StateOf(known).Wrote(message);
        }
    }

    // Backwards and only as far as a repeat may lie, so that a long lesson does not make each message dearer.
    private bool RepeatsOf(string text, Guid? student, string name, Instant at)
    {
        for (var i = _chat.Count - 1; i >= 0; i--)
        {
            var before = _chat[i];
            if (at - before.At > ChatMessage.RepeatWithin)
            {
                break;
            }

            if (before.Student == student && before.Text == text && before.Name == name)
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

    private void SawListAt(Instant at)
    {
        if (_listsSeen.Count == 0 || _listsSeen[^1] != at)
        {
            _listsSeen.Add(at);
        }
    }

    private sealed record MessageWords(
        (ChatKind Kind, Guid By)? Sorted = null, Guid? Hidden = null, Guid? DealtWith = null, Guid? Shown = null, bool WithoutName = false);
}
