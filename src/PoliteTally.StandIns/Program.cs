using System.Globalization;
using Microsoft.Extensions.Hosting;
using PoliteTally.StandIns;

const string Usage = """
    Stands in for what is outside: plays a meeting into a lesson, as a program that is connected to it would, or lets students take part in it.

      dotnet PoliteTally.StandIns.dll meeting [--url http://127.0.0.1:5080] [--from 2026-11-26T09:30:00Z] [--speed 1] [--file meeting.csv]

    The feed token is read from POLITE_TALLY_FEED_TOKEN; make one in the lesson's menu. --from is when the lesson began (now, if left out); what lies
    before now is told at once. --speed is from 1 to 100. --file is another meeting of the form of demo/meeting-weather-and-tides.csv.

      dotnet PoliteTally.StandIns.dll students --code tavo-kile [--url http://127.0.0.1:5080] [--speed 1] [--file passes.csv]

      dotnet PoliteTally.StandIns.dll desk [--port 5099] [--deadline 16:00] [--away 0]

    Stands in for the register desk of a school. The token is read from POLITE_TALLY_REGISTER_TOKEN. It knows the student numbers of the demo school,
    takes nothing after the deadline of the day, and is away for so many seconds at first.

    --code is that of the lesson's student page. --file is another list of passes and characters of the form of demo/passes.csv.
    """;

if (args is not [("meeting" or "students" or "desk") and var kind, .. var options] || options.Length % 2 != 0)
{
    await Console.Error.WriteLineAsync(Usage);
    return 2;
}

var (url, from, speed, file, code) = ("http://127.0.0.1:5080", DateTimeOffset.UtcNow, 1.0, (string?)null, "");
var (port, deadline, away) = (5099, (TimeOnly?)null, 0);
for (var i = 0; i < options.Length; i += 2)
{
    var understood = options[i] switch
    {
        "--url" => Uri.IsWellFormedUriString(url = options[i + 1], UriKind.Absolute),
        "--from" => DateTimeOffset.TryParse(options[i + 1], CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out from),
        "--speed" => double.TryParse(options[i + 1], CultureInfo.InvariantCulture, out speed) && speed is >= 1 and <= 100,
        "--code" => (code = options[i + 1]).Length > 0,
        "--port" => int.TryParse(options[i + 1], CultureInfo.InvariantCulture, out port) && port is >= 0 and <= 65535,
        "--deadline" => TimeOnly.TryParse(options[i + 1], CultureInfo.InvariantCulture, out var time) && (deadline = time) is not null,
        "--away" => int.TryParse(options[i + 1], CultureInfo.InvariantCulture, out away) && away >= 0,
        "--file" => File.Exists(file = options[i + 1]),
        _ => false,
    };
    if (!understood)
    {
        await Console.Error.WriteLineAsync($"“{options[i]} {options[i + 1]}” is not understood.\n\n{Usage}");
        return 2;
    }
}

using var stopping = new CancellationTokenSource();
Console.CancelKeyPress += (_, pressed) =>
{
    pressed.Cancel = true;
    stopping.Cancel();
};
if (kind == "students")
{
    return await Students();
}

if (kind == "desk")
{
    if (Environment.GetEnvironmentVariable("POLITE_TALLY_REGISTER_TOKEN") is not { Length: > 0 } shown)
    {
        await Console.Error.WriteLineAsync($"POLITE_TALLY_REGISTER_TOKEN is not set.\n\n{Usage}");
        return 2;
    }

    await using var desk = RegisterDeskStandIn.Build(port, shown, deadline, TimeSpan.FromSeconds(away), TimeProvider.System);
    await desk.StartAsync();
    Console.WriteLine($"The register desk stands in at {desk.Urls.First()}");
    await desk.WaitForShutdownAsync(stopping.Token);
    return 0;
}

if (Environment.GetEnvironmentVariable("POLITE_TALLY_FEED_TOKEN") is not { Length: > 0 } token)
{
    await Console.Error.WriteLineAsync($"POLITE_TALLY_FEED_TOKEN is not set.\n\n{Usage}");
    return 2;
}

using var reader = Opened("meeting.csv");
var lines = MeetingLine.Read(reader);
try
{
    return await new PlayedMeeting(lines, new Uri(url), token, from, speed).Play(stopping.Token) ? 0 : 1;
}
catch (OperationCanceledException)
{
    return 0;
}

StreamReader Opened(string embedded) =>
    file is null ? new StreamReader(typeof(MeetingLine).Assembly.GetManifestResourceStream(embedded)!) : File.OpenText(file);

async Task<int> Students()
{
    using var passes = Opened("passes.csv");
    var students = (await passes.ReadToEndAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Skip(1)
        .Select(line => line.Split(','))
        .Select((cells, i) => new SimulatedStudent(
            new Uri(url), code, cells[1], Enum.TryParse<Character>(cells.ElementAtOrDefault(2)?.Replace(" ", ""), ignoreCase: true, out var like) ? like : Character.Quick, speed, i));
    try
    {
        return (await Task.WhenAll(students.Select(s => s.TakePart(stopping.Token)))).Any(cameIn => cameIn) ? 0 : 1;
    }
    catch (OperationCanceledException)
    {
        return 0;
    }
}
