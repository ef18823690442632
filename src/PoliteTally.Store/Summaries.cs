using System.Linq.Expressions;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Lessons;
using PoliteTally.Core.Scoring;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>A ribbon as fractions of the counted time: stretches of presence, and moments of speaking.</summary>
public sealed record Ribbon(IReadOnlyList<decimal[]> Stretches, IReadOnlyList<decimal> Spoke)
{
    /// <summary>Of somebody who was not there.</summary>
    public static readonly Ribbon None = new([], []);
}

/// <summary>Per-lesson rows for term screens: nothing in them that the ledger does not say.</summary>
public static class Summaries
{
    private static readonly JsonSerializerOptions Json = Sparse(ActJson.Configure(new JsonSerializerOptions()));

    /// <summary>Whether there is something to reckon or to keep of a lesson (<see cref="RenewDue"/>).</summary>
    public static readonly Expression<Func<Lesson, bool>> IsDue = lesson => lesson.ReckonAgain || (lesson.Stage == LessonStage.Settled && !lesson.LookBackKept);

    /// <summary>The rows of a lesson. Students who did not come to a drop-in lesson have none.</summary>
    public static IEnumerable<Summary> Of(LessonState state, Lesson lesson, ClassRules rules, IEnumerable<Guid> roster)
    {
        var times = OpenLesson.TimesOf(lesson);
        foreach (var student in roster)
        {
            var did = state.ParticipationOf(student, times, rules.Scheme);
            if (did.Attendance.Status == AttendanceStatus.DidNotCome)
            {
                continue;
            }

            var (tally, score) = (Tally.Of(did), LessonScore.Of(did, rules.Scheme));
            yield return new Summary
            {
                LessonId = lesson.Id,
                StudentId = student,
                Status = tally.Status,
                KnownBy = tally.KnownBy,
                Notes = string.Join(", ", did.Attendance.Notes()),
                PresentSeconds = (int)did.Attendance.Present.TotalSeconds,
                CountedSeconds = (int)did.Attendance.Counted.TotalSeconds,
                Score = score.Total?.Value,
                RestsOn = score.RestsOn,
                Whole = score.Whole,
                Tally = JsonSerializer.Serialize(tally, Json),
                Ribbon = JsonSerializer.Serialize(RibbonOf(did, times)),
            };
        }
    }

    /// <summary>What is known of a student by a row.</summary>
    public static IReadOnlyList<KnownOfStudent> KnownBy(LookBackRow row) => ReadKnown(row.Known);

    /// <summary>What a row counts.</summary>
    /// <exception cref="UnreadableDocument">What is stored is no tally.</exception>
    public static Tally TallyOf(Summary row) =>
        Documents.WhyUnreadable(() => ReadTally(row.Tally), out var tally) is null ? tally! : throw new UnreadableDocument(
            "What is kept of a settled lesson of this class cannot be read. Nothing is lost: it is reckoned anew from what was noted when the program starts next.");

    /// <summary>The ribbon of a row; an empty one if there is none, or none that can be read.</summary>
    public static Ribbon RibbonOf(Summary row) => row.Ribbon.Length == 0 ? Ribbon.None : Documents.ReadOr(Ribbon.None, () => ReadRibbon(row.Ribbon));

    internal static IReadOnlyList<KnownOfStudent> ReadKnown(string known) =>
        [.. JsonSerializer.Deserialize<List<KeptLine>>(known, Json)!.Select(k => new KnownOfStudent(Instant.FromUnixTimeMilliseconds(k.At), k.Kind, k.Text, k.By ?? "", k.Struck))];

    internal static Tally ReadTally(string tally) => JsonSerializer.Deserialize<Tally>(tally, Json) ?? throw new JsonException("It is empty.");

    internal static Ribbon ReadRibbon(string ribbon) => JsonSerializer.Deserialize<Ribbon>(ribbon) is { Stretches: not null, Spoke: not null } read ? read : throw new JsonException("It is empty.");

    /// <summary>
    /// Stores what changed in a context, and reckons anew the settled lessons that it may be about: the ground rules of their class changed, or
    /// the records of its students. That they are to be reckoned is stored with the change; the reckoning goes one lesson at a time, so that
    /// nobody who taps waits for more than that, and is taken up again after a sudden stop (<see cref="RenewDue"/>).
    /// </summary>
    /// <returns>How many lessons were reckoned, and how many scores are another than before.</returns>
    public static async Task<(int Lessons, int Scores)> Renew(SchoolDb db, Expression<Func<Lesson, bool>> which)
    {
        await using (var transaction = await db.Database.BeginTransactionAsync())
        {
            await db.SaveChangesAsync();
            await db.Lessons.Where(l => l.Stage == LessonStage.Settled).Where(which).ExecuteUpdateAsync(set => set.SetProperty(l => l.ReckonAgain, true));
            await transaction.CommitAsync();
        }

        return await RenewDue(db);
    }

    /// <summary>
    /// Reckons anew the lessons of the owner that are due, and keeps what settled lessons tell of each student, where that is not kept: settling a lesson leaves it to
    /// whoever has time, for it is as much as its whole ledger.
    /// </summary>
    /// <param name="db">A context of the owner.</param>
    /// <param name="lesson">The only lesson to look at; null for all.</param>
    /// <returns>As <see cref="Renew"/>.</returns>
    public static async Task<(int Lessons, int Scores)> RenewDue(SchoolDb db, Guid? lesson = null)
    {
        var (lessons, scores) = (0, 0);
        foreach (var due in await db.Lessons.Where(IsDue).Where(l => lesson == null || l.Id == lesson)
            .OrderBy(l => l.PlannedStart).Select(l => new { l.Id, l.ReckonAgain }).ToListAsync())
        {
            scores += await RenewOne(db, due.Id);
            lessons += due.ReckonAgain ? 1 : 0;
        }

        return (lessons, scores);
    }

    /// <summary>The lessons of the owner that are due, in order.</summary>
    public static IQueryable<Guid> DueOf(SchoolDb db) => db.Lessons.Where(IsDue).OrderBy(l => l.PlannedStart).Select(l => l.Id);

    /// <returns>How many scores are another than before.</returns>
    private static async Task<int> RenewOne(SchoolDb db, Guid id)
    {
        while (true)
        {
            var open = OpenLesson.Load(db, id)!;
            var isSettled = open.Lesson.Stage == LessonStage.Settled;
            List<Summary> fresh = isSettled ? [.. Of(open.State, open.Lesson, open.Rules, open.Roster.Select(s => s.Name.Id))] : [];
            List<LookBackRow> known = isSettled ? [.. KnownIn(open)] : [];
            var before = await db.Summaries.AsNoTracking().Where(s => s.LessonId == id).ToDictionaryAsync(s => s.StudentId);
            var knownBefore = await db.LookBack.AsNoTracking().Where(k => k.LessonId == id).ToDictionaryAsync(k => k.StudentId, k => k.Known);
            // Only what is another than before is written: whoever taps waits for it.
            IOwned[] changed =
            [
                .. fresh.Where(s => !before.TryGetValue(s.StudentId, out var row) || Said(row) != Said(s)), .. known.Where(k => knownBefore.GetValueOrDefault(k.StudentId) != k.Known),
            ];
            var rows = db.MadeReady(changed);
            var (gone, goneKnown) = (before.Keys.Except(fresh.Select(s => s.StudentId)).ToList(), knownBefore.Keys.Except(known.Select(k => k.StudentId)).ToList());
            db.ChangeTracker.Clear();
            await using var transaction = await db.Database.BeginTransactionAsync();
            if ((await db.Entries.Where(e => e.LessonId == id).MaxAsync(e => (long?)e.Seq) ?? 0) != open.Position)
            {
                // It was opened again meanwhile, or settled: what was reckoned is out of date.
                continue;
            }

            if (gone.Count + goneKnown.Count > 0)
            {
                await db.Summaries.Where(s => s.LessonId == id && gone.Contains(s.StudentId)).ExecuteDeleteAsync();
                await db.LookBack.Where(k => k.LessonId == id && goneKnown.Contains(k.StudentId)).ExecuteDeleteAsync();
            }

            foreach (var table in rows)
            {
                table.Into(db);
            }

            await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.ReckonAgain, false).SetProperty(l => l.LookBackKept, isSettled));
            await transaction.CommitAsync();
            return fresh.Count(s => !before.TryGetValue(s.StudentId, out var row) || row.Score != s.Score);
        }
    }

    /// <summary>Reckons every settled lesson anew and says where a stored row differs from what its ledger says. What is due says so itself, and is not looked at.</summary>
    public static IReadOnlyList<string> Check(SchoolFile file)
    {
        var differences = new List<string>();
        List<(Guid Owner, Guid Lesson)> settled;
        using (var all = file.Open(Guid.Empty))
        {
            settled = [.. all.Lessons.IgnoreQueryFilters().Where(l => l.Stage == LessonStage.Settled && !l.ReckonAgain)
                .Select(l => new { l.OwnerId, l.Id }).AsEnumerable().Select(l => (l.OwnerId, l.Id))];
        }

        foreach (var (owner, id) in settled)
        {
            using var db = file.Open(owner);
            var open = OpenLesson.Load(db, id)!;
            var state = open.State;
            var kept = db.LookBack.AsNoTracking().Where(k => k.LessonId == id).ToDictionary(k => k.StudentId, k => k.Known);
            if (open.Lesson.LookBackKept && !(KnownIn(open).ToList() is var known && known.Count == kept.Count && known.TrueForAll(k => kept.GetValueOrDefault(k.StudentId) == k.Known)))
            {
                differences.Add($"lesson {id}: what is kept in words of its students is not what its ledger says");
            }

            var fresh = Of(state, open.Lesson, open.Rules, open.Roster.Select(s => s.Name.Id)).ToDictionary(s => s.StudentId, Said);
            var stored = db.Summaries.AsNoTracking().Where(s => s.LessonId == id).ToDictionary(s => s.StudentId, Said);
            differences.AddRange(fresh.Keys.Union(stored.Keys)
                .Where(s => fresh.GetValueOrDefault(s) != stored.GetValueOrDefault(s))
                .Select(s => $"lesson {id}, student {s}: stored {stored.GetValueOrDefault(s) ?? "nothing"}, ledger {fresh.GetValueOrDefault(s) ?? "nothing"}"));
        }

        return differences;
    }

    private static IEnumerable<LookBackRow> KnownIn(OpenLesson open) => LookBack.Of(open.State)
        .Select(k => new LookBackRow { LessonId = open.Lesson.Id, StudentId = k.Key, Known = JsonSerializer.Serialize(k.Value.Select(v => new KeptLine(v.At.ToUnixTimeMilliseconds(), v.Kind, v.Text, v.By, v.Struck)), Json) });

    private static string Said(Summary row) =>
        $"{row.Status} {row.KnownBy} '{row.Notes}' {row.PresentSeconds}/{row.CountedSeconds} score {row.Score:0.####} on {row.RestsOn:0.##} of {row.Whole:0.##} {row.Tally} {row.Ribbon}";

    // What is nothing is left out, so it may be missing where it is read.
    private static JsonSerializerOptions Sparse(JsonSerializerOptions options)
    {
        options.DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault;
        options.RespectRequiredConstructorParameters = false;
        return options;
    }

    // Moments in milliseconds, as entries have them.
    private sealed record KeptLine(long At, string Kind, string Text, string? By, bool Struck);

    private static Ribbon RibbonOf(Participation did, LessonTimes times)
    {
        var whole = times.CountedTo - times.CountedFrom;
        if (whole <= Duration.Zero)
        {
            return Ribbon.None;
        }

        return new Ribbon(
            [.. did.Attendance.Stretches.Select(s => new[] { At(s.From), At(s.To) })],
            [.. did.Turns.Where(t => Scheme.CreditOf(t.Outcome) > 0).Select(t => At(t.At))]);

        decimal At(Instant moment) => decimal.Round(
            Math.Clamp((decimal)((moment - times.CountedFrom) / whole), 0m, 1m), 4, MidpointRounding.AwayFromZero);
    }
}
