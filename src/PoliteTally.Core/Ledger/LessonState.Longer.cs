using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Questions;

namespace PoliteTally.Core.Ledger;

/// <summary>
/// How a state is made from an earlier one. The copy shares what it does not change: students, names and questions are copied when the first
/// entry about them is taken, the hand line and the chat as a whole.
/// </summary>
public sealed partial class LessonState
{
    private readonly Dictionary<Guid, StudentState> _students;
    private readonly Dictionary<string, NameState> _names;
    private readonly Dictionary<string, Guid> _reminders;
    private readonly Dictionary<Guid, MessageWords> _saidOf;
    private readonly List<RollCall> _rollCalls;
    private readonly List<Instant> _listsSeen;
    private readonly List<(Guid Stage, Instant At)> _stageMoves;
    private readonly Dictionary<Guid, int> _extended;
    private IReadOnlyList<TaskTimer> _timers = [];
    private readonly List<HeldRound> _rounds;
    private readonly SortedDictionary<BoardItem, OnBoard> _board;
    private readonly List<Asking> _askings;
    private readonly Dictionary<Guid, string> _signals;
    private readonly Dictionary<Guid, PageVisitor> _visitors;
    private readonly HashSet<Guid> _revealed;
    private readonly HashSet<Guid> _struck;
    private readonly IReadOnlyDictionary<Guid, Guid> _merged;
    private HandLine _line;
    private GroupsNow _groups;
    private List<ChatMessage> _chat;
    private Dictionary<Guid, ChatMessage> _messages;
    private bool _lineIsMine;
    private bool _groupsAreMine;
    private bool _chatIsMine;
    private GrowingList<Entry> _entries;

    /// <summary>The lesson as it stood some entries ago, from which a late entry is folded; null if it is not kept.</summary>
    private LessonState? _past;

    /// <summary>What becomes <see cref="_past"/> next.</summary>
    private LessonState? _nextPast;

    private LessonState(IReadOnlyDictionary<Guid, Guid> merged)
    {
        (_students, _names, _reminders, _saidOf) = ([], new(StringComparer.Ordinal), new(StringComparer.Ordinal), []);
        (_rollCalls, _listsSeen, _stageMoves, _extended, _rounds, _board) = ([], [], [], [], [], []);
        (_askings, _signals, _visitors, _revealed, _struck) = ([], [], [], [], []);
        (_line, _groups, _chat, _messages) = (new HandLine(), new GroupsNow(), [], []);
        (_lineIsMine, _groupsAreMine, _chatIsMine) = (true, true, true);
        (_merged, _entries) = (merged, new([]));
    }

    private LessonState(LessonState from)
    {
        (_students, _names, _reminders, _saidOf) = (new(from._students), new(from._names, StringComparer.Ordinal), new(from._reminders, StringComparer.Ordinal), new(from._saidOf));
        (_rollCalls, _listsSeen) = ([.. from._rollCalls], [.. from._listsSeen]);
        (_stageMoves, _extended, _rounds, _board) = ([.. from._stageMoves], new(from._extended), [.. from._rounds], new(from._board));
        (_askings, _signals, _visitors, _revealed, _struck) = ([.. from._askings], new(from._signals), new(from._visitors), [.. from._revealed], [.. from._struck]);
        (_line, _groups, _chat, _messages) = (from._line, from._groups, from._chat, from._messages);
        (_merged, _entries, _lastNoted) = (from._merged, from._entries, from._lastNoted);
        (StartedAt, EndedAt, EndedBy, SettledBy, _timers, ResultsUp) = (from.StartedAt, from.EndedAt, from.EndedBy, from.SettledBy, from._timers, from.ResultsUp);
    }

    private LessonState Copy() => new(this);

    /// <summary>A state with more entries behind all of its own; null if one of them says something of what is before them.</summary>
    private static LessonState? Extend(LessonState from, Entry[] more)
    {
        if (from._entries.Count > 0
            && (more[0].HappenedAt <= from._entries[^1].HappenedAt || !more.All(e => e.NotedAt > from._lastNoted) || from.IsSpokenOfBy(more)))
        {
            return null;
        }

        var longer = from.Copy();
        return longer.Take(more) ? longer : null;
    }

    /// <summary>Whether entries say something of what is here already that the fold has used: then all of it is to be folded anew.</summary>
    private bool IsSpokenOfBy(Entry[] more)
    {
        var among = new HashSet<Guid>(more.Length);
        foreach (var entry in more)
        {
            among.Add(entry.Id);
        }

        return _struck.Overlaps(among) || more.Any(entry => entry.Act switch
        {
            Struck struck => !struck.Entries.All(among.Contains),
            ChatAct said => !among.Contains(said.Message),
            // How a question ended is told by whatever ended it first.
            QuestionClosed closed => !among.Contains(closed.Asking) && AskingOf(closed.Asking) is not { IsOpen: true },
            BallotsCounted or KeyCorrected => true,
            // The end of a lesson closes whatever was opened in it.
            QuestionOpened => EndedAt is not null,
            _ => false,
        });
    }

    private StudentState StateOf(Guid id)
    {
        if (!_students.TryGetValue(id, out var known) || !known.IsHeldBy(this))
        {
            _students[id] = known = known?.CopyFor(this) ?? new StudentState(this);
        }

        return known;
    }

    private NameState NameOf(string name)
    {
        if (!_names.TryGetValue(name, out var known) || !known.IsHeldBy(this))
        {
            _names[name] = known = known?.CopyFor(this) ?? new NameState(this, name);
        }

        return known;
    }

    /// <summary>The question that an entry opened, to be changed; null if it opened none.</summary>
    private Asking? MyAsking(Guid id)
    {
        var index = _askings.FindIndex(a => a.Id == id);
        return index < 0 ? null : MyAsking(index);
    }

    private Asking MyAsking(int index) => _askings[index].IsHeldBy(this) ? _askings[index] : _askings[index] = _askings[index].CopyFor(this);

    private HandLine MyLine()
    {
        if (!_lineIsMine)
        {
            (_line, _lineIsMine) = (_line.Copy(), true);
        }

        return _line;
    }

    private GroupsNow MyGroups()
    {
        if (!_groupsAreMine)
        {
            (_groups, _groupsAreMine) = (_groups.Copy(), true);
        }

        return _groups;
    }

    private void AddMessage(ChatMessage message)
    {
        if (!_chatIsMine)
        {
            (_chat, _messages, _chatIsMine) = ([.. _chat], new(_messages), true);
        }

        _chat.Add(message);
        _messages[message.Entry] = message;
    }
}
