using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;

namespace PoliteTally.Core.Questions;

/// <summary>An answer of a student.</summary>
/// <param name="Answer">What they answered last.</param>
/// <param name="At">When.</param>
/// <param name="Entry">The entry that says so.</param>
/// <param name="ByTeacher">Whether the teacher entered it for them.</param>
/// <param name="Marks">The marks that came with it, from 0 to 1, if they count; null else.</param>
public sealed record GivenAnswer(Answer Answer, Instant At, Guid Entry, bool ByTeacher, decimal? Marks = null);

/// <summary>A question that was opened in a lesson, with what came of it.</summary>
public sealed class Asking
{
    /// <summary>
    /// Of an anonymous question with fewer answers than this nothing is shown and nothing is kept but their number: so few would say who said
    /// what. 5.
    /// </summary>
    public const int FewestAnonymous = 5;

    private readonly object _holder;
    private readonly Dictionary<Guid, GivenAnswer> _answers;
    private readonly Dictionary<Guid, Guid> _cannot;
    private readonly Dictionary<Guid, (decimal Marks, Guid Entry)> _byHand;
    private readonly Dictionary<string, string> _merged;
    private readonly HashSet<Guid> _inGroup;
    private readonly List<Guid> _corrections;
    private readonly HashSet<Guid> _longerFor;
    private readonly Duration _longer;

    internal Asking(object holder, QuestionOpened opened, Entry entry)
    {
        _holder = holder;
        (_answers, _cannot, _byHand, _merged, _inGroup, _corrections) = ([], [], [], [], [], []);
        Id = OpenedBy = entry.Id;
        Question = opened.Question;
        Group = opened.Group;
        CopyOf = opened.CopyOf;
        OpenedAt = entry.HappenedAt;
        _longerFor = [.. opened.LongerFor];
        _longer = opened.Longer;
    }

    internal Asking(object holder, QuestionFromFile brought, Entry entry)
    {
        _holder = holder;
        (_answers, _cannot, _byHand, _merged, _inGroup, _corrections, _longerFor) = ([], [], [], [], [], [], []);
        Id = brought.Question.Id;
        OpenedBy = entry.Id;
        (Question, OpenedAt, ClosedAt) = (brought.Question, Instant.MaxValue, Instant.MinValue);
        (Brought, Ballots, BallotsCast) = (brought, brought.Ballots, brought.Question.Anonymous ? brought.Cast : 0);
        CountedBy = brought.Question.Anonymous ? entry.Id : null;
    }

    private Asking(object holder, Asking from)
    {
        _holder = holder;
        (_answers, _cannot, _byHand, _merged) = (new(from._answers), new(from._cannot), new(from._byHand), new(from._merged));
        (_inGroup, _corrections, _longerFor, _longer) = ([.. from._inGroup], [.. from._corrections], from._longerFor, from._longer);
        (OpenedBy, Brought) = (from.OpenedBy, from.Brought);
        (Id, Question, Group, CopyOf, OpenedAt, ClosedAt) = (from.Id, from.Question, from.Group, from.CopyOf, from.OpenedAt, from.ClosedAt);
        (Ballots, BallotsCast, TookPart, ClosedNoted, CountedBy) = (from.Ballots, from.BallotsCast, from.TookPart, from.ClosedNoted, from.CountedBy);
    }

    /// <summary>By what it is named: the id of the entry that opened it; of one that a file brought, that of the question.</summary>
    public Guid Id { get; }

    /// <summary>The entry that opened it, or that brought it in.</summary>
    public Guid OpenedBy { get; }

    /// <summary>What a file said of it; null if it was asked in the lesson itself.</summary>
    public QuestionFromFile? Brought { get; }

    /// <summary>The question as it was opened, with its key as corrected last.</summary>
    public Question Question { get; private set; }

    /// <summary>The group it went to; null for the whole class.</summary>
    public Guid? Group { get; }

    /// <summary>What this was asked again of; null if it was not.</summary>
    public Guid? CopyOf { get; }

    /// <summary>When it was opened.</summary>
    public Instant OpenedAt { get; private set; }

    /// <summary>When it was closed; null while it is open.</summary>
    public Instant? ClosedAt { get; private set; }

    /// <summary>The entries that corrected its key, in order.</summary>
    public IReadOnlyList<Guid> Corrections => _corrections;

    /// <summary>Answers by name, the latest of each student.</summary>
    public IReadOnlyDictionary<Guid, GivenAnswer> Answers => _answers;

    /// <summary>Who cannot answer it, each with the entry that says so.</summary>
    public IReadOnlyDictionary<Guid, Guid> Cannot => _cannot;

    /// <summary>Answers without names, in an order of their own; empty while it is open.</summary>
    public IReadOnlyList<Answer> Ballots { get; private set; } = [];

    /// <summary>How many answered without a name; 0 while it is open.</summary>
    public int BallotsCast { get; private set; }

    /// <summary>Who took part in an anonymous question, if that counts.</summary>
    public IReadOnlySet<Guid> TookPart { get; private set; } = new HashSet<Guid>();

    /// <summary>Words that count as another one, folded.</summary>
    public IReadOnlyDictionary<string, string> Merged => _merged;

    private Instant? ClosedNoted { get; set; }

    private Guid? CountedBy { get; set; }

    /// <summary>Whether its answers without names were counted.</summary>
    public bool IsCounted => CountedBy is not null;

    /// <summary>Whether answers are taken.</summary>
    public bool IsOpen => ClosedAt is null;

    /// <summary>Whether answers were taken at a moment.</summary>
    public bool WasOpenAt(Instant moment) => moment >= OpenedAt && (ClosedAt is not { } closed || moment < closed);

    /// <summary>Whether the question goes to a student: to the whole class, or to whoever was in its group while it was open.</summary>
    /// <param name="student">The id of the student.</param>
    /// <param name="groups">The groups of the lesson.</param>
    public bool GoesTo(Guid student, GroupsNow groups) => Group is not { } group || _inGroup.Contains(student)
        || groups.Joins.Any(j => j.Group == group && j.Student == student && WasOpenAt(j.At));

    /// <summary>When a student's time runs out; null without a limit.</summary>
    public Instant? DeadlineOf(Guid student) => Question.TimeLimit is { } limit
        ? OpenedAt + limit + (_longerFor.Contains(student) ? _longer : Duration.Zero)
        : null;

    /// <summary>The marks of a student's answer; null if there is none, or if it has none.</summary>
    public decimal? MarksOf(Guid student) => _answers.TryGetValue(student, out var given)
        ? AnswerRules.MarksOf(Question, given.Answer, _byHand.TryGetValue(student, out var hand) ? hand.Marks : given.Marks)
        : null;

    /// <summary>
    /// What the question is for the score of a student; null if it does not count for them: they were neither present for half of its open time
    /// nor missed it by coming late or leaving early nor answered, were excused from it, or it is anonymous and does not count. A question that is still open counts for those who answered.
    /// </summary>
    /// <param name="student">The id of the student.</param>
    /// <param name="attendance">Where they were.</param>
    /// <param name="bridge">The longest gap in their presence that is bridged.</param>
    /// <param name="groups">The groups of the lesson.</param>
    public QuestionChance? ChanceOf(Guid student, AttendanceResult attendance, Duration bridge, GroupsNow groups)
    {
        if (Question.Anonymous)
        {
            if (!Question.CountsTakingPart || ClosedAt is null || CountedBy is not { } counted)
            {
                return null;
            }

            return TookPart.Contains(student) ? new QuestionChance(true, 0, 0, [counted])
                : Unanswered() is (true, var missedIt) ? new QuestionChance(false, 0, 0, [counted], missedIt) : null;
        }

        if (_answers.TryGetValue(student, out var given))
        {
            var marks = MarksOf(student);
            return new QuestionChance(true, marks ?? 0, marks is null ? 0 : 1, RestsOn(given.Entry));
        }

        return Unanswered() is (true, var missed) ? new QuestionChance(false, 0, AnswerRules.Possible(Question), RestsOn(OpenedBy), missed) : null;

        (bool Counts, bool Missed) Unanswered() => GoesTo(student, groups) && !_cannot.ContainsKey(student) && ClosedAt is { } closed && attendance.WasThere
            ? attendance.WasAsked(OpenedAt, DeadlineOf(student) is { } deadline ? Instant.Min(closed, deadline) : closed, bridge)
            : (false, false);

        IReadOnlyList<Guid> RestsOn(Guid first) =>
            [first, .. _byHand.TryGetValue(student, out var hand) ? [hand.Entry] : Array.Empty<Guid>(), .. _corrections];
    }

    /// <summary>Whether this one is still being made by whoever asks; what another made is not changed any more.</summary>
    internal bool IsHeldBy(object holder) => ReferenceEquals(_holder, holder);

    internal Asking CopyFor(object holder) => new(holder, this);

    internal void GoesToGroup(IEnumerable<Guid> members) => _inGroup.UnionWith(members);

    internal void Close(Entry entry)
    {
        ClosedAt ??= Instant.Max(entry.HappenedAt, OpenedAt);
        ClosedNoted ??= entry.NotedAt;
    }

    internal void Correct(KeyCorrected key, Entry entry)
    {
        Question = key.In(Question);
        _corrections.Add(entry.Id);
    }

    internal void Count(BallotsCounted counted, Entry entry, Func<Guid, Guid> whose)
    {
        (Ballots, BallotsCast, CountedBy) = (counted.Answers, counted.Cast, entry.Id);
        TookPart = counted.TookPart.Select(whose).ToHashSet();
        Close(entry);
    }

    internal void Merge(string word, string into) => _merged[word] = into;

    internal void Mark(Guid student, decimal marks, Guid entry) => _byHand[student] = (marks, entry);

    // What was acknowledged while it was open counts, whatever the clocks say: the ledger's own order decides.
    internal void Take(Guid student, Answer answer, Entry entry)
    {
        if (InTime(entry))
        {
            _answers[student] = new GivenAnswer(answer, entry.HappenedAt, entry.Id, entry.Source == Source.Tapped);
            _cannot.Remove(student);
        }
    }

    internal void TakeFromFile(Guid student, Answer answer, decimal? marks, Entry entry)
    {
        if (!Question.Anonymous && AnswerRules.WhyRefused(Question, answer) is null)
        {
            _answers[student] = new GivenAnswer(answer, entry.HappenedAt, entry.Id, ByTeacher: false, marks);
            _cannot.Remove(student);
        }
    }

    // Two versions of a file say together from when to when answers came in.
    internal void OpenFrom(Instant from, Instant to) => (OpenedAt, ClosedAt) = (Instant.Min(OpenedAt, from), Instant.Max(ClosedAt ?? to, to));

    internal void Excuse(Guid student, Entry entry)
    {
        if (InTime(entry))
        {
            _cannot[student] = entry.Id;
            _answers.Remove(student);
        }
    }

    private bool InTime(Entry entry) => entry.Source == Source.Tapped || ClosedNoted is null || entry.NotedAt < ClosedNoted;
}
