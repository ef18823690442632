using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Names;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Classes;

/// <summary>A roster file, looked at, beside the class as it is.</summary>
public sealed record RosterLook(RosterPreview File, IReadOnlyList<RosterCompared> Steps);

/// <summary>What bringing in a roster did.</summary>
public sealed record RosterBroughtIn(int Joined, int Changed, int Left, int Unchanged);

internal static class RosterEndpoints
{
    public static void MapRosters(this RouteGroupBuilder api)
    {
        api.MapPost("/classes/{id:guid}/roster/preview", async (Guid id, OwnClass own, HttpRequest request, SchoolDb db) =>
        {
            var preview = Read(await SentFile.From(request));
            return TypedResults.Ok(new RosterLook(preview, Compare(id, preview, db)));
        }).WithName("PreviewRoster").RequireRateLimiting(Limits.Files);

        api.MapPost("/classes/{id:guid}/roster", async Task<Results<Ok<RosterBroughtIn>, ProblemHttpResult>> (
            Guid id, OwnClass own, HttpRequest request, SchoolDb db, OpenLessons openLessons, Owner owner, IClock clock) =>
        {
            var sent = await SentFile.From(request);
            var preview = Read(sent);
            if (preview is { Classes.Count: > 1, ChosenClass: null })
            {
                return Refused.Because("Choose which class of this bundle to bring in.");
            }

            if (SentFile.StillWrong(preview.Rows.Select(l => (l.Row, l.Problems)), sent.LeaveOut) is { } wrong)
            {
                return wrong;
            }

            // Without a choice nobody leaves: a file may be of half the class.
            var ticked = sent.Chosen<HashSet<string>>("ticked");
            var steps = Compare(id, preview, db);
            var chosen = steps.Where(s => ticked?.Contains(s.Key) ?? s.Step != RosterStep.Leaves).ToList();
            await Apply(id, chosen, db, clock.GetCurrentInstant());
            await db.SaveQuickly();
            openLessons.Forget(lesson => lesson.OwnerId == owner.Id);
            return TypedResults.Ok(new RosterBroughtIn(
                chosen.Count(s => s.Step is RosterStep.Joins or RosterStep.Returns), chosen.Count(s => s.Step == RosterStep.Changes),
                chosen.Count(s => s.Step == RosterStep.Leaves), steps.Count(s => s.Step == RosterStep.Stays)));
        }).WithName("BringInRoster").RequireRateLimiting(Limits.Files);
    }

    /// <summary>Gives everybody in a class a key of their own, keeping those given before; to be stored with what else has changed.</summary>
    internal static async Task GiveKeys(Guid classId, SchoolDb db)
    {
        // What is in the file, with what was changed and not stored yet.
        await db.Enrolments.Where(e => e.ClassId == classId && e.Stays.Any(s => s.To == null)).Include(e => e.Student).Include(e => e.Stays).LoadAsync();
        db.ChangeTracker.DetectChanges();
        var students = db.Students.Local.ToDictionary(s => s.Id);
        var places = db.Enrolments.Local.Where(e => e.ClassId == classId && Rosters.IsIn(e)).ToList();
        var roster = places.Select(p => students[p.StudentId]).Where(s => s.MergedIntoId is null).Select(Rosters.NameOf)
            .Select(n => (Name: n, Folded: NameFolding.Fold(n.Sorted))).OrderBy(n => n.Folded, StringComparer.Ordinal).Select(n => n.Name).ToList();
        var kept = places.Where(e => e.Key != ' ').ToDictionary(e => e.StudentId, e => e.Key);
        var keys = ShortNames.Keys(roster, kept);
        foreach (var place in places)
        {
            place.Key = keys.GetValueOrDefault(place.StudentId, place.Key);
        }
    }

    /// <summary>Lets a student be in the class or not, from now on. What was before stays as it was.</summary>
    internal static void Stand(Enrolment place, bool isIn, Instant now)
    {
        if (isIn && !Rosters.IsIn(place))
        {
            place.Stays.Add(new Stay { ClassId = place.ClassId, StudentId = place.StudentId, From = now });
        }
        else if (!isIn)
        {
            foreach (var stay in place.Stays.Where(s => s.To is null))
            {
                stay.To = now;
            }
        }
    }

    private static RosterPreview Read(SentFile sent)
    {
        using var budget = ReadingBudget.Begin(sent.Gone);
        return RosterFile.Read(sent.Bytes, sent.Mapping, sent.Decided["headless"] == "true", sent.Decided["bundleClass"] is [{ Length: > 0 } chosen] ? chosen : null);
    }

    private static IReadOnlyList<RosterCompared> Compare(Guid classId, RosterPreview preview, SchoolDb db)
    {
        if (preview is { Classes.Count: > 1, ChosenClass: null })
        {
            // Nobody has said yet whose roster it is.
            return [];
        }

        var places = db.Enrolments.AsNoTracking().Where(e => e.ClassId == classId).Include(e => e.Stays).ToDictionary(e => e.StudentId, Rosters.IsIn);
        var school = db.Students.AsNoTracking().Where(s => s.MergedIntoId == null).AsEnumerable()
            .Select(s => new RosterStudent(Rosters.NameOf(s), s.Tags, places.GetValueOrDefault(s.Id), places.ContainsKey(s.Id), s.SecondEmail, s.Phone)).ToList();
        return RosterComparison.Of(school, [.. preview.Rows.Where(l => l.Problems.Count == 0).Select(l => new RosterEntry(
            l.Row.ToString(System.Globalization.CultureInfo.InvariantCulture), l.Number, l.Family, l.Given, l.Preferred, l.Email, l.Tags, l.SecondEmail, l.Phone))]);
    }

    private static async Task Apply(Guid classId, IReadOnlyList<RosterCompared> steps, SchoolDb db, Instant now)
    {
        var ids = steps.Where(s => s.Student is not null).Select(s => s.Student!.Value).ToHashSet();
        var students = await db.Students.Where(s => ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id);
        var places = await db.Enrolments.Where(e => e.ClassId == classId).Include(e => e.Stays).ToDictionaryAsync(e => e.StudentId);
        foreach (var step in steps)
        {
            if (step.Entry is not { } entry)
            {
                Stand(places[step.Student!.Value], isIn: false, now);
                continue;
            }

            var student = step.Student is { } known ? students[known] : null;
            if (student is null)
            {
                student = new Student { Id = Guid.CreateVersion7(), Family = entry.Family, Given = entry.Given };
                db.Students.Add(student);
            }

            (student.Family, student.Given) = (entry.Family, entry.Given);
            student.Number = entry.Number ?? student.Number;
            student.Preferred = entry.Preferred ?? student.Preferred;
            student.Email = entry.Email ?? student.Email;
            student.SecondEmail = entry.SecondEmail ?? student.SecondEmail;
            student.Phone = entry.Phone ?? student.Phone;
            student.Tags = entry.Tags.Length > 0 ? entry.Tags : student.Tags;
            if (places.GetValueOrDefault(student.Id) is { } place)
            {
                Stand(place, isIn: true, now);
            }
            else
            {
                db.Enrolments.Add(new Enrolment { ClassId = classId, StudentId = student.Id, Key = ' ', Stays = [new Stay { From = now }] });
            }
        }

        await GiveKeys(classId, db);
    }
}
