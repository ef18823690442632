using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using PoliteTally.Core.GroundRules;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Merging;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Tests;

/// <summary>A file of an earlier version is brought up to date with nothing lost.</summary>
public sealed class UpgradeTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("polite-tally-upgrade").FullName;
    private readonly SchoolFile _file;

    public UpgradeTests() => _file = new SchoolFile(_folder);

    public void Dispose()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    /// <summary>The file as it was with the last migration of then and some rows, brought up to date.</summary>
    private async Task<SchoolDb> Upgraded(Guid owner, string migration, IEnumerable<FormattableString> rows)
    {
        await using (var old = _file.Open(owner))
        {
            await old.GetService<IMigrator>().MigrateAsync(migration);
            foreach (var row in rows)
            {
                await old.Database.ExecuteSqlAsync(row);
            }
        }

        _file.Migrate();
        return _file.Open(owner);
    }

    [Fact]
    public async Task A_file_from_before_plans_and_ground_rules_reads_as_it_did()
    {
        var (owner, inClass, student, lesson) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var start = Instant.FromUtc(2026, 11, 23, 9, 30);
        await using var db = await Upgraded(owner, "First",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt") VALUES ({inClass}, {owner}, 'Weather and Tides', 1)""",
            $"""INSERT INTO "Students" ("Id","OwnerId","Family","Given","Tags") VALUES ({student}, {owner}, 'Rautio', 'Eino', 'Nort')""",
            $"""INSERT INTO "Enrolments" ("ClassId","StudentId","OwnerId","Key") VALUES ({inClass}, {student}, {owner}, 'e')""",
            $"""INSERT INTO "KnownNames" ("ClassId","Folded","OwnerId","Shown","StudentId","NotedAt") VALUES ({inClass}, 'eino r', {owner}, 'Eino R.', {student}, 1)""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage")
            VALUES ({lesson}, {owner}, {inClass}, 1, 'Fog and haar', {start.ToUnixTimeMilliseconds()}, {(start + Duration.FromMinutes(50)).ToUnixTimeMilliseconds()}, 0, {(int)LessonStage.Settled})
            """,
            $"""
            INSERT INTO "Entries" ("Id","OwnerId","LessonId","HappenedAt","NotedAt","Source","By","Act")
            VALUES ({Guid.CreateVersion7()}, {owner}, {lesson}, {start.ToUnixTimeMilliseconds()}, 1, 0, 'tamsin', {$$"""{"type":"marked","student":"{{student}}","mark":"here"}"""})
            """,
        ]);
        var room = OpenLesson.Load(db, lesson).ShouldNotBeNull();
        RulesJson.Difference(ClassRules.Default, room.Rules).ShouldContain("openLineIsChance");
        room.Roster.ShouldHaveSingleItem().Name.Given.ShouldBe("Eino");
        room.State.Evidence.MarksOf(student).Count.ShouldBe(1);
        PlanJson.Of(room.Lesson).ShouldBeSameAs(Plan.Empty);
        // What was settled by the rules of then is due to be reckoned by those of now.
        room.Lesson.ReckonAgain.ShouldBeTrue();
        (await db.KnownNames.SingleAsync()).Origin.ShouldBe("");
        (await Summaries.Renew(db, _ => true)).Lessons.ShouldBe(1);
        Summaries.Check(_file).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_settled_before_schemes_had_versions_keeps_its_scheme_and_lessons_to_come_have_the_new_one()
    {
        var (owner, inClass, settled, planned) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        await using var db = await Upgraded(owner, "HandIns",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({inClass}, {owner}, 'Weather and Tides', 1000, {"""{"chatCounts":false,"scheme":{"speakingTarget":2}}"""})""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage","Moved","Rules","Prepared","PlanVersion","ReckonAgain","RosterClosedAt")
            VALUES ({settled}, {owner}, {inClass}, 1, 'Fog and haar', 1500, 3000, 0, 3, 0, {"{}"}, 0, 0, 0, 2000), ({planned}, {owner}, {inClass}, 2, 'Tides', 4500, 6000, 0, 0, 0, {"""{"chatCounts":true}"""}, 0, 0, 0, NULL)
            """,
        ]);
        OpenLesson.Load(db, settled)!.Rules.Scheme.ShouldSatisfyAllConditions(
            s => s.OpenLineIsChance.ShouldBeFalse(), s => s.WrittenStandsIn.ShouldBe(0), s => s.SpeakingTarget.ShouldBe(2), s => s.ChatCounts.ShouldBeFalse());
        OpenLesson.Load(db, planned)!.Rules.Scheme.ShouldSatisfyAllConditions(
            s => s.OpenLineIsChance.ShouldBeTrue(), s => s.WrittenStandsIn.ShouldBe(0.25m), s => s.SpeakingTarget.ShouldBe(2), s => s.ChatCounts.ShouldBeTrue());
        Schemes.Of(db, inClass).Select(v => v.Number).ShouldBe([1, 2, 3]);
        RulesJson.Written(RulesJson.SchemeOf((await Schemes.Of(db, inClass).ToListAsync())[^1].Scheme)).ShouldBe(RulesJson.Written(RulesJson.Of(await db.Classes.SingleAsync()).Scheme));
    }

    [Fact]
    public async Task What_was_settled_before_leaving_early_cost_keeps_its_scheme_and_lessons_to_come_have_the_new_one()
    {
        var (owner, inClass, settled, planned) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        await using var db = await Upgraded(owner, "WeightsLeftOut",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({inClass}, {owner}, 'Weather and Tides', 1000, {"""{"scheme":{"speakingTarget":2}}"""})""",
            $"""INSERT INTO "SchemeVersions" ("ClassId","Number","OwnerId","MadeAt","By","Why","Scheme") VALUES ({inClass}, 1, {owner}, 1, '', 'as the class began', {"""{"attendance":{"lateCredit":0.5},"speakingTarget":2}"""})""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage","Moved","Rules","Prepared","PlanVersion","ReckonAgain","SettledWith","ScoredBy","LookBackKept")
            VALUES ({settled}, {owner}, {inClass}, 1, 'Fog and haar', 1500, 3000, 0, 3, 0, {"{}"}, 0, 0, 0, 1, 1, 1), ({planned}, {owner}, {inClass}, 2, 'Tides', 4500, 6000, 0, 0, 0, {"{}"}, 0, 0, 0, NULL, NULL, 0)
            """,
        ]);
        OpenLesson.Load(db, settled)!.Rules.Scheme.Attendance.ShouldSatisfyAllConditions(a => a.LeftEarlyCredit.ShouldBe(1), a => a.MissedCounts.ShouldBeFalse(), a => a.LateCredit.ShouldBe(0.5m));
        OpenLesson.Load(db, planned)!.Rules.Scheme.Attendance.ShouldSatisfyAllConditions(a => a.LeftEarlyCredit.ShouldBe(0.75m), a => a.MissedCounts.ShouldBeTrue());
        (await Schemes.Of(db, inClass).ToListAsync()).Select(v => (v.Number, RulesJson.SchemeOf(v.Scheme).Attendance.LeftEarlyCredit)).ShouldBe([(1, 1m), (2, 0.75m)]);
        // Attendance is reckoned otherwise.
        OpenLesson.Load(db, settled)!.Lesson.ReckonAgain.ShouldBeTrue();
    }

    [Fact]
    public async Task A_teacher_from_before_the_live_lesson_has_the_keys_as_they_come()
    {
        await using var db = await Upgraded(Guid.Empty, "BeforeTheLesson",
        [
            $"""
                INSERT INTO "AspNetUsers" ("Id","DisplayName","School","TimeZone","EmailConfirmed","PhoneNumberConfirmed","TwoFactorEnabled","LockoutEnabled","AccessFailedCount")
                VALUES ({Guid.CreateVersion7()}, 'Tamsin Vale', 'Skerry Sound', 'Atlantic/Faroe', 0, 0, 0, 0, 0)
                """,
        ]);
        (await db.Users.SingleAsync()).LiveKeys.ShouldBe("{}");
    }

    [Fact]
    public async Task Who_was_in_a_class_before_stays_were_kept_was_there_from_joining_to_leaving()
    {
        var (owner, inClass, student, lesson) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        await using var db = await Upgraded(owner, "StudentPage",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({inClass}, {owner}, 'Weather and Tides', 1, {"{}"})""",
            $"""INSERT INTO "Students" ("Id","OwnerId","Family","Given","Tags") VALUES ({student}, {owner}, 'Grzelak', 'Wojtek', '')""",
            $"""INSERT INTO "Enrolments" ("ClassId","StudentId","OwnerId","Key","JoinedAt","LeftAt") VALUES ({inClass}, {student}, {owner}, 'w', 1000, 2000)""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage","Moved","Rules","Plan","PlanVersion")
            VALUES ({lesson}, {owner}, {inClass}, 3, 'Fog and haar', 1500, 3000, 0, 0, 0, {"{}"}, '', 0)
            """,
            $"""INSERT INTO "KnownNames" ("ClassId","Folded","OwnerId","Shown","StudentId","NotedAt","Origin") VALUES ({inClass}, 'w', {owner}, 'W', {student}, 1, 'lesson 3, Fog and haar')""",
        ]);
        var stay = await db.Stays.SingleAsync();
        (stay.From.ToUnixTimeMilliseconds(), stay.To?.ToUnixTimeMilliseconds()).ShouldBe((1000L, 2000L));
        (await db.KnownNames.SingleAsync()).LessonId.ShouldBe(lesson);
        OpenLesson.Load(db, lesson)!.Roster.ShouldHaveSingleItem().Name.Given.ShouldBe("Wojtek");
        Rosters.Of(db, inClass).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_plan_from_when_it_lay_in_the_row_of_its_lesson_is_still_its_plan_and_entries_know_their_kind()
    {
        var (owner, inClass, planned, bare) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var plan = PlanJson.Write(new Plan { Points = [new(Guid.NewGuid(), "What the barometer did")] });
        await using var db = await Upgraded(owner, "LeftHadBeenThere",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({inClass}, {owner}, 'Weather and Tides', 1, {"{}"})""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage","Moved","Rules","Plan","PlanVersion","ReckonAgain")
            VALUES ({planned}, {owner}, {inClass}, 3, 'Fog and haar', 1500, 3000, 0, 0, 0, {"{}"}, {plan}, 7, 0), ({bare}, {owner}, {inClass}, 4, 'Tides', 4500, 6000, 0, 0, 0, {"{}"}, '', 0, 0)
            """,
            $"""
            INSERT INTO "Entries" ("Id","OwnerId","LessonId","HappenedAt","NotedAt","Source","By","Act")
            VALUES ({Guid.CreateVersion7()}, {owner}, {planned}, 1, 1, 0, 'tamsin', {"""{"type":"lessonStarted"}"""})
            """,
        ]);
        PlanJson.Write(OpenLesson.Load(db, planned)!.Plan).ShouldBe(plan);
        OpenLesson.Load(db, bare)!.Plan.ShouldBeSameAs(Plan.Empty);
        (await db.Lessons.SingleAsync(l => l.Id == planned)).PlanVersion.ShouldBe(7);
        (await db.Entries.SingleAsync()).Kind.ShouldBe("lessonStarted");
        Should.Throw<InvalidOperationException>(() => PlanJson.Of(db.Lessons.AsNoTracking().Single(l => l.Id == planned))).Message.ShouldContain("without its plan");
    }

    [Fact]
    public async Task Files_brought_in_before_they_stood_in_the_ledger_count_and_are_taken_out_as_any_other()
    {
        var (owner, inClass, student, lesson, file) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var start = Instant.FromUtc(2026, 11, 23, 9, 30).ToUnixTimeMilliseconds();
        await using var db = await Upgraded(owner, "LeftHadBeenThere",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({inClass}, {owner}, 'Weather and Tides', 1, {"{}"})""",
            $"""INSERT INTO "Students" ("Id","OwnerId","Family","Given","Tags") VALUES ({student}, {owner}, 'Rautio', 'Eino', '')""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage","Moved","Rules","Plan","PlanVersion","ReckonAgain")
            VALUES ({lesson}, {owner}, {inClass}, 3, 'Fog and haar', {start}, {start + 3_000_000}, 0, 3, 0, {"{}"}, '', 0, 0)
            """,
            $"""
            INSERT INTO "Entries" ("Id","OwnerId","LessonId","HappenedAt","NotedAt","Source","By","Act")
            VALUES ({Guid.CreateVersion7()}, {owner}, {lesson}, {start}, 1, 3, 'list.csv', {"""{"type":"joined","name":"Eino R.","device":""}"""}),
                ({Guid.CreateVersion7()}, {owner}, {lesson}, {start}, 2, 3, 'list.csv', {$$"""{"type":"nameMatched","name":"Eino R.","student":"{{student}}"}"""})
            """,
            $"""INSERT INTO "BroughtIn" ("Id","OwnerId","LessonId","FileName","Fingerprint","Entries","NotedAt") VALUES ({file}, {owner}, {lesson}, 'list.csv', 'AB12', 1, 3)""",
        ]);
        var state = OpenLesson.Load(db, lesson).ShouldNotBeNull().State;
        state.Files.Files.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            f => f.Entry.Id.ShouldBe(file), f => f.File.ShouldBe(new FileBroughtIn(FileKind.Attendance, "list.csv", 1, "AB12")));
        state.EvidenceOf(student).Sightings.Count.ShouldBe(1);
        var strike = new Entry(Guid.CreateVersion7(), Instant.FromUtc(2026, 11, 24, 9, 0), Instant.FromUtc(2026, 11, 24, 9, 0), Source.Tapped, "tamsin", new Struck(file));
        state.With([strike]).EvidenceOf(student).Sightings.ShouldBeEmpty();
        (await db.Lessons.SingleAsync()).ReckonAgain.ShouldBeTrue();
    }

    [Fact]
    public async Task Weights_that_could_not_be_read_are_those_of_the_newest_version_again()
    {
        var (owner, inClass, without, lesson) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        const string lost = """{"scheme":{"weights":null,"chatTarget":4},"pageByName":true}""";
        const string newest = """{"weights":{"attendance":2,"speaking":5,"questions":3,"groupWork":1,"rubric":0}}""";
        await using var db = await Upgraded(owner, "LookBack",
        [
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({inClass}, {owner}, 'Weather and Tides', 1, {lost})""",
            $"""INSERT INTO "Classes" ("Id","OwnerId","Name","MadeAt","Rules") VALUES ({without}, {owner}, 'Island Botany', 1, {lost})""",
            $"""INSERT INTO "SchemeVersions" ("ClassId","Number","OwnerId","MadeAt","By","Why","Scheme") VALUES ({inClass}, 1, {owner}, 1, '', '', '{"{}"}')""",
            $"""INSERT INTO "SchemeVersions" ("ClassId","Number","OwnerId","MadeAt","By","Why","Scheme") VALUES ({inClass}, 2, {owner}, 1, '', '', {newest})""",
            $"""
            INSERT INTO "Lessons" ("Id","OwnerId","ClassId","Number","Title","PlannedStart","PlannedEnd","DropIn","Stage","Moved","Rules","Prepared","PlanVersion","ReckonAgain","LookBackKept")
            VALUES ({lesson}, {owner}, {inClass}, 1, 'Fog and haar', 1, 2, 0, 0, 0, {lost}, 0, 0, 0, 0)
            """,
        ]);
        ClassRules Of(Guid id) => RulesJson.Of(db.Classes.Single(c => c.Id == id));
        db.Classes.AsEnumerable().ShouldAllBe(c => !RulesJson.CannotBeRead(c));
        (Of(inClass).Scheme.Weights[Strand.Chat], Of(inClass).Scheme.Weights[Strand.Speaking], Of(inClass).Scheme.ChatTarget, Of(inClass).PageByName).ShouldBe((0m, 5m, 4m, true));
        Of(without).Scheme.Weights[Strand.Chat].ShouldBe(1);
        RulesJson.Of(db.Lessons.Single(), Of(inClass)).Scheme.Weights[Strand.Speaking].ShouldBe(5);
    }
}
