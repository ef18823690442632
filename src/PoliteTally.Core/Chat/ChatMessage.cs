using NodaTime;

namespace PoliteTally.Core.Chat;

/// <summary>A message in the chat, with what has been said of it since.</summary>
/// <param name="Entry">The id of the entry that brought it.</param>
/// <param name="At">When it was written.</param>
/// <param name="Student">Who wrote it; null if the name belongs to nobody yet, or to no student.</param>
/// <param name="Name">The name shown; empty if it was typed in.</param>
/// <param name="Text">The message; empty if only its kind was noted.</param>
/// <param name="Private">True if only the teacher could read it.</param>
/// <param name="Kind">What it was; <see cref="ChatKind.Unsorted"/> until a sweep, or the tap that noted it, has settled it.</param>
/// <param name="SortedBy">The entry that settled its kind; null while none has.</param>
/// <param name="Hidden">The entry that hid it; null while it may be shown.</param>
/// <param name="DealtWith">The entry that says a question was answered; null while it is open.</param>
/// <param name="Repeat">True if the same was written by the same within 60 s before: it counts once.</param>
/// <param name="Chosen">What its writer says it is; null if they were not asked.</param>
/// <param name="Shown">The entry that shows it to the class, if it came from a student page.</param>
/// <param name="DuringQuestion">Whether a question to the class was open when it was written.</param>
/// <param name="WithoutName">Whether it is shown without saying whose it is.</param>
/// <param name="IsFromFeed">Whether a program that was connected during the lesson sent it.</param>
/// <param name="Stroke">The entry by which the teacher noted it as well; null if they did not.</param>
public sealed record ChatMessage(
    Guid Entry, Instant At, Guid? Student, string Name, string Text, bool Private, ChatKind Kind, Guid? SortedBy, Guid? Hidden, Guid? DealtWith,
    bool Repeat, ChatKind? Chosen = null, Guid? Shown = null, bool DuringQuestion = false, bool WithoutName = false,
    bool IsFromFeed = false, Guid? Stroke = null)
{
    /// <summary>How long after a message the same text is a repeat. 60 s.</summary>
    public static readonly Duration RepeatWithin = Duration.FromSeconds(60);

    /// <summary>What it counts as: its kind, and nothing for a repeat.</summary>
    public ChatKind CountsAs => Repeat ? ChatKind.Unsorted : Kind;

    /// <summary>Whether a sweep has yet to look at it.</summary>
    public bool Waits => SortedBy is null && Hidden is null && !Repeat;

    /// <summary>Whether it has words that a sweep has yet to look at; of a tap only its kind is known.</summary>
    public bool IsToSweep => Text.Length > 0 && Waits;

    /// <summary>What it probably is, for whoever sweeps.</summary>
    public ChatKind Proposed => Chosen ?? ChatProposal.Of(Text, DuringQuestion);

    /// <summary>A question that nobody has answered yet.</summary>
    public bool IsOpenQuestion => Kind == ChatKind.Question && Text.Length > 0 && DealtWith is null && Hidden is null && !Repeat;
}
