using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Names;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Mail;

namespace PoliteTally.Web.Features.WordAhead;

/// <summary>
/// Sends the word ahead of lessons when it is due. Each message is noted before it goes and again when it has gone, so that a
/// restart goes on where it stopped and nobody gets it twice. What was on its way when the program stopped is said to be
/// in doubt, and not sent again by itself. What nobody could take just now is tried again until the lesson begins.
/// </summary>
public sealed class WordAheadSender(SchoolFile file, IMail mail, IClock clock, TimeProvider timers, ILogger<WordAheadSender> log) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);
    private static readonly Duration UntilNextTry = Duration.FromSeconds(30);
    private static readonly Duration LongestAhead = Duration.FromMinutes(1440);

    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly OnItsOwn _each = new(log, "The word ahead of lesson");

    /// <summary>Sends whatever is due now.</summary>
    public async Task SendDue(CancellationToken stopping)
    {
        var now = clock.GetCurrentInstant();
        List<(Guid Owner, Guid Lesson)> due;
        await using (var all = file.Open(Guid.Empty))
        {
            var (ahead, earlier) = (now + LongestAhead, now - UntilNextTry);
            var soon = await all.Lessons.IgnoreQueryFilters().AsNoTracking().Include(l => l.Class)
                .Where(l => l.Stage == LessonStage.Planned && l.CancelledAt == null && l.PlannedStart > now && l.PlannedStart <= ahead
                    && l.Class!.ArchivedAt == null && !all.WordOfLessons.IgnoreQueryFilters().Any(w => w.LessonId == l.Id
                        && (w.State == WordState.Sent || w.State == WordState.NotSent || (w.State == WordState.Delayed && w.At > earlier))))
                .ToListAsync(stopping);
            due = [.. soon.Where(l => RulesJson.Of(l, l.Class!).WordAhead.GoesNow(l.PlannedStart, now)).Select(l => (l.OwnerId, l.Id))];
        }

        foreach (var (owner, lesson) in due)
        {
            await _each.Do(lesson, () => Send(owner, lesson, again: false, stopping), stopping);
        }
    }

    /// <summary>Sends the word of one lesson to all of its students who have not had it.</summary>
    /// <param name="owner">Whose lesson.</param>
    /// <param name="lessonId">The lesson.</param>
    /// <param name="again">Whether the teacher asks for it: then those in doubt, and those whom it could not reach, are tried again.</param>
    /// <param name="stopping">Stops between two messages.</param>
    public async Task Send(Guid owner, Guid lessonId, bool again, CancellationToken stopping)
    {
        await _one.WaitAsync(stopping);
        try
        {
            await using var db = file.Open(owner);
            if (await db.Lessons.Include(l => l.Class).FirstOrDefaultAsync(l => l.Id == lessonId, stopping) is not { } lesson)
            {
                return;
            }

            var teacher = await db.Users.SingleAsync(u => u.Id == owner, stopping);
            var word = RulesJson.Of(lesson, lesson.Class!).WordAhead;
            var whole = await db.WordOfLessons.FirstOrDefaultAsync(w => w.LessonId == lessonId, stopping);
            if (whole is null)
            {
                db.WordOfLessons.Add(whole = new WordOfLesson { LessonId = lessonId });
            }

            (whole.State, whole.At, whole.Said) = (WordState.Going, clock.GetCurrentInstant(), "");
            await db.SaveChangesAsync(stopping);
            var sent = await db.WordsSent.Where(w => w.LessonId == lessonId).ToDictionaryAsync(w => w.StudentId, stopping);
            var roster = Rosters.Of(db, lesson);
            foreach (var student in roster.Where(s => s.Name.Email is not null))
            {
                stopping.ThrowIfCancellationRequested();
                if (sent.TryGetValue(student.Name.Id, out var before) && !(again && before.State != WordState.Sent))
                {
                    continue;
                }

                if (await SendOne(student.Name, before, lesson, word, teacher, db, stopping) is { } delay)
                {
                    // Whoever comes next would not be reached either.
                    (whole.State, whole.At) = (WordState.Delayed, clock.GetCurrentInstant());
                    whole.Said = $"{delay} It is tried again until the lesson begins.";
                    await db.SaveChangesAsync(CancellationToken.None);
                    return;
                }
            }

            await Conclude(whole, roster, db, stopping);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>The message to one student.</summary>
    public static WordFacts FactsOf(RosterName student, Lesson lesson, Teacher teacher)
    {
        var start = lesson.PlannedStart.InZone(DateTimeZoneProviders.Tzdb[teacher.TimeZone]);
        return new WordFacts(
            ShortNames.CalledName(student), lesson.Class!.Name, lesson.Title,
            start.ToString("dddd d MMMM", System.Globalization.CultureInfo.GetCultureInfo("en-GB")),
            start.ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture), lesson.MeetingLink ?? "", teacher.DisplayName);
    }

    /// <summary>The message to one student as it goes; its id tells the post that one sent again is the same.</summary>
    public static MimeMessage MessageTo(
        RosterName student, IReadOnlyList<string> addresses, Lesson lesson, Core.GroundRules.WordAhead word, Teacher teacher, IMail mail, string id, Instant now)
    {
        var facts = FactsOf(student, lesson, teacher);
        var message = new MimeMessage { Subject = word.SubjectFor(facts), Date = now.ToDateTimeOffset() };
        message.MessageId = $"{id}@polite-tally";
        message.From.Add(mail.From(teacher.DisplayName));
        message.ReplyTo.Add(new MailboxAddress(teacher.DisplayName, teacher.Email!));
        message.To.AddRange(addresses.Select(a => new MailboxAddress($"{student.Given} {student.Family}".Trim(), a)));
        message.Body = new TextPart("plain") { Text = word.TextFor(facts) };
        return message;
    }

    /// <inheritdoc/>
    protected override Task ExecuteAsync(CancellationToken stoppingToken) => _each.Every(Pause, timers, () => SendDue(stoppingToken), stoppingToken);

    /// <summary>Sends one message and notes what became of it.</summary>
    /// <returns>Why nobody can be reached just now; null if somebody took or refused it.</returns>
    private async Task<string?> SendOne(
        RosterName student, WordSent? row, Lesson lesson, Core.GroundRules.WordAhead word, Teacher teacher, SchoolDb db, CancellationToken stopping)
    {
        if (row is null)
        {
            db.WordsSent.Add(row = new WordSent { LessonId = lesson.Id, StudentId = student.Id, Address = student.Email! });
        }

        (row.State, row.At, row.Why) = (WordState.Going, clock.GetCurrentInstant(), "");
        await db.SaveChangesAsync(stopping);
        try
        {
            using var message = MessageTo(student, [student.Email!], lesson, word, teacher, mail, $"{lesson.Id:N}.{student.Id:N}", clock.GetCurrentInstant());
            await mail.Send(message, teacher.Id, stopping);
            row.State = WordState.Sent;
        }
        catch (MailProblem problem) when (problem.Passes)
        {
            // It has not gone anywhere, so there is nothing to remember of it.
            db.WordsSent.Remove(row);
            await db.SaveChangesAsync(CancellationToken.None);
            return problem.Message;
        }
        catch (MailProblem problem)
        {
            (row.State, row.Why) = (WordState.NotSent, problem.Message);
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            // Whatever is wrong with this one: the next is not to wait for it.
            log.LogWarning(failure, "A word ahead of lesson {Lesson} could not be written.", lesson.Id);
            (row.State, row.Why) = (WordState.NotSent, $"The message to “{student.Email}” could not be written. Check the address on the roster page.");
        }

        row.At = clock.GetCurrentInstant();
        // Not cut short by a stop: what has gone must be noted as gone.
        await db.SaveChangesAsync(CancellationToken.None);
        return null;
    }

    private async Task Conclude(WordOfLesson whole, IReadOnlyList<OnSheet> roster, SchoolDb db, CancellationToken stopping)
    {
        var rows = await db.WordsSent.AsNoTracking().Where(w => w.LessonId == whole.LessonId).ToListAsync(stopping);
        var (went, failed, doubt, nowhere) = (
            rows.Count(r => r.State == WordState.Sent), rows.Where(r => r.State == WordState.NotSent).ToList(),
            rows.Count(r => r.State == WordState.Going), roster.Count(s => s.Name.Email is null));
        whole.State = went > 0 && failed.Count == 0 && doubt == 0 ? WordState.Sent : WordState.NotSent;
        whole.At = clock.GetCurrentInstant();
        whole.Said = string.Join(" ", new[]
        {
            went > 0 ? $"Went to {Count(went)}." : "",
            failed.Count > 0 ? $"Did not go to {Count(failed.Count)}: {failed[0].Why}" : "",
            doubt > 0 ? $"The program stopped while it went to {Count(doubt)}: perhaps it went, perhaps not." : "",
            nowhere > 0 ? $"{Count(nowhere)} without an e-mail address." : "",
            rows.Count == 0 && nowhere == 0 ? "Nobody is on the roster." : "",
        }.Where(s => s.Length > 0));
        await db.SaveChangesAsync(CancellationToken.None);

        static string Count(int number) => number == 1 ? "1 student" : $"{number} students";
    }
}
