using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Core.Chat;
using PoliteTally.Core.Hands;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Names;
using PoliteTally.Core.Signals;
using PoliteTally.Core.Text;

namespace PoliteTally.Formats;

/// <summary>Something that a program says happened in the meeting.</summary>
/// <param name="Source">The source of the CloudEvent. With the id it names the event, so that it may be sent again.</param>
/// <param name="Id">The id of the CloudEvent.</param>
/// <param name="Time">When it happened; null if the event does not say.</param>
/// <param name="Act">What happened.</param>
/// <param name="Shown">Who, with what else is known of them.</param>
public sealed record MeetingEvent(string Source, string Id, Instant? Time, NameAct Act, ShownName Shown);

/// <summary>An event that could not be understood: which, and why.</summary>
/// <param name="Id">Its id; if it has none, its place in the batch, from 1, behind a number sign.</param>
/// <param name="Why">What is wrong with it.</param>
public sealed record EventProblem(string Id, string Why);

/// <summary>
/// Reads batches of CloudEvents (version 1.0, JSON batch format). The kinds are named <c>polite-tally.…</c> and stand in docs/api.md. Names and messages
/// are cleaned of what cannot be shown (<see cref="CleanText"/>); what is too long is refused by the rules of the ledger, not cut.
/// </summary>
public static class MeetingEvents
{
    /// <summary>The most events in a batch: 500.</summary>
    public const int Most = 500;

    private const string Prefix = "polite-tally.";

    /// <summary>Reads a batch. One bad event does not spoil the others.</summary>
    /// <exception cref="FormatProblem">It is no batch at all, or too large.</exception>
    public static (IReadOnlyList<MeetingEvent> Events, IReadOnlyList<EventProblem> Problems) Read(JsonElement batch)
    {
        if (batch.ValueKind != JsonValueKind.Array)
        {
            throw new FormatProblem("Send a JSON list of CloudEvents (application/cloudevents-batch+json), even for one.");
        }

        if (batch.GetArrayLength() > Most)
        {
            throw new FormatProblem($"A batch has at most {Most} events; this one has {batch.GetArrayLength()}. Nothing of it was kept.");
        }

        var events = new List<MeetingEvent>();
        var problems = new List<EventProblem>();
        foreach (var (element, number) in batch.EnumerateArray().Select((e, i) => (e, i + 1)))
        {
            try
            {
                events.Add(ReadOne(element));
            }
            catch (FormatProblem problem)
            {
                problems.Add(new EventProblem(IdOf(element) is { Length: > 0 and <= 200 } id ? id : $"#{number}", problem.Message));
            }
            catch (InvalidOperationException)
            {
                problems.Add(new EventProblem($"#{number}", "A text in it is not Unicode: half of a pair of surrogates."));
            }
        }

        return (events, problems);
    }

    private static string? IdOf(JsonElement element)
    {
        try
        {
            return element.ValueKind == JsonValueKind.Object && element.TryGetProperty("id", out var id) && id.ValueKind == JsonValueKind.String ? id.GetString() : null;
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    private static MeetingEvent ReadOne(JsonElement element)
    {
        if (element.ValueKind != JsonValueKind.Object)
        {
            throw new FormatProblem("This is not an event.");
        }

        if (Text(element, "specversion") != "1.0")
        {
            throw new FormatProblem("specversion is to be \"1.0\".");
        }

        var (id, source, type) = (Needed(element, "id"), Needed(element, "source"), Needed(element, "type"));
        var data = element.TryGetProperty("data", out var given) && given.ValueKind == JsonValueKind.Object
            ? given
            : throw new FormatProblem("data is missing.");
        var name = CleanText.Of(Text(data, "name") ?? "");
        if (name.Length == 0)
        {
            throw new FormatProblem("data.name is missing: the name that the meeting shows.");
        }

        var device = CleanText.Of(Text(data, "device") ?? "");
        NameAct act = type switch
        {
            Prefix + "joined" => new Joined(name, device),
            Prefix + "left" => new Left(name, device),
            Prefix + "renamed" => new Renamed(name, CleanText.Of(Needed(data, "to")), device),
            Prefix + "hand-raised" => new NameRaisedHand(name),
            Prefix + "hand-lowered" => new NameLoweredHand(name, Text(data, "by") switch
            {
                "student" => HandEnd.Withdrawn,
                "teacher" => HandEnd.SetDown,
                "program" or null => HandEnd.Lapsed,
                _ => throw new FormatProblem("data.by is \"student\", \"teacher\" or \"program\"."),
            }),
            Prefix + "message" => new NameWrote(name, CleanText.Of(Needed(data, "text")), IsTrue(data, "private")),
            Prefix + "reaction" => new NameReacted(name, CleanText.Of(Needed(data, "reaction"))),
            Prefix + "online" => new NameOnline(name, Text(data, "status") switch
            {
                "online" => OnlineStatus.Online,
                "away" => OnlineStatus.Away,
                "offline" => OnlineStatus.Offline,
                _ => throw new FormatProblem("data.status is \"online\", \"away\" or \"offline\"."),
            }),
            _ => throw new FormatProblem($"“{Short(type)}” is not a kind of event known here. The kinds stand in docs/api.md."),
        };
        var shown = new ShownName(name, Text(data, "number"), Text(data, "email"));
        return new MeetingEvent(source, id, TimeOf(element), act with { Beside = shown.Beside }, shown);
    }

    private static Instant? TimeOf(JsonElement element) => Text(element, "time") switch
    {
        null => null,
        var text when OffsetDateTimePattern.ExtendedIso.Parse(text) is { Success: true } parsed => parsed.Value.ToInstant(),
        _ => throw new FormatProblem("time is to be such as 2026-11-26T09:31:07.250Z (RFC 3339)."),
    };

    private static string Needed(JsonElement element, string field) =>
        Text(element, field) is { Length: > 0 } text ? text : throw new FormatProblem($"{field} is missing.");

    private static string? Text(JsonElement element, string field) => element.TryGetProperty(field, out var value)
        ? value.ValueKind switch
        {
            JsonValueKind.String => value.GetString(),
            JsonValueKind.Null => null,
            _ => throw new FormatProblem($"{field} is to be a text."),
        }
        : null;

    private static bool IsTrue(JsonElement element, string field) => element.TryGetProperty(field, out var value) && value.ValueKind switch
    {
        JsonValueKind.True => true,
        JsonValueKind.False or JsonValueKind.Null => false,
        _ => throw new FormatProblem($"{field} is to be true or false."),
    };

    private static string Short(string text) => CleanText.Of(text.Length > 60 ? text[..60] + "…" : text);
}
