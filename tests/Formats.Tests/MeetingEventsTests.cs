using System.Text.Json;
using NodaTime;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Signals;

namespace PoliteTally.Formats.Tests;

public sealed class MeetingEventsTests
{
    private static (IReadOnlyList<MeetingEvent> Events, IReadOnlyList<EventProblem> Problems) Read(string json) =>
        MeetingEvents.Read(JsonDocument.Parse(json).RootElement);

    private static string Event(string type, string data, string more = "") =>
        $$"""{"specversion":"1.0","id":"e1","source":"urn:test","type":"polite-tally.{{type}}","time":"2026-11-26T09:31:07.250Z",{{more}}"data":{{data}}}""";

    public static TheoryData<string, string, NameAct> Kinds => new()
    {
        { "joined", """{"name":"Juno Q","device":"phone"}""", new Joined("Juno Q", "phone") },
        { "joined", """{"name":"Juno Q"}""", new Joined("Juno Q", "") },
        { "left", """{"name":"Juno Q","device":"phone"}""", new Left("Juno Q", "phone") },
        { "renamed", """{"name":"iPad","to":"Ren","device":"t"}""", new Renamed("iPad", "Ren", "t") },
        { "hand-raised", """{"name":"Juno Q"}""", new NameRaisedHand("Juno Q") },
        { "hand-lowered", """{"name":"Juno Q"}""", new NameLoweredHand("Juno Q", HandEnd.Lapsed) },
        { "hand-lowered", """{"name":"Juno Q","by":"student"}""", new NameLoweredHand("Juno Q", HandEnd.Withdrawn) },
        { "hand-lowered", """{"name":"Juno Q","by":"teacher"}""", new NameLoweredHand("Juno Q", HandEnd.SetDown) },
        { "message", """{"name":"Juno Q","text":"low water\nat four"}""", new NameWrote("Juno Q", "low water at four", false) },
        { "message", """{"name":"Juno Q","text":"x","private":true}""", new NameWrote("Juno Q", "x", true) },
        { "reaction", """{"name":"Juno Q","reaction":"clap"}""", new NameReacted("Juno Q", "clap") },
        { "online", """{"name":"Juno Q","status":"away"}""", new NameOnline("Juno Q", OnlineStatus.Away) },
        { "joined", """{"name":"Ju\u202eno\u0000 <b>Q</b>"}""", new Joined("Juno <b>Q</b>", "") },
    };

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Every_kind_is_read(string type, string data, NameAct act)
    {
        var (events, problems) = Read($"[{Event(type, data)}]");
        problems.ShouldBeEmpty();
        var told = events.ShouldHaveSingleItem();
        told.Act.ShouldBe(act);
        (told.Source, told.Id, told.Time).ShouldBe(("urn:test", "e1", Instant.FromUtc(2026, 11, 26, 9, 31, 7) + Duration.FromMilliseconds(250)));
    }

    [Fact]
    public void What_else_is_known_of_somebody_goes_with_the_name()
    {
        var shown = Read($"[{Event("joined", """{"name":"guest 7","number":"S1020","email":"juno@x.example"}""")}]").Events[0].Shown;
        (shown.Number, shown.Email).ShouldBe(("S1020", "juno@x.example"));
    }

    [Theory]
    [InlineData("""{"specversion":"1.0"}""", "id is missing")]
    [InlineData("""{"specversion":"0.3","id":"a"}""", "specversion")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.joined"}""", "data is missing")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.joined","data":{}}""", "data.name")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.joined","data":{"name":" \u0007 "}}""", "data.name")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.danced","data":{"name":"Juno"}}""", "polite-tally.danced")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.joined","data":{"name":7}}""", "name is to be a text")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.joined","time":"yesterday","data":{"name":"Juno"}}""", "RFC 3339")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.online","data":{"name":"Juno","status":"asleep"}}""", "data.status")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.hand-lowered","data":{"name":"Juno","by":"wind"}}""", "data.by")]
    [InlineData("""{"specversion":"1.0","id":"a","source":"s","type":"polite-tally.message","data":{"name":"Juno","text":"x","private":"yes"}}""", "true or false")]
    [InlineData("7", "not an event")]
    [InlineData("null", "not an event")]
    public void A_bad_event_is_named_and_does_not_spoil_the_others(string bad, string why)
    {
        var (events, problems) = Read($"[{bad},{Event("joined", """{"name":"Juno Q"}""")}]");
        events.ShouldHaveSingleItem();
        var problem = problems.ShouldHaveSingleItem();
        problem.Why.ShouldContain(why);
        problem.Id.ShouldBe(bad.Contains("\"id\":\"a\"") ? "a" : "#1");
    }

    [Fact]
    public void What_is_no_batch_is_refused_whole()
    {
        Should.Throw<FormatProblem>(() => Read(Event("joined", "{}"))).Message.ShouldContain("list");
        Should.Throw<FormatProblem>(() => Read($"[{string.Join(',', Enumerable.Repeat("{}", 501))}]")).Message.ShouldContain("500");
    }
}
