using System.Security.Cryptography;
using System.Text;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Questions;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;

namespace PoliteTally.Demo;

/// <summary>Entries noted together, or an answer without a name.</summary>
internal sealed record Noted(Instant NotedAt, Source Source, string By, IReadOnlyList<NewEntry> Entries, Ballot? Ballot = null);

/// <summary>What is noted of a lesson, written down as it would be tapped.</summary>
internal sealed class Script(Lesson lesson)
{
    private const string Teacher = "Tamsin Vale";

    private readonly List<Noted> _noted = [];

    public Instant From => lesson.PlannedStart;

    public Instant To => lesson.PlannedEnd;

    public IEnumerable<Noted> InOrder() => _noted.OrderBy(n => n.NotedAt);

    /// <summary>A moment so many minutes into the lesson.</summary>
    public Instant At(double minutes) => From + Duration.FromSeconds(Math.Round(minutes * 60));

    public void Start(double minute = 0) => Tap(minute, new LessonStarted());

    public void End(double minute) => Tap(minute, new LessonEnded());

    /// <summary>The register confirmed three quarters of an hour after the lesson.</summary>
    public void Settle() => Note(To + Duration.FromMinutes(45), Source.Tapped, Teacher, new LessonSettled());

    public void Remembered(double minute, string reminder, string? readAloud) => Tap(minute, new ReminderTicked(reminder, readAloud));

    public void Here(double minute, Student student) => Tap(minute, new Marked(student.Id, Mark.Here));

    public void Late(double minute, Student student) => Tap(minute, new Marked(student.Id, Mark.Late));

    public void Left(double minute, Student student) => Tap(minute, new Marked(student.Id, Mark.Left));

    public void Excuse(double minute, Student student, string reason) => Tap(minute, new ExcuseRecorded(student.Id, reason));

    public void HandUp(double minute, Student student) => Tap(minute, new HandRaised(student.Id));

    public void HandLapsed(double minute, Student student) => Tap(minute, new HandEnded(student.Id, HandEnd.Lapsed));

    public void Call(double minute, Student student, TurnOrigin origin) => Tap(minute, new Called(student.Id, origin));

    public void Outcome(double minute, Student student, TurnOutcome outcome, TurnOrigin origin) =>
        Tap(minute, new TurnTaken(student.Id, outcome, origin));

    /// <summary>A whole turn: a hand if there was one, the call, and how it went.</summary>
    public void Turn(double minute, Student student, TurnOrigin origin, TurnOutcome outcome, double waited)
    {
        if (origin == TurnOrigin.Hand)
        {
            HandUp(minute - waited, student);
        }

        Call(minute, student, origin);
        Outcome(minute + 1.1, student, outcome, origin);
    }

    /// <summary>A message, as it was tapped; says which entry it became.</summary>
    public Guid Chat(double minute, Student student, ChatKind kind, string? text, string by = Teacher) =>
        Note(At(minute), Source.Tapped, by, new ChatSaid(student.Id, kind, text));

    /// <summary>Something that somebody else than the teacher noted.</summary>
    public void By(double minute, string who, Act act) => Note(At(minute), Source.Tapped, who, act);

    /// <summary>A question that was opened to the whole class; says which entry it became.</summary>
    public Guid Open(double minute, Question question) =>
        Note(At(minute), Source.Tapped, Teacher, new QuestionOpened(question, null, null, [], Duration.Zero));

    /// <summary>Something that a student did on their page.</summary>
    public void Page(double minute, Act act) => Note(At(minute), Source.Page, "", act);

    /// <summary>An answer without a name.</summary>
    public void Ballot(double minute, Guid asking, Student student, Answer answer) =>
        _noted.Add(new Noted(At(minute), Source.Page, "", [], new Ballot { Id = Guid.NewGuid(), Asking = asking, Student = student.Id, Answer = answer }));

    /// <summary>Something that the meeting told.</summary>
    public void Meeting(double minute, Act act) => Note(At(minute), Source.Feed, "Meeting", act);

    public void Nod(double minute, Student student, string reason) => Tap(minute, new NodGiven(student.Id, reason));

    /// <summary>An attendance list brought in a quarter of an hour after the lesson, its names matched.</summary>
    public void AttendanceList(string fileName, IEnumerable<Visit> visits, IReadOnlyDictionary<string, Guid?> whose)
    {
        var noted = To + Duration.FromMinutes(15);
        var list = visits.ToList();
        var file = New(noted, new FileBroughtIn(FileKind.Attendance, fileName, list.Count, Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(fileName)))));
        var sightings = list.SelectMany(visit => new[]
        {
            New(visit.Joined, new Joined(visit.Name, $"{visit.Joined}")), New(visit.Left, new Left(visit.Name, $"{visit.Joined}")),
        });
        var names = list.Select(v => v.Name).Distinct().Select(name => New(noted, new NameMatched(name, whose[name])));
        _noted.Add(new Noted(noted, Source.File, fileName, [.. sightings.Concat(names).Select(e => e with { Together = file.Id }), file]));
    }

    public void Tap(double minute, Act act) => Note(At(minute), Source.Tapped, Teacher, act);

    private Guid Note(Instant at, Source source, string by, Act act)
    {
        var entry = New(at, act);
        _noted.Add(new Noted(at, source, by, [entry]));
        return entry.Id;
    }

    private static NewEntry New(Instant at, Act act) => new(Guid.CreateVersion7(at.ToDateTimeOffset()), at, act);
}
