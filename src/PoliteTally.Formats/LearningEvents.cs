using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;

namespace PoliteTally.Formats;

/// <summary>What somebody did, by the verbs of ADL for learning.</summary>
public enum LearningVerb
{
    /// <summary>Was there.</summary>
    Attended,

    /// <summary>Had a turn.</summary>
    Responded,

    /// <summary>Answered a question.</summary>
    Answered,

    /// <summary>Put a question in the chat.</summary>
    Asked,

    /// <summary>Wrote something else in the chat.</summary>
    Commented,

    /// <summary>Was scored.</summary>
    Scored,
}

/// <summary>One thing that somebody did in a lesson.</summary>
/// <param name="Id">Its id: the same thing has the same, whenever it is written.</param>
/// <param name="Account">By what the school knows the student.</param>
/// <param name="Name">Their name.</param>
/// <param name="Verb">What they did.</param>
/// <param name="About">The id of what it was about: the lesson, or a question.</param>
/// <param name="Title">What that is called.</param>
/// <param name="At">When.</param>
/// <param name="Lesson">The id of the lesson in which it was.</param>
/// <param name="For">How long; null if nobody measured.</param>
/// <param name="Scaled">The score from 0 to 1; null without one.</param>
/// <param name="Said">What was answered or written; null if it is not told.</param>
public sealed record LearningEvent(
    Guid Id, string Account, string Name, LearningVerb Verb, Guid About, string Title, Instant At, Guid Lesson, Duration? For = null, decimal? Scaled = null, string? Said = null);

/// <summary>Writes learning events as statements of the Experience API (xAPI 1.0.3, part two: data), an array as a record store takes it.</summary>
public static class LearningEvents
{
    // Made-up names of a domain that is nobody's (RFC 2606): they only have to stay the same.
    private const string Home = "https://polite-tally.example";
    private const string Verbs = "http://adlnet.gov/expapi/verbs/";
    private const string Activities = "http://adlnet.gov/expapi/activities/";
    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true };

    /// <summary>The statements, UTF-8.</summary>
    public static byte[] Write(IEnumerable<LearningEvent> events) =>
        JsonSerializer.SerializeToUtf8Bytes(new JsonArray([.. events.OrderBy(e => e.At).ThenBy(e => e.Id).Select(Statement)]), Indented);

    private static JsonObject Statement(LearningEvent one)
    {
        var verb = $"{one.Verb}".ToLowerInvariant();
        var statement = new JsonObject
        {
            ["id"] = one.Id.ToString(),
            ["actor"] = new JsonObject
            {
                ["objectType"] = "Agent",
                ["name"] = one.Name,
                ["account"] = new JsonObject { ["homePage"] = Home, ["name"] = one.Account },
            },
            ["verb"] = new JsonObject { ["id"] = Verbs + verb, ["display"] = new JsonObject { ["en-GB"] = verb } },
            ["object"] = new JsonObject
            {
                ["objectType"] = "Activity",
                ["id"] = $"{Home}/{(one.About == one.Lesson ? "lessons" : "questions")}/{one.About}",
                ["definition"] = new JsonObject
                {
                    ["name"] = new JsonObject { ["en-GB"] = one.Title },
                    ["type"] = Activities + (one.About == one.Lesson ? "meeting" : "question"),
                },
            },
            ["timestamp"] = InstantPattern.ExtendedIso.Format(one.At),
            ["context"] = new JsonObject
            {
                ["platform"] = "Polite Tally",
                ["contextActivities"] = new JsonObject
                {
                    ["parent"] = new JsonArray(new JsonObject { ["objectType"] = "Activity", ["id"] = $"{Home}/lessons/{one.Lesson}" }),
                },
            },
        };
        var result = new JsonObject();
        if (one.Scaled is { } scaled)
        {
            result["score"] = new JsonObject { ["scaled"] = Math.Round(scaled, 4) };
        }

        if (one.For is { } length)
        {
            // ISO 8601, to hundredths as the standard wants them at most.
            result["duration"] = $"PT{Math.Round(length.TotalSeconds)}S";
        }

        if (one.Said is { Length: > 0 } said)
        {
            result["response"] = said;
        }

        if (result.Count > 0)
        {
            statement["result"] = result;
        }

        return statement;
    }
}
