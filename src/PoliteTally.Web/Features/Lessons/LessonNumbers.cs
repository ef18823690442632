using Microsoft.EntityFrameworkCore;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Features.Lessons;

/// <summary>Counts the lessons of a class. One that has begun keeps its number for good; the planned ones follow in order.</summary>
internal static class LessonNumbers
{
    public static async Task Renew(Guid classId, SchoolDb db, OpenLessons openLessons)
    {
        await db.SaveChangesAsync();
        var number = await db.Lessons.Where(l => l.ClassId == classId && l.Stage != LessonStage.Planned).MaxAsync(l => (int?)l.Number) ?? 0;
        foreach (var lesson in await db.Lessons.Where(l => l.ClassId == classId && l.Stage == LessonStage.Planned).OrderBy(l => l.PlannedStart).ToListAsync())
        {
            lesson.Number = lesson.CancelledAt is null ? ++number : 0;
        }

        await db.SaveChangesAsync();
        // Whatever changed, the numbers of others may have with it.
        openLessons.Forget(lesson => lesson.ClassId == classId);
    }
}
