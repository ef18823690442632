using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.SignalR.Client;

namespace PoliteTally.StandIns;

/// <summary>What a simulated student is like.</summary>
internal enum Character
{
    /// <summary>Answers within seconds.</summary>
    Quick,

    /// <summary>Takes some time, and may think again.</summary>
    Thinks,

    /// <summary>Answers late, often too late.</summary>
    Slow,

    /// <summary>Chooses anything at all.</summary>
    Guesses,

    /// <summary>Looks on and does nothing.</summary>
    Silent,

    /// <summary>Presses everything twice.</summary>
    DoubleTap,

    /// <summary>Has the page open on a phone and on a laptop.</summary>
    TwoDevices,

    /// <summary>Loses the line in the middle of questions.</summary>
    Drops,
}

/// <summary>
/// A student's device: it comes in with a pass, as anybody would, hears what changes and does what its student is like. It knows the page and
/// nothing else of the lesson.
/// </summary>
internal sealed class SimulatedStudent(Uri address, string code, string pass, Character character, double speed, int seed)
{
    // The commoner ones stand first: the nearer the front, the more often one is taken.
    private static readonly string[] WeatherWords = ["fog", "haar", "Fog", "mist", "sea fog", "drizzle", "spray", "snow", "low cloud", "MIST", "squall", "dusk"];

    private static readonly string[] Said = ["it blew all night", "the glass is falling", "from the west", "Nort had it worse", "haar", "a south-easter"];
    private readonly Random _random = new(seed);
    private readonly Dictionary<Guid, DateTimeOffset> _due = [];
    private readonly HashSet<Guid> _settled = [];

    /// <summary>Takes part until told to stop, or until the lesson is over. False if it could not come in.</summary>
    public async Task<bool> TakePart(CancellationToken stopping)
    {
        var cookies = new CookieContainer();
        using var http = new HttpClient(new HttpClientHandler { CookieContainer = cookies }) { BaseAddress = address };
        using var entered = await http.PostAsJsonAsync($"/api/page/{code}/enter", new { pass, name = (string?)null, remember = false }, stopping);
        if (!entered.IsSuccessStatusCode)
        {
            await Console.Error.WriteLineAsync($"{pass}: {(int)entered.StatusCode} {await entered.Content.ReadAsStringAsync(stopping)}");
            return false;
        }

        var hubs = new List<HubConnection>();
        for (var device = 0; device < (character == Character.TwoDevices ? 2 : 1); device++)
        {
            hubs.Add(await Connected(cookies, stopping));
        }

        try
        {
            while (!stopping.IsCancellationRequested)
            {
                using var seen = await http.GetAsync($"/api/page/{code}", stopping);
                if (seen.IsSuccessStatusCode)
                {
                    using var page = JsonDocument.Parse(await seen.Content.ReadAsStringAsync(stopping));
                    if (page.RootElement.GetProperty("lesson").GetProperty("stage").GetString() is "ended" or "settled")
                    {
                        return true;
                    }

                    await LiveOn(http, page.RootElement.GetProperty("own"), stopping);
                }

                if (character == Character.Drops && _random.NextDouble() < 0.05)
                {
                    await hubs[0].DisposeAsync();
                    await Task.Delay(TimeSpan.FromSeconds(25 / speed), stopping);
                    hubs[0] = await Connected(cookies, stopping);
                }

                await Task.Delay(TimeSpan.FromSeconds((1.5 + _random.NextDouble()) / speed), stopping);
            }
        }
        finally
        {
            foreach (var hub in hubs)
            {
                await hub.DisposeAsync();
            }
        }

        return true;
    }

    private async Task<HubConnection> Connected(CookieContainer cookies, CancellationToken stopping)
    {
        var hub = new HubConnectionBuilder().WithUrl(new Uri(address, "/page/live"), options => options.Cookies = cookies).WithAutomaticReconnect()
            .WithKeepAliveInterval(TimeSpan.FromSeconds(45)).WithServerTimeout(TimeSpan.FromSeconds(120)).Build();
        await hub.StartAsync(stopping);
        await hub.InvokeAsync("Watch", code, stopping);
        return hub;
    }

    private async Task LiveOn(HttpClient http, JsonElement own, CancellationToken stopping)
    {
        if (character == Character.Silent)
        {
            return;
        }

        foreach (var question in own.GetProperty("questions").EnumerateArray().Where(q => q.GetProperty("open").GetBoolean()))
        {
            var asking = question.GetProperty("asking").GetGuid();
            var answered = question.GetProperty("answered").GetBoolean();
            if (!_due.TryGetValue(asking, out var due))
            {
                due = _due[asking] = DateTimeOffset.UtcNow + TimeSpan.FromSeconds(Delay() / speed);
            }

            if (DateTimeOffset.UtcNow < due || answered || !_settled.Add(asking))
            {
                continue;
            }

            var act = character == Character.Slow && _random.NextDouble() < 0.2
                ? new { id = Guid.NewGuid(), doing = "cannotAnswer", asking = (Guid?)asking, answer = (object?)null, text = (string?)null, kind = (string?)null }
                : new { id = Guid.NewGuid(), doing = "answer", asking = (Guid?)asking, answer = (object?)AnswerTo(question), text = (string?)null, kind = (string?)null };
            await Send(http, act, stopping);
            if (character == Character.DoubleTap)
            {
                await Send(http, act, stopping);
            }
        }

        if (own.GetProperty("hand").ValueKind == JsonValueKind.Null && _random.NextDouble() < 0.008)
        {
            await Send(http, new { id = Guid.NewGuid(), doing = "raiseHand" }, stopping);
        }
        else if (_random.NextDouble() < 0.004)
        {
            await Send(http, new { id = Guid.NewGuid(), doing = "write", text = Said[_random.Next(Said.Length)], kind = "idea" }, stopping);
        }
    }

    private double Delay() => character switch
    {
        Character.Quick or Character.DoubleTap => 2 + (_random.NextDouble() * 6),
        Character.Slow => 30 + (_random.NextDouble() * 60),
        _ => 5 + (_random.NextDouble() * 25),
    };

    private object AnswerTo(JsonElement question)
    {
        var options = question.GetProperty("options").EnumerateArray().Select(o => o.GetProperty("id").GetGuid()).ToArray();
        switch (question.GetProperty("kind").GetString())
        {
            case "scale":
                return new { number = _random.Next(question.GetProperty("scaleFrom").GetInt32(), question.GetProperty("scaleTo").GetInt32() + 1) };
            case "number":
                return new { number = character == Character.Guesses ? _random.Next(2000) : 1000 + _random.Next(30) };
            case "shortText":
                return new { text = Said[_random.Next(Said.Length)] };
            case "wordList":
                return new { words = Enumerable.Range(0, question.GetProperty("wordsEach").GetInt32()).Select(_ => MostlyAnEarly(WeatherWords)).ToArray() };
            case "ranking":
                _random.Shuffle(options);
                return new { options };
            case "multipleChoice":
                return new { options = options.Where((_, i) => i == 0 || _random.NextDouble() < 0.4).ToArray() };
            default:
                return new { options = new[] { character == Character.Guesses ? options[_random.Next(options.Length)] : MostlyAnEarly(options) } };
        }
    }

    private T MostlyAnEarly<T>(IReadOnlyList<T> list) => list[(int)(_random.NextDouble() * _random.NextDouble() * list.Count)];

    private async Task Send(HttpClient http, object act, CancellationToken stopping)
    {
        using var answer = await http.PostAsJsonAsync($"/api/page/{code}/acts", act, stopping);
        if (!answer.IsSuccessStatusCode && answer.StatusCode != HttpStatusCode.Conflict)
        {
            await Console.Error.WriteLineAsync($"{pass}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync(stopping)}");
        }
    }
}
