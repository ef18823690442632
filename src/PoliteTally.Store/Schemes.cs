using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Scoring;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>
/// The versions of the scheme of a class. What the class has among its ground rules is the newest of them; a lesson keeps the one that was the newest when it was settled.
/// </summary>
public static class Schemes
{
    /// <summary>The versions of a class, the first first; a class whose scheme was never changed has none before its first lesson is settled.</summary>
    public static IQueryable<SchemeVersion> Of(SchoolDb db, Guid inClass) => db.SchemeVersions.AsNoTracking().Where(v => v.ClassId == inClass).OrderBy(v => v.Number);

    /// <summary>The scheme that a lesson is scored by; null if it is the newest of its class.</summary>
    public static Scheme? Of(SchoolDb db, Lesson lesson) =>
        lesson.ScoredBy is { } number ? RulesJson.SchemeOf(db.SchemeVersions.AsNoTracking().Single(v => v.ClassId == lesson.ClassId && v.Number == number).Scheme) : null;

    /// <summary>The number of the newest version; of a class that has none yet, its scheme becomes the first.</summary>
    /// <param name="db">A context of the owner, in a transaction.</param>
    /// <param name="inClass">The class.</param>
    public static int Newest(SchoolDb db, SchoolClass inClass)
    {
        var newest = db.SchemeVersions.Where(v => v.ClassId == inClass.Id).Max(v => (int?)v.Number);
        if (newest is null)
        {
            Add(db, inClass, 1, RulesJson.Of(inClass).Scheme, inClass.MadeAt, "", "as the class began");
            // So that whoever asks next finds it.
            db.SaveChanges();
        }

        return newest ?? 1;
    }

    /// <summary>Gives a class another scheme, as a version of its own; one that says the same makes none.</summary>
    /// <param name="db">A context of the owner, in a transaction.</param>
    /// <param name="inClass">The class, tracked.</param>
    /// <param name="scheme">The scheme, with nothing wrong with it.</param>
    /// <param name="by">Who makes it.</param>
    /// <param name="why">Why.</param>
    /// <param name="now">When.</param>
    /// <returns>The number of the newest version.</returns>
    public static int Change(SchoolDb db, SchoolClass inClass, Scheme scheme, string by, string why, Instant now)
    {
        var (newest, rules) = (Newest(db, inClass), RulesJson.Of(inClass));
        if (RulesJson.Written(rules.Scheme) == RulesJson.Written(scheme))
        {
            return newest;
        }

        Add(db, inClass, newest + 1, scheme, now, by, why);
        inClass.Rules = RulesJson.Difference(ClassRules.Default, rules with { Scheme = scheme });
        return newest + 1;
    }

    private static void Add(SchoolDb db, SchoolClass inClass, int number, Scheme scheme, Instant at, string by, string why) => db.SchemeVersions.Add(
        new SchemeVersion { ClassId = inClass.Id, Number = number, MadeAt = at, By = by, Why = why, Scheme = RulesJson.Written(scheme) });
}
