using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Store.Model;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web.Features.Live;

/// <summary>All that was noted of a student in a lesson, so that any of it can be put right.</summary>
/// <param name="Student">The name.</param>
/// <param name="SettledBy">The entry by which the lesson was settled: striking it out opens the lesson again.</param>
/// <param name="NodReasons">What nods are given for in this class.</param>
public sealed record StudentEntryList(
    string Student, LessonStage Stage, Guid? SettledBy, Instant PlannedStart, Instant CountedTo, Instant Now, IReadOnlyList<string> NodReasons,
    IReadOnlyList<StudentEntry> Entries);

/// <summary>An entry about a student.</summary>
/// <param name="OfSeveral">Whether it is about others, too: striking it out changes them as well.</param>
/// <param name="StruckBy">The strikes that strike it out: striking those out puts it back.</param>
public sealed record StudentEntry(
    Guid Id, Instant At, string Text, Source Source, string By, bool OfSeveral, bool Struck, IReadOnlyList<Guid> StruckBy);

internal static class StudentEntryEndpoints
{
    public static void MapStudentEntries(this RouteGroupBuilder api) =>
        api.MapGet("/lessons/{id:guid}/students/{student:guid}/entries", Results<Ok<StudentEntryList>, NotFound> (
            OwnLesson own, Guid student, IClock clock) =>
        {
            var open = own.Open;
            if (open.OnSheetOf(student) is not { } found)
            {
                return TypedResults.NotFound();
            }

            var state = open.State;
            var strikes = state.StrikesOn();
            return TypedResults.Ok(new StudentEntryList(
                found.Name.Whole, open.Lesson.Stage, state.Course.SettledBy, open.Lesson.PlannedStart,
                open.Times.CountedTo, clock.GetCurrentInstant(), open.Rules.NodReasons,
                [.. StudentEntries.Of(state, student).Select(e => new StudentEntry(
                    e.Id, e.HappenedAt, Wording.For(student, e, state), e.Source, e.By, e.Act.IsOfSeveral, state.IsStruck(e.Id),
                    state.IsStruck(e.Id) ? [.. strikes[e.Id]] : []))]));
        }).WithName("GetStudentEntries");
}
