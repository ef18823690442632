using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using PoliteTally.Core.Scoring;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Web.Features.Desk;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Register;
using PoliteTally.Web.Features.WordAhead;

namespace PoliteTally.Web.Tests;

/// <summary>One document that cannot be read takes nothing with it: what is beside it is served, and every loop goes on.</summary>
public sealed class PoisonTests : IAsyncLifetime
{
    private readonly AppUnderTest _app = new();

    public ValueTask InitializeAsync() => _app.InitializeAsync();

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    private async Task Sql(string statement)
    {
        await using var db = _app.File.Open(Guid.Empty);
        await db.Database.ExecuteSqlRawAsync(statement.Replace("{", "{{", StringComparison.Ordinal).Replace("}", "}}", StringComparison.Ordinal));
    }

    /// <summary>A column in the file, and which rows of it are spoilt when a lesson and its class are.</summary>
    private static (string Table, string Rows) InFile(SchoolDb db, Type type, Classroom room)
    {
        var table = db.Model.FindEntityType(type)!.GetTableName()!;
        return (table, table switch
        {
            "AspNetUsers" => "\"Email\" LIKE 'tamsin%'",
            "Classes" => $"\"Id\" = '{room.Class}'",
            "Lessons" => $"\"Id\" = '{room.Lesson}'",
            "SchemeVersions" => $"\"ClassId\" = '{room.Class}'",
            "Terms" or "Shelf" => "1",
            _ => $"\"LessonId\" = '{room.Lesson}'",
        });
    }

    [Fact]
    public async Task Whatever_cannot_be_read_all_others_are_served_and_the_loops_go_on()
    {
        var (teacher, neighbour) = (await _app.SignedIn(), await (await _app.SignedIn("odhran")).Teach());
        var (room, beside) = (await teacher.TeachAndSettle(), await teacher.Teach());
        await Sql($$"""INSERT INTO "LessonPlans" ("LessonId", "OwnerId", "Document") SELECT "Id", "OwnerId", '{}' FROM "Lessons" WHERE "Id" = '{{room.Lesson}}' COLLATE NOCASE""");
        await Sql($"UPDATE \"Lessons\" SET \"Prepared\" = 1 WHERE \"Id\" = '{room.Lesson}' COLLATE NOCASE");
        await using var db = _app.File.Open(Guid.Empty);
        foreach (var (type, column) in Documents.Columns)
        {
            var (table, rows) = InFile(db, type, room);
            await Sql($"CREATE TABLE \"Before\" AS SELECT rowid AS \"Row\", \"{column}\" AS \"Was\" FROM \"{table}\"");
            // What is no JSON at all the database does not take for an act: it reads the kind off it.
            foreach (var junk in new[] { "{", "null", "[null]", """{"scheme":{"weights":null},"name":7}""" }.Skip(table == "Entries" ? 1 : 0))
            {
                await Sql($"UPDATE \"{table}\" SET \"{column}\" = '{junk}' WHERE {rows} COLLATE NOCASE");
                _app.Part<OpenLessons>().Forget(_ => true);
                await Everything.IsServed(teacher, beside);
                await _app.Part<WordAheadSender>().SendDue(CancellationToken.None);
                await _app.Part<RegisterSender>().SendDue(CancellationToken.None);
            }

            await Sql($"UPDATE \"{table}\" SET \"{column}\" = (SELECT \"Was\" FROM \"Before\" WHERE \"Row\" = \"{table}\".rowid)");
            await Sql("DROP TABLE \"Before\"");
        }

        await Everything.IsServed(await _app.SignedIn("odhran"), neighbour);
        await Sql("DELETE FROM \"LessonPlans\"");
        await Sql("UPDATE \"Summaries\" SET \"Tally\" = '{'");
        await _app.Restart();
        await Everything.IsServed(await _app.SignedIn(), beside);
        foreach (var loop in _app.Parts<IHostedService>().OfType<BackgroundService>())
        {
            (loop.ExecuteTask?.IsFaulted ?? false).ShouldBeFalse(loop.GetType().Name);
        }
    }

    [Fact]
    public async Task Rules_that_cannot_be_read_are_the_usual_ones_until_others_are_stored_and_that_is_said()
    {
        var teacher = await _app.SignedIn();
        var room = await teacher.Teach();
        await Sql($"UPDATE \"Classes\" SET \"Rules\" = '[]' WHERE \"Id\" = '{room.Class}' COLLATE NOCASE");
        var view = await teacher.Get<RulesView>($"/api/classes/{room.Class}/rules");
        (view.CannotBeRead, view.Rules.Scheme.ChatTarget).ShouldBe((true, 2));
        (await teacher.Get<Desk>("/api/desk")).Classes.ShouldHaveSingleItem().RulesLost.ShouldBeTrue();
        var stored = await teacher.Put<RulesStored>($"/api/classes/{room.Class}/rules", new RulesSent(view.Rules with { ExtraTimeShare = 0.25m }));
        (stored.View.CannotBeRead, stored.View.Rules.ExtraTimeShare).ShouldBe((false, 0.25m));
    }

    [Theory]
    [InlineData("classes", "rules")]
    [InlineData("lessons", "rules")]
    [InlineData("classes", "scheme")]
    public async Task A_weight_that_is_left_out_weighs_nothing_and_can_be_read_again(string what, string document)
    {
        var teacher = await _app.SignedIn();
        var room = await teacher.Teach();
        var path = $"/api/{what}/{(what == "classes" ? room.Class : room.Lesson)}/{document}";
        var rules = JsonSerializer.SerializeToNode((await teacher.Get<RulesView>($"/api/classes/{room.Class}/rules")).Rules, Visitor.Json)!;
        rules["scheme"]!["weights"]!.AsObject().Remove("chat").ShouldBeTrue();
        object body = document == "rules" ? new { rules, why = "" } : new { scheme = rules["scheme"], why = "no chat", after = 1, lessons = Array.Empty<Guid>() };
        var answer = document == "rules" ? await teacher.Put(path, body) : await teacher.Post(path, body);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        (await teacher.Get<RulesView>($"/api/{what}/{(what == "classes" ? room.Class : room.Lesson)}/rules")).Rules.Scheme.Weights.ShouldSatisfyAllConditions(
            w => w[Strand.Chat].ShouldBe(0), w => w[Strand.Speaking].ShouldBe(3));
        await Everything.IsServed(teacher, room);
    }

    [Fact]
    public async Task What_could_not_be_read_again_is_not_stored()
    {
        var owner = Guid.CreateVersion7();
        await using var db = _app.File.Open(owner);
        foreach (var column in Documents.Columns)
        {
            db.ChangeTracker.Clear();
            object row = column.Table.Name switch
            {
                nameof(SchoolClass) => new SchoolClass { Id = owner, Name = "Tides", Rules = "{\"scheme\":{\"weights\":1}}" },
                nameof(Term) => new Term { Id = owner, Name = "This term", DaysOff = "[null]" },
                nameof(ShelfQuestion) => new ShelfQuestion { Id = owner, Question = "null" },
                nameof(LessonPlan) => new LessonPlan { LessonId = owner, Document = "null" },
                _ => "",
            };
            if (row is not string)
            {
                db.Add(row);
                await Should.ThrowAsync<NotReadBack>(() => db.SaveChangesAsync(TestContext.Current.CancellationToken));
                await Should.ThrowAsync<NotReadBack>(db.SaveQuickly);
            }
        }

        (await db.Classes.CountAsync(TestContext.Current.CancellationToken)).ShouldBe(0);
    }
}

/// <summary>Everything that can be read of a class and a lesson of it.</summary>
internal static class Everything
{
    private static List<string>? _paths;

    /// <summary>Reads all of it; a wish that lacks something may be refused, and nothing may fail.</summary>
    public static async Task IsServed(Visitor teacher, Classroom room)
    {
        _paths ??= [.. new ApiSamples(JsonDocument.Parse(await teacher.Http.GetStringAsync("/openapi/v1.json")).RootElement).Operations.Where(o => o.Method == "GET").Select(o => o.Path)];
        var wrong = new System.Collections.Concurrent.ConcurrentBag<string>();
        var paths = _paths.Where(p => p.StartsWith("/api/classes", StringComparison.Ordinal) || p.StartsWith("/api/lessons", StringComparison.Ordinal) || !p.Contains('{'))
            .Where(p => !p.StartsWith("/api/page", StringComparison.Ordinal) && !p.StartsWith("/api/help", StringComparison.Ordinal));
        await Parallel.ForEachAsync(paths, async (path, stops) =>
        {
            var filled = path.Replace("/classes/{id}", $"/classes/{room.Class}").Replace("/lessons/{id}", $"/lessons/{room.Lesson}")
                .Replace("{student}", $"{room.Students["Juno"]}").Replace("{position}", "0").Replace("{lesson}", $"{room.Lesson}");
            using var answer = await teacher.Http.GetAsync(filled.Contains('{') ? filled[..filled.IndexOf('{')] + Guid.Empty : filled, stops);
            if ((int)answer.StatusCode >= 500)
            {
                wrong.Add($"{(int)answer.StatusCode} {filled} {await answer.Content.ReadAsStringAsync(stops)}");
            }
        });

        wrong.ShouldBeEmpty();
    }
}
