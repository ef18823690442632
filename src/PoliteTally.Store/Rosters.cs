using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Names;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>A student on the sheet of a lesson.</summary>
public sealed record OnSheet(RosterName Name, char Key, string Tags, string? SecondEmail, string? Phone);

/// <summary>Who belongs to a class, and to each of its lessons. Records merged into another count for that one.</summary>
public static class Rosters
{
    /// <summary>Who is in the class now, by family name.</summary>
    public static IReadOnlyList<OnSheet> Of(SchoolDb db, Guid classId) => Of(db, classId, IsIn);

    /// <summary>Who is or ever was in the class, by family name.</summary>
    public static IReadOnlyList<OnSheet> Ever(SchoolDb db, Guid classId) => Of(db, classId, _ => true);

    /// <summary>Whether a student is in the class now.</summary>
    public static bool IsIn(Enrolment place) => place.Stays.Exists(s => s.To is null);

    /// <summary>
    /// Who belongs to a lesson: whoever had a stay in the class that was not over before it, and did not begin after it was settled. So a leaver
    /// keeps their past, a joiner is not absent from it, and whoever was away for a while is not absent from what was held meanwhile.
    /// </summary>
    public static IReadOnlyList<OnSheet> Of(SchoolDb db, Lesson lesson) => Of(
        db, lesson.ClassId,
        place => place.Stays.Exists(s =>
            (s.To is null || s.To > lesson.PlannedStart) && (lesson.RosterClosedAt is null || s.From <= lesson.RosterClosedAt)));

    /// <summary>Records that were merged, each with the one it counts for.</summary>
    public static IReadOnlyDictionary<Guid, Guid> Merged(SchoolDb db)
    {
        var into = db.Students.AsNoTracking().Where(s => s.MergedIntoId != null).ToDictionary(s => s.Id, s => s.MergedIntoId!.Value);
        return into.Keys.ToDictionary(id => id, End);

        // Merging follows through to the end when records are merged, so chains are short; the bound is against a damaged file.
        Guid End(Guid id)
        {
            for (var steps = 0; steps < into.Count && into.TryGetValue(id, out var next); steps++)
            {
                id = next;
            }

            return id;
        }
    }

    /// <summary>All records of a student: their own, and those that were merged into it.</summary>
    public static IReadOnlyList<Guid> RecordsOf(SchoolDb db, Guid student) => [student, .. Merged(db).Where(m => m.Value == student).Select(m => m.Key)];

    /// <summary>A student as far as names go.</summary>
    public static RosterName NameOf(Student student) =>
        new(student.Id, student.Given, student.Family, student.Preferred, student.Number, student.Email);

    private static IReadOnlyList<OnSheet> Of(SchoolDb db, Guid classId, Func<Enrolment, bool> counts)
    {
        var merged = Merged(db);
        var places = db.Enrolments.AsNoTracking().Where(e => e.ClassId == classId).Include(e => e.Student).Include(e => e.Stays).AsEnumerable().Where(counts)
            .GroupBy(e => merged.GetValueOrDefault(e.StudentId, e.StudentId)).ToList();
        // A record may have been merged into one that has no place in this class of its own.
        var elsewhere = places.Where(p => p.All(e => e.StudentId != p.Key)).Select(p => p.Key).ToList();
        var others = elsewhere.Count == 0 ? [] : db.Students.AsNoTracking().Where(s => elsewhere.Contains(s.Id)).ToDictionary(s => s.Id);
        return
        [
            .. places.Select(p =>
                {
                    var place = p.FirstOrDefault(e => e.StudentId == p.Key) ?? p.First();
                    var student = others.GetValueOrDefault(p.Key) ?? place.Student!;
                    return new OnSheet(NameOf(student), place.Key, student.Tags, student.SecondEmail, student.Phone);
                })
                .OrderBy(s => NameFolding.Fold(s.Name.Sorted), StringComparer.Ordinal)
                .ThenBy(s => NameFolding.Fold(s.Name.Given), StringComparer.Ordinal),
        ];
    }
}
