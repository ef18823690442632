using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using PoliteTally.Core.Notes;
using PoliteTally.Core.Questions;

namespace PoliteTally.Web.Tests;

/// <summary>What one request sends harms no other: whatever comes in beside it, taps of another lesson are stored.</summary>
public sealed class NeighbourTests(AppUnderTest app) : IClassFixture<AppUnderTest>
{
    private static StringContent Json(string body) => new(body, Encoding.UTF8, "application/json");

    private static readonly Question Words = new() { Id = Guid.Parse("00000000-0000-4000-8000-000000000001"), Kind = QuestionKind.WordList, Text = "The sea in three words", WordsEach = 3 };

    [Fact]
    public async Task Null_words_from_a_student_page_are_refused_and_every_tap_of_another_lesson_is_stored()
    {
        var room = await (await app.SignedIn()).Teach();
        var neighbour = await (await app.SignedIn()).Teach();
        using var juno = await Pupil.In(room, (await Pupil.Passes(room))["Juno"]);
        var asking = await StudentPageTests.Open(room, Words);

        var taps = Enumerable.Range(0, 60).Select(_ => neighbour.Tap(new NodGiven(neighbour.Students["Eino"], "on time")));
        var bad = Enumerable.Range(0, 60).Select(_ => juno.Http.PostAsync(
            $"/api/page/{juno.Code}/acts", Json($$$"""{"id":"{{{Guid.NewGuid()}}}","doing":"answer","asking":"{{{asking}}}","answer":{"words":[null]}}""")));
        var (stored, answers) = (await Task.WhenAll(taps), await Task.WhenAll(bad));

        stored.Sum(s => s.Accepted.Count).ShouldBe(60);
        answers.ShouldAllBe(a => (int)a.StatusCode >= 400 && (int)a.StatusCode < 500);
    }

    [Fact]
    public async Task Null_groups_from_a_teacher_are_refused_with_a_reason()
    {
        var room = await (await app.SignedIn()).Teach();
        var answer = await room.Teacher.Http.PostAsync($"/api/lessons/{room.Lesson}/entries", Json($$$"""
            {"entries":[{"id":"{{{Guid.NewGuid()}}}","happenedAt":{{{Classroom.Now.ToUnixTimeMilliseconds()}}},"act":{"type":"groupsMade","groups":[null]}}]}
            """));
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
    }

    [Fact]
    public async Task A_refused_event_that_stands_twice_in_a_batch_is_told_once_and_the_others_are_kept()
    {
        var room = await (await app.SignedIn()).Teach();
        using var meeting = await Meeting.Of(room);
        var late = Classroom.Now - NodaTime.Duration.FromHours(30);
        var answer = await meeting.Tell(
            meeting.Event("joined", new { name = "Juno" }, late, "e1"), meeting.Event("joined", new { name = "Juno" }, late, "e1"),
            meeting.Event("joined", new { name = "Juno Quillfeather" }, id: "e2"));
        answer.Refused.ShouldHaveSingleItem().Id.ShouldBe("e1");
    }

    [Theory]
    [InlineData("""{"happenedAt":1,"act":{}}""")]
    [InlineData("""{"act":{"type":"attended","name":"Juno","length":1e300}}""")]
    [InlineData("""{"act":{"type":"contactTried"}}""")]
    [InlineData("""{"act":{"type":"noSuchAct"}}""")]
    [InlineData("""{"act":{"type":"nodGiven","reason":"on time","weight":4}}""")]
    public async Task An_entry_that_is_not_understood_is_answered_as_a_mistake_of_the_sender(string entry)
    {
        var room = await (await app.SignedIn()).Teach();
        var sent = JsonNode.Parse(entry)!.AsObject();
        sent["id"] = Guid.NewGuid().ToString();
        sent["happenedAt"] ??= Classroom.Now.ToUnixTimeMilliseconds();
        var answer = await room.Teacher.Http.PostAsJsonAsync($"/api/lessons/{room.Lesson}/entries", new JsonObject { ["entries"] = new JsonArray(sent) });
        ((int)answer.StatusCode).ShouldBeInRange(400, 422);
    }
}
