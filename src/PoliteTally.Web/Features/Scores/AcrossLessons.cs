using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Writing;

namespace PoliteTally.Web.Features.Scores;

/// <summary>Notes something of scores in several settled lessons at once, an entry in each, and takes all of it back together.</summary>
internal sealed class AcrossLessons(SchoolDb db, OpenLessons openLessons, LedgerWriter ledger, Reckoner reckoner, Owner owner, IClock clock)
{
    /// <summary>Notes in lessons, one after the other; each is reckoned anew afterwards.</summary>
    /// <param name="by">Who notes it.</param>
    /// <param name="lessons">The lessons.</param>
    /// <param name="acts">What is noted in each of them.</param>
    /// <returns>What all entries share, in how many lessons any was taken, and why others were not, each reason once.</returns>
    public async Task<(Guid Together, int Lessons, IReadOnlyList<string> NotTaken)> Note(string by, IReadOnlyList<Guid> lessons, params IReadOnlyList<Act> acts)
    {
        var (together, taken, notTaken) = (Guid.CreateVersion7(), 0, new HashSet<string>());
        foreach (var lesson in lessons)
        {
            if (await Append(by, lesson, together, acts) is not { } result)
            {
                notTaken.Add("A lesson is gone.");
                continue;
            }

            taken += result.Accepted.Count > 0 ? 1 : 0;
            notTaken.UnionWith(result.Refused.Select(r => r.Why));
        }

        reckoner.Wake(owner.Id);
        return (together, taken, [.. notTaken]);
    }

    /// <summary>Strikes out what was noted together.</summary>
    /// <param name="by">Who takes it back.</param>
    /// <param name="inClass">The class of the lessons.</param>
    /// <param name="act">The kind of act that it was.</param>
    /// <param name="together">What its entries share.</param>
    public async Task TakeBack(string by, Guid inClass, Type act, Guid together)
    {
        var kind = ActJson.NamesOf(act)[0];
        var entries = await db.Entries.AsNoTracking().Where(e => e.Lesson!.ClassId == inClass && e.Kind == kind && e.Together == together)
            .Select(e => new { e.LessonId, e.Id }).ToListAsync();
        foreach (var lesson in entries.GroupBy(e => e.LessonId))
        {
            await Append(by, lesson.Key, Guid.CreateVersion7(), [.. lesson.Select(e => new Struck(e.Id))]);
        }

        reckoner.Wake(owner.Id);
    }

    // The lesson is read and folded before it is written to, so that nobody who taps waits for that.
    private async Task<WriteResult?> Append(string by, Guid lesson, Guid together, IReadOnlyList<Act> acts)
    {
        _ = (await openLessons.Find(owner.Id, lesson))?.State;
        return await ledger.Append(owner.Id, lesson, Source.Tapped, by, [.. acts.Select(a => new NewEntry(Guid.CreateVersion7(), clock.GetCurrentInstant(), a, together))]);
    }
}
