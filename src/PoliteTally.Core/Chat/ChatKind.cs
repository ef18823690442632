using PoliteTally.Core.Text;

namespace PoliteTally.Core.Chat;

/// <summary>What a message in the chat was.</summary>
public enum ChatKind
{
    /// <summary>Not settled yet.</summary>
    Unsorted,

    /// <summary>A question.</summary>
    Question,

    /// <summary>An answer.</summary>
    Answer,

    /// <summary>An idea.</summary>
    Idea,

    /// <summary>Greetings and the like.</summary>
    Social,

    /// <summary>Nothing to do with the lesson.</summary>
    OffTask,
}

/// <summary>Kinds of messages in plain words.</summary>
public static class ChatWords
{
    /// <summary>So many of a kind: "1 question", "2 ideas", "3 social".</summary>
    public static string Counted(this ChatKind kind, int count) =>
        kind is ChatKind.Question or ChatKind.Answer or ChatKind.Idea ? Words.Count(count, kind.InWords()) : $"{count} {kind.InWords()}";

    /// <summary>The name of a kind of message.</summary>
    public static string InWords(this ChatKind kind) => kind switch
    {
        ChatKind.OffTask => "off task",
        _ => kind.ToString().ToLowerInvariant(),
    };
}
