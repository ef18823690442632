using NodaTime;
using PoliteTally.Core.Board;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Names;
using PoliteTally.Core.Questions;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Board;
using PoliteTally.Web.Features.Live;

namespace PoliteTally.Web.Features.StudentPage;

/// <summary>All that a student page shows.</summary>
/// <param name="Now">The time by the server's clock.</param>
/// <param name="Lesson">What everybody in the lesson sees; null for somebody who is not in.</param>
/// <param name="Own">What this student alone sees.</param>
public sealed record PageView(Instant Now, PageLesson? Lesson, PageOwn Own);

/// <summary>What everybody in the lesson sees on their page. Nothing of it is about a student but what the teacher showed.</summary>
/// <param name="Board">What is on the class board.</param>
/// <param name="Signals">What the class's signals mean, while they can be given; null else.</param>
/// <param name="Said">Messages from student pages that the teacher shows.</param>
public sealed record PageLesson(
    string ClassName, string Title, LessonStage Stage, BoardView Board, IReadOnlyList<string>? Signals, IReadOnlyList<PageMessage> Said)
{
    private const int MostSaid = 30;

    internal static PageLesson Of(OpenLesson open, LessonState state, Instant now) => new(
        open.ClassName, open.Lesson.Title, open.Lesson.Stage, BoardView.Of(open, state, now),
        open.Lesson.Stage == LessonStage.Live && (open.Rules.SignalsAnyTime || state.Board.Items.ContainsKey(BoardItem.Statement)) ? [.. open.Rules.Signals.Select(s => s.Meaning)] : null,
        [.. ShownMessages.In(open, state).TakeLast(MostSaid)]);
}

/// <summary>How far somebody has come in.</summary>
public enum PageStanding
{
    /// <summary>Gave a name; the teacher has not said who it is.</summary>
    Waiting,

    /// <summary>Turned away by the teacher.</summary>
    TurnedAway,

    /// <summary>In.</summary>
    In,
}

/// <summary>What a student alone sees on their page.</summary>
/// <param name="Called">What they are called; for somebody who waits, the name they gave.</param>
/// <param name="Hand">Their hand in the line; null while it is down.</param>
/// <param name="OnTurn">Whether it is their turn.</param>
/// <param name="MayHandOnTo">Who is here to hand on to, those in the line first; null while it is not their turn, and if the class leaves it to the teacher.</param>
/// <param name="Signal">The signal they gave in the signal round that is on.</param>
/// <param name="Questions">Questions that were put to them, the newest first.</param>
/// <param name="Wrote">What they wrote, in order.</param>
/// <param name="Strokes">What has been noted of them today, if the class shows it.</param>
/// <param name="Nods">What they were given a nod for today, in order, if the class has agreed that nods are seen.</param>
/// <param name="SeesScores">Whether they may read their own scores of the lessons before.</param>
public sealed record PageOwn(
    PageStanding Standing, string Called, string? Group, PageHand? Hand, bool OnTurn, IReadOnlyList<PageClassmate>? MayHandOnTo, string? Signal, IReadOnlyList<PageQuestion> Questions,
    IReadOnlyList<PageWrote> Wrote, PageStrokes? Strokes, IReadOnlyList<string> Nods, bool SeesScores)
{
    private const int MostQuestions = 20;
    private const int MostWrote = 30;

    internal static PageOwn Of(PageGuest guest)
    {
        if (guest.Student is not { } student)
        {
            return new PageOwn(guest.TurnedAway ? PageStanding.TurnedAway : PageStanding.Waiting, guest.Name, null, null, false, null, null, [], [], null, [], SeesScores: false);
        }

        var (open, state) = (guest.OpenLesson, guest.OpenLesson.State);
        var known = open.OnSheetOf(student)!;
        var line = state.HandLine.Hands.Where(h => h.InLine && (h.Student == student || !LiveRow.IsGone(h.Student, open, state))).ToList();
        var place = line.FindIndex(h => h.Student == student);
        return new PageOwn(
            PageStanding.In, ShortNames.CalledName(known.Name), state.Groups.Now.FirstOrDefault(g => g.Members.Contains(student))?.Name,
            place < 0 ? null : new PageHand(place + 1, line.Count, line[place].Ready, line[place].Stage == HandStage.Lapsed),
            state.HandLine.Current?.Student == student, open.Rules.StudentsHandOn && state.HandLine.Current?.Student == student ? [.. ClassmatesOf(student, open, state)] : null,
            state.Signals.InRound.GetValueOrDefault(student),
            [.. state.Questions.All.Where(a => a.GoesTo(student, state.Groups)).Reverse().OrderByDescending(a => a.IsOpen).Take(MostQuestions).Select(a => PageQuestion.Of(a, student, open, state))],
            [.. state.Chat.Of(student).Where(m => m.Chosen is not null).TakeLast(MostWrote)
                .Select(m => new PageWrote(m.Entry, ShownMessages.KindOf(m), m.Text, m.Shown is not null && m.Hidden is null))],
            open.Rules.PageShowsStrokes ? PageStrokes.Of(student, state, open) : null,
            open.Rules.NodsOnBoard == NodsOnBoard.Never ? [] : [.. state.Notes.NodsOf(student).Select(n => n.Nod.Reason)], guest.SeesScores);
    }

    /// <summary>Everybody else who is here and can speak, those in the line first and in its order.</summary>
    private static IEnumerable<PageClassmate> ClassmatesOf(Guid student, OpenLesson open, LessonState state)
    {
        var line = state.HandLine.Hands.Where(h => h.InLine).Select(h => h.Student).ToList();
        return open.ShortNames
            .Where(c => c.Key != student && state.HandLine.PausedBy(c.Key) is null
                && state.AttendanceOf(c.Key, open.Times, open.Rules.Scheme.Attendance).IsHere)
            .Select(c => (Place: line.IndexOf(c.Key), Mate: new PageClassmate(c.Key, c.Value)))
            .OrderBy(c => c.Place < 0).ThenBy(c => c.Place).ThenBy(c => c.Mate.Name, StringComparer.Ordinal)
            .Select(c => c.Mate);
    }
}

/// <summary>Somebody of the class to hand on to.</summary>
public sealed record PageClassmate(Guid Student, string Name);

/// <summary>A hand in the line: its place from 1, of how many.</summary>
public sealed record PageHand(int Place, int Of, bool Ready, bool Lapsed);

/// <summary>Something that the student wrote.</summary>
/// <param name="Shown">Whether the class sees it; else it is between the student and the teacher.</param>
public sealed record PageWrote(Guid Message, ChatKind Kind, string Text, bool Shown);

/// <summary>What has been noted of a student today.</summary>
public sealed record PageStrokes(int Speaking, int Questions, int Asked, int Chat, int Nods)
{
    internal static PageStrokes Of(Guid student, LessonState state, OpenLesson open)
    {
        var did = state.ParticipationOf(student, open.Times, open.Rules.Scheme);
        return new PageStrokes(
            did.Turns.Count(t => Scheme.CreditOf(t.Outcome) > 0), did.Questions.Count(q => q.Answered), did.Questions.Count,
            did.Chat.Count(c => Scheme.CreditOf(c.Kind) > 0), did.Nods.Count);
    }
}

/// <summary>A question as a student sees it: without its key, unless the teacher shows it.</summary>
/// <param name="Deadline">When this student's time runs out; null without a limit.</param>
/// <param name="Answer">What they answered; null if they have not, and of an anonymous question always.</param>
/// <param name="Answered">Whether they answered.</param>
/// <param name="Cannot">Whether they said that they cannot.</param>
/// <param name="Right">Options that were right, of a ranking in the right order; null unless shown.</param>
/// <param name="RightWords">What was right in words, for kinds without options; null unless shown.</param>
/// <param name="Marks">Their marks out of 1; null unless what was right is shown.</param>
public sealed record PageQuestion(
    Guid Asking, QuestionKind Kind, QuestionPurpose Purpose, string Text, IReadOnlyList<PageOption> Options, bool Anonymous, bool CountsTakingPart,
    bool ForGroup, int ScaleFrom, int ScaleTo, string ScaleFromLabel, string ScaleToLabel, int WordsEach, bool Open, Instant? Deadline, Answer? Answer,
    bool Answered, bool Cannot, IReadOnlyList<Guid>? Right, string? RightWords, decimal? Marks)
{
    internal static PageQuestion Of(Asking asking, Guid student, OpenLesson open, LessonState state)
    {
        var question = asking.Question;
        var answer = asking.Answers.GetValueOrDefault(student)?.Answer;
        var revealed = state.Questions.Revealed.Contains(asking.Id) && question.Purpose == QuestionPurpose.Quiz;
        return new PageQuestion(
            asking.Id, question.Kind, question.Purpose, question.Text, [.. QuestionSeen.Options(question).Select(PageOption.Of)],
            question.Anonymous, question.CountsTakingPart, asking.Group is not null, question.ScaleFrom, question.ScaleTo, question.ScaleFromLabel,
            question.ScaleToLabel, question.WordsEach, asking.IsOpen, asking.DeadlineOf(student), answer,
            answer is not null || (question.Anonymous && (open.HasCast(asking.Id, student) || asking.TookPart.Contains(student))),
            asking.Cannot.ContainsKey(student),
            !revealed ? null : question.Kind == QuestionKind.Ranking ? [.. question.Options.Select(o => o.Id)] : [.. question.Options.Where(o => o.Right).Select(o => o.Id)],
            revealed ? QuestionSeen.RightWords(question) : null, revealed ? asking.MarksOf(student) : null);
    }
}
