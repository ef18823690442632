using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Settling;

/// <summary>
/// Which files of a lesson count. What a file says stands for as long as any file that says it counts; if none does, its entries are struck out, by strikes
/// that are known for it, so that a file can be put back and nothing else with it.
/// </summary>
internal sealed class FilesOfLesson(SchoolDb db, Owner owner, LedgerWriter ledger, OpenLessons openLessons, IClock clock)
{
    /// <summary>Lets a file count, or takes it out.</summary>
    /// <param name="file">The file, tracked.</param>
    /// <param name="takenOut">When it was taken out; null to let it count.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>Why it cannot be done; null if it is.</returns>
    public async Task<ProblemHttpResult?> Count(BroughtIn file, Instant? takenOut, string by)
    {
        file.TakenOutAt = takenOut;
        var files = await db.BroughtIn.Where(f => f.LessonId == file.LessonId && f.Id != file.Id).ToListAsync();
        files.Add(file);
        var state = (await openLessons.Find(owner.Id, file.LessonId))!.State;
        var press = DerivedId.Of($"{file.LessonId}\nfiles taken out");
        var strikes = state.Entries.Where(e => e.Act is Struck && e.Together == press && !state.IsStruck(e.Id)).ToList();
        var counting = files.Where(f => f.TakenOutAt is null).SelectMany(f => f.EntryIds).ToHashSet();
        var struckHere = strikes.SelectMany(e => ((Struck)e.Act).Entries).ToHashSet();
        var there = state.Entries.Select(e => e.Id).ToHashSet();
        // What the teacher struck out by hand stays as it is.
        var gone = files.SelectMany(f => f.EntryIds).Distinct()
            .Where(e => !counting.Contains(e) && there.Contains(e) && (struckHere.Contains(e) || !state.IsStruck(e))).ToList();
        if (!struckHere.SetEquals(gone))
        {
            var now = clock.GetCurrentInstant();
            IReadOnlyList<NewEntry> entries = [.. StrikesOn(strikes.Select(e => e.Id), null), .. StrikesOn(gone, press)];
            var result = (await ledger.Append(owner.Id, file.LessonId, Source.Tapped, by, entries))!;
            if (result.Refused.Count > 0)
            {
                return Refused.Now(result.Refused[0].Why);
            }

            IEnumerable<NewEntry> StrikesOn(IEnumerable<Guid> ids, Guid? together) =>
                ids.Chunk(Struck.Most).Select(c => new NewEntry(Guid.CreateVersion7(), now, new Struck(c[0], c.Length > 1 ? c[1..] : null), together));
        }

        await db.SaveChangesAsync();
        return null;
    }
}
