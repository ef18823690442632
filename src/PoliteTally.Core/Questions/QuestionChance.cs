namespace PoliteTally.Core.Questions;

/// <summary>A question that counts for a student.</summary>
/// <param name="Answered">Whether they answered.</param>
/// <param name="Marks">Marks earned, from zero to <paramref name="Possible"/>.</param>
/// <param name="Possible">Marks possible; zero in a poll.</param>
/// <param name="Entries">The entries it rests on.</param>
/// <param name="Missed">Whether it counts because they missed it by coming late or leaving early.</param>
public sealed record QuestionChance(bool Answered, decimal Marks, decimal Possible, IReadOnlyList<Guid> Entries, bool Missed = false);
