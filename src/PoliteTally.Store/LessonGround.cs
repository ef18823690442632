using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Names;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Scoring;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>What a lesson stands on beside its ledger: its row, its class's ground rules, its plan, its roster. Never changed; read anew.</summary>
public sealed class LessonGround
{
    private readonly Dictionary<Guid, OnSheet> _onSheet;
    private readonly HashSet<Guid> _rosterIds;

    private LessonGround(
        Lesson lesson, IReadOnlyList<Scheme> schemes, Plan plan, IReadOnlyList<OnSheet> roster, IReadOnlyDictionary<Guid, Guid> merged, IReadOnlyList<ConfirmedName> confirmed,
        ShortForms shortForms)
    {
        (Lesson, ClassName, Roster, Merged, Confirmed) = (lesson, lesson.Class!.Name, roster, merged, confirmed);
        ShortForms = shortForms;
        // The first version of a class comes with the first lesson that is settled, and says what the class says then.
        (Rules, Plan, Schemes) = (RulesJson.Of(lesson, lesson.Class, lesson.ScoredBy is { } number && number <= schemes.Count ? schemes[number - 1] : null), plan, schemes);
        Levels = Rules.Scheme.Criteria.SelectMany(c => c.Levels.Select(l => (c.Id, l.Id))).ToHashSet();
        _onSheet = roster.ToDictionary(s => s.Name.Id);
        ShortNames = Core.Names.ShortNames.For([.. roster.Select(s => s.Name)]);
        _rosterIds = [.. _onSheet.Keys];
        // An entry about a record that was merged into one of the roster is about somebody of the roster.
        _rosterIds.UnionWith(merged.Where(m => _onSheet.ContainsKey(m.Value)).Select(m => m.Key));
    }

    /// <summary>The row of the lesson, not tracked.</summary>
    public Lesson Lesson { get; }

    /// <summary>The name of the class.</summary>
    public string ClassName { get; }

    /// <summary>The ground rules of the lesson.</summary>
    public ClassRules Rules { get; }

    /// <summary>The versions of the scheme of its class, the first first.</summary>
    internal IReadOnlyList<Scheme> Schemes { get; }

    /// <summary>The levels of the criteria that it is judged by.</summary>
    internal IReadOnlySet<(Guid Criterion, Guid Level)> Levels { get; }

    /// <summary>What is prepared for it.</summary>
    public Plan Plan { get; }

    /// <summary>The students of this lesson, by family name.</summary>
    public IReadOnlyList<OnSheet> Roster { get; }

    /// <summary>What each of them is called in short, in this lesson.</summary>
    public IReadOnlyDictionary<Guid, string> ShortNames { get; }

    /// <summary>Records that were merged, each with the one it counts for.</summary>
    public IReadOnlyDictionary<Guid, Guid> Merged { get; }

    /// <summary>Names in meetings of the class that the teacher has decided on.</summary>
    public IReadOnlyList<ConfirmedName> Confirmed { get; }

    /// <summary>What names are called for short, at this school.</summary>
    internal ShortForms ShortForms { get; }

    /// <summary>The ids that entries may speak of: those of the roster, and of records merged into one of it.</summary>
    internal IReadOnlySet<Guid> RosterIds => _rosterIds;

    /// <summary>A student of this lesson; null if they are none.</summary>
    public OnSheet? OnSheetOf(Guid student) => _onSheet.GetValueOrDefault(student);

    /// <summary>Reads it; null if the owner of the context has no such lesson.</summary>
    internal static LessonGround? Load(SchoolDb db, Guid lessonId, ShortForms shortForms) => Load(db, [lessonId], shortForms) is [var only] ? only : null;

    /// <summary>Reads those of many lessons; what they have in common with others of their class is read once.</summary>
    internal static IReadOnlyList<LessonGround> Load(SchoolDb db, IReadOnlyList<Guid> ids, ShortForms shortForms)
    {
        var lessons = db.Lessons.AsNoTracking().Include(l => l.Class).Include(l => l.Plan).Where(l => ids.Contains(l.Id)).ToList();
        if (lessons.Count == 0)
        {
            return [];
        }

        var merged = Rosters.Merged(db);
        return
        [
            .. from ofClass in lessons.GroupBy(l => l.ClassId)
               let confirmed = db.KnownNames.AsNoTracking().Where(n => n.ClassId == ofClass.Key).AsEnumerable()
                   .Select(n => new ConfirmedName(n.Shown, n.StudentId is { } id ? merged.GetValueOrDefault(id, id) : null, n.Beside)).ToList()
               let schemes = Store.Schemes.Of(db, ofClass.Key).Select(v => v.Scheme).AsEnumerable().Select(RulesJson.SchemeOf).ToList()
               let places = Rosters.PlacesIn(db, ofClass.Key, merged)
               from lesson in ofClass
               select new LessonGround(lesson, schemes, PlanJson.Of(lesson), places.Of(lesson), merged, confirmed, shortForms),
        ];
    }

    /// <summary>The same with another row of the lesson: its course went on.</summary>
    internal LessonGround With(Lesson lesson) => new(lesson, Schemes, Plan, Roster, Merged, Confirmed, ShortForms);
}
