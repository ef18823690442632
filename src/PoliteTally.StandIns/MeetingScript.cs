using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace PoliteTally.StandIns;

/// <summary>One line of a meeting as it is written down in demo/meeting-weather-and-tides.csv.</summary>
/// <param name="Id">Its id; the same id twice is an event that is sent again.</param>
/// <param name="Minute">When it happens, in minutes from the start of the lesson.</param>
/// <param name="Sent">When it is sent, if the line was down when it happened.</param>
/// <param name="Kind">What happens: the end of the type of the event, or <c>private</c> for a message to the teacher alone.</param>
/// <param name="Name">The name shown.</param>
/// <param name="Device">The device.</param>
/// <param name="Text">What else there is to say: a message, a new name, who took a hand down.</param>
internal sealed record MeetingLine(
    string Id, double Minute, double? Sent, string Kind,
    string Name, string Device, string Text)
{
    /// <summary>The event as the feed takes it (CloudEvents 1.0).</summary>
    public object ToEvent(string source, DateTimeOffset time) => new Dictionary<string, object>
    {
        ["specversion"] = "1.0",
        ["id"] = Id,
        ["source"] = source,
        ["type"] = $"polite-tally.{(Kind == "private" ? "message" : Kind)}",
        ["time"] = time.ToUniversalTime().ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", CultureInfo.InvariantCulture),
        ["data"] = Data(),
    };

    private Dictionary<string, object> Data()
    {
        var data = new Dictionary<string, object> { ["name"] = Name, ["device"] = Device };
        switch (Kind)
        {
            case "renamed":
                data["to"] = Text;
                break;
            case "hand-lowered":
                data["by"] = Text;
                break;
            case "message" or "private":
                (data["text"], data["private"]) = (Text, Kind == "private");
                break;
            case "reaction":
                data["reaction"] = Text;
                break;
            case "online":
                data["status"] = Text;
                break;
        }

        return data;
    }

    /// <summary>The lines of a file, in the order in which they are sent.</summary>
    public static IReadOnlyList<MeetingLine> Read(TextReader file)
    {
        using var csv = new CsvReader(file, new CsvConfiguration(CultureInfo.InvariantCulture) { PrepareHeaderForMatch = header => header.Header.ToLowerInvariant() });
        return [.. csv.GetRecords<MeetingLine>().OrderBy(l => l.Sent ?? l.Minute)];
    }
}
