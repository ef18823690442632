using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Store.Model;

namespace PoliteTally.Store.Writing;

/// <summary>
/// Writes down beside the ledger what it says of the course of a lesson, and the summaries of a settled one, in the transaction that stores the
/// entry by which that changes.
/// </summary>
internal static class LessonCourse
{
    public static void Follow(Entry entry, Draft draft)
    {
        IReadOnlyCollection<Act> about = entry.Act is Struck struck ? draft.About(struck) : [entry.Act];
        var (ofCourse, ofScores) = (about.Any(a => a is LessonStarted or LessonEnded or LessonSettled), about.Any(a => a.IsOfScores));
        // Of a settled lesson whatever is noted outdates what is kept of it in words.
        if (!ofCourse && !ofScores && draft.Lesson.Stage != LessonStage.Settled)
        {
            return;
        }

        using var db = draft.Database();
        var lesson = db.Lessons.Include(l => l.Class).Single(l => l.Id == draft.Lesson.Id);
        var state = draft.State();
        var course = state.Course;
        lesson.LookBackKept = false;
        lesson.ActualStart = course.StartedAt;
        lesson.ActualEnd = course.EndedAt;
        lesson.Stage = course switch
        {
            { SettledBy: not null } => LessonStage.Settled,
            { EndedAt: not null } => LessonStage.Ended,
            { StartedAt: not null } => LessonStage.Live,
            _ => LessonStage.Planned,
        };
        if (lesson.Stage == LessonStage.Settled)
        {
            lesson.RosterClosedAt ??= state.Entries.First(e => e.Id == course.SettledBy).NotedAt;
            lesson.SettledWith ??= Schemes.Newest(db, lesson.Class!);
        }

        lesson.ScoredBy = lesson.SettledWith is null ? null : state.Judged.Version ?? lesson.SettledWith;
        if (ofCourse)
        {
            db.Summaries.Where(s => s.LessonId == lesson.Id).ExecuteDelete();
            if (lesson.Stage == LessonStage.Settled)
            {
                db.SaveChanges();
                var rules = RulesJson.Of(lesson, lesson.Class!, Schemes.Of(db, lesson));
                db.Summaries.AddRange(Summaries.Of(state, lesson, rules, draft.Before.Roster.Select(s => s.Name.Id)));
            }
        }
        else if (ofScores && lesson.Stage == LessonStage.Settled)
        {
            // Scores alone change, perhaps those of many lessons: they are reckoned when nobody waits (Summaries.RenewDue).
            lesson.ReckonAgain = true;
        }

        db.SaveChanges();
        db.Entry(lesson).State = EntityState.Detached;
        draft.Lesson = lesson;
    }
}
