using System.Net;
using NodaTime;
using PoliteTally.Core.Attendance;
using PoliteTally.Core.Course;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Scores;

namespace PoliteTally.Web.Tests;

/// <summary>Versions of a scheme, before and after, and single cases put right.</summary>
public sealed class SchemeTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly IReadOnlyList<Guid> None = [];

    private Task<(Classroom Room, IReadOnlyList<Guid> Lessons)> Term() => ThreeLessons.Settled(app);

    private static Task<SchemeView> Scheme(Classroom room) => ThreeLessons.Scheme(room);

    private static Task<string> Scores(Classroom room) => ThreeLessons.Scores(room);

    private static Task<SchemeStored> Store(Classroom room, Scheme scheme, int after, IReadOnlyList<Guid> lessons) =>
        room.Teacher.Post<SchemeStored>($"/api/classes/{room.Class}/scheme", new SchemeSent(scheme, "a class that talks", after, lessons));

    private static Scheme WithoutSpeaking(Scheme scheme) => scheme with { Weights = scheme.Weights.ToDictionary(w => w.Key, w => w.Key == Strand.Speaking ? 0 : w.Value) };

    [Fact]
    public async Task A_version_that_is_not_in_force_changes_nothing_and_lessons_to_come_take_the_newest()
    {
        var (room, _) = await Term();
        var before = await Scores(room);
        before.ShouldBe("Juno 96 96 96, term 96; Eino 54 54 54, term 54");
        var stored = await Store(room, WithoutSpeaking((await Scheme(room)).Scheme), 1, None);
        (stored.View.Version, stored.Together, stored.Lessons).ShouldBe((2, null, 0));
        stored.View.Versions.Select(v => (v.Number, v.Why, v.Lessons)).ShouldBe([(2, "a class that talks", 0), (1, "as the class began", 3)]);
        (await Scores(room)).ShouldBe(before);
        Summaries.Check(app.File).ShouldBeEmpty();

        var next = await room.Next();
        await next.Tap(new Marked(room.Students["Eino"], Mark.Here), new TurnTaken(room.Students["Juno"], TurnOutcome.Full, TurnOrigin.Hand));
        await next.Tap(new LessonEnded(), new LessonSettled());
        (await Scheme(room)).Lessons.Select(l => l.Version).ShouldBe([1, 1, 1, 2]);
        Summaries.Check(app.File).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_shown_before_is_what_recomputing_gives_and_undo_restores_every_figure()
    {
        var (room, lessons) = await Term();
        var (before, scheme) = (await Scores(room), WithoutSpeaking((await Scheme(room)).Scheme));
        foreach (var chosen in new[] { None, [lessons[1]], lessons })
        {
            var newest = (await Scheme(room)).Version;
            var tried = await room.Teacher.Post<SchemeCompared>($"/api/classes/{room.Class}/scheme/try", new SchemeTried(scheme, chosen));
            var stored = await Store(room, scheme, newest, chosen);
            stored.Lessons.ShouldBe(chosen.Count);
            var after = await Scores(room);
            foreach (var name in new[] { "Juno", "Eino" })
            {
                var row = tried.Students.Single(s => s.Called == name);
                after.ShouldContain($"{name} {after.Split($"{name} ")[1].Split(',')[0]}, term {Core.Text.Words.Shown(row.After!.Value)}");
            }

            Summaries.Check(app.File).ShouldBeEmpty();
            if (stored.Together is { } together)
            {
                await room.Teacher.Post<SchemeView>($"/api/classes/{room.Class}/scheme/take-back", new ScoringTakenBack(together));
            }

            (await Scores(room)).ShouldBe(before);
        }
    }

    [Fact]
    public async Task Recomputing_with_the_same_version_changes_nothing()
    {
        var (room, lessons) = await Term();
        var before = await Scores(room);
        var stored = await Store(room, (await Scheme(room)).Scheme, 1, lessons);
        (stored.View.Version, stored.Lessons, stored.Together).ShouldBe((1, 0, null));
        (await Scores(room)).ShouldBe(before);
    }

    [Fact]
    public async Task A_scheme_that_sees_attendance_otherwise_is_tried_on_the_entries_themselves()
    {
        var (room, lessons) = await Term();
        var scheme = (await Scheme(room)).Scheme;
        // Nobody was there for so long.
        scheme = scheme with { Attendance = scheme.Attendance with { AbsentBelow = Duration.FromHours(4), AbsentBelowShare = 1, LateAfter = Duration.FromMinutes(1) } };
        var tried = await room.Teacher.Post<SchemeCompared>($"/api/classes/{room.Class}/scheme/try", new SchemeTried(scheme, lessons));
        await Store(room, scheme, 1, lessons);
        var after = await Scores(room);
        after.ShouldContain($"term {Core.Text.Words.Shown(tried.Students.Single(s => s.Called == "Juno").After!.Value)}");
        Summaries.Check(app.File).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_class_without_a_settled_lesson_takes_a_scheme_too()
    {
        var room = await (await app.SignedIn()).Teach();
        var stored = await Store(room, WithoutSpeaking((await Scheme(room)).Scheme), 1, None);
        stored.View.Versions.Select(v => v.Number).ShouldBe([2, 1]);
    }

    [Fact]
    public async Task Two_windows_do_not_write_over_each_other()
    {
        var (room, _) = await Term();
        var scheme = (await Scheme(room)).Scheme;
        await Store(room, scheme with { NodPoints = 2 }, 1, None);
        var refused = await room.Teacher.Post($"/api/classes/{room.Class}/scheme", new SchemeSent(scheme with { NodPoints = 3 }, "another window", 1, None));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("version 2");
        (await Scheme(room)).Scheme.NodPoints.ShouldBe(2);
    }

    public static TheoryData<Scheme, string, string> Wrong() => new()
    {
        { Core.Scoring.Scheme.Default with { Weights = new Dictionary<Strand, decimal>() }, "why", "at least one strand" },
        { Core.Scoring.Scheme.Default with { SpeakingTarget = 0 }, "why", "more than 0" },
        { Core.Scoring.Scheme.Default with { Bands = [new(0, "begins"), new(0, "leads")] }, "why", "no two overlap" },
        { Core.Scoring.Scheme.Default with { Bands = [new(50, "begins")] }, "why", "the lowest begins at 0" },
        { Core.Scoring.Scheme.Default with { Criteria = [new(Guid.NewGuid(), "listens", [])] }, "why", "from 2 to 9 levels" },
        { Core.Scoring.Scheme.Default with { Weights = new Dictionary<Strand, decimal> { [Strand.Rubric] = 1 } }, "why", "needs a criterion" },
        { Core.Scoring.Scheme.Default with { NodPoints = 2 }, " ", "Say why" },
        { Core.Scoring.Scheme.Default with { NodPoints = 2 }, new string('x', 301), "at most 300" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public async Task What_is_wrong_with_a_scheme_is_said_and_nothing_is_stored(Scheme scheme, string why, string said)
    {
        var room = await (await app.SignedIn()).Teach();
        var refused = await room.Teacher.Post($"/api/classes/{room.Class}/scheme", new SchemeSent(scheme, why, 1, None));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync()).ShouldContain(said);
        (await Scheme(room)).Versions.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_single_case_is_put_right_with_a_reason_in_a_settled_lesson_and_taken_back()
    {
        var (room, lessons) = await Term();
        var (eino, before) = (room.Students["Eino"], await Scores(room));
        var second = room with { Lesson = lessons[1] };
        Task<WriteResult> Tap(Act act) => second.Tap(act);

        (await Tap(new ScoreCorrected(eino, CorrectionKind.StrandSet, Strand.Speaking, 1, " "))).Refused.ShouldHaveSingleItem().Why.ShouldContain("needs a reason");
        var taken = await Tap(new ScoreCorrected(eino, CorrectionKind.StrandSet, Strand.Speaking, 1, "spoke by telephone"));
        (await Scores(room)).ShouldBe("Juno 96 96 96, term 96; Eino 54 92 54, term 67");
        var why = await room.Teacher.Get<Explanation>($"/api/lessons/{lessons[1]}/scores/{eino}");
        why.Score.Strands.Single(s => s.Strand == Strand.Speaking).Because.ShouldStartWith("speaking set to 100 % by hand: spoke by telephone (");
        why.Entries.ShouldContain(e => e.Text.EndsWith("spoke by telephone", StringComparison.Ordinal));
        Summaries.Check(app.File).ShouldBeEmpty();

        await Tap(new ScoreCorrected(eino, CorrectionKind.LessonLeftOut, null, null, "was on the ferry"));
        (await Scores(room)).ShouldContain("Eino 54  54");
        await Tap(new ScoreCorrected(eino, CorrectionKind.ScoreSet, null, 80, "as agreed"));
        (await Scores(room)).ShouldContain("Eino 54 80 54");
        var all = await room.Teacher.Get<Features.Live.StudentEntryList>($"/api/lessons/{lessons[1]}/students/{eino}/entries");
        foreach (var entry in all.Entries.Where(e => e.Text.Contains(" set ", StringComparison.Ordinal) || e.Text.Contains("left out", StringComparison.Ordinal)))
        {
            (await Tap(new Struck(entry.Id))).Refused.ShouldBeEmpty();
        }

        (await Scores(room)).ShouldBe(before);
        taken.Refused.ShouldBeEmpty();
    }

    [Fact]
    public async Task The_grade_book_says_what_the_sheet_says()
    {
        var (room, lessons) = await Term();
        await Store(room, (await Scheme(room)).Scheme with { Bands = [new(0, "finding a way in"), new(90, "carrying the lesson")], Places = 1 }, 1, lessons);
        await (room with { Lesson = lessons[1] }).Tap(new ScoreCorrected(room.Students["Eino"], CorrectionKind.ScoreSet, null, 80, "as agreed"));
        await Scores(room);
        var csv = await room.Teacher.Http.GetStringAsync($"/api/classes/{room.Class}/gradebook.csv");
        csv.ShouldContain("S1,Quillfeather,Juno,95.8,carrying the lesson,95.8,95.8,95.8,\r\n");
        csv.ShouldContain("S2,Rautio,Eino,62.8,finding a way in,54.2,80.0,54.2,lesson 2: the score set to 80 by hand: as agreed\r\n");
        using var book = DocumentFormat.OpenXml.Packaging.SpreadsheetDocument.Open(
            new MemoryStream(await room.Teacher.Http.GetByteArrayAsync($"/api/classes/{room.Class}/gradebook.xlsx")), isEditable: false);
        book.WorkbookPart!.WorksheetParts.Single().Worksheet!.InnerText.ShouldContain("carrying the lesson");
    }

    [Fact]
    public async Task A_rubric_counts_when_it_weighs_something_and_was_marked()
    {
        var (room, lessons) = await Term();
        var criterion = new Criterion(Guid.NewGuid(), "listens", [new(Guid.NewGuid(), "always", 1), new(Guid.NewGuid(), "at times", 0.5m)]);
        var view = await Scheme(room);
        var scheme = view.Scheme with { Criteria = [criterion], Weights = view.Scheme.Weights.ToDictionary(w => w.Key, w => w.Key == Strand.Rubric ? 2 : w.Value) };
        await Store(room, scheme, 1, [lessons[0]]);
        (await Scores(room)).ShouldContain("Eino 54 54 54"); // no mark, no chance

        var marked = new CriterionMarked(room.Students["Eino"], criterion.Id, criterion.Levels[0].Id);
        (await (room with { Lesson = lessons[0] }).Tap(marked)).Refused.ShouldBeEmpty();
        (await Scores(room)).ShouldContain("Eino 66 54 54"); // (3.25 + 2) of 8
        // A lesson that is scored by a version without it has no such criterion.
        (await (room with { Lesson = lessons[1] }).Tap(marked)).Refused
            .ShouldHaveSingleItem().Why.ShouldContain("no such criterion");
        Summaries.Check(app.File).ShouldBeEmpty();
    }
}
