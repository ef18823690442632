using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;

namespace PoliteTally.StandIns;

/// <summary>
/// Plays a meeting into the feed of a lesson. What lies before now is told at once, with the times at which it happened, as a program does that
/// comes to a lesson late or had no line; hands of that time are left out, being over. The rest comes as it happens, or so many times faster.
/// </summary>
internal sealed class PlayedMeeting(IReadOnlyList<MeetingLine> lines, Uri address, string token, DateTimeOffset from, double speed)
{
    private const int AtOnce = 200;
    private const string Source = "urn:polite-tally:stand-in:meeting";
    private static readonly TimeSpan GivesUpAfter = TimeSpan.FromMinutes(2);
    private static readonly TimeSpan Tick = TimeSpan.FromMilliseconds(200);

    /// <summary>Plays to the end. False if the lesson takes nothing any more.</summary>
    public async Task<bool> Play(CancellationToken stopping)
    {
        using var http = new HttpClient { BaseAddress = address };
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
        var begun = DateTimeOffset.UtcNow;
        var over = (begun - from).TotalMinutes;
        var waiting = new Queue<MeetingLine>(lines.Where(l => l.Minute > over || !l.Kind.StartsWith("hand", StringComparison.Ordinal)));
        while (waiting.Count > 0)
        {
            var minute = over + ((DateTimeOffset.UtcNow - begun).TotalMinutes * speed);
            var due = new List<object>();
            while (due.Count < AtOnce && waiting.TryPeek(out var next) && (next.Sent ?? next.Minute) <= minute)
            {
                due.Add(waiting.Dequeue().ToEvent(Source, TimeOf(next.Minute)));
            }

            if (due.Count > 0 && !await Send(http, due, stopping))
            {
                return false;
            }

            await Task.Delay(due.Count == AtOnce ? TimeSpan.Zero : Tick, stopping);
        }

        return true;

        DateTimeOffset TimeOf(double minute) =>
            minute <= over ? from + TimeSpan.FromMinutes(minute) : begun + TimeSpan.FromMinutes((minute - over) / speed);
    }

    /// <summary>Sends a batch until it is taken: sending it again is harmless. If the application is not there for two minutes, it was ended.</summary>
    private static async Task<bool> Send(HttpClient http, IReadOnlyList<object> batch, CancellationToken stopping)
    {
        var since = DateTimeOffset.UtcNow;
        for (var pause = 1; DateTimeOffset.UtcNow - since < GivesUpAfter; pause = Math.Min(pause * 2, 15))
        {
            try
            {
                using var content = JsonContent.Create(batch, new MediaTypeHeaderValue("application/cloudevents-batch+json"));
                using var answer = await http.PostAsync("/api/feed", content, stopping);
                if (answer.IsSuccessStatusCode)
                {
                    return true;
                }

                await Console.Error.WriteLineAsync($"{(int)answer.StatusCode}: {await answer.Content.ReadAsStringAsync(stopping)}");
                if (answer.StatusCode is not (HttpStatusCode.TooManyRequests or HttpStatusCode.ServiceUnavailable))
                {
                    return false;
                }
            }
            catch (HttpRequestException problem)
            {
                await Console.Error.WriteLineAsync($"No line to {http.BaseAddress}: {problem.Message}. Trying again.");
            }

            await Task.Delay(TimeSpan.FromSeconds(pause), stopping);
        }

        return false;
    }
}
