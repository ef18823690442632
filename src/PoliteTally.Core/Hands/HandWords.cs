namespace PoliteTally.Core.Hands;

/// <summary>Turns in plain words.</summary>
public static class HandWords
{
    /// <summary>The name of an outcome.</summary>
    public static string InWords(this TurnOutcome outcome) => outcome switch
    {
        TurnOutcome.Full => "full turn",
        TurnOutcome.Partial => "partial turn",
        TurnOutcome.Pass => "pass",
        _ => "could not",
    };

    /// <summary>A turn: its outcome, and how the student came by it.</summary>
    public static string InWords(this Turn turn) =>
        $"{(turn.Outcome is { } outcome ? outcome.InWords() : "called")}, {turn.Origin.InWords()}";

    /// <summary>How a student came by a turn.</summary>
    public static string InWords(this TurnOrigin origin) => origin switch
    {
        TurnOrigin.Hand => "from the line",
        TurnOrigin.HandedOn => "handed on",
        TurnOrigin.Ready => "said ready",
        TurnOrigin.Drawn => "drawn",
        _ => "invited",
    };
}
