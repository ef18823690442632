using PoliteTally.Core.Ledger;
using PoliteTally.Core.Meeting;
using PoliteTally.Core.Text;

namespace PoliteTally.Core.Chat;

/// <summary>A contribution in the chat.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Kind">What the message was.</param>
/// <param name="Text">The message itself, when it is known.</param>
public sealed record ChatSaid(Guid Student, ChatKind Kind, string? Text) : StudentAct(Student), IMessage
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => $"{Kind.InWords()} in the chat";

    internal override string? Typed => Text;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        TextLimits.TooLong(Text, "message", TextLimits.LongestText);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Message, lesson, Text);

    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) =>
        IsStroke(entry) && lesson.See<ChatLog>().HasOtherHalf(lesson.Whose(Student), entry.HappenedAt, byHand: true);

    internal override void Learn(LessonParts lesson, Entry entry)
    {
        if (IsStroke(entry))
        {
            lesson.Change<ChatLog>().Learn(entry);
        }
    }

    private bool IsStroke(Entry entry) => string.IsNullOrEmpty(Text) && entry.Source != Source.File;

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<ChatLog>().Say(new Said(student, "", Text ?? "", IsPrivate: false, Kind), entry, lesson);
}

/// <summary>A name wrote in the chat of the meeting.</summary>
/// <param name="Name">The name exactly as it was shown.</param>
/// <param name="Text">The message.</param>
/// <param name="Private">True if only the teacher could read it.</param>
public sealed record NameWrote(string Name, string Text, bool Private) : NameAct(Name), IMessage
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => $"“{Name}” wrote in the chat";

    internal override string? Typed => $"{Name}{Beside}{Text}";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        CleanText.IsBlank(Text) ? "The message is empty."
        : TextLimits.TooLong(Text, "message", TextLimits.LongestText) ?? base.WhyRefused(entry, lesson);

    internal override Trace? TraceIn(LessonParts lesson) => Traced(TraceKind.Message, lesson, Text);

    internal override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) =>
        entry.Source != Source.File && About(lesson).Any(student => lesson.See<ChatLog>().HasOtherHalf(student, entry.HappenedAt, byHand: false));

    internal override void Learn(LessonParts lesson, Entry entry)
    {
        base.Learn(lesson, entry);
        if (entry.Source != Source.File)
        {
            lesson.Change<ChatLog>().Learn(entry);
        }
    }

    internal override void Apply(LessonParts lesson, NameShown name, Entry entry) =>
        lesson.Change<ChatLog>().Say(new Said(lesson.See<NamesShown>().StudentOf(name), Name, Text, Private, ChatKind.Unsorted), entry, lesson);
}

/// <summary>A student wrote from their page. It stays between them and the teacher until it is shown.</summary>
/// <param name="Student">The id of the student.</param>
/// <param name="Kind">What they say it is: a question, an answer or an idea.</param>
/// <param name="Text">The message.</param>
public sealed record StudentWrote(Guid Student, ChatKind Kind, string Text) : StudentAct(Student), IMessage
{
    /// <inheritdoc/>
    public override bool ShowsPresence => true;

    /// <inheritdoc/>
    public override string InWords => $"{Kind.InWords()} on the student page";

    internal override string? Typed => Text;

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        Kind is not (ChatKind.Question or ChatKind.Answer or ChatKind.Idea) ? "Say whether it is a question, an answer or an idea."
        : CleanText.IsBlank(Text) ? "Write something first."
        : TextLimits.TooLong(Text, "message", TextLimits.LongestFromPage);

    internal override void Apply(LessonParts lesson, Guid student, Entry entry) =>
        lesson.Change<ChatLog>().Say(new Said(student, "", Text, IsPrivate: true, ChatKind.Unsorted, Kind), entry, lesson);
}

/// <summary>An act that brings a message.</summary>
internal interface IMessage;

/// <summary>Something said of a message in the chat.</summary>
/// <param name="Message">The id of the entry of the message.</param>
public abstract record ChatAct(Guid Message) : Act
{
    /// <inheritdoc/>
    public override bool IsDecision => true;

    /// <inheritdoc/>
    public override Reach Reach => Reach.WhoItIsAbout;

    internal override IEnumerable<Guid> About(LessonParts lesson) => lesson.See<ChatLog>().MessageOf(Message)?.Student is { } writer ? [writer] : [];

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) =>
        lesson.ActOf(Message) is IMessage ? null : "This message is not in this lesson.";

    internal sealed override bool SpeaksOfEarlier(LessonParts lesson, Entry entry, IReadOnlySet<Guid> among) => !among.Contains(Message);

    internal sealed override void Learn(LessonParts lesson, Entry entry) =>
        lesson.Change<ChatLog>().Learn(Message, words => With(words, entry));

    internal sealed override void Apply(LessonParts lesson, Entry entry)
    {
        // All of it was learned.
    }

    /// <summary>What is said of a message, with this.</summary>
    internal abstract SaidOfMessage With(SaidOfMessage said, Entry entry);
}

/// <summary>What a message was, by the sweep. The last word counts.</summary>
public sealed record ChatSorted(Guid Message, ChatKind Kind) : ChatAct(Message)
{
    /// <inheritdoc/>
    public override string InWords => $"a message sorted: {Kind.InWords()}";

    internal override SaidOfMessage With(SaidOfMessage said, Entry entry) => said with { Sorted = (Kind, entry.Id) };
}

/// <summary>A message is not to be shown outside of settling any more. What it counts for stays.</summary>
public sealed record ChatHidden(Guid Message) : ChatAct(Message)
{
    /// <inheritdoc/>
    public override string InWords => "a message hidden";

    internal override SaidOfMessage With(SaidOfMessage said, Entry entry) => said with { Hidden = entry.Id };
}

/// <summary>A question in the chat was answered, aloud or otherwise.</summary>
public sealed record ChatDealtWith(Guid Message) : ChatAct(Message)
{
    /// <inheritdoc/>
    public override string InWords => "a question in the chat answered";

    internal override SaidOfMessage With(SaidOfMessage said, Entry entry) => said with { DealtWith = entry.Id };
}

/// <summary>A message from a student page is shown to the class.</summary>
/// <param name="Message">The id of the entry of the message.</param>
/// <param name="WithoutName">Whether the class is not to see who wrote it.</param>
public sealed record MessageShown(Guid Message, bool WithoutName = false) : ChatAct(Message)
{
    /// <inheritdoc/>
    public override string InWords => WithoutName ? "a message shown to the class without a name" : "a message shown to the class";

    internal override string? WhyRefused(Entry entry, LessonFacts lesson) => base.WhyRefused(entry, lesson)
        ?? (lesson.ActOf(Message) is StudentWrote ? null : "Only messages from student pages are shown to the class here.");

    internal override SaidOfMessage With(SaidOfMessage said, Entry entry) => said with { Shown = entry.Id, WithoutName = WithoutName };
}
