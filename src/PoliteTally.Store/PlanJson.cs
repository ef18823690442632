using System.Text.Json;
using PoliteTally.Core.Plans;
using PoliteTally.Core.Questions;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>How plans and questions are written as JSON, in the file and in files.</summary>
public static class PlanJson
{
    private static readonly JsonSerializerOptions Options = ActJson.Configure(new JsonSerializerOptions());

    /// <summary>The plan of a lesson, which was read with it; an empty one if nothing is prepared, or while what is stored cannot be read (<see cref="CannotBeRead"/>).</summary>
    /// <exception cref="InvalidOperationException">The lesson was read without its plan.</exception>
    public static Plan Of(Lesson lesson) => lesson switch
    {
        { Prepared: false } => Plan.Empty,
        { Plan: { } plan } => Documents.ReadOr(Plan.Empty, () => ReadPlan(plan.Document)),
        _ => throw new InvalidOperationException("This lesson was read without its plan."),
    };

    /// <summary>Whether something was prepared for a lesson that cannot be read.</summary>
    public static bool CannotBeRead(Lesson lesson) => lesson.Plan is { } plan && Documents.WhyUnreadable(() => ReadPlan(plan.Document)) is not null;

    /// <summary>Whether a question on the shelf can be read.</summary>
    public static bool CanBeRead(ShelfQuestion kept) => Documents.WhyUnreadable(() => ReadQuestion(kept.Question)) is null;

    /// <summary>Reads a plan.</summary>
    /// <exception cref="JsonException">The text is not a plan.</exception>
    public static Plan ReadPlan(string json) => Read<Plan>(json);

    /// <summary>Reads a question.</summary>
    /// <exception cref="JsonException">The text is not a question.</exception>
    public static Question ReadQuestion(string json) => Read<Question>(json);

    /// <summary>Writes a plan.</summary>
    public static string Write(Plan plan) => JsonSerializer.Serialize(plan, Options);

    /// <summary>Writes a question.</summary>
    public static string Write(Question question) => JsonSerializer.Serialize(question, Options);

    private static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, Options) ?? throw new JsonException("It is empty.");
}
