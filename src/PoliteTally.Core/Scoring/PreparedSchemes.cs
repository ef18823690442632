namespace PoliteTally.Core.Scoring;

/// <summary>A scheme to start from.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="About">What it does, in a sentence.</param>
/// <param name="Scheme">The scheme.</param>
public sealed record PreparedScheme(string Name, string About, Scheme Scheme);

/// <summary>Schemes to start from.</summary>
public static class PreparedSchemes
{
    /// <summary>All of them, made from a scheme: what they say nothing of stays as it is there.</summary>
    /// <param name="current">The scheme of the class.</param>
    public static IReadOnlyList<PreparedScheme> From(Scheme current) =>
    [
        new("Even", "Every strand weighs the same, and what is written and what is said stand in for each other as far as they do at first.", current with
        {
            Weights = Weights(current, 1, 1, 1, 1, 1),
            SpeakingTarget = Scheme.Default.SpeakingTarget,
            ChatTarget = Scheme.Default.ChatTarget,
            WrittenStandsIn = Scheme.Default.WrittenStandsIn,
            WrittenAtMost = Scheme.Default.WrittenAtMost,
            TurnInChat = Scheme.Default.TurnInChat,
            TurnsInChatAtMost = Scheme.Default.TurnsInChatAtMost,
            OpenLineIsChance = true,
            ChatCounts = true,
        }),
        new("Speaking first", "A class that talks: speaking weighs twice as much as anything else, and writing stands in for little of it.", current with
        {
            Weights = Weights(current, 2, 6, 3, 1, 1),
            SpeakingTarget = 1,
            ChatTarget = Scheme.Default.ChatTarget,
            WrittenStandsIn = 0.1m,
            WrittenAtMost = 0.2m,
            TurnInChat = 1,
            TurnsInChatAtMost = 1,
            OpenLineIsChance = true,
            ChatCounts = true,
        }),
        new("For a shy class", "What is written counts like what is said: two contributions in the chat are as good as a turn, and the other way round.", current with
        {
            Weights = Weights(current, 2, 2, 3, 2, 1),
            SpeakingTarget = 1,
            ChatTarget = 2,
            WrittenStandsIn = 0.5m,
            WrittenAtMost = 1,
            TurnInChat = 1,
            TurnsInChatAtMost = 1,
            OpenLineIsChance = true,
            ChatCounts = true,
        }),
    ];

    private static Dictionary<Strand, decimal> Weights(Scheme current, decimal attendance, decimal speaking, decimal questions, decimal chat, decimal groupWork) => new()
    {
        [Strand.Attendance] = attendance,
        [Strand.Speaking] = speaking,
        [Strand.Questions] = questions,
        [Strand.Chat] = chat,
        [Strand.GroupWork] = groupWork,
        // The teacher's own judgement weighs what it weighed.
        [Strand.Rubric] = current.Weights.GetValueOrDefault(Strand.Rubric),
    };
}
