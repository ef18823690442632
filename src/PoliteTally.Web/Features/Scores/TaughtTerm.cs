using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Lessons;

namespace PoliteTally.Web.Features.Scores;

/// <summary>A term of the school in which a class has settled lessons.</summary>
/// <param name="Lessons">How many.</param>
public sealed record TaughtTerm(Guid Id, string Name, LocalDate FirstDay, LocalDate LastDay, int Lessons)
{
    /// <summary>Its days.</summary>
    internal Span Span { get; private init; } = Span.All;

    /// <summary>Those of a class, the first one first.</summary>
    internal static async Task<IReadOnlyList<TaughtTerm>> Of(Guid inClass, SchoolDb db, Owner owner)
    {
        var terms = await db.Terms.AsNoTracking().ToListAsync();
        if (terms.Count == 0)
        {
            return [];
        }

        var zone = await LessonEndpoints.ZoneOf(db, owner);
        var starts = await db.Lessons.AsNoTracking().Where(l => l.ClassId == inClass && l.Stage == LessonStage.Settled).Select(l => l.PlannedStart).ToListAsync();
        return
        [
            .. terms.OrderBy(t => t.FirstDay).Select(t => (Term: t, Span: Span.Of(t.FirstDay, t.LastDay, zone)))
                .Select(t => new TaughtTerm(t.Term.Id, t.Term.Name, t.Term.FirstDay, t.Term.LastDay, starts.Count(t.Span.Has)) { Span = t.Span }).Where(t => t.Lessons > 0),
        ];
    }
}
