using System.Text.RegularExpressions;

namespace PoliteTally.Core.Chat;

/// <summary>
/// What a message probably is, by its words. Only ever a proposal: a sweep settles it. The line and the machine, coming and going, apologies, thanks and talk from one to
/// another are social, with a question mark or without; what asks is a question; anything else is an answer while a question to the class is open, and else an idea if it
/// says enough. What is not sure stays unsorted, and nothing is proposed. Words of English, German, French, Spanish, Dutch and the Nordic languages are known (<c>chat-words.txt</c>).
/// </summary>
public static partial class ChatProposal
{
    /// <summary>From how many words on a message that is nothing else is taken for an idea. 6.</summary>
    public const int IdeaFromWords = 6;

    // A greeting with more words than this beside it says something else as well.
    private const int BesideGreeting = 4;

    /// <summary>Proposes a kind.</summary>
    /// <param name="text">The message.</param>
    /// <param name="duringQuestion">Whether a question to the class was open when it was written.</param>
    public static ChatKind Of(string text, bool duringQuestion = false)
    {
        var words = MessageWords.Of(text);
        if (words.Count == 0)
        {
            return text.Contains('?', StringComparison.Ordinal) ? ChatKind.Question : ChatKind.Social;
        }

        var asks = QuestionMark().IsMatch(text);
        if (SaysReady(words) || MessageWords.Has(words, "social") || MessageWords.Has(words, "pause") || text.StartsWith('@'))
        {
            return ChatKind.Social;
        }

        if (asks)
        {
            return ChatKind.Question;
        }

        if (MessageWords.BeginsWith(words, "sorry") > 0 || (MessageWords.BeginsWith(words, "greets") is > 0 and var greeting && words.Count - greeting <= BesideGreeting))
        {
            return ChatKind.Social;
        }

        if (Asks(words))
        {
            return ChatKind.Question;
        }

        return duringQuestion ? ChatKind.Answer : IsIdea(words) ? ChatKind.Idea : ChatKind.Unsorted;
    }

    /// <summary>Whether somebody wrote that they are ready for their turn: the word alone, or with a few that go with it.</summary>
    public static bool SaysReady(string text) => SaysReady(MessageWords.Of(text));

    /// <summary>Whether somebody asks not to be called today.</summary>
    public static bool AsksNotToBeCalled(string text) => MessageWords.Has(MessageWords.Of(text), "pause");

    private static bool SaysReady(IReadOnlyList<string> words) => words is ["ready"] or ["im", "ready"] or ["i", "am", "ready"] or ["ready", "now"];

    // Without a mark: a word that asks, and more than that. In English such a word begins other sentences, too, and then what follows it does not go with a question.
    private static bool Asks(IReadOnlyList<string> words) =>
        MessageWords.BeginsWith(words, "asks") is > 0 and var asking && words.Count > 2
        && (words[0] is not ("what" or "when" or "where" or "who" or "how" or "which" or "whose") || MessageWords.BeginsWith([.. words.Skip(asking)], "verb") > 0);

    // What somebody tells of themselves is one only if they reason.
    private static bool IsIdea(IReadOnlyList<string> words) =>
        words.Count >= IdeaFromWords && (MessageWords.Has(words, "reasons") || !MessageWords.Has(words, "own"));

    [GeneratedRegex(@"[?？؟][\s\p{So}\p{Cs}\p{Mn}\p{Cf}]*$")]
    private static partial Regex QuestionMark();
}
