using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Groups;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>Groups as they are asked for: so many, or of about so many students.</summary>
/// <param name="Students">Who is to be in one.</param>
/// <param name="Count">How many groups; null if their size is given.</param>
/// <param name="Size">How many students in each, to the nearest; null if their number is given.</param>
/// <param name="Seed">The same seed makes the same groups.</param>
public sealed record GroupsWanted(IReadOnlyList<Guid> Students, int? Count, int? Size, int Seed);

/// <summary>Groups as they could be. Nothing is stored: the teacher notes them, or asks again.</summary>
/// <param name="Groups">Who would work together.</param>
/// <param name="Split">Pairs who were to be together and cannot be.</param>
/// <param name="Joined">Pairs who were to be apart and cannot be.</param>
/// <param name="Repeats">Pairs who were in one group in an earlier lesson.</param>
public sealed record GroupsProposed(
    IReadOnlyList<IReadOnlyList<Guid>> Groups, IReadOnlyList<IReadOnlyList<Guid>> Split, IReadOnlyList<IReadOnlyList<Guid>> Joined, int Repeats);

/// <summary>Groups of an earlier lesson, or of earlier in this one.</summary>
public sealed record GroupsBefore(Guid LessonId, int Number, string Title, Instant At, IReadOnlyList<StudentGroup> Groups);

internal static class GroupEndpoints
{
    private const int LessonsBack = 12;
    private static readonly string MadeThem = ActJson.NamesOf(typeof(GroupsMade))[0];
    private static readonly IReadOnlyList<string> OfGroups =
        ActJson.NamesOf(typeof(GroupsMade), typeof(GroupJoined), typeof(GroupRenamed), typeof(GroupsDissolved), typeof(Struck));

    public static void MapGroups(this RouteGroupBuilder api)
    {
        api.MapPost("/lessons/{id:guid}/groups/propose", async Task<Results<Ok<GroupsProposed>, ProblemHttpResult>> (
            OwnLesson own, GroupsWanted wanted, SchoolDb db) =>
        {
            var open = own.Open;
            var roster = open.Roster.Select(s => s.Name.Id).ToHashSet();
            var students = (wanted.Students ?? []).Where(roster.Contains).Distinct().ToList();
            if (students.Count == 0)
            {
                return Refused.Because("Nobody is chosen who could be in a group.");
            }

            if ((wanted.Count, wanted.Size) is not (( >= 1 and <= StudentGroup.Most, null) or (null, >= 1 and <= 500)))
            {
                return Refused.Because($"Say how many groups, from 1 to {StudentGroup.Most}, or of how many students.");
            }

            var past = await Before(open.Lesson, db);
            var count = Math.Min(StudentGroup.Most, wanted.Count ?? GroupWish.GroupsOfSize(students.Count, wanted.Size!.Value));
            var found = GroupMaking.Make(new GroupWish(
                students, count, [.. open.Plan.Together.Select(s => s.Students)], [.. open.Plan.Apart.Select(s => s.Students)],
                [.. past.Select(p => p.Groups)], wanted.Seed));
            return TypedResults.Ok(new GroupsProposed(
                found.Groups, [.. found.Split.Select(p => (IReadOnlyList<Guid>)[p.A, p.B])], [.. found.Joined.Select(p => (IReadOnlyList<Guid>)[p.A, p.B])], found.Repeats));
        }).WithName("ProposeGroups");

        api.MapGet("/lessons/{id:guid}/groups/before", async (Guid id, OwnLesson own, SchoolDb db) =>
        {
            var open = own.Open;
            var state = open.State;
            IEnumerable<GroupsBefore> here = state.Groups.Now.Count == 0 && state.Groups.Last.Count > 0
                ? [new GroupsBefore(id, open.Lesson.Number, open.Lesson.Title, open.Lesson.PlannedStart, state.Groups.Last)]
                : [];
            return TypedResults.Ok<IReadOnlyList<GroupsBefore>>([.. here, .. await Before(open.Lesson, db)]);
        }).WithName("GetGroupsBefore");
    }

    /// <summary>The last groups of earlier lessons of the class, the newest first.</summary>
    private static async Task<IReadOnlyList<GroupsBefore>> Before(Lesson lesson, SchoolDb db)
    {
        var earlier = await db.Lessons.AsNoTracking()
            .Where(l => l.ClassId == lesson.ClassId && l.Id != lesson.Id && l.PlannedStart < lesson.PlannedStart
                && db.Entries.Any(e => e.LessonId == l.Id && e.Kind == MadeThem))
            .OrderByDescending(l => l.PlannedStart).Take(LessonsBack).ToListAsync();
        var merged = Rosters.Merged(db);
        var before = new List<GroupsBefore>();
        foreach (var one in earlier)
        {
            var entries = await db.Entries.AsNoTracking().Where(e => e.LessonId == one.Id && OfGroups.Contains(e.Kind))
                .ToListAsync();
            var groups = LessonState.Fold(entries.Select(OpenLesson.EntryOf), merged).Groups.Last;
            if (groups.Count > 0)
            {
                before.Add(new GroupsBefore(one.Id, one.Number, one.Title, one.PlannedStart, groups));
            }
        }

        return before;
    }
}
