using NodaTime;
using PoliteTally.Core.Attendance;

namespace PoliteTally.Core.Ledger;

/// <summary>What the entries of a lesson say of one student, hands and turns apart.</summary>
public sealed class StudentState
{
    private readonly List<MarkMade> _marks = [];
    private readonly List<Sighting> _own = [];
    private readonly List<(ChatSaid Said, Entry Entry)> _chat = [];
    private readonly List<(NodGiven Nod, Entry Entry)> _nods = [];

    /// <summary>The teacher's marks, in order.</summary>
    public IReadOnlyList<MarkMade> Marks => _marks;

    /// <summary>The teacher's last word on the status, if there is one.</summary>
    public StatusWord? Declared { get; private set; }

    /// <summary>The excuse recorded last, if there is one.</summary>
    public ExcuseGiven? Excuse { get; private set; }

    /// <summary>Acts of their own that show that the student was there.</summary>
    public IReadOnlyList<Sighting> OwnSightings => _own;

    /// <summary>Contributions in the chat, in order.</summary>
    public IReadOnlyList<(ChatSaid Said, Entry Entry)> Chat => _chat;

    /// <summary>Nods, in order.</summary>
    public IReadOnlyList<(NodGiven Nod, Entry Entry)> Nods => _nods;

    internal void Apply(StudentAct act, Entry entry)
    {
        if (act.ShowsPresence)
        {
            _own.Add(new SeenAt(entry.HappenedAt, entry.Id));
        }

        switch (act)
        {
            case Marked marked:
                _marks.Add(new MarkMade(marked.Mark, entry.HappenedAt, entry.Id));
                break;
            case StatusDeclared declared:
                Declared = new StatusWord(declared.Status, entry.Id);
                break;
            case ExcuseRecorded excuse:
                Excuse = new ExcuseGiven(excuse.Reason, entry.Id);
                break;
            case ChatSaid said:
                _chat.Add((said, entry));
                break;
            case NodGiven nod:
                _nods.Add((nod, entry));
                break;
        }
    }
}

/// <summary>What the entries of a lesson say of one name shown in the meeting.</summary>
public sealed class NameState(string name)
{
    private readonly List<Sighting> _sightings = [];

    /// <summary>The name exactly as it was shown.</summary>
    public string Name { get; } = name;

    /// <summary>When it was seen.</summary>
    public IReadOnlyList<Sighting> Sightings => _sightings;

    /// <summary>The last word on whose name it is; null while nobody has said.</summary>
    public NameWord? Match { get; private set; }

    internal void Apply(NameAct act, Entry entry)
    {
        switch (act)
        {
            case Joined joined:
                _sightings.Add(new JoinAt(entry.HappenedAt, entry.Id, DeviceOf(joined.Device)));
                break;
            case Left left:
                _sightings.Add(new LeaveAt(entry.HappenedAt, entry.Id, DeviceOf(left.Device)));
                break;
            case Seen:
                _sightings.Add(new SeenAt(entry.HappenedAt, entry.Id));
                break;
            case Attended attended:
                _sightings.Add(new PresentFor(attended.Length, entry.HappenedAt, entry.Id));
                break;
            case NameMatched matched:
                Match = new NameWord(matched.Student, entry.Source, entry.Id);
                break;
        }
    }

    // The same device id under two names is two connections: files number devices name by name.
    private string DeviceOf(string device) => $"{Name}\n{device}";
}

/// <summary>Whose name it is: a student, or null for "not a student".</summary>
public sealed record NameWord(Guid? Student, Source Source, Guid Entry);

/// <summary>A mark of the teacher, and when it was made.</summary>
public sealed record MarkMade(Mark Mark, Instant At, Guid Entry);

/// <summary>The teacher's word on a status.</summary>
public sealed record StatusWord(AttendanceStatus Status, Guid Entry);

/// <summary>An excuse and its reason.</summary>
public sealed record ExcuseGiven(string Reason, Guid Entry);
