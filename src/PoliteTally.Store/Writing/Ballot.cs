using PoliteTally.Core.Questions;

namespace PoliteTally.Store.Writing;

/// <summary>An answer without a name, on its way into the box. Its ids have names, so that none can be taken for another.</summary>
public sealed record Ballot
{
    /// <summary>A random id that the student's browser made and alone knows: whoever has it can change the answer.</summary>
    public required Guid Id { get; init; }

    /// <summary>The entry that opened the question.</summary>
    public required Guid Asking { get; init; }

    /// <summary>Who answers. Kept apart from what was answered.</summary>
    public required Guid Student { get; init; }

    /// <summary>What was answered.</summary>
    public required Answer Answer { get; init; }
}
