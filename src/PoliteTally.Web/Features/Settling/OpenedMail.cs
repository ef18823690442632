using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>A lesson that a mail seems to be about.</summary>
public sealed record MailLesson(Guid Lesson, int Number, string Title, string Class);

/// <summary>What is in a mail or an archive.</summary>
/// <param name="Files">Its files.</param>
/// <param name="Fits">The lesson it seems to be about, if that is another one.</param>
public sealed record OpenedMail(IReadOnlyList<EnclosedFile> Files, MailLesson? Fits)
{
    // A meeting program sends its list soon after the lesson; somebody may have passed on a later mail at any time.
    private static readonly Duration Soon = Duration.FromHours(3);

    // A shorter title stands in any subject.
    private const int ShortestTitle = 4;

    /// <summary>Opens a mail or an archive that was dropped on a lesson.</summary>
    /// <exception cref="FormatProblem">It cannot be opened.</exception>
    internal static async Task<OpenedMail> Of(SentFile sent, Lesson here, SchoolDb db, Instant now)
    {
        var enclosed = EnclosedFiles.In(sent.Bytes);
        if (enclosed.Subject is null && enclosed.SentAt is null)
        {
            return new OpenedMail(enclosed.Files, null);
        }

        var lessons = await db.Lessons.AsNoTracking().Include(l => l.Class).Where(l => l.CancelledAt == null && l.PlannedStart <= (enclosed.SentAt ?? now)).ToListAsync(sent.Gone);
        var found = Meant(lessons, here, enclosed.Subject ?? "", enclosed.SentAt);
        return new OpenedMail(enclosed.Files, found is null ? null : new MailLesson(found.Id, found.Number, found.Title, found.Class!.Name));
    }

    /// <summary>The other lesson that a mail is about: by the title in its subject, else by when it was sent; null if it may as well be about this one, or nothing tells.</summary>
    private static Lesson? Meant(List<Lesson> lessons, Lesson here, string subject, Instant? sent)
    {
        var titled = lessons.FindAll(l => l.Title.Length >= ShortestTitle && subject.Contains(l.Title, StringComparison.OrdinalIgnoreCase));
        var near = titled.Count > 0 ? titled.FindAll(l => l.Title.Length == titled.Max(t => t.Title.Length))
            : sent is { } at ? lessons.FindAll(l => l.PlannedStart <= at && at <= l.PlannedEnd + Soon) : [];
        return near.Exists(l => l.Id == here.Id) ? null
            : near.MinBy(l => Away(sent ?? here.PlannedEnd, l.PlannedEnd));

        static Duration Away(Instant one, Instant other) => one > other ? one - other : other - one;
    }
}
