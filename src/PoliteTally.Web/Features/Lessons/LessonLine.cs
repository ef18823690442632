using NodaTime;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>A lesson in a list.</summary>
/// <param name="Prepared">Whether anything is planned for it.</param>
public sealed record LessonLine(
    Guid Id, Guid ClassId, string ClassName, int Number, string Title, LessonStage Stage, bool DropIn,
    Instant PlannedStart, Instant PlannedEnd, string? MeetingLink, bool Cancelled, bool Prepared)
{
    internal static LessonLine Of(Lesson lesson, string className) => new(
        lesson.Id, lesson.ClassId, className, lesson.Number, lesson.Title, lesson.Stage, lesson.DropIn, lesson.PlannedStart,
        lesson.PlannedEnd, lesson.MeetingLink, lesson.CancelledAt is not null, lesson.Prepared);
}
