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
    public static IReadOnlyList<OnSheet> Of(SchoolDb db, Lesson lesson) => PlacesIn(db, lesson.ClassId, Merged(db)).Of(lesson);

    /// <summary>All places that there ever were in a class, read once for many of its lessons.</summary>
    internal static Places PlacesIn(SchoolDb db, Guid classId, IReadOnlyDictionary<Guid, Guid> merged)
    {
        var all = db.Enrolments.AsNoTracking().Where(e => e.ClassId == classId).Include(e => e.Student).Include(e => e.Stays).ToList();
        // A record may have been merged into one that has no place in this class of its own.
        var ids = all.Select(e => e.StudentId).ToHashSet();
        var elsewhere = ids.Select(id => merged.GetValueOrDefault(id, id)).Where(id => !ids.Contains(id)).ToList();
        return new Places(all, elsewhere.Count == 0 ? [] : db.Students.AsNoTracking().Where(s => elsewhere.Contains(s.Id)).ToDictionary(s => s.Id), merged);
    }

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

    private static IReadOnlyList<OnSheet> Of(SchoolDb db, Guid classId, Func<Enrolment, bool> counts) => PlacesIn(db, classId, Merged(db)).Of(counts);

    /// <summary>The places of a class, each with when it was held.</summary>
    internal sealed class Places(List<Enrolment> all, Dictionary<Guid, Student> elsewhere, IReadOnlyDictionary<Guid, Guid> merged)
    {
        // By family name; the names of a class are brought to a form for sorting once.
        private readonly List<IGrouping<Guid, Enrolment>> _places =
        [
            .. all.GroupBy(e => merged.GetValueOrDefault(e.StudentId, e.StudentId)).Select(p => (Place: p, Name: NameOf(StudentOf(p, elsewhere))))
                .OrderBy(p => NameFolding.Fold(p.Name.Sorted), StringComparer.Ordinal).ThenBy(p => NameFolding.Fold(p.Name.Given), StringComparer.Ordinal).Select(p => p.Place),
        ];

        /// <summary>As <see cref="Rosters.Of(SchoolDb, Lesson)"/>.</summary>
        public IReadOnlyList<OnSheet> Of(Lesson lesson) => Of(place => place.Stays.Exists(s =>
            (s.To is null || s.To > lesson.PlannedStart) && (lesson.RosterClosedAt is null || s.From <= lesson.RosterClosedAt)));

        public IReadOnlyList<OnSheet> Of(Func<Enrolment, bool> counts) =>
        [
            .. from place in _places
               let counted = place.Where(counts).ToList()
               where counted.Count > 0
               let held = counted.Find(e => e.StudentId == place.Key) ?? counted[0]
               let student = StudentOf(place, elsewhere)
               select new OnSheet(NameOf(student), held.Key, student.Tags, student.SecondEmail, student.Phone),
        ];

        private static Student StudentOf(IGrouping<Guid, Enrolment> place, Dictionary<Guid, Student> elsewhere) =>
            place.FirstOrDefault(e => e.StudentId == place.Key)?.Student ?? elsewhere.GetValueOrDefault(place.Key) ?? place.First().Student!;
    }
}
