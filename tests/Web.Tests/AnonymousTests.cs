using System.Net;
using Microsoft.Data.Sqlite;
using PoliteTally.Core.Course;
using PoliteTally.Core.Ledger;
using PoliteTally.Core.Questions;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Questions;
using PoliteTally.Web.Features.StudentPage;

namespace PoliteTally.Web.Tests;

/// <summary>Nothing about an anonymous question leads to a person: each way is tried.</summary>
public sealed class AnonymousTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static readonly string[] Class = ["Juno", "Eino", "Zainab", "Saga", "Tiago", "Kensa"];

    private static Question HowWasIt(bool counts = true) => new()
    {
        Id = Guid.NewGuid(),
        Kind = QuestionKind.ShortText,
        Text = "How was your week?",
        Anonymous = true,
        CountsTakingPart = counts,
    };

    private async Task<(Classroom Room, Dictionary<string, Pupil> Pupils)> Taught(int students = 6)
    {
        var teacher = await app.SignedIn();
        var made = await teacher.Post<ClassLine>("/api/classes", new NewClass("Weather and Tides"));
        await Visitor.Read<RosterBroughtIn>(await teacher.Send(
            $"/api/classes/{made.Id}/roster", $"Given name,Family name\n{string.Concat(Class.Take(students).Select(n => $"{n},Sound\n"))}"));
        var lesson = await teacher.Post<LessonLine>($"/api/classes/{made.Id}/lessons", new LessonNow("How the week was", 50));
        var page = await teacher.Get<ClassView>($"/api/classes/{made.Id}");
        var room = new Classroom(teacher, made.Id, lesson.Id, page.Students.ToDictionary(s => s.Called, s => s.Id));
        var passes = await Pupil.Passes(room);
        var pupils = new Dictionary<string, Pupil>();
        foreach (var (name, pass) in passes)
        {
            pupils[name] = await Pupil.In(room, pass);
        }

        return (room, pupils);
    }

    private static Answer Said(string text) => new() { Text = text };

    private static async Task<AskingView> Seen(Classroom room) => (await room.Teacher.Get<QuestionsView>($"/api/lessons/{room.Lesson}/questions")).Askings[0];

    /// <summary>Every row of every table, as text.</summary>
    private IEnumerable<(string Table, string Row)> Rows()
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(app.Folder, "polite-tally.db")}");
        connection.Open();
        var tables = new List<string>();
        using (var list = connection.CreateCommand())
        {
            list.CommandText = "SELECT name FROM sqlite_master WHERE type = 'table'";
            using var names = list.ExecuteReader();
            while (names.Read())
            {
                tables.Add(names.GetString(0));
            }
        }

        foreach (var table in tables)
        {
            using var select = connection.CreateCommand();
            select.CommandText = $"""SELECT * FROM "{table}" """;
            using var rows = select.ExecuteReader();
            while (rows.Read())
            {
                yield return (table, string.Join('|', Enumerable.Range(0, rows.FieldCount).Select(i => rows.GetValue(i).ToString())));
            }
        }
    }

    [Fact]
    public async Task What_comes_back_from_answering_says_that_it_was_answered()
    {
        // A page shows what came last: if this said otherwise, it stood there as if nothing had been sent.
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        (await pupils["Juno"].Do(PageDoing.Answer, asking, Said("long"))).Questions[0].Answered.ShouldBeTrue();
    }

    [Fact]
    public async Task Neither_times_nor_the_order_tell_who_said_what()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        var before = (await room.Sheet()).Head.Position;
        string[] order = ["Kensa", "Juno", "Tiago", "Eino", "Zainab", "Saga"];
        string[] words = ["zz", "aa", "mm", "cc", "yy", "bb"];
        foreach (var (name, word) in order.Zip(words))
        {
            await pupils[name].Do(PageDoing.Answer, asking, Said(word));
        }

        // No entry of the ledger came with any of the answers.
        (await room.Sheet()).Head.Position.ShouldBe(before);
        await room.Tap(new QuestionClosed(asking));
        var texts = (await Seen(room)).Results.Texts;
        texts.Select(t => t.Text).ShouldBe(words.Order());
        texts.ShouldAllBe(t => t.Students.Count == 0);
    }

    [Fact]
    public async Task While_it_is_open_the_teacher_sees_how_many_answered_and_nothing_else()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        await pupils["Juno"].Do(PageDoing.Answer, asking, Said("windy"));
        var seen = await Seen(room);
        (seen.Answered, seen.Results.Texts.Count, seen.Students.Count).ShouldBe((1, 0, 0));
        seen.HeldBack.ShouldNotBeNull();
        (await room.Sheet()).Rows.ShouldAllBe(r => r.Questions.Count == 0);
        (await room.Tap(new ResultsPut(asking, false, false, []))).Refused.ShouldHaveSingleItem().Why.ShouldContain("Close");
        (await room.Tap(new AnswerGiven(room.Students["Juno"], asking, Said("x")))).Refused.ShouldHaveSingleItem().Why.ShouldContain("no name");
    }

    [Fact]
    public async Task Of_too_few_answers_only_their_number_is_kept()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        foreach (var name in Class.Take(Asking.FewestAnonymous - 1))
        {
            await pupils[name].Do(PageDoing.Answer, asking, Said("FEW"));
        }

        await room.Tap(new QuestionClosed(asking));
        var seen = await Seen(room);
        (seen.Answered, seen.Results.Texts.Count).ShouldBe((4, 0));
        seen.HeldBack.ShouldNotBeNull().ShouldContain("Fewer than 5");
        Rows().ShouldNotContain(r => r.Row.Contains("FEW"));
    }

    [Fact]
    public async Task Nobody_answers_twice_and_only_the_browser_that_answered_changes_it()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        var ballot = Guid.NewGuid();
        await pupils["Juno"].Do(PageDoing.Answer, asking, Said("first"), id: ballot);
        await pupils["Juno"].Do(PageDoing.Answer, asking, Said("second"), id: ballot);
        (await pupils["Juno"].Refused(PageDoing.Answer, asking, Said("third"))).ShouldContain("answered this already");
        (await pupils["Eino"].Refused(PageDoing.Answer, asking, Said("stolen"), id: ballot)).ShouldContain("once more");
        foreach (var name in Class.Skip(1))
        {
            await pupils[name].Do(PageDoing.Answer, asking, Said("second"));
        }

        await room.Tap(new QuestionClosed(asking));
        (await Seen(room)).Results.Texts.ShouldHaveSingleItem().Count.ShouldBe(6);
        (await pupils["Juno"].Refused(PageDoing.Answer, asking, Said("late"), id: ballot)).ShouldContain("too late");
    }

    [Fact]
    public async Task The_end_of_the_lesson_counts_what_is_open()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt(counts: false));
        foreach (var pupil in pupils.Values)
        {
            await pupil.Do(PageDoing.Answer, asking, Said("kept"));
        }

        // Rules, roster or plan change meanwhile.
        app.Part<Store.OpenLessons>().Forget(l => l.Id == room.Lesson);
        (await Seen(room)).Answered.ShouldBe(6);
        await room.Tap(new LessonEnded());
        (await Seen(room)).Results.Texts.ShouldHaveSingleItem().Count.ShouldBe(6);
        // That they took part does not count here, so nobody's name stands beside the answers at all.
        Rows().Where(r => r.Row.Contains("ballotsCounted") && r.Row.Contains("kept")).ShouldHaveSingleItem().Row.ShouldContain("\"tookPart\":[]");
    }

    [Fact]
    public async Task A_closed_one_is_not_opened_again()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        foreach (var pupil in pupils.Values)
        {
            await pupil.Do(PageDoing.Answer, asking, Said("calm"));
        }

        var closing = (await room.Tap(new QuestionClosed(asking))).Accepted[0];
        (await room.Tap(new Struck(closing))).Refused.ShouldHaveSingleItem().Why.ShouldContain("as a copy");
        var answer = await pupils["Juno"].Send(new PageAct(Guid.NewGuid(), PageDoing.Answer, asking, Said("x")));
        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    /// <summary>Whether a text stands anywhere in the files of the data folder.</summary>
    private bool InAnyFile(string text)
    {
        var wanted = System.Text.Encoding.UTF8.GetBytes(text);
        return Directory.EnumerateFiles(app.Folder, "polite-tally.db*").Any(path =>
        {
            using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            using var bytes = new MemoryStream();
            file.CopyTo(bytes);
            return bytes.ToArray().AsSpan().IndexOf(wanted) >= 0;
        });
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task No_copy_of_the_folder_holds_an_answer_of_an_open_question_whoever_reads_meanwhile(bool withReader)
    {
        var (room, pupils) = await Taught();
        using var reader = new SqliteConnection($"Data Source={Path.Combine(app.Folder, "polite-tally.db")}");
        reader.Open();
        using var snapshot = withReader ? reader.BeginTransaction(deferred: true) : null;
        if (withReader)
        {
            using var look = reader.CreateCommand();
            look.CommandText = """SELECT COUNT(*) FROM "Entries" """;
            look.ExecuteScalar();
        }

        var asking = await StudentPageTests.Open(room, HowWasIt());
        var juno = Guid.NewGuid();
        await pupils["Juno"].Do(PageDoing.Answer, asking, Said($"GALE {withReader}"), id: juno);
        await pupils["Juno"].Do(PageDoing.Answer, asking, Said($"SQUALL {withReader}"), id: juno);
        foreach (var name in Class.Skip(1))
        {
            await pupils[name].Do(PageDoing.Answer, asking, Said($"DOLDRUMS {withReader} {name.Length}"));
            (InAnyFile($"GALE {withReader}") || InAnyFile($"SQUALL {withReader}") || InAnyFile($"DOLDRUMS {withReader}")).ShouldBeFalse();
        }

        var opening = Rows().Count(r => r.Row.Contains(asking.ToString(), StringComparison.OrdinalIgnoreCase));
        opening.ShouldBe(1);
        await room.Tap(new QuestionClosed(asking));
        InAnyFile($"GALE {withReader}").ShouldBeFalse();
        // One row has all the answers and all who took part, each in an order of its own.
        Rows().Where(r => r.Row.Contains($"SQUALL {withReader}")).ShouldHaveSingleItem().Row.Split($"DOLDRUMS {withReader}").Length.ShouldBe(6);
        (await Seen(room)).Results.Texts.Sum(t => t.Count).ShouldBe(6);
    }

    [Fact]
    public async Task Undoing_the_opening_leaves_nothing_of_the_answers()
    {
        var (room, pupils) = await Taught();
        var asking = await StudentPageTests.Open(room, HowWasIt());
        foreach (var pupil in pupils.Values)
        {
            await pupil.Do(PageDoing.Answer, asking, Said("HALCYON"));
        }

        (await room.Tap(new Struck(asking))).Refused.ShouldBeEmpty();
        await room.Tap(new LessonEnded());
        InAnyFile("HALCYON").ShouldBeFalse();
        Rows().ShouldNotContain(r => r.Table.StartsWith("Ballot"));
    }
}
