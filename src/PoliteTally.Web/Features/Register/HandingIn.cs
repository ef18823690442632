using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Register;
using PoliteTally.Core.Text;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Register;

/// <summary>Hands the register of a lesson in, once, whoever asks and however often.</summary>
internal sealed class HandingIn(SchoolDb db, RegisterDesk desk, RegisterSender sender, Owner owner, IClock clock)
{
    private const int LongestWhy = 300;

    /// <summary>The ways in which a register of this class can be handed in, the first one first.</summary>
    public IReadOnlyList<HandInWay> WaysOf(OpenLesson open) =>
        [.. desk.Exists ? [HandInWay.Desk] : Array.Empty<HandInWay>(), .. open.Rules.Register.MailTo.Length > 0 ? [HandInWay.Mail] : Array.Empty<HandInWay>()];

    /// <summary>What was handed in of a lesson, the newest first.</summary>
    public async Task<IReadOnlyList<HandIn>> Before(Guid lesson) =>
        await db.HandIns.AsNoTracking().Where(h => h.LessonId == lesson).OrderByDescending(h => h.Version).ToListAsync();

    /// <summary>Hands a register in, if that is called for.</summary>
    /// <param name="open">The lesson.</param>
    /// <param name="sent">The wish.</param>
    /// <param name="by">Who wishes it.</param>
    /// <returns>Why it was not handed in; null if it was, or if somebody else was quicker.</returns>
    public async Task<string?> HandIn(OpenLesson open, HandInSent sent, string by)
    {
        var all = await Before(open.Lesson.Id);
        var (before, taken) = (all.Count > 0 ? all[0] : null, all.FirstOrDefault(h => h.State == HandInState.Taken));
        if ((before?.Version ?? 0) > sent.After)
        {
            return null;
        }

        var marks = RegisterSheet.MarksOf(open);
        var why = sent.Why?.Trim() ?? "";
        if (WhyNot() is { } refused)
        {
            return refused;
        }

        var now = clock.GetCurrentInstant();
        var one = new HandIn
        {
            Id = Guid.CreateVersion7(),
            LessonId = open.Lesson.Id,
            Version = (before?.Version ?? 0) + 1,
            Way = sent.Way,
            Marks = OtherJson.Write(marks),
            Why = why,
            By = by,
            MadeAt = now,
            At = now,
        };
        db.HandIns.Add(one);
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException failure) when (failure.InnerException is Microsoft.Data.Sqlite.SqliteException { SqliteErrorCode: 19 })
        {
            // Another window was quicker.
            return null;
        }
        finally
        {
            db.ChangeTracker.Clear();
        }

        // It is noted; whoever goes away now does not stop it.
        await sender.Send(owner.Id, one.Id, CancellationToken.None);
        return null;

        // Nobody is handed in as absent while something of theirs is asked.
        static int Asked(OpenLesson open) => open.Roster.Select(s => open.State.AttendanceOf(s.Name.Id, open.Times, open.Rules.Scheme.Attendance))
            .Count(a => a.Status == AttendanceStatus.Absent && a.Contested.Count > 0 && a.KnownBy != KnownBy.Declared);

        string? WhyNot() =>
            open.Lesson.DropIn ? "A drop-in lesson has no register."
            : open.Lesson.Stage != LessonStage.Settled ? "Confirm the register first."
            : !WaysOf(open).Contains(sent.Way) ? "There is no such way to hand in here. Save the register as a file."
            : why.Length > LongestWhy ? $"The reason has at most {LongestWhy} letters."
            : Asked(open) is > 0 and var asked ? $"{Words.Count(asked, "student")} would be handed in as absent, and something shows that they may have been there. Answer that first."
            : before is { State: HandInState.Waiting or HandInState.Going or HandInState.InDoubt } ? "The one before is still on its way. This one goes when it has arrived."
            : taken is not null && RegisterChange.Between(OtherJson.ReadMarks(taken.Marks), marks).Count == 0 ? "It was handed in, and nothing has changed since."
            : taken is not null && why.Length == 0 ? "Say why it is amended."
            : null;
    }
}
