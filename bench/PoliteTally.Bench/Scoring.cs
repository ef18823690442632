using Microsoft.EntityFrameworkCore;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Bench;

/// <summary>Scores over a term, another scheme tried on all of it, and one of them explained; each beside only reading the rows.</summary>
internal static class Scoring
{
    public static void Run()
    {
        var large = Of(1000, 60);
        var half = Of(1000, 30);
        Figures.Row("the same before and after, twice the lessons", Figures.Of(large, "ms", "0"), $"half of them {Figures.Of(half, "ms", "0")}", large / half);
        Of(30, 60);
    }

    /// <returns>How long before and after takes, in milliseconds.</returns>
    private static double Of(int students, int lessons)
    {
        var folder = Directory.CreateTempSubdirectory("polite-tally-bench");
        var file = new SchoolFile(folder.FullName);
        file.Migrate();
        var owner = Guid.CreateVersion7();
        var inClass = MadeUpTerm.In(file, owner, students, lessons);
        var (what, beside) = ($"{students:N0} students × {lessons} lessons", $"reading the {students * lessons:N0} rows");

        var read = Figures.Milliseconds(() => Read(file, owner));
        var scored = Figures.Milliseconds(() =>
        {
            foreach (var student in Read(file, owner).GroupBy(r => r.Student))
            {
                TermScore.Of([.. student.Where(r => r.Score is not null).Select(r => new ScoredLesson("a lesson", r.Score!.Value, 50))], Scheme.Default);
            }
        });
        Figures.Row($"scores from summaries, {what}", Figures.Of(scored, "ms", "0"), $"{beside} {Figures.Of(read, "ms", "0")}", scored / read);

        var tried = Scheme.Default with { SpeakingTarget = 2 };
        var compared = Figures.Milliseconds(
            () =>
            {
                using var db = file.Open(owner);
                var term = TermSheet.Of(inClass, db, figuresOnly: true).GetAwaiter().GetResult();
                BeforeAfter.Of(Trial.Of(term, inClass, tried, [.. term.Lessons.Select(l => l.Id)], db), Scheme.Default, tried);
            },
            times: 7);
        Figures.Row($"before and after, {what}", Figures.Of(compared, "ms", "0"), $"{beside} {Figures.Of(read, "ms", "0")}", compared / read);

        var why = Figures.Milliseconds(() =>
        {
            using var db = file.Open(owner);
            var one = db.Students.Select(s => s.Id).First();
            TermSheet.Of(inClass, db, one).GetAwaiter().GetResult().Score(one);
        });
        Figures.Row($"why of a term score, {what}", Figures.Of(why, "ms", "0.0"), $"{beside} {Figures.Of(read, "ms", "0")}", why / read);
        folder.Delete(recursive: true);
        return compared;
    }

    private sealed record Row(Guid Student, decimal? Score);

    private static List<Row> Read(SchoolFile file, Guid owner)
    {
        using var db = file.Open(owner);
        return [.. db.Summaries.AsNoTracking().Select(s => new Row(s.StudentId, s.Score))];
    }
}
