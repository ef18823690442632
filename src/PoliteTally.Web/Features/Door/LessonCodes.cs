using Microsoft.EntityFrameworkCore;
using PoliteTally.Store;

namespace PoliteTally.Web.Features.Door;

/// <summary>
/// Codes of lessons: short enough to read aloud, such as "tavo-kile". A code is the address of a lesson's student page and opens nothing by
/// itself: whoever has it still needs a pass, or the teacher's word.
/// </summary>
public static class LessonCodes
{
    private const int Length = 4;

    /// <summary>The code of a lesson, made if it has none. One of 75^4, or about 31 million.</summary>
    public static async Task<string?> Of(Guid lesson, SchoolDb db, OpenLessons openLessons)
    {
        if (await db.Lessons.FirstOrDefaultAsync(l => l.Id == lesson) is not { } row)
        {
            return null;
        }

        if (row.Code is null)
        {
            do
            {
                row.Code = Syllables.Make(Length);
            }
            while (await db.Lessons.IgnoreQueryFilters().AnyAsync(l => l.Code == row.Code));

            await db.SaveChangesAsync();
            openLessons.Forget(l => l.Id == lesson);
        }

        return row.Code;
    }
}
