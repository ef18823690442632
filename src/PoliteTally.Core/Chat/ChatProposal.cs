using System.Text.RegularExpressions;
using PoliteTally.Core.Names;

namespace PoliteTally.Core.Chat;

/// <summary>
/// What a message probably is, by its form. Only ever a proposal: a sweep settles it. A question mark or a word that asks makes a
/// question; greetings, thanks, “ready” and what holds no letter are social; anything else is an answer while a
/// question to the class is open, and else an idea from six words on; the rest stays unsorted.
/// </summary>
public static partial class ChatProposal
{
    /// <summary>From how many words on a message that is nothing else is taken for an idea. 6.</summary>
    public const int IdeaFromWords = 6;

    private static readonly HashSet<string> Asking =
    [
        "why", "what", "whats", "how", "who", "whose", "when", "where", "which", "is", "are", "was", "do", "does", "did", "can", "could", "should",
        "would", "will", "may",
    ];

    private static readonly HashSet<string> Greeting =
    [
        "hi", "hello", "hey", "hiya", "morning", "bye", "goodbye", "thanks", "thank", "thx", "ty", "lol", "haha", "yay", "wow", "sorry", "ok", "okay",
        "same", "brb", "back", "welcome",
    ];

    /// <summary>Proposes a kind.</summary>
    /// <param name="text">The message.</param>
    /// <param name="duringQuestion">Whether a question to the class was open when it was written.</param>
    public static ChatKind Of(string text, bool duringQuestion = false)
    {
        var words = WordsOf(text);
        if (words.Count == 0)
        {
            return text.Contains('?', StringComparison.Ordinal) ? ChatKind.Question : ChatKind.Social;
        }

        if (QuestionMark().IsMatch(text) || (words.Count > 2 && Asking.Contains(words[0])))
        {
            return ChatKind.Question;
        }

        if (SaysReady(words) || (Greeting.Contains(words[0]) && words.Count < IdeaFromWords))
        {
            return ChatKind.Social;
        }

        return duringQuestion ? ChatKind.Answer : words.Count >= IdeaFromWords ? ChatKind.Idea : ChatKind.Unsorted;
    }

    /// <summary>Whether somebody wrote that they are ready for their turn: the word alone, or with a few that go with it.</summary>
    public static bool SaysReady(string text) => SaysReady(WordsOf(text));

    private static bool SaysReady(IReadOnlyList<string> words) => words is ["ready"] or ["im", "ready"] or ["i", "am", "ready"] or ["ready", "now"];

    private static IReadOnlyList<string> WordsOf(string text) =>
        NameFolding.Tokens(text.Replace("'", "", StringComparison.Ordinal).Replace("’", "", StringComparison.Ordinal));

    [GeneratedRegex(@"[?？؟][\s\p{So}\p{Cs}\p{Mn}\p{Cf}]*$")]
    private static partial Regex QuestionMark();
}
