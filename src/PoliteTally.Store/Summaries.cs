using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>A ribbon as fractions of the counted time: stretches of presence, and moments of speaking.</summary>
public sealed record Ribbon(IReadOnlyList<decimal[]> Stretches, IReadOnlyList<decimal> Spoke);

/// <summary>Per-lesson rows for term screens: nothing in them that the ledger does not say.</summary>
public static class Summaries
{
    /// <summary>The rows of a lesson. Students who did not come to a drop-in lesson have none.</summary>
    public static IEnumerable<Summary> Of(LessonState state, Lesson lesson, ClassRules rules, IEnumerable<Guid> roster)
    {
        var times = OpenLesson.TimesOf(lesson);
        foreach (var student in roster)
        {
            var did = Participation.From(state, student, times, rules);
            if (did.Attendance.Status == AttendanceStatus.DidNotCome)
            {
                continue;
            }

            yield return new Summary
            {
                LessonId = lesson.Id,
                StudentId = student,
                Status = did.Attendance.Status,
                KnownBy = did.Attendance.KnownBy,
                Notes = string.Join(", ", Words.Notes(did.Attendance)),
                PresentSeconds = (int)did.Attendance.Present.TotalSeconds,
                CountedSeconds = (int)did.Attendance.Counted.TotalSeconds,
                Score = LessonScore.Of(did, rules.Scheme).Total?.Value,
                FullTurns = did.Turns.Count(t => t.Outcome == TurnOutcome.Full),
                PartialTurns = did.Turns.Count(t => t.Outcome == TurnOutcome.Partial),
                ChatCredits = did.Chat.Count(c => Scheme.CreditOf(c.Kind) > 0),
                Nods = did.Nods.Count,
                Ribbon = JsonSerializer.Serialize(RibbonOf(did, times)),
            };
        }
    }

    /// <summary>
    /// Reckons settled lessons anew, after the ground rules of their class or the records of its students changed. Part of
    /// whatever transaction the context is in.
    /// </summary>
    /// <returns>How many lessons were reckoned, and how many scores are another than before.</returns>
    public static (int Lessons, int Scores) Renew(SchoolDb db, Func<Lesson, bool> which)
    {
        db.SaveChanges();
        var (lessons, scores) = (0, 0);
        foreach (var id in db.Lessons.AsNoTracking().Where(l => l.Stage == LessonStage.Settled).AsEnumerable().Where(which).Select(l => l.Id).ToList())
        {
            var open = OpenLesson.Load(db, id)!;
            var before = db.Summaries.AsNoTracking().Where(s => s.LessonId == id).ToDictionary(s => s.StudentId, s => s.Score);
            db.Summaries.Where(s => s.LessonId == id).ExecuteDelete();
            var fresh = Of(open.State, open.Lesson, open.Rules, open.Roster.Select(s => s.Name.Id)).ToList();
            db.Summaries.AddRange(fresh);
            db.SaveChanges();
            lessons++;
            scores += fresh.Count(s => !before.TryGetValue(s.StudentId, out var score) || score != s.Score);
        }

        return (lessons, scores);
    }

    /// <summary>Reckons every settled lesson anew and says where a stored row differs from what its ledger says.</summary>
    public static IReadOnlyList<string> Check(SchoolFile file)
    {
        var differences = new List<string>();
        List<(Guid Owner, Guid Lesson)> settled;
        using (var all = file.Open(Guid.Empty))
        {
            settled = [.. all.Lessons.IgnoreQueryFilters().Where(l => l.Stage == LessonStage.Settled)
                .Select(l => new { l.OwnerId, l.Id }).AsEnumerable().Select(l => (l.OwnerId, l.Id))];
        }

        foreach (var (owner, id) in settled)
        {
            using var db = file.Open(owner);
            var open = OpenLesson.Load(db, id)!;
            var state = open.State;
            var fresh = Of(state, open.Lesson, open.Rules, open.Roster.Select(s => s.Name.Id)).ToDictionary(s => s.StudentId, Said);
            var stored = db.Summaries.AsNoTracking().Where(s => s.LessonId == id).ToDictionary(s => s.StudentId, Said);
            differences.AddRange(fresh.Keys.Union(stored.Keys)
                .Where(s => fresh.GetValueOrDefault(s) != stored.GetValueOrDefault(s))
                .Select(s => $"lesson {id}, student {s}: stored {stored.GetValueOrDefault(s) ?? "nothing"}, ledger {fresh.GetValueOrDefault(s) ?? "nothing"}"));
        }

        return differences;
    }

    private static string Said(Summary row) =>
        $"{row.Status} {row.KnownBy} '{row.Notes}' {row.PresentSeconds}/{row.CountedSeconds} score {row.Score:0.####} " +
        $"turns {row.FullTurns}+{row.PartialTurns} chat {row.ChatCredits} nods {row.Nods} {row.Ribbon}";

    private static Ribbon RibbonOf(Participation did, LessonTimes times)
    {
        var whole = times.CountedTo - times.CountedFrom;
        if (whole <= Duration.Zero)
        {
            return new Ribbon([], []);
        }

        return new Ribbon(
            [.. did.Attendance.Stretches.Select(s => new[] { At(s.From), At(s.To) })],
            [.. did.Turns.Where(t => Scheme.CreditOf(t.Outcome) > 0).Select(t => At(t.At))]);

        decimal At(Instant moment) => decimal.Round(
            Math.Clamp((decimal)((moment - times.CountedFrom) / whole), 0m, 1m), 4, MidpointRounding.AwayFromZero);
    }
}
