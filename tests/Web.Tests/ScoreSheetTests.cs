using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using NodaTime;
using PoliteTally.Core.Scoring;
using PoliteTally.Formats.Tests;
using PoliteTally.Store;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Tests;

/// <summary>The sheet of scores: spans, terms, one strand alone, and the rubric marked for many.</summary>
public sealed class ScoreSheetTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly LocalDate Today = Classroom.Now.InUtc().Date;

    private static Task<ScoreSheet> Sheet(Classroom room, string query = "") => room.Teacher.Get<ScoreSheet>($"/api/classes/{room.Class}/scores{query}");

    private static string Day(int days) => Today.PlusDays(days).ToString("uuuu-MM-dd", null);

    [Fact]
    public async Task A_span_of_days_has_the_lessons_of_those_days_and_the_score_over_them()
    {
        var (room, lessons) = await ThreeLessons.Settled(app);
        (await Sheet(room, $"?from={Day(-1)}&to={Day(1)}")).Lessons.Select(l => l.Id).ShouldBe(lessons);
        var none = await Sheet(room, $"?from={Day(2)}");
        (none.Lessons.Count, none.Students.All(s => s.Term is null)).ShouldBe((0, true));
        (await Sheet(room, $"?to={Day(-2)}")).Lessons.ShouldBeEmpty();
        (await room.Teacher.Http.GetAsync($"/api/classes/{room.Class}/scores?strand=luck")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        foreach (var path in new[] { "scores?from=yesterday", $"scores/{room.Students["Juno"]}?to=2026-13-01", "gradebook.csv?from=0", "judged?to=later" })
        {
            (await room.Teacher.Http.GetAsync($"/api/classes/{room.Class}/{path}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest, path);
        }
    }

    [Fact]
    public async Task A_student_has_a_score_in_each_term_of_the_school_that_has_lessons_of_the_class()
    {
        var (room, _) = await ThreeLessons.Settled(app);
        await room.Teacher.Post<TermLine>("/api/terms", new TermSent("Now", Today.PlusDays(-1), Today.PlusDays(1), []));
        await room.Teacher.Post<TermLine>("/api/terms", new TermSent("Long ago", Today.PlusDays(-400), Today.PlusDays(-300), []));
        var (sheet, why) = (await Sheet(room), await room.Teacher.Get<TermExplanation>($"/api/classes/{room.Class}/scores/{room.Students["Juno"]}"));
        sheet.Terms.Select(t => (t.Name, t.Lessons)).ShouldContain(("Now", 3));
        why.Terms.ShouldNotContain(t => t.Term.Name == "Long ago");
        why.Terms.First(t => t.Term.Name == "Now").ShouldSatisfyAllConditions(t => t.Shown.ShouldBe(why.Shown), t => t.Scored.ShouldBe(3));
    }

    [Theory]
    [InlineData(Strand.Attendance, "100 100 100, term 100", "100 100 100, term 100")]
    [InlineData(Strand.Speaking, "100 100 100, term 100", "25 25 25, term 25")]
    [InlineData(Strand.Chat, "75 75 75, term 75", "50 50 50, term 50")]
    [InlineData(Strand.GroupWork, "  , term ", "  , term ")]
    public async Task A_strand_alone_is_seen_over_all_lessons(Strand strand, string juno, string eino)
    {
        var (room, _) = await ThreeLessons.Settled(app);
        var asked = $"?strand={JsonNamingPolicy.CamelCase.ConvertName($"{strand}")}";
        var sheet = await Sheet(room, asked);
        string Of(string who) => sheet.Students.Where(s => s.Called == who).Select(s => $"{string.Join(' ', s.Cells.Select(c => c?.Score))}, term {s.Term}").Single();
        (Of("Juno"), Of("Eino")).ShouldBe((juno, eino));
        sheet.Bands.ShouldBeEmpty();
        foreach (var student in sheet.Students)
        {
            // Each number of the term opens: to the lessons that it is made of, and to no more.
            var why = await room.Teacher.Get<TermExplanation>($"/api/classes/{room.Class}/scores/{student.Id}{asked}");
            (why.Shown, why.Scored, why.Total?.Recompute()).ShouldBe((student.Term, student.Cells.Count(c => c?.Score is not null), why.Total?.Value));
        }
    }

    [Fact]
    public async Task The_bundle_of_the_open_standard_is_valid_and_has_the_figures_of_the_sheet()
    {
        var (room, lessons) = await ThreeLessons.Settled(app);
        var scheme = (await ThreeLessons.Scheme(room)).Scheme;
        await room.Teacher.Post<SchemeStored>(
            $"/api/classes/{room.Class}/scheme", new SchemeSent(scheme with { Places = 1, Bands = [new(0, "a start"), new(60, "well")] }, "bands", 1, []));
        var read = StandardGradeBook.Read(await room.Teacher.Http.GetByteArrayAsync($"/api/classes/{room.Class}/gradebook.zip"));
        read.Problems.ShouldBeEmpty();
        read.Rows("lineItems").Select(r => r["sourcedId"]).ShouldBe([.. lessons.Select(l => $"{l}"), $"{room.Class}-term"]);
        read.Rows("scoreScales")[0]["scoreScaleValue"].ShouldBe("{0-59.9:a start},{60-100:well}");
        var juno = (await Sheet(room)).Students.Single(s => s.Called == "Juno");
        var own = read.Rows("results").Where(r => r["sourcedId"].EndsWith($"{juno.Id}", StringComparison.Ordinal)).ToList();
        own.Select(r => decimal.Parse(r["score"], CultureInfo.InvariantCulture)).ShouldBe([.. juno.Cells.Select(c => c!.Score!.Value), juno.Term!.Value]);
        own[^1]["textScore"].ShouldBe("well");
    }

    [Fact]
    public async Task A_level_is_marked_for_several_in_several_lessons_and_all_of_it_is_taken_back_together()
    {
        var (room, lessons) = await ThreeLessons.Settled(app);
        var criterion = new Criterion(Guid.NewGuid(), "listens", [new(Guid.NewGuid(), "always", 1), new(Guid.NewGuid(), "at times", 0.5m)]);
        var scheme = (await ThreeLessons.Scheme(room)).Scheme;
        var weighs = scheme with { Criteria = [criterion], Weights = scheme.Weights.ToDictionary(w => w.Key, w => w.Key == Strand.Rubric ? 2 : w.Value) };
        await room.Teacher.Post<SchemeStored>($"/api/classes/{room.Class}/scheme", new SchemeSent(weighs, "to judge", 1, [lessons[0], lessons[1]]));
        var before = await ThreeLessons.Scores(room);

        var (juno, eino) = (room.Students["Juno"], room.Students["Eino"]);
        var sent = new JudgedSent(lessons, [juno, eino], criterion.Id, criterion.Levels[0].Id);
        var stored = await room.Teacher.Post<JudgedStored>($"/api/classes/{room.Class}/judged", sent);
        // The third is scored by a version without the criterion.
        (stored.Lessons, stored.NotTaken.Count).ShouldBe((2, 1));
        (await ThreeLessons.Scores(room)).ShouldContain("Eino 66 66 54");
        async Task<IReadOnlyList<Guid>> Levels(string path) => (await room.Teacher.Get<JudgedSheet>(path)).Students.Single(s => s.Id == eino).Levels;
        (await Levels($"/api/lessons/{lessons[0]}/judged")).ShouldBe([criterion.Levels[0].Id]);
        // Over all three there is no level that holds in each.
        (await Levels($"/api/classes/{room.Class}/judged")).ShouldBeEmpty();

        (await room.Teacher.Http.PostAsJsonAsync($"/api/classes/{room.Class}/judged/take-back", new JudgedTakenBack(stored.Together), Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ThreeLessons.Scores(room)).ShouldBe(before);
        Summaries.Check(app.File).ShouldBeEmpty();
        foreach (var wrong in new[] { sent with { Lessons = [] }, sent with { Students = [] }, sent with { Lessons = [Guid.NewGuid()] } })
        {
            (await room.Teacher.Http.PostAsJsonAsync($"/api/classes/{room.Class}/judged", wrong, Visitor.Json)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        }
    }
}
