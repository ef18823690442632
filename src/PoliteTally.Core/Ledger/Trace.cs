using NodaTime;

namespace PoliteTally.Core.Ledger;

/// <summary>What kinds of acts two sources may both tell of.</summary>
public enum TraceKind
{
    /// <summary>Somebody came in.</summary>
    Join,

    /// <summary>Somebody left.</summary>
    Leave,

    /// <summary>Somebody wrote a message to everybody or to the teacher.</summary>
    Message,

    /// <summary>Somebody spoke, or was given the word.</summary>
    Speech,

    /// <summary>Somebody's turn ended.</summary>
    TurnEnd,

    /// <summary>Somebody was there for so long; nobody says when.</summary>
    Length,

    /// <summary>Somebody answered a question.</summary>
    Answer,
}

/// <summary>What an entry tells of that another source may tell of, too.</summary>
/// <param name="Kind">What happened.</param>
/// <param name="Who">Who did it: a student, or a name that is nobody's yet.</param>
/// <param name="Text">The words, if they are known, as they are compared, or the question that was answered; two acts with different ones are two acts.</param>
/// <param name="Lasts">How long it lasted, if it is a length of time.</param>
/// <param name="Timed">Whether its source says when it happened; what does not, says nothing of a clock.</param>
public sealed record Trace(TraceKind Kind, string Who, string? Text = null, Duration Lasts = default, bool Timed = true)
{
    /// <summary>Words as they are compared: capitals, and how wide the spaces are, make no other words.</summary>
    public static string? Comparable(string? text) =>
        string.IsNullOrWhiteSpace(text) ? null : string.Join(' ', text.ToUpperInvariant().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
