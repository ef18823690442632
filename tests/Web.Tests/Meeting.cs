using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Web.Features.Feed;
using PoliteTally.Web.Features.Keys;

namespace PoliteTally.Web.Tests;

/// <summary>A program that is connected to a lesson: it has a key and nothing else.</summary>
public sealed class Meeting(string address, string key) : IDisposable
{
    private int _next;

    public HttpClient Http { get; } = new()
    {
        BaseAddress = new Uri(address),
        DefaultRequestHeaders = { Authorization = new AuthenticationHeaderValue("Bearer", key) },
    };

    public static async Task<Meeting> Of(Classroom room) => new(room.Teacher.Http.BaseAddress!.ToString(), (await KeyFor(room, feed: true)).Key);

    public static Task<KeyMade> KeyFor(Classroom room, bool feed = false, bool sweep = false, bool handLine = false, string name = "Odhran") =>
        room.Teacher.Post<KeyMade>($"/api/lessons/{room.Lesson}/keys", new KeyWanted(name, feed, sweep, handLine));

    public object Event(string type, object data, Instant? at = null, string? id = null) => new
    {
        specversion = "1.0",
        id = id ?? $"e{Interlocked.Increment(ref _next)}",
        source = "urn:test",
        type = $"polite-tally.{type}",
        time = InstantPattern.ExtendedIso.Format(at ?? Classroom.Now),
        data,
    };

    public Task<HttpResponseMessage> Send(params IEnumerable<object> events) => Http.PostAsJsonAsync("/api/feed", events, JsonSerializerOptions.Web);

    public async Task<FeedAnswer> Tell(params IEnumerable<object> events) => await Visitor.Read<FeedAnswer>(await Send(events));

    public void Dispose() => Http.Dispose();
}
